'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useBusy } from '@/ui/common/busy';

/** Says what takes longer than a moment, with a way to stop it. */
export function BusyBar() {
  const { list } = useBusy();
  if (!list.length) return null;
  return (
    <Box
      role="status"
      sx={{
        position: 'fixed',
        bottom: 24,
        left: '50%',
        transform: 'translateX(-50%)',
        zIndex: 1500,
        width: 'min(420px, calc(100vw - 32px))',
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: 'var(--mui-palette-line)',
        borderRadius: 2.5,
        boxShadow: 6,
        overflow: 'hidden',
      }}
    >
      {list.map((b) => (
        <Box key={b.id}>
          <LinearProgress aria-label={b.words} />
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, pl: 2, pr: 1, py: 0.5 }}>
            <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere', fontSize: 14 }}>{b.words}</Box>
            <Button onClick={b.stop}>Stop</Button>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
