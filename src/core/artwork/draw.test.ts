import fc from 'fast-check';
import { real } from '../testing/real';
import {
  arcThrough,
  back,
  begin,
  finish,
  move,
  onRadius,
  polar,
  press,
  preview,
  release,
  steady,
  type Drawing,
  type DrawTool,
} from './draw';
import { arcSweep, type Path } from '../geometry/path';

const click = (d: Drawing, x: number, y: number) => {
  const r = press(move(d, x, y), x, y, 1);
  return { ...r, drawing: release(r.drawing) };
};
const all = (tool: DrawTool, points: readonly (readonly [number, number])[]) => {
  let d = begin(tool);
  let done: Path | null = null;
  for (const [x, y] of points) {
    const r = click(d, x, y);
    d = r.drawing;
    done = r.done ?? done;
  }
  return { d, done };
};

describe('drawing', () => {
  it('lines: press by press, ended by Enter', () => {
    const { d, done } = all('line', [
      [0, 0],
      [10, 0],
      [10, 5],
    ]);
    expect(done).toBeNull();
    expect(finish(d)).toEqual({
      x: 0,
      y: 0,
      closed: false,
      segments: [
        { k: 'line', x: 10, y: 0 },
        { k: 'line', x: 10, y: 5 },
      ],
    });
    expect(finish(begin('line'))).toBeNull();
  });
  it('is closed by pressing its first point, and begins anew', () => {
    const { d, done } = all('line', [
      [0, 0],
      [10, 0],
      [10, 5],
      [0.3, 0.4],
    ]);
    expect(done!.closed).toBe(true);
    expect(done!.segments).toHaveLength(3);
    expect(d.points).toHaveLength(0);
  });
  it('the same place pressed twice is one point', () => {
    const { d } = all('line', [
      [0, 0],
      [10, 0],
      [10, 0],
    ]);
    expect(d.points).toHaveLength(2);
  });
  it('takes points back one by one', () => {
    let d: Drawing | null = all('line', [
      [0, 0],
      [10, 0],
      [10, 5],
    ]).d;
    for (const left of [2, 1, 0]) {
      d = back(d!);
      expect(d!.points).toHaveLength(left);
    }
    expect(back(d!)).toBeNull();
  });
  it('shows beforehand what the next press makes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), {
          minLength: 1,
          maxLength: 5,
        }),
        fc.integer({ min: 60, max: 90 }),
        (points, x) => {
          const { d } = all('line', points);
          fc.pre(d.points.length > 0);
          const seen = preview(move(d, x, 77));
          const made = finish(click(d, x, 77).drawing);
          expect(seen).toEqual(made);
        },
      ),
    );
  });
  it('a curve takes a handle from the drag, the same on both sides of its node', () => {
    let d = click(begin('curve'), 0, 0).drawing;
    d = press(d, 20, 0, 1).drawing;
    d = release(move(d, 25, 8));
    d = click(d, 40, 0).drawing;
    const p = finish(d)!;
    expect(p.segments[0]).toMatchObject({ k: 'cubic', x2: 15, y2: -8, x: 20, y: 0 });
    expect(p.segments[1]).toMatchObject({ k: 'cubic', x1: 25, y1: 8, x: 40, y: 0 });
  });
  it('an arc passes through its three points, whichever they are', () => {
    const n = real(-40, 40);
    fc.assert(
      fc.property(n, n, n, n, n, n, (ax, ay, bx, by, mx, my) => {
        const twice = (bx - ax) * (my - ay) - (by - ay) * (mx - ax);
        fc.pre(Math.abs(twice) > 1);
        const p = arcThrough({ x: ax, y: ay }, { x: bx, y: by }, { x: mx, y: my });
        const s = p.segments[0];
        if (s.k !== 'arc') throw new Error('no arc');
        const r = Math.hypot(ax - s.cx, ay - s.cy);
        expect(Math.hypot(bx - s.cx, by - s.cy) / r).toBeCloseTo(1, 6);
        expect(Math.hypot(mx - s.cx, my - s.cy) / r).toBeCloseTo(1, 6);
        // The middle point lies on the way, not on the rest of the circle.
        const whole = arcSweep(ax, ay, bx, by, s.cx, s.cy, s.ccw);
        const part = arcSweep(ax, ay, mx, my, s.cx, s.cy, s.ccw);
        expect(Math.abs(part)).toBeLessThan(Math.abs(whole) + 1e-6);
      }),
    );
  });
  it('an arc is done with its third press', () => {
    const { d, done } = all('arc', [
      [0, 0],
      [10, 0],
      [5, 5],
    ]);
    expect(done!.segments[0]).toMatchObject({ k: 'arc', x: 10, y: 0, cx: 5, cy: 0 });
    expect(d.points).toHaveLength(0);
    expect(arcThrough({ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 5, y: 0 }).segments[0].k).toBe('line');
  });
  it('takes a typed radius, on the side where the pointer is', () => {
    const { d } = all('arc', [
      [0, 0],
      [10, 0],
    ]);
    fc.assert(
      fc.property(real(5, 200), fc.constantFrom(7, -7), (r, y) => {
        const third = onRadius(move(d, 3, y), r)!;
        expect(Math.sign(third.y)).toBe(Math.sign(y));
        const s = arcThrough({ x: 0, y: 0 }, { x: 10, y: 0 }, third).segments[0];
        if (s.k !== 'arc') return expect(r).toBeGreaterThan(1e6);
        expect(Math.hypot(s.cx, s.cy) / r).toBeCloseTo(1, 5);
        expect(Math.abs(arcSweep(0, 0, 10, 0, s.cx, s.cy, s.ccw))).toBeLessThanOrEqual(Math.PI + 1e-6);
      }),
    );
    expect(onRadius(d, 4.9)).toBeNull();
    expect(onRadius(begin('arc'), 50)).toBeNull();
  });
  it('goes by numbers, and is held to steps of fifteen degrees', () => {
    const { d } = all('line', [[10, 10]]);
    expect(polar(d, 20, 30)!.x).toBeCloseTo(10 + 20 * Math.cos(Math.PI / 6), 9);
    expect(polar(begin('line'), 20, 30)).toBeNull();
    fc.assert(
      fc.property(real(-90, 90), real(-90, 90), (x, y) => {
        const s = steady(d, x, y);
        expect(Math.hypot(s.x - 10, s.y - 10)).toBeCloseTo(Math.hypot(x - 10, y - 10), 8);
        const steps = Math.atan2(s.y - 10, s.x - 10) / (Math.PI / 12);
        if (Math.hypot(x - 10, y - 10) > 1e-6) expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-6);
      }),
    );
  });
});
