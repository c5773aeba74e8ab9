'use client';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import { offBlank } from '@/core/artwork/picking';
import type { OneSetup } from '@/core/job/job';
import { setView } from '@/ui/view';

/** Says what of the artwork reaches beyond the blank, and picks it. */
export function OffBlank({ job, placed }: { job: OneSetup; placed: ReadonlyMap<string, PlacedItem> }) {
  const { width, height } = job.blank;
  const { over, off } = useMemo(
    () =>
      offBlank(
        job.items.flatMap((i) => (i.visible && placed.get(i.id) ? [{ id: i.id, placed: placed.get(i.id)! }] : [])),
        { width, height },
      ),
    [job.items, placed, width, height],
  );
  if (!over.length) return null;
  const things = (n: number) => (n === 1 ? '1 thing' : `${n} things`);
  return (
    <Typography variant="body2" role="status" sx={{ px: 2, pb: 1, color: 'error.main' }}>
      {off.length
        ? `${things(off.length)} ${off.length === 1 ? 'lies' : 'lie'} off the blank`
        : `${things(over.length)} ${over.length === 1 ? 'reaches' : 'reach'} beyond the blank`}
      {off.length > 0 && over.length > off.length
        ? `, ${over.length - off.length} more ${over.length - off.length === 1 ? 'reaches' : 'reach'} beyond its edge`
        : ''}
      .{' '}
      <Link component="button" onClick={() => setView({ picked: over })}>
        Pick {over.length === 1 ? 'it' : 'them'}
      </Link>
    </Typography>
  );
}
