import { Places, UNITS_PER_MM } from '../places';
import { distinct } from '../region';

/**
 * The sites of a medial axis: the open segments of one connected region and its reflex corners.
 *
 * Segments are numbered 0..count-1 in boundary order, interior on the left; the corner at the start
 * of segment i is site `count + i`. Only reflex corners (the boundary turns right) own area.
 *
 * Corners are moved by a fixed pseudo-random step (`nudge`, mm) that depends on their coordinates
 * alone. It puts the sites in general position, so that no four of them are equidistant from one
 * point and every node of the axis has exactly three contacts. The step is far below the
 * 10 nm grid of the input, and corners that coincide stay together.
 */
export interface Sites {
  readonly count: number;
  readonly originX: number;
  readonly originY: number;
  readonly ax: Float64Array;
  readonly ay: Float64Array;
  /** Unit direction of each segment; its normal into the region is (-dy, dx). */
  readonly dx: Float64Array;
  readonly dy: Float64Array;
  readonly length: Float64Array;
  /** Offset of each segment's line: normal . a. */
  readonly offset: Float64Array;
  readonly next: Int32Array;
  readonly prev: Int32Array;
  /** 1 where the corner at the start of the segment is reflex. */
  readonly reflex: Uint8Array;
  readonly loops: number;
  /** Whether loops touch, in a point or along a slit: the inside may then fall into parts. */
  readonly weaklySimple: boolean;
}

/** A hash of two doubles and a seed to [-1, 1); equal coordinates give equal values. */
function scatter(x: number, y: number, seed: number): number {
  let h =
    Math.imul(Math.round(x * UNITS_PER_MM) | 0, 0x9e3779b1) ^ Math.imul(Math.round(y * UNITS_PER_MM) | 0, 0x85ebca6b);
  h ^= Math.imul(seed + 1, 0xc2b2ae35);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  h ^= h >>> 15;
  return (h >>> 0) / 2147483648 - 1;
}

/**
 * Loops (x, y interleaved, mm, outer counter-clockwise, holes clockwise, no repeated last point) to
 * sites. Loops that touch in a point are linked anew there, so that each corner is one interior wedge.
 */
export function makeSites(source: readonly Float64Array[], perturbation: number, seed: number): Sites {
  const whole = source.map(distinct).filter((l) => l.length >= 6);
  const loops = withoutSlits(whole);
  let count = 0;
  let minX = Infinity;
  let minY = Infinity;
  let maxX = -Infinity;
  let maxY = -Infinity;
  for (const loop of loops) {
    count += loop.length / 2;
    for (let i = 0; i < loop.length; i += 2) {
      if (loop[i] < minX) minX = loop[i];
      if (loop[i] > maxX) maxX = loop[i];
      if (loop[i + 1] < minY) minY = loop[i + 1];
      if (loop[i + 1] > maxY) maxY = loop[i + 1];
    }
  }
  // Distances are taken about the middle of the region: fewer digits are lost to large coordinates.
  const originX = Math.round((minX + maxX) / 2);
  const originY = Math.round((minY + maxY) / 2);
  const px = new Float64Array(count);
  const py = new Float64Array(count);
  const next = new Int32Array(count);
  const prev = new Int32Array(count);
  let k = 0;
  for (const loop of sortedAlongCurve(loops, minX, minY, Math.max(maxX - minX, maxY - minY))) {
    const first = k;
    const n = loop.length / 2;
    for (let i = 0; i < n; i++, k++) {
      px[k] = loop[2 * i];
      py[k] = loop[2 * i + 1];
      next[k] = first + ((i + 1) % n);
      prev[k] = first + ((i + n - 1) % n);
    }
  }
  const weaklySimple = linkWedges(px, py, next, prev) || loops !== whole;

  const ax = new Float64Array(count);
  const ay = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    ax[i] = px[i] - originX + perturbation * scatter(px[i], py[i], 2 * seed);
    ay[i] = py[i] - originY + perturbation * scatter(px[i], py[i], 2 * seed + 1);
  }
  const dx = new Float64Array(count);
  const dy = new Float64Array(count);
  const length = new Float64Array(count);
  const offset = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    const j = next[i];
    const ex = ax[j] - ax[i];
    const ey = ay[j] - ay[i];
    const l = Math.sqrt(ex * ex + ey * ey);
    length[i] = l;
    dx[i] = ex / l;
    dy[i] = ey / l;
    offset[i] = -dy[i] * ax[i] + dx[i] * ay[i];
  }
  const reflex = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const p = prev[i];
    reflex[i] = dx[p] * dy[i] - dy[p] * dx[i] < 0 ? 1 : 0;
  }
  return {
    count,
    originX,
    originY,
    ax,
    ay,
    dx,
    dy,
    length,
    offset,
    next,
    prev,
    reflex,
    loops: countLoops(next),
    weaklySimple: weaklySimple,
  };
}

function countLoops(next: Int32Array): number {
  const seen = new Uint8Array(next.length);
  let loops = 0;
  for (let i = 0; i < next.length; i++) {
    if (seen[i]) continue;
    loops++;
    for (let j = i; !seen[j]; j = next[j]) seen[j] = 1;
  }
  return loops;
}

