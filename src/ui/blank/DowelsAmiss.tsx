'use client';
import Typography from '@mui/material/Typography';
import { dowelsAmiss } from '@/core/job/dowels';
import { useOpenJob } from '@/store/openJob';
import { useLater } from '@/ui/later';

/** Why the blank of the set-up that is shown does not go back on its dowels; nothing where it does. */
export function DowelsAmiss() {
  const { whole, shownId } = useLater(useOpenJob, (s) => s);
  const amiss = whole && shownId ? dowelsAmiss(whole, shownId, whole.unit) : null;
  return (
    amiss && (
      <Typography variant="body2" sx={{ color: 'error.main', mt: 1 }}>
        {amiss}
      </Typography>
    )
  );
}
