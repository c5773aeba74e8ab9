import { bruteInside } from '../../testing/independent';
import { formContext } from '../../testing/forms';
import { starLoop } from '../../testing/shapes';
import { gridOf } from '../field';
import type { Line } from '../form';
import { formKindOf } from '../registry';

const cell = 0.25;
const grid = gridOf(60, 50, cell);
const kind = formKindOf('swept');
const made = (values: object, lines: Line[] = [], profile: Line[] = []) =>
  kind.evaluate({ ...(kind.defaults as object), ...values }, formContext(grid, { lines, profile }));
const each = (z: Float32Array, f: (x: number, y: number, h: number) => void) =>
  z.forEach((h, i) => f((i % grid.cols) * cell, Math.floor(i / grid.cols) * cell, h));
/** How far heights are at most from those that are meant, mm; where one of both is empty alone, infinitely. Null: not looked at. */
function worst(z: Float32Array, meant: (x: number, y: number) => number | null): number {
  let most = 0;
  let seen = 0;
  each(z, (x, y, h) => {
    const m = meant(x, y);
    if (m === null) return;
    seen++;
    if (m === m || h === h) most = Math.max(most, m === m && h === h ? Math.abs(h - m) : Infinity);
  });
  // A comparison of nothing with nothing holds always.
  return seen > 1000 ? most : Infinity;
}
const open = (...p: number[]): Line => ({ points: Float64Array.from(p), closed: false });
const circle = (x: number, y: number, r: number, n = 4000): Line => ({
  points: Float64Array.from({ length: 2 * n }, (_, i) => {
    const a = ((i >> 1) / n) * 2 * Math.PI;
    return i & 1 ? y + r * Math.sin(a) : x + r * Math.cos(a);
  }),
  closed: true,
});
describe('swept straight', () => {
  it('with a bow are part of a cylinder, turned about their middle, with open ends', () => {
    const [width, height] = [20, 3];
    const r = (100 + height * height) / (2 * height);
    for (const angle of [0, 90, 30]) {
      const { z } = made({ width, height, length: 30, x: 30, y: 25, angle });
      const a = (angle * Math.PI) / 180;
      const off = worst(z, (x, y) => {
        const s = (x - 30) * Math.cos(a) + (y - 25) * Math.sin(a);
        const d = (y - 25) * Math.cos(a) - (x - 30) * Math.sin(a);
        if (Math.abs(Math.abs(s) - 15) < 1e-6 || Math.abs(Math.abs(d) - 10) < 1e-6) return null;
        return Math.abs(s) > 15 || Math.abs(d) > 10 ? NaN : Math.sqrt(r * r - d * d) - r + height;
      });
      expect(off).toBeLessThan(0.002);
    }
  });
  it('have the profile that is chosen; one that is higher than half as wide is drawn out', () => {
    const at = (profile: string, d: number, more: object = {}) => {
      const { z } = made({ profile, width: 20, height: 4, length: 30, x: 30, y: 25, ...more });
      return z[Math.round((25 + d) / cell) * grid.cols + Math.round(30 / cell)];
    };
    expect(at('arch', 6)).toBeCloseTo(4 * 0.8, 5);
    expect(at('ridge', 5)).toBeCloseTo(2, 5);
    expect(at('wave', 5)).toBeCloseTo(2, 5);
    expect(at('hollow', 0)).toBeCloseTo(0, 5);
    expect(at('hollow', 10)).toBeCloseTo(4, 5);
    expect(at('bow', 6, { height: 10 })).toBeCloseTo(8, 5);
    expect(at('bow', 6, { height: 30 })).toBeCloseTo(24, 5);
    expect(at('bow', 6, { height: 0 })).toBe(0);
  });
  it('run out at their ends', () => {
    const { z } = made({ profile: 'wave', width: 20, height: 4, length: 30, taper: 6, x: 30, y: 25 });
    const along = (s: number) => z[Math.round(25 / cell) * grid.cols + Math.round((30 + s) / cell)];
    expect(along(0)).toBe(4);
    expect(along(9)).toBe(4);
    expect(along(12)).toBeCloseTo(4 * Math.SQRT1_2, 5);
    expect(along(-15)).toBeCloseTo(0, 5);
    expect(along(16)).toBeNaN();
  });
});

