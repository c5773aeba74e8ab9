'use client';
import Button from '@mui/material/Button';
import { mends } from '@/core/proof/mends';
import { useLibrary } from '@/ui/library/useLibrary';
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
  const { words, apply } = mends[mend];
  return (
    <Button
      size="small"
      variant="outlined"
      sx={{ mr: 1, minHeight: 26 }}
      onClick={() => useOpenJob.getState().edit(words, (j) => apply(j, cutId, { x, y }, useLibrary.getState().cutters))}
    >
      {words}
    </Button>
  );
}
