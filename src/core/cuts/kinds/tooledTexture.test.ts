import fc from 'fast-check';
import { real } from '../../testing/real';
import { cutGrid, gridOver } from '../../testing/grid';
import { readMoves, testShape } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop } from '../../testing/shapes';
import { contains, type Region } from '../../geometry/region';
import { flatField } from '../../relief/field';
import { strokesOver, ways, type Strokes, type Way } from '../texture/strokes';
import { wandering } from '../texture/wander';
import type { Line } from '../kind';

const blank = { width: 40, height: 30, thickness: 12 };
const level = { wave: 10, swing: 0, lift: 0, chance: 0, seed: 1, runs: 0, long: 0, gap: 0 };

function cut(values: Record<string, unknown>, region: Region, lines?: Line[], cell = 0.15) {
  const { plan, job, wanted } = planOn('tooledTexture', values, region, blank, {}, lines);
  const { text, tools } = programOf(plan, job);
  const moves = readMoves(text);
  const grid = gridOver([box(0, 0, blank.width, blank.height)], cell, 0);
  const shapes = Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)]);
  cutGrid(grid, moves, Object.fromEntries(shapes));
  const each = (visit: (x: number, y: number, z: number) => void) =>
    grid.z.forEach((z, i) => visit((i % grid.cols) * cell, Math.floor(i / grid.cols) * cell, z));
  return { plan, moves, each, wanted };
}

it('cuts even grooves where nothing is left to chance: as deep, as wide, and as far apart as typed', () => {
  const values = { cutter: 'v-12-60-0', depth: 0.6, spacing: 1.5, angle: 0, rim: 'middle', ...level };
  const { each } = cut(values, [box(5, 5, 35, 25)]);
  let seen = 0;
  each((x, y, z) => {
    if (x < 6 || x > 34 || y < 6 || y > 24) return;
    const d = Math.abs(y / 1.5 - Math.round(y / 1.5)) * 1.5;
    expect(Math.abs(z - Math.min(0, d / Math.tan(Math.PI / 6) - 0.6))).toBeLessThan(0.003);
    seen++;
  });
  expect(seen).toBeGreaterThan(1e4);
});

describe.each(Object.keys(ways) as Way[])('strokes that run %s', (way) => {
  const region = [circleLoop(90, 12, 20, 15)];
  const lines: Line[] = [
    { points: region[0], closed: true },
    { points: Float64Array.of(4, 4, 18, 12, 36, 14), closed: false },
  ];
  const values = {
    cutter: 'ball-3',
    way,
    spacing: 1.4,
    long: 6,
    gap: 0.8,
    runs: 2,
    depth: 0.4,
    lift: 0.15,
    swing: 0.4,
  };
  const { plan, moves, each, wanted } = cut({ ...values, wave: 5, chance: 70, seed: 5 }, region, lines);
  it('are what is wanted, stay within the outline and within the depth, and leave by rapid above the face', () => {
    expect(plan.remarks).toEqual([]);
    const w = wanted();
    const [low, high] = [[] as number[], [] as number[]];
    let cutInside = 0;
    each((x, y, z) => {
      if (z < w.surface(x, y) - 0.006) low.push(z);
      if (z > w.surface(x, y) + 0.006) high.push(z);
      if (z < -0.4 - 0.001) low.push(z);
      if (z < -1e-6 && !contains(region, x, y)) low.push(z);
      if (z < -0.05) cutInside++;
    });
    expect([low.length, high.length]).toEqual([0, 0]);
    expect(cutInside * 0.15 ** 2).toBeGreaterThan(0.3 * Math.PI * 144);
    expect(moves.filter((m) => m.rapid && Math.min(m.a[2], m.b[2]) < 0 && m.a[0] !== m.b[0])).toEqual([]);
    expect(moves.at(-1)!.b[2]).toBeGreaterThan(0);
  });
});

const strokes = (more: Partial<Strokes>): Strokes => ({
  way: 'rows',
  angle: 0,
  spacing: 1,
  depth: 1,
  ...level,
  ...more,
});
const flat = (v: Strokes, drawn: Float64Array[] = []) => strokesOver(v, [box(0, 0, 30, 20)], drawn, 0.002);

it('lays strokes at even distances from a line that is picked, bends and all', () => {
  const drawn = Float64Array.of(2, 3, 15, 9, 28, 4);
  const away = (x: number, y: number) => {
    let least = Infinity;
    for (let i = 0; i < 4; i += 2) {
      const [ex, ey] = [drawn[i + 2] - drawn[i], drawn[i + 3] - drawn[i + 1]];
      const t = Math.max(0, Math.min(1, ((x - drawn[i]) * ex + (y - drawn[i + 1]) * ey) / (ex * ex + ey * ey)));
      least = Math.min(least, Math.hypot(x - drawn[i] - t * ex, y - drawn[i + 1] - t * ey));
    }
    return least;
  };
  const lines = flat(strokes({ way: 'line', spacing: 1.5 }), [drawn]);
  const met = new Set<number>();
  for (const p of lines)
    for (let i = 0; i < p.length; i += 3) {
      const k = away(p[i], p[i + 1]) / 1.5;
      expect(Math.abs(k - Math.round(k))).toBeLessThan(0.01);
      met.add(Math.round(k));
    }
  // To the furthest corner of what is stroked.
  expect(Math.max(...met)).toBe(Math.floor(Math.max(away(0, 20), away(30, 20)) / 1.5));
});

