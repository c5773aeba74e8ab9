'use client';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { isUpToDate, useWork } from '@/compute/useWork';
import { mends } from '@/core/proof/mends';
import { useLibrary } from '@/ui/library/useLibrary';
import { freshId } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';

/** The one press that mends a finding. */
export function MendButton({
  mend,
  cutId,
  x,
  y,
}: {
  mend: string;
  cutId: string | null;
  x: number | null;
  y: number | null;
}) {
  const { words, apply, lacks, twice } = mends[mend];
  const library = useLibrary((l) => l.cutters);
  const job = useOpenJob((s) => s.job);
  const waits = useWork((w) => {
    const { whole, shownId } = useOpenJob.getState();
    return !!twice && !!whole && !!shownId && !isUpToDate(whole, shownId, w);
  });
  const why = job && lacks?.(job, cutId, library);
  if (why)
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {why}
      </Typography>
    );
  return (
    <Button
      size="small"
      variant="outlined"
      disabled={waits}
      sx={{ mr: 1, minHeight: 26 }}
      onClick={() => useOpenJob.getState().edit(words, (j) => apply(j, cutId, { x, y }, library, freshId))}
    >
      {words}
    </Button>
  );
}
