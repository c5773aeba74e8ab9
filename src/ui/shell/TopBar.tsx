'use client';
import DarkModeOutlined from '@mui/icons-material/DarkModeOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import HandymanOutlined from '@mui/icons-material/HandymanOutlined';
import RedoRounded from '@mui/icons-material/RedoRounded';
import SaveAltRounded from '@mui/icons-material/SaveAltRounded';
import UndoRounded from '@mui/icons-material/UndoRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Tooltip from '@mui/material/Tooltip';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useColorScheme } from '@mui/material/styles';
import { useRouter } from 'next/navigation';
import { startTransition, useState } from 'react';
import { blankInUnit } from '@/core/job/job';
import { dialectIn, dialectOf } from '@/core/program/dialect';
import { freshId } from '@/store/jobs';
import { useKeeping } from '@/store/keeping';
import { keepUnit } from '@/store/unit';
import { tell } from '@/ui/actions/tell';
import { After, turns } from '@/ui/later';
import { useOpenJob, type SaveState } from '@/store/openJob';
import { setView } from '@/ui/view';
import { exportOpenJob } from '@/ui/actions/files';
import { readOut } from '@/ui/common/fields';
import { useOpenJobLater } from '@/ui/following';
import { Mark } from './Mark';
import { SetupTabs } from './SetupTabs';

const saveWords: Record<SaveState, string> = {
  saved: 'Saved on this device',
  pending: 'Saving\u2026',
  saving: 'Saving\u2026',
  failed: 'Not saved',
  changed: 'Changed in another window',
  gone: 'Deleted elsewhere',
};

/** The job's unit becomes another, and with it what its programs are written in, if that is wished. */
function switchUnit(unit: 'mm' | 'in'): void {
  const { job, edit } = useOpenJob.getState();
  if (!job) return;
  edit('Switch unit', (j) => {
    // The job as it is, not as this bar shows it: a busy device may be behind.
    j.blank = blankInUnit(j, unit);
    j.unit = unit;
  });
  keepUnit(unit);
  const now = dialectOf(job.run.dialect, job.run.dialects);
  if (now.unit === unit) return;
  const { dialect, fresh } = dialectIn(now, unit, job.run.dialects, `own-${freshId()}`);
  const [words, others] = unit === 'in' ? ['inches', 'millimetres'] : ['millimetres', 'inches'];
  tell('info', `Programs are still written in ${others}.`, {
    words: `Write them in ${words}`,
    run: () =>
      edit('Choose dialect', (j) => {
        if (fresh) j.run.dialects.push(dialect);
        j.run.dialect = dialect.id;
      }),
  });
}

/** How far the job is saved. */
function Saved() {
  const save = useOpenJobLater((s) => s.save);
  const slow = useOpenJobLater((s) => s.slow);
  const lasts = useKeeping((k) => k.keeping === 'device');
  const late = slow && (save === 'saving' || save === 'pending');
  const bad = late || save === 'failed' || save === 'changed' || save === 'gone';
  return (
    <Box
      role="status"
      sx={{
        fontSize: 12,
        px: 1.25,
        py: 0.4,
        borderRadius: 5,
        border: '1px solid',
        borderColor: bad ? 'error.main' : 'divider',
        color: bad ? 'error.main' : 'text.secondary',
        whiteSpace: 'nowrap',
      }}
    >
      {save === 'saved' && !lasts ? 'In this window only' : late ? 'Not saved yet' : saveWords[save]}
    </Box>
  );
}

/** Undo and redo, each with what it would do. */
function Steps() {
  const undone = useOpenJobLater((s) => s.past.at(-1)?.name);
  const redone = useOpenJobLater((s) => s.future[0]?.name);
  const { undo, redo } = useOpenJob.getState();
  return (
    <>
      <Tooltip title={undone !== undefined ? `Undo: ${undone.toLowerCase()}` : 'Nothing to undo'}>
        <span>
          <IconButton aria-label="Undo" disabled={undone === undefined} onClick={undo}>
            <UndoRounded />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip title={redone !== undefined ? `Redo: ${redone.toLowerCase()}` : 'Nothing to redo'}>
        <span>
          <IconButton aria-label="Redo" disabled={redone === undefined} onClick={redo}>
            <RedoRounded />
          </IconButton>
        </span>
      </Tooltip>
    </>
  );
}

