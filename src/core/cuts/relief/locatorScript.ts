import { jointOf, widthOf } from '../../cutters/form';
import { heightAt, type HeightField } from '../../relief/field';
import type { Locator } from './locator';
import { SIDE, type Besides, type LocatorData } from './locatorData';
import { PLACES, type LocatorParts } from './locatorParts';

/** So often a line is halved: to a thousandth of the way between two nodes. */
const HALVINGS = 10;
/** For each block: those with walls that lie within so many of it; found when they are asked for first. */
function wallsNear(
  firsts: Int32Array,
  across: number,
  up: number,
  reach: number,
): (bx: number, by: number) => Int32Array {
  const known: (Int32Array | undefined)[] = [];
  return (bx, by) =>
    (known[by * across + bx] ??= Int32Array.from(
      (function* () {
        for (let y = Math.max(0, by - reach); y <= Math.min(up - 1, by + reach); y++)
          for (let b = y * across + Math.max(0, bx - reach); b <= y * across + Math.min(across - 1, bx + reach); b++)
            if (firsts[b + 1] > firsts[b]) yield b;
      })(),
    ));
}

/** The list of blocks beside a node of a block. */
function listAt({ room, counts, entries }: Besides, k: number): { bx: number; by: number; least: number }[] {
  const view = new DataView(entries.buffer, entries.byteOffset, entries.byteLength);
  return Array.from({ length: counts[k] }, (_, n) => {
    const at = 16 * (k * room + n);
    return { bx: view.getInt32(at, true), by: view.getInt32(at + 4, true), least: view.getFloat64(at + 8, true) };
  });
}

/**
 * A locator in TypeScript, in doubles.
 *
 * What can be met lies no further from a place than the outline rises from the highest that was found to the greatest height of the
 * blocks round the place: a fine tip goes through all nodes up to there, where they are but some.
 *
 * Where they are many, the contact of the place before is climbed from. Between nodes a location lies no higher than the even surface through those at the four nodes round it, and what a round bends
 * between them: what is found is held against that, and is mostly enough. Elsewhere (where
 * the contact leaps from one hill to the next) blocks of nodes are gone through, in the order in which the outline rises over them,
 * as long as any can hold what is higher.
 */
