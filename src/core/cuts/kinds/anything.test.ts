import fc from 'fast-check';
import { real } from '../../testing/real';
import type { Cutter } from '../../cutters/cutter';
import { normalise, type Region } from '../../geometry/region';
import { patterns } from '../clearing/clear';
import { parseProgram } from '../../program/parser';
import { cutOut, depths, readMoves, scatter, testShape, type TestCutter } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop, starLoop } from '../../testing/shapes';

const num = (min: number, max: number) => real(min, max);
const loop = fc.oneof(
  fc
    .tuple(fc.integer({ min: 3, max: 9 }), num(4, 14), num(0.3, 0.95), num(16, 60), num(16, 40))
    .map(([n, r, f, x, y]) => starLoop(n, r, r * f, x, y)),
  fc.tuple(num(3, 30), num(3, 30), num(5, 30), num(5, 25)).map(([x, y, w, h]) => box(x, y, x + w, y + h)),
  fc.tuple(num(2, 12), num(15, 60), num(15, 40)).map(([r, x, y]) => circleLoop(60, r, x, y)),
);
const regions = fc
  .array(loop, { minLength: 1, maxLength: 4 })
  .map((l) => normalise(l, 'evenodd'))
  .filter((r) => r.length > 0);
const flats = fc.constantFrom('flat-1', 'flat-1.5', 'flat-2', 'flat-3', 'flat-6');
const steps = fc.record({ stepOver: num(0.25, 0.9), stepDown: num(0.3, 2.5) });

const tested = (c: Cutter): TestCutter => testShape(c.shape, c.values);

interface Case {
  kind: string;
  values: Record<string, unknown>;
  /** Where the cutter may have been, from the signed distance to the outline (inside positive); the deepest allowed. */
  allowed: (d: number) => boolean;
  deepest: number;
}
const area = fc
  .record({
    cutters: fc.uniqueArray(flats, { minLength: 1, maxLength: 3 }),
    depth: num(0.3, 3),
    pattern: fc.constantFrom(...patterns),
    angle: num(-90, 90),
    allowance: fc.constantFrom(0, 0.3),
    entry: fc.constantFrom('helix', 'ramp', 'plunge'),
    direction: fc.constantFrom('climb', 'conventional'),
  })
  .map((values): Case => ({
    kind: 'area',
    values,
    allowed: (d) => d >= values.allowance - 0.003,
    deepest: values.depth,
  }));
const vcarve = fc
  .record({
    limit: fc.constantFrom(null, 0.7, 1.5),
    endMills: fc.uniqueArray(flats, { maxLength: 2 }),
    overRise: fc.constantFrom(0, 0.3),
  })
  .map((values): Case => ({
    kind: 'vcarve',
    values,
    allowed: (d) => d >= -0.003,
    deepest: Math.min(values.limit ?? 99, 10.4),
  }));
const plug = fc
  .record({
    startDepth: num(0.2, 2),
    limit: fc.constantFrom(0.4, 1),
    margin: fc.constantFrom(2, 5),
    endMills: fc.uniqueArray(flats, { maxLength: 2 }),
  })
  .map((values): Case => ({
    kind: 'vcarve',
    values: { ...values, side: 'around', cutter: 'v-12-60-0' },
    // The walls of what stays lean inwards above the start depth.
    allowed: (d) => d <= values.startDepth * Math.tan(Math.PI / 6) + 0.003,
    deepest: values.startDepth + values.limit,
  }));
const profile = fc
  .record({
    cutter: flats,
    side: fc.constantFrom('outside', 'inside'),
    through: fc.boolean(),
    depth: num(0.5, 3),
    lead: fc.constantFrom('none', 'arc', 'line'),
    leadSize: num(0.5, 4),
    finish: fc.constantFrom(0, 0.2),
    direction: fc.constantFrom('climb', 'conventional'),
    shape: fc.constantFrom('rectangular', 'triangular', 'rounded'),
    count: fc.integer({ min: 0, max: 5 }),
  })
  .map(({ shape, count, ...values }): Case => ({
    kind: 'profile',
    values: { ...values, tabs: { shape, by: 'count', count, spacing: 50, length: 4, height: 1.5, at: [] } },
    allowed: (d) => (values.side === 'outside' ? d <= 0.003 : d >= -0.003),
    deepest: values.through ? 6 : values.depth,
  }));
