import { shippedLibrary } from '../src/core/cutters/library';
import { finishing, roughing } from '../src/core/job/demo/reliefCuts';
import { newItem } from '../src/core/artwork/item';
import { newOneSetup, type OneSetup } from '../src/core/job/job';
import { freshForm } from '../src/core/relief/freshForm';

/** A relief of 100 x 100 mm, finished in rows by a tapered ball of 0.3 mm; its third form is an ornament in a corner. */
export function medalJob(stepOver = 0.1): OneSetup {
  const job = newOneSetup('Medal');
  job.blank = { ...job.blank, width: 100, height: 100, thickness: 12 };
  const higher = { meets: 'higher', base: 0.1 } as const;
  job.relief = {
    ...job.relief,
    baseDepth: 5,
    forms: [
      freshForm('f-water', 'Water', 'texture', { texture: 'water', size: 9, depth: 0.6 }, { base: 0.6 }),
      freshForm('f-heron', 'Heron', 'ornament', { ornament: 'heron', x: 55, y: 50, width: 50, rise: 4 }, higher),
      freshForm('f-rose', 'Rosette', 'ornament', { ornament: 'rosette', x: 12, y: 12, width: 14, rise: 2 }, higher),
    ],
  };
  const ball = shippedLibrary().find((c) => c.id === 'taperedBall-6-0.25-5')!;
  job.cutters = [{ ...ball, id: 'fine', name: 'Tapered ball R 0.15 mm', values: { ...ball.values, tipRadius: 0.15 } }];
  job.cuts = [finishing('fine', 'rows', 0, stepOver)];
  return job;
}

/** The same relief roughed by end mills of 3 and 1.5 mm. */
export function roughedMedalJob(): OneSetup {
  const job = medalJob();
  job.cutters = [...job.cutters, ...shippedLibrary().filter((c) => ['flat-3', 'flat-1.5'].includes(c.id))];
  job.cuts = [roughing(['flat-3', 'flat-1.5'], 0.15, { 'flat-3': { stepDown: 0.5 }, 'flat-1.5': { stepDown: 0.25 } })];
  return job;
}

/** The same relief finished inside of a disc of 100 mm in rows 0.01 mm apart: about ten million moves. */
export function discJob(): OneSetup {
  const job = { ...medalJob(0.01), name: 'Disc' };
  const values = { width: 100, height: 100 };
  job.items = [newItem({ id: 'disc', name: 'Disc', kind: 'ellipse', x: 50, y: 50, values })];
  job.cuts = job.cuts.map((c) => ({ ...c, items: ['disc'], values: { ...c.values, where: 'inside' } }));
  return job;
}
