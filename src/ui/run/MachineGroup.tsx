'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Fragment, useState } from 'react';
import { calibrated, machines, machineSchema, type Machine } from '@/core/machine/profile';
import { seconds } from '@/core/motion/timing';
import { durationText } from '@/core/units/duration';
import { getAt, setAt } from '@/core/units/fields';
import { limitsOf } from '@/core/units/limits';
import { freshId } from '@/store/jobs';
import { ChoiceField, FlagField, LengthField, NumberField, TextField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useShelf } from '@/ui/common/useShelf';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

const axes = ['x', 'y', 'z'] as const;

/** The machine that the programs are timed and checked for: chosen, changed, kept, taught by real minutes. */
export function MachineGroup() {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const { kept, keep, drop } = useShelf('machines');
  const { machine } = job.run;
  const { unit } = job;
  const all = [...machines.filter((m) => !kept.some((k) => k.id === m.id)), ...kept];
  const known = all.find((m) => m.id === machine.id);
  const changed = !known || JSON.stringify(machineSchema.parse(known)) !== JSON.stringify(machineSchema.parse(machine));
  const set = (name: string, recipe: (m: Machine) => void) => edit(`Change ${name}`, (j) => recipe(j.run.machine));
  /** A number of the machine by where it stands in it (`travel.x`). */
  const numberAt = (key: string) => getAt(machine, key) as number;
  const put = (key: string, name: string) => (v: number | null) =>
    v !== null && edit(`Change ${name}`, (j) => void (j.run.machine = setAt(j.run.machine, key, v) as Machine));
  const length = (label: string, key: string, name: string, how: { rate?: boolean; bare?: boolean } = {}) => (
    <LengthField
      label={label}
      value={numberAt(key)}
      unit={unit}
      {...how}
      {...limitsOf(machineSchema, key)}
      onChange={put(key, name)}
    />
  );
  const number = (label: string, key: string, name: string, how: { unit?: string; bare?: boolean } = {}) => (
    <NumberField
      label={label}
      {...how}
      value={numberAt(key)}
      {...limitsOf(machineSchema, key)}
      onChange={put(key, name)}
    />
  );
  const grid = (columns: number) => ({
    display: 'grid',
    gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
    gap: 1.25,
    mt: 1.25,
  });
  return (
    <Group title="Machine">
      <ChoiceField
        label="Machine"
        value={known ? machine.id : ''}
        options={[
          ...(known ? [] : [{ value: '', label: machine.name }]),
          ...all.map((m) => ({ value: m.id, label: m.name })),
        ]}
        onChange={(id) => {
          const m = all.find((q) => q.id === id);
          if (m)
            edit(
              'Choose machine',
              (j) =>
                void ((j.run.machine = { ...m }),
                (j.run.dialect =
                  [...j.run.dialects.map((d) => d.id)].includes(m.dialect) || !m.dialect.startsWith('own-')
                    ? m.dialect
                    : j.run.dialect)),
            );
        }}
      />
      <Box sx={grid(2)}>
        <TextField
          label="Its name"
          value={machine.name}
          onChange={(v) => v.trim() && set('name of the machine', (m) => void (m.name = v))}
        />
        {length('Rapid rate', 'rapid', 'rapid rate', { rate: true })}
        {length('Junction deviation', 'junctionDeviation', 'junction deviation')}
        {number('Tool change', 'toolChangeSeconds', 'tool change', { unit: 's' })}
        {number('Lowest spindle speed', 'spindle.min', 'spindle', { unit: 'rpm' })}
        {number('Highest spindle speed', 'spindle.max', 'spindle', { unit: 'rpm' })}
      </Box>
      <Box sx={{ ...grid(3), gridTemplateColumns: 'auto repeat(3, minmax(0, 1fr))', alignItems: 'center' }}>
        <span />
        {[
          ['Travel', unit],
          ['Speed', `${unit}/min`],
          ['Acceleration', 'mm/s\u00b2'],
        ].map(([what, of]) => (
          <Typography key={what} variant="caption" aria-hidden sx={{ color: 'text.secondary', lineHeight: 1.3 }}>
            {what}
            <br />
            {of}
          </Typography>
        ))}
        {axes.map((a) => {
          const axis = a.toUpperCase();
          return (
            <Fragment key={a}>
              <Typography variant="body2" aria-hidden sx={{ fontWeight: 600 }}>
                {axis}
              </Typography>
              {length(`Travel ${axis}`, `travel.${a}`, 'travel', { bare: true })}
              {length(`Speed ${axis}`, `maxFeed.${a}`, 'speed', { rate: true, bare: true })}
              {number(`Acceleration ${axis}, mm/s\u00b2`, `accel.${a}`, 'acceleration', { bare: true })}
            </Fragment>
          );
        })}
      </Box>
      <Box sx={{ mt: 1 }}>
        <FlagField
          label="Has a probe"
          value={machine.probe}
          onChange={(v) => set('probe', (m) => void (m.probe = v))}
        />
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
        {changed && (
          <Button
            size="small"
            variant="outlined"
            onClick={() =>
              void keep({ ...machine, id: kept.some((k) => k.id === machine.id) ? machine.id : `own-${freshId()}` })
            }
          >
            Keep on this device
          </Button>
        )}
        {changed && known && (
          <Button
            size="small"
            color="secondary"
            onClick={() => edit('Put machine back', (j) => void (j.run.machine = { ...known }))}
          >
            Put back
          </Button>
        )}
        {kept.some((k) => k.id === machine.id) && (
          <Button size="small" color="error" onClick={() => void drop(machine.id)}>
            Forget on this device
          </Button>
        )}
      </Box>
      <Calibration machine={machine} />
    </Group>
  );
}

/** Real minutes of this job, as the maker reports them: what they would change is shown before it is taken. */
function Calibration({ machine }: { machine: Machine }) {
  const edit = useOpenJobLater((s) => s.edit);
  const proof = useWorkLater((w) => w.proof);
  const [real, setReal] = useState<number | null>(null);
  if (!proof || !(proof.minutes > 0)) return null;
  const moving = proof.times.reduce((sum, t) => sum + seconds(t.time), 0) / 60;
  // Tool changes and waiting stay as they are: the factor is for what moves.
  const still = proof.minutes - moving;
  const reckoned = moving / machine.factor;
  const factor = real !== null && real > still ? calibrated([reckoned], [real - still]) : null;
  return (
    <Box sx={{ mt: 1.5, borderTop: '1px solid', borderColor: 'divider', pt: 1.5 }}>
      <NumberField
        label="Minutes it really took"
        unit="min"
        value={real ?? +proof.minutes.toFixed(1)}
        min={0.1}
        max={10000}
        onChange={setReal}
      />
      <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 0.75, mb: 0 }}>
        {factor === null
          ? `Times on this machine are multiplied by ${machine.factor.toFixed(2)}. Type what the job really took, and Mirvak learns from it.`
          : `Moving would be multiplied by ${factor.toFixed(2)} instead of ${machine.factor.toFixed(2)}: ${durationText(proof.minutes)} becomes ${durationText(reckoned * factor + still)}.`}
      </Typography>
      {factor !== null && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 0.75 }}
          onClick={() => {
            edit('Calibrate machine', (j) => void (j.run.machine.factor = factor));
            setReal(null);
          }}
        >
          Take this
        </Button>
      )}
    </Box>
  );
}