describe('swept along a line', () => {
  it('round a circle are a torus', () => {
    const { z } = made({ way: 'rail', profile: 'arch', width: 10, height: 5 }, [circle(30, 25, 15)]);
    const off = worst(z, (x, y) => {
      const d = Math.abs(Math.hypot(x - 30, y - 25) - 15);
      // An arch stands upright at its side.
      return Math.abs(d - 5) < 0.05 ? null : d > 5 ? NaN : Math.sqrt(25 - d * d);
    });
    expect(off).toBeLessThan(0.002);
  });
  it('have exact mitres, end square, and run out along the line', () => {
    const rail = open(10, 10, 40, 10, 40, 40);
    const { z } = made({ way: 'rail', profile: 'ridge', width: 8, height: 4 }, [rail]);
    const off = worst(z, (x, y) => {
      const level = Math.hypot(Math.max(0, x - 40), y - 10);
      const upright = Math.hypot(x - 40, Math.max(0, 10 - y));
      const d = Math.min(x >= 10 ? level : Infinity, y <= 40 ? upright : Infinity);
      if (Math.abs(d - 4) < 1e-6 || Math.abs(x - 10) < 1e-6 || Math.abs(y - 40) < 1e-6) return null;
      return d > 4 ? NaN : 4 - d;
    });
    expect(off).toBeLessThan(0.002);
    const out = made({ way: 'rail', profile: 'ridge', width: 8, height: 4, taper: 12 }, [rail]).z;
    const at = (x: number, y: number) => out[Math.round(y / cell) * grid.cols + Math.round(x / cell)];
    expect(at(14, 10)).toBeCloseTo(4 * Math.sin(Math.PI / 6), 4);
    expect(at(40, 10)).toBe(4);
    expect(at(40, 36)).toBeCloseTo(4 * Math.sin(Math.PI / 6), 4);
  });
  it('that cross are as high as the higher, and an end leaves no hole in another', () => {
    const cross = [open(10, 25, 30, 25), open(29, 5, 29, 45)];
    const { z } = made({ way: 'rail', profile: 'ridge', width: 8, height: 4 }, cross);
    const off = worst(z, (x, y) => {
      const level = x >= 10 && x <= 30 ? 4 - Math.abs(y - 25) : -1;
      const upright = y >= 5 && y <= 45 ? 4 - Math.abs(x - 29) : -1;
      if ([10, 30].includes(x) || [5, 45].includes(y) || Math.min(Math.abs(level), Math.abs(upright)) < 1e-6)
        return null;
      return Math.max(level, upright) < 0 ? NaN : Math.max(level, upright);
    });
    expect(off).toBeLessThan(0.002);
  });
  it('reach as far as they are wide, and nothing closes a line that is open', () => {
    // Three sides of a square; the fourth would run along x = 0.
    const { z } = made({ way: 'rail', profile: 'ridge', width: 120, height: 60 }, [
      open(0, 0, 100, 0, 100, 100, 0, 100),
    ]);
    expect(worst(z, (x, y) => 60 - Math.min(y, 100 - x, 100 - y))).toBeLessThan(0.002);
  });
  it('have the left of a drawn profile on their left, round sharp corners too', () => {
    // From 0 on the left to 6 on the right, drawn somewhere else.
    const ramp = [open(100, 3, 112, 9)];
    const star: Line = { points: starLoop(5, 20, 9, 30, 25), closed: true };
    const { z } = made({ way: 'rail', profile: 'drawn', width: 6 }, [star], ramp);
    let [inner, outer, wrong] = [0, 0, 0];
    each(z, (x, y, h) => {
      if (h !== h || Math.abs(h - 3) < 1e-4) return;
      const inside = bruteInside([star.points], x, y);
      // It runs counter-clockwise: its inside lies left.
      if (h < 3 !== inside) wrong++;
      if (inside) inner++;
      else outer++;
    });
    expect(Math.min(inner, outer)).toBeGreaterThan(1000);
    expect(wrong).toBe(0);
  });
});

