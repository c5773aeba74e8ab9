'use client';
import Dialog from '@mui/material/Dialog';
import { useState } from 'react';
import { castMaterials } from '@/core/cutters/castMaterials';
import { floorsBelow, type LevelFloor } from '@/core/job/levelFloors';
import {
  depthsOf,
  fieldsFor,
  floorsFrom,
  freshMould,
  guessParts,
  partNames,
  whyNoMould,
  type FromRelief,
  type MouldValues,
  type Part,
} from '@/core/job/mould';
import { choices } from '@/core/units/fields';
import { lengthText } from '@/core/units/length';
import { makeMould } from '@/ui/actions/casting';
import { pickedItems } from '@/ui/actions/artwork';
import { AskedValues } from '@/ui/common/ValuesDialog';
import { ChoiceField, FlagField } from '@/ui/common/fields';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { art } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';
import { MouldDrawing } from './MouldDrawing';
import { MouldFloors } from './MouldFloors';
import { useLevelFloors } from './useLevelFloors';

/** A relief is not turned over for anybody. */
const SCULPTED = 'The relief is cut as it is: turn it over, and mirror what follows no artwork, in the Relief stage.';

const close = () => setView({ mould: null });

/** Asks what each picked thing is to be in a mould, or which floors of a relief, and for its depths and cutters. */
export function MouldDialog() {
  const of = useView((v) => v.mould);
  return (
    <Dialog open={!!of} onClose={close} fullWidth maxWidth="md" aria-labelledby="mould-title">
      {of && <Mould key={of} whole={of === 'relief'} />}
    </Dialog>
  );
}

function Mould({ whole }: { whole: boolean }) {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const items = whole ? [] : pickedItems();
  const [values, setValues] = useState<MouldValues>(() => freshMould(items, job.unit, library));
  const [parts, setParts] = useState<ReadonlyMap<string, Part>>(() => guessParts(job, items, art));
  const hasRelief = job.relief.forms.length > 0;
  const found = useLevelFloors(hasRelief);
  // Of picked things the floors are what was picked, until somebody says otherwise.
  const [taken, setTaken] = useState<readonly LevelFloor[] | null>(null);
  const [sculpted, setSculpted] = useState<boolean | null>(null);
  const cutter = (id: string) => library.find((c) => c.id === id);
  const above = floorsFrom(values, { whole });
  const below = found && floorsBelow(found.floors, above).flatMap((l) => l.floors);
  const from: FromRelief = {
    whole,
    floors: (below ?? []).filter((f) => taken?.includes(f) ?? whole),
    sculpted: whole && (sculpted ?? found?.sculpted ?? false),
  };
  const wall = cutter(values.wall);
  const why =
    !items.length && !whole
      ? 'Pick what is to be cast first: its outline, and what stands on it.'
      : whole && hasRelief && !found
        ? 'The relief is still being shaped and looked through.'
        : whyNoMould(job, values, parts, cutter, art, from);
  const { name, shrinks } = castMaterials[values.material];
  return (
    <AskedValues
      titleId="mould-title"
      title={whole ? 'Mould of the relief' : 'Mould of what is picked'}
      fields={fieldsFor(parts, from)}
      values={values}
      change={setValues}
      why={why}
      says={[
        whole || [...parts.values()].includes('sculpted') ? SCULPTED : '',
        from.floors.length
          ? `Walls of its level floors lean by the cone where they are steeper; their edges are known within ${lengthText(found!.of.cell / 2, job.unit)}.`
          : '',
        `These become ordinary cuts, in the order in which they are cut. ${name} shrinks by ${shrinks} %.`,
      ].join(' ')}
      make="Make the mould"
      onMake={() => makeMould(values, parts, library, from)}
      onClose={close}
    >
      {wall && (
        <MouldDrawing
          values={values}
          parts={parts}
          floors={depthsOf(job, values, from).map((d) => d - values.skim)}
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
      {hasRelief && (whole || !!below?.length) && (
        <MouldFloors
          floors={below}
          more={found?.more ?? 0}
          why={found?.why ?? ''}
          taken={from.floors}
          unit={job.unit}
          face={values.skim}
          onTake={setTaken}
        />
      )}
      {whole && found && (
        <FlagField
          label="What is not level is sculpted: roughed and finished"
          value={from.sculpted}
          onChange={setSculpted}
        />
      )}
    </AskedValues>
  );
}
