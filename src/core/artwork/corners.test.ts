import fc from 'fast-check';
import { real } from '../testing/real';
import { crossingsOf } from '../geometry/crossings';
import { makeArcLengthPath } from '../geometry/arcLengthPath';
import { circlePath, flatten, type Path } from '../geometry/path';
import { workCorner } from './cornerWork';
import { nodeAt } from './nodes';
import { trimAt } from './trim';

const poly = (...p: [number, number][]): Path => ({
  x: p[0][0],
  y: p[0][1],
  segments: [...p.slice(1), p[0]].map(([x, y]) => ({ k: 'line', x, y })),
  closed: true,
});
const line = (...p: [number, number][]): Path => ({
  x: p[0][0],
  y: p[0][1],
  segments: p.slice(1).map(([x, y]) => ({ k: 'line', x, y })),
  closed: false,
});
const length = (p: Path) => makeArcLengthPath(p).length;
const square = poly([0, 0], [20, 0], [20, 20], [0, 20]);

describe('corners', () => {
  test.each([0, 1, 2, 3])('corner %i of a square is rounded by a quarter turn, or cut off', (k) => {
    const round = workCorner(square, k, 'round', 4)!;
    expect(length(round)).toBeCloseTo(80 - 8 + 2 * Math.PI, 6);
    const arcs = round.segments.filter((s) => s.k === 'arc');
    expect(arcs.length).toBe(1);
    const c = nodeAt(square, k);
    expect(Math.hypot(arcs[0].cx - c.x, arcs[0].cy - c.y)).toBeCloseTo(4 * Math.SQRT2, 6);
    expect(length(workCorner(square, k, 'chamfer', 4)!)).toBeCloseTo(80 - 8 + 4 * Math.SQRT2, 6);
  });
  test('any corner between straight sides: the arc touches both, and has the radius', () => {
    fc.assert(
      fc.property(real(0.3, 2.8), real(0, 6), real(0.2, 2), fc.boolean(), (angle, turn, r, flip) => {
        const way = (a: number): [number, number] => [20 * Math.cos(turn + a), 20 * Math.sin(turn + a)];
        const p = line(way(0), [0, 0], way(flip ? -angle : angle));
        const out = workCorner(p, 1, 'round', r);
        const tangent = r / Math.tan(angle / 2);
        if (tangent > 20) return expect(out).toBeNull();
        const arc = out!.segments.find((s) => s.k === 'arc')!;
        const start = nodeAt(out!, 1);
        expect(Math.hypot(start.x, start.y)).toBeCloseTo(tangent, 5);
        expect(Math.hypot(arc.x, arc.y)).toBeCloseTo(tangent, 5);
        expect(Math.hypot(arc.cx - arc.x, arc.cy - arc.y)).toBeCloseTo(r, 6);
        // Rounding a corner makes the way shorter, never longer.
        expect(length(out!)).toBeLessThan(40);
      }),
    );
  });
  test('a line into a circle: the arc touches the circle from inside its corner', () => {
    const p: Path = {
      x: -30,
      y: 0,
      segments: [
        { k: 'line', x: 0, y: 0 },
        { k: 'arc', x: 10, y: 10, cx: 0, cy: 10, ccw: true },
      ],
      closed: false,
    };
    // They run into each other smoothly: there is no corner.
    expect(workCorner(p, 1, 'round', 2)).toBeNull();
    const q: Path = {
      x: 0,
      y: -30,
      segments: [
        { k: 'line', x: 0, y: 0 },
        { k: 'arc', x: 10, y: 10, cx: 0, cy: 10, ccw: true },
      ],
      closed: false,
    };
    const out = workCorner(q, 1, 'round', 2)!;
    const arc = out.segments[1];
    if (arc.k !== 'arc') throw new Error('no arc');
    // The centre is 2 from the line x = 0 and, outside the circle of radius 10 about (0, 10), 12 from its middle.
    expect(arc.cx).toBeCloseTo(2, 6);
    expect(Math.hypot(arc.cx, arc.cy - 10)).toBeCloseTo(12, 6);
  });
  test('sides that are too short are left alone', () => {
    expect(workCorner(square, 1, 'round', 25)).toBeNull();
    expect(workCorner(square, 1, 'chamfer', 25)).toBeNull();
    expect(workCorner(line([0, 0], [10, 0]), 0, 'round', 1)).toBeNull();
  });
});

describe('crossings', () => {
  test('of a line and a circle lie on both', () => {
    fc.assert(
      fc.property(real(-9, 9), real(0, Math.PI), (d, a) => {
        const [ux, uy] = [Math.cos(a), Math.sin(a)];
        const l = line([-uy * d - 30 * ux, ux * d - 30 * uy], [-uy * d + 30 * ux, ux * d + 30 * uy]);
        const found = crossingsOf(l, [circlePath(0, 0, 10)]);
        expect(found.length).toBe(2);
        for (const c of found) {
          expect(Math.hypot(c.x, c.y)).toBeCloseTo(10, 6);
          expect(-c.x * uy + c.y * ux).toBeCloseTo(d, 6);
        }
      }),
    );
  });
  test('of a path with itself are told on both of its visits', () => {
    const found = crossingsOf(line([0, 0], [10, 0], [10, 10], [5, 10], [5, -10]), []);
    expect(found.map((c) => [c.segment, +c.x.toFixed(6), +c.y.toFixed(6)])).toEqual([
      [0, 5, 0],
      [3, 5, 0],
    ]);
  });
});

describe('trimming', () => {
  const posts = [line([5, -5], [5, 5]), line([15, -5], [15, 5])];
  test('takes the middle of a line out between two crossings, or an end', () => {
    const l = line([0, 0], [20, 0]);
    expect(trimAt(l, posts, 10, 1).map((p) => [p.x, p.segments[0].x])).toEqual(
      [
        [0, 5],
        [15, 20],
      ].map((v) => v.map((x) => expect.closeTo(x, 6))),
    );
    expect(trimAt(l, posts, 2, 0).map((p) => [p.x, p.segments[0].x])).toEqual([[expect.closeTo(5, 6), 20]]);
    expect(trimAt(l, [], 2, 0)).toEqual([]);
  });
  test('opens a loop between its crossings: what is left and what went make the whole', () => {
    const ring = circlePath(0, 0, 10);
    const cut = line([-20, 4], [20, 4]);
    const top = trimAt(ring, [cut], 0, 10);
    const bottom = trimAt(ring, [cut], 0, -10);
    expect(top.length).toBe(1);
    expect(length(top[0]) + length(bottom[0])).toBeCloseTo(20 * Math.PI, 5);
    for (let i = 0, f = flatten(top[0], 0.01); i < f.length; i += 2) expect(f[i + 1]).toBeLessThan(4 + 1e-6);
  });
});
