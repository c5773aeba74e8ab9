import { stillWanted } from '../../units/stillWanted';
import { Points } from '../../geometry/points';
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

/** A piece of a branch that is cut: its points are data[start] to data[end - 1], x, y, z interleaved. */
interface Edge {
  readonly start: number;
  readonly end: number;
  readonly a: number;
  readonly b: number;
  readonly length: number;
  done: boolean;
}

const lengthOf = (p: Float64Array, start: number, end: number): number => {
  let sum = 0;
  for (let i = start + 3; i < end; i += 3) {
    const [dx, dy, dz] = [p[i] - p[i - 3], p[i + 1] - p[i - 2], p[i + 2] - p[i - 1]];
    sum += Math.sqrt(dx * dx + dy * dy + dz * dz);
  }
  return sum;
};

/** Whether one of the limits lies between two clearances: of most chords none does. */
function crossed(limits: readonly number[], a: number, b: number): boolean {
  for (const l of limits) if ((l - a) * (l - b) < 0) return true;
  return false;
}

/**
 * What of the branches has a clearance between `low` and `high`. Ends of branches keep the numbers of their nodes, ends at a limit are
 * numbered below nought.
 */
function edgesOf(
  b: Branches,
  low: number,
  high: number,
  saturation: number,
  height: (r: number) => number,
): { readonly data: Float64Array; readonly edges: Edge[] } {
  const all = new Points();
  const edges: Edge[] = [];
  // Each once: a limit that is met twice at one place would begin a stroke and end it there.
  const limits = [...new Set([low, high, saturation])];
  let fresh = -1;
  let start = 0;
  let a = 0;
  const close = (end: number) => {
    if (all.length - start < 6) all.length = start;
    else edges.push({ start, end: all.length, a, b: end, length: lengthOf(all.data, start, all.length), done: false });
    start = all.length;
  };
  /** Takes in where the limits are crossed along the chord that ends at sample k, in order. */
  const cross = (k: number) => {
    const [px, py, pr, x, y, r] = b.samples.subarray(3 * k - 3, 3 * k + 3);
    const marks = limits
      .map((lim) => ({ lim, f: (lim - pr) / (r - pr) }))
      .filter(({ f }) => f > 1e-12 && f < 1 - 1e-12);
    marks.sort((p, q) => p.f - q.f);
    for (const { lim, f } of marks) {
      const within = all.length > start;
      // The knee is a corner of the stroke; the others begin it or end it.
      const knee = lim === saturation && lim !== high && lim !== low;
      if (knee && !within) continue;
      if (!within) a = fresh--;
      all.push(px + (x - px) * f, py + (y - py) * f, height(pr + (r - pr) * f));
      if (within && !knee) close(fresh--);
    }
  };
  for (let e = 0; e < b.count; e++) {
    stillWanted();
    a = b.from[e];
    for (let k = b.start[e]; k < b.start[e + 1]; k++) {
      const r = b.samples[3 * k + 2];
      if (k > b.start[e] && crossed(limits, b.samples[3 * k - 1], r)) cross(k);
      if (r >= low && r <= high) {
        // A sample that lies on a limit itself begins a piece of its own.
        if (all.length === start) a = k === b.start[e] ? b.from[e] : fresh--;
        all.push(b.samples[3 * k], b.samples[3 * k + 1], height(r));
      } else if (all.length > start) close(fresh--);
    }
    close(b.to[e]);
  }
  return { data: all.data, edges };
}

/**
 * Joins branches into long strokes. Each branch is cut to the clearances between `low` and `high`; the tip's height comes from
 * `height`, which falls evenly with the clearance up to `saturation` and is level beyond. Strokes run depth first, short dead ends
 * before long ways, and come back along a finished branch when that takes less time than lifting.
 */
export function makeStrokes(
  b: Branches,
  low: number,
  high: number,
  saturation: number,
  height: (r: number) => number,
  costs: StrokeCosts,
): Stroke[] {
  const { data, edges } = edgesOf(b, low, high, saturation, height);
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
  const line = new Points();
  const starts = [...at.keys()].sort((p, q) => (at.get(p)!.length === 1 ? 0 : 1) - (at.get(q)!.length === 1 ? 0 : 1));
  for (const seed of starts) {
    if (!open(seed).length) continue;
    // Trail of (edge, forward) back to the seed, for going back along.
    const trail: { edge: number; forward: boolean; node: number }[] = [];
    let v = seed;
    line.length = 0;
    const append = (e: Edge, forward: boolean) => {
      // Where the line goes on, it stands on the first point already.
      const skipped = line.length ? 3 : 0;
      if (forward) for (let k = e.start + skipped; k < e.end; k += 3) line.push(data[k], data[k + 1], data[k + 2]);
      else for (let k = e.end - 3 - skipped; k >= e.start; k -= 3) line.push(data[k], data[k + 1], data[k + 2]);
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
      const [x, y, z] = line.data.subarray(line.length - 3, line.length);
      const goal = trail[i].node;
      const { start, end } = edges[trail[i].edge];
      const [gx, gy, gz] = trail[i].forward ? data.subarray(start, start + 3) : data.subarray(end - 3, end);
      const lift =
        (costs.clearance - z) / costs.rapid +
        Math.hypot(gx - x, gy - y) / costs.rapid +
        (costs.clearance - gz) / costs.plunge +
        0.01;
      if (back / costs.feed <= lift) {
        for (let k = trail.length - 1; k >= i; k--) append(edges[trail[k].edge], !trail[k].forward);
      } else {
        strokes.push(line.data.slice(0, line.length));
        line.length = 0;
      }
      trail.length = i;
      v = goal;
    }
    if (line.length >= 6) strokes.push(line.data.slice(0, line.length));
  }
  return strokes;
}