/** Its height with its border, px. */
export const BAR = 53;

export function TopBar() {
  const called = useOpenJobLater((s) => s.job?.name);
  const unit = useOpenJobLater((s) => s.job?.unit);
  const router = useRouter();
  const { mode, setMode } = useColorScheme();
  // Where there is no room beside the name, set-ups have a row of their own.
  const tight = useMediaQuery('(max-width: 1179px)');
  const [name, setName] = useState<string | null>(null);
  if (called === undefined || !unit) return null;
  return (
    <Box
      component="header"
      sx={{ flex: 'none', borderBottom: '1px solid', borderColor: 'divider', bgcolor: 'background.paper' }}
    >
      <Box sx={{ height: 52, display: 'flex', alignItems: 'center', gap: 1, pr: 2 }}>
        <Tooltip title="Job shelf">
          <IconButton
            aria-label="Job shelf"
            onClick={() =>
              void useOpenJob
                .getState()
                .flush()
                .then(() => router.push('/'))
            }
            sx={{ width: 76, height: 52, borderRadius: 0 }}
          >
            <Mark />
          </IconButton>
        </Tooltip>
        <Box component="h1" sx={{ ...readOut, m: 0 }}>
          {called}
        </Box>
        <InputBase
          value={name ?? called}
          inputProps={{ 'aria-label': 'Name of the job', maxLength: 200 }}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => {
            const n = name?.trim();
            if (n && n !== called) useOpenJob.getState().edit('Rename job', (j) => void (j.name = n));
            startTransition(() => setName(null));
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') (e.target as HTMLElement).blur();
          }}
          sx={{
            fontFamily: 'Archivo',
            fontWeight: 650,
            fontSize: 17,
            width: `${Math.min(32, Math.max(10, (name ?? called).length + 2))}ch`,
            borderRadius: 1.5,
            px: 1,
            '&:hover, &.Mui-focused': { bgcolor: 'background.default' },
          }}
        />
        <Saved />
        {tight ? (
          <Box sx={{ flex: 1 }} />
        ) : (
          <After turn={turns.setups} instead={<Box sx={{ flex: 1 }} />}>
            <SetupTabs />
          </After>
        )}
        <Steps />
        <Button
          variant="outlined"
          color="inherit"
          aria-label={`Unit: ${unit}. Switch to ${unit === 'mm' ? 'inches' : 'millimetres'}`}
          onClick={() => switchUnit(unit === 'mm' ? 'in' : 'mm')}
          sx={{ minWidth: 52, borderColor: 'var(--mui-palette-line)' }}
        >
          {unit}
        </Button>
        <Tooltip title="Tool library">
          <IconButton aria-label="Tool library" onClick={() => setView({ library: true })}>
            <HandymanOutlined />
          </IconButton>
        </Tooltip>
        <Tooltip title="Export the job to a file">
          <IconButton aria-label="Export the job to a file" onClick={() => void exportOpenJob()}>
            <SaveAltRounded />
          </IconButton>
        </Tooltip>
        <Tooltip title={mode === 'dark' ? 'Light' : 'Dark'}>
          <IconButton
            aria-label={mode === 'dark' ? 'Light colours' : 'Dark colours'}
            onClick={() => setMode(mode === 'dark' ? 'light' : 'dark')}
          >
            {mode === 'dark' ? <LightModeOutlined /> : <DarkModeOutlined />}
          </IconButton>
        </Tooltip>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => setView({ commands: true })}
          sx={{ borderColor: 'var(--mui-palette-line)', whiteSpace: 'nowrap' }}
        >
          Actions
          <Box
            component="kbd"
            sx={{
              display: { xs: 'none', md: 'inline' },
              ml: 1,
              fontFamily: 'inherit',
              fontSize: 12,
              color: 'text.secondary',
            }}
          >
            Ctrl K
          </Box>
        </Button>
      </Box>
      {tight && (
        <Box sx={{ display: 'flex', px: 1, borderTop: '1px solid', borderColor: 'divider' }}>
          <SetupTabs />
        </Box>
      )}
    </Box>
  );
}
