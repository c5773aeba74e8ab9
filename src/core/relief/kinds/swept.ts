import { z } from 'zod';
import { makeInside } from '../../geometry/inside';
import { stillWanted } from '../../units/stillWanted';
import { choices } from '../../units/fields';
import { columnsOf, nearestSegments } from '../distance';
import { formKind, nowhere, type FormContext, type FormHeights, type Line } from '../form';
import type { Grid } from '../field';
import { drawnProfile, profiles, type DrawnProfile, type ProfileId } from '../profiles';

const ids = Object.keys(profiles) as [ProfileId, ...ProfileId[]];
const size = z.number().min(0.01).max(5000);
const schema = z.object({
  /** Along a straight line, along a picked line, from one picked line to another, or turned about an axis. */
  way: z.enum(['straight', 'rail', 'between', 'turned']),
  profile: z.enum([...ids, 'drawn']),
  /** In the middle of the profile, mm; of a drawn one and its width: null as it is drawn. */
  height: z.number().min(0).max(300),
  drawnHeight: z.number().min(0.001).max(300).nullable(),
  width: size,
  /** Of one along a straight line or about an axis: how long, where its middle lies, and how it is turned. */
  length: size,
  x: z.number().min(-1e4).max(1e4),
  y: z.number().min(-1e4).max(1e4),
  angle: z.number().min(-360).max(360),
  /** It runs out over so much at its ends, mm; 0: its ends are open. */
  taper: z.number().min(0).max(5000),
  /** Between two lines: whether it stands higher where they lie further apart. */
  swells: z.boolean(),
});
type Values = z.infer<typeof schema>;

/** Height at `u`, -1 to 1, across a width whose half is given, mm. */
type Across = (u: number, half: number) => number;

/** A profile along a line: barrels and banners, mouldings that follow a curve, strips between two curves, turned work. */
export const swept = formKind({
  id: 'swept',
  name: 'Swept',
  summary: 'Leads a profile along a line or a curve, between two of them, or about an axis.',
  schema,
  fields: [
    {
      kind: 'choice',
      key: 'way',
      label: 'Led',
      options: choices({
        straight: 'Straight',
        rail: 'Along a line',
        between: 'Between two lines',
        turned: 'About an axis',
      }),
    },
    {
      kind: 'choice',
      key: 'profile',
      label: 'Profile',
      options: choices({ ...Object.fromEntries(ids.map((id) => [id, profiles[id].name])), drawn: 'A drawn line' }),
    },
    { kind: 'length', key: 'height', label: 'Height', when: (v) => v.profile !== 'drawn' && v.way !== 'turned' },
    { kind: 'length', key: 'drawnHeight', label: 'Height', optional: 'as drawn', when: (v) => v.profile === 'drawn' },
    { kind: 'length', key: 'width', label: 'Width', when: (v) => v.way !== 'between' },
    { kind: 'length', key: 'length', label: 'Length', when: (v) => v.way === 'straight' || v.way === 'turned' },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle',
      unit: '\u00b0',
      when: (v) => v.way === 'straight' || v.way === 'turned',
    },
    { kind: 'length', key: 'taper', label: 'Ends run out over', when: (v) => v.way === 'straight' || v.way === 'rail' },
    { kind: 'flag', key: 'swells', label: 'Higher where it is wider', when: (v) => v.way === 'between' },
    { kind: 'length', key: 'x', label: 'Middle X', when: (v) => v.way === 'straight' || v.way === 'turned' },
    { kind: 'length', key: 'y', label: 'Middle Y', when: (v) => v.way === 'straight' || v.way === 'turned' },
  ],
  defaults: {
    way: 'straight',
    profile: 'bow',
    height: 3,
    drawnHeight: null,
    width: 40,
    length: 100,
    x: 0,
    y: 0,
    angle: 0,
    taper: 0,
    swells: false,
  },
  fresh: (v, { width, height, thickness }) => ({
    ...v,
    x: width / 2,
    y: height / 2,
    length: Math.round(0.8 * width),
    width: Math.round(0.5 * height),
    height: Math.min(v.height, thickness / 3),
  }),
  lines: (v) =>
    v.way === 'rail'
      ? { words: 'Along', none: 'Pick the line that it runs along' }
      : v.way === 'between'
        ? { words: 'Between', none: 'Pick the two lines between which it runs' }
        : null,
  drawn: (v) => v.profile === 'drawn',
  evaluate(v, c) {
    const drawn = v.profile === 'drawn' ? drawnProfile(c.profile) : null;
    if (v.profile === 'drawn' && !drawn)
      return nowhere(c.grid, 'No line is picked for its profile. Draw one from left to right and pick it.');
    if (v.way === 'straight') return straight(v, c.grid, acrossOf(v, drawn));
    if (v.way === 'turned') return turned(v, c.grid, drawn);
    return v.way === 'rail' ? alongRail(v, c, acrossOf(v, drawn)) : between(v, c, acrossOf(v, drawn));
  },
});

