import fc from 'fast-check';
import { real } from '../testing/real';
import { formContext, heightsOf } from '../testing/forms';
import { denoise, denoiseByKernel, denoiseInScript, measuredGrain } from './denoise';
import { gridOf } from './field';
import { chance } from './noise';
import type { GreyPicture } from './picture';
import { boxMeans } from './slide';

const cell = 0.05;
const grid = gridOf(29.95, 19.95, cell);
const { cols, rows } = grid;

/** A plaque: a raised panel with strokes of 0.15, 0.25 and 0.4 mm, 0.3 mm deep; a bevelled bar; a dome. */
function plaque(): Float32Array {
  const out = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const [x, y] = [c * cell, r * cell];
      let h = x > 6 && x < 14 && y > 3 && y < 17 ? 1 : 0;
      const d = Math.min(x - 16, 28 - x, y - 2, 9 - y);
      if (d > 0) h = Math.min(1.2, d);
      const q = Math.hypot(x - 22, y - 14.5);
      if (q < 4.5) h = Math.sqrt(36 - q * q) - Math.sqrt(36 - 4.5 * 4.5);
      for (const [at, wide] of [
        [8, 0.15],
        [10, 0.25],
        [12, 0.4],
      ])
        if (Math.abs(x - at) < wide / 2 && y > 5 && y < 15) h -= 0.3;
      out[r * cols + c] = h;
    }
  return out;
}
const normal = (i: number, seed: number) =>
  Math.sqrt(-2 * Math.log(1 - chance(i, 1, seed))) * Math.cos(2 * Math.PI * chance(i, 2, seed));
const grained = (z: Float32Array, by: number, seed: number) => z.map((h, i) => h + by * normal(i, seed));

const truth = plaque();
/** Part of the grain's energy that is left, all that edges have lost counted with it. */
const left = (z: Float32Array, by: number) => z.reduce((s, h, i) => s + (h - truth[i]) ** 2, 0) / (z.length * by * by);
/** The steepest place within four nodes of an edge, a mean over its length. */
function steepest(z: Float32Array, [x, y0, y1]: readonly [number, number, number]): number {
  const at = Math.round(x / cell);
  let best = 0;
  for (let c = at - 4; c < at + 4; c++) {
    let sum = 0;
    for (let r = Math.round(y0 / cell); r < Math.round(y1 / cell); r++)
      sum += (z[r * cols + c + 1] - z[r * cols + c]) / Math.round((y1 - y0) / cell);
    best = Math.max(best, Math.abs(sum));
  }
  return best;
}
const EDGES = [
  [6, 4, 16],
  [14, 4, 16],
  [7.925, 6, 14],
  [9.875, 6, 14],
  [11.8, 6, 14],
] as const;
/** The most that any edge has lost of its slope. */
const lost = (z: Float32Array) => Math.max(...EDGES.map((e) => 1 - steepest(z, e) / steepest(truth, e)));

