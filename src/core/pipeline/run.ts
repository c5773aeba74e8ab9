import type { ArtworkContext } from '../artwork/kind';
import type { CutPlan } from '../cuts/kind';
import type { Found } from '../proof/faces';
import type { OneSetup } from '../job/job';
import { planCut, type Progress } from './planning';
import { writePrograms, type Programs } from './programs';
import { noRelief, type GiveRelief } from './shaping';
import { heldAgainst, placePrograms, prove, type Proof } from './proving';

/** Plans, writes and proves one set-up in one go: what the command line and tests use. */
export function runJob(
  job: OneSetup,
  art: ArtworkContext,
  cell: number,
  options: { dialect?: string; files?: OneSetup['run']['files'] } = {},
  progress: Progress = () => {},
  found: Found | null = null,
  relief: GiveRelief = noRelief,
): { plans: Map<string, CutPlan>; programs: Programs; proof: Proof } {
  const plans = new Map<string, CutPlan>();
  const enabled = job.cuts.filter((c) => c.enabled);
  enabled.forEach((cut, i) =>
    plans.set(
      cut.id,
      planCut(job, cut, art, (f) => progress((0.6 * (i + f)) / enabled.length), relief),
    ),
  );
  const programs = writePrograms(job, plans, options);
  const proof = prove(
    job,
    placePrograms(job, programs),
    programs.tools,
    plans,
    cell,
    (f) => progress(0.6 + 0.3 * f),
    undefined,
    found,
  );
  return {
    plans,
    programs,
    proof: { ...proof, ...heldAgainst(proof, art, (f) => progress(0.9 + 0.1 * f), relief) },
  };
}
