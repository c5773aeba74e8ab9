import fc from 'fast-check';
import { formContext, heightsOf } from '../../testing/forms';
import { gridOf } from '../field';
import { formKindOf } from '../registry';
import { ornamentLook } from '../ornaments/carve';
import { ornaments } from '../ornaments/ornaments';

const ids = Object.keys(ornaments);
const grid = gridOf(120, 120, 0.6);
const { cols } = grid;
const shaped = (values: object, g = grid) =>
  heightsOf('ornament', { x: 60, y: 60, width: 60, rise: 4, ...values }, formContext(g));

/** The box of the nodes where there is something, mm, and the highest of them. */
function found(z: Float32Array, g = grid) {
  let [left, low, right, high, top] = [Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  z.forEach((h, i) => {
    if (h !== h) return;
    const [x, y] = [(i % g.cols) * g.cell, Math.floor(i / g.cols) * g.cell];
    [left, low, right, high, top] = [
      Math.min(left, x),
      Math.min(low, y),
      Math.max(right, x),
      Math.max(high, y),
      Math.max(top, h),
    ];
  });
  return { left, low, right, high, top };
}

describe('ornaments', () => {
  it('are at least twenty, each as wide and as high as is typed, about its middle, all of it on its ground or above', () => {
    expect(ids.length).toBeGreaterThanOrEqual(20);
    expect(new Set(ids.map((id) => ornaments[id].name)).size).toBe(ids.length);
    const kind = formKindOf('ornament');
    for (const ornament of ids) {
      // As large as the grid holds it.
      const [one] = [kind.frame!({ ...(kind.defaults as object), ornament, width: 1 })];
      const width = Math.min(100, 100 / one.height);
      const z = shaped({ ornament, width });
      const { left, low, right, high, top } = found(z);
      expect({ ornament, off: Math.abs(right - left - width) > 2 }).toEqual({ ornament, off: false });
      expect(Math.abs(high - low - width * one.height)).toBeLessThan(2);
      expect(Math.abs((left + right) / 2 - 60)).toBeLessThan(1);
      expect(Math.abs((low + high) / 2 - 60)).toBeLessThan(1);
      expect(top).toBeLessThanOrEqual(4);
      expect({ ornament, top: top > 3.8 }).toEqual({ ornament, top: true });
      expect(z.every((h) => !(h < 0))).toBe(true);
      // No two look alike, and each has some life in it.
      const look = ornamentLook(ornament, 40);
      expect(Math.max(look.cols, look.rows)).toBe(40);
      expect(new Set(look.light).size).toBeGreaterThan(20);
    }
  });
  it('are turned and mirrored about their middle, and larger on larger ground', () => {
    for (const ornament of ['heron', 'boat', 'horn']) {
      const plain = shaped({ ornament });
      const differ = (z: Float32Array, from: (r: number, c: number) => number) => {
        let n = 0;
        z.forEach((h, i) => {
          const want = plain[from(Math.floor(i / cols), i % cols)];
          if ((h === h) !== (want === want) || Math.abs(h - want) > 0.01) n++;
        });
        return n;
      };
      // On upright walls roundings decide: a few nodes may differ.
      const few = plain.filter((h) => h === h).length / 50;
      const last = cols - 1;
      expect(differ(shaped({ ornament, turn: 90 }), (r, c) => (last - c) * cols + r)).toBeLessThan(few);
      expect(differ(shaped({ ornament, turn: 180 }), (r, c) => (last - r) * cols + last - c)).toBeLessThan(few);
      expect(differ(shaped({ ornament, mirror: true }), (r, c) => r * cols + last - c)).toBeLessThan(few);
      expect(differ(shaped({ ornament, mirror: true, turn: 180 }), (r, c) => (last - r) * cols + c)).toBeLessThan(few);
      const large = shaped({ ornament, width: 120, x: 120, y: 120 }, gridOf(240, 240, 1.2));
      expect(differ(large, (r, c) => r * cols + c)).toBeLessThan(few);
      // It is not the same from the other side.
      expect(differ(plain, (r, c) => r * cols + last - c)).toBeGreaterThan(5 * few);
    }
  });
  it('of no known name are nowhere, and it is said', () => {
    const { z, remark } = formKindOf('ornament').evaluate(
      { ...(formKindOf('ornament').defaults as object), ornament: 'toString' } as never,
      formContext(grid),
    );
    expect(z.every((h) => h !== h)).toBe(true);
    expect(remark).toMatch(/no ornament of that name/);
  });
  it('fit into a fresh blank of any size, and fill the room of the one before', () => {
    const kind = formKindOf('ornament');
    fc.assert(
      fc.property(
        fc.constantFrom(...ids),
        fc.constantFrom(...ids),
        fc.constantFrom(5, 20, 300, 1200),
        fc.constantFrom(3, 100, 900),
        fc.constantFrom(0.8, 18, 100),
        (first, next, width, height, thickness) => {
          const fresh = kind.fresh!(
            { ...(kind.defaults as object), ornament: first },
            { width, height, thickness },
          ) as {
            rise: number;
          };
          const frame = kind.frame!(fresh);
          expect(frame.x).toBe(width / 2);
          expect(frame.width).toBeLessThan(Math.max(0.62 * width, 0.6));
          expect(fresh.rise).toBeLessThanOrEqual(Math.max(0.1, Math.min(5, thickness / 3)) * 1.01);
          expect(kind.schema.safeParse(fresh).success).toBe(true);
          const other = kind.changed!({ ...fresh, ornament: next } as never, fresh as never);
          const now = kind.frame!(other);
          expect(now.width).toBeLessThan(frame.width * 1.01 + 0.5);
          expect(now.height).toBeLessThan(Math.max(frame.height * 1.01, 0.5 * (now.height / now.width) + 0.01));
          expect((other as { rise: number }).rise).toBe(fresh.rise);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('frames of forms', () => {
  it('are as large as they are pulled; what keeps its ratio does, and no value leaves its limits', () => {
    for (const id of ['mesh', 'picture', 'ornament']) {
      const kind = formKindOf(id);
      fc.assert(
        fc.property(
          fc.constantFrom(0.02, 0.5, 1, 1.25, 40),
          fc.constantFrom(0.02, 0.5, 1, 2, 40),
          fc.boolean(),
          (sx, sy, linked) => {
            const values = { ...(kind.defaults as object), width: 40, height: 20, linked } as never;
            const was = kind.frame!(values);
            const now = kind.frame!(kind.pulled!(values, sx, sy));
            const free = !linked && id !== 'ornament';
            const by = sx === 1 ? sy : sx;
            expect(now.width / was.width).toBeCloseTo(free ? sx : by, 6);
            expect(now.height / was.height).toBeCloseTo(free ? sy : by, 6);
            // Whatever is pulled out of all proportion stays a value that a job can hold.
            const far = kind.pulled!(values, 1e6, 1e6);
            expect(kind.schema.safeParse(far).success).toBe(true);
          },
        ),
        { numRuns: 40 },
      );
    }
  });
});
