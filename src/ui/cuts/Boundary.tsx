'use client';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { boundaryOf } from '@/core/artwork/picking';
import type { Cut, OneSetup } from '@/core/job/job';
import { changeCut } from '@/ui/actions/edits';
import { usePlaced } from '@/ui/table/usePlaced';

/** Says that a cut that fills goes around what lies in its largest outline, and lets one cut inside of it instead. */
export function Boundary({ cut, job }: { cut: Cut; job: OneSetup }) {
  const placed = usePlaced(job.items);
  const id = useMemo(
    () => boundaryOf(cut.items.flatMap((q) => (placed.get(q) ? [{ id: q, placed: placed.get(q)! }] : []))),
    [cut.items, placed],
  );
  const boundary = id && job.items.find((i) => i.id === id);
  if (!boundary) return null;
  const inside = cut.items.length - 1;
  return (
    <Typography variant="caption" component="p" sx={{ mt: -0.5, mb: 1.25, color: 'text.secondary' }}>
      &ldquo;{boundary.name}&rdquo; is the boundary: it is cut around the{' '}
      {inside === 1 ? 'thing inside, which stays' : `${inside} things inside, which stay`} standing.{' '}
      <Link
        component="button"
        onClick={() => changeCut(cut.id, 'Cut inside', (c) => void (c.items = c.items.filter((q) => q !== id)))}
      >
        Cut inside instead
      </Link>
    </Typography>
  );
}