const hatch = fc
  .record({
    depth: num(0.05, 0.5),
    edge: fc.constantFrom('inside', 'none'),
    fill: fc.constantFrom('hatch', 'crossed'),
    angle: num(-90, 90),
    spacing: num(0.3, 1.2),
  })
  .map((values): Case => ({
    kind: 'line',
    values: { cutter: 'cone-3.175-20-0.1', ...values },
    allowed: (d) => d >= -0.003,
    deepest: values.depth,
  }));

describe('any region, any cutter, any values', () => {
  it('nothing is gouged, no rapid runs in material, all ends up with the spindle off, and the text says the same again', () => {
    fc.assert(
      fc.property(
        regions,
        fc.oneof(area, vcarve, plug, profile, hatch),
        steps,
        fc.constantFrom('metric', 'inch', 'metric-lines', 'metric-pause', 'metric-length'),
        (region: Region, { kind, values, allowed, deepest }, step, dialect) => {
          const { plan, job } = planOn(kind, { ...values, ...step }, region, { width: 80, height: 60, thickness: 6 });
          expect(
            plan.remarks
              .filter((r) => r.level === 'problem' && !/too wide|wider than|no line|wall is deeper/.test(r.text))
              .map((r) => r.text),
          ).toEqual([]);
          if (!plan.toolpaths.length) return;
          const { text, tools } = programOf(plan, job, dialect);
          const cutters = Object.fromEntries(Object.entries(tools).map(([n, id]) => [n, tested(cutterOf(id))]));
          const g = scatter(region, 120, 4, 0.5);
          const d = depths(region, g);
          const moves = readMoves(text);
          let worst = 0;
          let run: typeof moves = [];
          for (const m of moves) {
            if (!m.rapid || Math.min(m.a[2], m.b[2]) >= 0) {
              run.push(m);
              continue;
            }
            cutOut(g, run, cutters);
            run = [];
            const before = g.z.slice();
            cutOut(g, [m], cutters);
            // A rapid may leave what it stands in, by the way it came.
            for (let i = 0; i < before.length; i++) worst = Math.max(worst, before[i] - g.z[i]);
          }
          cutOut(g, run, cutters);
          expect(worst).toBeLessThan(0.003);
          for (let i = 0; i < d.length; i++) {
            if (!allowed(d[i])) expect(g.z[i]).toBe(0);
            expect(g.z[i]).toBeGreaterThan(-deepest - 0.003);
          }
          const last = moves[moves.length - 1];
          expect(last.b[2]).toBeGreaterThanOrEqual(job.blank.safeHeight - 0.001);
          expect(text.trimEnd().endsWith('M30')).toBe(true);
          const parsed = parseProgram(text);
          expect(parsed.ended).toBe(true);
          expect(parsed.sections.map((s) => tools[s.tool])).toEqual(plan.toolpaths.map((t) => t.cutterId));
          plan.toolpaths.forEach((t, k) => {
            const back = parsed.sections[k].motion;
            expect(parsed.sections[k].rpm[back.count - 1]).toBe(
              k === plan.toolpaths.length - 1 ? 0 : parsed.sections[k].rpm[back.count - 1],
            );
            // Every end of a planned move comes by in the text.
            let j = 0;
            for (let i = 0; i < t.motion.count; i++) {
              const off = (q: number) =>
                Math.hypot(back.x[q] - t.motion.x[i], back.y[q] - t.motion.y[i], back.z[q] - t.motion.z[i]);
              while (j < back.count && off(j) > 0.001) j++;
            }
            expect(j).toBeLessThan(back.count);
          });
        },
      ),
      { numRuns: 25 },
    );
  });
});
