'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useOpenJob } from '@/store/openJob';
import { exportHeldJob } from '@/ui/actions/files';
import { useAskBeforeClosing } from '@/ui/common/useAskBeforeClosing';

/** Jobs that were left while they could not be saved: they are in this window only, and are there to be opened or exported. */
export function HeldJobs() {
  const held = Object.entries(useOpenJob((s) => s.held));
  useAskBeforeClosing(held.length > 0);
  const router = useRouter();
  return held.map(([id, name]) => (
    <Alert
      key={id}
      severity="error"
      sx={{ mb: 2 }}
      action={
        <>
          <Button color="inherit" onClick={() => void exportHeldJob(id)}>
            Export to a file
          </Button>
          <Button color="inherit" onClick={() => router.push(`/job/${id}`)}>
            Open it again
          </Button>
        </>
      }
    >
      The last changes of &quot;{name}&quot; could not be saved. They are in this window only.
    </Alert>
  ));
}
