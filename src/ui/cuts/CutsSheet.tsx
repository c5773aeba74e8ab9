'use client';
import AddRounded from '@mui/icons-material/AddRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { durationText } from '@/core/units/duration';
import { stopWork } from '@/compute/engineHandle';
import { OfPicked } from '@/ui/common/OfPicked';
import { After, turns } from '@/ui/later';
import { moveCut } from '@/ui/actions/edits';
import { Empty, SheetHead } from '@/ui/common/SheetParts';
import { SortableList } from '@/ui/common/SortableList';
import { CutCard } from './CutCard';
import { cutAsBelow } from './CutAsMenu';
import { WorkLeft } from '@/ui/common/Waiting';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { CutEditor } from './CutEditor';
import { ManyCuts } from './ManyCuts';

export function CutsSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const cutId = useViewLater((v) => v.cutId);
  const picked = useViewLater((v) => v.picked);
  const proof = useWorkLater((w) => w.proof);
  const busy = useWorkLater((w) => w.planning !== null || w.proving !== null);
  const stopped = useWorkLater((w) => w.stopped);
  const air = proof ? proof.times.reduce((s, t) => s + t.time.air, 0) / 60 : 0;
  const cutters = new Set(proof?.tools.map((t) => t.cutterId)).size;
  const cut = job.cuts.find((c) => c.id === cutId);
  const also = useViewLater((v) => v.alsoCuts);
  const many = job.cuts.filter((c) => c.id === cutId || also.includes(c.id));
  return (
    <>
      <SheetHead
        title="Cuts"
        remark={
          proof && job.cuts.length && cutters
            ? `${cutters} ${cutters === 1 ? 'cutter' : 'cutters'} \u00b7 ${durationText(proof.minutes)}${proof.minutes > 0 ? `, ${Math.round((100 * air) / proof.minutes)} % in the air` : ''}`
            : ''
        }
      />
      {!job.cuts.length && (
        <Empty title="No cuts yet">
          {job.relief.forms.length > 0 && 'Relief roughing and relief finishing cut the relief as it stands. '}
          {job.items.length
            ? 'Pick artwork on the table, then add a cut for it.'
            : `Draw something under Artwork first${job.relief.forms.length ? ' for any other cut; it' : '; a cut'} is made for what is picked.`}
        </Empty>
      )}
      <SortableList
        label="Cut plan"
        ids={job.cuts.map((c) => c.id)}
        move={(id, over) =>
          moveCut(
            id,
            job.cuts.findIndex((c) => c.id === over),
          )
        }
        sx={{ gap: 1 }}
      >
        {job.cuts.map((c, i) => (
          <CutCard key={c.id} cut={c} index={i} />
        ))}
      </SortableList>
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
      <After turn={turns.form}>
        <OfPicked which={(v) => v.cutId} shown={cutId}>
          {many.length > 1 ? <ManyCuts cuts={many} /> : cut && <CutEditor key={cut.id} cut={cut} />}
        </OfPicked>
      </After>
    </>
  );
}
