'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { TurnedOver } from '@/core/job/job';
import { whyNoDowels } from '@/core/job/dowels';
import { sourcesOf } from '@/core/job/allSetups';
import { drillDowels, startSetupFrom } from '@/ui/actions/setups';
import { ChoiceField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJobLater } from '@/ui/following';
import { DowelsAmiss } from './DowelsAmiss';

const UNCUT = '';
const turnNames: readonly { readonly value: TurnedOver; readonly label: string }[] = [
  { value: 'none', label: 'No, the same face' },
  { value: 'y', label: 'Left to right' },
  { value: 'x', label: 'Front to back' },
];

/** What a set-up starts from, where there are others before it. */
export function StartsFrom() {
  const { whole, shownId } = useOpenJobLater((s) => s);
  const setup = whole?.setups.find((s) => s.id === shownId);
  const sources = whole && shownId ? sourcesOf(whole, shownId) : [];
  if (!whole || !setup || !sources.length) return null;
  const { after } = setup;
  const source = after && sources.find((s) => s.id === after.setup)?.name;
  return (
    <Group title="Starts from">
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
        <ChoiceField
          label="What it starts from"
          value={after?.setup ?? UNCUT}
          options={[{ value: UNCUT, label: 'An uncut blank' }, ...sources.map((s) => ({ value: s.id, label: s.name }))]}
          onChange={(v) =>
            startSetupFrom(setup.id, v === UNCUT ? null : { setup: String(v), turned: after?.turned ?? 'none' })
          }
        />
        {after && (
          <ChoiceField
            label="Turned over"
            value={after.turned}
            options={turnNames}
            onChange={(v) => startSetupFrom(setup.id, { ...after, turned: v as TurnedOver })}
          />
        )}
      </Box>
      <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 1, mb: 0 }}>
        {after
          ? `${after.turned === 'none' ? `The same face is up as in "${source}".` : `The face that lay down in "${source}" is up.`} The proof starts from what that leaves; size and material are those of its blank.`
          : 'A piece of its own, uncut.'}
      </Typography>
      <DowelsAmiss />
      {!whyNoDowels(whole, setup.id) && (
        <Button size="small" sx={{ ml: -0.75, mt: 0.5 }} onClick={drillDowels}>
          {`Drill dowel holes in "${source}"`}
        </Button>
      )}
    </Group>
  );
}
