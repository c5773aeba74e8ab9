'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { isFresh, isUpToDate, useWork, type SeenWork } from '@/compute/useWork';
import type { Job, OneSetup } from '@/core/job/job';
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

function statesOf(job: OneSetup | null, whole: Job | null, w: SeenWork): Record<Stage, State> {
  if (!job || !whole)
    return { blank: 'empty', artwork: 'empty', relief: 'empty', cuts: 'empty', proof: 'empty', run: 'empty' };
  const { cuts, proof, relief } = w;
  const upToDate = isUpToDate(whole, job.at.id, w);
  const proving = w.proving !== null;
  const fresh = job.cuts.every((c) => !c.enabled || isFresh(job, c.id, w));
  const trouble = job.cuts.some((c) => c.enabled && cuts[c.id]?.plan.remarks.some((r) => r.level === 'problem'));
  // What is stopped, or could not be worked out, is not at work.
  const waiting = isLeft(w) ? 'attention' : 'working';
  const proven = proof && upToDate && !proving;
  return {
    blank: 'ready',
    artwork: job.items.length ? 'ready' : 'empty',
    relief: !job.relief.forms.some((f) => f.visible)
      ? 'empty'
      : w.shaping !== null
        ? 'working'
        : !relief
          ? waiting
          : fitOf(relief.shaped.facts, job.blank.thickness).trouble || Object.keys(relief.shaped.remarks).length
            ? 'attention'
            : 'ready',
    cuts: !job.cuts.length
      ? 'empty'
      : w.planning !== null
        ? 'working'
        : trouble
          ? 'attention'
          : fresh
            ? 'ready'
            : waiting,
    proof: !job.cuts.length
      ? 'empty'
      : proving
        ? 'working'
        : !proven
          ? waiting
          : proof.findings.length
            ? 'attention'
            : 'ready',
    run: proven && proof.files.length ? (proof.findings.length ? 'attention' : 'ready') : 'empty',
  };
}

/** The states in one word each: of what the engine says nothing is drawn that changes none of them. */
function useStates(): readonly State[] {
  const job = useOpenJob((s) => s.job);
  const whole = useOpenJob((s) => s.whole);
  const words = useWork((w) => {
    const states = statesOf(job, whole, w);
    return stages.map((s) => states[s]).join(' ');
  });
  return words.split(' ') as State[];
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
      {stages.map((s, i) => (
        <StageButton key={s} stage={s} state={states[i]} on={stage === s} />
      ))}
    </Box>
  );
}
