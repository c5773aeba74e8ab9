import { circlePath, type Path, type Segment } from '../geometry/path';

/** The tools that draw by pressing on the table. */
export const drawTools = ['line', 'curve', 'arc', 'centred-arc'] as const;
export type DrawTool = (typeof drawTools)[number];

const isArcTool = (t: DrawTool): boolean => t === 'arc' || t === 'centred-arc';

/** A pressed point; on a curve, how far it was dragged gives the handle after it. */
export interface Placed {
  readonly x: number;
  readonly y: number;
  readonly hx: number;
  readonly hy: number;
}

/** What is being drawn: a small state machine whose steps are pure. */
export interface Drawing {
  readonly tool: DrawTool;
  readonly points: readonly Placed[];
  /** Where the pointer is. */
  readonly at: { readonly x: number; readonly y: number } | null;
  readonly dragging: boolean;
}

export const begin = (tool: DrawTool): Drawing => ({ tool, points: [], at: null, dragging: false });

/** The pointer is pressed. Pressing the first point again closes what is drawn: `done` then holds the path. */
export function press(d: Drawing, x: number, y: number, reach: number): { drawing: Drawing; done: Path | null } {
  const [first] = d.points;
  if (!isArcTool(d.tool) && d.points.length > 2 && Math.hypot(x - first.x, y - first.y) <= reach)
    return { drawing: begin(d.tool), done: pathOf(d, true) };
  const last = d.points[d.points.length - 1];
  if (last && Math.hypot(x - last.x, y - last.y) < 1e-9) return { drawing: d, done: null };
  const drawing: Drawing = { ...d, points: [...d.points, { x, y, hx: 0, hy: 0 }], at: { x, y }, dragging: true };
  // An arc is its two ends and a point between them, or its start, its centre and where it ends.
  if (isArcTool(d.tool) && drawing.points.length === 3) return { drawing: begin(d.tool), done: pathOf(drawing, false) };
  return { drawing, done: null };
}

export function move(d: Drawing, x: number, y: number): Drawing {
  if (d.tool === 'curve' && d.dragging && d.points.length) {
    const last = d.points[d.points.length - 1];
    return { ...d, at: { x, y }, points: [...d.points.slice(0, -1), { ...last, hx: x - last.x, hy: y - last.y }] };
  }
  return { ...d, at: { x, y } };
}

export const release = (d: Drawing): Drawing => ({ ...d, dragging: false });

/** Takes the last point back; null when there was none. */
export const back = (d: Drawing): Drawing | null =>
  d.points.length ? { ...d, points: d.points.slice(0, -1), dragging: false } : null;

/** What Enter makes of it: an open path, or null when there is too little. */
export const finish = (d: Drawing): Path | null => (d.points.length > 1 ? pathOf(d, false) : null);

/** The point at a length and an angle (degrees counter-clockwise from the right) from the last one. */
export function polar(d: Drawing, length: number, degrees: number): { x: number; y: number } | null {
  const last = d.points[d.points.length - 1];
  if (!last) return null;
  const t = (degrees * Math.PI) / 180;
  return { x: last.x + length * Math.cos(t), y: last.y + length * Math.sin(t) };
}

/**
 * A point on the arc of a radius between the two points that are placed, on the side where the pointer is: the arc that is less
 * than half a circle. Null when the points are further apart than the circle is wide.
 */
export function onRadius(d: Drawing, radius: number): { x: number; y: number } | null {
  const [a, b] = d.points;
  if (!a || !b) return null;
  const half = Math.hypot(b.x - a.x, b.y - a.y) / 2;
  if (!(radius >= half) || half < 1e-9) return null;
  const rise = radius - Math.sqrt(radius * radius - half * half);
  const [nx, ny] = [-(b.y - a.y) / (2 * half), (b.x - a.x) / (2 * half)];
  const side = d.at && (d.at.x - a.x) * nx + (d.at.y - a.y) * ny < 0 ? -1 : 1;
  return { x: (a.x + b.x) / 2 + side * rise * nx, y: (a.y + b.y) / 2 + side * rise * ny };
}

