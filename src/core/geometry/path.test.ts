import fc from 'fast-check';
import { real } from '../testing/real';
import { readPathData } from '../exchange/svg/pathData';
import { distanceToLine } from '../testing/independent';
import { makeArcLengthPath } from './arcLengthPath';
import {
  compose,
  arcsToCubics,
  arcSweep,
  boundsOfPaths,
  circlePath,
  flatten,
  inverse,
  pathData,
  placement,
  reversePath,
  transformPath,
  type Affine,
  type Path,
  type Segment,
} from './path';
import { pointOn } from './segment';

const n = real(-80, 80);
const point = fc.record({ x: n, y: n });
/** Any path of lines, arcs and cubics; arcs are given by a centre and a sweep, so that they are round. */
const anyPath: fc.Arbitrary<Path> = fc
  .tuple(
    point,
    fc.array(
      fc.oneof(
        fc.record({ k: fc.constant('line' as const), to: point }),
        fc.record({ k: fc.constant('cubic' as const), a: point, b: point, to: point }),
        fc.record({
          k: fc.constant('arc' as const),
          centre: point,
          sweep: real(-6, 6).filter((s) => Math.abs(s) > 0.05),
        }),
      ),
      { minLength: 1, maxLength: 6 },
    ),
  )
  .map(([start, parts]) => {
    const segments: Segment[] = [];
    let at = start;
    for (const p of parts) {
      if (p.k === 'line') segments.push({ k: 'line', ...p.to });
      else if (p.k === 'cubic') segments.push({ k: 'cubic', x1: p.a.x, y1: p.a.y, x2: p.b.x, y2: p.b.y, ...p.to });
      else {
        const [dx, dy] = [at.x - p.centre.x, at.y - p.centre.y];
        if (Math.hypot(dx, dy) < 0.5) continue;
        const [c, s] = [Math.cos(p.sweep), Math.sin(p.sweep)];
        segments.push({
          k: 'arc',
          x: p.centre.x + dx * c - dy * s,
          y: p.centre.y + dx * s + dy * c,
          cx: p.centre.x,
          cy: p.centre.y,
          ccw: p.sweep > 0,
        });
      }
      const last = segments[segments.length - 1];
      if (last) at = { x: last.x, y: last.y };
    }
    return {
      ...start,
      segments: segments.length ? segments : [{ k: 'line', x: start.x + 1, y: start.y }],
      closed: false,
    };
  });
const map: fc.Arbitrary<Affine> = fc
  .tuple(n, n, real(-180, 180), real(0.2, 4), real(0.2, 4), fc.boolean())
  .map(([x, y, a, sx, sy, flip]) => placement(x, y, a, flip ? -sx : sx, sy));
/** Places along a path: each segment at some shares of its parameter. */
function places(p: Path, steps = 40): { x: number; y: number }[] {
  let at = { x: p.x, y: p.y };
  return p.segments.flatMap((s) => {
    const from = at;
    at = { x: s.x, y: s.y };
    return Array.from({ length: steps + 1 }, (_, i) => pointOn(from, s, i / steps));
  });
}
const apply = (m: Affine, q: { x: number; y: number }) => ({
  x: m.a * q.x + m.c * q.y + m.e,
  y: m.b * q.x + m.d * q.y + m.f,
});
const toPolyline = (l: Float64Array, q: { x: number; y: number }): number => distanceToLine(l, q.x, q.y);

