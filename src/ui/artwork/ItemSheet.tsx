'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { memo } from 'react';
import type { Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { fontCatalogue, strokeFonts } from '@/core/lettering/catalogue';
import { assetsOf } from '@/core/job/assets';
import { setAt } from '@/core/units/fields';
import { changeItem } from '@/ui/actions/edits';
import { chooseFont } from '@/ui/actions/lettering';
import { FieldForm } from '@/ui/common/FieldForm';
import { LengthField, NumberField, TextField } from '@/ui/common/fields';
import { useDatum } from '@/ui/common/useDatum';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { BehindIt } from './BehindIt';
import { FollowsIt } from './FollowsIt';
import { LetterSpaces } from './LetterSpaces';
import { RoundPlaces } from './RoundPlaces';

const shippedFonts = [
  ...fontCatalogue.map((f) => ({ value: f.id, label: f.name, group: 'Outlines' })),
  ...strokeFonts.map((f) => ({ value: f.id, label: f.name, group: 'Single line, engraved in one stroke' })),
];

/** The one thing that is picked: what it is made of, where it lies, and how it is called. */
export function ItemSheet({ item, remarks }: { readonly item: Item; readonly remarks?: readonly string[] }) {
  return (
    <Box sx={{ display: 'grid', gap: 1.25 }}>
      {item.kind === 'lettering' && <RoundPlaces item={item} />}
      <FollowsIt item={item} />
      <Made item={item} />
      {item.kind === 'lettering' && (
        <>
          <AddFont />
          <LetterSpaces item={item} />
        </>
      )}
      <BehindIt item={item} />
      {remarks?.map((r) => (
        <Typography key={r} role="alert" variant="caption" sx={{ color: 'error.main' }}>
          {r}
        </Typography>
      ))}
      <Place id={item.id} x={item.x} y={item.y} angle={item.angle} />
      <TextField
        label="Name in the list"
        value={item.name}
        onChange={(v) => changeItem(item.id, 'Rename item', (q) => void (q.name = v), `name-${item.id}`)}
      />
    </Box>
  );
}

const changed = (id: string, key: string, value: unknown, label: string, merge: string | undefined) =>
  changeItem(
    id,
    `Change ${label.toLowerCase()}`,
    (q) => {
      // A name that was made from the values follows them until the maker gives one.
      const made = q.name === itemKindOf(q.kind).title(q.values);
      const before = q.values;
      q.values = setAt(q.values, key, value);
      q.values = (itemKindOf(q.kind).changed?.(q.values, before) ?? q.values) as typeof q.values;
      if (made) q.name = itemKindOf(q.kind).title(q.values);
    },
    merge,
  );

/** The values of its kind. */
function Made({ item }: { readonly item: Item }) {
  const { id, kind } = item;
  const unit = useOpenJobLater((s) => s.job!.unit);
  const assets = useOpenJobLater((s) => s.job!.assets);
  const asked = useViewLater((v) => (v.typing?.id === id ? v.typing.n : undefined));
  const fonts = [
    ...shippedFonts,
    ...assetsOf({ assets }, 'font').map((f) => ({ value: f.id, label: f.name, group: 'Of this job' })),
  ];
  return (
    <FieldForm
      fields={itemKindOf(kind).fields}
      values={item.values}
      unit={unit}
      asked={asked}
      fonts={fonts}
      onChange={(key, value, f) => changed(id, key, value, f.label, f.kind === 'text' ? `text-${id}` : undefined)}
    />
  );
}

const AddFont = memo(function AddFont() {
  return (
    <Button
      size="small"
      color="inherit"
      onClick={chooseFont}
      sx={{ justifySelf: 'start', fontSize: 13, color: 'text.secondary' }}
    >
      Add a font file
    </Button>
  );
});

interface At {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** Where it lies, counted from where the window counts. */
const Place = memo(function Place({ id, x, y, angle }: At) {
  const unit = useOpenJobLater((s) => s.job!.unit);
  const blank = useOpenJobLater((s) => s.job!.blank);
  const origin = useDatum({ blank });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
      <LengthField
        label="Centre X"
        value={x - origin.x}
        unit={unit}
        onChange={(v) => v !== null && changeItem(id, 'Move', (q) => void (q.x = v + origin.x))}
      />
      <LengthField
        label="Centre Y"
        value={y - origin.y}
        unit={unit}
        onChange={(v) => v !== null && changeItem(id, 'Move', (q) => void (q.y = v + origin.y))}
      />
      <NumberField
        label="Rotation"
        unit={'\u00b0'}
        value={angle}
        min={-360}
        max={360}
        onChange={(v) => changeItem(id, 'Turn', (q) => void (q.angle = v))}
      />
    </Box>
  );
});
