'use client';
import Typography from '@mui/material/Typography';
import { dowelsAmiss } from '@/core/job/dowels';
import { useOpenJobLater } from '@/ui/following';

/** Why the blank of the set-up that is shown does not go back on its dowels; nothing where it does. */
export function DowelsAmiss() {
  const { whole, shownId } = useOpenJobLater((s) => s);
  const amiss = whole && shownId ? dowelsAmiss(whole, shownId, whole.unit) : null;
  return (
    amiss && (
      <Typography variant="body2" sx={{ color: 'error.main', mt: 1 }}>
        {amiss}
      </Typography>
    )
  );
}
