'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { resumeWork, useWork } from '@/compute/pipeline';
import { useLater } from '@/ui/later';

/** What is said in the place of a result that is not there yet, or that does not come. */
export const waitingWords = (w: { readonly stopped: boolean; readonly error: string }): string =>
  w.error ? 'Not worked out' : w.stopped ? 'Stopped' : 'Working\u2026';

/** Whether nothing is at work on what is not there yet. */
export const isLeft = (w: { readonly stopped: boolean; readonly error: string }): boolean => w.stopped || !!w.error;

/** What went wrong while something was worked out, and a way to try it once more. */
export function WorkFault() {
  const error = useLater(useWork, (w) => w.error);
  if (!error) return null;
  return (
    <Box sx={{ px: 2, pb: 1.5, display: 'grid', justifyItems: 'start', gap: 0.5 }}>
      <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
        {error}
      </Typography>
      <Button size="small" color="inherit" sx={{ ml: -0.75 }} onClick={resumeWork}>
        Try again
      </Button>
    </Box>
  );
}
