'use client';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import AddRounded from '@mui/icons-material/AddRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { durationText } from '@/core/units/duration';
import { stopWork } from '@/compute/engineHandle';
import { useWork } from '@/compute/useWork';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { moveCut } from '@/ui/actions/edits';
import { Empty, SheetHead } from '@/ui/common/SheetParts';
import { useView } from '@/ui/view';
import { CutCard } from './CutCard';
import { cutAsBelow } from './CutAsMenu';
import { WorkLeft } from '@/ui/common/Waiting';
import { CutEditor } from './CutEditor';
import { ManyCuts } from './ManyCuts';

export function CutsSheet() {
  const job = useLater(useOpenJob, (s) => s.job)!;
  const cutId = useLater(useView, (v) => v.cutId);
  const picked = useLater(useView, (v) => v.picked);
  const proof = useLater(useWork, (w) => w.proof);
  const busy = useLater(useWork, (w) => w.planning !== null || w.proving !== null);
  const stopped = useLater(useWork, (w) => w.stopped);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const air = proof ? proof.times.reduce((s, t) => s + t.time.air, 0) / 60 : 0;
  const cutters = new Set(proof?.tools.map((t) => t.cutterId)).size;
  const cut = job.cuts.find((c) => c.id === cutId);
  const also = useLater(useView, (v) => v.alsoCuts);
  const many = job.cuts.filter((c) => c.id === cutId || also.includes(c.id));
  const end = (e: DragEndEvent) => {
    if (e.over && e.active.id !== e.over.id)
      moveCut(
        String(e.active.id),
        job.cuts.findIndex((c) => c.id === e.over!.id),
      );
  };
  return (
    <>
      <SheetHead
        title="Cuts"
        remark={
          proof && job.cuts.length
            ? `${cutters} ${cutters === 1 ? 'cutter' : 'cutters'} \u00b7 ${durationText(proof.minutes)}${proof.minutes > 0 ? `, ${Math.round((100 * air) / proof.minutes)} % in the air` : ''}`
            : ''
        }
      />
      {!job.cuts.length && (
        <Empty title="No cuts yet">
          {job.items.length
            ? 'Pick artwork on the table, then add a cut for it.'
            : 'Draw something under Artwork first; a cut is made for what is picked.'}
        </Empty>
      )}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
        <SortableContext items={job.cuts.map((c) => c.id)} strategy={verticalListSortingStrategy}>
          <Box
            component="ol"
            aria-label="Cut plan"
            sx={{ listStyle: 'none', m: 0, p: 0, px: 1.5, display: 'grid', gap: 1 }}
          >
            {job.cuts.map((c, i) => (
              <CutCard key={c.id} cut={c} index={i} />
            ))}
          </Box>
        </SortableContext>
      </DndContext>
      <Box sx={{ px: 1.5, py: 1.25, display: 'flex', gap: 1, alignItems: 'center' }}>
        <Button
          variant="contained"
          startIcon={<AddRounded />}
          onClick={(e) => cutAsBelow(e.currentTarget)}
          aria-haspopup="menu"
        >
          Add a cut
        </Button>
        {busy && !stopped && (
          <Button color="inherit" onClick={stopWork}>
            Stop working
          </Button>
        )}
        <Typography variant="caption" sx={{ color: 'text.secondary' }}>
          {picked.length ? `for ${picked.length} picked ${picked.length === 1 ? 'item' : 'items'}` : ''}
        </Typography>
      </Box>
      <WorkLeft />
      {many.length > 1 ? <ManyCuts cuts={many} /> : cut && <CutEditor key={cut.id} cut={cut} />}
    </>
  );
}
