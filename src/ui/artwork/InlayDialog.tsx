'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { freshInlay, inlayFields, whyNoInlay, type InlayValues } from '@/core/job/inlay';
import { canBeLinked } from '@/core/job/linked';
import { setAt } from '@/core/units/fields';
import { lengthText } from '@/core/units/length';
import { makeInlay } from '@/ui/actions/inlay';
import { pickedItems } from '@/ui/actions/artwork';
import { FieldForm } from '@/ui/common/FieldForm';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { InlayDrawing } from './InlayDrawing';

/** Asks for the values of an inlay of what is picked, and draws what they mean. */
export function InlayDialog() {
  const open = useView((v) => v.inlay);
  const close = () => setView({ inlay: false });
  return (
    <Dialog open={open} onClose={close} fullWidth maxWidth="md" aria-labelledby="inlay-title">
      {open && <Inlay onClose={close} />}
    </Dialog>
  );
}

function Inlay({ onClose }: { readonly onClose: () => void }) {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const items = pickedItems().filter(canBeLinked);
  const [values, setValues] = useState<InlayValues>(() => freshInlay(job.blank.material, job.unit, library));
  const cutter = library.find((c) => c.id === values.cutter);
  const why = items.length
    ? whyNoInlay(values, cutter, job.blank.thickness, job.unit)
    : 'Pick outlines first: lettering, shapes or drawings. What follows another set-up cannot be inlaid from here.';
  const glue = values.depth - values.goesIn;
  return (
    <>
      <DialogTitle id="inlay-title">
        V-inlay of {items.length === 1 ? `"${items[0].name}"` : `${items.length} picked items`}
      </DialogTitle>
      <DialogContent
        sx={{
          display: 'grid',
          gap: 2.5,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 360px' },
          alignItems: 'start',
        }}
      >
        <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
          {cutter && <InlayDrawing values={values} cutter={cutter} pocket={job.blank.material} unit={job.unit} />}
          <Typography variant="body2" role="status" sx={{ color: why ? 'error.main' : 'text.secondary' }}>
            {why ??
              `${glue > 0 ? `${lengthText(glue, job.unit)} for glue under the plug. ` : 'No room for glue under the plug. '}The plug gets a set-up and a blank of its own; its outlines follow these, mirrored.`}
          </Typography>
        </Box>
        <FieldForm
          fields={inlayFields}
          values={values}
          unit={job.unit}
          cutters={library}
          onChange={(key, value) => setValues((v) => setAt(v, key, value) as InlayValues)}
        />
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button
          variant="contained"
          disabled={!!why}
          onClick={() => {
            onClose();
            makeInlay(
              items.map((i) => i.id),
              values,
              library,
            );
          }}
        >
          Make pocket and plug
        </Button>
      </DialogActions>
    </>
  );
}
