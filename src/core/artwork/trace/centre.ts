import { fitLine } from '../../geometry/fit';
import { axisFor } from '../../geometry/insets';
import type { Path } from '../../geometry/path';
import { components, normalise, simplifyRegion, type Loop, type Region } from '../../geometry/region';

/**
 * Centre lines of strokes: the medial axis of their region without the twigs that run into corners and into the ripple of
 * the pixels. A twig goes when what it adds to the region beyond the disc where it hangs is little:
 * its length + its own clearance - the clearance there, against that clearance. Where lines meet, those that run straight
 * on are one line. Pixels, Y as in the picture.
 */
export interface CentreOptions {
  /** Share of the half width at a joint below which a twig is no line of its own. */
  readonly twig: number;
  /** How far a curve may lie from the centre line, and from which turn (degrees) a bend is a corner. */
  readonly accuracy: number;
  readonly corner: number;
}

interface Branch {
  from: number;
  to: number;
  /** x, y along it, and its clearance at both ends. */
  points: number[];
  r0: number;
  r1: number;
  gone: boolean;
}

/** Outlines are thinned by this much (pixels) before their axis is taken: no centre line moves by more. */
const THIN = 0.12;

export function centreLines(
  loops: readonly Loop[],
  o: CentreOptions,
  progress: (done: number) => void = () => {},
): Path[] {
  const region = simplifyRegion(normalise(loops, 'evenodd'), THIN);
  const parts = components(region);
  return parts.flatMap((part, i) => {
    progress(i / parts.length);
    return linesOf(part, o);
  });
}

function branchesOf(part: Region): Branch[] {
  const { sites, trace: t } = axisFor(part);
  return Array.from({ length: t.edges }, (_, e) => {
    const [p0, p1] = [t.edgePiece[e], t.edgePiece[e + 1]];
    const points = [t.x0[p0] + sites.originX, t.y0[p0] + sites.originY];
    for (let p = p0; p < p1; p++) points.push(t.x1[p] + sites.originX, t.y1[p] + sites.originY);
    return { from: t.edgeFrom[e], to: t.edgeTo[e], points, r0: t.r0[p0], r1: t.r1[p1 - 1], gone: false };
  });
}

const lengthOf = (p: readonly number[]): number => {
  let l = 0;
  for (let i = 2; i < p.length; i += 2) l += Math.hypot(p[i] - p[i - 2], p[i + 1] - p[i - 1]);
  return l;
};
const turnedRound = (p: readonly number[]): number[] => {
  const out: number[] = [];
  for (let i = p.length - 2; i >= 0; i -= 2) out.push(p[i], p[i + 1]);
  return out;
};

/** Joins branches at places where only two meet. */
function joined(list: Branch[]): Branch[] {
  const at = new Map<number, Branch[]>();
  for (const b of list) for (const v of new Set([b.from, b.to])) at.set(v, [...(at.get(v) ?? []), b]);
  for (const [v, meet] of at) {
    const here = meet.filter((b) => !b.gone);
    if (here.length !== 2 || here.some((b) => b.from === b.to)) continue;
    const [a, b] = here;
    const head = a.to === v ? a : { ...a, from: a.to, to: a.from, points: turnedRound(a.points), r0: a.r1, r1: a.r0 };
    const tail = b.from === v ? b : { ...b, from: b.to, to: b.from, points: turnedRound(b.points), r0: b.r1, r1: b.r0 };
    Object.assign(a, {
      from: head.from,
      to: tail.to,
      points: [...head.points, ...tail.points.slice(2)],
      r0: head.r0,
      r1: tail.r1,
    });
    b.gone = true;
    const far = at.get(tail.to);
    if (far && tail.to !== v) at.set(tail.to, [...far.filter((q) => q !== b), a]);
  }
  return list.filter((b) => !b.gone);
}

/** Takes twigs off until only lines are left; all at one joint go together, so that a line ends where its end's disc has its middle. */
function pruned(list: Branch[], twig: number): Branch[] {
  let now = list;
  for (;;) {
    const degree = new Map<number, number>();
    for (const b of now) for (const v of [b.from, b.to]) degree.set(v, (degree.get(v) ?? 0) + 1);
    const before = now.length;
    const left = now.filter((b) => {
      const [a, c] = [degree.get(b.from)!, degree.get(b.to)!];
      if (a > 1 === c > 1) return true;
      const [hang, tip] = a > 1 ? [b.r0, b.r1] : [b.r1, b.r0];
      return (lengthOf(b.points) + tip - hang) / (hang + 0.5) >= twig;
    });
    now = joined(left);
    if (left.length === before) return now;
  }
}

