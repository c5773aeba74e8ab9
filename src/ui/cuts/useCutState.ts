import { isFresh } from '@/compute/useWork';
import { seconds } from '@/core/motion/timing';
import type { Cut } from '@/core/job/job';
import type { Expected } from '@/core/cuts/kind';
import { durationText } from '@/core/units/duration';
import { roughly } from '@/core/units/count';
import { isLeft, waitingWords } from '@/ui/common/Waiting';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

export interface CutView {
  state: 'off' | 'problem' | 'working' | 'stale' | 'fresh';
  words: string;
  minutes: number | null;
  /** Shares of the cut's time: cutting, plunging, air. */
  shares: [number, number, number];
}

/** How long what was planned took when it was proven last: a cut that is switched off may be weighed against one that is on. */
const took = new WeakMap<object, number>();

const expectedText = ({ minutes, moves }: Expected): string =>
  `${durationText(minutes)}${moves ? `, ${roughly(moves)} moves` : ''}`;

/** What a card says of a cut. */
export function useCutState(cut: Cut): CutView {
  const job = useOpenJobLater((s) => s.job)!;
  const held = useWorkLater((w) => w.cuts[cut.id]);
  const fresh = useWorkLater((w) => !!w.cuts[cut.id] && isFresh(job, cut.id, w));
  const planning = useWorkLater((w) => w.planning?.[cut.id] ?? null);
  const proof = useWorkLater((w) => w.proof);
  const proving = useWorkLater((w) => w.proving !== null);
  const left = useWorkLater((w) => (isLeft(w) ? waitingWords(w).toLowerCase() : null));
  const mine = proof?.times.filter((t) => t.cutId === cut.id) ?? [];
  const total = mine.reduce((s, t) => s + seconds(t.time), 0);
  const sum = (k: 'cutting' | 'plunging' | 'air') => (total > 0 ? mine.reduce((s, t) => s + t.time[k], 0) / total : 0);
  const base = {
    minutes: total > 0 ? total / 60 : null,
    shares: [sum('cutting'), sum('plunging'), sum('air')] as [number, number, number],
  };
  if (cut.enabled && fresh && !proving && total > 0) took.set(held.plan, total / 60);
  if (!cut.enabled)
    return {
      ...base,
      minutes: fresh ? (took.get(held.plan) ?? (held.would?.minutes || null)) : null,
      state: 'off',
      words: 'switched off',
    };
  if (planning !== null) {
    const expected = planning.expected ? ` \u00b7 about ${expectedText(planning.expected)}` : '';
    return { ...base, state: 'working', words: `working ${Math.round(planning.done * 100)} %${expected}` };
  }
  const problem = fresh && held.plan.remarks.find((r) => r.level === 'problem');
  if (problem) return { ...base, state: 'problem', words: problem.text };
  if (!fresh) return { ...base, state: 'stale', words: left ?? 'waiting' };
  return { ...base, state: 'fresh', words: proving ? 'proving' : 'up to date' };
}
