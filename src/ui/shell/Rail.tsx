'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { isFresh, isUpToDate, useWork } from '@/compute/useWork';
import { fitOf } from '@/core/relief/fit';
import { useOpenJob } from '@/store/openJob';
import { isLeft } from '@/ui/common/Waiting';
import { setView, stageNames, stages, useView, type Stage } from '@/ui/view';
import { stageIcons } from './stageIcons';

type State = 'empty' | 'ready' | 'working' | 'attention';
const words: Record<State, string> = {
  empty: 'empty',
  ready: 'ready',
  working: 'working',
  attention: 'needs attention',
};
const dot: Record<State, string> = {
  empty: 'transparent',
  ready: 'primary.main',
  working: 'var(--mui-palette-brass)',
  attention: 'error.main',
};

function useStates(): Record<Stage, State> {
  const job = useOpenJob((s) => s.job);
  const whole = useOpenJob((s) => s.whole);
  const upToDate = useWork((w) => !!whole && !!job && isUpToDate(whole, job.at.id, w));
  const busy = useWork((w) => w.planning !== null);
  const proving = useWork((w) => w.proving !== null);
  // What is stopped, or could not be worked out, is not at work.
  const left = useWork(isLeft);
  const proof = useWork((w) => w.proof);
  const cuts = useWork((w) => w.cuts);
  const fresh = useWork((w) => !!job && job.cuts.every((c) => !c.enabled || isFresh(job, c.id, w)));
  const shaping = useWork((w) => w.shaping !== null);
  const relief = useWork((w) => w.relief);
  if (!job) return { blank: 'empty', artwork: 'empty', relief: 'empty', cuts: 'empty', proof: 'empty', run: 'empty' };
  const trouble = job.cuts.some((c) => c.enabled && cuts[c.id]?.plan.remarks.some((r) => r.level === 'problem'));
  const waiting = left ? 'attention' : 'working';
  const proven = proof && upToDate && !proving;
  return {
    blank: 'ready',
    artwork: job.items.length ? 'ready' : 'empty',
    relief: !job.relief.forms.some((f) => f.visible)
      ? 'empty'
      : shaping
        ? 'working'
        : !relief
          ? waiting
          : fitOf(relief.shaped.facts, job.blank.thickness).trouble || Object.keys(relief.shaped.remarks).length
            ? 'attention'
            : 'ready',
    cuts: !job.cuts.length ? 'empty' : busy ? 'working' : trouble ? 'attention' : fresh ? 'ready' : waiting,
    proof: !job.cuts.length
      ? 'empty'
      : proving || !upToDate
        ? proving
          ? 'working'
          : waiting
        : proof?.findings.length
          ? 'attention'
          : proven
            ? 'ready'
            : waiting,
    run: proven && proof.files.length ? (proof.findings.length ? 'attention' : 'ready') : 'empty',
  };
}

const StageButton = memo(function StageButton({ stage, state, on }: { stage: Stage; state: State; on: boolean }) {
  return (
    <ButtonBase
      aria-current={on ? 'step' : undefined}
      aria-label={`${stageNames[stage]}, ${words[state]}`}
      onClick={() => setView({ stage })}
      sx={{
        position: 'relative',
        width: 60,
        height: 62,
        borderRadius: 2.5,
        flexDirection: 'column',
        gap: 0.5,
        fontSize: 12,
        color: on ? 'primary.dark' : 'text.secondary',
        bgcolor: on ? 'var(--mui-palette-wash)' : 'transparent',
        fontWeight: on ? 600 : 450,
        '&:hover': { color: 'text.primary' },
      }}
    >
      {stageIcons[stage]}
      {stageNames[stage]}
      <Box
        sx={{
          position: 'absolute',
          top: 8,
          right: 10,
          width: 7,
          height: 7,
          borderRadius: '50%',
          bgcolor: dot[state],
        }}
      />
    </ButtonBase>
  );
});

export function Rail() {
  const stage = useView((v) => v.stage);
  const states = useStates();
  return (
    <Box
      component="nav"
      aria-label="Stages"
      sx={{
        width: 76,
        flex: 'none',
        borderRight: '1px solid',
        borderColor: 'divider',
        bgcolor: 'background.paper',
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        gap: 0.75,
        pt: 1.5,
      }}
    >
      {stages.map((s) => (
        <StageButton key={s} stage={s} state={states[s]} on={stage === s} />
      ))}
    </Box>
  );
}
