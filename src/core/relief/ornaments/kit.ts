import { nearestShare } from '../../geometry/straight';

/**
 * What ornaments are carved from. An ornament is a list of strokes, laid on each other in order, as a carver builds up a piece:
 * each is a height over a small part of the plane. Its frame: x to the right, y up, 100 wide; heights in the same unit, above the
 * ornament's own ground.
 *
 * ```
 *      q = 0 on the middle line                     how a stroke meets what was there:
 *        ___                                          over   the higher of both
 *      /     \       q = 1 at the rim                 soft   the same, with a fillet of `fillet`
 *     /       \                                       cut    goes in, where there is something
 *  __/         \__                                    on     goes on top of it, where there is something
 * ```
 */
export interface Stroke {
  /** Where it may be other than nothing: left, low, right, high. */
  readonly box: readonly [number, number, number, number];
  /** Its height at a place; NaN beside it. */
  readonly at: (x: number, y: number) => number;
  readonly how: 'over' | 'soft' | 'cut' | 'on';
  /** Of a soft one: over what difference of heights the two run into each other. */
  readonly fillet: number;
}

export type Point = readonly [number, number];

/** Shapes across a stroke: of q from 0 (its middle) to 1 (its rim), 1 to 0. */
export const across = {
  round: (q: number) => Math.sqrt(1 - q * q),
  soft: (q: number) => 1 - q * q,
  /** Comes down level at the rim: runs out into what it lies on. */
  bell: (q: number) => (1 - q * q) ** 2,
  ridge: (q: number) => 1 - q,
  flat: (q: number) => Math.min(1, 6 * (1 - q)),
} as const;
export type Across = keyof typeof across;

/** Points along a cubic curve, both ends among them. */
export function curve(a: Point, b: Point, c: Point, d: Point, n = 14): Point[] {
  return Array.from({ length: n + 1 }, (_, k) => {
    const t = k / n;
    const s = 1 - t;
    const mix = (i: 0 | 1) => s * s * s * a[i] + 3 * s * s * t * b[i] + 3 * s * t * t * c[i] + t * t * t * d[i];
    return [mix(0), mix(1)] as const;
  });
}

/** Points round an ellipse, or along a part of it between two angles, degrees. */
export function round(middle: Point, rx: number, ry: number, from = 0, to = 360, n = 48): Point[] {
  return Array.from({ length: n + 1 }, (_, k) => {
    const a = ((from + ((to - from) * k) / n) * Math.PI) / 180;
    return [middle[0] + rx * Math.cos(a), middle[1] + ry * Math.sin(a)] as const;
  });
}

function boxOf(points: readonly Point[], by = 0): [number, number, number, number] {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return [Math.min(...xs) - by, Math.min(...ys) - by, Math.max(...xs) + by, Math.max(...ys) + by];
}

/** Where a place lies beside a line: how far along (0 to 1) and (by length), and how far to its left; nearest first. */
export interface Beside {
  t: number;
  along: number;
  left: number;
  away: number;
}
/** Cells along the longer side of a line's box, each of which knows the segments that may be near. */
const CELLS = 48;

/** Finds, among the segments of points (x, y interleaved), those that may lie within `reach` of a place. */
function segmentsNear(p: Float64Array, reach: number): (x: number, y: number) => readonly number[] {
  const n = p.length / 2 - 1;
  const [x0, y0, x1, y1] = boxOf(
    Array.from({ length: n + 1 }, (_, i) => [p[2 * i], p[2 * i + 1]] as const),
    reach,
  );
  const cell = Math.max(x1 - x0, y1 - y0) / CELLS;
  const cols = Math.ceil((x1 - x0) / cell) + 1;
  const rows = Math.ceil((y1 - y0) / cell) + 1;
  const near = Array.from({ length: cols * rows }, (_, k) => {
    const [cx, cy] = [x0 + ((k % cols) + 0.5) * cell, y0 + (Math.floor(k / cols) + 0.5) * cell];
    const list: number[] = [];
    for (let i = 0; i < n; i++) if (segmentAway(p, i, cx, cy) <= reach + cell * Math.SQRT1_2) list.push(i);
    return list;
  });
  return (x, y) => near[Math.floor((y - y0) / cell) * cols + Math.floor((x - x0) / cell)] ?? none;
}
const none: readonly number[] = [];

