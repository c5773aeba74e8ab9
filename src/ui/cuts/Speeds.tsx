'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import {
  allPresetValues,
  chipLoad,
  cuttingLength,
  differs,
  leavesRidges,
  removalRate,
  scallopOf,
  stepForScallop,
  type Cutter,
  presetSchema,
  type Preset,
} from '@/core/cutters/cutter';
import { stepShareOf } from '@/core/cutters/library';
import { materials, type MaterialId } from '@/core/cutters/materials';
import { shapeOf } from '@/core/cutters/registry';
import { kindOf } from '@/core/cuts/registry';
import type { Cut } from '@/core/job/job';
import { percentOf } from '@/core/units/count';
import { formatLength } from '@/core/units/length';
import { limitsOf } from '@/core/units/limits';
import { changeCut, takeFromLibrary } from '@/ui/actions/edits';
import { LengthField, NumberField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useLibrary } from '@/ui/library/useLibrary';
import { useOpenJobLater } from '@/ui/following';

const names: Record<keyof Preset, string> = {
  rpm: 'spindle speed',
  feed: 'feed',
  plunge: 'plunge',
  stepDown: 'step-down',
  stepOver: 'step-over',
};

/** E.g. ` (feed, tip diameter)`: what the library says otherwise, as far as it concerns this job. */
function whatDiffers(mine: Cutter, theirs: Cutter, material: MaterialId): string {
  const a = mine.presets[material];
  const b = theirs.presets[material];
  const words = [
    ...(Object.keys(names) as (keyof Preset)[]).filter((k) => a?.[k] !== b?.[k]).map((k) => names[k]),
    ...shapeOf(theirs.shape)
      .fields.filter((f) => mine.values[f.key] !== theirs.values[f.key])
      .map((f) => f.label.toLowerCase()),
    ...(mine.fluteLength !== theirs.fluteLength ? ['cutting length'] : []),
    ...(mine.shankDiameter !== theirs.shankDiameter ? ['shank'] : []),
    ...(mine.name !== theirs.name ? ['name'] : []),
  ];
  return words.length ? ` (${words.join(', ')})` : '';
}

/** Speeds and steps of one cutter in this cut: the preset's, or the cut's own, which are marked, can be put back or kept in the library. */
export function Speeds({ cut, cutter, preset }: { cut: Cut; cutter: Cutter; preset: Preset }) {
  const job = useOpenJobLater((s) => s.job)!;
  const { cutters, save } = useLibrary();
  const shelved = cutters.find((c) => c.id === cutter.id);
  const { unit } = job;
  const own = cut.overrides[cutter.id] ?? {};
  const now = { ...preset, ...own };
  const set = (key: keyof Preset, value: number | null) =>
    value !== null &&
    changeCut(cut.id, `Change ${names[key]}`, (c) => {
      c.overrides[cutter.id] = { ...c.overrides[cutter.id], [key]: value };
    });
  const whole = stepShareOf(cutter);
  const length = (label: string, key: keyof Preset) => (
    <LengthField
      label={label}
      value={now[key]}
      unit={unit}
      rate={key === 'feed' || key === 'plunge'}
      share={key === 'stepOver' ? whole.mm : undefined}
      {...limitsOf(presetSchema, key)}
      marked={own[key] !== undefined}
      onChange={(v) => set(key, v)}
    />
  );
  const share = percentOf(now.stepOver, whole.mm);
  const turns = shapeOf(cutter.shape).turns;
  const used = kindOf(cut.kind).presets?.(cut.values, cutter.id) ?? allPresetValues;
  const scallop = scallopOf(cutter, now.stepOver);
  const material = materials[job.blank.material].name.toLowerCase();
  const overlap = share <= 100 ? `, rows overlap ${+(100 - share).toFixed(2)} %` : '';
  const steps = used.includes('stepOver') && ` Step-over ${share} % of the ${whole.of} (also typed so: 40%)${overlap}.`;
  // Who goes along a surface takes what was left above it: no step-down says how much.
  const removed =
    used.includes('stepOver') && used.includes('stepDown')
      ? `, up to ${(removalRate(now) / 1000).toFixed(2)} cm\u00b3/min`
      : '';
  const load = `${formatLength(chipLoad(cutter, now), unit)} ${unit}`;
  const chips = turns && now.rpm > 0 && used.includes('feed') && ` Chip load ${load}${removed}.`;
  return (
    <Group
      title={cutter.name}
      action={
        Object.keys(own).length > 0 && (
          <Box sx={{ display: 'flex', gap: 0.5 }}>
            {shelved && (
              <Button
                size="small"
                color="inherit"
                onClick={() => void save({ ...shelved, presets: { ...shelved.presets, [job.blank.material]: now } })}
              >
                Keep for {material}
              </Button>
            )}
            <Button
              size="small"
              color="secondary"
              onClick={() => changeCut(cut.id, 'Put speeds back', (c) => void delete c.overrides[cutter.id])}
            >
              Put back
            </Button>
          </Box>
        )
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
        {turns && used.includes('rpm') && (
          <NumberField
            label="Spindle"
            unit="rpm"
            value={now.rpm}
            {...limitsOf(presetSchema, 'rpm')}
            marked={own.rpm !== undefined}
            onChange={(v) => set('rpm', v)}
          />
        )}
        {used.includes('feed') && length('Feed', 'feed')}
        {used.includes('plunge') && length('Plunge feed', 'plunge')}
        {used.includes('stepDown') && length('Step-down', 'stepDown')}
        {used.includes('stepOver') && length('Step-over', 'stepOver')}
        {used.includes('stepOver') && leavesRidges(cutter) && (
          <LengthField
            label="Scallop height"
            value={scallop}
            unit={unit}
            min={0}
            max={cuttingLength(cutter)}
            marked={own.stepOver !== undefined}
            onChange={(v) => v !== null && v > 0 && set('stepOver', stepForScallop(cutter, v))}
          />
        )}
      </Box>
      <Typography variant="caption" sx={{ display: 'block', mt: 1, color: 'text.secondary' }}>
        {Object.keys(own).length ? 'Marked values are this cut\u2019s own.' : `Values of the cutter for ${material}.`}
        {steps}
        {chips}
      </Typography>
      {shelved && differs(shelved, cutter) && (
        <Box
          role="note"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            mt: 1,
            px: 1.25,
            py: 0.75,
            borderRadius: 2,
            bgcolor: 'var(--mui-palette-wash)',
          }}
        >
          <Typography variant="caption" sx={{ flex: 1 }}>
            The library has this cutter otherwise{whatDiffers(cutter, shelved, job.blank.material)}. This job keeps its
            own until you say so.
          </Typography>
          <Button size="small" variant="outlined" onClick={() => takeFromLibrary(shelved)}>
            Take it
          </Button>
        </Box>
      )}
    </Group>
  );
}
