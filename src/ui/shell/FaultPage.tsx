'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { useOpenJob } from '@/store/openJob';
import { exportVersion } from '@/ui/actions/files';
import { copyDetails } from '@/ui/actions/tell';
import { resetView } from '@/ui/view';

/** Stands where a whole page has failed: the open job can be exported, and gone back to. */
export function FaultPage({ error, again }: { readonly error: Error; readonly again: () => void }) {
  // As it stands now: the page that has failed closes its job when it is taken away, a moment later.
  const [{ id, whole: job }] = useState(useOpenJob.getState);
  useEffect(() => console.error(error), [error]);
  return (
    <Box component="main" sx={{ p: 6, maxWidth: 620 }}>
      <Typography variant="h1">Something went wrong</Typography>
      <Typography sx={{ my: 2 }}>
        This is a fault of Mirvak.{' '}
        {job
          ? `Your job "${job.name}" is here as you left it: export it to a file to be sure of it, then try again.`
          : 'Your jobs are on this device as they were.'}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {id && job && (
          <Button variant="contained" onClick={() => void exportVersion(id, job)}>
            Export the job to a file
          </Button>
        )}
        <Button variant="outlined" onClick={() => (resetView(), again())}>
          Try again
        </Button>
        <Button color="inherit" onClick={() => copyDetails(error)}>
          Copy the details
        </Button>
        <Button color="inherit" href="/">
          Job shelf
        </Button>
      </Box>
    </Box>
  );
}
