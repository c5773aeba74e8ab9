import type { CutPlan } from '@/core/cuts/kind';
import type { ShapedRelief } from '@/core/pipeline/shaping';
import type { HeightField } from '@/core/relief/field';
import type { Derived } from './derived';
import type { Quality } from './keys';
import type { ProofResult, Planning } from './protocol';

export interface ReliefState {
  /** Content key of what it was shaped from; it is up to date when it equals the wanted one. */
  readonly key: string;
  /** Whether it was shaped at the resolution that is wanted. */
  readonly fine: boolean;
  readonly shaped: ShapedRelief;
}

export interface CutState {
  /** Content key of the plan that is held; the cut is up to date when it equals the wanted one. */
  readonly key: string;
  readonly plan: CutPlan;
  /** Of a cut that is switched off: how long it would take on a machine, which is named by its content key. */
  readonly would?: { readonly minutes: number; readonly on: string };
}

/** What has been worked out for one set-up. */
export interface SetupWork {
  readonly cuts: Readonly<Record<string, CutState>>;
  readonly proof: ProofResult | null;
  /** Content key of what the proof was made of; of nothing that is there when it is empty. */
  readonly proofKey: string;
  /** The field as it will be, coarsely, until there is a first proof. */
  readonly glimpse: HeightField | null;
  /** Its relief as it was shaped last, coarse or fine; null where there is none. */
  readonly relief: ReliefState | null;
}
export const NOTHING: SetupWork = { cuts: {}, proof: null, proofKey: '', glimpse: null, relief: null };
/** What was kept of a set-up, under the content key of its proof. */
export const workFrom = ({ plans, proof }: Derived, proofKey: string): Omit<SetupWork, 'relief'> => ({
  cuts: Object.fromEntries(plans.map((p) => [p.cut, { key: p.key, plan: p.plan, would: p.would }])),
  proof,
  proofKey,
  glimpse: null,
});

/** What has been worked out for the open job, and what is being worked on. */
export interface Work {
  /** Every set-up of the job, by id. */
  readonly setups: Readonly<Record<string, SetupWork>>;
  /** The cuts of the set-up that is shown that are being planned, by id, and how far each is; null for none. */
  readonly planning: Readonly<Record<string, Planning>> | null;
  readonly proving: number | null;
  /** How far the relief of the set-up that is shown is shaped; null where none is being shaped. */
  readonly shaping: number | null;
  /** Whether a proof is being held against what is wanted. */
  readonly comparing: boolean;
  readonly stopped: boolean;
  readonly error: string;
  readonly quality: Quality;
}
export const NO_WORK: Work = {
  setups: {},
  planning: null,
  proving: null,
  shaping: null,
  comparing: false,
  stopped: false,
  error: '',
  quality: 'fine',
};

/** What of a set-up is as it should be: the paths of which cuts, and whether all of it is, the proof too. */
export interface Fresh {
  readonly cuts: readonly string[];
  readonly all: boolean;
}

/** What the engine says: of which of the jobs that it was given, and of which set-up what is at work is told. */
export interface Told extends Work {
  readonly of: number;
  readonly shown: string | null;
  readonly fresh: Readonly<Record<string, Fresh>>;
}
