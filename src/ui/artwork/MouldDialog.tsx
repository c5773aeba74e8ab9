'use client';
import Dialog from '@mui/material/Dialog';
import { useState } from 'react';
import { castMaterials } from '@/core/cutters/castMaterials';
import {
  freshMould,
  guessParts,
  fieldsFor,
  partNames,
  whyNoMould,
  type MouldValues,
  type Part,
} from '@/core/job/mould';
import { choices } from '@/core/units/fields';
import { makeMould } from '@/ui/actions/casting';
import { pickedItems } from '@/ui/actions/artwork';
import { AskedValues } from '@/ui/common/ValuesDialog';
import { ChoiceField } from '@/ui/common/fields';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { art } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';
import { MouldDrawing } from './MouldDrawing';

/** A relief is not turned over for anybody. */
const SCULPTED = 'The relief is cut as it is: turn it over, and mirror what follows no artwork, in the Relief stage. ';

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
  const cutter = (id: string) => library.find((c) => c.id === id);
  const wall = cutter(values.wall);
  const why = items.length
    ? whyNoMould(job, values, parts, cutter, art)
    : 'Pick what is to be cast first: its outline, and what stands on it.';
  const sculpted = [...parts.values()].includes('sculpted');
  const { shrinks } = castMaterials[values.material];
  return (
    <AskedValues
      titleId="mould-title"
      title="Mould of what is picked"
      fields={fieldsFor(parts)}
      values={values}
      change={setValues}
      why={why}
      says={`${sculpted ? SCULPTED : ''}These become ordinary cuts, in the order in which they are cut. ${castMaterials[values.material].name} shrinks by ${shrinks} %.`}
      make="Make the mould"
      onMake={() => makeMould(values, parts, library)}
      onClose={close}
    >
      {wall && (
        <MouldDrawing
          values={values}
          parts={parts}
          wall={wall}
          bit={cutter(values.bit)}
          material={job.blank.material}
          unit={job.unit}
        />
      )}
      {items.map((i) => (
        <ChoiceField
          key={i.id}
          label={i.name}
          value={parts.get(i.id) ?? 'none'}
          options={choices(partNames)}
          onChange={(p) => setParts((was) => new Map(was).set(i.id, p as Part))}
        />
      ))}
    </AskedValues>
  );
}