describe('paths', () => {
  it('flattened, stay within the tolerance of themselves, and keep the ends of segments', () => {
    fc.assert(
      fc.property(anyPath, fc.constantFrom(0.5, 0.02, 0.002), (p, tolerance) => {
        const l = flatten(p, tolerance);
        for (const q of places(p)) expect(toPolyline(l, q)).toBeLessThan(tolerance * 1.001 + 1e-9);
        const points = new Set(Array.from({ length: l.length / 2 }, (_, i) => `${l[2 * i]} ${l[2 * i + 1]}`));
        for (const s of p.segments) expect(points.has(`${s.x} ${s.y}`)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
  it('go through any map point by point, arcs too, and come back by its inverse', () => {
    fc.assert(
      fc.property(anyPath, map, (p, m) => {
        const moved = transformPath(p, m);
        const l = flatten(moved, 0.002);
        for (const q of places(p, 10)) expect(toPolyline(l, apply(m, q))).toBeLessThan(0.01);
        const home = flatten(transformPath(moved, inverse(m)), 0.002);
        for (const q of places(p, 6)) expect(toPolyline(home, q)).toBeLessThan(0.02);
      }),
      { numRuns: 60 },
    );
  });
  it('keep their arcs under turns, mirrors and even scales', () => {
    fc.assert(
      fc.property(n, n, n, real(0.1, 5), fc.boolean(), (x, y, a, k, flip) => {
        const p = transformPath(circlePath(3, 4, 5), placement(x, y, a, flip ? -k : k, k));
        expect(p.segments.every((s) => s.k === 'arc')).toBe(true);
        for (const s of p.segments) if (s.k === 'arc') expect(Math.hypot(s.x - s.cx, s.y - s.cy)).toBeCloseTo(5 * k, 9);
      }),
    );
  });
  it('run the other way twice are themselves', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        expect(reversePath(reversePath(p))).toEqual(p);
        expect(makeArcLengthPath(reversePath(p)).length).toBeCloseTo(makeArcLengthPath(p).length, 6);
      }),
    );
  });
  it('have the box of all their places, and no larger one', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        const b = boundsOfPaths([p])!;
        const all = places(p, 200);
        const [xs, ys] = [all.map((q) => q.x), all.map((q) => q.y)];
        for (const [inner, outer] of [
          [Math.min(...xs), b.x0],
          [Math.min(...ys), b.y0],
          [-Math.max(...xs), -b.x1],
          [-Math.max(...ys), -b.y1],
        ]) {
          expect(inner).toBeGreaterThanOrEqual(outer - 1e-9);
          // The samples come as near to the box as their steps let them.
          expect(inner - outer).toBeLessThan(0.05);
        }
      }),
    );
  });
  it('have the box of an arc from any quarter, either way round, and at the quarters themselves', () => {
    for (let from = -180; from <= 180; from += 15)
      for (let sweep = -345; sweep <= 345; sweep += 15) {
        if (sweep === 0) continue;
        const at = (d: number) => ({
          x: 3 + 2 * Math.cos((d * Math.PI) / 180),
          y: -1 + 2 * Math.sin((d * Math.PI) / 180),
        });
        const b = boundsOfPaths([
          { ...at(from), closed: false, segments: [{ k: 'arc', ...at(from + sweep), cx: 3, cy: -1, ccw: sweep > 0 }] },
        ])!;
        const all = Array.from({ length: 346 }, (_, i) => at(from + (sweep * i) / 345));
        expect([b.x0, b.y0, b.x1, b.y1].map((v) => +v.toFixed(3))).toEqual(
          [
            Math.min(...all.map((p) => p.x)),
            Math.min(...all.map((p) => p.y)),
            Math.max(...all.map((p) => p.x)),
            Math.max(...all.map((p) => p.y)),
          ].map((v) => +v.toFixed(3)),
        );
      }
  });
  it('are within 2e-5 of the radius as cubics', () => {
    fc.assert(
      fc.property(
        real(1, 100),
        real(-6.2, 6.2).filter((s) => Math.abs(s) > 0.01),
        (r, sweep) => {
          const arc: Path = {
            x: r,
            y: 0,
            closed: false,
            segments: [{ k: 'arc', x: r * Math.cos(sweep), y: r * Math.sin(sweep), cx: 0, cy: 0, ccw: sweep > 0 }],
          };
          for (const q of places(arcsToCubics(arc))) expect(Math.abs(Math.hypot(q.x, q.y) - r)).toBeLessThan(2e-5 * r);
          expect(arcSweep(r, 0, r * Math.cos(sweep), r * Math.sin(sweep), 0, 0, sweep > 0)).toBeCloseTo(sweep, 9);
        },
      ),
    );
  });
  it('written as path data are read back where they were', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        const { paths, error } = readPathData(pathData([p], 6));
        expect(error).toBe(false);
        const l = flatten(paths[0], 0.001);
        for (const q of places(p, 8)) expect(toPolyline(l, q)).toBeLessThan(0.01);
      }),
    );
  });
});

describe('maps of the plane', () => {
  it('compose as they are applied, and an inverse undoes', () => {
    fc.assert(
      fc.property(map, map, point, (a, b, q) => {
        const once = apply(compose(a, b), q);
        const twice = apply(a, apply(b, q));
        expect(once.x).toBeCloseTo(twice.x, 7);
        expect(once.y).toBeCloseTo(twice.y, 7);
        const back = apply(inverse(a), apply(a, q));
        expect(Math.hypot(back.x - q.x, back.y - q.y)).toBeLessThan(1e-8);
      }),
    );
  });
  it('turn by quarters exactly', () => {
    for (const a of [90, -90, 180, 270]) {
      const m = placement(0, 0, a);
      for (const v of [m.a, m.b, m.c, m.d]) expect(Math.abs(v) === 0 || Math.abs(v) === 1).toBe(true);
    }
  });
});
