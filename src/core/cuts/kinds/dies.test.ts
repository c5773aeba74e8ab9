import { normalise, type Region } from '../../geometry/region';
import { withEmbossing, type EmbossingValues } from '../../job/embossing';
import { newOneSetup } from '../../job/job';
import { jobOf } from '../../job/oneSetup';
import { cutterOf, library } from '../../testing/job';
import { icon, leftAt, lettering, mirroredAt, sectionsOf } from '../../testing/sections';
import { circleLoop, hole, starLoop } from '../../testing/shapes';

const BLANK = { width: 60, height: 50, thickness: 8 };
const [X, Y] = [30, 25];
const usual: EmbossingValues = {
  ...{ walls: 'leaning', cutter: 'v-12-60-0', endMills: ['flat-2'], depth: 0.8, sheet: 0.2, material: 'brass' },
};

/** The cuts of both dies, as they are made of an outline. */
function cutsOf(values: EmbossingValues) {
  const one = newOneSetup('Dies');
  one.blank = { ...one.blank, ...BLANK };
  one.cutters = library.filter((c) => [values.cutter, ...values.endMills].includes(c.id));
  let n = 0;
  const { job } = withEmbossing(jobOf(one), one.at.id, [], values, cutterOf, () => `n${n++}`);
  return job.setups.map((s) => s.cuts[0]);
}

const STEP = 0.004;

/** Distance of a point from a line of heights `z` at places STEP apart, its walls with it. */
function distanceTo(z: Float64Array, px: number, pz: number, far: number): number {
  let least = Infinity;
  const from = Math.max(0, Math.floor((px - far) / STEP));
  for (let i = from; i < Math.min(z.length - 1, Math.ceil((px + far) / STEP)); i++) {
    const [dx, dz] = [STEP, z[i + 1] - z[i]];
    const t = Math.max(0, Math.min(1, ((px - i * STEP) * dx + (pz - z[i]) * dz) / (dx * dx + dz * dz)));
    least = Math.min(least, Math.hypot(px - i * STEP - t * dx, pz - z[i] - t * dz));
  }
  return least;
}

/** How far both dies stand apart along sections of them, closed on a sheet: least anywhere, and least and most of walls. */
function apart(region: Region, given: Partial<EmbossingValues>) {
  const many = 80;
  const v = { ...usual, ...given };
  const [sunk, raised] = cutsOf(v);
  const { x, y, count, step, out, corner } = sectionsOf(region, many, 0.8, 1.4, STEP);
  const presets = (id: string) => ({ stepDown: 0.5, stepOver: { ...raised.overrides[id] }.stepOver ?? 0.3 });
  const below = leftAt(sunk, region, BLANK, presets, x, y);
  const over = leftAt(
    ...([raised, mirroredAt(BLANK.width, region), BLANK, presets] as const),
    ...([x.map((q) => BLANK.width - q), y] as const),
  );
  const sine = Math.sin(v.cutter.includes('60') ? Math.PI / 6 : Math.PI / 4);
  let [least, wallLeast, wallMost, walls] = [Infinity, Infinity, 0, 0];
  for (let k = 0; k < many; k++) {
    const z = below.subarray(k * count, (k + 1) * count);
    for (let i = 0; i < count; i += 5) {
      const h = over[k * count + i];
      const off = i * step;
      if (off < out / 2 || off > out + 1) continue;
      const d = distanceTo(z, off, v.sheet - v.depth - h, 2 * v.sheet);
      least = Math.min(least, d);
      // What is raised faces the wall of the other there, square across: further on the section meets other walls askew.
      const steep = (h - over[k * count + i - 5]) / (5 * step);
      const square = Math.abs(steep * Math.tan(Math.asin(sine)) - 1) < 0.02;
      const foot = v.sheet * (1 - sine) - v.depth - h;
      if (square && corner[k] > 1 && h < -0.1 * v.depth && foot < -0.05 && foot > -0.95 * v.depth) {
        walls++;
        [wallLeast, wallMost] = [Math.min(wallLeast, d), Math.max(wallMost, d)];
      }
    }
  }
  return { least, wallLeast, wallMost, walls };
}