export function locatorScript(
  { blocks, reach, near, scanned, located, besides, form }: LocatorData,
  { edges, row: need, bend }: LocatorParts,
): Pick<Locator, 'at' | 'restart'> {
  const { f, across, up, tops, top, falls, firsts, wallNodes } = blocks;
  const { cols, rows, cell, x0, y0, z } = f;
  const { radius, core, ball, rise } = form;
  const { out, high } = jointOf(form);
  const core2 = core * core;
  const round = core + out;
  const round2 = round * round;
  const ball2 = ball * ball;
  const radius2 = radius * radius;
  /** Height of the outline at a squared distance within the radius. */
  const outline = (q: number): number => {
    if (q <= core2) return 0;
    if (q <= round2 || rise === Infinity) {
      const d = core ? Math.sqrt(q) - core : 0;
      const left = ball2 - (core ? d * d : q);
      return ball - (left > 0 ? Math.sqrt(left) : 0);
    }
    return high + (Math.sqrt(q) - round) * rise;
  };

  const lists: ReturnType<typeof listAt>[] = [];
  const list = (c: number, r: number) => {
    const k = (r & 7) * SIDE + (c & 7);
    return (lists[k] ??= listAt(besides, k));
  };
  const walls = wallsNear(firsts, across, up, reach);
  const seen: (Float32Array | undefined)[] = [];
  const row = (r: number): Float32Array => {
    const known = seen[r];
    if (known) return known;
    need!(r);
    return (seen[r] = located.z.subarray(r * cols, (r + 1) * cols));
  };
  /** What no location over the surface exceeds by more than a bend; Infinity where that is not known. */
  const atMost = (u: number, v: number): number => {
    if (!need || !(u >= 0 && v >= 0 && u <= cols - 1 && v <= rows - 1)) return Infinity;
    const c = Math.min(cols - 2, Math.floor(u));
    const r = Math.min(rows - 2, Math.floor(v));
    const [low, up] = [row(r), row(r + 1)];
    const [s, t] = [u - c, v - r];
    return (low[c] * (1 - s) + low[c + 1] * s) * (1 - t) + (up[c] * (1 - s) + up[c + 1] * s) * t;
  };

  // Where the cutter was met last, and how far from where it stood, in nodes: the next place is mostly met beside one of the two.
  // What changes lies in arrays: a number that functions share by name is made anew each time it is written.
  const met = new Int32Array(2);
  const offset = new Float64Array(2);
  let begun = false;
  /** The highest so far. */
  const best = new Float64Array(1);
  const ask = (c: number, r: number, u: number, v: number): boolean => {
    if (c < 0 || r < 0 || c >= cols || r >= rows) return false;
    const i = r * cols + c;
    const h = z[i];
    const before = best[0];
    if (!(h > before)) return false;
    const dx = (c - u) * cell;
    const dy = (r - v) * cell;
    const ways = falls[i];
    const q = dx * dx + dy * dy;
    if (ways === 0) {
      if (q > radius2) return false;
      const w = h - outline(q);
      if (!(w > before)) return false;
      best[0] = w;
      met[0] = c;
      met[1] = r;
      return true;
    }
    // Of what falls from it nothing lies nearer than the next node.
    const ax = dx < 0 ? -dx - cell : dx - cell;
    const ay = dy < 0 ? -dy - cell : dy - cell;
    const near = (ax > 0 ? ax * ax : 0) + (ay > 0 ? ay * ay : 0);
    if (near > radius2 || h - outline(near) <= before) return false;
    if (q <= radius2) {
      const w = h - outline(q);
      if (w > before) best[0] = w;
    }
    // Down from it and away from the place nothing is met that is not met by the node itself.
    if (ways & 1 && dx < 0) fall(h, z[i + 1], dx, dy);
    if (ways & 2 && dx > 0) fall(h, z[i - 1], -dx, dy);
    if (ways & 4 && dy < 0) fall(h, z[i + cols], dy, dx);
    if (ways & 8 && dy > 0) fall(h, z[i - cols], -dy, dx);
    if (!(best[0] > before)) return false;
    met[0] = c;
    met[1] = r;
    return true;
  };
  /**
   * The highest along the line from a node down to the next: `along` and `beside` are where the node stands from the place. Surface less
   * outline is concave there, and level where the outline rises along the line as the line falls:
   *
   *     on a round   a = slope sqrt((ball^2 - beside^2) / (1 + slope^2))
   *     on a side    a = slope |beside| / sqrt(rise^2 - slope^2)
   *
   * It is asked there, where the one passes into the other, and at the ends: nothing that is asked is too high.
   */
  function fall(from: number, to: number, along: number, beside: number): void {
    const b2 = beside * beside;
    const nearest = along + cell <= 0 ? along + cell : 0;
    const q = nearest * nearest + b2;
    if (q > radius2 || from - outline(q) <= best[0]) return;
    const most = Math.sqrt(radius2 - b2);
    const a0 = along < -most ? -most : along;
    const a1 = along + cell > most ? most : along + cell;
    const slope = (to - from) / cell;
    const base = from - slope * along;
    askAlong(base, slope, a0, a0, a1, b2);
    if (core === 0 || ball === 0) {
      if (rise < Infinity && rise > -slope)
        askAlong(base, slope, (slope * Math.sqrt(b2)) / Math.sqrt(rise * rise - slope * slope), a0, a1, b2);
      if (ball2 > b2) askAlong(base, slope, slope * Math.sqrt((ball2 - b2) / (1 + slope * slope)), a0, a1, b2);
      if (round2 > b2) askAlong(base, slope, -Math.sqrt(round2 - b2), a0, a1, b2);
      return;
    }
    // A round about a core has no such closed form.
    let [low, high] = [a0, a1];
    for (let k = 0; k < HALVINGS; k++) {
      const a = (low + high) / 2;
      const hair = (high - low) / 64;
      const up = base + slope * (a + hair) - outline((a + hair) * (a + hair) + b2);
      if (up > base + slope * (a - hair) - outline((a - hair) * (a - hair) + b2)) low = a;
      else high = a;
    }
    askAlong(base, slope, (low + high) / 2, a0, a1, b2);
  }
  function askAlong(base: number, slope: number, at: number, a0: number, a1: number, b2: number): void {
    const a = at < a0 ? a0 : at > a1 ? a1 : at;
    const q = a * a + b2;
    if (q > radius2) return;
    const w = base + slope * a - outline(q);
    if (w > best[0]) best[0] = w;
  }
  /** Gives the nodes from which the cutter can be met, so much higher than what was found, where they are no more than so many, to `each`; false where they are more. */
  const nodesWithin = (
    d: number,
    u: number,
    v: number,
    most: number,
    each: (c0: number, r0: number, c1: number, r1: number) => void,
  ): boolean => {
    if (!(d > 0)) return true;
    // What falls from a node is met up to a node nearer.
    const n = widthOf(form, d) / cell + 1;
    const [c0, r0] = [Math.max(0, Math.ceil(u - n)), Math.max(0, Math.ceil(v - n))];
    const [c1, r1] = [Math.min(cols - 1, Math.floor(u + n)), Math.min(rows - 1, Math.floor(v + n))];
    if ((c1 - c0 + 1) * (r1 - r0 + 1) > most) return false;
    each(c0, r0, c1, r1);
    return true;
  };
  /** Goes through all nodes from which the cutter can be met; false where they are too many. */
  const scan = (u: number, v: number, here: number): boolean => {
    if (!scanned || !(u >= 0 && v >= 0 && u <= cols - 1 && v <= rows - 1)) return false;
    if (here > best[0]) best[0] = here;
    let most = -Infinity;
    const block = (Math.floor(v) >> 3) * across + (Math.floor(u) >> 3);
    const few = nodesWithin(near[block] - best[0], u, v, 4 * scanned, (c0, r0, c1, r1) => {
      for (let y = r0 >> 3; y <= r1 >> 3; y++)
        for (let x = c0 >> 3; x <= c1 >> 3; x++) most = Math.max(most, tops[y * across + x]);
    });
    return (
      few &&
      nodesWithin(most - best[0], u, v, scanned, (c0, r0, c1, r1) => {
        for (let r = r0; r <= r1; r++)
          for (let c = c0, i = r * cols + c; c <= c1; c++, i++) if (z[i] > best[0]) ask(c, r, u, v);
      })
    );
  };
  const climb = (u: number, v: number) => {
    // What was asked round the node before is not asked again.
    let [c, r] = [met[0], met[1]];
    let [di, dj] = [0, 0];
    for (;;) {
      for (let j = -1; j <= 1; j++)
        for (let i = -1; i <= 1; i++) {
          if (!i && !j) continue;
          if ((di || dj) && i + di >= -1 && i + di <= 1 && j + dj >= -1 && j + dj <= 1) continue;
          ask(c + i, r + j, u, v);
        }
      if (met[0] === c && met[1] === r) return;
      di = met[0] - c;
      dj = met[1] - r;
      c += di;
      r += dj;
    }
  };
  const search = (u: number, v: number) => {
    const [c0, r0] = [Math.floor(u), Math.floor(v)];
    const [bx0, by0] = [c0 >> 3, r0 >> 3];
    for (const { bx, by, least } of list(c0, r0)) {
      if (top - least <= best[0]) break;
      const cx = bx0 + bx;
      const cy = by0 + by;
      if (cx < 0 || cy < 0 || cx >= across || cy >= up || tops[cy * across + cx] - least <= best[0]) continue;
      const to = Math.min(cols, cx * SIDE + SIDE);
      const end = Math.min(rows, cy * SIDE + SIDE);
      for (let r = cy * SIDE; r < end; r++)
        for (let c = cx * SIDE, i = r * cols + c; c < to; c++, i++) if (z[i] > best[0]) ask(c, r, u, v);
    }
  };
  /** Goes through the nodes from which walls fall. */
  const searchWalls = (u: number, v: number) => {
    const bx = Math.min(cols - 1, Math.floor(u)) >> 3;
    const by = Math.min(rows - 1, Math.floor(v)) >> 3;
    const blocks = walls(bx, by);
    for (let n = 0; n < blocks.length; n++) {
      const block = blocks[n];
      if (tops[block] <= best[0]) continue;
      const cx = SIDE * (block % across);
      const cy = SIDE * Math.floor(block / across);
      // From the place to the nearest that a wall of it reaches: a node further than its own nodes.
      const dx = Math.max(0, cx - 1 - u, u - cx - SIDE) * cell;
      const dy = Math.max(0, cy - 1 - v, v - cy - SIDE) * cell;
      const q = dx * dx + dy * dy;
      if (q > radius2 || tops[block] - outline(q) <= best[0]) continue;
      for (let k = firsts[block]; k < firsts[block + 1]; k++) {
        const i = wallNodes[k];
        if (z[i] > best[0]) ask(i % cols, Math.floor(i / cols), u, v);
      }
    }
  };
  /** Whether anything under an edge can be higher than what was found. */
  const mayMeet = (edge: { readonly high: number }, u: number, v: number): boolean => {
    if (top - edge.high <= best[0]) return false;
    const [c0, r0] = [Math.floor(u), Math.floor(v)];
    for (const { bx, by, least } of list(c0, r0)) {
      if (least > edge.high) break;
      const [cx, cy] = [(c0 >> 3) + bx, (r0 >> 3) + by];
      if (cx >= 0 && cy >= 0 && cx < across && cy < up && tops[cy * across + cx] - edge.high > best[0]) return true;
    }
    return false;
  };
  return {
    restart() {
      begun = false;
    },
    at(x, y) {
      const u = (x - x0) / cell;
      const v = (y - y0) / cell;
      best[0] = -Infinity;
      if (!begun) {
        begun = true;
        met[0] = Math.round(u);
        met[1] = Math.round(v);
        ask(met[0], met[1], u, v);
      } else {
        const [c, r] = [met[0], met[1]];
        ask(c, r, u, v);
        const [a, b] = [Math.round(u + offset[0]), Math.round(v + offset[1])];
        if (a !== c || b !== r) ask(a, b, u, v);
      }
      const here = heightAt(f, x, y);
      if (!scan(u, v, here)) {
        climb(u, v);
        if (here > best[0]) best[0] = here;
        if (here !== here || best[0] < atMost(u, v) - bend) search(u, v);
        else searchWalls(u, v);
      }
      offset[0] = met[0] - u;
      offset[1] = met[1] - v;
      for (let e = 0; e < edges.length; e++) {
        const edge = edges[e];
        if (!mayMeet(edge, u, v)) continue;
        const h = highestRound(f, edge.radius, edge.count, u, v) - edge.high;
        if (h > best[0]) best[0] = h;
      }
      return best[0];
    },
  };
}

