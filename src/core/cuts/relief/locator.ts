import { heightOf, jointOf, widthOf, type CutterForm } from '../../cutters/form';
import { locationKernel } from '../../kernels/locationKernel';
import { heightAt, type HeightField } from '../../relief/field';
import { derived } from '../../geometry/hash';
import { locatorData, roundness, SIDE, type LocatorData } from './locatorData';

/**
 * Cutter location over a surface at any place: how low a cutter may stand there without cutting into the surface,
 *
 *     z(p) = max { surface(q) - outline(|q - p|) : q within the cutter's radius of p }
 *
 * over the bilinear surface between its nodes, not over the nodes alone. A round touches the surface between nodes that lie h apart
 * no more than h^2 / (4 R) higher than at one of them (half the diagonal of a square is the furthest from its corners), so nodes are
 * put in until that is little. Where the surface is steep its nodes lie far apart for all that: there the straight line from one to the
 * next is asked for its own highest place. An edge (the rim of a flat tip, the end of the cutter) touches at any place of its circle: it
 * is asked all round. Empty places (NaN) and what lies beyond the surface are nothing. Errors are meant across the surface: on a wall
 * that is a small way sideways, and a larger one up and down.
 */
export interface Locator {
  /** Height of the cutter's lowest point, mm; -Infinity where there is nothing under the cutter. */
  at(x: number, y: number): number;
  /** Forgets where the cutter was met last: what it says from here on depends on nothing that it was asked before. */
  restart(): void;
  /** Places along a path so far apart (mm) that between two of them the height bends by no more than the tolerance. */
  readonly step: number;
  /** Most by which the cutter can cut into the surface, mm: more than the tolerance where there is no room for as many nodes. */
  readonly error: number;
}

/** So often a line is halved: to a thousandth of the way between two nodes. */
const HALVINGS = 10;
/** Round an edge it is asked at so many places, and at so many for each square root of a millimetre. */
const PLACES = { least: 16, most: 720, per: 60 };

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

/** Locators of several cutters over one surface. */
export const locatorsOver =
  (surface: HeightField) =>
  (form: CutterForm, tolerance: number): Locator =>
    locatorBy(locatorData(surface, form, tolerance));

const kernels = derived<Float32Array, ReturnType<typeof locationKernel>>();

/** A block beside that of a place: by how many blocks, and the least height of the outline over it. */
interface Beside {
  readonly bx: number;
  readonly by: number;
  readonly least: number;
}

/**
 * A locator by its data.
 *
 * Between nodes a location lies no higher than the even surface through those at the four nodes round it, and what a round bends
 * between them: what is found beside the contact of the place before is held against that, and is mostly enough. Elsewhere (where
 * the contact leaps from one hill to the next) blocks of nodes are gone through, in the order in which the outline rises over them,
 * as long as any can hold what is higher.
 */
