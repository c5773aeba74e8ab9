import { branchesFor } from '../../geometry/insets';
import { components, type Region } from '../../geometry/region';

/** A circle that the cutter's centre runs, of radius 0 where the room is only as wide as the cutter. mm. */
export interface Disc {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** From one disc to the next: what lies inside `from` is cleared already. */
export interface DiscStep {
  readonly from: Disc;
  readonly to: Disc;
  /** The medial axis between the two, x, y interleaved, both ends included. */
  readonly between: readonly number[];
  /** How the cutter gets back to `from` when it comes from elsewhere: along these points, all cleared. */
  readonly back: readonly number[] | null;
}

/** One connected place to clear: entered at its widest disc. */
export interface DiscPlace {
  readonly root: Disc;
  readonly steps: readonly DiscStep[];
}

/** What is left to the pass along the wall, mm. */
const KEEP = 0.02;

/**
 * By how much a circle of radius `r` (of the cutter's centre) may reach beyond what is cleared, so that a cutter of radius `R`
 * is engaged over no wider an angle than on a straight way with step-over `step`. Where the room is hardly wider than the
 * cutter no such step exists; a quarter of the step-over is taken there.
 */
export function reachBeyond(r: number, R: number, step: number): number {
  const cos = 1 - Math.min(2, step / R);
  const inner = Math.sqrt(Math.max(0, r * r + R * R + 2 * r * R * cos));
  return Math.max(step / 4, Math.min(step, r + R - inner));
}

/** Part of the medial axis on which the cutter fits: x, y, r interleaved. */
interface Way {
  readonly points: number[];
  readonly a: number;
  readonly b: number;
  done: boolean;
}

/**
 * Discs of the medial axis whose circles clear a region with even engagement: from the widest disc outwards, each next one
 * reaching beyond what is cleared by `reachBeyond` at most. After Elber, Cohen and Drake, "MATHSM: medial axis transform toward
 * high speed machining of pockets" (2005). What the discs leave along the wall is thinner than 0.3 `step`. `chord`: by how much the axis' chords may stray, mm. Throws AxisError.
 */
export function discPlaces(region: Region, R: number, step: number, chord: number): DiscPlace[] {
  const out: DiscPlace[] = [];
  for (const part of components(region)) {
    const branches = branchesFor(part, chord, 0.3 * step);
    const ways: Way[] = [];
    let fresh = -1;
    for (let e = 0; e < branches.count; e++) {
      let points: number[] = [];
      let a = branches.from[e];
      for (let k = branches.start[e]; k < branches.start[e + 1]; k++) {
        const [x, y, c] = branches.samples.subarray(3 * k, 3 * k + 3);
        const before = k > branches.start[e] ? branches.samples[3 * k - 1] : c;
        if (before >= R !== c >= R) {
          const f = (R - before) / (c - before);
          points.push(
            branches.samples[3 * k - 3] + f * (x - branches.samples[3 * k - 3]),
            branches.samples[3 * k - 2] + f * (y - branches.samples[3 * k - 2]),
            0,
          );
          if (c < R) {
            if (points.length > 3) ways.push({ points, a, b: fresh--, done: false });
            points = [];
          } else a = fresh--;
        }
        if (c >= R) points.push(x, y, Math.max(0, c - R - KEEP));
      }
      if (points.length > 3) ways.push({ points, a, b: branches.to[e], done: false });
    }
    for (let i = 0; i < branches.plunges.length; i += 3) {
      const [x, y, c] = branches.plunges.subarray(i, i + 3);
      if (c >= R) out.push({ root: { x, y, r: Math.max(0, c - R - KEEP) }, steps: [] });
    }
    out.push(...placesOf(ways, R, step));
  }
  return out;
}

/** The connected sets of ways, each walked from its widest point. */
function placesOf(ways: Way[], R: number, step: number): DiscPlace[] {
  const at = new Map<number, Way[]>();
  const hang = (w: Way) => {
    for (const v of w.a === w.b ? [w.a] : [w.a, w.b]) {
      const list = at.get(v);
      if (list) list.push(w);
      else at.set(v, [w]);
    }
  };
  ways.forEach(hang);
  const seen = new Set<Way>();
  const out: DiscPlace[] = [];
  for (const first of ways) {
    if (seen.has(first)) continue;
    const group: Way[] = [first];
    seen.add(first);
    for (let i = 0; i < group.length; i++)
      for (const v of [group[i].a, group[i].b])
        for (const w of at.get(v)!)
          if (!seen.has(w)) {
            seen.add(w);
            group.push(w);
          }
    let wide = group[0];
    let index = 0;
    for (const w of group)
      for (let k = 2; k < w.points.length; k += 3)
        if (w.points[k] > wide.points[3 * index + 2]) {
          wide = w;
          index = (k - 2) / 3;
        }
    const root: Disc = { x: wide.points[3 * index], y: wide.points[3 * index + 1], r: wide.points[3 * index + 2] };
    // The way is cut in two where its widest point is.
    const middle = -1e9;
    wide.done = true;
    const halves: Way[] = [
      { points: wide.points.slice(0, 3 * index + 3), a: wide.a, b: middle, done: false },
      { points: wide.points.slice(3 * index), a: middle, b: wide.b, done: false },
    ];
    const local = new Map<number, Way[]>([[middle, halves]]);
    const waysAt = (v: number) =>
      [
        ...(at.get(v) ?? []),
        ...(local.get(v) ?? []),
        ...halves.filter((h) => v !== middle && (h.a === v || h.b === v)),
      ].filter((w) => !w.done);
    out.push({ root, steps: walk(root, middle, waysAt, R, step) });
  }
  return out;
}

/** Depth first, the shorter way first; back along what is cleared. */
function walk(root: Disc, seed: number, waysAt: (v: number) => Way[], R: number, step: number): DiscStep[] {
  const steps: DiscStep[] = [];
  /** Points walked since the root, and where in them the last disc stands. */
  let spine: number[] = [root.x, root.y];
  let front = root;
  let frontAt = 0;
  let back: number[] | null = null;
  const place = (disc: Disc) => {
    const between = spine.slice(frontAt);
    steps.push({ from: front, to: disc, between: [...between, disc.x, disc.y], back });
    back = null;
    spine.push(disc.x, disc.y);
    frontAt = spine.length - 2;
    front = disc;
  };
  const beyond = (x: number, y: number, r: number) => Math.hypot(x - front.x, y - front.y) + r - front.r;
  const trail: { node: number; front: Disc; frontAt: number; length: number }[] = [];
  let node = seed;
  for (;;) {
    const open = waysAt(node);
    if (!open.length) {
      const last = trail.pop();
      if (!last) return steps;
      if (!waysAt(last.node).length) continue;
      // To the disc before that node, and then out again to the node.
      const home = spine.slice(last.frontAt, frontAt + 2);
      // On top of a way back after which nothing was found to cut.
      back ??= [];
      for (let i = home.length - 2; i >= 0; i -= 2) back.push(home[i], home[i + 1]);
      spine = spine.slice(0, last.length);
      front = last.front;
      frontAt = last.frontAt;
      node = last.node;
      continue;
    }
    const way = open.reduce((p, q) => (q.points.length < p.points.length ? q : p));
    way.done = true;
    if (open.length > 1) trail.push({ node, front, frontAt, length: spine.length });
    const forward = way.a === node;
    const n = way.points.length / 3;
    const point = (i: number) => 3 * (forward ? i : n - 1 - i);
    let [x, y, r] = way.points.slice(point(0), point(0) + 3);
    for (let i = 1; i < n; i++) {
      const [ex, ey, er] = way.points.slice(point(i), point(i) + 3);
      while (beyond(ex, ey, er) > reachBeyond(er, R, step)) {
        let low = 0;
        let high = 1;
        for (let k = 0; k < 40; k++) {
          const f = (low + high) / 2;
          const q = r + f * (er - r);
          if (beyond(x + f * (ex - x), y + f * (ey - y), q) > reachBeyond(q, R, step)) high = f;
          else low = f;
        }
        x += high * (ex - x);
        y += high * (ey - y);
        r += high * (er - r);
        place({ x, y, r });
      }
      [x, y, r] = [ex, ey, er];
      spine.push(x, y);
    }
    node = forward ? way.b : way.a;
    // At an end the last bit is taken too, unless the pass along the wall takes it anyway.
    if (!waysAt(node).length && beyond(x, y, r) > 0.1 * step) place({ x, y, r });
  }
}
