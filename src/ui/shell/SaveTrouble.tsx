'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { storageMessage } from '@/store/db';
import { useOpenJob } from '@/store/openJob';
import { exportOpenJob } from '@/ui/actions/files';
import { tell } from '@/ui/actions/tell';
import { useOpenJobLater } from '@/ui/following';
import { BothVersions } from './BothVersions';

/** What went wrong with saving, and the ways out; the job in the window stays as it is. */
export function SaveTrouble() {
  const save = useOpenJobLater((s) => s.save);
  const slow = useOpenJobLater((s) => s.slow);
  const saveError = useOpenJobLater((s) => s.saveError);
  const other = useOpenJobLater((s) => s.other);
  const { takeOther, keepMine, putBack } = useOpenJob.getState();
  const [comparing, setComparing] = useState(false);
  const router = useRouter();
  const tried = (work: Promise<unknown>) => void work.catch((e) => tell('error', storageMessage(e)));
  // Until a save is done, what was said of the last one stands.
  if (save === 'failed' || (slow && (save === 'saving' || save === 'pending')))
    return (
      <Alert
        severity="error"
        variant="filled"
        action={
          <>
            <Button color="inherit" onClick={() => void exportOpenJob()}>
              Export to a file
            </Button>
            {save === 'failed' && (
              <Button
                color="inherit"
                onClick={() => {
                  useOpenJob.setState({ save: 'pending' });
                  void useOpenJob.getState().flush();
                }}
              >
                Try again
              </Button>
            )}
          </>
        }
      >
        {saveError ||
          'The last changes are not on the disk yet: this device is slow to answer, or has no room left. Export the job to a file before you close this window.'}
      </Alert>
    );
  if (save !== 'changed' && save !== 'gone') return null;
  const keep = (
    <Button color="inherit" onClick={() => tried(keepMine().then((id) => id && router.push(`/job/${id}`)))}>
      Keep mine as a copy
    </Button>
  );
  if (save === 'gone')
    return (
      <Alert
        severity="warning"
        variant="outlined"
        sx={{ borderRadius: 0 }}
        action={
          <>
            <Button color="inherit" onClick={() => tried(putBack())}>
              Put it back
            </Button>
            {keep}
          </>
        }
      >
        This job was deleted in another window. Yours is still here.
      </Alert>
    );
  return (
    <>
      <Alert
        severity="warning"
        variant="outlined"
        sx={{ borderRadius: 0 }}
        action={
          <>
            {!!other?.conflicts.length && (
              <Button color="inherit" onClick={() => setComparing(true)}>
                Compare
              </Button>
            )}
            <Button color="inherit" onClick={() => tried(takeOther())}>
              Take the other version
            </Button>
            {keep}
          </>
        }
      >
        {other?.conflicts.length
          ? 'The same thing was changed here and in another window. Nothing is saved over it until you choose.'
          : 'This job was changed in another window, and the two versions do not fit together. Yours is not saved over it.'}
      </Alert>
      {other && <BothVersions open={comparing} other={other} onClose={() => setComparing(false)} />}
    </>
  );
}
