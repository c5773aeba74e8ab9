'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { setAt, type Field } from '@/core/units/fields';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { FieldForm } from './FieldForm';

/** What a dialog holds that asks for values: what they mean at the left, with what is said of them, and their fields. */
export function AskedValues<V extends object>(p: {
  readonly titleId: string;
  readonly title: string;
  readonly fields: readonly Field[];
  readonly values: V;
  readonly change: (v: V) => void;
  /** Why nothing can be made of them, or null; and what is said where it can. */
  readonly why: string | null;
  readonly says: string;
  readonly children: ReactNode;
  readonly make: string;
  readonly onMake: () => void;
  readonly onClose: () => void;
}) {
  const unit = useOpenJob((s) => s.job!.unit);
  const library = useLibrary((l) => l.cutters);
  return (
    <>
      <DialogTitle id={p.titleId}>{p.title}</DialogTitle>
      <DialogContent
        sx={{
          display: 'grid',
          gap: 2.5,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 370px' },
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 1.5, alignContent: 'start' }}>
          {p.children}
          <Typography variant="body2" role="status" sx={{ color: p.why ? 'error.main' : 'text.secondary' }}>
            {p.why ?? p.says}
          </Typography>
        </Box>
        <FieldForm
          fields={p.fields}
          values={p.values as Record<string, unknown>}
          unit={unit}
          cutters={library}
          onChange={(key, value) => p.change(setAt(p.values as Record<string, unknown>, key, value) as V)}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={p.onClose}>
          Cancel
        </Button>
        <Button
          variant="contained"
          disabled={!!p.why}
          onClick={() => {
            p.onClose();
            p.onMake();
          }}
        >
          {p.make}
        </Button>
      </DialogActions>
    </>
  );
}