export function locatorBy({ blocks, located, form, tolerance, apart }: LocatorData): Locator {
  const { f, across, up, tops, top, lowest, falls, firsts, wallNodes } = blocks;
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

  // For each node of a block, blocks in the order in which the outline rises: a place lies in the square of nodes beyond it.
  const lists: (readonly Beside[] | undefined)[] = [];
  const besides = (px: number, py: number): readonly Beside[] => {
    const list: Beside[] = [];
    const reach = Math.ceil(radius / cell / SIDE) + 1;
    /** Nodes between the square and a block, along one axis. */
    const away = (b: number, p: number) => Math.max(0, b * SIDE - p - 1, p - (b * SIDE + SIDE - 1));
    for (let by = -reach; by <= reach; by++)
      for (let bx = -reach; bx <= reach; bx++) {
        const rho = cell * Math.hypot(away(bx, px), away(by, py));
        // From a node that lies no more than the diagonal of a cell beyond the cutter the surface comes down into it.
        if (rho <= radius + Math.SQRT2 * cell) list.push({ bx, by, least: heightOf(form, Math.min(rho, radius)) });
      }
    return list.sort((a, b) => a.least - b.least);
  };

  // Where the outline has an edge: of a flat tip, and where the cutter ends, unless it ends upright out of a round.
  const edges = [
    ...(core > 0 && ball === 0 && core < radius ? [core] : []),
    ...(ball > 0 && rise === Infinity ? [] : [radius]),
  ].map((r) => {
    const count = Math.ceil(
      Math.min(PLACES.most, Math.max(PLACES.least, PLACES.per * Math.sqrt(2 * r), (2 * Math.PI * r) / cell)),
    );
    return { high: heightOf(form, r), radius: r / cell, count };
  });

  // Over the surface no cutter stands lower than it is there: what of the cutter is higher than all of the surface is not met.
  const low = { ...form, radius: Math.min(radius, widthOf(form, top - lowest) + cell) };
  const over = kernels(f.z, '', () => locationKernel(f, 1))?.(low) ?? null;
  const walls = wallsNear(firsts, across, up, Math.ceil(low.radius / cell / SIDE) + 1);
  const seen: (Float32Array | undefined)[] = [];
  const row = (r: number): Float32Array => {
    const known = seen[r];
    if (known) return known;
    const mine = (seen[r] = located.z.subarray(r * cols, (r + 1) * cols));
    if (!Atomics.load(located.have, r)) {
      mine.set(over!.row(r));
      Atomics.store(located.have, r, 1);
    }
    return mine;
  };
  const bend = Math.min(tolerance, (cell * cell) / (4 * roundness(form)));
  /** What no location over the surface exceeds by more than a bend; Infinity where that is not known. */
  const atMost = (u: number, v: number): number => {
    if (!over || !(u >= 0 && v >= 0 && u <= cols - 1 && v <= rows - 1)) return Infinity;
    const c = Math.min(cols - 2, Math.floor(u));
    const r = Math.min(rows - 2, Math.floor(v));
    const [low, up] = [row(r), row(r + 1)];
    const [s, t] = [u - c, v - r];
    return (low[c] * (1 - s) + low[c + 1] * s) * (1 - t) + (up[c] * (1 - s) + up[c + 1] * s) * t;
  };

  // Where the cutter was met last: the next place is mostly met there too, or beside it.
  let [metC, metR] = [-1, -1];
  let best = -Infinity;
  const ask = (c: number, r: number, u: number, v: number): boolean => {
    if (c < 0 || r < 0 || c >= cols || r >= rows) return false;
    const i = r * cols + c;
    const h = z[i];
    if (!(h > best)) return false;
    const dx = (c - u) * cell;
    const dy = (r - v) * cell;
    const ways = falls[i];
    if (ways) {
      // Of what falls from it nothing lies nearer than the next node.
      const ax = dx < 0 ? -dx - cell : dx - cell;
      const ay = dy < 0 ? -dy - cell : dy - cell;
      const near = (ax > 0 ? ax * ax : 0) + (ay > 0 ? ay * ay : 0);
      if (near > radius2 || h - outline(near) <= best) return false;
    }
    const q = dx * dx + dy * dy;
    const w = q > radius2 ? -Infinity : h - outline(q);
    const before = best;
    if (w > best) best = w;
    // Down from it and away from the place nothing is met that is not met by the node itself.
    if (ways) {
      if (ways & 1 && dx < 0) fall(h, z[i + 1], dx, dy);
      if (ways & 2 && dx > 0) fall(h, z[i - 1], -dx, dy);
      if (ways & 4 && dy < 0) fall(h, z[i + cols], dy, dx);
      if (ways & 8 && dy > 0) fall(h, z[i - cols], -dy, dx);
    }
    if (!(best > before)) return false;
    metC = c;
    metR = r;
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
    if (q > radius2 || from - outline(q) <= best) return;
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
    if (w > best) best = w;
  }
  const climb = (u: number, v: number) => {
    for (let more = true; more; ) {
      more = false;
      const [c, r] = [metC, metR];
      for (let j = -1; j <= 1; j++) for (let i = -1; i <= 1; i++) if ((i || j) && ask(c + i, r + j, u, v)) more = true;
    }
  };
  const search = (u: number, v: number) => {
    const [c0, r0] = [Math.floor(u), Math.floor(v)];
    const [bx0, by0] = [c0 >> 3, r0 >> 3];
    const list = (lists[(r0 & 7) * SIDE + (c0 & 7)] ??= besides(c0 & 7, r0 & 7));
    for (let n = 0; n < list.length; n++) {
      const { bx, by, least } = list[n];
      if (top - least <= best) break;
      const cx = bx0 + bx;
      const cy = by0 + by;
      if (cx < 0 || cy < 0 || cx >= across || cy >= up || tops[cy * across + cx] - least <= best) continue;
      const to = Math.min(cols, cx * SIDE + SIDE);
      const end = Math.min(rows, cy * SIDE + SIDE);
      for (let r = cy * SIDE; r < end; r++)
        for (let c = cx * SIDE, i = r * cols + c; c < to; c++, i++) if (z[i] > best) ask(c, r, u, v);
    }
  };
  /** Goes through the nodes from which walls fall. */
  const searchWalls = (u: number, v: number) => {
    const bx = Math.min(cols - 1, Math.floor(u)) >> 3;
    const by = Math.min(rows - 1, Math.floor(v)) >> 3;
    const blocks = walls(bx, by);
    for (let n = 0; n < blocks.length; n++) {
      const block = blocks[n];
      if (tops[block] <= best) continue;
      const cx = SIDE * (block % across);
      const cy = SIDE * Math.floor(block / across);
      // From the place to the nearest that a wall of it reaches: a node further than its own nodes.
      const dx = Math.max(0, cx - 1 - u, u - cx - SIDE) * cell;
      const dy = Math.max(0, cy - 1 - v, v - cy - SIDE) * cell;
      const q = dx * dx + dy * dy;
      if (q > radius2 || tops[block] - outline(q) <= best) continue;
      for (let k = firsts[block]; k < firsts[block + 1]; k++) {
        const i = wallNodes[k];
        if (z[i] > best) ask(i % cols, Math.floor(i / cols), u, v);
      }
    }
  };
  /** Whether anything under an edge can be higher than what was found. */
  const mayMeet = (edge: { readonly high: number }, u: number, v: number): boolean => {
    if (top - edge.high <= best) return false;
    const [c0, r0] = [Math.floor(u), Math.floor(v)];
    const list = (lists[(r0 & 7) * SIDE + (c0 & 7)] ??= besides(c0 & 7, r0 & 7));
    for (let n = 0; n < list.length && list[n].least <= edge.high; n++) {
      const [cx, cy] = [(c0 >> 3) + list[n].bx, (r0 >> 3) + list[n].by];
      if (cx >= 0 && cy >= 0 && cx < across && cy < up && tops[cy * across + cx] - edge.high > best) return true;
    }
    return false;
  };
  return {
    step: Math.max(0.01, Math.min(apart, Math.sqrt(8 * Math.min(roundness(form), 100) * tolerance))),
    error: Math.max(tolerance, (cell * cell) / (4 * roundness(form))),
    restart() {
      metC = -1;
    },
    at(x, y) {
      const u = (x - x0) / cell;
      const v = (y - y0) / cell;
      best = -Infinity;
      if (metC < 0) [metC, metR] = [Math.round(u), Math.round(v)];
      const [c, r] = [metC, metR];
      ask(c, r, u, v);
      climb(u, v);
      const here = heightAt(f, x, y);
      if (here > best) best = here;
      if (here !== here || best < atMost(u, v) - bend) search(u, v);
      else searchWalls(u, v);
      for (let e = 0; e < edges.length; e++) {
        const edge = edges[e];
        if (!mayMeet(edge, u, v)) continue;
        const met = highestRound(f, edge.radius, edge.count, u, v) - edge.high;
        if (met > best) best = met;
      }
      return best;
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
