'use client';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useState } from 'react';
import { useOpenJob } from '@/store/openJob';
import { takeFiles } from '@/ui/actions/drawingFiles';
import { addPiece, PIECE } from '@/ui/actions/reliefLibrary';
import { giveUpStroke } from '@/ui/actions/sculpt';
import { useView } from '@/ui/view';
import { BrushLayer } from './BrushLayer';
import { FormFrame } from './FormFrame';
import { Guides } from './Guides';
import { PickIndex } from './pick';
import { PinLayer, PinMarks } from './PinMarks';
import { MarksAbove, MarksBelow } from './PlanMarks';
import { SeamMarks } from './SeamMarks';
import { SectionLineMark } from './SectionLineMark';
import { SplitLine } from './SplitLine';
import { TabMarks } from './TabMarks';
import { ToolBar } from './tools/ToolBar';
import { toolLooks } from './tools/registry';
import { toWorld } from './viewport';
import { usePinch } from './usePinch';
import { usePlaced } from './usePlaced';
import { usePlanDrawing } from './usePlanDrawing';
import { usePlanGestures } from './usePlanGestures';
import { usePlanViewport } from './usePlanViewport';

/** Room that the tools of the plan take in one column, pixels. */
const TOOLS = 46;

const takes = ({ types }: DataTransfer): boolean => types.includes('Files') || types.includes(PIECE);

/** The blank from above: artwork, paths, marks; where things are picked, dragged and drawn. */
export function PlanView() {
  const job = useOpenJob((s) => s.job)!;
  const placed = usePlaced(job.items);
  const tool = useView((v) => v.tool);
  const sectionOpen = useView((v) => v.sectionOpen);
  const stage = useView((v) => v.stage);
  // What the tools take until they say how much it is.
  const [tools, setTools] = useState(TOOLS);
  const { holder, size, view, local, look, space } = usePlanViewport(job.blank, stage === 'artwork' ? tools : 0);
  const index = useMemo(() => new PickIndex(job, placed), [job, placed]);
  useEffect(() => {
    const t = setTimeout(() => index.warm(), 250);
    return () => clearTimeout(t);
  }, [index]);
  const { gesture, snap, shift, giveUp, handlers } = usePlanGestures({ job, placed, index, view, local, look, space });
  const canvas = usePlanDrawing(size, view, job, placed, shift);
  const pinch = usePinch(
    local,
    () => {
      giveUp();
      giveUpStroke();
    },
    look,
  );
  const { Layer } = toolLooks[tool];
  return (
    <Box
      ref={holder}
      role="application"
      aria-label="Plan of the blank"
      aria-busy={!view || placed.size < job.items.length}
      tabIndex={0}
      {...handlers}
      {...pinch}
      onDragOver={(e) => takes(e.dataTransfer) && e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const piece = e.dataTransfer.getData(PIECE);
        if (!piece) return void takeFiles([...e.dataTransfer.files]);
        e.dataTransfer.dropEffect = 'copy';
        const p = local(e);
        if (view) void addPiece(piece, toWorld(view, p.x, p.y));
      }}
      sx={{
        position: 'absolute',
        inset: 0,
        cursor: gesture?.kind === 'pan' ? 'grabbing' : 'default',
        touchAction: 'none',
        userSelect: 'none',
        outline: 'none',
        '&:focus-visible': { boxShadow: 'inset 0 0 0 2px var(--mui-palette-primary-main)' },
      }}
    >
      <canvas ref={canvas} style={{ width: '100%', height: '100%', display: 'block' }} />
      {view && (
        <svg
          width="100%"
          height="100%"
          style={{ position: 'absolute', inset: 0, overflow: 'hidden', pointerEvents: 'none' }}
        >
          <MarksBelow job={job} placed={placed} view={view} gesture={gesture} snap={snap} />
          {stage === 'artwork' && (
            <Guides guides={job.guides} view={view} local={local} width={size.width} height={size.height} />
          )}
          {stage === 'relief' && <BrushLayer view={view} local={local} />}
          {sectionOpen && <SectionLineMark view={view} local={local} />}
          {stage === 'relief' && <FormFrame view={view} local={local} />}
          {stage === 'relief' && <SplitLine view={view} local={local} />}
          {stage === 'relief' && <PinLayer view={view} local={local} />}
          {stage === 'relief' && <PinMarks view={view} />}
          {stage === 'cuts' && <TabMarks view={view} local={local} />}
          {stage === 'artwork' && (
            <Layer key={tool} job={job} placed={placed} view={view} local={local} index={index} />
          )}
          <SeamMarks job={job} view={view} />
          <MarksAbove view={view} />
        </svg>
      )}
      {stage === 'artwork' && <ToolBar height={size.height} onRoom={setTools} />}
    </Box>
  );
}
