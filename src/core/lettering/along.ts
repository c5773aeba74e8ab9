import { makeArcLengthPath, type Guide } from '../geometry/arcLengthPath';
import { boundsOfPaths, reversePath, transformPath, type Path } from '../geometry/path';
import { warpPath } from '../geometry/warp';
import type { SetLine } from './layout';

/** A baseline that is not straight. */
export interface Along {
  /** The curve of the first baseline, about the lettering's own origin. mm. */
  readonly curve: Path | Circle;
  /** Letters stand on the left of the curve as it runs, or on its right, reading backwards along it. */
  readonly side: 'left' | 'right';
  /** Natural spaces, or letters spread from one end to the other. */
  readonly spacing: 'natural' | 'fitted';
  /** Letters turned with the curve, left upright, or bent themselves. */
  readonly stand: 'turned' | 'upright' | 'bent';
  /** Where the setting is moved to along the curve, mm. */
  readonly shift: number;
  /** How far the letters stand off the curve, mm. */
  readonly off: number;
}

/** A circle about the origin; `at` is where the middle of the line lies, degrees counter-clockwise from the right. */
export interface Circle {
  readonly radius: number;
  readonly at: number;
  /** Over how many degrees fitted letters are spread. */
  readonly sweep: number;
  /** Letters stand outwards and read clockwise, or stand inwards and read counter-clockwise. */
  readonly stand: 'outwards' | 'inwards';
}

const isCircle = (c: Path | Circle): c is Circle => 'radius' in c;

/** The part of a circle that a line runs along, as an arc in reading direction. Its middle is at `at`. */
function arcOf(c: Circle, radius: number, fitted: boolean): Path {
  const half = ((fitted ? Math.min(360, c.sweep) : 360) / 2) * (Math.PI / 180);
  const mid = (c.at * Math.PI) / 180;
  const out = c.stand === 'outwards';
  const point = (a: number) => ({ x: radius * Math.cos(a), y: radius * Math.sin(a) });
  const start = point(mid + (out ? half : -half));
  const middle = point(mid);
  const end = point(mid + (out ? -half : half));
  return {
    ...start,
    segments: [
      { k: 'arc', ...middle, cx: 0, cy: 0, ccw: !out },
      { k: 'arc', ...end, cx: 0, cy: 0, ccw: !out },
    ],
    closed: false,
  };
}

/**
 * Sets lines along a curve. Each letter is placed by the middle of its foot. Further lines lie below the first as it is
 * read; on a circle each has its own radius, so that its letters keep their spaces.
 */
export function setAlong(
  lines: readonly SetLine[],
  along: Along,
  set: { sx: number; sy: number; capHeight: number; leading: number; align: 'left' | 'centre' | 'right' },
): { paths: Path[]; width: number; height: number } {
  const paths: Path[] = [];
  const { curve } = along;
  lines.forEach((line, i) => {
    const below = i * set.leading * set.capHeight - along.off;
    let guide: Guide;
    let drop = below;
    if (isCircle(curve)) {
      const radius = curve.radius + (curve.stand === 'outwards' ? -below : below);
      if (!(radius > 1e-6)) return;
      guide = makeArcLengthPath(arcOf(curve, radius, along.spacing === 'fitted'));
      drop = 0;
    } else guide = makeArcLengthPath(along.side === 'left' ? curve : reversePath(curve));
    if (!(guide.length > 0)) return;
    const n = line.glyphs.length;
    const gaps = guide.closed ? n : n - 1;
    const spread = along.spacing === 'fitted' && gaps > 0 ? (guide.length - line.width) / gaps : 0;
    const round = guide.closed || isCircle(curve);
    let from: number;
    if (along.spacing === 'fitted') from = 0;
    else if (isCircle(curve))
      from = guide.length / 2 - (set.align === 'left' ? 0 : set.align === 'right' ? line.width : line.width / 2);
    else
      from =
        set.align === 'left' || round
          ? -(round && set.align !== 'left' ? (set.align === 'right' ? line.width : line.width / 2) : 0)
          : set.align === 'right'
            ? guide.length - line.width
            : (guide.length - line.width) / 2;
    from += along.shift;
    line.glyphs.forEach((g, k) => {
      const begin = from + g.x + k * spread;
      const foot = begin + g.width / 2;
      if (along.stand === 'bent') {
        const bend = (x: number, y: number) => {
          const p = guide.at(begin + x * set.sx);
          const up = y * set.sy - drop;
          return { x: p.x - p.ty * up, y: p.y + p.tx * up };
        };
        for (const p of g.paths) paths.push(warpPath(p, bend, set.capHeight / 6 / set.sy));
        return;
      }
      const p = guide.at(foot);
      const x = p.x + p.ty * drop;
      const y = p.y - p.tx * drop;
      const m =
        along.stand === 'upright'
          ? { a: 1, b: 0, c: 0, d: 1, e: x, f: y }
          : { a: p.tx, b: p.ty, c: -p.ty, d: p.tx, e: x, f: y };
      for (const q of g.paths)
        paths.push(transformPath(transformPath(q, { a: set.sx, b: 0, c: 0, d: set.sy, e: -g.width / 2, f: 0 }), m));
    });
  });
  const box = boundsOfPaths(paths);
  const reach = box ? Math.max(-box.x0, box.x1, -box.y0, box.y1) : isCircle(curve) ? curve.radius : set.capHeight;
  return { paths, width: 2 * reach, height: 2 * reach };
}