/** Two joints within the stroke's own width of each other are one: where strokes cross, the axis parts and meets again. */
function drawnTogether(list: Branch[]): Branch[] {
  const degree = new Map<number, number>();
  for (const b of list) for (const v of [b.from, b.to]) degree.set(v, (degree.get(v) ?? 0) + 1);
  const same = new Map<number, number>();
  const root = (v: number): number => {
    let r = v;
    while (same.has(r)) r = same.get(r)!;
    return r;
  };
  const left = list.filter((b) => {
    if (
      b.from === b.to ||
      degree.get(b.from)! < 3 ||
      degree.get(b.to)! < 3 ||
      lengthOf(b.points) > 1.5 * Math.max(b.r0, b.r1)
    )
      return true;
    if (root(b.from) !== root(b.to)) same.set(root(b.from), root(b.to));
    return false;
  });
  return left.map((b) => ({ ...b, from: root(b.from), to: root(b.to) }));
}

/** A branch's points from a joint outwards, without those inside the joint's disc, which the other strokes pull aside. */
function fromJoint(b: Branch, start: boolean): number[] {
  const p = start ? b.points : turnedRound(b.points);
  const r = start ? b.r0 : b.r1;
  let k = 0;
  while (k + 4 < p.length && Math.hypot(p[k] - p[0], p[k + 1] - p[1]) < 1.3 * r) k += 2;
  return p.slice(k);
}

/** Lines that run straight on through a joint become one. */
function throughJoints(list: Branch[]): Branch[] {
  const ends = new Map<number, { b: Branch; start: boolean; dx: number; dy: number }[]>();
  for (const b of list) {
    if (b.from === b.to) continue;
    for (const start of [true, false]) {
      const v = start ? b.from : b.to;
      const p = fromJoint(b, start);
      let k = 2;
      while (k + 2 < p.length && Math.hypot(p[k] - p[0], p[k + 1] - p[1]) < 6) k += 2;
      const l = Math.hypot(p[k] - p[0], p[k + 1] - p[1]) || 1;
      ends.set(v, [...(ends.get(v) ?? []), { b, start, dx: (p[k] - p[0]) / l, dy: (p[k + 1] - p[1]) / l }]);
    }
  }
  let fresh = -1;
  for (const [, meet] of ends) {
    if (meet.length < 3) continue;
    const pairs = meet
      .flatMap((p, i) => meet.slice(i + 1).map((q) => ({ p, q, cos: p.dx * q.dx + p.dy * q.dy })))
      .filter((x) => x.p.b !== x.q.b && x.cos < -0.8);
    pairs.sort((x, y) => x.cos - y.cos);
    const used = new Set<unknown>();
    for (const { p, q } of pairs) {
      if (used.has(p) || used.has(q)) continue;
      used.add(p);
      used.add(q);
      // A joint of their own, where only these two meet, in the middle of what is left out.
      const v = fresh--;
      const [a, c] = [fromJoint(p.b, p.start), fromJoint(q.b, q.start)];
      const [mx, my] = [(a[0] + c[0]) / 2, (a[1] + c[1]) / 2];
      for (const [e, points] of [
        [p, a],
        [q, c],
      ] as const) {
        const whole = [mx, my, ...points];
        e.b.points = e.start ? whole : turnedRound(whole);
        e.b[e.start ? 'from' : 'to'] = v;
      }
    }
  }
  return joined(list);
}

function linesOf(part: Region, o: CentreOptions): Path[] {
  return throughJoints(drawnTogether(pruned(branchesOf(part), o.twig)))
    .filter((b) => b.points.length >= 4)
    .flatMap((b): Path[] => {
      const points = Float64Array.from(b.points);
      const segments = fitLine(points, { tolerance: o.accuracy, corners: bends(points, o.corner), window: 3 });
      if (!segments.length) return [];
      const last = segments[segments.length - 1];
      const closed = b.from === b.to && Math.hypot(last.x - points[0], last.y - points[1]) < 1e-6;
      return [{ x: points[0], y: points[1], segments, closed }];
    });
}

/** Points where a line turns by a corner's angle within a few pixels. */
function bends(p: Float64Array, degrees: number): number[] {
  const out: number[] = [];
  const n = p.length / 2;
  const reach = (i: number, step: number): number => {
    let k = i;
    while (k + step >= 0 && k + step < n && Math.hypot(p[2 * k] - p[2 * i], p[2 * k + 1] - p[2 * i + 1]) < 4) k += step;
    return k;
  };
  let best = { i: -1, turn: 0 };
  for (let i = 1; i + 1 < n; i++) {
    const [a, b] = [reach(i, -1), reach(i, 1)];
    const [ux, uy, vx, vy] = [
      p[2 * i] - p[2 * a],
      p[2 * i + 1] - p[2 * a + 1],
      p[2 * b] - p[2 * i],
      p[2 * b + 1] - p[2 * i + 1],
    ];
    const turn = Math.abs((Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) * 180) / Math.PI);
    if (turn < degrees + 12) {
      if (best.i >= 0) out.push(best.i);
      best = { i: -1, turn: 0 };
    } else if (turn > best.turn) best = { i, turn };
  }
  if (best.i >= 0) out.push(best.i);
  return out;
}
