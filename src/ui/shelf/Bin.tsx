'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { JobRow } from '@/store/db';

interface Props {
  /** Deleted jobs, what came last first. */
  readonly rows: readonly JobRow[];
  readonly ago: (time: number) => string;
  readonly onPutBack: (row: JobRow) => void;
  readonly onEmpty: () => void;
}

/** The bin of the shelf: what was deleted within the last day, to be put back, or to go for good. */
export function Bin({ rows, ago, onPutBack, onEmpty }: Props) {
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  const close = () => {
    setOpen(false);
    setSure(false);
  };
  if (!rows.length) return null;
  return (
    <>
      <Button color="inherit" onClick={() => setOpen(true)} sx={{ mt: 3, color: 'text.secondary' }}>
        Bin, {rows.length} {rows.length === 1 ? 'job' : 'jobs'}
      </Button>
      <Dialog open={open} onClose={close} fullWidth maxWidth="sm" slotProps={{ paper: { 'aria-label': 'Bin' } }}>
        <DialogContent>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            Bin
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 2 }}>
            A deleted job goes for good after a day.
          </Typography>
          <Box component="ul" aria-label="Deleted jobs" sx={{ listStyle: 'none', p: 0, m: 0 }}>
            {rows.map((row) => (
              <Box
                component="li"
                key={row.id}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 1,
                  py: 0.75,
                  borderTop: '1px solid',
                  borderColor: 'divider',
                }}
              >
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <Typography noWrap sx={{ fontWeight: 600 }}>
                    {row.name}
                  </Typography>
                  <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                    deleted {ago(row.deleted)}
                  </Typography>
                </Box>
                <Button
                  variant="outlined"
                  color="inherit"
                  aria-label={`Put back ${row.name}`}
                  onClick={() => onPutBack(row)}
                  sx={{ borderColor: 'var(--mui-palette-line)' }}
                >
                  Put back
                </Button>
              </Box>
            ))}
          </Box>
        </DialogContent>
        <DialogActions>
          <Button
            color="error"
            onClick={() => {
              if (!sure) return setSure(true);
              onEmpty();
              close();
            }}
          >
            {sure ? `Delete ${rows.length === 1 ? 'it' : `all ${rows.length}`} for good` : 'Empty the bin'}
          </Button>
          <Button color="inherit" onClick={close}>
            Close
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
