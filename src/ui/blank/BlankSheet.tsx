'use client';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { materialIds, materials, type MaterialId } from '@/core/cutters/materials';
import { paintIds, paints, type PaintId } from '@/core/cutters/paints';
import { blankSchema, datumPlaces, type Blank, type DatumPlace } from '@/core/job/job';
import { formatLength } from '@/core/units/length';
import { limitsOf } from '@/core/units/limits';
import { useOpenJob } from '@/store/openJob';
import { setFromCorner, useDatum } from '@/ui/common/useDatum';
import { setView, useView } from '@/ui/view';
import { useEffect, useRef } from 'react';
import { ChoiceField, LengthField } from '@/ui/common/fields';
import { Group, SheetHead } from '@/ui/common/SheetParts';
import { useOpenJobLater } from '@/ui/following';
import { BlankDrawing } from './BlankDrawing';
import { Clamps } from './Clamps';
import { StartsFrom } from './StartsFrom';

const column = { l: 'left', c: 'centre', r: 'right' } as const;
const row = { t: 'top', m: 'middle', b: 'bottom' } as const;
const datumName = (d: DatumPlace) => `${row[d[1] as 't']} ${column[d[0] as 'l']}`;

const grid = { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' };

export function BlankSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const { blank, unit } = job;
  // A new job begins with its size.
  const first = useRef<HTMLDivElement>(null);
  const asked = useView((v) => v.typing?.id === useOpenJob.getState().id);
  useEffect(() => {
    if (!asked) return;
    first.current?.querySelector('input')?.focus();
    setView({ typing: null });
  }, [asked]);
  const origin = useDatum(job);
  const fromCorner = useView((v) => v.fromCorner);
  const set = <K extends keyof Blank>(name: string, key: K, value: Blank[K]) =>
    edit(`Change ${name}`, (j) => void (j.blank[key] = value));
  const length = (
    label: string,
    key: 'width' | 'height' | 'thickness' | 'safeHeight' | 'clearance' | 'approach' | 'intoBed',
    hint?: string,
  ) => (
    <LengthField
      label={label}
      value={blank[key]}
      unit={unit}
      {...limitsOf(blankSchema, key)}
      hint={hint}
      onChange={(v) => v !== null && set(label.toLowerCase(), key, v)}
    />
  );
  return (
    <>
      <SheetHead
        title="Blank"
        remark={`${formatLength(blank.width, unit)} \u00d7 ${formatLength(blank.height, unit)} \u00d7 ${formatLength(blank.thickness, unit)} ${unit}`}
      />
      <StartsFrom />
      <Group title="Piece of material">
        <Box ref={first} sx={grid}>
          {length('Width (X)', 'width')}
          {length('Height (Y)', 'height')}
          {length('Thickness (Z)', 'thickness')}
          <ChoiceField
            label="Material"
            value={blank.material}
            options={materialIds.map((m) => ({ value: m, label: materials[m].name }))}
            onChange={(v) => set('material', 'material', v as MaterialId)}
          />
          <ChoiceField
            label="Paint left in the cuts"
            value={blank.paint}
            options={paintIds.map((p) => ({ value: p, label: paints[p].name }))}
            hint="Painted all over, then the face is sanded clean"
            onChange={(v) => set('paint', 'paint', v as PaintId)}
          />
        </Box>
      </Group>
      <Group title="Datum">
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
          <Box
            role="radiogroup"
            aria-label="Datum in X and Y"
            sx={{
              display: 'grid',
              gridTemplateColumns: 'repeat(3, minmax(30px, auto))',
              gridAutoRows: 'minmax(26px, auto)',
              border: '1.5px solid',
              borderColor: 'var(--mui-palette-line)',
              borderRadius: 1,
              bgcolor: materials[blank.material].face,
              overflow: 'hidden',
              flex: 'none',
            }}
          >
            {datumPlaces.map((d) => (
              <Box
                key={d}
                component="button"
                type="button"
                role="radio"
                aria-checked={blank.datum === d}
                aria-label={`Datum ${datumName(d)}`}
                title={datumName(d)}
                onClick={() => set('datum', 'datum', d)}
                sx={{
                  border: 0,
                  background: 'none',
                  cursor: 'pointer',
                  p: 0,
                  display: 'grid',
                  placeItems: 'center',
                  '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
                  '&::after': {
                    content: '""',
                    width: blank.datum === d ? 14 : 7,
                    height: blank.datum === d ? 14 : 7,
                    borderRadius: '50%',
                    bgcolor: blank.datum === d ? 'primary.main' : 'rgba(255,255,255,.75)',
                    border: blank.datum === d ? '2.5px solid #fff' : '1px solid rgba(0,0,0,.35)',
                  },
                }}
              />
            ))}
          </Box>
          <Box sx={{ flex: 1 }}>
            <ChoiceField
              label="Coordinates count from"
              value={fromCorner ? 'corner' : 'datum'}
              options={[
                { value: 'datum', label: 'The datum' },
                { value: 'corner', label: 'The lower left corner' },
              ]}
              onChange={(v) => setFromCorner(v === 'corner')}
            />
            <Box sx={{ mt: 1 }} />
            <ChoiceField
              label="Z 0"
              value={blank.zZero}
              options={[
                { value: 'top', label: 'Top face' },
                { value: 'bed', label: 'Spoilboard' },
              ]}
              onChange={(v) => set('Z zero', 'zZero', v as Blank['zZero'])}
            />
          </Box>
        </Box>
      </Group>
      <Group title="Heights">
        <BlankDrawing blank={blank} unit={unit} />
        <Box sx={grid}>
          {length('Safe height', 'safeHeight', 'Above the top face, between far places')}
          {length('Clearance height', 'clearance', 'Above the top face, between near ones')}
          {length('Approach height', 'approach', 'So far above material the rapid way down ends')}
          {length('Spoilboard depth', 'intoBed', 'So far below the underside cuts may go')}
        </Box>
      </Group>
      <Clamps />
      <Group title="Park position">
        <Box sx={grid}>
          {(['x', 'y'] as const).map((k) => (
            <LengthField
              key={k}
              label={k.toUpperCase()}
              value={blank.park[k] - origin[k]}
              unit={unit}
              onChange={(v) =>
                v !== null && edit('Change park position', (j) => void (j.blank.park[k] = v + origin[k]))
              }
            />
          ))}
        </Box>
        <FormControlLabel
          control={
            <Switch
              checked={blank.parkAtChange}
              onChange={(_, v) => edit('Park at tool changes', (j) => void (j.blank.parkAtChange = v))}
            />
          }
          label="Change cutters there, where they are changed by hand"
        />
      </Group>
    </>
  );
}
