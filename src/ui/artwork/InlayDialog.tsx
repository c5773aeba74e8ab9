'use client';
import Dialog from '@mui/material/Dialog';
import Stack from '@mui/material/Stack';
import { useState, type ReactNode } from 'react';
import type { Item } from '@/core/artwork/item';
import { radiusOf, type Cutter } from '@/core/cutters/cutter';
import { materialIds, materials, type MaterialId } from '@/core/cutters/materials';
import { packetLayers, packetMaterials, whyNoPacket } from '@/core/job/packet';
import {
  dieCorners,
  embossingFields,
  freshEmbossing,
  whyNoEmbossing,
  type EmbossingValues,
} from '@/core/job/embossing';
import { freshInlay, inlayFields, whyNoInlay, type InlayValues } from '@/core/job/inlay';
import {
  cornersOf,
  freshStraightInlay,
  straightInlayFields,
  whyNoStraightInlay,
  type StraightInlayValues,
} from '@/core/job/straightInlay';
import { canBeLinked } from '@/core/job/linked';
import type { Field } from '@/core/units/fields';
import { lengthText } from '@/core/units/length';
import { makeDies, makeInlay, makePacket, makeStraightInlay } from '@/ui/actions/inlay';
import { pickedItems } from '@/ui/actions/artwork';
import { ChoiceField, FlagField } from '@/ui/common/fields';
import { art } from '@/ui/table/usePlaced';
import { AskedValues } from '@/ui/common/ValuesDialog';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { CornerDrawing } from './CornerDrawing';
import { EmbossingDrawing, InlayDrawing, StraightInlayDrawing } from './InlayDrawing';

const close = () => setView({ inlay: null });

/** Asks for the values of two pieces that fit of what is picked, and draws what they mean. */
export function InlayDialog() {
  const inlay = useView((v) => v.inlay);
  return (
    <Dialog open={!!inlay} onClose={close} fullWidth maxWidth="md" aria-labelledby="inlay-title">
      {inlay === 'leaning' && <Leaning />}
      {inlay === 'upright' && <Upright />}
      {inlay === 'dies' && <Dies />}
    </Dialog>
  );
}

const PICK =
  'Pick outlines first: lettering, shapes or drawings. Of what follows another set-up nothing can be made to fit from here.';

/** The dialog around a pair: its drawing, what is said of it, its values, and the button that makes it. */
function MadeToFit<V extends object>(p: {
  readonly name: string;
  /** What the second piece is called. */
  readonly second: string;
  readonly make: string;
  readonly items: readonly Item[];
  readonly fields: readonly Field[];
  readonly values: V;
  readonly change: (v: V) => void;
  readonly why: string | null;
  readonly says: string;
  readonly drawing: ReactNode;
  readonly onMake: (items: string[]) => void;
}) {
  const what = p.items.length === 1 ? `"${p.items[0].name}"` : `${p.items.length} picked items`;
  return (
    <AskedValues
      titleId="inlay-title"
      title={`${p.name} of ${what}`}
      fields={p.fields}
      values={p.values}
      change={p.change}
      why={p.items.length ? p.why : PICK}
      says={`${p.says} The ${p.second} gets a set-up and a blank of its own; its outlines follow these, mirrored.`}
      make={p.make}
      onMake={() => p.onMake(p.items.map((i) => i.id))}
      onClose={close}
    >
      {p.drawing}
    </AskedValues>
  );
}

const INLAY = { second: 'plug', make: 'Make pocket and plug' };
const usePicked = (): Item[] => pickedItems().filter(canBeLinked);

function Leaning() {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const [values, change] = useState<InlayValues>(() => freshInlay(job.blank.material, job.unit, library));
  const cutter = library.find((c) => c.id === values.cutter);
  const glue = values.depth - values.goesIn;
  return (
    <MadeToFit
      {...INLAY}
      name="V-inlay"
      items={usePicked()}
      fields={inlayFields}
      values={values}
      change={change}
      why={whyNoInlay(values, cutter, job.blank.thickness, job.unit)}
      says={glue > 0 ? `${lengthText(glue, job.unit)} for glue under the plug.` : 'No room for glue under the plug.'}
      drawing={cutter && <InlayDrawing values={values} cutter={cutter} pocket={job.blank.material} unit={job.unit} />}
      onMake={(items) => makeInlay(items, values, library)}
    />
  );
}

