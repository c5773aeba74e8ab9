import fc from 'fast-check';
import { real } from '@/core/testing/real';
import { evenRows, fitted, niceStep, toScreen, toWorld, zoomed } from './viewport';

const view = fc.record({
  k: real(0.05, 500),
  ox: real(-2000, 2000),
  oy: real(-2000, 2000),
});
const n = real(-3000, 3000);

describe('the plan\u2019s window', () => {
  it('maps to the screen and back', () => {
    fc.assert(
      fc.property(view, n, n, (v, x, y) => {
        const w = toWorld(v, x, y);
        const s = toScreen(v, w.x, w.y);
        expect(Math.hypot(s.x - x, s.y - y)).toBeLessThan(1e-6);
      }),
    );
  });
  it('zooms about the place under the pointer, within bounds', () => {
    fc.assert(
      fc.property(view, n, n, real(0.05, 20), (v, x, y, factor) => {
        const before = toWorld(v, x, y);
        const z = zoomed(v, x, y, factor);
        const after = toWorld(z, x, y);
        expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeLessThan(
          1e-6 * (1 + Math.hypot(before.x, before.y)),
        );
        expect(z.k).toBeGreaterThanOrEqual(0.02);
        expect(z.k).toBeLessThanOrEqual(2000);
      }),
    );
  });
  it('fits a blank with room around it, upright and in the middle', () => {
    fc.assert(
      fc.property(
        real(5, 3000),
        real(5, 3000),
        fc.integer({ min: 300, max: 1600 }),
        fc.integer({ min: 200, max: 1000 }),
        (width, height, w, h) => {
          const v = fitted(width, height, w, h, 22);
          const [a, b] = [toScreen(v, 0, 0), toScreen(v, width, height)];
          expect(a.x).toBeGreaterThanOrEqual(22 + 25);
          expect(b.x).toBeLessThanOrEqual(w - 25);
          expect(b.y).toBeGreaterThanOrEqual(22 + 25);
          expect(a.y).toBeLessThanOrEqual(h - 25);
          expect(a.x - 22).toBeCloseTo(w - b.x, 6);
        },
      ),
    );
  });
  it('rules itself in steps of 1, 2 or 5 that are wide enough and no wider than need be', () => {
    fc.assert(
      fc.property(real(0.02, 2000), fc.constantFrom(1, 25.4), (k, unit) => {
        const s = niceStep(k, 18, unit) / unit;
        const lead = s / 10 ** Math.floor(Math.log10(s) + 1e-9);
        expect([1, 2, 5].some((m) => Math.abs(lead - m) < 1e-6)).toBe(true);
        expect(s * unit * k).toBeGreaterThanOrEqual(18 - 1e-6);
        expect(s * unit * k).toBeLessThan(18 * 2.5 + 1e-6);
      }),
    );
  });
  it('stands things in columns that differ by one at most, none too long', () => {
    for (let count = 1; count < 40; count++)
      for (let most = 1; most < 45; most++) {
        const rows = evenRows(count, most);
        const columns = Math.ceil(count / rows);
        expect(rows).toBeLessThanOrEqual(most);
        // As few columns as can be, and no shorter ones would do for them.
        expect(columns).toBe(Math.ceil(count / most));
        expect((rows - 1) * columns).toBeLessThan(count);
      }
    expect(evenRows(8, 7)).toBe(4);
    expect(evenRows(8, 0)).toBe(1);
  });
});
