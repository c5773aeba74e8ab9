import type { CutPlan } from '@/core/cuts/kind';
import type { OneSetup } from '@/core/job/job';
import type { HeightField } from '@/core/relief/field';
import { cellOf, pickUsedItems } from './keys';
import { computePool } from './pool';
import { isCancelled } from './workerHandle';

/**
 * The proven surface of a job that is not open: planned and proven in the workers of this window, at quick quality. Null when
 * there is nothing to prove, or when `signal` called it off; the workers are then free at once.
 */
export async function provenSurface(job: OneSetup, signal: AbortSignal): Promise<HeightField | null> {
  const pool = computePool();
  const leave = () => {
    pool.planner.cancel();
    pool.prover.cancel();
  };
  const quiet = () => {};
  signal.addEventListener('abort', leave);
  try {
    const plans: [string, CutPlan][] = [];
    for (const cut of job.cuts.filter((c) => c.enabled)) {
      if (signal.aborted) return null;
      plans.push([
        cut.id,
        await pool.planner.ask((api, pack) =>
          api.plan(pool.planner.next(), pack(pickUsedItems(job)), cut.id, pool.planner.hearing(quiet)),
        ),
      ]);
    }
    if (!plans.length || signal.aborted) return null;
    return (
      await pool.prover.ask((api, pack) =>
        api.prove(
          pool.prover.next(),
          pack({ job: pickUsedItems(job), plans }),
          cellOf(job, 'quick'),
          null,
          pool.prover.hearing(quiet),
          null,
          null,
        ),
      )
    ).field;
  } catch (e) {
    if (isCancelled(e)) return null;
    throw e;
  } finally {
    signal.removeEventListener('abort', leave);
  }
}
