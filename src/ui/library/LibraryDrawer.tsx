'use client';
import CloseRounded from '@mui/icons-material/CloseRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Drawer from '@mui/material/Drawer';
import IconButton from '@mui/material/IconButton';
import OutlinedInput from '@mui/material/OutlinedInput';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cutterSchema, type Cutter, type Preset } from '@/core/cutters/cutter';
import { presetFor } from '@/core/cutters/library';
import { materials, materialIds, type MaterialId } from '@/core/cutters/materials';
import { shapeOf } from '@/core/cutters/registry';
import { freshId } from '@/store/jobs';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { ChoiceField, LengthField, NumberField, TextField } from '@/ui/common/fields';
import { FieldForm, setAt } from '@/ui/common/FieldForm';
import { setView, useView } from '@/ui/view';
import { CutterDrawing } from './CutterDrawing';
import { useLibrary } from './useLibrary';

export function LibraryDrawer() {
  const open = useView((v) => v.library);
  return (
    <Drawer anchor="right" open={open} onClose={() => setView({ library: false })} slotProps={{ paper: { sx: { width: 760, maxWidth: '96vw' }, 'aria-label': 'Tool library', role: 'dialog' } }}>
      {open && <Library />}
    </Drawer>
  );
}

function Library() {
  const { cutters, save, remove } = useLibrary();
  const job = useLater(useOpenJob, (s) => s.job);
  const [id, setId] = useState(cutters[0]?.id);
  const [search, setSearch] = useState('');
  const [error, setError] = useState('');
  const [material, setMaterial] = useState<MaterialId>(job?.blank.material ?? 'oak');
  const cutter = cutters.find((c) => c.id === id) ?? cutters[0];
  const found = cutters.filter((c) => `${c.name} ${c.group} ${shapeOf(c.shape).name}`.toLowerCase().includes(search.toLowerCase()));
  const groups = [...new Set(found.map((c) => c.group))];
  const change = (next: Cutter) => {
    const r = cutterSchema.safeParse(next);
    if (!r.success) {
      setError(r.error.issues[0].message);
      return;
    }
    setError('');
    void save(r.data);
  };
  const unit = cutter?.unit ?? 'mm';
  const used = job?.cutters.find((c) => c.id === cutter?.id);
  const differs = used && cutter && JSON.stringify({ ...used, slot: 0 }) !== JSON.stringify({ ...cutter, slot: 0, order: undefined });
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 2.5, py: 1.5, borderBottom: '1px solid', borderColor: 'divider' }}>
        <Typography variant="h2" component="h2">
          Tool library
        </Typography>
        <OutlinedInput size="small" placeholder="Search" value={search} onChange={(e) => setSearch(e.target.value)} inputProps={{ 'aria-label': 'Search the cutters' }} sx={{ flex: 1, maxWidth: 260 }} />
        <Box sx={{ flex: 1 }} />
        <IconButton aria-label="Close the tool library" onClick={() => setView({ library: false })}>
          <CloseRounded />
        </IconButton>
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box sx={{ width: 270, flex: 'none', overflowY: 'auto', borderRight: '1px solid', borderColor: 'divider', py: 1, bgcolor: 'var(--mui-palette-faint)' }}>
          {!found.length && <Typography sx={{ p: 2, color: 'text.secondary' }}>No cutter is called that.</Typography>}
          {groups.map((g) => (
            <Box key={g} sx={{ mb: 1 }}>
              <Typography variant="caption" sx={{ px: 2, color: 'text.secondary', fontWeight: 600 }}>
                {g}
              </Typography>
              {found
                .filter((c) => c.group === g)
                .map((c) => (
                  <ButtonBase key={c.id} aria-pressed={c.id === cutter?.id} onClick={() => { setId(c.id); setError(''); }} sx={{ display: 'block', width: '100%', textAlign: 'left', px: 2, py: 0.6, fontSize: 13, bgcolor: c.id === cutter?.id ? 'var(--mui-palette-wash)' : undefined, fontWeight: c.id === cutter?.id ? 600 : 450, '&:hover': { bgcolor: 'var(--mui-palette-wash)' } }}>
                    {c.name}
                  </ButtonBase>
                ))}
            </Box>
          ))}
        </Box>
        {cutter && (
          <Box key={cutter.id} sx={{ flex: 1, minWidth: 0, overflowY: 'auto', p: 2.5, display: 'grid', gap: 2, alignContent: 'start' }}>
            <CutterDrawing cutter={cutter} unit={unit} />
            {error && (
              <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
                {error} The cutter stays as it was.
              </Typography>
            )}
            <Box sx={{ display: 'grid', gap: 1.25 }}>
              <TextField label="Name" value={cutter.name} onChange={(name) => change({ ...cutter, name })} />
              <FieldForm fields={shapeOf(cutter.shape).fields} values={cutter.values} unit={unit} onChange={(key, value) => change({ ...cutter, values: setAt(cutter.values, key, value) as Record<string, number> })} />
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
                <LengthField label="Length of the edges" value={cutter.fluteLength} unit={unit} min={0.01} max={300} onChange={(v) => v !== null && change({ ...cutter, fluteLength: v })} />
                <LengthField label="Shank diameter" value={cutter.shankDiameter} unit={unit} min={0.1} max={100} onChange={(v) => v !== null && change({ ...cutter, shankDiameter: v })} />
                <NumberField label="Teeth" value={cutter.teeth} whole min={1} max={12} onChange={(v) => change({ ...cutter, teeth: v })} />
                <ChoiceField label="Unit of this cutter" value={cutter.unit} options={[{ value: 'mm', label: 'mm' }, { value: 'in', label: 'inch' }]} onChange={(v) => change({ ...cutter, unit: v as 'mm' | 'in' })} />
              </Box>
            </Box>
            <Box sx={{ borderTop: '1px solid', borderColor: 'divider', pt: 2, display: 'grid', gap: 1.25 }}>
              <Typography variant="h3">Preset</Typography>
              <ChoiceField label="In" value={material} options={materialIds.map((m) => ({ value: m, label: materials[m].name }))} onChange={(m) => setMaterial(m as MaterialId)} />
              <PresetFields preset={cutter.presets[material] ?? presetFor(cutter.shape, cutter.values, cutter.teeth, material)} unit={unit} onChange={(p) => change({ ...cutter, presets: { ...cutter.presets, [material]: p } })} />
              <Button color="inherit" variant="outlined" sx={{ justifySelf: 'start', borderColor: 'var(--mui-palette-line)' }} onClick={() => change({ ...cutter, presets: { ...cutter.presets, [material]: presetFor(cutter.shape, cutter.values, cutter.teeth, material) } })}>
                Work it out from the trade{'\u2019'}s formulas
              </Button>
            </Box>
            <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', borderTop: '1px solid', borderColor: 'divider', pt: 2 }}>
              {differs && (
                <Button variant="contained" onClick={() => useOpenJob.getState().edit('Take the changed cutter', (j) => { const i = j.cutters.findIndex((c) => c.id === cutter.id); const { order: _order, ...plain } = cutter as Cutter & { order?: number }; j.cutters[i] = plain; })}>
                  Use it so in this job
                </Button>
              )}
              <Button color="inherit" onClick={() => { const copy = { ...cutter, id: freshId(), name: `${cutter.name} copy` }; void save(copy).then(() => setId(copy.id)); }}>
                Copy this cutter
              </Button>
              <Button color="error" onClick={() => void remove(cutter.id)}>
                Delete it
              </Button>
            </Box>
            {used && <Typography variant="caption" sx={{ color: 'text.secondary' }}>This job uses the cutter. It keeps its own copy: a change here reaches the job only when you say so.</Typography>}
          </Box>
        )}
      </Box>
    </Box>
  );
}

function PresetFields({ preset, unit, onChange }: { preset: Preset; unit: 'mm' | 'in'; onChange: (p: Preset) => void }) {
  const length = (label: string, key: 'feed' | 'plunge' | 'stepDown' | 'stepOver') => <LengthField label={label} value={preset[key]} unit={unit} min={0.0001} max={100000} onChange={(v) => v !== null && onChange({ ...preset, [key]: v })} />;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
      <NumberField label="Spindle" unit="rpm" value={preset.rpm} min={0} max={100000} onChange={(rpm) => onChange({ ...preset, rpm })} />
      {length('Feed /min', 'feed')}
      {length('Plunge /min', 'plunge')}
      {length('Step-down', 'stepDown')}
      {length('Step-over', 'stepOver')}
    </Box>
  );
}
