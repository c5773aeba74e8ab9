import type { CutPlan } from '@/core/cuts/kind';
import { hashText } from '@/core/geometry/hash';
import type { Cut, Job, OneSetup } from '@/core/job/job';
import { oneSetup } from '@/core/job/oneSetup';
import { cutKey } from '@/core/pipeline/planning';

export type Quality = 'quick' | 'fine' | 'finest';
/** Nodes of the proof's height field. */
const NODES: Record<Quality, number> = { quick: 4e5, fine: 2e6, finest: 9e6 };

export const cellOf = (job: OneSetup, quality: Quality): number =>
  Math.max(0.02, Math.sqrt((job.blank.width * job.blank.height) / NODES[quality]));

/** A blank but for its paint, which nothing that is cut depends on. */
export const unpainted = ({ blank }: OneSetup): OneSetup['blank'] => ({ ...blank, paint: 'none' });

const proofKeys = new WeakMap<OneSetup, string>();
/** All that the proof of a set-up depends on beyond the plans: what it starts from too. */
export function proofKeyOf(whole: Job, job: OneSetup, quality: Quality): string {
  const { after, name, number, only } = job.at;
  let own = proofKeys.get(job);
  if (own === undefined) {
    own = hashText(
      JSON.stringify([
        job.name,
        only ? '' : [name, number],
        after,
        job.unit,
        unpainted(job),
        job.run,
        job.cutters,
        job.cuts.map((c) => [c.id, c.name, c.enabled && keyOf(job, c)]),
      ]),
    );
    proofKeys.set(job, own);
  }
  return `${own} ${quality}${after ? ` after ${proofKeyOf(whole, oneSetup(whole, after.setup), quality)}` : ''}`;
}

/** Content keys of the cuts of a set-up, worked out once for each state of it; see cutKey. */
const keys = new WeakMap<OneSetup, Map<string, string>>();
export function keyOf(job: OneSetup, cut: Cut, asked?: CutPlan['asked']): string {
  let of = keys.get(job);
  if (!of) keys.set(job, (of = new Map()));
  const name = asked ? `${cut.id} ${asked.join(' ')}` : cut.id;
  let key = of.get(name);
  if (key === undefined) of.set(name, (key = cutKey(job, cut, asked)));
  return key;
}

const withUsedItems = new WeakMap<OneSetup, OneSetup>();
/** The job with only the artwork that its cuts use: what goes to a worker, which has no need of the rest. */
export function pickUsedItems(job: OneSetup): OneSetup {
  let made = withUsedItems.get(job);
  if (!made) {
    const used = new Set(job.cuts.filter((c) => c.enabled).flatMap((c) => c.items));
    made = used.size === job.items.length ? job : { ...job, items: job.items.filter((i) => used.has(i.id)) };
    withUsedItems.set(job, made);
  }
  return made;
}
