import { stillWanted } from '../units/stillWanted';
import { bucketsOver, shortTour, type Tour } from './tour';

/** A piece of work between two lifts, as the order of travel sees it. mm. */
export interface RoutePiece {
  readonly inX: number;
  readonly inY: number;
  readonly outX: number;
  readonly outY: number;
  /** Whether it may be run from its end to its start. */
  readonly reversible?: boolean;
  /** Places where a closed piece may be begun (x, y interleaved): it ends where it begins. */
  readonly starts?: Float64Array;
  /** Index of the piece that must come later, since it holds this one. */
  readonly before?: number;
}

/** One step of the order: which piece, whether backwards, and from which of its starts (an index of pairs). */
export interface Visit {
  readonly piece: number;
  readonly reversed: boolean;
  readonly start: number;
}

export interface OrderOptions {
  /** Kicks a piece: how long to look. */
  readonly effort?: number;
  /** Most kicks in all. */
  readonly mostKicks?: number;
  progress?(done: number): void;
}

/** Rounds of ordering and of choosing anew where the closed pieces begin. */
const ROUNDS = 2;
const MOST_KICKS = 10000;
/** Up to so many pieces the shortest order of all is found. */
const FEW = 6;

/** Each piece's nearest follower, greedily, with nothing taken before what it holds. */
function greedy(
  count: number,
  x: Float64Array,
  y: Float64Array,
  reversible: Uint8Array,
  before: Int32Array,
  startX: number,
  startY: number,
): Tour {
  const waits = new Int32Array(count);
  for (let i = 0; i < count; i++) if (before[i] >= 0) waits[before[i]]++;
  // Entries in square buckets; a piece enters its buckets when what it waits for is done.
  const { x0, y0, cell, cols, rows } = bucketsOver(x, y, 4);
  const buckets: number[][] = Array.from({ length: cols * rows }, () => []);
  const col = (v: number) => Math.min(cols - 1, Math.max(0, Math.floor((v - x0) / cell)));
  const row = (v: number) => Math.min(rows - 1, Math.max(0, Math.floor((v - y0) / cell)));
  const bucket = (e: number) => buckets[row(y[e]) * cols + col(x[e])];
  const add = (i: number) => {
    bucket(2 * i).push(2 * i);
    if (reversible[i]) bucket(2 * i + 1).push(2 * i + 1);
  };
  const remove = (e: number) => {
    const b = bucket(e);
    b[b.indexOf(e)] = b[b.length - 1];
    b.pop();
  };
  for (let i = 0; i < count; i++) if (!waits[i]) add(i);
  const order = new Int32Array(count);
  const turned = new Uint8Array(count);
  let px = startX;
  let py = startY;
  for (let k = 0; k < count; k++) {
    stillWanted();
    const c = col(px);
    const r = row(py);
    let best = -1;
    let least = Infinity;
    for (let ring = 0; ring <= Math.max(cols, rows); ring++) {
      if (best >= 0 && least <= ((ring - 1) * cell) ** 2) break;
      for (let rr = Math.max(0, r - ring); rr <= Math.min(rows - 1, r + ring); rr++) {
        const edge = rr === r - ring || rr === r + ring || ring === 0;
        for (let cc = c - ring; cc <= c + ring; cc += edge ? 1 : 2 * ring) {
          if (cc < 0 || cc >= cols) continue;
          for (const e of buckets[rr * cols + cc]) {
            const d = (x[e] - px) ** 2 + (y[e] - py) ** 2;
            if (d < least) {
              least = d;
              best = e;
            }
          }
        }
      }
    }
    if (best < 0) throw new RangeError('The pieces of work wait for each other in a circle.');
    const i = best >> 1;
    order[k] = i;
    turned[k] = best & 1;
    remove(2 * i);
    if (reversible[i]) remove(2 * i + 1);
    px = x[best ^ 1];
    py = y[best ^ 1];
    if (before[i] >= 0 && --waits[before[i]] === 0) add(before[i]);
  }
  return { order, turned };
}

/**
 * An order with short air moves from (startX, startY) on. Lines may run backwards and closed pieces begin anywhere where
 * that is allowed; a piece comes before the one that holds it. Method: `./tour.ts`; after each round the starts of closed
 * pieces are chosen anew for the way as it is (shortest path through the layers of starts).
 */
export function orderPieces(
  pieces: readonly RoutePiece[],
  startX: number,
  startY: number,
  options: OrderOptions = {},
): Visit[] {
  const n = pieces.length;
  if (!n) return [];
  if (n <= FEW) return exactOrder(pieces, startX, startY);
  const x = new Float64Array(2 * n + 1);
  const y = new Float64Array(2 * n + 1);
  x[2 * n] = startX;
  y[2 * n] = startY;
  const reversible = new Uint8Array(n);
  const precedence = new Int32Array(n).fill(-1);
  const start = new Int32Array(n);
  pieces.forEach((p, i) => {
    x[2 * i] = p.inX;
    y[2 * i] = p.inY;
    x[2 * i + 1] = p.outX;
    y[2 * i + 1] = p.outY;
    // A closed piece comes out where it went in: turning it in the order changes nothing.
    reversible[i] = p.reversible || (p.inX === p.outX && p.inY === p.outY) ? 1 : 0;
    precedence[i] = p.before ?? -1;
  });
  const starts = pieces.map((p) => p.starts ?? null);
  const closed = pieces.some((p) => p.starts && p.starts.length > 2);
  const kicks = Math.min(options.mostKicks ?? MOST_KICKS, (options.effort ?? 20) * n);
  const rounds = closed ? ROUNDS : 1;
  let tour = greedy(n, x, y, reversible, precedence, startX, startY);
  for (let round = 0; round < rounds; round++) {
    if (closed) chooseStarts(pieces, tour, x, y, start, startX, startY);
    tour = shortTour({ count: n, x, y, reversible, precedence, starts, start }, tour, Math.ceil(kicks / rounds), (f) =>
      options.progress?.((round + f) / rounds),
    );
  }
  if (closed) chooseStarts(pieces, tour, x, y, start, startX, startY);
  return Array.from(tour.order, (piece, k) => ({
    piece,
    reversed: tour.turned[k] === 1 && !!pieces[piece].reversible && !pieces[piece].starts,
    start: start[piece],
  }));
}

