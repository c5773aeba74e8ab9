'use client';
import Box from '@mui/material/Box';
import { memo, useEffect, useRef, useState } from 'react';
import type { Cutter } from '@/core/cutters/cutter';
import { byGroup } from '@/core/cutters/groups';
import { getAt, type Field } from '@/core/units/fields';
import type { Unit } from '@/core/units/length';
import { After, turns } from '@/ui/later';
import { setView } from '@/ui/view';
import { CurveField, type CurvePoint } from './CurveField';
import { CuttersField } from './CuttersField';
import { MotifField } from './MotifField';
import { OrnamentField } from './OrnamentField';
import { ChoiceField, FlagField, LengthField, NumberField, TextField } from './fields';

type Values = Record<string, unknown>;

interface Props {
  fields: readonly Field[];
  values: Values;
  unit: Unit;
  cutters?: readonly Cutter[];
  /** What a font may be chosen from, and how another is brought. */
  fonts?: readonly { readonly value: string; readonly label: string; readonly group?: string }[];
  /** Counts up each time one is to go on in the first field, with all that stands in it selected. */
  asked?: number;
  onChange: (key: string, value: unknown, field: Field) => void;
}

const NONE: readonly never[] = [];

/** Fields of a long form that come first where a window has drawn none yet, seen or not; the others follow in a step of their own. */
const AT_ONCE = 10;

/** A form made from field descriptions; the same one serves artwork, cutters and every kind of cut. */
export function FieldForm({ fields, values, unit, cutters = NONE, fonts = NONE, asked, onChange }: Props) {
  const form = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const first = asked
      ? form.current?.querySelector<HTMLElement>(
          'textarea:not([aria-hidden=true]), input:not([aria-hidden=true]):not([type=checkbox]), [role=combobox]',
        )
      : null;
    first?.focus();
    if (first instanceof HTMLInputElement || first instanceof HTMLTextAreaElement) first.select();
    // Asked once: who comes back to these values later is not taken away from where he is.
    if (first) setView({ typing: null });
  }, [asked]);
  // A field whose value has not changed is not drawn again: what is done with another value is asked for when there is one.
  const latest = useRef(onChange);
  useEffect(() => {
    latest.current = onChange;
  });
  const [change] = useState(() => (f: Field, v: unknown) => latest.current(f.key, v, f));
  const place = (f: Field) => (
    <Placed
      key={f.key}
      field={f}
      value={getAt(values, f.key) ?? f.missing}
      unit={unit}
      cutters={f.kind === 'cutter' || f.kind === 'cutters' ? cutters : NONE}
      fonts={f.kind === 'font' ? fonts : NONE}
      change={change}
    />
  );
  const shown = (some: readonly Field[]) => some.filter((f) => !f.when || f.when(values)).map(place);
  return (
    <Box
      ref={form}
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' }}
    >
      {shown(fields.slice(0, AT_ONCE))}
      {fields.length > AT_ONCE && (
        <After turn={turns.fields} once="fields">
          {shown(fields.slice(AT_ONCE))}
        </After>
      )}
    </Box>
  );
}

interface One {
  field: Field;
  value: unknown;
  unit: Unit;
  cutters: readonly Cutter[];
  fonts: NonNullable<Props['fonts']>;
}

/** Kinds of fields that take all of a row. */
const WIDE: readonly Field['kind'][] = ['text', 'cutter', 'cutters', 'flag', 'font', 'motif', 'ornament', 'curve'];

const Placed = memo(function Placed({ change, ...one }: One & { change: (f: Field, v: unknown) => void }) {
  const { field: f } = one;
  const wide = WIDE.includes(f.kind) || (f.kind === 'choice' && f.options.length > 4);
  return (
    <Box sx={{ gridColumn: wide ? '1 / -1' : undefined, minWidth: 0 }}>
      <Value {...one} set={(v) => change(f, v)} />
    </Box>
  );
});

function Value({ field: f, value, unit, cutters, fonts, set }: One & { set: (v: unknown) => void }) {
  switch (f.kind) {
    case 'length':
      return (
        <LengthField
          label={f.label}
          value={(value as number | null) ?? null}
          unit={unit}
          rate={f.rate}
          min={f.min}
          max={f.max}
          optional={f.optional}
          hint={f.hint}
          onChange={set}
        />
      );
    case 'number':
      return (
        <NumberField
          label={f.label}
          value={value as number}
          unit={f.unit}
          min={f.min}
          max={f.max}
          whole={f.whole}
          hint={f.hint}
          onChange={set}
        />
      );
    case 'choice':
      return <ChoiceField label={f.label} value={value as string} options={f.options} hint={f.hint} onChange={set} />;
    case 'font':
      return <ChoiceField label={f.label} value={value as string} options={fonts} hint={f.hint} onChange={set} />;
    case 'motif':
      return <MotifField label={f.label} value={value as string} group={f.group} none={f.none} onChange={set} />;
    case 'ornament':
      return <OrnamentField label={f.label} value={value as string} onChange={set} />;
    case 'curve':
      return <CurveField label={f.label} value={value as CurvePoint[]} onChange={set} />;
    case 'flag':
      return <FlagField label={f.label} value={value as boolean} onChange={set} />;
    case 'text':
      return <TextField label={f.label} value={value as string} lines={f.lines} onChange={set} />;
    case 'cutter': {
      const fit = cutters.filter((c) => f.shapes.includes(c.shape));
      const options = byGroup(fit).map((c) => ({ value: c.id, label: c.name, group: c.group }));
      return (
        <ChoiceField
          label={f.label}
          value={(value as string | null) ?? ''}
          options={f.optional ? [{ value: '', label: f.optional }, ...options] : options}
          hint={f.hint}
          onChange={(v) => set(v === '' ? null : v)}
        />
      );
    }
    case 'cutters':
      return (
        <CuttersField
          label={f.label}
          value={(value as string[] | undefined) ?? []}
          cutters={cutters.filter((c) => f.shapes.includes(c.shape))}
          hint={f.hint}
          optional={f.optional}
          onChange={set}
        />
      );
  }
}
