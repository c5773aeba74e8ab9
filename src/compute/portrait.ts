import type { CutPlan } from '@/core/cuts/kind';
import type { OneSetup } from '@/core/job/job';
import { usesRelief } from '@/core/pipeline/planning';
import { reliefCell } from '@/core/pipeline/shaping';
import { filled, type HeightField } from '@/core/relief/field';
import { cellOf, pickUsedItems } from './keys';
import { computePool } from './pool';
import { isCancelled } from './workerHandle';

/** Nodes of a relief that is shown on a card lie so many times as far apart. */
const COARSER = 2;

/**
 * The surface of a job that is not open, for its picture: planned and proven in the workers of this window, at quick quality; where
 * nothing is cut yet, its relief. Null when there is nothing to show, or when `signal` called it off; the workers are then free at
 * once.
 */
export async function portrayed(job: OneSetup, signal: AbortSignal): Promise<HeightField | null> {
  const pool = computePool();
  const leave = () => {
    pool.planner.cancel();
    pool.prover.cancel();
    pool.shaper.cancel();
  };
  const quiet = () => {};
  signal.addEventListener('abort', leave);
  try {
    const plans: [string, CutPlan][] = [];
    const shaped = async (coarser: number) => {
      const { shaper } = pool;
      const { field } = await shaper.ask((api, pack) =>
        api.shape(shaper.next(), pack({ ...job, cuts: [] }), coarser * reliefCell(job), shaper.hearing(quiet)),
      );
      return field;
    };
    const has = job.relief.forms.some((f) => f.visible);
    const relief = has && job.cuts.some((c) => c.enabled && usesRelief(c)) ? await shaped(1) : null;
    for (const cut of job.cuts.filter((c) => c.enabled)) {
      if (signal.aborted) return null;
      plans.push([
        cut.id,
        await pool.planner.ask((api, pack) =>
          api.plan(pool.planner.next(), pack({ job: pickUsedItems(job), relief }), cut.id, pool.planner.hearing(quiet)),
        ),
      ]);
    }
    if (signal.aborted) return null;
    if (!plans.length) {
      return has ? filled(await shaped(COARSER)) : null;
    }
    return (
      await pool.prover.ask((api, pack) =>
        api.prove(
          pool.prover.next(),
          pack({ job: pickUsedItems(job), plans, relief }),
          // Lines of a picture that is painted are finer than what is quick.
          cellOf(job, job.blank.paint === 'none' ? 'quick' : 'fine'),
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