/** How far a place lies from a segment of points x, y interleaved. */
function segmentAway(p: Float64Array, i: number, x: number, y: number): number {
  const ax = p[2 * i];
  const ay = p[2 * i + 1];
  const bx = p[2 * i + 2];
  const by = p[2 * i + 3];
  const t = nearestShare(ax, ay, bx, by, x, y);
  // Asked for millions of times: a root is quicker than what never overflows.
  return Math.sqrt((x - ax - t * (bx - ax)) ** 2 + (y - ay - t * (by - ay)) ** 2);
}

/** Asks where places lie beside a line, as far as `reach` from it: beyond, `away` may be infinite. */
function besideOf(points: readonly Point[], reach: number): (x: number, y: number) => Beside {
  const p = Float64Array.from(points.flat());
  const runs = new Float64Array(points.length);
  for (let i = 1; i < points.length; i++)
    runs[i] = runs[i - 1] + Math.hypot(points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]);
  const whole = runs[runs.length - 1] || 1;
  const near = segmentsNear(p, reach);
  const found: Beside = { t: 0, along: 0, left: 0, away: 0 };
  return (x, y) => {
    let least = Infinity;
    let first = -1;
    const some = near(x, y);
    for (let k = 0; k < some.length; k++) {
      const d = segmentAway(p, some[k], x, y);
      if (!(d < least)) continue;
      least = d;
      first = some[k];
    }
    found.away = least;
    if (first < 0) return found;
    const i = 2 * first;
    const dx = p[i + 2] - p[i];
    const dy = p[i + 3] - p[i + 1];
    const t = nearestShare(p[i], p[i + 1], p[i + 2], p[i + 3], x, y);
    found.along = runs[first] + t * (runs[first + 1] - runs[first]);
    found.left = Math.sign(dx * (y - p[i + 1]) - dy * (x - p[i])) * least;
    found.t = found.along / whole;
    return found;
  };
}

/** A number, or one that changes from the beginning of a line (0) to its end (1). */
export type Along = number | ((t: number) => number);
/** A value along a line as numbers in a row, between which it runs straight: it is asked for millions of times. */
const STEPS = 256;
function alongOf(v: Along): (t: number) => number {
  if (typeof v === 'number') return () => v;
  const row = Float64Array.from({ length: STEPS + 2 }, (_, k) => v(Math.min(1, k / STEPS)));
  return (t) => {
    const k = Math.floor(t * STEPS);
    return row[k] + (t * STEPS - k) * (row[k + 1] - row[k]);
  };
}
/** The most that it is anywhere. */
const widestOf = (v: (t: number) => number): number =>
  Math.max(...Array.from({ length: STEPS + 1 }, (_, k) => v(k / STEPS)));
/** Runs evenly from one value to another. */
export const from =
  (a: number, b: number): Along =>
  (t) =>
    a + (b - a) * t;
/** Swells from one value to a second in the middle and on to a third. */
export const swell =
  (a: number, b: number, c = a): Along =>
  (t) =>
    a + (c - a) * t + (b - (a + c) / 2) * Math.sin(Math.PI * t);

const stroke = (box: Stroke['box'], f: Stroke['at'], how: Stroke['how'] = 'over', fillet = 0): Stroke => ({
  box,
  at: f,
  how,
  fillet,
});

/** The same stroke, met in another way. */
export const soft = (s: Stroke, fillet: number): Stroke => ({ ...s, how: 'soft', fillet });
export const cut = (s: Stroke): Stroke => ({ ...s, how: 'cut' });
export const on = (s: Stroke): Stroke => ({ ...s, how: 'on' });
/** The same stroke, standing higher. */
export const lifted = (s: Stroke, by: number): Stroke => ({ ...s, at: (x, y) => s.at(x, y) + by });

/** A limb along a line, half as wide as `radius`, as high as `high` in its middle. */
export function limb(points: readonly Point[], radius: Along, high: Along, shape: Across = 'round'): Stroke {
  const [wide, tall] = [alongOf(radius), alongOf(high)];
  const widest = widestOf(wide);
  const near = besideOf(points, widest);
  const form = across[shape];
  return stroke(boxOf(points, widest), (x, y) => {
    const b = near(x, y);
    if (b.away >= widest) return NaN;
    const q = b.away / wide(b.t);
    return q < 1 ? tall(b.t) * form(q) : NaN;
  });
}

