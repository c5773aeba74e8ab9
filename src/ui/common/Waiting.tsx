'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { resumeWork } from '@/compute/engineHandle';
import { useWorkLater } from '@/ui/following';

/** What is said in the place of a result that is not there yet, or that does not come. */
export const waitingWords = (w: { readonly stopped: boolean; readonly error: string }): string =>
  w.error ? 'Not worked out' : w.stopped ? 'Stopped' : 'Working\u2026';

/** Whether nothing is at work on what is not there yet. */
export const isLeft = (w: { readonly stopped: boolean; readonly error: string }): boolean => w.stopped || !!w.error;

/** Why nothing is at work on what is not there yet, and the way on. */
export function WorkLeft() {
  const error = useWorkLater((w) => w.error);
  const stopped = useWorkLater((w) => w.stopped);
  if (!error && !stopped) return null;
  return (
    <Box sx={{ px: 2, pb: 1.5, display: 'grid', justifyItems: 'start', gap: 0.5 }}>
      {error ? (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
          {error}
        </Typography>
      ) : (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          The work was stopped. It goes on when you ask for it, or change something.
        </Typography>
      )}
      <Button size="small" variant="outlined" color="inherit" onClick={resumeWork}>
        {error ? 'Try again' : 'Go on working'}
      </Button>
    </Box>
  );
}