describe('noise removal', () => {
  const by = 0.03;
  it.each([1, 2, 3])(
    'takes four fifths of the grain and no tenth of the slope of edges; a blur does not (seed %d)',
    (seed) => {
      const z = grained(truth, by, seed);
      expect(left(z, by)).toBeGreaterThan(0.9);
      const clean = heightsOf('denoise', { grain: null, detail: 0.3 }, formContext(grid, { under: z }));
      const rest = left(clean, by);
      expect(rest).toBeLessThan(0.2);
      expect(lost(clean)).toBeLessThan(0.1);
      // Blurs of all sizes: none leaves as little, and each of them takes more of the edges.
      for (const r of [1, 2, 3, 5, 8]) {
        const blurred = boxMeans(z, grid, r);
        expect(left(blurred, by)).toBeGreaterThan(rest);
        expect(lost(blurred)).toBeGreaterThan(0.5);
      }
    },
  );
  it('measures the grain among edges and on slopes', () => {
    for (const sigma of [0.005, 0.03, 0.08]) {
      const found = measuredGrain(grained(truth, sigma, 5), grid);
      expect(found / sigma).toBeGreaterThan(0.9);
      expect(found / sigma).toBeLessThan(1.1);
    }
    expect(measuredGrain(new Float32Array(cols * rows).fill(NaN), grid)).toBe(0);
  });
  it('takes the grain of a picture whose pixels are wider than the nodes lie apart', () => {
    // Pixels of 0.4 mm, eight nodes each; an edge stays.
    const truth = (x: number) => (x < 37 ? 0.3 : 0.7);
    const p = (by: number): GreyPicture => ({
      width: 75,
      height: 50,
      greys: 65536,
      light: Float32Array.from({ length: 3750 }, (_, i) => truth(i % 75) + by * normal(i, 9)),
    });
    const lying = { x: 15, y: 10, width: 29.9, height: 19.9, rise: 4 };
    const of = (by: number) => heightsOf('picture', lying, formContext(grid, { picture: () => p(by) }));
    const [clean, rough] = [of(0), of(0.01)];
    const out = heightsOf('denoise', {}, formContext(grid, { under: rough, pixel: 0.4 }));
    const energy = (z: Float32Array) => z.reduce((s, h, i) => (h === h ? s + (h - clean[i]) ** 2 : s), 0);
    expect(energy(out)).toBeLessThan(0.25 * energy(rough));
    // Not knowing how wide its grain is, it would leave it.
    expect(energy(heightsOf('denoise', {}, formContext(grid, { under: rough })))).toBeGreaterThan(0.5 * energy(rough));
    const i = 200 * cols + Math.round((37 * 0.4) / cell);
    expect(Math.abs(out[i + 12] - out[i - 12])).toBeGreaterThan(0.9 * Math.abs(clean[i + 12] - clean[i - 12]));
  });
  it('leaves what has no grain, and level, tilted and empty ground, as it is', () => {
    const same = heightsOf('denoise', { grain: null }, formContext(grid, { under: new Float32Array(cols * rows) }));
    expect(same.every((h) => h === 0)).toBe(true);
    const size = { cols: 40, rows: 30 };
    const small = Float32Array.from({ length: 1200 }, (_, i) => (i % 40 < 20 ? -9 + 0.01 * (i % 40) : NaN));
    const out = denoise(small, size, 0.02, 3);
    for (let i = 0; i < out.length; i++) {
      if (small[i] !== small[i]) expect(out[i]).toBeNaN();
      // Windows that end at an edge of the tilted ground lean a little.
      else expect(Math.abs(out[i] - small[i])).toBeLessThan(0.02);
    }
    for (let r = 0; r < 30; r++)
      for (let c = 6; c < 14; c++) expect(Math.abs(out[r * 40 + c] - small[r * 40 + c])).toBeLessThan(0.001);
  });
  it('knows no place or height of its own: moved up, it moves up', () => {
    const z = Float32Array.from({ length: 600 }, (_, i) => 0.1 * normal(i, 3) + (i % 30 > 12 ? 1 : 0));
    const up = denoise(
      z.map((h) => h + 64),
      { cols: 30, rows: 20 },
      0.1,
      2,
    );
    denoise(z, { cols: 30, rows: 20 }, 0.1, 2).forEach((h, i) => expect(Math.abs(up[i] - 64 - h)).toBeLessThan(1e-4));
  });
});

describe('noise removal by the kernel', () => {
  it('comes to what it does in script: any size, windows wider than the ground, empty places, bands of rows', () => {
    const height = fc.oneof(
      { weight: 6, arbitrary: real(-3, 3) },
      { weight: 2, arbitrary: fc.constantFrom(0, 1) },
      { weight: 1, arbitrary: fc.constant(NaN) },
    );
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 11 }),
        fc.integer({ min: 1, max: 31 }),
        fc.integer({ min: 1, max: 7 }),
        fc.array(height, { minLength: 341, maxLength: 341 }),
        fc.constantFrom(1, 60, 1e6),
        (cols, rows, r, all, atOnce) => {
          const z = Float32Array.from(all.slice(0, cols * rows));
          const want = denoiseInScript(z, { cols, rows }, 0.5, r);
          const got = denoiseByKernel(z, { cols, rows }, 0.5, r, atOnce)!;
          want.forEach((h, i) => {
            expect(got[i] === got[i]).toBe(h === h);
            if (h === h) expect(Math.abs(got[i] - h)).toBeLessThan(1e-5);
          });
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('sliding windows', () => {
  it('give the means of squares, whatever their size, edges and empty places', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.oneof(fc.integer({ min: -9, max: 9 }), fc.constant(NaN)), { minLength: 63, maxLength: 63 }),
        (w, h, r, all) => {
          const z = Float32Array.from(all.slice(0, w * h));
          const out = boxMeans(z, { cols: w, rows: h }, r);
          for (let y = 0; y < h; y++)
            for (let x = 0; x < w; x++) {
              const near: number[] = [];
              z.forEach((v, i) => {
                if (v === v && Math.abs((i % w) - x) <= r && Math.abs(Math.floor(i / w) - y) <= r) near.push(v);
              });
              const v = out[y * w + x];
              if (z[y * w + x] !== z[y * w + x]) expect(v).toBeNaN();
              else expect(v).toBeCloseTo(near.reduce((a, b) => a + b, 0) / near.length, 5);
            }
        },
      ),
      { numRuns: 300 },
    );
  });
});
