import fc from 'fast-check';
import { real } from '../testing/real';
import { gridOf } from './field';
import { formContext, heightsOf } from '../testing/forms';
import { loop } from '../testing/shapes';
import type { Line } from './form';
import { textures, wave, type Texture, type TextureId } from './textures';

const ids = Object.keys(textures) as TextureId[];
const grid = gridOf(30, 20, 0.5);
/** A texture at one place. */
function at(id: TextureId, u: number, v: number, vary: number, seed: number): number {
  const out = new Float64Array(1);
  (textures[id] as Texture).heights({ u: Float64Array.of(u), v: Float64Array.of(v) }, vary, seed, out);
  return out[0];
}
const shaped = (values: object, g = grid) => heightsOf('texture', values, formContext(g));

describe('a texture that follows a line', () => {
  const grid = gridOf(30, 20, 0.5);
  const look = (values: object, lines: Line[] = []) =>
    heightsOf('texture', { texture: 'water', size: 3, ...values }, formContext(grid, { lines }));
  it('is what it is straight, from where the line begins', () => {
    const line = { points: Float64Array.from([6, 4, 6, 16]), closed: false };
    const led = look({ follows: true }, [line]);
    // Along the line upward, to its left: as turned by a quarter about its beginning.
    for (let r = 0; r < grid.rows; r++)
      for (let c = 0; c < grid.cols; c++) {
        const [along, beside] = [r * 0.5 - 4, 6 - c * 0.5];
        const want = at('water', along / 3, beside / 3, 0.5, 1) - 1;
        expect(Math.abs(led[r * grid.cols + c] - want)).toBeLessThan(1e-4);
      }
  });
  it('goes round a bend with it, and is nowhere without one', () => {
    const circle = loop(
      ...Array.from({ length: 720 }, (_, k) => [
        15 + 6 * Math.cos((k * Math.PI) / 360),
        10 + 6 * Math.sin((k * Math.PI) / 360),
      ]).flat(),
    );
    const led = look({ texture: 'ripples', follows: true, variation: 0 }, [{ points: circle, closed: true }]);
    // Rows along the line: one height all the way round.
    for (const [x, y] of [
      [15, 14],
      [11, 10],
      [15, 6],
    ])
      expect(led[y * 2 * grid.cols + x * 2]).toBeCloseTo(led[20 * grid.cols + 38], 2);
    expect(look({ follows: true }).every((h) => h !== h)).toBe(true);
  });
});

describe('textures', () => {
  it('are at least fourteen, each between its base and its depth, and of some height', () => {
    expect(ids.length).toBeGreaterThanOrEqual(14);
    for (const id of ids)
      for (const variation of [0, 50, 100]) {
        const z = shaped({ texture: id, depth: 2, size: 6, variation });
        let [low, high] = [Infinity, -Infinity];
        for (const h of z) [low, high] = [Math.min(low, h), Math.max(high, h)];
        expect(low).toBeGreaterThanOrEqual(-2 - 1e-6);
        expect(high).toBeLessThanOrEqual(1e-6);
        expect(high - low).toBeGreaterThan(0.5);
      }
  });
  it('are the same for the same seed, anywhere on the ground, and others for another', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ids),
        real(-500, 500),
        real(-500, 500),
        real(0, 1),
        fc.nat({ max: 1_000_000 }),
        (id, u, v, vary, seed) => {
          const h = at(id, u, v, vary, seed);
          expect(h >= -1e-6 && h <= 1 + 1e-6).toBe(true);
          expect(at(id, u, v, vary, seed)).toBe(h);
          // Whoever is asked for beside it.
          const out = new Float64Array(7);
          const row = (x: number, by: number) => Float64Array.from(out, (_, k) => x + (k - 3) * by);
          (textures[id] as Texture).heights({ u: row(u, 0.31), v: row(v, -0.17) }, vary, seed, out);
          expect(out[3]).toBe(h);
        },
      ),
    );
    for (const id of ids) {
      const [a, b] = [1, 2].map((seed) => shaped({ texture: id, variation: 100, seed }));
      expect(a.filter((h, i) => Math.abs(h - b[i]) > 0.02).length).toBeGreaterThan(a.length / 20);
    }
  });
  it('are turned and made larger about the corner of the blank', () => {
    for (const id of ids) {
      const plain = shaped({ texture: id, size: 5, variation: 70 });
      // The same places, twice as large on twice the ground.
      const large = shaped({ texture: id, size: 10, variation: 70 }, gridOf(60, 40, 1));
      plain.forEach((h, i) => expect(Math.abs(h - large[i])).toBeLessThan(1e-5));
    }
    const across = shaped({ texture: 'ripples', variation: 0, size: 4, depth: 1, angle: 90 });
    // Turned by a right angle, waves run along X: depth (sin(-2 pi x / 4) - 1) / 2 everywhere.
    across.forEach((h, i) => {
      const x = (i % grid.cols) * grid.cell;
      expect(h).toBeCloseTo((Math.sin((-2 * Math.PI * x) / 4) - 1) / 2, 5);
    });
  });
  it('without variation repeat as masonry does: joints at the edges, faces between', () => {
    expect(at('brick', 0.5, 0.25, 0, 1)).toBe(1);
    for (const u of [0, 1, 7]) expect(at('brick', u, 0.25, 0, 1)).toBe(0);
    expect(at('brick', 0.3, 0.5, 0, 1)).toBe(0);
    // Courses are shifted by half a brick.
    expect(at('brick', 0.5, 0.75, 0, 1)).toBe(0);
  });
});

describe('a wave', () => {
  it('is a sine, at any place', () => {
    fc.assert(
      fc.property(real(-2000, 2000), (t) => {
        expect(Math.abs(wave(t) - 0.5 - 0.5 * Math.sin(2 * Math.PI * t))).toBeLessThan(1e-7);
      }),
    );
    for (let k = -8; k <= 8; k++)
      expect(Math.abs(wave(k / 8) - 0.5 - 0.5 * Math.sin((Math.PI * k) / 4))).toBeLessThan(1e-7);
  });
});
