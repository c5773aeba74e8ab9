'use client';
import AdjustRounded from '@mui/icons-material/AdjustRounded';
import ArchitectureRounded from '@mui/icons-material/ArchitectureRounded';
import ContentCutRounded from '@mui/icons-material/ContentCutRounded';
import GestureRounded from '@mui/icons-material/GestureRounded';
import NearMeOutlined from '@mui/icons-material/NearMeOutlined';
import PolylineOutlined from '@mui/icons-material/PolylineOutlined';
import ScatterPlotOutlined from '@mui/icons-material/ScatterPlotOutlined';
import StraightenRounded from '@mui/icons-material/StraightenRounded';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import { action } from '@/ui/actions/registry';
import { useView, type Tool } from '@/ui/view';

const icons: Record<Tool, ReactNode> = {
  pick: <NearMeOutlined fontSize="small" sx={{ transform: 'scaleX(-1)' }} />,
  line: <PolylineOutlined fontSize="small" />,
  curve: <GestureRounded fontSize="small" />,
  arc: <ArchitectureRounded fontSize="small" />,
  'centred-arc': <AdjustRounded fontSize="small" />,
  nodes: <ScatterPlotOutlined fontSize="small" />,
  trim: <ContentCutRounded fontSize="small" />,
  measure: <StraightenRounded fontSize="small" />,
};

/** Room at the left of the plan that the tools take, pixels: the blank is fitted beside it. */
export const STRIP = 40;

/** What a press on the plan does. */
export function ToolBar() {
  const tool = useView((v) => v.tool);
  return (
    <Box
      role="toolbar"
      aria-label="Tools of the plan"
      onPointerDown={(e) => e.stopPropagation()}
      sx={{
        position: 'absolute',
        top: 28,
        left: 28,
        display: 'flex',
        flexDirection: 'column',
        flexWrap: 'wrap',
        maxHeight: 'calc(100% - 36px)',
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: 'divider',
        borderRadius: 2,
        p: 0.25,
      }}
    >
      {(Object.keys(icons) as Tool[]).map((t) => {
        const a = action(`tool-${t}`);
        return (
          <Tooltip key={t} title={`${a.name} (${a.shortcut})`} placement="right">
            <IconButton
              size="small"
              aria-label={a.name}
              aria-pressed={tool === t}
              color={tool === t ? 'primary' : 'default'}
              onClick={a.run}
              sx={{ borderRadius: 1.5, bgcolor: tool === t ? 'var(--mui-palette-wash)' : undefined }}
            >
              {icons[t]}
            </IconButton>
          </Tooltip>
        );
      })}
    </Box>
  );
}
