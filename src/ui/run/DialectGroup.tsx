'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { dialectOf, dialects, dialectSchema, type Dialect } from '@/core/program/dialect';
import { trialParts, troubleWith } from '@/core/program/verify';
import { writeProgram } from '@/core/program/writer';
import type { OneSetup } from '@/core/job/job';
import { choices, type Field, setAt } from '@/core/units/fields';
import { firstIssue } from '@/core/units/issues';
import { freshId } from '@/store/jobs';
import { FieldForm } from '@/ui/common/FieldForm';
import { ChoiceField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useShelf } from '@/ui/common/useShelf';
import { useOpenJobLater } from '@/ui/following';

const fields: Field[] = [
  { kind: 'text', key: 'name', label: 'Name' },
  { kind: 'choice', key: 'unit', label: 'Lengths in', options: choices({ mm: 'Millimetres', in: 'Inches' }) },
  { kind: 'number', key: 'decimals', label: 'Decimals', whole: true, min: 2, max: 6 },
  {
    kind: 'choice',
    key: 'change',
    label: 'Tool change',
    options: choices({ command: 'M6 command', pause: 'M0 pause' }),
  },
  { kind: 'choice', key: 'files', label: 'Cutters in a file', options: choices({ any: 'Any number', cutter: 'One' }) },
  { kind: 'number', key: 'spindleWait', label: 'Wait for the spindle', unit: 's', min: 0, max: 120 },
  { kind: 'text', key: 'extension', label: 'Extension' },
  {
    kind: 'choice',
    key: 'comments',
    label: 'Comments',
    options: choices({ brackets: 'In brackets', semicolon: 'After ;' }),
  },
  { kind: 'choice', key: 'end', label: 'Ends with', options: choices({ M30: 'M30', M2: 'M2' }) },
  { kind: 'flag', key: 'arcs', label: 'Arcs as arcs (G2, G3)' },
  { kind: 'flag', key: 'arcCentres', label: 'Say that arc centres are incremental (G91.1)' },
  {
    kind: 'choice',
    key: 'workOffset',
    label: 'Work offset',
    options: choices({ none: 'Not called', G54: 'G54', G55: 'G55', G56: 'G56', G57: 'G57', G58: 'G58', G59: 'G59' }),
  },
  { kind: 'flag', key: 'cycles', label: 'Drill by canned cycles (G81)' },
  { kind: 'flag', key: 'toolLength', label: 'Call the tool length (G43)' },
  { kind: 'flag', key: 'numbers', label: 'Number the lines' },
  { kind: 'text', key: 'header', label: 'Lines after the units', lines: 2 },
  { kind: 'text', key: 'footer', label: 'Lines before the end', lines: 2 },
];
const info = { title: 'A trial', datum: { x: 0, y: 0, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };
const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((l) => l.trimEnd())
    .filter((l) => l !== '')
    .slice(0, 20);

/** How programs are written: a dialect to choose, to change, and to see at work while it is changed. */
export function DialectGroup() {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const { kept, keep } = useShelf('dialects');
  const [open, setOpen] = useState(false);
  const own = [...job.run.dialects, ...kept.filter((k) => !job.run.dialects.some((d) => d.id === k.id))];
  const now = dialectOf(job.run.dialect, job.run.dialects);
  const mine = job.run.dialects.some((d) => d.id === now.id);
  const choose = (id: string) =>
    edit('Change dialect', (j) => {
      const k = kept.find((d) => d.id === id);
      if (k && !j.run.dialects.some((d) => d.id === id)) j.run.dialects.push(k);
      j.run.dialect = id;
    });
  return (
    <Group
      title="How programs are written"
      action={
        <Button size="small" color="inherit" onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'Close the dialect' : 'Open the dialect'}
        </Button>
      }
    >
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        <ChoiceField
          label="Dialect"
          value={now.id}
          options={[...dialects, ...own].map((d) => ({ value: d.id, label: d.name }))}
          onChange={choose}
        />
        <ChoiceField
          label="Files"
          value={job.run.files}
          options={[
            { value: 'one', label: 'All in one' },
            { value: 'cutter', label: 'One per cutter' },
            { value: 'cut', label: 'One per cut' },
          ]}
          onChange={(v) => edit('Change files', (j) => void (j.run.files = v as OneSetup['run']['files']))}
        />
      </Box>
      {open && <Editor key={now.id} dialect={now} mine={mine} keep={keep} />}
    </Group>
  );
}

function Editor({ dialect, mine, keep }: { dialect: Dialect; mine: boolean; keep: (d: Dialect) => Promise<void> }) {
  const edit = useOpenJobLater((s) => s.edit);
  const unit = useOpenJobLater((s) => s.job!.unit);
  const [draft, setDraft] = useState(dialect);
  const [refused, setRefused] = useState('');
  const trouble = useMemo(() => troubleWith(draft, trialParts(), info), [draft]);
  const text = useMemo(() => writeProgram(trialParts(), info, draft), [draft]);
  const changed = JSON.stringify(draft) !== JSON.stringify(dialect);
  const take = () => {
    const d = mine
      ? draft
      : { ...draft, id: `own-${freshId()}`, name: draft.name === dialect.name ? `${draft.name}, mine` : draft.name };
    edit('Change dialect', (j) => {
      j.run.dialects = [...j.run.dialects.filter((q) => q.id !== d.id), d];
      j.run.dialect = d.id;
    });
    void keep(d);
  };
  return (
    <Box sx={{ mt: 1.5 }}>
      <FieldForm
        fields={fields}
        values={{ ...draft, header: draft.header.join('\n'), footer: draft.footer.join('\n') }}
        unit={unit}
        onChange={(key, value) => {
          const next = setAt(
            draft as unknown as Record<string, unknown>,
            key,
            key === 'header' || key === 'footer' ? lines(String(value)) : value,
          );
          const r = dialectSchema.safeParse(next);
          setRefused(r.success ? '' : firstIssue(r.error));
          if (r.success) setDraft(r.data);
        }}
      />
      {refused && (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main', mt: 1 }}>
          {refused} The dialect stays as it was.
        </Typography>
      )}
      <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 1.25, mb: 0.5 }}>
        A trial piece, as this dialect writes it
      </Typography>
      <Box
        component="pre"
        aria-label="Trial program"
        tabIndex={0}
        sx={{
          m: 0,
          p: 1,
          maxHeight: 220,
          overflow: 'auto',
          fontFamily: '"IBM Plex Mono"',
          fontSize: 12,
          lineHeight: 1.5,
          border: '1px solid',
          borderColor: 'divider',
          borderRadius: 1.5,
          bgcolor: 'var(--mui-palette-faint)',
        }}
      >
        {text}
      </Box>
      <Typography role="status" variant="body2" sx={{ mt: 1, color: trouble ? 'error.main' : 'primary.main' }}>
        {trouble ?? 'Read back, it says move by move what was planned.'}
      </Typography>
      {changed && (
        <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
          <Button size="small" variant="contained" disabled={!!trouble} onClick={take}>
            {mine ? 'Use it so' : 'Use it as my own'}
          </Button>
          <Button size="small" color="inherit" onClick={() => setDraft(dialect)}>
            Put back
          </Button>
        </Box>
      )}
    </Box>
  );
}
