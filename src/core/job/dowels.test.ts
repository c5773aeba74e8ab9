import fc from 'fast-check';
import { facing } from './linked';
import { testArt as art } from '../testing/fonts';
import { cutterOf } from '../testing/job';
import { planCut } from '../pipeline/planning';
import { newOneSetup } from './job';
import { withNewSetup } from './allSetups';
import { dowelPlaces, dowelsAmiss, whyNoDowels, withDowels } from './dowels';
import { demoJobs } from './demo';
import { jobOf, oneSetup } from './oneSetup';
import { readJob } from './migrate';

const drill = cutterOf('drill-4-118');
function turned(about: 'x' | 'y' | 'none') {
  const one = newOneSetup('Token');
  one.blank = { ...one.blank, width: 60, height: 44, thickness: 4 };
  let n = 0;
  const made = withNewSetup(jobOf(one), one.at.id, about, () => `n${n++}`);
  return { job: made.job, second: made.id, first: one.at.id, freshId: () => `m${n++}` };
}

describe('dowel holes', () => {
  it.each(['x', 'y'] as const)('come back to where they were when the blank is turned over about %s', (about) => {
    const { job, first, second, freshId } = turned(about);
    const made = withDowels(job, second, drill, freshId);
    expect(readJob(JSON.parse(JSON.stringify(made.job)))).toEqual(made.job);
    const [front, back] = [oneSetup(made.job, first), oneSetup(made.job, second)];
    // On the machine both set-ups have the same corner of the blank at the same place: a hole is where it was.
    expect(back.items.map((i) => [i.x, i.y])).toEqual(front.items.map((i) => [i.x, i.y]));
    expect(facing(made.job, made.job.setups[0], made.job.setups[1])).not.toEqual({ x: 1, y: 1 });
    // Drilled first, through the blank and into the spoilboard.
    const plan = planCut(front, front.cuts[0], art);
    expect(plan.remarks.filter((r) => r.level === 'problem')).toEqual([]);
    const { motion } = plan.toolpaths[0];
    expect(Math.min(...motion.z)).toBeLessThan(-4 - 5);
    expect(front.blank.intoBed).toBeGreaterThanOrEqual(-4 - Math.min(...motion.z));
    const bottoms = new Set(
      [...motion.z.keys()].filter((i) => motion.z[i] < -4).map((i) => `${motion.x[i]},${motion.y[i]}`),
    );
    expect(bottoms.size).toBe(2);
  });

  it('lie on the blank, and fit one way only', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 400 }),
        fc.integer({ min: 30, max: 400 }),
        fc.integer({ min: 2, max: 6 }),
        fc.constantFrom('x' as const, 'y' as const),
        (w, h, d, about) => {
          const places = dowelPlaces({ width: w, height: h }, about, d);
          for (const { x, y } of places) expect(Math.min(x, y, w - x, h - y)).toBeGreaterThan(d / 2 + 1);
          // Turned half round, or over about the other axis, it goes on one of them at most.
          const wrong = [
            (x: number, y: number) => [w - x, h - y],
            (x: number, y: number) => (about === 'y' ? [x, h - y] : [w - x, y]),
          ];
          for (const turn of wrong) {
            const met = places.filter(({ x, y }) => {
              const [px, py] = turn(x, y);
              return places.some((q) => Math.hypot(q.x - px, q.y - py) < d / 2);
            });
            expect(met.length).toBeLessThan(2);
          }
        },
      ),
    );
  });

  it.each(['x', 'y'] as const)('that were moved, or a blank of another size about %s, are told', (about) => {
    const { job, second, freshId } = turned(about);
    const made = withDowels(job, second, drill, freshId).job;
    expect(dowelsAmiss(job, second, 'mm')).toBeNull();
    expect(dowelsAmiss(made, second, 'mm')).toBeNull();
    const moved = (by: number, along: boolean) => ({
      ...made,
      setups: made.setups.map((s, k) => ({
        ...s,
        items: s.items.map((i, n) =>
          k || n ? i : (about === 'y') === along ? { ...i, y: i.y + by } : { ...i, x: i.x + by },
        ),
      })),
    });
    // Along the line a hole may lie anywhere.
    expect(dowelsAmiss(moved(3, true), second, 'mm')).toBeNull();
    expect(dowelsAmiss(moved(0.04, false), second, 'mm')).toMatch(/lies 0\.04 mm off the line/);
    expect(dowelsAmiss(moved(-3, false), second, 'mm')).toMatch(/"Dowel 1" lies 3 mm off the line/);
    const smaller = { ...made, blanks: made.blanks.map((b) => ({ ...b, width: b.width - 10, height: b.height - 10 })) };
    expect(dowelsAmiss(smaller, second, 'in')).toMatch(/lies 0\.1969 in off|lies 0\.197 in off/);
    // Two that face each other across it change places.
    const [a, b] = [moved(-3, false), moved(0, true)].map((j) => j.setups[0].items[0]);
    const facing = {
      ...made,
      setups: made.setups.map((s, k) => {
        const other = about === 'y' ? { ...a, id: b.id, x: b.x + 3 } : { ...a, id: b.id, y: b.y + 3 };
        return k ? s : { ...s, items: [a, { ...other, id: s.items[1].id }] };
      }),
    };
    expect(dowelsAmiss(facing, second, 'mm')).toBeNull();
  });

  it('are drilled once', () => {
    const { job, second, freshId } = turned('y');
    expect(whyNoDowels(job, second)).toBeNull();
    expect(whyNoDowels(withDowels(job, second, drill, freshId).job, second)).toMatch(/already: "Dowel holes"/);
  });

  it('are for a blank that is turned over', () => {
    const { job, second } = turned('none');
    expect(whyNoDowels(job, second)).toMatch(/turned over/);
    expect(whyNoDowels(job, job.setups[0].id)).toMatch(/turned over/);
  });

  it('register both faces of the token: what is on one is where it belongs on the other', () => {
    const job = demoJobs['keeper-token']();
    expect(() => readJob(JSON.parse(JSON.stringify(job)))).not.toThrow();
    const [front, back] = job.setups.map((s) => oneSetup(job, s.id));
    const at = (o: typeof front, name: RegExp) => o.items.filter((i) => name.test(i.name)).map((i) => [i.x, i.y]);
    expect(at(back, /Dowel|Edge/)).toEqual(at(front, /Dowel|Edge/));
    expect(at(front, /Dowel/)).toHaveLength(2);
  });
});