describe('swept between two lines', () => {
  it('that are parallel are straight, whichever way they were drawn', () => {
    const meant = made({ profile: 'bow', width: 16, height: 3, length: 40, x: 30, y: 20 }).z;
    for (const lines of [
      [open(10, 12, 50, 12), open(10, 28, 50, 28)],
      [open(10, 12, 50, 12), open(50, 28, 10, 28)],
      [open(50, 28, 10, 28), open(10, 12, 50, 12)],
    ]) {
      const { z } = made({ way: 'between', profile: 'bow', height: 3 }, lines);
      const off = worst(z, (x, y) => {
        if (x > 10 && x < 50 && y > 12 && y < 28) return meant[Math.round(y / cell) * grid.cols + Math.round(x / cell)];
        return x < 9.9 || x > 50.1 || y < 11.9 || y > 28.1 ? NaN : null;
      });
      expect(off).toBeLessThan(1e-4);
    }
  });
  it('that are circles are a ring; where they part it may swell', () => {
    const { z } = made({ way: 'between', profile: 'ridge', height: 4 }, [circle(30, 25, 8), circle(30, 25, 20)]);
    const off = worst(z, (x, y) => {
      const q = Math.hypot(x - 30, y - 25);
      if (Math.min(Math.abs(q - 8), Math.abs(q - 20)) < 0.01) return null;
      return q < 8 || q > 20 ? NaN : 4 * (1 - Math.abs((2 * (q - 8)) / 12 - 1));
    });
    expect(off).toBeLessThan(0.002);
    const wedge = [open(5, 25, 55, 30), open(5, 25, 55, 20)];
    const swelling = made({ way: 'between', profile: 'ridge', height: 4, swells: true }, wedge).z;
    const middle = (x: number) => swelling[Math.round(25 / cell) * grid.cols + Math.round(x / cell)];
    expect(middle(30) / middle(54.75)).toBeCloseTo(25 / 49.75, 2);
  });
  it('of which there are not two alike is said', () => {
    const line = open(10, 12, 50, 12);
    expect(made({ way: 'between' }, [line]).remark).toMatch(/1 is picked/);
    expect(made({ way: 'between' }).remark).toMatch(/none are picked/);
    expect(made({ way: 'between' }, [line, circle(30, 25, 8)]).remark).toMatch(/one is open and one closed/);
    expect(made({ way: 'rail' }).remark).toMatch(/No line is picked/);
    expect(made({ profile: 'drawn' }).remark).toMatch(/No line is picked for its profile/);
    expect(made({ profile: 'drawn' }, [], [open(3, 0, 3, 9)]).remark).toMatch(/from left to right/);
  });
});

describe('turned about an axis', () => {
  it('with a bow of half a circle are a ball, with a level line a rod, with a drawn arc what was drawn', () => {
    const ball = made({ way: 'turned', profile: 'bow', width: 30, length: 30, x: 30, y: 25, angle: 45 }).z;
    const arc = Float64Array.from({ length: 4002 }, (_, i) => {
      const a = Math.PI * (1 - (i >> 1) / 2000);
      return i & 1 ? 15 * Math.sin(a) : 200 + 15 * Math.cos(a);
    });
    const drawn = made(
      { way: 'turned', profile: 'drawn', length: 30, x: 30, y: 25 },
      [],
      [{ points: arc, closed: false }],
    ).z;
    for (const z of [ball, drawn]) {
      const off = worst(z, (x, y) => {
        const q = Math.hypot(x - 30, y - 25);
        return Math.abs(q - 15) < 0.1 ? null : q > 15 ? NaN : Math.sqrt(225 - q * q);
      });
      expect(off).toBeLessThan(0.002);
    }
    // As high as is wanted, and as long.
    const rod = made(
      { way: 'turned', profile: 'drawn', drawnHeight: 5, length: 40, x: 30, y: 25 },
      [],
      [open(0, 7, 3, 8, 3, 7)],
    ).z;
    const at = (x: number, y: number) => rod[Math.round(y / cell) * grid.cols + Math.round(x / cell)];
    expect(at(30, 25)).toBeCloseTo(2.5, 3);
    expect(at(40, 25)).toBeCloseTo(3.75, 3);
    expect(at(40, 28)).toBeCloseTo(Math.sqrt(3.75 ** 2 - 9), 3);
  });
});
