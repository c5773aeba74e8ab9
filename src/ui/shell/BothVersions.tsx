'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { placeOf, type Side } from '@/core/merge/job';
import { wordsOf } from '@/core/merge/words';
import { useOpenJob, type Other } from '@/store/openJob';

/** What this window and another have both changed, side by side; one is chosen for each. What only one has changed is kept anyway. */
export function BothVersions({
  open,
  other,
  onClose,
}: {
  readonly open: boolean;
  readonly other: Other;
  readonly onClose: () => void;
}) {
  const [sides, setSides] = useState<ReadonlyMap<string, Side>>(new Map());
  const job = useOpenJob((s) => s.whole);
  if (!job) return null;
  return (
    <Dialog
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="md"
      slotProps={{ paper: { 'aria-label': 'Compare the versions' } }}
    >
      <DialogContent>
        <Typography variant="h2" sx={{ mb: 0.5 }}>
          Changed here and in another window
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 2 }}>
          Choose what counts. Everything else that either window has done is kept.
        </Typography>
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {other.conflicts.map((conflict) => {
            const place = placeOf(conflict.path);
            const w = wordsOf(conflict, [job, other.job]);
            const name = w.what ? `${w.place}, ${w.what}` : w.place;
            return (
              <Box component="li" key={place} sx={{ py: 1.5, borderTop: '1px solid', borderColor: 'divider' }}>
                <Typography sx={{ fontWeight: 600, mb: 0.75 }}>{name}</Typography>
                <ToggleButtonGroup
                  exclusive
                  fullWidth
                  color="primary"
                  value={sides.get(place) ?? 'mine'}
                  onChange={(_, side: Side | null) => side && setSides(new Map(sides).set(place, side))}
                  aria-label={name}
                >
                  {(['mine', 'theirs'] as const).map((side) => (
                    <ToggleButton
                      key={side}
                      value={side}
                      sx={{ textTransform: 'none', display: 'block', textAlign: 'left', overflowWrap: 'anywhere' }}
                    >
                      <Box component="span" sx={{ display: 'block', fontSize: 12, color: 'text.secondary' }}>
                        {side === 'mine' ? 'This window' : 'The other window'}
                      </Box>
                      {w[side]}
                    </ToggleButton>
                  ))}
                </ToggleButtonGroup>
              </Box>
            );
          })}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Not now
        </Button>
        <Button
          variant="contained"
          onClick={() => {
            useOpenJob.getState().bringTogether(sides);
            onClose();
          }}
        >
          Bring together
        </Button>
      </DialogActions>
    </Dialog>
  );
}
