import { create } from 'zustand';
import type { CutPlan } from '@/core/cuts/kind';
import { hashText } from '@/core/geometry/hash';
import { cutKey } from '@/core/pipeline/planning';
import type { Cut, OneSetup } from '@/core/job/job';
import { saysOf } from '@/core/units/says';
import { computePool, isCancelled, onProverLost } from './pool';
import type { ProofResult } from './protocol';

export type Quality = 'quick' | 'fine' | 'finest';
/** Nodes of the proof's height field. */
const NODES: Record<Quality, number> = { quick: 4e5, fine: 2e6, finest: 9e6 };

export const cellOf = (job: OneSetup, quality: Quality): number => Math.max(0.02, Math.sqrt((job.blank.width * job.blank.height) / NODES[quality]));

export interface CutState {
  /** Content key of the plan that is held; the cut is up to date when it equals the wanted one. */
  readonly key: string;
  readonly plan: CutPlan;
}

interface Work {
  cuts: Record<string, CutState>;
  /** The cut that is being planned, and how far it is. */
  planning: { cutId: string; done: number } | null;
  proof: ProofResult | null;
  proofKey: string;
  proving: number | null;
  /** Whether a proof is being held against what is wanted. */
  comparing: boolean;
  stopped: boolean;
  error: string;
  quality: Quality;
}

/** What the background has worked out for the open job. */
export const useWork = create<Work>(() => ({ cuts: {}, planning: null, proof: null, proofKey: '', proving: null, comparing: false, stopped: false, error: '', quality: 'fine' }));

let wanted: OneSetup | null = null;
let running = false;
let again = false;

/** All that the proof depends on beyond the plans. */
const proofKeyOf = (job: OneSetup, quality: Quality): string =>
  hashText(JSON.stringify([job.name, job.unit, job.blank, job.run, job.cutters, job.cuts.map((c) => [c.id, c.name, c.enabled && keyOf(job, c)]), quality]));

/** Content keys of the cuts of a job, worked out once for each state of it. */
const keys = new WeakMap<OneSetup, Map<string, string>>();
function keyOf(job: OneSetup, cut: Cut): string {
  let of = keys.get(job);
  if (!of) keys.set(job, (of = new Map()));
  let key = of.get(cut.id);
  if (key === undefined) of.set(cut.id, (key = cutKey(job, cut)));
  return key;
}

const leaner = new WeakMap<OneSetup, OneSetup>();
/** The job with only the artwork that its cuts use: what goes to a worker, which has no need of the rest. */
export function lean(job: OneSetup): OneSetup {
  let made = leaner.get(job);
  if (!made) {
    const used = new Set(job.cuts.filter((c) => c.enabled).flatMap((c) => c.items));
    made = used.size === job.items.length ? job : { ...job, items: job.items.filter((i) => used.has(i.id)) };
    leaner.set(job, made);
  }
  return made;
}

export const isFresh = (job: OneSetup, cuts: Work['cuts'], cutId: string): boolean => {
  const cut = job.cuts.find((c) => c.id === cutId);
  return !!cut && cuts[cutId]?.key === keyOf(job, cut);
};

/** Takes note of a changed job: outdated work is given up, what depends on the change is begun. */
export function follow(job: OneSetup | null): void {
  wanted = job;
  if (!job) {
    useWork.setState({ cuts: {}, planning: null, proof: null, proofKey: '', proving: null, stopped: false, error: '' });
    return;
  }
  const { planning, proofKey, proving, comparing, cuts, quality } = useWork.getState();
  const kept = Object.fromEntries(Object.entries(cuts).filter(([id]) => job.cuts.some((c) => c.id === id)));
  if (Object.keys(kept).length !== Object.keys(cuts).length) useWork.setState({ cuts: kept });
  const pool = computePool();
  if (planning) {
    const cut = job.cuts.find((c) => c.id === planning.cutId);
    if (!cut || keyOf(job, cut) !== planningKey) pool.planner.cancel();
  }
  if ((proving !== null || comparing) && proofKeyOf(job, quality) !== provingKey) pool.prover.cancel();
  if (proofKey !== proofKeyOf(job, quality) || job.cuts.some((c) => c.enabled && !isFresh(job, kept, c.id))) {
    useWork.setState({ stopped: false });
    void pump();
  }
}