/** Radius of the narrowest of cutters, mm; 0 where there is none. */
const narrowest = (all: readonly (Cutter | undefined)[]): number => {
  const radii = all.flatMap((c) => (c ? radiusOf(c) : []));
  return radii.length ? Math.min(...radii) : 0;
};

function Upright() {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const [values, change] = useState<StraightInlayValues>(() =>
    freshStraightInlay(job.blank.material, job.unit, library),
  );
  const cutter = (id: string) => library.find((c) => c.id === id);
  const long = (mm: number) => lengthText(mm, job.unit);
  const items = usePicked();
  const layers = packetLayers(job, items);
  const [byLayer, setByLayer] = useState(false);
  const [plugs, setPlugs] = useState(() => packetMaterials(layers, job.blank.material));
  const packet = byLayer && layers.length > 1;
  const corners =
    values.corners === 'relieved'
      ? 'Each half is relieved by its own cutter where the other has a sharp corner.'
      : `Corners of both are rounded to ${long(cornersOf(values, cutter))}, as the larger cutter leaves them.`;
  const skin = values.skin > values.proud ? ' The skin lies below the face: sand it off before the plug goes in.' : '';
  return (
    <MadeToFit
      {...INLAY}
      name="Straight inlay"
      items={items}
      fields={packet ? straightInlayFields.filter((f) => f.key !== 'material') : straightInlayFields}
      values={values}
      change={change}
      why={
        whyNoStraightInlay(values, cutter, job.blank.thickness, job.unit) ?? (packet ? whyNoPacket(layers, art) : null)
      }
      says={`${corners} Clearance is drawn ten times as wide. The plug is cut face down from a plate ${long(values.depth + values.proud)} thick.${skin}`}
      drawing={
        <>
          <Stack sx={{ alignItems: 'center', gap: 1.5 }}>
            <StraightInlayDrawing values={values} pocket={job.blank.material} unit={job.unit} />
            <CornerDrawing
              relieved={values.corners === 'relieved'}
              clearance={values.clearance / (narrowest(values.cutters.map(cutter)) || 1)}
              pocket={job.blank.material}
              plug={values.material}
            />
          </Stack>
          {layers.length > 1 && (
            <FlagField label="A plug for each layer, in a material of its own" value={byLayer} onChange={setByLayer} />
          )}
          {packet &&
            layers.map((l) => (
              <ChoiceField
                key={l.id}
                label={`Material of "${l.name}"`}
                value={plugs.get(l.id)!}
                options={materialIds.map((id) => ({ value: id, label: materials[id].name }))}
                onChange={(m) => setPlugs((was) => new Map(was).set(l.id, m as MaterialId))}
              />
            ))}
        </>
      }
      onMake={(ids) => (packet ? makePacket(layers, values, plugs, library) : makeStraightInlay(ids, values, library))}
    />
  );
}

function Dies() {
  const job = useOpenJob((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const [values, change] = useState<EmbossingValues>(() => freshEmbossing(job.blank.material, job.unit, library));
  const cutter = (id: string) => library.find((c) => c.id === id);
  const long = (mm: number) => lengthText(mm, job.unit);
  const corners = dieCorners(values, cutter);
  return (
    <MadeToFit
      name="Embossing dies"
      second="raised die"
      make="Make both dies"
      items={usePicked()}
      fields={embossingFields}
      values={values}
      change={change}
      why={whyNoEmbossing(values, cutter, job.blank.thickness, job.unit)}
      says={`Closed, both stand the thickness of the sheet apart everywhere.${corners ? ` Corners of both are rounded to ${long(corners)}.` : ''} The raised die is cleared as far as the edges of its blank.`}
      drawing={
        <EmbossingDrawing
          values={values}
          cutter={values.walls === 'leaning' ? cutter(values.cutter) : undefined}
          pocket={job.blank.material}
          unit={job.unit}
        />
      }
      onMake={(items) => makeDies(items, values, library)}
    />
  );
}
