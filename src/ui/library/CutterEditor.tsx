'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import {
  chipLoad,
  cuttingLength,
  radiusAt,
  removalRate,
  leavesRidges,
  scallopOf,
  stepForScallop,
  cutterSchema,
  type Cutter,
  presetSchema,
  type Preset,
} from '@/core/cutters/cutter';
import { freeLabel, hasLabel, presetFor, reshaped, stepShareOf } from '@/core/cutters/library';
import { materials, materialIds, type MaterialId } from '@/core/cutters/materials';
import { cutterShapes, shapeOf } from '@/core/cutters/registry';
import { percentOf } from '@/core/units/count';
import { formatFine } from '@/core/units/length';
import { ChoiceField, LengthField, NumberField, TextField } from '@/ui/common/fields';
import { setAt } from '@/core/units/fields';
import { firstIssue } from '@/core/units/issues';
import { limitsOf } from '@/core/units/limits';
import { FieldForm } from '@/ui/common/FieldForm';
import { CutterDrawing } from './CutterDrawing';
import { WidthChart } from './WidthChart';

const two = { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 };

interface Props {
  cutter: Cutter;
  /** The library that it lies in. */
  among: readonly Cutter[];
  /** Whether one goes on in its name, with all of it selected. */
  naming: boolean;
  /** The material whose preset is shown first. */
  first: MaterialId;
  onChange: (c: Cutter) => void;
}