/** An egg about a middle: half of its width and height, turned by so many degrees. */
export function egg([mx, my]: Point, rx: number, ry: number, high: number, turn = 0, shape: Across = 'round'): Stroke {
  const a = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const [bx, by] = [Math.hypot(rx * cos, ry * sin), Math.hypot(rx * sin, ry * cos)];
  const form = across[shape];
  return stroke([mx - bx, my - by, mx + bx, my + by], (x, y) => {
    const [dx, dy] = [x - mx, y - my];
    const q = Math.sqrt(((dx * cos + dy * sin) / rx) ** 2 + ((dy * cos - dx * sin) / ry) ** 2);
    return q < 1 ? high * form(q) : NaN;
  });
}

/** A ring: how wide it is on either side of its middle line. */
export function ring(middle: Point, radius: number, half: number, high: number, shape: Across = 'round'): Stroke {
  const [mx, my] = middle;
  const r = radius + half;
  const form = across[shape];
  return stroke([mx - r, my - r, mx + r, my + r], (x, y) => {
    const q = Math.abs(Math.sqrt((x - mx) ** 2 + (y - my) ** 2) - radius) / half;
    return q < 1 ? high * form(q) : NaN;
  });
}

/** A leaf or petal along a line from its stem to its tip, with a rib down its middle and veins that leave it. */
export function leaf(
  points: readonly Point[],
  half: Along,
  high: Along,
  { shape = 'soft' as Across, rib = 0, veins = 0, vein = 0, cup = 0 } = {},
): Stroke {
  const [wide, tall] = [alongOf(half), alongOf(high)];
  const widest = widestOf(wide);
  const near = besideOf(points, widest);
  const form = across[shape];
  return stroke(boxOf(points, widest), (x, y) => {
    const b = near(x, y);
    if (b.away >= widest) return NaN;
    const w = wide(b.t);
    const q = b.away / w;
    if (!(q < 1)) return NaN;
    let h = form(q);
    // Hollow along its middle: a petal that holds water.
    if (cup) h -= cup * (1 - q) * (1 - q) * Math.sin(Math.PI * b.t);
    // A groove along the rib, which fades towards the tip.
    if (rib) h -= rib * Math.max(0, 1 - (6 * b.away) / widest) * (1 - b.t);
    if (veins) {
      const u = veins * (b.t - 0.35 * q * (w / widest));
      h -= vein * (0.5 + 0.5 * Math.cos(2 * Math.PI * u)) ** 6 * Math.min(1, 3 * (1 - q)) * (1 - b.t);
    }
    return tall(b.t) * Math.max(0, h);
  });
}

/** A plate inside an outline, its rim leaning at `slope`, no higher than `high` nor than `top`, which stands nowhere higher. */
export function plate(
  points: readonly Point[],
  high: number,
  slope = 2,
  top?: (x: number, y: number) => number,
): Stroke {
  const n = points.length;
  const p = Float64Array.from([...points, points[0]].flat());
  // Further in than its rim is wide it does not matter how far.
  const near = segmentsNear(p, high / slope);
  return stroke(boxOf(points), (x, y) => {
    let inside = false;
    for (let i = 0; i < 2 * n; i += 2) {
      const ay = p[i + 1];
      const by = p[i + 3];
      if (ay > y !== by > y && x < p[i] + ((y - ay) / (by - ay)) * (p[i + 2] - p[i])) inside = !inside;
    }
    if (!inside) return NaN;
    let least = Infinity;
    for (const i of near(x, y)) least = Math.min(least, segmentAway(p, i, x, y));
    return Math.min(slope * least, top ? top(x, y) : high);
  });
}

