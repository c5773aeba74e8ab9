import type { Job } from '../job/job';
import { oneSetup } from '../job/oneSetup';
import { pairsOf } from '../job/pairs';
import { fittedPair, type Fitted } from '../pipeline/fitting';
import { planCut } from '../pipeline/planning';
import { writePrograms } from '../pipeline/programs';
import { placePrograms, prove, type Proof } from '../pipeline/proving';
import { testArt as art } from './fonts';

/** The proof of a set-up of a job, heights 0.2 mm apart. */
export function proven(job: Job, id: string): Proof {
  const one = oneSetup(job, id);
  const plans = new Map(one.cuts.map((c) => [c.id, planCut(one, c, art)]));
  const programs = writePrograms(one, plans);
  return prove(one, placePrograms(one, programs), programs.tools, plans, 0.2);
}

/** All pairs of a job put together, as their programs were read back; there are so many. */
export function fitsOf(job: Job, many: number): Fitted[] {
  const { pairs } = pairsOf(job);
  expect(pairs).toHaveLength(many);
  const proofs = new Map([...new Set(pairs.flatMap((p) => [p.pocket, p.plug]))].map((id) => [id, proven(job, id)]));
  return pairs.map((p) => fittedPair(p, proofs.get(p.pocket)!, proofs.get(p.plug)!, art));
}
export const fitOfOne = (job: Job): Fitted => fitsOf(job, 1)[0];

/** A job with values of all cuts of a set-up changed. */
export const withValues = (job: Job, id: string, values: object): Job => ({
  ...job,
  setups: job.setups.map((s) =>
    s.id === id ? { ...s, cuts: s.cuts.map((c) => ({ ...c, values: { ...c.values, ...values } })) } : s,
  ),
});
