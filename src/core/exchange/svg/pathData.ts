import svgpath from 'svgpath';
import { transformPath, type Path, type Segment } from '../../geometry/path';

type Step = [string, ...number[]];

/**
 * Path data (SVG 2, chapter 9) to paths, y as in the file. Arcs of circles stay arcs; those of ellipses become
 * cubics. Of data that is broken in the middle, what comes before is kept, as the standard says; `error`
 * then tells so.
 */
export function readPathData(d: string): { paths: Path[]; error: boolean } {
  const parsed = svgpath(d).abs().unshort() as unknown as { segments: Step[]; err: string };
  const paths: Path[] = [];
  let path: Path | null = null;
  let x = 0;
  let y = 0;
  let startX = 0;
  let startY = 0;
  let error = !!parsed.err;
  const push = (...s: Segment[]) => {
    if (!path) {
      path = { x, y, segments: [], closed: false };
      startX = x;
      startY = y;
    }
    path.segments.push(...s);
    const last = s[s.length - 1];
    x = last.x;
    y = last.y;
  };
  const finish = () => {
    if (path?.segments.length) paths.push(path);
    path = null;
  };
  for (const [c, ...v] of parsed.segments) {
    if (!v.every(Number.isFinite)) {
      error = true;
      break;
    }
    switch (c) {
      case 'M':
        finish();
        [x, y] = v;
        startX = x;
        startY = y;
        break;
      case 'L':
        push({ k: 'line', x: v[0], y: v[1] });
        break;
      case 'H':
        push({ k: 'line', x: v[0], y });
        break;
      case 'V':
        push({ k: 'line', x, y: v[0] });
        break;
      case 'C':
        push({ k: 'cubic', x1: v[0], y1: v[1], x2: v[2], y2: v[3], x: v[4], y: v[5] });
        break;
      case 'Q':
        push({
          k: 'cubic',
          x1: x + (2 / 3) * (v[0] - x),
          y1: y + (2 / 3) * (v[1] - y),
          x2: v[2] + (2 / 3) * (v[0] - v[2]),
          y2: v[3] + (2 / 3) * (v[1] - v[3]),
          x: v[2],
          y: v[3],
        });
        break;
      case 'A': {
        const arc = arcSegments(x, y, v[0], v[1], v[2], v[3] !== 0, v[4] !== 0, v[5], v[6]);
        if (arc.length) push(...arc);
        break;
      }
      case 'Z':
        if (path) {
          const open = path as Path;
          if (Math.hypot(x - open.x, y - open.y) > 1e-9) open.segments.push({ k: 'line', x: open.x, y: open.y });
          open.closed = true;
        }
        finish();
        x = startX;
        y = startY;
        break;
    }
  }
  finish();
  return { paths, error };
}

/** An elliptical arc by its ends (SVG 2, implementation note "conversion from endpoint to center parameterization"). */
function arcSegments(
  x0: number,
  y0: number,
  rx: number,
  ry: number,
  degrees: number,
  large: boolean,
  sweep: boolean,
  x1: number,
  y1: number,
): Segment[] {
  if (x0 === x1 && y0 === y1) return [];
  rx = Math.abs(rx);
  ry = Math.abs(ry);
  if (!(rx > 0 && ry > 0)) return [{ k: 'line', x: x1, y: y1 }];
  const t = (degrees * Math.PI) / 180;
  const cos = Math.cos(t);
  const sin = Math.sin(t);
  const hx = (x0 - x1) / 2;
  const hy = (y0 - y1) / 2;
  const px = cos * hx + sin * hy;
  const py = -sin * hx + cos * hy;
  const grow = (px * px) / (rx * rx) + (py * py) / (ry * ry);
  if (grow > 1) {
    rx *= Math.sqrt(grow);
    ry *= Math.sqrt(grow);
  }
  const under = rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px;
  const k = (large === sweep ? -1 : 1) * Math.sqrt(Math.max(0, under) / (rx * rx * py * py + ry * ry * px * px));
  const qx = (k * rx * py) / ry;
  const qy = (-k * ry * px) / rx;
  const cx = cos * qx - sin * qy + (x0 + x1) / 2;
  const cy = sin * qx + cos * qy + (y0 + y1) / 2;
  // Radii beyond all measure leave no centre: what is drawn cannot be told from a line.
  if (!Number.isFinite(cx + cy)) return [{ k: 'line', x: x1, y: y1 }];
  if (Math.abs(rx - ry) < 1e-12 * rx) return [{ k: 'arc', x: x1, y: y1, cx, cy, ccw: sweep }];
  // In the frame where the ellipse is a unit circle.
  const unit = (x: number, y: number) => ({
    x: (cos * (x - cx) + sin * (y - cy)) / rx,
    y: (-sin * (x - cx) + cos * (y - cy)) / ry,
  });
  const a = unit(x0, y0);
  const b = unit(x1, y1);
  const drawn = transformPath(
    { ...a, segments: [{ k: 'arc', ...b, cx: 0, cy: 0, ccw: sweep }], closed: false },
    { a: cos * rx, b: sin * rx, c: -sin * ry, d: cos * ry, e: cx, f: cy },
  );
  const last = drawn.segments[drawn.segments.length - 1];
  if (!last) return [{ k: 'line', x: x1, y: y1 }];
  last.x = x1;
  last.y = y1;
  return drawn.segments;
}