/** Heights of a surface, in cells from its first node; -Infinity beyond it and where it is empty. */
function heightIn({ z, cols, rows }: HeightField, a: number, b: number): number {
  if (!(a >= 0 && b >= 0 && a <= cols - 1 && b <= rows - 1)) return -Infinity;
  const c = a === cols - 1 ? cols - 2 : Math.floor(a);
  const r = b === rows - 1 ? rows - 2 : Math.floor(b);
  const i = r * cols + c;
  const s = a - c;
  const t = b - r;
  const h = (z[i] * (1 - s) + z[i + 1] * s) * (1 - t) + (z[i + cols] * (1 - s) + z[i + cols + 1] * s) * t;
  return h === h ? h : -Infinity;
}

/** Heights round a circle, kept from one call to the next. */
const round = new Float64Array(PLACES.most + 1);
/** Between two places round a circle a surface of facets may rise more than once: it is asked at so many more. */
const BETWEEN = 4;

/**
 * Greatest height of a surface on a circle about a place, all in cells: at so many places, and closer about each that is higher than
 * those beside it and may, as much as it differs from them, come to be the highest of all.
 */
function highestRound(f: HeightField, radius: number, count: number, u: number, v: number): number {
  const turn = (2 * Math.PI) / count;
  const at = (angle: number) => heightIn(f, u + radius * Math.cos(angle), v + radius * Math.sin(angle));
  let most = -Infinity;
  // Round the circle by turning what was there before: no sine for each place.
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  for (let k = 0, x = radius, y = 0; k < count; k++) {
    const h = heightIn(f, u + x, v + y);
    round[k] = h;
    if (h > most) most = h;
    [x, y] = [x * cos - y * sin, x * sin + y * cos];
  }
  for (let k = 0; k < count; k++) {
    const h = round[k];
    const [before, after] = [round[k ? k - 1 : count - 1], round[k + 1 < count ? k + 1 : 0]];
    if (!(h >= before && h >= after && h > -Infinity) || h + Math.max(h - before, h - after) < most) continue;
    let [top, best] = [k * turn, h];
    for (let j = 1 - BETWEEN; j < BETWEEN; j++) {
      const angle = (k + j / BETWEEN) * turn;
      const there = j ? at(angle) : h;
      if (there > best) [top, best] = [angle, there];
    }
    let [low, high] = [top - turn / BETWEEN, top + turn / BETWEEN];
    for (let n = 0; n < HALVINGS; n++) {
      const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
      const [ha, hb] = [at(a), at(b)];
      best = Math.max(best, ha, hb);
      if (ha < hb) low = a;
      else high = b;
    }
    if (best > most) most = best;
  }
  return most;
}
