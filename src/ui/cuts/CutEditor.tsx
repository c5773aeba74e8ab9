'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useWork } from '@/compute/pipeline';
import { presetOf } from '@/core/pipeline/planning';
import { kindOf } from '@/core/cuts/registry';
import type { Cut } from '@/core/job/job';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { changeCut, setCutValue } from '@/ui/actions/edits';
import { FieldForm, setAt } from '@/ui/common/FieldForm';
import { TextField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useLibrary } from '@/ui/library/useLibrary';
import { cutColour } from '@/ui/theme/theme';
import { setView, useView } from '@/ui/view';
import { DepthDrawing } from './DepthDrawing';
import { Speeds } from './Speeds';

export function CutEditor({ cut }: { cut: Cut }) {
  const job = useLater(useOpenJob, (s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const picked = useLater(useView, (v) => v.picked);
  const plan = useLater(useWork, (w) => w.cuts[cut.id]?.plan);
  const kind = kindOf(cut.kind);
  // The job's own copies come first: they are what is cut with.
  const cutters = [...job.cutters, ...library.filter((l) => !job.cutters.some((c) => c.id === l.id))];
  const same = picked.length === cut.items.length && picked.every((p) => cut.items.includes(p));
  const placedTabs = (cut.values.tabs as { at: unknown[] } | undefined)?.at.length ?? 0;
  const items = cut.items.filter((id) => job.items.some((i) => i.id === id)).length;
  return (
    <>
      <Group title={cut.name}>
        <DepthDrawing side={kind.side(cut.values, job.blank, (id) => cutters.find((c) => c.id === id) ?? null)} blank={job.blank} unit={job.unit} colour={cutColour(job.cuts.indexOf(cut))} />
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1.25, minHeight: 34 }}>
          <Typography variant="body2" sx={{ flex: 1, color: items ? 'text.secondary' : 'error.main' }}>
            {items ? `Cuts ${items} ${items === 1 ? 'item' : 'items'}` : 'Pick artwork on the table for this cut'}
          </Typography>
          {same || !picked.length ? (
            <Button size="small" color="inherit" disabled={!items} onClick={() => setView({ picked: cut.items })}>
              Show them
            </Button>
          ) : (
            <Button size="small" variant="outlined" onClick={() => changeCut(cut.id, 'Choose artwork', (c) => void (c.items = [...picked]))}>
              Use the {picked.length} picked
            </Button>
          )}
        </Box>
        <FieldForm
          fields={kind.fields}
          values={cut.values}
          unit={job.unit}
          cutters={cutters}
          onChange={(key, value, f) => {
            let values = setAt(cut.values, key, value);
            // Another number of tabs spreads them anew.
            if (key === 'tabs.count') values = setAt(values, 'tabs.at', []);
            setCutValue(cut.id, values, f.label, library);
          }}
        />
        {placedTabs > 0 && (
          <Typography variant="caption" sx={{ display: 'block', mt: 1, color: 'text.secondary' }}>
            {placedTabs} tabs stand where you put them.{' '}
            <Link component="button" onClick={() => setCutValue(cut.id, setAt(cut.values, 'tabs.at', []), 'tabs', library)}>
              Spread them evenly
            </Link>
          </Typography>
        )}
        {plan && plan.unreached.area > 0.05 && (
          <Typography variant="body2" sx={{ mt: 1.25 }}>
            <Box component="span" sx={{ color: 'error.main', fontWeight: 600 }}>
              {plan.unreached.region.length} places
            </Box>{' '}
            ({plan.unreached.area.toFixed(2)} mm{'\u00b2'}) are out of the cutter{'\u2019'}s reach.
          </Typography>
        )}
        {plan?.remarks.map((r) => (
          <Typography key={r.text} variant="body2" sx={{ mt: 1, color: r.level === 'problem' ? 'error.main' : 'text.secondary' }}>
            {r.text}
          </Typography>
        ))}
      </Group>
      {kind.cutters(cut.values).map((id) => {
        const cutter = cutters.find((c) => c.id === id);
        if (!cutter) return null;
        return <Speeds key={id} cut={cut} cutter={cutter} preset={presetOf(cutter, job, null)} />;
      })}
      <Group>
        <TextField label="Name of this cut" value={cut.name} onChange={(v) => changeCut(cut.id, 'Rename cut', (c) => void (c.name = v), `cut-name-${cut.id}`)} />
      </Group>
    </>
  );
}