/** The pointer held to steps of 15 degrees from the last point. */
export function steady(d: Drawing, x: number, y: number): { x: number; y: number } {
  const last = d.points[d.points.length - 1];
  if (!last) return { x, y };
  const l = Math.hypot(x - last.x, y - last.y);
  const t = Math.round(Math.atan2(y - last.y, x - last.x) / (Math.PI / 12)) * (Math.PI / 12);
  return { x: last.x + l * Math.cos(t), y: last.y + l * Math.sin(t) };
}

/** What would be drawn if the pointer were pressed where it is. */
export function preview(d: Drawing): Path | null {
  if (!d.points.length || !d.at) return null;
  const last = d.points[d.points.length - 1];
  const moved = !d.dragging && Math.hypot(d.at.x - last.x, d.at.y - last.y) > 1e-9;
  const all = moved ? { ...d, points: [...d.points, { ...d.at, hx: 0, hy: 0 }] } : d;
  return all.points.length > 1 ? pathOf(all, false) : null;
}

function pathOf(d: Drawing, closed: boolean): Path {
  const p = d.points;
  if (d.tool === 'arc' && p.length === 3) return arcThrough(p[0], p[1], p[2]);
  if (d.tool === 'centred-arc' && p.length === 3) return arcAbout(p[0], p[1], p[2]);
  const segments: Segment[] = [];
  const join = (a: Placed, b: Placed) => {
    const curved = d.tool === 'curve' && (a.hx || a.hy || b.hx || b.hy);
    segments.push(
      curved
        ? { k: 'cubic', x1: a.x + a.hx, y1: a.y + a.hy, x2: b.x - b.hx, y2: b.y - b.hy, x: b.x, y: b.y }
        : { k: 'line', x: b.x, y: b.y },
    );
  };
  for (let i = 1; i < p.length; i++) join(p[i - 1], p[i]);
  if (closed) join(p[p.length - 1], p[0]);
  return { x: p[0].x, y: p[0].y, segments, closed };
}

/** The arc from a to b through c; a line when they lie in one. */
export function arcThrough(
  a: { x: number; y: number },
  b: { x: number; y: number },
  c: { x: number; y: number },
): Path {
  const d = 2 * ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  if (Math.abs(d) < 1e-9) return { x: a.x, y: a.y, segments: [{ k: 'line', x: b.x, y: b.y }], closed: false };
  const b2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
  const c2 = (c.x - a.x) ** 2 + (c.y - a.y) ** 2;
  const cx = a.x + ((c.y - a.y) * b2 - (b.y - a.y) * c2) / d;
  const cy = a.y + ((b.x - a.x) * c2 - (c.x - a.x) * b2) / d;
  return { x: a.x, y: a.y, segments: [{ k: 'arc', x: b.x, y: b.y, cx, cy, ccw: d < 0 }], closed: false };
}

/** The arc from a about a centre to the direction of a point, the shorter way round; a whole circle when that is where it began. */
export function arcAbout(
  a: { x: number; y: number },
  centre: { x: number; y: number },
  to: { x: number; y: number },
): Path {
  const r = Math.hypot(a.x - centre.x, a.y - centre.y);
  const l = Math.hypot(to.x - centre.x, to.y - centre.y);
  if (r < 1e-9 || l < 1e-9)
    return { x: a.x, y: a.y, segments: [{ k: 'line', x: centre.x, y: centre.y }], closed: false };
  const [ux, uy] = [(to.x - centre.x) / l, (to.y - centre.y) / l];
  const turn = (a.x - centre.x) * uy - (a.y - centre.y) * ux;
  const along = (a.x - centre.x) * ux + (a.y - centre.y) * uy;
  if (Math.abs(turn) < 1e-6 * r && along > 0) return circlePath(centre.x, centre.y, r);
  return {
    x: a.x,
    y: a.y,
    segments: [{ k: 'arc', x: centre.x + ux * r, y: centre.y + uy * r, cx: centre.x, cy: centre.y, ccw: turn > 0 }],
    closed: false,
  };
}