/** Loops in Morton order of their middles, so that neighbours in the search tree are neighbours on the plane. */
function sortedAlongCurve(loops: readonly Float64Array[], x0: number, y0: number, size: number): Float64Array[] {
  if (loops.length < 3) return [...loops];
  const spread = (v: number) => {
    v = (v | (v << 8)) & 0x00ff00ff;
    v = (v | (v << 4)) & 0x0f0f0f0f;
    v = (v | (v << 2)) & 0x33333333;
    return (v | (v << 1)) & 0x55555555;
  };
  const keyed = loops.map((loop) => {
    const x = Math.min(65535, Math.max(0, Math.floor(((loop[0] - x0) / size) * 65535)));
    const y = Math.min(65535, Math.max(0, Math.floor(((loop[1] - y0) / size) * 65535)));
    return { loop, key: (spread(x) | (spread(y) << 1)) >>> 0 };
  });
  keyed.sort((a, b) => a.key - b.key);
  return keyed.map((k) => k.loop);
}

/** Where several corners share a point, follow the boundary so that each incoming segment continues along its own wedge. */
function linkWedges(px: Float64Array, py: Float64Array, next: Int32Array, prev: Int32Array): boolean {
  const places = new Places(px.length);
  // Nearly always no two corners share a place.
  for (let i = 0; i < px.length; i++) places.of(px[i], py[i]);
  if (places.count === px.length) return false;
  const at = new Map<number, number | number[]>();
  for (let i = 0; i < px.length; i++) {
    const key = places.of(px[i], py[i]);
    const there = at.get(key);
    if (there === undefined) at.set(key, i);
    else if (typeof there === 'number') at.set(key, [there, i]);
    else there.push(i);
  }
  for (const group of at.values()) {
    if (typeof group === 'number') continue;
    const incoming = group.map((i) => prev[i]);
    const free = new Set(group);
    const links: [number, number][] = [];
    for (const from of incoming) {
      const i = next[from];
      const backX = px[from] - px[i];
      const backY = py[from] - py[i];
      let best = -1;
      let bestTurn = Infinity;
      for (const j of free) {
        const ox = px[next[j]] - px[j];
        const oy = py[next[j]] - py[j];
        // Clockwise angle from the way back to the way out sweeps the interior wedge.
        let turn = -Math.atan2(backX * oy - backY * ox, backX * ox + backY * oy);
        if (turn <= 1e-15) turn += 2 * Math.PI;
        if (turn < bestTurn) {
          bestTurn = turn;
          best = j;
        }
      }
      free.delete(best);
      links.push([from, best]);
    }
    for (const [from, to] of links) {
      next[from] = to;
      prev[to] = from;
    }
  }
  return true;
}

/**
 * Loops without segments that are run both ways: slits of no width, which the integer algebra may leave
 * between pieces that touch along a line. They bound nothing.
 */
function withoutSlits(loops: readonly Float64Array[]): readonly Float64Array[] {
  const corners = loops.reduce((n, l) => n + l.length / 2, 0);
  const places = new Places(corners);
  const nameOf = (x: number, y: number) => places.of(x, y);
  for (const l of loops) for (let i = 0; i < l.length; i += 2) nameOf(l[i], l[i + 1]);
  // A slit needs corners that coincide; nearly always there are none.
  if (places.count === corners) return loops;
  const x: number[] = [];
  const y: number[] = [];
  const next: number[] = [];
  const prev: number[] = [];
  for (const l of loops) {
    const first = x.length;
    const n = l.length / 2;
    for (let i = 0; i < n; i++) {
      x.push(l[2 * i]);
      y.push(l[2 * i + 1]);
      next.push(first + ((i + 1) % n));
      prev.push(first + ((i + n - 1) % n));
    }
  }
  const dead = new Uint8Array(x.length);
  const join = (a: number, b: number) => {
    next[a] = b;
    prev[b] = a;
  };
  for (let again = true; again;) {
    again = false;
    const ways = new Map<string, number>();
    for (let i = 0; i < x.length; i++) {
      if (dead[i]) continue;
      const from = nameOf(x[i], y[i]);
      const to = nameOf(x[next[i]], y[next[i]]);
      const j = ways.get(`${to}/${from}`);
      if (j === undefined) {
        ways.set(`${from}/${to}`, i);
        continue;
      }
      ways.delete(`${to}/${from}`);
      dead[i] = dead[j] = 1;
      again = true;
      const [pi, ni, pj, nj] = [prev[i], next[i], prev[j], next[j]];
      if (ni === j && nj === i) continue;
      if (ni === j) join(pi, nj);
      else if (nj === i) join(pj, ni);
      else {
        join(pi, nj);
        join(pj, ni);
      }
    }
  }
  const out: Float64Array[] = [];
  for (let i = 0; i < x.length; i++) {
    if (dead[i]) continue;
    const loop: number[] = [];
    for (let k = i; !dead[k]; k = next[k]) {
      dead[k] = 1;
      loop.push(x[k], y[k]);
    }
    if (loop.length >= 6) out.push(Float64Array.from(loop));
  }
  return out;
}
