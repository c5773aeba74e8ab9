'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import { useEffect, type ReactNode } from 'react';
import { followWithFolder } from '@/store/folder';
import { openKeeping, useKeeping } from '@/store/keeping';
import { tell } from '@/ui/actions/tell';
import { useAskBeforeClosing } from '@/ui/common/useAskBeforeClosing';

/** Shows the application once there is a place for what is made; where nothing outlives the window, says so above everything. */
export function Kept({ children }: { readonly children: ReactNode }) {
  const { keeping, why } = useKeeping();
  useEffect(() => void openKeeping(), []);
  // The folder on the disk, where there is one, follows from wherever the maker is.
  useEffect(() => (keeping === 'device' ? followWithFolder((why) => tell('error', why)) : undefined), [keeping]);
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
  if (!windowOnly) return children;
  return (
    <Box sx={{ height: '100vh', display: 'flex', flexDirection: 'column', '--page-height': '100%' }}>
      <Alert severity="warning" variant="filled" sx={{ borderRadius: 0, flex: 'none', bgcolor: '#7a560f', color: '#fff' }}>
        {why} You can make, import and export jobs all the same, but nothing outlives this window: export what you want to keep before you
        close it.
      </Alert>
      <Box sx={{ flex: 1, minHeight: 0 }}>{children}</Box>
    </Box>
  );
}