it('lets strokes from the middle begin where there is room for them: between one and two steps apart', () => {
  const lines = strokesOver(strokes({ way: 'spokes' }), [circleLoop(200, 14, 0, 0)], [], 0.002);
  for (const r of [3, 5, 8, 11, 13.5]) {
    const angles = lines
      .filter((p) => {
        const [a, b] = [Math.hypot(p[0], p[1]), Math.hypot(p[p.length - 3], p[p.length - 2])];
        return Math.min(a, b) <= r && Math.max(a, b) >= r;
      })
      .map((p) => Math.atan2(p[1] + p[p.length - 2], p[0] + p[p.length - 3]))
      .sort((a, b) => a - b);
    const gaps = angles.map((a, i) => (i ? a - angles[i - 1] : a + 2 * Math.PI - angles[angles.length - 1]) * r);
    expect(Math.min(...gaps)).toBeGreaterThan(1 - 1e-6);
    expect(Math.max(...gaps)).toBeLessThan(2 + 1e-6);
  }
});

it('makes strokes as long as typed with as much between them, that come down and go up as slowly as typed', () => {
  const p = flat(strokes({ long: 5, gap: 2, runs: 2, angle: 0 }));
  const whole = p.filter((q) => Math.min(q[0], q[q.length - 3]) > 0.1 && Math.max(q[0], q[q.length - 3]) < 29.9);
  expect(whole.length).toBeGreaterThan(50);
  for (const q of whole) {
    expect(Math.abs(q[q.length - 3] - q[0])).toBeCloseTo(5, 6);
    for (let i = 0; i < q.length; i += 3) {
      const s = Math.abs(q[i] - q[0]);
      expect(q[i + 2]).toBeCloseTo(-Math.sin((Math.PI / 2) * Math.min(1, s / 2, (5 - s) / 2)), 6);
    }
  }
  // Side by side they lie like bricks.
  const row = (y: number) => whole.filter((q) => Math.abs(q[1] - y) < 0.01).map((q) => Math.min(q[0], q[q.length - 3]));
  expect(Math.abs(row(8)[0] - row(9)[0]) % 7).toBeCloseTo(3.5, 6);
});

it('wanders no further than it may, the same way for the same seed, and another for another', () => {
  const any = fc.record({
    wave: real(0.2, 100),
    swing: real(0, 5),
    lift: real(0, 5),
    chance: real(0, 100),
    seed: fc.nat(1000),
  });
  const far = real(-500, 500);
  fc.assert(
    fc.property(any, fc.nat(500), far, (w, line, s) => {
      const { aside, up } = wandering(w);
      expect(Math.abs(aside(line, s))).toBeLessThanOrEqual(w.swing + 1e-9);
      expect(up(line, s)).toBeGreaterThanOrEqual(-1e-9);
      expect(up(line, s)).toBeLessThanOrEqual(w.lift + 1e-9);
    }),
  );
  const made = (seed: number) =>
    JSON.stringify(flat(strokes({ swing: 0.5, lift: 0.2, chance: 50, long: 4, seed })).map((p) => [...p]));
  expect(made(3)).toBe(made(3));
  expect(made(3)).not.toBe(made(4));
});

it('says why it does nothing', () => {
  const says = (values: object, region: Region, lines?: Line[]) =>
    planOn('tooledTexture', { cutter: 'ball-3', ...values }, region, blank, {}, lines).plan.remarks.map((r) => r.text);
  expect(says({}, [])[0]).toMatch(/no closed outline here to stroke/);
  expect(says({ where: 'relief' }, [])[0]).toMatch(/There is no relief here/);
  expect(says({ depth: 0.8 }, [box(5, 5, 25, 6)])[0]).toMatch(/fits nowhere inside/);
  expect(says({ way: 'line' }, [box(5, 5, 25, 25)])[0]).toMatch(/none is picked/);
  expect(says({ lift: 0.6, depth: 0.5 }, [box(5, 5, 35, 25)])[0]).toMatch(/leaves the face/);
  expect(says({ depth: 15 }, [box(0, 0, 40, 30)])[0]).toMatch(/deep at most/);
  expect(says({ long: 60, gap: 400, runs: 300 }, [box(5, 5, 9, 9)])[0]).toMatch(/No stroke is short enough/);
});

it('goes over all of a relief, and of the blank, without artwork', () => {
  const field = flatField(blank.width, blank.height, 0.5);
  field.z.fill(-1);
  for (const where of ['relief', 'blank']) {
    const { plan } = planOn('tooledTexture', { where, cutter: 'ball-3' }, [], blank, {}, undefined, field);
    const m = plan.toolpaths[0].motion;
    expect(Math.min(...m.x.subarray(0, m.count))).toBeLessThan(3);
    expect(Math.max(...m.x.subarray(0, m.count))).toBeGreaterThan(37);
  }
});
