'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { castMaterials } from '@/core/cutters/castMaterials';
import {
  freshMould,
  guessParts,
  mouldFields,
  partNames,
  whyNoMould,
  type MouldValues,
  type Part,
} from '@/core/job/mould';
import { choices, setAt } from '@/core/units/fields';
import { makeMould } from '@/ui/actions/casting';
import { pickedItems } from '@/ui/actions/artwork';
import { FieldForm } from '@/ui/common/FieldForm';
import { ChoiceField } from '@/ui/common/fields';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { art } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';

const close = () => setView({ mould: false });

/** Asks what each picked thing is to be in a mould, and for its depths and cutters. */
export function MouldDialog() {
  const open = useView((v) => v.mould);
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="md" aria-labelledby="mould-title">
      {open && <Mould />}
    </Dialog>
  );
}

function Mould() {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const items = pickedItems();
  const [values, setValues] = useState<MouldValues>(() => freshMould(items, job.unit, library));
  const [parts, setParts] = useState<ReadonlyMap<string, Part>>(() => guessParts(job, items, art));
  const why = items.length
    ? whyNoMould(job, values, parts, (id) => library.find((c) => c.id === id), art)
    : 'Pick what is to be cast first: its outline, and what stands on it.';
  const { shrinks } = castMaterials[values.material];
  return (
    <>
      <DialogTitle id="mould-title">Mould of what is picked</DialogTitle>
      <DialogContent
        sx={{
          display: 'grid',
          gap: 2.5,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 400px' },
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 1.25, alignContent: 'start' }}>
          {items.map((i) => (
            <ChoiceField
              key={i.id}
              label={i.name}
              value={parts.get(i.id) ?? 'none'}
              options={choices(partNames)}
              onChange={(p) => setParts((was) => new Map(was).set(i.id, p as Part))}
            />
          ))}
          <Typography variant="body2" role="status" sx={{ color: why ? 'error.main' : 'text.secondary' }}>
            {why ??
              `These become ordinary cuts, in the order in which they are cut. ${castMaterials[values.material].name} shrinks by ${shrinks} %.`}
          </Typography>
        </Box>
        <FieldForm
          fields={mouldFields}
          values={values}
          unit={job.unit}
          cutters={library}
          onChange={(key, value) => setValues((v) => setAt(v, key, value) as MouldValues)}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={close}>
          Cancel
        </Button>
        <Button
          variant="contained"
          disabled={!!why}
          onClick={() => {
            close();
            makeMould(values, parts, library);
          }}
        >
          Make the mould
        </Button>
      </DialogActions>
    </>
  );
}