/** A star of facets: its tips and the notches between them on the ground, its middle as high as `high`. */
export function facets([mx, my]: Point, tips: number, tip: number, notch: number, high: number, turn = 90): Stroke {
  const half = Math.PI / tips;
  const [nx, ny] = [notch * Math.cos(half), notch * Math.sin(half)];
  return stroke([mx - tip, my - tip, mx + tip, my + tip], (x, y) => {
    const r = Math.sqrt((x - mx) ** 2 + (y - my) ** 2);
    let a = Math.atan2(y - my, x - mx) - (turn * Math.PI) / 180;
    a -= 2 * half * Math.round(a / (2 * half));
    const [u, v] = [r * Math.cos(a), Math.abs(r * Math.sin(a))];
    // The triangle from the middle to a tip and the notch beside it: how far towards its outer side.
    const s = (u - (v * nx) / ny) / tip + v / ny;
    return s < 1 ? high * (1 - s) : NaN;
  });
}

/** A rope of three strands along a line: `lay` is the length of a turn of a strand. */
export function rope(points: readonly Point[], radius: number, high: number, lay: number): Stroke {
  const near = besideOf(points, radius);
  return stroke(boxOf(points, radius), (x, y) => {
    const b = near(x, y);
    const q = b.away / radius;
    if (q >= 1) return NaN;
    // Seen from above a strand lies aslant, and is round across.
    const u = b.along / lay + (0.5 * Math.asin(Math.max(-1, Math.min(1, b.left / radius)))) / Math.PI;
    const s = 2 * Math.abs(u - Math.round(u));
    return high * Math.sqrt(1 - q * q) * (0.55 + 0.45 * Math.sqrt(1 - s * s));
  });
}

/** Strokes turned about the middle by so many degrees. */
export function turned(strokes: readonly Stroke[], degrees: number, [mx, my]: Point = [0, 0]): Stroke[] {
  const a = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  return strokes.map((s) => {
    const [x0, y0, x1, y1] = s.box;
    const corners: Point[] = (
      [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ] as const
    ).map(([x, y]) => [mx + (x - mx) * cos - (y - my) * sin, my + (x - mx) * sin + (y - my) * cos]);
    return {
      ...s,
      box: boxOf(corners),
      at: (x, y) => s.at(mx + (x - mx) * cos + (y - my) * sin, my + (y - my) * cos - (x - mx) * sin),
    };
  });
}
/** Strokes as a mirror on the vertical line through `about` shows them. */
export const mirrored = (strokes: readonly Stroke[], about = 0): Stroke[] =>
  strokes.map((s) => ({
    ...s,
    box: [2 * about - s.box[2], s.box[1], 2 * about - s.box[0], s.box[3]],
    at: (x, y) => s.at(2 * about - x, y),
  }));
/** Strokes and their mirror image. */
export const both = (strokes: readonly Stroke[]): Stroke[] => [...strokes, ...mirrored(strokes)];
/** The same strokes so many times about a middle. */
export const around = (n: number, strokes: readonly Stroke[], first = 0, middle: Point = [0, 0]): Stroke[] =>
  Array.from({ length: n }, (_, k) => turned(strokes, first + (360 * k) / n, middle)).flat();
/** Strokes elsewhere, and larger or smaller. */
export const moved = (strokes: readonly Stroke[], dx: number, dy: number, by = 1, deep = by): Stroke[] =>
  strokes.map((s) => ({
    ...s,
    fillet: s.fillet * deep,
    box: [dx + by * s.box[0], dy + by * s.box[1], dx + by * s.box[2], dy + by * s.box[3]],
    at: (x, y) => deep * s.at((x - dx) / by, (y - dy) / by),
  }));
/** Strokes that stand higher. */
export const raised = (strokes: readonly Stroke[], by: number): Stroke[] =>
  strokes.map((s) => (s.how === 'cut' || s.how === 'on' ? s : lifted(s, by)));

/** What stands at a place after one more stroke; NaN where there is still nothing. */
export function met(under: number, h: number, { how, fillet }: Pick<Stroke, 'how' | 'fillet'>): number {
  if (h !== h) return under;
  if (how === 'cut') return under === under ? Math.max(0, under - h) : under;
  if (how === 'on') return under === under ? under + h : under;
  if (under !== under) return h;
  const most = Math.max(under, h);
  if (how === 'over') return most;
  // A round fillet where the two are nearly level (the polynomial smooth maximum).
  const near = Math.max(0, fillet - Math.abs(under - h)) / (fillet || 1);
  return most + (near * near * fillet) / 4;
}
