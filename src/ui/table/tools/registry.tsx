'use client';
import AdjustRounded from '@mui/icons-material/AdjustRounded';
import ArchitectureRounded from '@mui/icons-material/ArchitectureRounded';
import ContentCutRounded from '@mui/icons-material/ContentCutRounded';
import GestureRounded from '@mui/icons-material/GestureRounded';
import NearMeOutlined from '@mui/icons-material/NearMeOutlined';
import PolylineOutlined from '@mui/icons-material/PolylineOutlined';
import ScatterPlotOutlined from '@mui/icons-material/ScatterPlotOutlined';
import StraightenRounded from '@mui/icons-material/StraightenRounded';
import type { ComponentType, ReactNode } from 'react';
import type { Tool } from '@/ui/planTools';
import { Handles } from '../Handles';
import { DrawLayer } from './DrawLayer';
import { MeasureLayer } from './MeasureLayer';
import { NodesLayer } from './NodesLayer';
import { TrimLayer } from './TrimLayer';
import type { LayerProps } from './usePointer';

/** How each tool of the plan looks in the bar, and what it puts over the plan while it is chosen. */
export const toolLooks: Readonly<
  Record<Tool, { readonly icon: ReactNode; readonly Layer: ComponentType<LayerProps> }>
> = {
  pick: { icon: <NearMeOutlined fontSize="small" sx={{ transform: 'scaleX(-1)' }} />, Layer: Handles },
  line: { icon: <PolylineOutlined fontSize="small" />, Layer: (p) => <DrawLayer tool="line" {...p} /> },
  curve: { icon: <GestureRounded fontSize="small" />, Layer: (p) => <DrawLayer tool="curve" {...p} /> },
  arc: { icon: <ArchitectureRounded fontSize="small" />, Layer: (p) => <DrawLayer tool="arc" {...p} /> },
  'centred-arc': { icon: <AdjustRounded fontSize="small" />, Layer: (p) => <DrawLayer tool="centred-arc" {...p} /> },
  nodes: { icon: <ScatterPlotOutlined fontSize="small" />, Layer: NodesLayer },
  trim: { icon: <ContentCutRounded fontSize="small" />, Layer: TrimLayer },
  measure: { icon: <StraightenRounded fontSize="small" />, Layer: MeasureLayer },
};