/** One cutter: its drawing, its values, what follows from them, and its presets. Values that cannot be made of steel are explained and not kept. */
export function CutterEditor({ cutter, among, naming, first, onChange }: Props) {
  const name = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const field = naming ? name.current?.querySelector('input') : null;
    field?.focus();
    field?.select();
  }, [naming]);
  const [error, setError] = useState('');
  const [material, setMaterial] = useState(first);
  const [depth, setDepth] = useState(() => Math.min(1, cuttingLength(cutter) / 2));
  const { unit } = cutter;
  const [group, setGroup] = useState<string | null>(null);
  const change = (changed: Cutter) => {
    // A name that was made from shape and size follows them until the maker gives one.
    const next =
      hasLabel(cutter) && changed.name === cutter.name ? { ...changed, name: freeLabel(changed, among) } : changed;
    const r = cutterSchema.safeParse(next);
    setError(r.success ? '' : firstIssue(r.error));
    if (r.success) onChange(r.data);
  };
  const preset = cutter.presets[material] ?? presetFor(cutter.shape, cutter.values, cutter.teeth, material);
  const setPreset = (p: Preset) => change({ ...cutter, presets: { ...cutter.presets, [material]: p } });
  const whole = stepShareOf(cutter);
  const share = percentOf(preset.stepOver, whole.mm);
  const length = (key: 'feed' | 'plunge' | 'stepDown' | 'stepOver', label: string) => (
    <LengthField
      label={label}
      value={preset[key]}
      unit={unit}
      rate={key === 'feed' || key === 'plunge'}
      share={key === 'stepOver' ? whole.mm : undefined}
      {...limitsOf(presetSchema, key)}
      onChange={(v) => v !== null && setPreset({ ...preset, [key]: v })}
    />
  );
  const deep = cuttingLength(cutter);
  const leans = leavesRidges(cutter);
  const width = 2 * radiusAt(cutter, Math.min(depth, deep));
  const ridge = scallopOf(cutter, preset.stepOver);
  const turns = shapeOf(cutter.shape).turns;
  const show = (mm: number) => `${formatFine(mm, unit)} ${unit}`;
  /** Depth at which the groove has a width: by halving, since every profile only widens. */
  const depthAt = (w: number): number => {
    let [a, b] = [0, deep];
    for (let i = 0; i < 60; i++) {
      const m = (a + b) / 2;
      if (2 * radiusAt(cutter, m) < w) a = m;
      else b = m;
    }
    return b;
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 380px), 1fr))',
        gap: 4,
        alignItems: 'start',
      }}
    >
      <Box sx={{ display: 'grid', gap: 2 }}>
        <CutterDrawing cutter={cutter} unit={unit} />
        {error && (
          <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
            {error} The cutter stays as it was.
          </Typography>
        )}
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <Box ref={name}>
            <TextField label="Name" value={cutter.name} onChange={(name) => change({ ...cutter, name })} />
          </Box>
          <Box sx={two}>
            <ChoiceField
              label="Shape"
              value={cutter.shape}
              options={cutterShapes.map((s) => ({ value: s.id, label: s.name }))}
              onChange={(shape) =>
                change(
                  reshaped(cutter, shape, {
                    ...(shapeOf(shape).defaults as Record<string, number>),
                    ...Object.fromEntries(
                      Object.entries(cutter.values).filter(([k]) => k in (shapeOf(shape).defaults as object)),
                    ),
                  }),
                )
              }
            />
            <TextField
              label="Group"
              value={group ?? cutter.group}
              onChange={(text) => {
                // A space at the end is the beginning of another word.
                setGroup(text);
                if (text.trim()) change({ ...cutter, group: text.trim() });
              }}
            />
          </Box>
          <FieldForm
            fields={shapeOf(cutter.shape).fields}
            values={cutter.values}
            unit={unit}
            onChange={(key, value) =>
              change(reshaped(cutter, cutter.shape, setAt(cutter.values, key, value) as Record<string, number>))
            }
          />
          <Box sx={two}>
            <LengthField
              label="Cutting length"
              value={cutter.fluteLength}
              unit={unit}
              {...limitsOf(cutterSchema, 'fluteLength')}
              onChange={(v) => v !== null && change({ ...cutter, fluteLength: v })}
            />
            <LengthField
              label="Shank diameter"
              value={cutter.shankDiameter}
              unit={unit}
              {...limitsOf(cutterSchema, 'shankDiameter')}
              onChange={(v) => v !== null && change({ ...cutter, shankDiameter: v })}
            />
            <NumberField
              label="Flutes"
              value={cutter.teeth}
              whole
              {...limitsOf(cutterSchema, 'teeth')}
              onChange={(v) => change({ ...cutter, teeth: v })}
            />
            <ChoiceField
              label="Unit of this cutter"
              value={cutter.unit}
              options={[
                { value: 'mm', label: 'mm' },
                { value: 'in', label: 'inch' },
              ]}
              onChange={(v) => change({ ...cutter, unit: v as 'mm' | 'in' })}
            />
            <NumberField
              label="Slot"
              value={cutter.slot}
              whole
              {...limitsOf(cutterSchema, 'slot')}
              hint="0 for none"
              onChange={(v) => change({ ...cutter, slot: v })}
            />
            <TextField
              label="Stock number"
              value={cutter.stockNumber}
              onChange={(stockNumber) => change({ ...cutter, stockNumber })}
            />
          </Box>
          <TextField
            label="Supplier"
            value={cutter.supplier}
            onChange={(supplier) => change({ ...cutter, supplier })}
          />
          <TextField label="Notes" value={cutter.notes} lines={2} onChange={(notes) => change({ ...cutter, notes })} />
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gap: 2 }}>
        {leans && (
          <Box sx={{ pb: 2, borderBottom: '1px solid', borderColor: 'divider' }}>
            <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
              Width and depth
            </Typography>
            <Box sx={two}>
              <LengthField
                label="At a depth of"
                value={depth}
                unit={unit}
                min={0}
                max={deep}
                onChange={(v) => v !== null && setDepth(v)}
              />
              <LengthField
                label="the groove is wide"
                value={width}
                unit={unit}
                min={0}
                max={2 * radiusAt(cutter, deep)}
                onChange={(v) => v !== null && setDepth(depthAt(v))}
              />
            </Box>
            <WidthChart cutter={cutter} unit={unit} depth={depth} />
            <Typography variant="caption" sx={{ color: 'text.secondary' }}>
              It cuts {show(deep)} deep at most, {show(2 * radiusAt(cutter, deep))} wide.
            </Typography>
          </Box>
        )}
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <Typography variant="h3" component="h2">
            Preset
          </Typography>
          <ChoiceField
            label="Material"
            value={material}
            options={materialIds.map((m) => ({ value: m, label: materials[m].name }))}
            onChange={(m) => setMaterial(m as MaterialId)}
          />
          <Box sx={two}>
            {turns && (
              <NumberField
                label="Spindle"
                unit="rpm"
                value={preset.rpm}
                {...limitsOf(presetSchema, 'rpm')}
                onChange={(rpm) => setPreset({ ...preset, rpm })}
              />
            )}
            {length('feed', 'Feed')}
            {length('plunge', 'Plunge feed')}
            {length('stepDown', 'Step-down')}
            {length('stepOver', 'Step-over')}
            {leans && (
              <LengthField
                label="Scallop height"
                value={ridge}
                unit={unit}
                min={0}
                max={deep}
                onChange={(v) => v !== null && v > 0 && setPreset({ ...preset, stepOver: stepForScallop(cutter, v) })}
              />
            )}
          </Box>
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            Step-over {share} % of the {whole.of} (also typed so: 40%)
            {share <= 100 ? `, rows overlap ${+(100 - share).toFixed(2)} %` : ''}
            {turns && preset.rpm > 0
              ? `. Chip load ${show(chipLoad(cutter, preset))}, up to ${(removalRate(preset) / 1000).toFixed(2)} cm\u00b3/min`
              : ''}
            .
          </Typography>
          <Button
            color="inherit"
            variant="outlined"
            sx={{ justifySelf: 'start', borderColor: 'var(--mui-palette-line)' }}
            onClick={() => setPreset(presetFor(cutter.shape, cutter.values, cutter.teeth, material))}
          >
            Suggest feeds and speeds
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