/** The shortest of all orders, by dynamic programming over the sets of pieces done (Bellman 1962, Held and Karp 1962). */
function exactOrder(pieces: readonly RoutePiece[], startX: number, startY: number): Visit[] {
  const n = pieces.length;
  const ways = pieces.map((p, piece) => {
    const s = p.starts;
    if (s && s.length > 2)
      return Array.from({ length: s.length / 2 }, (_, start) => ({
        turn: { piece, reversed: false, start },
        inX: s[2 * start],
        inY: s[2 * start + 1],
        outX: s[2 * start],
        outY: s[2 * start + 1],
      }));
    const forward = { turn: { piece, reversed: false, start: 0 }, inX: p.inX, inY: p.inY, outX: p.outX, outY: p.outY };
    return p.reversible
      ? [forward, { turn: { piece, reversed: true, start: 0 }, inX: p.outX, inY: p.outY, outX: p.inX, outY: p.inY }]
      : [forward];
  });
  const needs = new Int32Array(n);
  pieces.forEach((p, i) => {
    if (p.before !== undefined) needs[p.before] |= 1 << i;
  });
  interface Way {
    cost: number;
    x: number;
    y: number;
    turn: Visit | null;
    from: Way | null;
  }
  const reached: Way[][] = Array.from({ length: 1 << n }, () => []);
  reached[0].push({ cost: 0, x: startX, y: startY, turn: null, from: null });
  for (let done = 0; done < reached.length - 1; done++)
    for (let i = 0; i < n; i++) {
      if (done & (1 << i) || (needs[i] & done) !== needs[i] || !reached[done].length) continue;
      for (const w of ways[i]) {
        let from = reached[done][0];
        let cost = Infinity;
        for (const r of reached[done]) {
          const c = r.cost + Math.hypot(w.inX - r.x, w.inY - r.y);
          if (c < cost) {
            cost = c;
            from = r;
          }
        }
        reached[done | (1 << i)].push({ cost, x: w.outX, y: w.outY, turn: w.turn, from });
      }
    }
  const ends = reached[reached.length - 1];
  if (!ends.length) throw new RangeError('The pieces of work wait for each other in a circle.');
  const out: Visit[] = [];
  for (let w: Way | null = ends.reduce((a, b) => (b.cost < a.cost ? b : a)); w?.turn; w = w.from) out.unshift(w.turn);
  return out;
}

/** The starts of closed pieces that make the way shortest in a given order; x, y and start are brought up to date. */
function chooseStarts(
  pieces: readonly RoutePiece[],
  { order, turned }: Tour,
  x: Float64Array,
  y: Float64Array,
  start: Int32Array,
  startX: number,
  startY: number,
): void {
  let cost = Float64Array.of(0);
  let from: { x: number; y: number }[] = [{ x: startX, y: startY }];
  const back: Int32Array[] = [];
  const placesOf = (k: number) => {
    const i = order[k];
    const s = pieces[i].starts;
    if (s && s.length > 2)
      return Array.from({ length: s.length / 2 }, (_, q) => ({
        inX: s[2 * q],
        inY: s[2 * q + 1],
        outX: s[2 * q],
        outY: s[2 * q + 1],
      }));
    const e = 2 * i + turned[k];
    return [{ inX: x[e], inY: y[e], outX: x[e ^ 1], outY: y[e ^ 1] }];
  };
  for (let k = 0; k < order.length; k++) {
    stillWanted();
    const places = placesOf(k);
    const next = new Float64Array(places.length).fill(Infinity);
    const by = new Int32Array(places.length);
    places.forEach((p, q) => {
      for (let f = 0; f < from.length; f++) {
        const c = cost[f] + Math.hypot(p.inX - from[f].x, p.inY - from[f].y);
        if (c < next[q]) {
          next[q] = c;
          by[q] = f;
        }
      }
    });
    back.push(by);
    cost = next;
    from = places.map((p) => ({ x: p.outX, y: p.outY }));
  }
  let at = cost.indexOf(Math.min(...cost));
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k];
    const s = pieces[i].starts;
    if (s && s.length > 2) {
      start[i] = at;
      x[2 * i] = x[2 * i + 1] = s[2 * at];
      y[2 * i] = y[2 * i + 1] = s[2 * at + 1];
    }
    at = back[k][at];
  }
}

/** Air distance of an order, from the start to the entry of the last piece. */
export function airOf(pieces: readonly RoutePiece[], turns: readonly Visit[], startX: number, startY: number): number {
  let x = startX;
  let y = startY;
  let sum = 0;
  for (const t of turns) {
    const p = pieces[t.piece];
    const s = p.starts;
    const [ax, ay, bx, by] =
      s && s.length > 2
        ? [s[2 * t.start], s[2 * t.start + 1], s[2 * t.start], s[2 * t.start + 1]]
        : t.reversed
          ? [p.outX, p.outY, p.inX, p.inY]
          : [p.inX, p.inY, p.outX, p.outY];
    sum += Math.hypot(ax - x, ay - y);
    x = bx;
    y = by;
  }
  return sum;
}
