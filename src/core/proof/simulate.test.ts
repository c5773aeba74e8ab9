import fc from 'fast-check';
import { real } from '../testing/real';
import { shippedLibrary } from '../cutters/library';
import { MotionBuilder } from '../motion/motion';
import { SweepKernel } from '../kernels/kernel';
import { flatField } from '../relief/field';
import type { PlacedProgram } from './placed';
import { cutMove, removerOf } from './cutting';
import { createSimulation } from './simulate';

const library = shippedLibrary();
const tools = new Map(['v-12-60-0', 'flat-6', 'ball-3'].map((id, i) => [i + 1, library.find((c) => c.id === id)!]));
const BLANK = { width: 60, height: 40 };
const CELL = 0.4;

/** One visit: where it goes in, how deep, its moves, whether it comes out by a rapid below the face. */
interface Visit {
  readonly x: number;
  readonly y: number;
  readonly way: readonly (readonly [number, number, number])[];
  readonly arc: boolean;
  readonly skim: boolean;
}
const visit: fc.Arbitrary<Visit> = fc.record({
  x: real(2, 58),
  y: real(2, 38),
  way: fc.array(fc.tuple(real(-9, 9), real(-9, 9), real(-26, -0.1)), { minLength: 1, maxLength: 4 }),
  arc: fc.boolean(),
  skim: fc.boolean(),
});
const plan = fc.array(fc.tuple(fc.constantFrom(1, 2, 3), fc.array(visit, { minLength: 1, maxLength: 6 })), {
  minLength: 1,
  maxLength: 4,
});

const programOf = (stretches: readonly (readonly [number, readonly Visit[]])[]): PlacedProgram[] => [
  {
    file: 'a.nc',
    ended: true,
    toolChanges: 0,
    dwell: 0,
    sections: stretches.map(([tool, visits], k) => {
      const b = new MotionBuilder();
      b.rapid(0, 0, 10);
      for (const v of visits) {
        b.rapid(v.x, v.y, 10);
        v.way.forEach(([dx, dy, z], i) => {
          if (i === 0) b.plunge(z, 300);
          if (v.arc && i === 0) b.arc(true, b.lastX, b.lastY, z, b.lastX + dx / 3, b.lastY + dy / 3, 900);
          else b.line(v.x + dx, v.y + dy, z, 900);
        });
        if (v.skim) b.rapid(v.x, v.y, -0.5);
        b.lift(10);
      }
      const motion = b.build();
      return {
        tool,
        cutId: `c${k}`,
        motion,
        firstLine: 0,
        line: new Int32Array(motion.count),
        rpm: new Float64Array(motion.count),
      };
    }),
  },
];

describe('simulation', () => {
  test('leaves what every move cut one after the other leaves', () => {
    fc.assert(
      fc.property(plan, (p) => {
        const programs = programOf(p);
        // By the same kernel: what is looked at here is how the work is parted.
        const field = SweepKernel.at(flatField(BLANK.width, BLANK.height, CELL))!;
        for (const s of programs[0].sections) {
          const r = removerOf(field, tools.get(s.tool)!);
          for (let i = 1; i < s.motion.count; i++) cutMove(r, s.motion, i);
          r.flush();
        }
        const { field: cut } = createSimulation().run(BLANK, CELL, programs, tools);
        // As near as a kernel is to itself where a way is parted: its single floats count for more on a steep wall.
        for (let i = 0; i < field.z.length; i++)
          if (Math.abs(field.z[i] - cut.z[i]) > 2e-5) throw new Error(`node ${i}: ${field.z[i]} and ${cut.z[i]}`);
      }),
      { numRuns: 40 },
    );
  });

  test('(long) a changed plan gives what a fresh simulation of it gives, heights and clashes', () => {
    fc.assert(
      fc.property(
        fc.array(plan, { minLength: 1, maxLength: 2 }),
        fc.array(fc.tuple(fc.nat(), fc.nat(), visit), { minLength: 1, maxLength: 5 }),
        ([p, q], changes) => {
          const kept = createSimulation();
          let now = q ? [...p, ...q] : p;
          const check = () => {
            const programs = programOf(now);
            const again = kept.run(BLANK, CELL, programs, tools);
            const fresh = createSimulation().run(BLANK, CELL, programs, tools);
            expect(again.field.z).toEqual(fresh.field.z);
            expect(again.collisions).toEqual(fresh.collisions);
          };
          check();
          for (const [a, b, v] of changes) {
            const k = a % now.length;
            const visits = now[k][1];
            // Replaced, taken out, put in or turned round.
            const n = b % (visits.length + 2);
            const next =
              n < visits.length
                ? visits.map((w, i) => (i === n ? v : w))
                : n === visits.length
                  ? [...visits, v]
                  : [...visits].reverse().slice(0, Math.max(1, visits.length - 1));
            now = now.map((s, i) => (i === k ? ([s[0], next] as const) : s)) as typeof now;
            check();
          }
        },
      ),
      { numRuns: 20 },
    );
  });

  test('a run that is given up halfway leaves the next one right', () => {
    fc.assert(
      fc.property(plan, plan, fc.nat({ max: 10 }), (p, q, after) => {
        const kept = createSimulation();
        kept.run(BLANK, CELL, programOf(p), tools);
        let left = after;
        try {
          kept.run(BLANK, CELL, programOf(q), tools, () => {
            if (left-- <= 0) throw new Error('enough');
          });
        } catch (e) {
          expect((e as Error).message).toBe('enough');
        }
        for (const next of [p, q]) {
          const again = kept.run(BLANK, CELL, programOf(next), tools);
          const fresh = createSimulation().run(BLANK, CELL, programOf(next), tools);
          expect(again.field.z).toEqual(fresh.field.z);
          expect(again.collisions).toEqual(fresh.collisions);
        }
      }),
      { numRuns: 30 },
    );
  });

  test('only tiles that a change touches are cut again', () => {
    const line = (x: number): Visit => ({
      x,
      y: 20,
      way: [
        [3, 3, -1],
        [-3, 5, -1],
      ],
      arc: false,
      skim: false,
    });
    const many = [5, 15, 25, 35, 45, 55].map(line);
    const kept = createSimulation();
    kept.run(BLANK, 0.1, programOf([[2, many]]), tools);
    let steps = 0;
    kept.run(BLANK, 0.1, programOf([[2, [...many.slice(0, 5), line(54)]]]), tools, () => steps++);
    // The changed visit and, at most, its neighbour; and the word at the end.
    expect(steps).toBeGreaterThan(1);
    expect(steps).toBeLessThanOrEqual(4);
  });
});
