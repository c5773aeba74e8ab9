'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { canBeLinked } from '@/core/job/linked';
import type { Setup } from '@/core/job/job';
import { linkHere } from '@/ui/actions/links';

/** More than so many names are not listed: one finds them by typing. */
const LISTED = 200;

/** Picks artwork of other set-ups that is to be shown in this one. */
export function LinkDialog({ setups, onClose }: { readonly setups: readonly Setup[]; readonly onClose: () => void }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [sought, setSought] = useState('');
  const turn = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const found = setups.map((s) => ({
    setup: s,
    items: s.items.filter((i) => canBeLinked(i) && i.name.toLowerCase().includes(sought.trim().toLowerCase())),
  }));
  const count = setups.reduce((n, s) => n + s.items.filter(canBeLinked).length, 0);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="link-title">
      <DialogTitle id="link-title">Link artwork of another set-up</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.25 }}>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {count
            ? 'It comes to the place of the blank where it lies there, seen from this face, and follows every change.'
            : 'The other set-ups have no artwork that can be linked yet.'}
        </Typography>
        {count > 8 && (
          <TextField size="small" label="Find by name" value={sought} onChange={(e) => setSought(e.target.value)} />
        )}
        {found.map(({ setup, items }) =>
          items.length ? (
            <div key={setup.id} role="group" aria-label={setup.name}>
              <Typography variant="subtitle2">{setup.name}</Typography>
              {items.slice(0, LISTED).map((i) => (
                <FormControlLabel
                  key={i.id}
                  sx={{ display: 'flex', mr: 0 }}
                  control={<Checkbox size="small" checked={chosen.has(i.id)} onChange={() => turn(i.id)} />}
                  label={i.name}
                />
              ))}
              {items.length > LISTED && (
                <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                  And {items.length - LISTED} more: find them by name.
                </Typography>
              )}
            </div>
          ) : null,
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button
          variant="contained"
          disabled={!chosen.size}
          onClick={() => {
            onClose();
            linkHere(chosen);
          }}
        >
          {chosen.size > 1 ? `Link ${chosen.size} items` : 'Link'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
