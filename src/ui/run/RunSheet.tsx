'use client';
import DownloadRounded from '@mui/icons-material/DownloadRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { strToU8, zipSync } from 'fflate';
import { useWork } from '@/compute/pipeline';
import { slug, zeroText } from '@/core/pipeline/programs';
import { dialects } from '@/core/program/dialect';
import type { Job } from '@/core/job/job';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { download } from '@/ui/actions/files';
import { ChoiceField, LengthField, NumberField } from '@/ui/common/fields';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { useView } from '@/ui/view';
import { ProgramText } from './ProgramText';

export function RunSheet() {
  const job = useLater(useOpenJob, (s) => s.job)!;
  const edit = useLater(useOpenJob, (s) => s.edit);
  const proof = useLater(useWork, (w) => w.proof);
  const stale = useLater(useWork, (w) => w.proving !== null || w.planning !== null);
  const open = useLater(useView, (v) => v.file);
  const file = proof?.files.find((f) => f.name === open) ?? proof?.files[0];
  const { machine } = job.run;
  const machineValue = (name: string, recipe: (j: Job) => void) => edit(`Change ${name}`, recipe);
  return (
    <>
      <SheetHead title="Run" remark={proof?.files.length ? `${proof.files.length} ${proof.files.length === 1 ? 'program' : 'programs'}` : ''} />
      {!proof?.files.length && <Empty title="No program yet">{job.cuts.length ? 'Programs appear here as soon as the cuts are worked out.' : 'Add a cut first.'}</Empty>}
      {!!proof?.files.length && (
        <Group title="Programs">
          {proof.findings.length > 0 && (
            <Typography variant="body2" sx={{ color: 'error.main', mb: 1 }}>
              The proof found {proof.findings.length} {proof.findings.length === 1 ? 'thing' : 'things'}. Look under Proof before you run these.
            </Typography>
          )}
          <Box component="ul" aria-label="Program files" sx={{ listStyle: 'none', p: 0, m: 0, mb: 1.25 }}>
            {proof.files.map((f) => (
              <Box component="li" key={f.name} sx={{ display: 'flex', alignItems: 'center', gap: 0.5, borderRadius: 1.5, px: 1, bgcolor: f === file ? 'var(--mui-palette-wash)' : undefined }}>
                <Button color="inherit" onClick={() => useView.setState({ file: f.name })} sx={{ flex: 1, justifyContent: 'flex-start', px: 0, minWidth: 0, fontFamily: '"IBM Plex Mono"', fontSize: 12, textAlign: 'left' }}>
                  <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{f.name}</Box>
                </Button>
                <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                  {Math.max(1, Math.round(f.text.length / 1024))} kB
                </Typography>
                <Tooltip title="Save this program">
                  <span>
                    <IconButton size="small" disabled={stale} aria-label={`Save ${f.name}`} onClick={() => download(f.name, f.text, 'text/plain')}>
                      <DownloadRounded fontSize="small" />
                    </IconButton>
                  </span>
                </Tooltip>
              </Box>
            ))}
          </Box>
          <Button
            fullWidth
            variant="contained"
            disabled={stale}
            startIcon={<DownloadRounded />}
            onClick={() => {
              if (proof.files.length === 1) download(proof.files[0].name, proof.files[0].text, 'text/plain');
              else download(`${slug(job.name)}-programs.zip`, zipSync(Object.fromEntries(proof.files.map((f) => [f.name, strToU8(f.text)]))), 'application/zip');
            }}
          >
            {stale ? 'Working\u2026' : proof.files.length === 1 ? 'Save the program' : 'Save all programs'}
          </Button>
          <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 1, mb: 0 }}>
            Zero: {zeroText(job)}.
          </Typography>
        </Group>
      )}
      <Group title="How programs are written">
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <ChoiceField label="Dialect" value={job.run.dialect} options={dialects.map((d) => ({ value: d.id, label: d.name }))} onChange={(v) => edit('Change dialect', (j) => void (j.run.dialect = v))} />
          <ChoiceField
            label="Files"
            value={job.run.files}
            options={[
              { value: 'one', label: 'All in one' },
              { value: 'cutter', label: 'One per cutter' },
              { value: 'cut', label: 'One per cut' },
            ]}
            onChange={(v) => edit('Change files', (j) => void (j.run.files = v as Job['run']['files']))}
          />
        </Box>
      </Group>
      {file && (
        <Group title={file.name}>
          <ProgramText text={file.text} />
        </Group>
      )}
      <Group title={`Machine: ${machine.name}`}>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
          <LengthField label="Rapid rate /min" value={machine.rapid} unit={job.unit} min={10} max={100000} onChange={(v) => v !== null && machineValue('rapid rate', (j) => void (j.run.machine.rapid = v))} />
          <LengthField label="Junction deviation" value={machine.junctionDeviation} unit={job.unit} min={0.0001} max={1} onChange={(v) => v !== null && machineValue('junction deviation', (j) => void (j.run.machine.junctionDeviation = v))} />
          {(['x', 'y', 'z'] as const).map((a) => (
            <NumberField key={a} label={`Acceleration ${a.toUpperCase()}`} unit="mm/s²" value={machine.accel[a]} min={1} max={50000} onChange={(v) => machineValue('acceleration', (j) => void (j.run.machine.accel[a] = v))} />
          ))}
          <NumberField label="Tool change" unit="s" value={machine.toolChangeSeconds} min={0} max={3600} onChange={(v) => machineValue('tool change', (j) => void (j.run.machine.toolChangeSeconds = v))} />
        </Box>
      </Group>
    </>
  );
}
