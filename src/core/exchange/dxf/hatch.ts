import { splinePath } from '../../geometry/bspline';
import { joinPaths } from '../../geometry/join';
import { circlePath, identity, transformPath, type Path, type Segment } from '../../geometry/path';
import { bulged } from './bulge';
import { append } from '../../units/append';
import type { Group } from './groups';

/** The boundaries of a HATCH, in its own plane, and whether it is filled with a pattern of lines. */
export interface Hatch {
  readonly paths: Path[];
  readonly patterned: boolean;
  /** Boundaries that do not close, and what was not understood. */
  readonly broken: number;
}

/** Ends of edges that lie no further apart than this meet, in the file's unit. */
const MEET = 1e-4;

/**
 * Reads the groups of a HATCH in their order (DXF reference, "HATCH" and "Boundary path data"): boundaries as polylines with
 * bulges, or as edges that are lines, arcs, elliptical arcs and splines. Angles of edges that run clockwise count clockwise.
 */
export function readHatch(groups: readonly Group[], tolerance: number): Hatch {
  let at = groups.findIndex((g) => g.code === 91);
  const patterned = Number(groups.find((g) => g.code === 70)?.value ?? 1) === 0;
  const count = at < 0 ? 0 : Number(groups[at++].value);
  const paths: Path[] = [];
  let broken = 0;
  /** The value of the next group if it has this code; undefined, and nothing is taken, if it has not. */
  const take = (code: number): number | undefined =>
    groups[at]?.code === code ? Number(groups[at++].value) : undefined;
  const point = (code: number): { x: number; y: number } => ({ x: take(code) ?? NaN, y: take(code + 10) ?? NaN });

  const polyline = (): void => {
    take(72);
    take(73);
    const n = take(93) ?? 0;
    const v = Array.from({ length: Math.min(n, groups.length) }, () => ({ ...point(10), bulge: take(42) ?? 0 }));
    const segments = v.flatMap((a, i): Segment[] => {
      const b = v[(i + 1) % v.length];
      return a.x === b.x && a.y === b.y ? [] : [bulged(a, b)];
    });
    // A boundary is closed, whatever its flag says.
    if (segments.length && finite(v)) paths.push({ x: v[0].x, y: v[0].y, segments, closed: true });
    else broken++;
  };

  const edge = (): Path | null => {
    switch (take(72)) {
      case 1: {
        const [a, b] = [point(10), point(11)];
        return finite([a, b]) ? { ...a, segments: [{ k: 'line', ...b }], closed: false } : null;
      }
      case 2: {
        const c = point(10);
        const r = take(40) ?? NaN;
        const [from, to, ccw] = [take(50) ?? 0, take(51) ?? 360, take(73) !== 0];
        return finite([c, { x: r, y: from + to }]) && r > 0
          ? transformPath(unitArc((from * Math.PI) / 180, (to * Math.PI) / 180, ccw), {
              ...identity,
              a: r,
              d: r,
              e: c.x,
              f: c.y,
            })
          : null;
      }
      case 3: {
        const [c, a] = [point(10), point(11)];
        const k = take(40) ?? NaN;
        const [from, to, ccw] = [take(50) ?? 0, take(51) ?? 360, take(73) !== 0];
        return finite([c, a, { x: k, y: from + to }]) && k > 0
          ? transformPath(unitArc((from * Math.PI) / 180, (to * Math.PI) / 180, ccw), {
              a: a.x,
              b: a.y,
              c: -a.y * k,
              d: a.x * k,
              e: c.x,
              f: c.y,
            })
          : null;
      }
      case 4: {
        const degree = take(94) ?? 3;
        take(73);
        take(74);
        const [knots, controls] = [take(95) ?? 0, take(96) ?? 0];
        const most = groups.length;
        const k = Array.from({ length: Math.min(knots, most) }, () => take(40) ?? NaN);
        const weights: number[] = [];
        const points = Array.from({ length: Math.min(controls, most) }, () => {
          const p = point(10);
          const w = take(42);
          if (w !== undefined) weights.push(w);
          return p;
        });
        // A 97 here counts fit points, which say nothing that the control points do not; where the boundary ends with it, it
        // counts source objects, and newer files have both.
        if (groups[at]?.code === 97 && [72, 97, 11, 12].includes(groups[at + 1]?.code)) at++;
        while ([11, 21, 12, 22, 13, 23].includes(groups[at]?.code)) at++;
        return splinePath(degree, k, points, weights.length === points.length ? weights : null, tolerance);
      }
      default:
        return null;
    }
  };

  for (let i = 0; i < count && at < groups.length; i++) {
    // What belongs to the boundary before (handles of source objects) ends with the next one's flag.
    while (at < groups.length && groups[at].code !== 92) at++;
    const flag = take(92) ?? 0;
    if (flag & 2) polyline();
    else {
      const n = take(93) ?? 0;
      const edges: (Path | null)[] = [];
      for (let k = 0; k < n && groups[at]?.code === 72; k++) edges.push(edge());
      const whole = joinPaths(
        edges.filter((e) => e !== null),
        MEET,
      );
      const closed = whole.filter((p) => p.closed);
      append(paths, closed);
      if (edges.includes(null) || closed.length !== whole.length || !edges.length) broken++;
    }
  }
  return { paths, patterned, broken: broken + Math.max(0, count - paths.length - broken) };
}

const finite = (points: readonly { x: number; y: number }[]): boolean =>
  points.every((p) => Number.isFinite(p.x + p.y));

/** An arc of the unit circle between two angles; the whole circle when they lie a turn apart. Clockwise ones count their angles clockwise. */
function unitArc(from: number, to: number, ccw: boolean): Path {
  if (Math.abs(to - from) >= 2 * Math.PI - 1e-9) return circlePath(0, 0, 1);
  const s = ccw ? 1 : -1;
  return {
    x: Math.cos(from),
    y: s * Math.sin(from),
    segments: [{ k: 'arc', x: Math.cos(to), y: s * Math.sin(to), cx: 0, cy: 0, ccw }],
    closed: false,
  };
}