describe('dies that are closed on a sheet', () => {
  const star = normalise([starLoop(5, 15, 8, X, Y)]);
  const ring = normalise([circleLoop(300, 12, X, Y), hole(circleLoop(200, 7, X, Y))]);
  it.each([
    ['(long) a star', star, {}, 0.2],
    ['(long) a ring, by a wider cone', ring, { cutter: 'v-12-90-0', sheet: 0.3, depth: 0.5 }, 0.3],
    ['(long) a star on a thick sheet', star, { sheet: 0.6, depth: 0.5 }, 0.6],
    ['(long) an icon', icon(X, Y)(0.0005), { endMills: ['flat-1'] }, 0.2],
    ['(long) lettering', lettering('cinzel', 'Fen', 16, X, 18)(0.0005), { endMills: ['flat-1'], depth: 0.5 }, 0.2],
    [
      '(long) a script',
      lettering('allura', 'Lily', 16, X, 18)(0.0005),
      { endMills: ['flat-1'], depth: 0.4, sheet: 0.1 },
      0.1,
    ],
  ] as const)('%s: they stand as far apart as it is thick, across leaning walls', (_name, region, values, sheet) => {
    const r = apart(region, values as Partial<EmbossingValues>);
    expect(r.walls).toBeGreaterThan(150);
    // On floors a tip leaves ridges.
    expect(r.least).toBeGreaterThan(sheet - 0.015);
    expect(r.wallLeast).toBeGreaterThan(sheet - 0.005);
    expect(r.wallMost).toBeLessThan(sheet + 0.01);
  });

  it('stand as far apart as it is thick across upright walls, and round the whole blank nothing stays', () => {
    const v: EmbossingValues = { ...usual, walls: 'upright', depth: 0.5, sheet: 0.1, endMills: ['flat-3', 'flat-1'] };
    const [sunk, raised] = cutsOf(v);
    const presets = { stepDown: 0.5, stepOver: 0.5 };
    const { x, y, count, step, many } = sectionsOf(ring, 30, 0.4, 0.4, 0.002);
    const below = leftAt(sunk, ring, BLANK, presets, x, y);
    const turned = mirroredAt(BLANK.width, ring);
    const mirrored = x.map((q) => BLANK.width - q);
    const over = leftAt(raised, turned, BLANK, presets, mirrored, y);
    for (let k = 0; k < many; k++) {
      const z = [...below.subarray(k * count, (k + 1) * count)];
      const h = [...over.subarray(k * count, (k + 1) * count)];
      const gap = (h.findIndex((q) => q > -0.25) - z.findIndex((q) => q < -0.25)) * step;
      expect(Math.abs(gap - v.sheet)).toBeLessThan(0.006);
    }
    // Corners and edges of the blank, a hair inside of it, and places anywhere else outside of the ring.
    const far = [0.001, 2, 17, 43, 59.999].flatMap((px) => [0.001, 9, 41, 49.999].map((py) => [px, py]));
    const clear = far.filter(([px, py]) => Math.hypot(px - X, py - Y) > 12.5);
    expect(clear.length).toBeGreaterThan(15);
    for (const [values, kind] of [
      [raised.values, 'area'],
      [cutsOf(usual)[1].values, 'vcarve'],
    ] as const) {
      const deep = kind === 'area' ? 0.5 : usual.depth;
      const left = leftAt(
        ...([{ kind, values }, turned, BLANK, presets] as const),
        ...([clear.map((q) => q[0]), clear.map((q) => q[1])] as const),
      );
      for (const q of left) expect(q).toBeCloseTo(-deep, 6);
    }
  });
});
