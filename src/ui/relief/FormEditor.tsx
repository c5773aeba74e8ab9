'use client';
import BookmarkAddOutlined from '@mui/icons-material/BookmarkAddOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { meetings, type Meeting } from '@/core/relief/form';
import { groupOf } from '@/core/relief/groups';
import { formKindOf } from '@/core/relief/registry';
import { formSchema, type Form } from '@/core/relief/stack';
import { choices } from '@/core/units/fields';
import { limitsOf } from '@/core/units/limits';
import { changeForm } from '@/ui/actions/edits';
import { groupForm, setFormValue, ungroupForms } from '@/ui/actions/relief';
import { standMesh, standsBy } from '@/ui/actions/standMesh';
import { keepRelief } from '@/ui/actions/reliefLibrary';
import { FieldForm } from '@/ui/common/FieldForm';
import { ChoiceField, FlagField, LengthField, NumberField, TextField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { UsedItems } from '@/ui/common/UsedItems';
import { setView, useView } from '@/ui/view';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { BrushPanel } from './BrushPanel';

const grid = { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' };

/** The values of one form: its own, how it meets what lies under it, and where. */
export function FormEditor({ form }: { form: Form }) {
  const unit = useOpenJobLater((s) => s.job!.unit);
  const forms = useOpenJobLater((s) => s.job!.relief.forms);
  const beside = useView((v) => !!v.split && v.split.of !== 'proof' && v.split.of.without === form.id);
  const note = useWorkLater((w) => w.relief?.shaped.notes[form.id] ?? '');
  const asked = useViewLater((v) => v.typing);
  const kind = formKindOf(form.kind);
  const lines = kind.lines?.(form.values);
  const change = (name: string, recipe: (f: Form) => void) => changeForm(form.id, name, recipe);
  return (
    <>
      <Group title={form.name}>
        {note && (
          <Typography role="note" sx={{ fontSize: 13, color: 'text.secondary', mb: 1.25 }}>
            {note}
          </Typography>
        )}
        {kind.ofOutlines && (
          <UsedItems
            ids={form.items}
            words="Made of"
            none="Pick lettering or outlines on the table for this form"
            use={(picked) => change('Choose artwork', (f) => void (f.items = picked))}
          />
        )}
        {lines && (
          <UsedItems
            ids={form.items}
            words={lines.words}
            none={lines.none}
            use={(picked) => change('Choose artwork', (f) => void (f.items = picked))}
          />
        )}
        {kind.drawn?.(form.values) && (
          <UsedItems
            ids={form.profile.items}
            words="Profile from"
            none="Pick the line that was drawn for its profile"
            use={(picked) => change('Choose a profile', (f) => void (f.profile = { items: picked.slice(0, 10) }))}
          />
        )}
        {kind.adjusts && (
          <Box sx={{ mb: 1.25 }}>
            <FlagField
              label="Beside what it was, on the left of a line"
              value={beside}
              onChange={(on) =>
                setView((v) => ({ split: on ? { of: { without: form.id }, at: v.split?.at ?? 0.5 } : null }))
              }
            />
          </Box>
        )}
        {kind.brushed && <BrushPanel form={form} />}
        {kind.holds && (
          <Button size="small" color="inherit" variant="outlined" onClick={() => ungroupForms(form.id)}>
            Take the group apart
          </Button>
        )}
        <FieldForm
          fields={kind.fields}
          values={form.values}
          unit={unit}
          asked={asked?.id === form.id ? asked.n : undefined}
          onChange={(key, value, f) =>
            standsBy(form, key) ? void standMesh(form, key, value, f) : setFormValue(form.id, key, value, f)
          }
        />
      </Group>
      <Group title="On what lies under it">
        <Box sx={grid}>
          {!kind.adjusts && (
            <ChoiceField
              label="It"
              value={form.meets}
              options={choices(meetings)}
              onChange={(v) => change('Change how a form meets', (f) => void (f.meets = v as Meeting))}
            />
          )}
          {!kind.adjusts && (
            <LengthField
              label="Begins at"
              value={form.base}
              unit={unit}
              {...limitsOf(formSchema, 'base')}
              hint="Above the base of the stack"
              onChange={(v) => v !== null && change('Change where a form begins', (f) => void (f.base = v))}
            />
          )}
          <NumberField
            label="Strength"
            value={form.strength * 100}
            unit="%"
            min={0}
            max={kind.adjusts ? 100 : 100_000}
            onChange={(v) => change('Change the strength of a form', (f) => void (f.strength = v / 100))}
          />
          <TextField
            label="Name"
            value={form.name}
            onChange={(v) => v.trim() && change('Rename form', (f) => void (f.name = v.trim().slice(0, 200)))}
          />
          {!kind.holds && (
            <ChoiceField
              label="In group"
              value={groupOf(forms, form)?.id ?? ''}
              options={[
                { value: '', label: 'In none' },
                ...forms.filter((f) => formKindOf(f.kind).holds).map((f) => ({ value: f.id, label: f.name })),
                { value: 'new', label: 'A new one' },
              ]}
              onChange={(v) => groupForm(form.id, v || null)}
            />
          )}
        </Box>
        {!kind.adjusts && (
          <Button
            size="small"
            color="inherit"
            variant="outlined"
            startIcon={<BookmarkAddOutlined />}
            onClick={() => void keepRelief(form)}
            sx={{ mt: 1.25 }}
          >
            Keep it in the library
          </Button>
        )}
      </Group>
      <Group title="Where">
        <ChoiceField
          label="It counts"
          value={form.mask?.side ?? 'all'}
          options={choices({ all: 'Everywhere', inside: 'Inside outlines', outside: 'Outside outlines' })}
          onChange={(v) =>
            change('Change where a form counts', (f) => {
              if (v === 'all') f.mask = null;
              else
                f.mask = {
                  items: f.mask?.items ?? [...useView.getState().picked],
                  edge: f.mask?.edge ?? 0,
                  side: v as 'inside' | 'outside',
                };
            })
          }
        />
        {form.mask && (
          <Box sx={{ mt: 1.25 }}>
            <UsedItems
              ids={form.mask.items}
              words={form.mask.side === 'inside' ? 'Inside' : 'Outside'}
              none="Pick outlines on the table for it"
              use={(picked) => change('Choose artwork', (f) => void (f.mask && (f.mask.items = picked)))}
            />
            <LengthField
              label="Soft edge"
              value={form.mask.edge}
              unit={unit}
              min={0}
              max={500}
              onChange={(v) => v !== null && change('Change a soft edge', (f) => void (f.mask && (f.mask.edge = v)))}
            />
          </Box>
        )}
      </Group>
    </>
  );
}
