'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Cut } from '@/core/job/job';
import { kindOf } from '@/core/cuts/registry';
import { recipeOf } from '@/core/job/recipe';
import { freshId } from '@/store/jobs';
import { getAt, setAt } from '@/core/units/fields';
import { FieldForm } from '@/ui/common/FieldForm';
import { TextField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useShelf } from '@/ui/common/useShelf';
import { useLibrary } from '@/ui/library/useLibrary';
import { setView } from '@/ui/view';
import { useOpenJobLater } from '@/ui/following';

/** Several cuts at once: the values that all of them have, switching, deleting, keeping as a recipe. */
export function ManyCuts({ cuts }: { cuts: readonly Cut[] }) {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const library = useLibrary((l) => l.cutters);
  const { keep } = useShelf('recipes');
  const [name, setName] = useState('');
  const ids = new Set(cuts.map((c) => c.id));
  const [first, ...rest] = cuts.map((c) => kindOf(c.kind));
  const fields = first.fields.filter(
    (f) =>
      f.key !== 'cutter' &&
      f.kind !== 'cutters' &&
      rest.every((k) => k.fields.some((g) => g.key === f.key && g.kind === f.kind)),
  );
  const differ = fields.filter((f) =>
    cuts.some((c) => JSON.stringify(getAt(c.values, f.key)) !== JSON.stringify(getAt(cuts[0].values, f.key))),
  );
  const all = (words: string, recipe: (c: Cut) => void) =>
    edit(words, (j) => j.cuts.forEach((c) => ids.has(c.id) && recipe(c)));
  const on = cuts.some((c) => !c.enabled);
  return (
    <>
      <Group title={`${cuts.length} cuts`}>
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.25 }}>
          {fields.length ? 'A value set here is set in all of them.' : 'These cuts have no values in common.'}
          {differ.length > 0 && ` Not the same in all: ${differ.map((f) => f.label.toLowerCase()).join(', ')}.`}
        </Typography>
        <FieldForm
          fields={fields}
          values={cuts[0].values}
          unit={job.unit}
          cutters={[...job.cutters, ...library]}
          onChange={(key, value, f) =>
            all(
              `Change ${f.label.toLowerCase()} of ${cuts.length} cuts`,
              (c) => void (c.values = setAt(c.values, key, value)),
            )
          }
        />
        <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
          <Button
            size="small"
            variant="outlined"
            onClick={() => all(on ? 'Switch cuts on' : 'Switch cuts off', (c) => void (c.enabled = on))}
          >
            {on ? 'Switch on' : 'Switch off'}
          </Button>
          <Button
            size="small"
            color="error"
            onClick={() => {
              edit(`Delete ${cuts.length} cuts`, (j) => void (j.cuts = j.cuts.filter((c) => !ids.has(c.id))));
              setView({ cutId: null, alsoCuts: [] });
            }}
          >
            Delete
          </Button>
        </Box>
      </Group>
      <Group title="Keep as a recipe">
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.25 }}>
          Cutters, values and order of these cuts, to be added to other artwork in any job.
        </Typography>
        <Box sx={{ display: 'grid', gap: 1 }}>
          <TextField label="Name of the recipe" value={name} onChange={setName} />
          <Button
            variant="outlined"
            disabled={!name.trim()}
            sx={{ justifySelf: 'start' }}
            onClick={() => void keep(recipeOf(job, [...ids], `own-${freshId()}`, name.trim())).then(() => setName(''))}
          >
            Keep it
          </Button>
        </Box>
      </Group>
    </>
  );
}
