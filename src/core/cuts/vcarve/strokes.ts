import { stillWanted } from '../../units/stillWanted';
import { append } from '../../units/append';
import type { Branches } from '../../geometry/medial/branches';

/** A stroke: x, y, z interleaved, cut without lifting. */
export type Stroke = Float64Array;

/** Costs in minutes that decide between going back along a finished branch and lifting. */
export interface StrokeCosts {
  readonly feed: number;
  readonly plunge: number;
  readonly rapid: number;
  readonly clearance: number;
}

interface Edge {
  /** x, y, z interleaved. */
  points: number[];
  a: number;
  b: number;
  length: number;
  done: boolean;
}

const NONE: { lim: number; f: number }[] = [];

/** Whether one of the limits lies between two clearances: of most chords none does. */
function crossed(limits: readonly number[], a: number, b: number): boolean {
  for (const l of limits) if ((l - a) * (l - b) < 0) return true;
  return false;
}

/**
 * Joins branches into long strokes. Each branch is cut to the clearances between `low` and `high`; the
 * tip's height comes from `height`, which falls evenly with the clearance up to `knee` and is level beyond. Strokes run depth first, short dead ends before long ways, and come
 * back along a finished branch when that takes less time than lifting.
 */
export function makeStrokes(
  b: Branches,
  low: number,
  high: number,
  saturation: number,
  height: (r: number) => number,
  costs: StrokeCosts,
): Stroke[] {
  const edges: Edge[] = [];
  // Each once: a limit that is met twice at one place would begin a stroke and end it there.
  const limits = [...new Set([low, high, saturation])];
  let fresh = -1;
  for (let e = 0; e < b.count; e++) {
    stillWanted();
    let points: number[] = [];
    let a = b.from[e];
    const close = (end: number) => {
      if (points.length >= 6) {
        let length = 0;
        for (let i = 3; i < points.length; i += 3)
          length += Math.hypot(points[i] - points[i - 3], points[i + 1] - points[i - 2], points[i + 2] - points[i - 1]);
        edges.push({ points, a, b: end, length, done: false });
      }
      points = [];
    };
    for (let k = b.start[e]; k < b.start[e + 1]; k++) {
      const x = b.samples[3 * k];
      const y = b.samples[3 * k + 1];
      const r = b.samples[3 * k + 2];
      const inside = r >= low && r <= high;
      if (k > b.start[e]) {
        const px = b.samples[3 * k - 3];
        const py = b.samples[3 * k - 2];
        const pr = b.samples[3 * k - 1];
        // Crossings of the two limits and of the knee along this chord, in order.
        const marks = crossed(limits, pr, r)
          ? limits.map((lim) => ({ lim, f: (lim - pr) / (r - pr) })).filter(({ f }) => f > 1e-12 && f < 1 - 1e-12)
          : NONE;
        marks.sort((p, q) => p.f - q.f);
        for (const { lim, f } of marks) {
          const cr = pr + (r - pr) * f;
          const at = [px + (x - px) * f, py + (y - py) * f, height(cr)];
          if (lim === saturation && lim !== high && lim !== low) {
            if (points.length) append(points, at);
          } else if (points.length) {
            append(points, at);
            close(fresh--);
          } else {
            a = fresh--;
            append(points, at);
          }
        }
      }
      if (inside) {
        // A sample that lies on a limit itself begins a piece of its own.
        if (points.length === 0) a = k === b.start[e] ? b.from[e] : fresh--;
        points.push(x, y, height(r));
      } else if (points.length) close(fresh--);
    }
    close(b.to[e]);
  }

  const at = new Map<number, number[]>();
  const hang = (v: number, e: number) => {
    const list = at.get(v);
    if (list) list.push(e);
    else at.set(v, [e]);
  };
  edges.forEach((e, i) => {
    hang(e.a, i);
    hang(e.b, i);
  });
  const open = (v: number) => at.get(v)!.filter((e) => !edges[e].done);
  const strokes: Stroke[] = [];
  const starts = [...at.keys()].sort((p, q) => (at.get(p)!.length === 1 ? 0 : 1) - (at.get(q)!.length === 1 ? 0 : 1));
  for (const seed of starts) {
    if (!open(seed).length) continue;
    // Trail of (edge, forward) back to the seed, for going back along.
    const trail: { edge: number; forward: boolean; node: number }[] = [];
    let v = seed;
    let line: number[] = [];
    const append = (e: Edge, forward: boolean) => {
      const n = e.points.length / 3;
      for (let i = 0; i < n; i++) {
        const k = 3 * (forward ? i : n - 1 - i);
        if (i === 0 && line.length) continue;
        line.push(e.points[k], e.points[k + 1], e.points[k + 2]);
      }
    };
    for (;;) {
      const choices = open(v);
      if (choices.length) {
        let pick = choices[0];
        let best = Infinity;
        for (const e of choices) {
          const far = edges[e].a === v ? edges[e].b : edges[e].a;
          const dead = at.get(far)!.length === 1 || far === v;
          const rank = (dead ? 0 : 1e6) + edges[e].length;
          if (rank < best) {
            best = rank;
            pick = e;
          }
        }
        const e = edges[pick];
        const forward = e.a === v;
        e.done = true;
        append(e, forward);
        trail.push({ edge: pick, forward, node: v });
        v = forward ? e.b : e.a;
        continue;
      }
      // Dead end: back to the nearest node on the trail with something left to do.
      let back = 0;
      let i = trail.length - 1;
      while (i >= 0) {
        back += edges[trail[i].edge].length;
        if (open(trail[i].node).length) break;
        i--;
      }
      if (i < 0) break;
      const z = line[line.length - 1];
      const goal = trail[i].node;
      const g = trail[i].forward ? edges[trail[i].edge].points.slice(0, 3) : edges[trail[i].edge].points.slice(-3);
      const lift =
        (costs.clearance - z) / costs.rapid +
        Math.hypot(g[0] - line[line.length - 3], g[1] - line[line.length - 2]) / costs.rapid +
        (costs.clearance - g[2]) / costs.plunge +
        0.01;
      if (back / costs.feed <= lift) {
        for (let k = trail.length - 1; k >= i; k--) append(edges[trail[k].edge], !trail[k].forward);
      } else {
        strokes.push(Float64Array.from(line));
        line = [];
      }
      trail.length = i;
      v = goal;
    }
    if (line.length >= 6) strokes.push(Float64Array.from(line));
  }
  return strokes;
}