export function setQuality(quality: Quality): void {
  useWork.setState({ quality });
  if (wanted) follow(wanted);
}

/** Gives up the work that is running; the next change starts it again. */
export function stopWork(): void {
  const pool = computePool();
  useWork.setState({ stopped: true });
  pool.planner.cancel();
  pool.prover.cancel();
}

export function resumeWork(): void {
  useWork.setState({ stopped: false });
  void pump();
}

/** Holds a proof that is shown already against what is wanted; a change that comes meanwhile ends it. */
async function hold(proof: ProofResult): Promise<void> {
  const { prover } = computePool();
  useWork.setState({ comparing: true });
  try {
    const findings = await prover.ask((api) => api.compare(prover.next(), prover.hearing(() => {})));
    useWork.setState((w) => (w.proof === proof ? { proof: { ...proof, findings, compared: true } } : w));
  } finally {
    useWork.setState({ comparing: false });
  }
}

let planningKey = '';
let provingKey = '';

async function pump(): Promise<void> {
  if (running) {
    again = true;
    return;
  }
  running = true;
  try {
    do {
      again = false;
      await step();
    } while (again);
  } catch (e) {
    console.error(e);
    useWork.setState({ error: saysOf(e, 'This could not be worked out: a fault of Mirvak, not of your job. The job is safe; change the last value again, or leave out the cut that was being worked on.'), planning: null, proving: null });
  } finally {
    running = false;
  }
}

async function step(): Promise<void> {
  const { planner, prover } = computePool();
  for (;;) {
    const job = wanted;
    if (!job || useWork.getState().stopped) return;
    const cut = job.cuts.find((c) => c.enabled && !isFresh(job, useWork.getState().cuts, c.id));
    if (!cut) break;
    const key = keyOf(job, cut);
    planningKey = key;
    useWork.setState({ planning: { cutId: cut.id, done: 0 }, error: '' });
    try {
      // Progress comes by its own way and may come after the result: by then it says nothing.
      const told = planner.hearing((done) => useWork.setState((w) => (w.planning?.cutId === cut.id ? { planning: { cutId: cut.id, done } } : w)));
      const plan = await planner.ask((api) => api.plan(planner.next(), lean(job), cut.id, told));
      useWork.setState((w) => ({ cuts: { ...w.cuts, [cut.id]: { key, plan } }, planning: null }));
    } catch (e) {
      useWork.setState({ planning: null });
      if (!isCancelled(e)) throw e;
    }
  }
  const job = wanted!;
  const { quality, cuts, proofKey } = useWork.getState();
  const key = proofKeyOf(job, quality);
  if (key === proofKey) return;
  provingKey = key;
  useWork.setState({ proving: 0, error: '' });
  try {
    const plans = job.cuts.filter((c) => c.enabled).map((c) => [c.id, cuts[c.id].plan] as [string, CutPlan]);
    const told = prover.hearing((done) => useWork.setState((w) => (w.proving !== null ? { proving: done } : w)));
    const proof = await prover.ask((api) => api.prove(prover.next(), lean(job), plans, cellOf(job, quality), told));
    useWork.setState({ proof, proofKey: key, proving: null });
    await hold(proof);
  } catch (e) {
    useWork.setState({ proving: null });
    if (!isCancelled(e)) throw e;
    if (!useWork.getState().stopped) again = true;
  }
}

// What was proven went with its worker: it is proven anew, so that it can be played and looked into.
onProverLost(() => {
  useWork.setState({ proofKey: '' });
  if (wanted) void pump();
});
