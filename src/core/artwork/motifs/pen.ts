import { makeArcLengthPath } from '../../geometry/arcLengthPath';
import { loopArea } from '../../geometry/region';
import { cubicByThirds } from '../../geometry/warp';
import { circlePath, flatten, reversePath, transformPath, type Path, type Segment } from '../../geometry/path';

/** Tools that motifs are drawn with. Units are a hundredth of the motif's box; y up. */
export type Corner = readonly [x: number, y: number];

const area = (p: Path): number => loopArea(flatten(p, 0.1));
/** Ink runs counter-clockwise, what is left out of it clockwise. */
export const ink = (p: Path): Path => (area(p) < 0 ? reversePath(p) : p);
export const hole = (p: Path): Path => (area(p) > 0 ? reversePath(p) : p);

/** A closed outline through corners; a corner of six numbers is a curve with its two handles first. */
export function outline(start: Corner, ...rest: readonly (readonly number[])[]): Path {
  const segments = rest.map((c): Segment =>
    c.length === 6
      ? { k: 'cubic', x1: c[0], y1: c[1], x2: c[2], y2: c[3], x: c[4], y: c[5] }
      : { k: 'line', x: c[0], y: c[1] },
  );
  const last = segments[segments.length - 1];
  if (Math.hypot(last.x - start[0], last.y - start[1]) > 1e-9) segments.push({ k: 'line', x: start[0], y: start[1] });
  return ink({ x: start[0], y: start[1], segments, closed: true });
}

export const disc = (x: number, y: number, r: number): Path => circlePath(x, y, r);

/** An ellipse, turned by degrees. */
export function oval(x: number, y: number, rx: number, ry: number, turn = 0): Path {
  const k = 0.5522847498;
  const p = outline(
    [rx, 0],
    [rx, ry * k, rx * k, ry, 0, ry],
    [-rx * k, ry, -rx, ry * k, -rx, 0],
    [-rx, -ry * k, -rx * k, -ry, 0, -ry],
    [rx * k, -ry, rx, -ry * k, rx, 0],
  );
  return turned([p], turn, x, y)[0];
}

/** A leaf from a point: length, width, direction in degrees, and how far its tip bends aside. */
export function leaf(x: number, y: number, length: number, width: number, direction: number, bend = 0): Path {
  const p = outline(
    [0, 0],
    [length * 0.25, width * 0.75, length * 0.7, width * 0.6 + bend * 0.6, length, bend],
    [length * 0.7, -width * 0.35 + bend * 0.6, length * 0.3, -width * 0.6, 0, 0],
  );
  return turned([p], direction, x, y)[0];
}

/** A stem of changing width along a curve: points as for `outline`, widths at its ends. */
export function stem(w0: number, w1: number, start: Corner, ...rest: readonly (readonly number[])[]): Path {
  const centre: Path = {
    x: start[0],
    y: start[1],
    segments: rest.map((c): Segment =>
      c.length === 6
        ? { k: 'cubic', x1: c[0], y1: c[1], x2: c[2], y2: c[3], x: c[4], y: c[5] }
        : { k: 'line', x: c[0], y: c[1] },
    ),
    closed: false,
  };
  const g = makeArcLengthPath(centre);
  const n = 4 * rest.length;
  const side = (f: number, sign: number) => {
    const p = g.at(f * g.length);
    const w = (sign * (w0 + (w1 - w0) * f)) / 2;
    return { x: p.x - p.ty * w, y: p.y + p.tx * w };
  };
  const segments: Segment[] = [];
  const run = (sign: number, from: number, to: number) => {
    for (let i = 0; i < n; i++) {
      const at = (q: number) => side(from + ((to - from) * (i + q)) / n, sign);
      const [a, b, c, d] = [at(0), at(1 / 3), at(2 / 3), at(1)];
      segments.push(cubicByThirds(a, b, c, d));
    }
  };
  const { x, y } = side(0, 1);
  run(1, 0, 1);
  const far = side(1, -1);
  segments.push({ k: 'line', x: far.x, y: far.y });
  run(-1, 1, 0);
  segments.push({ k: 'line', x, y });
  return ink({ x, y, segments, closed: true });
}

/** A bar of even width between points. */
export const bar = (width: number, ...points: readonly Corner[]): Path[] =>
  points.slice(1).map((p, i) => stem(width, width, points[i], p));

export const turned = (paths: readonly Path[], degrees: number, x = 0, y = 0): Path[] => {
  const t = (degrees * Math.PI) / 180;
  return paths.map((p) =>
    transformPath(p, { a: Math.cos(t), b: Math.sin(t), c: -Math.sin(t), d: Math.cos(t), e: x, f: y }),
  );
};
/** Mirrored left to right about an upright line. */
export const flipped = (paths: readonly Path[], x = 0): Path[] =>
  paths.map((p) => reversePath(transformPath(p, { a: -1, b: 0, c: 0, d: 1, e: 2 * x, f: 0 })));
export const both = (paths: readonly Path[], x = 0): Path[] => [...paths, ...flipped(paths, x)];
/** So many times round a point. */
export const around = (paths: readonly Path[], count: number, from = 0): Path[] =>
  Array.from({ length: count }, (_, i) => turned(paths, from + (360 * i) / count)).flat();
export const shifted = (paths: readonly Path[], x: number, y: number): Path[] => turned(paths, 0, x, y);