/** The profile over the whole width. A drawn one is as high as it was drawn, or made to stand as high as is wanted. */
function acrossOf(v: Values, drawn: DrawnProfile | null): Across {
  if (v.profile !== 'drawn') {
    const { at } = profiles[v.profile];
    return (u, half) => at(u, half, v.height);
  }
  const by = v.drawnHeight !== null && drawn!.height > 0 ? v.drawnHeight / drawn!.height : 1;
  return (u) => drawn!.at(((u + 1) / 2) * drawn!.width) * by;
}

/** How much of its height a swept form has so far from its end: a quarter of a wave, level where it is whole. */
const tapered = (fromEnd: number, taper: number): number =>
  fromEnd >= taper ? 1 : fromEnd <= 0 ? 0 : Math.sin((Math.PI / 2) * (fromEnd / taper));

/** Goes through the nodes with their places along and across an axis through the middle; NaN from `at` is empty. */
function aboutMiddle(v: Values, g: Grid, at: (along: number, across: number) => number): FormHeights {
  const z = new Float32Array(g.cols * g.rows);
  const turn = (v.angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  for (let r = 0; r < g.rows; r++) {
    stillWanted(g.cols);
    const dy = g.y0 + r * g.cell - v.y;
    for (let q = 0; q < g.cols; q++) {
      const dx = g.x0 + q * g.cell - v.x;
      z[r * g.cols + q] = at(dx * cos + dy * sin, dy * cos - dx * sin);
    }
  }
  return { z, remark: '' };
}

/** A node on the very edge belongs to it. */
const EDGE = 1e-9;

function straight(v: Values, g: Grid, across: Across): FormHeights {
  const half = v.width / 2;
  return aboutMiddle(v, g, (s, d) => {
    const end = v.length / 2 - Math.abs(s);
    if (end < -EDGE || Math.abs(d) > half + EDGE) return NaN;
    return across(Math.max(-1, Math.min(1, d / half)), half) * (v.taper > 0 ? tapered(end, v.taper) : 1);
  });
}

/** Turned about an axis that lies at the base: a drawn profile is its radius along the axis, others swell from end to end. */
function turned(v: Values, g: Grid, drawn: DrawnProfile | null): FormHeights {
  const half = v.length / 2;
  const across = v.profile === 'drawn' ? null : profiles[v.profile].at;
  const by = drawn && v.drawnHeight !== null && drawn.height > 0 ? v.drawnHeight / drawn.height : 1;
  const radius = (s: number): number =>
    drawn ? drawn.at(((s + half) / v.length) * drawn.width) * by : across!(s / half, half, v.width / 2);
  return aboutMiddle(v, g, (s, d) => {
    if (Math.abs(s) > half + EDGE) return NaN;
    const r = radius(Math.max(-half, Math.min(half, s)));
    return Math.abs(d) > r + EDGE ? NaN : Math.sqrt(Math.max(0, r * r - d * d));
  });
}

function alongRail(v: Values, { grid: g, lines }: FormContext, across: Across): FormHeights {
  if (!lines.length) return nowhere(g, 'No line is picked for it. Draw the line that it is to run along, and pick it.');
  const half = v.width / 2;
  const z = new Float32Array(g.cols * g.rows).fill(NaN);
  // Where the segments of each line begin, and how far along it, mm.
  const { count, s } = columnsOf(lines);
  const start = new Float64Array(count + 1);
  const lineOf = new Int32Array(count);
  const ends = lines.map((l) => l.points.length / 2 - (l.closed ? 0 : 1));
  const first = ends.map((_, k) => ends.slice(0, k).reduce((a, b) => a + b, 0));
  const whole = new Float64Array(lines.length);
  ends.forEach((n, k) => {
    for (let i = first[k]; i < first[k] + n; i++) {
      lineOf[i] = k;
      start[i] = whole[k];
      whole[k] += Math.hypot(s[5 * i + 2], s[5 * i + 3]);
    }
  });
  nearestSegments(
    lines,
    g,
    (node, square, at) => {
      const d = Math.sqrt(square);
      if (d > half + EDGE) return;
      const i = at / 5;
      const line = lines[lineOf[i]];
      const [k, n] = [i - first[lineOf[i]], ends[lineOf[i]]];
      const x = g.x0 + (node % g.cols) * g.cell - s[at];
      const y = g.y0 + Math.floor(node / g.cols) * g.cell - s[at + 1];
      const t = (x * s[at + 2] + y * s[at + 3]) * s[at + 4];
      // Beyond the end of an open line there is nothing.
      if (!line.closed && ((k === 0 && t < -EDGE) || (k === n - 1 && t > 1 + EDGE))) return;
      const along = start[i] + Math.max(0, Math.min(1, t)) * Math.hypot(s[at + 2], s[at + 3]);
      const end = line.closed ? Infinity : Math.min(along, whole[lineOf[i]] - along);
      const side = sideOf(s, first[lineOf[i]], n, k, line.closed, t, x, y);
      z[node] = across(Math.min(1, d / half) * side, half) * (v.taper > 0 ? tapered(end, v.taper) : 1);
    },
    { most: half },
  );
  return { z, remark: '' };
}

/**
 * On which side of a line a place lies: -1 left of the way that it goes, 1 right. Where a corner is nearest, what parts the sides is
 * the mean of both segments' normals (after J. A. Baerentzen, H. Aanaes, "Signed Distance Computation Using the Angle Weighted
 * Pseudonormal", 2005).
 */
function sideOf(
  s: Float64Array,
  first: number,
  n: number,
  k: number,
  closed: boolean,
  t: number,
  x: number,
  y: number,
): 1 | -1 {
  const own = 5 * (first + k);
  const unit = (at: number): [number, number] => {
    const l = Math.hypot(s[at + 2], s[at + 3]) || 1;
    return [s[at + 2] / l, s[at + 3] / l];
  };
  let [ex, ey] = unit(own);
  const other = t <= 0 ? k - 1 : t >= 1 ? k + 1 : null;
  if (other !== null && (closed || (other >= 0 && other < n))) {
    const [ox, oy] = unit(5 * (first + ((other + n) % n)));
    [ex, ey] = [ex + ox, ey + oy];
  }
  // From the corner that is nearest, not from where the segment begins.
  const [px, py] = t >= 1 ? [x - s[own + 2], y - s[own + 3]] : [x, y];
  return ex * py - ey * px > 0 ? -1 : 1;
}

function between(v: Values, { grid: g, lines }: FormContext, across: Across): FormHeights {
  if (lines.length !== 2 || lines[0].closed !== lines[1].closed)
    return nowhere(
      g,
      `It runs between two lines, both open or both closed; ${lines.length === 2 ? 'of these one is open and one closed' : `${lines.length || 'none'} ${lines.length === 1 ? 'is' : 'are'} picked`}.`,
    );
  const [a, b] = lines.map((l) => unsigned(l, g));
  const inside = makeInside(stripOf(lines[0], lines[1]));
  const z = new Float32Array(g.cols * g.rows).fill(NaN);
  let widest = 0;
  const nodes: number[] = [];
  for (let r = 0; r < g.rows; r++) {
    stillWanted(g.cols);
    for (let q = 0; q < g.cols; q++) {
      if (!inside(g.x0 + q * g.cell, g.y0 + r * g.cell)) continue;
      const i = r * g.cols + q;
      nodes.push(i);
      widest = Math.max(widest, a[i] + b[i]);
    }
  }
  for (const i of nodes) {
    const wide = a[i] + b[i];
    if (wide > 0) z[i] = across((2 * a[i]) / wide - 1, wide / 2) * (v.swells ? wide / widest : 1);
  }
  return { z, remark: '' };
}

function unsigned(line: Line, g: Grid): Float32Array {
  const d = new Float32Array(g.cols * g.rows);
  nearestSegments([line], g, (i, square) => (d[i] = Math.sqrt(square)));
  return d;
}

/** What lies between two lines: one along the first and back along the second; of closed ones, one round the other way. */
function stripOf(a: Line, b: Line): Float64Array[] {
  const back = (p: Float64Array) => {
    const out = new Float64Array(p.length);
    for (let i = 0; i < p.length; i += 2) out.set([p[i], p[i + 1]], p.length - 2 - i);
    return out;
  };
  const area = (p: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < p.length; i += 2) {
      const j = (i + 2) % p.length;
      sum += p[i] * p[j + 1] - p[j] * p[i + 1];
    }
    return sum;
  };
  if (a.closed) return [a.points, area(a.points) * area(b.points) > 0 ? back(b.points) : b.points];
  const [p, q] = [a.points, b.points];
  const far = (i: number, j: number) => Math.hypot(p[i] - q[j], p[i + 1] - q[j + 1]);
  const [pe, qe] = [p.length - 2, q.length - 2];
  // Ends that lie near each other belong together, whichever way the lines were drawn.
  const same = far(0, 0) + far(pe, qe) <= far(0, qe) + far(pe, 0);
  return [Float64Array.from([...p, ...(same ? back(q) : q)])];
}
