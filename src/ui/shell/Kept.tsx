'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import { useEffect, useState, type ReactNode } from 'react';
import { followWithFolder } from '@/store/folder';
import { followWithSecond, openKeeping, useKeeping } from '@/store/keeping';
import type { PutBackCount } from '@/store/second';
import { tell } from '@/ui/actions/tell';
import { keepMirvak, startNewer, useOffline } from '@/ui/offline/offline';
import { useAskBeforeClosing } from '@/ui/common/useAskBeforeClosing';

/** What the browser had lost, in words; null for nothing. */
export function putBackWords({ jobs, broken, rest, failed }: PutBackCount): string | null {
  if (failed)
    return 'What lies in the second copy on this device could not be looked at, or put back where the browser has lost it. Make room on the disk and open Mirvak anew; nothing is taken from the copy meanwhile.';
  if (!jobs && !broken && !rest) return null;
  const count = (n: number) => `${n} ${n === 1 ? 'job' : 'jobs'}`;
  const back = [jobs && count(jobs), rest && 'the tool library and settings'].filter(Boolean).join(', ');
  return [
    'The browser has lost its database, as it may after a disk was full.',
    back && `From the second copy on this device came back: ${back}. What was done before cannot be undone any more.`,
    broken && `${count(broken)} could not be read whole there: bring back your last backup under Safekeeping.`,
  ]
    .filter(Boolean)
    .join(' ');
}

/** Shows the application once there is a place for what is made; where nothing outlives the window, says so above everything. */
export function Kept({ children }: { readonly children: ReactNode }) {
  const { keeping, why, putBack } = useKeeping();
  const [read, setRead] = useState(false);
  useEffect(() => void openKeeping(), []);
  // The folder on the disk, where there is one, follows from wherever the maker is.
  useEffect(() => (keeping === 'device' ? followWithFolder((why) => tell('error', why)) : undefined), [keeping]);
  useEffect(() => (keeping === 'device' ? followWithSecond() : undefined), [keeping]);
  useEffect(keepMirvak, []);
  const newer = useOffline((o) => o.newer);
  // Never in the middle of work: it waits until it is started here, or under Safekeeping.
  useEffect(() => {
    if (newer)
      tell('info', 'A newer Mirvak is ready. What you have open stays as it is until you start it.', {
        words: 'Start it',
        run: startNewer,
      });
  }, [newer]);
  const windowOnly = keeping === 'window';
  useAskBeforeClosing(windowOnly);
  if (keeping === 'asking')
    return (
      <Box
        sx={{
          height: '100vh',
          display: 'grid',
          placeItems: 'center',
          opacity: 0,
          animation: 'mirvak-late 0s 0.5s forwards',
          '@keyframes mirvak-late': { to: { opacity: 1 } },
        }}
      >
        <CircularProgress aria-label="Opening what this device keeps" />
      </Box>
    );
  const back = putBackWords(putBack);
  if (!windowOnly && !back) return children;
  return (
    <Box sx={{ height: '100vh', display: 'flex', flexDirection: 'column', '--page-height': '100%' }}>
      {!(back && read) && (
        <Alert
          severity="warning"
          variant="filled"
          onClose={windowOnly ? undefined : () => setRead(true)}
          sx={{ borderRadius: 0, flex: 'none', bgcolor: '#7a560f', color: '#fff' }}
        >
          {back ??
            `${why} You can make, import and export jobs all the same, but nothing outlives this window: export what you want to keep before you close it.`}
        </Alert>
      )}
      <Box sx={{ flex: 1, minHeight: 0 }}>{children}</Box>
    </Box>
  );
}
