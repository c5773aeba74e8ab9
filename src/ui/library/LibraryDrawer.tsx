'use client';
import CloseRounded from '@mui/icons-material/CloseRounded';
import Drawer from '@mui/material/Drawer';
import IconButton from '@mui/material/IconButton';
import { setView, useView } from '@/ui/view';
import { Library } from './Library';

/** The tool library beside a job. */
export function LibraryDrawer() {
  const open = useView((v) => v.library);
  return (
    <Drawer
      anchor="right"
      open={open}
      onClose={() => setView({ library: false })}
      slotProps={{ paper: { sx: { width: 860, maxWidth: '96vw' }, 'aria-label': 'Tool library', role: 'dialog' } }}
    >
      {open && (
        <Library
          onClose={
            <IconButton aria-label="Close the tool library" onClick={() => setView({ library: false })}>
              <CloseRounded />
            </IconButton>
          }
        />
      )}
    </Drawer>
  );
}
