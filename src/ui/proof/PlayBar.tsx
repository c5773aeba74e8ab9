'use client';
import PauseRounded from '@mui/icons-material/PauseRounded';
import PlayArrowRounded from '@mui/icons-material/PlayArrowRounded';
import SkipNextRounded from '@mui/icons-material/SkipNextRounded';
import SkipPreviousRounded from '@mui/icons-material/SkipPreviousRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { clockText } from '@/core/units/duration';
import { ChoiceField } from '@/ui/common/fields';
import { useView } from '@/ui/view';
import { useOpenJobLater, useWorkLater } from '@/ui/following';
import { usePlay } from './usePlay';

const SPEEDS = [1, 4, 16, 64];

export function PlayBar() {
  const job = useOpenJobLater((s) => s.job)!;
  const moves = useWorkLater((w) => w.proof?.moves ?? 0);
  const proof = useWorkLater((w) => w.proof);
  const at = useView((v) => v.play);
  const { playing, move, speed, only, active, start, pause, seek, setSpeed, setOnly, leave } = usePlay();
  // New programs make what is being watched out of date.
  useEffect(() => () => usePlay.getState().leave(), [proof]);
  return (
    <Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.25 }}>
        <IconButton aria-label="To the start" onClick={() => seek(0)}>
          <SkipPreviousRounded />
        </IconButton>
        <IconButton
          aria-label={playing ? 'Pause' : 'Play'}
          onClick={playing ? pause : start}
          sx={{ bgcolor: 'primary.main', color: 'primary.contrastText', '&:hover': { bgcolor: 'primary.dark' } }}
        >
          {playing ? <PauseRounded /> : <PlayArrowRounded />}
        </IconButton>
        <IconButton aria-label="One move on" onClick={() => seek(Math.min(moves, Math.floor(active ? move : 0) + 1))}>
          <SkipNextRounded />
        </IconButton>
        <Box role="group" aria-label="Speed" sx={{ ml: 'auto', display: 'flex' }}>
          {SPEEDS.map((s) => (
            <Button
              key={s}
              size="small"
              aria-pressed={speed === s}
              color={speed === s ? 'primary' : 'inherit'}
              onClick={() => setSpeed(s)}
              sx={{ minWidth: 38, px: 0.5, fontWeight: speed === s ? 700 : 450 }}
            >
              {s}
              {'\u00d7'}
            </Button>
          ))}
        </Box>
      </Box>
      <Box sx={{ px: 1 }}>
        <Slider
          size="small"
          aria-label="Place in the programs"
          min={0}
          max={Math.max(1, moves)}
          value={active ? move : moves}
          onChange={(_, v) => seek(v as number)}
        />
      </Box>
      <Typography variant="caption" component="p" sx={{ color: 'text.secondary', minHeight: 20, m: 0 }}>
        {active && at
          ? `${clockText(at.seconds / 60)} \u00b7 ${job.cuts.find((c) => c.id === at.cutId)?.name ?? ''} \u00b7 ${at.file} line ${at.line}`
          : 'Shown as finished'}
        {active && (
          <Button size="small" sx={{ ml: 1, minHeight: 22, py: 0 }} onClick={leave}>
            Show finished
          </Button>
        )}
      </Typography>
      <Box sx={{ mt: 1 }}>
        <ChoiceField
          label="Show"
          value={only?.[0] ?? ''}
          options={[
            { value: '', label: 'All cuts' },
            ...job.cuts.filter((c) => c.enabled).map((c) => ({ value: c.id, label: `Only "${c.name}"` })),
          ]}
          onChange={(v) => (v ? setOnly([v]) : leave())}
        />
      </Box>
    </Box>
  );
}
