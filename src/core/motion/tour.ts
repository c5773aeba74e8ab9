import { stillWanted } from '../units/stillWanted';
import { noBox, widen } from '../geometry/box';
import { TourState } from './tourState';

/**
 * Local search over the order of pieces with two ends each: 2-opt (Croes 1958) and Or-opt (Or 1976, up to three pieces,
 * turned or not) over neighbour lists, then iterated with small double bridges that are kept when they pay (Martin,
 * Otto and Felten 1991; segments as short as here after Johnson and McGeoch 1997). The way begins at a given point and ends
 * anywhere. Ends are numbered 2 p (entry) and 2 p + 1 (exit), the point where the way begins 2 count; (x, y)[e] is where e lies.
 */
export interface TourProblem {
  readonly count: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** 1 where a piece may be run backwards at no cost. */
  readonly reversible: Uint8Array;
  /** The piece that must come after this one, or -1. */
  readonly precedence: Int32Array;
  /** Places where a closed piece may begin (x, y interleaved), or null; `start` says which it does, and is changed with x and y. */
  readonly starts: readonly (Float64Array | null)[];
  readonly start: Int32Array;
}

/** An order of the pieces; `turned[k]` where the k-th of them is run from its exit to its entry. */
export interface Tour {
  readonly order: Int32Array;
  readonly turned: Uint8Array;
}

const NEIGHBOURS = 10;
/** Most pieces in a row that a kick may move. */
const LONGEST = 10;

/** Square buckets over points (x, y), about `share` points each, at most a thousand to a side. */
export function bucketsOver(
  x: Float64Array,
  y: Float64Array,
  share: number,
): { x0: number; y0: number; cell: number; cols: number; rows: number } {
  const box = noBox();
  for (let e = 0; e < x.length; e++) widen(box, x[e], y[e]);
  const { x0, y0, x1, y1 } = box;
  const cell = Math.max(
    1e-6,
    Math.sqrt(((x1 - x0 + 1e-3) * (y1 - y0 + 1e-3) * share) / x.length),
    Math.max(x1 - x0, y1 - y0) / 1000,
  );
  return { x0, y0, cell, cols: Math.floor((x1 - x0) / cell) + 1, rows: Math.floor((y1 - y0) / cell) + 1 };
}

/** Nearest ends of other pieces, for every end and (last) for the start: NEIGHBOURS each, -1 where there are fewer. */
function neighbours(p: TourProblem): Int32Array {
  const ends = 2 * p.count;
  const { x0, y0, cell, cols, rows } = bucketsOver(p.x, p.y, 3);
  const first = new Int32Array(cols * rows + 1);
  const cellOf = (e: number) => Math.floor((p.y[e] - y0) / cell) * cols + Math.floor((p.x[e] - x0) / cell);
  for (let e = 0; e < ends; e++) first[cellOf(e) + 1]++;
  for (let i = 0; i < cols * rows; i++) first[i + 1] += first[i];
  const fill = first.slice();
  const held = new Int32Array(ends);
  for (let e = 0; e < ends; e++) held[fill[cellOf(e)]++] = e;
  const out = new Int32Array((ends + 1) * NEIGHBOURS).fill(-1);
  const distance = new Float64Array(NEIGHBOURS);
  for (let e = 0; e <= ends; e++) {
    stillWanted();
    const x = p.x[e];
    const y = p.y[e];
    const c = Math.min(cols - 1, Math.max(0, Math.floor((x - x0) / cell)));
    const r = Math.min(rows - 1, Math.max(0, Math.floor((y - y0) / cell)));
    const at = e * NEIGHBOURS;
    let n = 0;
    for (let ring = 0; ring <= Math.max(cols, rows); ring++) {
      if (n === NEIGHBOURS && distance[n - 1] <= ((ring - 1) * cell) ** 2) break;
      for (let rr = Math.max(0, r - ring); rr <= Math.min(rows - 1, r + ring); rr++) {
        const edge = rr === r - ring || rr === r + ring || ring === 0;
        for (let cc = c - ring; cc <= c + ring; cc += edge ? 1 : 2 * ring) {
          if (cc < 0 || cc >= cols) continue;
          for (let k = first[rr * cols + cc]; k < first[rr * cols + cc + 1]; k++) {
            const o = held[k];
            if (o >> 1 === e >> 1) continue;
            const d = (p.x[o] - x) ** 2 + (p.y[o] - y) ** 2;
            if (n === NEIGHBOURS && d >= distance[n - 1]) continue;
            let i = n < NEIGHBOURS ? n++ : n - 1;
            while (i > 0 && distance[i - 1] > d) {
              distance[i] = distance[i - 1];
              out[at + i] = out[at + i - 1];
              i--;
            }
            distance[i] = d;
            out[at + i] = o;
          }
        }
      }
    }
  }
  return out;
}

/** Local search on a tour: pieces wait to be looked at again when something beside them has changed (don't-look bits, Bentley 1992). */
class Search {
  private readonly near: Int32Array;
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  private head = 0;
  private waiting = 0;

  constructor(private readonly s: TourState) {
    this.near = neighbours(s.p);
    this.queue = new Int32Array(s.n);
    this.queued = new Uint8Array(s.n);
  }

  clearDontLook(k: number): void {
    const { s, queued } = this;
    if (k < 1 || k > s.n) return;
    const piece = s.tour[k];
    if (queued[piece]) return;
    queued[piece] = 1;
    this.queue[(this.head + this.waiting++) % s.n] = piece;
  }

  /** Looks at all pieces that wait, until none does; by how much the tour became shorter. */
  improveAll(): number {
    let sum = 0;
    while (this.waiting) {
      stillWanted();
      const t = this.queue[this.head];
      this.head = (this.head + 1) % this.s.n;
      this.waiting--;
      this.queued[t] = 0;
      for (let gain = this.improve(t); gain > 0; gain = this.improve(t)) sum += gain;
    }
    return sum;
  }

  /** The first of the moves that give piece `t` a nearer neighbour and pay; 0 when none does. */
  private improve(t: number): number {
    const { s, near } = this;
    const begun = this.beginNearer(t);
    if (begun > 0) return begun;
    const start = 2 * s.n;
    for (let side = 0; side < 2; side++) {
      const k = s.place[t];
      const leaving = side === 0;
      if (leaving && k === s.n) continue;
      const e = leaving ? s.outOf(k) : s.into(k);
      const now = leaving ? s.gap(e, s.into(k + 1)) : s.gap(s.outOf(k - 1), e);
      for (let q = 0; q <= NEIGHBOURS; q++) {
        // After its own neighbours, an end that is entered looks at the start as well.
        const last = q === NEIGHBOURS;
        if (last && leaving) continue;
        const c = last ? start : near[e * NEIGHBOURS + q];
        if (c < 0) continue;
        const less = s.gap(last ? start : e, last ? e : c);
        if (less >= now - 1e-9) {
          // Neighbours come by distance: none after this one is nearer, but the start may be.
          if (!last) q = NEIGHBOURS - 1;
          continue;
        }
        const m = last ? 0 : s.place[c >> 1];
        const gain = this.joinTo(k, m, leaving, last || c === s.outOf(m), now - less);
        if (gain > 0) return gain;
      }
    }
    return 0;
  }

  /** Begins closed piece t where its way from the piece before and on to the next is shortest. */
  private beginNearer(t: number): number {
    const { s } = this;
    const { p } = s;
    const starts = p.starts[t];
    if (!starts || starts.length <= 2) return 0;
    const k = s.place[t];
    const from = s.outOf(k - 1);
    const ax = p.x[from];
    const ay = p.y[from];
    const last = k === s.n;
    const bx = last ? 0 : p.x[s.into(k + 1)];
    const by = last ? 0 : p.y[s.into(k + 1)];
    const now = p.start[t];
    let best = now;
    let least = Infinity;
    let present = 0;
    for (let q = 0; q < starts.length / 2; q++) {
      const ux = starts[2 * q] - ax;
      const uy = starts[2 * q + 1] - ay;
      const vx = starts[2 * q] - bx;
      const vy = starts[2 * q + 1] - by;
      const c = Math.sqrt(ux * ux + uy * uy) + (last ? 0 : Math.sqrt(vx * vx + vy * vy));
      if (q === now) present = c;
      if (c < least) {
        least = c;
        best = q;
      }
    }
    if (present - least <= 1e-9) return 0;
    s.beginAt(t, best);
    this.clearDontLook(k - 1);
    this.clearDontLook(k + 1);
    return present - least;
  }

  /**
   * Brings an end of the piece at place k beside an end of the one at place m; by how much that pays. `leaving`, `cLeaves`:
   * whether those are the ends by which the pieces are left; `nearer`: by how much that gap is less than the one at the end now.
   */
  private joinTo(k: number, m: number, leaving: boolean, cLeaves: boolean, nearer: number): number {
    if (leaving === cLeaves) {
      const gain = this.twoOpt(k, m, leaving, nearer);
      if (gain > 0) return gain;
    }
    return this.orOpt(k, m, leaving, cLeaves, nearer);
  }

  /** 2-opt: both ends on the same side of their gaps; what lies between them is run backwards. */
  private twoOpt(k: number, m: number, leaving: boolean, nearer: number): number {
    const { s } = this;
    const lo = Math.min(k, m) + (leaving ? 1 : 0);
    const hi = Math.max(k, m) - (leaving ? 0 : 1);
    if (lo < 1 || lo > hi) return 0;
    // Of the two gaps that go and the two that come, one each are those at the ends that are brought together.
    const gain =
      nearer +
      (k < m ? s.toPlace(s.outOf(hi), hi + 1) : s.gap(s.outOf(lo - 1), s.into(lo))) -
      (leaving ? s.toPlace(s.into(lo), hi + 1) : s.gap(s.outOf(lo - 1), s.outOf(hi)));
    if (gain <= 1e-9 || !s.mayTurn(lo, hi)) return 0;
    for (const w of [lo - 1, lo, hi, hi + 1]) this.clearDontLook(w);
    s.reverse(lo, hi);
    return gain;
  }

  /** Or-opt: one to three pieces, ending with the one at k at the end in question, go to where place m is. */
  private orOpt(k: number, m: number, leaving: boolean, cLeaves: boolean, nearer: number): number {
    const { s } = this;
    // The place after which they go: m itself when it is left there, the one before when it is entered.
    const after = cLeaves ? m : m - 1;
    const turn = leaving === cLeaves;
    if (after < 0) return 0;
    /** What is won where they go, but for the end that is not brought beside its neighbour. */
    const won = nearer + s.toPlace(s.outOf(after), after + 1);
    for (let size = 1; size <= 3; size++) {
      const i = leaving ? k - size + 1 : k;
      const j = leaving ? k : k + size - 1;
      if (i < 1 || j > s.n || (m >= i && m <= j)) break;
      if (after === i - 1 || after === j) continue;
      // What is won where they are taken away: one of the two gaps there is that at the end in question.
      const left =
        won +
        (leaving ? s.gap(s.outOf(i - 1), s.into(i)) : s.toPlace(s.outOf(j), j + 1)) -
        s.toPlace(s.outOf(i - 1), j + 1);
      if (left <= 1e-9 || (turn && !s.mayTurn(i, j))) continue;
      const gain =
        left -
        (cLeaves
          ? s.toPlace(turn ? s.into(i) : s.outOf(j), after + 1)
          : s.gap(s.outOf(after), turn ? s.outOf(j) : s.into(i)));
      if (gain <= 1e-9) continue;
      if (after > j ? !s.maySwap(i, j, after) : !s.maySwap(after + 1, i - 1, j)) continue;
      for (const w of [i - 1, i, j, j + 1, after, after + 1]) this.clearDontLook(w);
      if (after > j) s.swap(i, j, after, turn);
      else {
        if (turn) s.reverse(i, j);
        s.swap(after + 1, i - 1, j, false);
      }
      return gain;
    }
    return 0;
  }
}

/**
 * A short tour that keeps every piece before the one that must follow it. `first` is an order that does so; `kicks` says how
 * long to look. Deterministic. `progress` is called now and then with 0..1 and may throw.
 */
export function shortTour(
  p: TourProblem,
  first: Tour,
  kicks: number,
  progress: (done: number) => void = () => {},
): Tour {
  const n = p.count;
  const s = new TourState(p, first);
  const search = new Search(s);
  for (let k = 1; k <= n; k++) search.clearDontLook(k);
  search.improveAll();
  progress(0.2);
  let state = 20260701;
  const random = (below: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 4294967296) * below);
  };
  for (let k = 0; k < kicks && n >= 8; k++) {
    if (k % 4096 === 0) progress(0.2 + (0.8 * k) / kicks);
    const most = Math.min(LONGEST, (n - 1) >> 1);
    const i = 1 + random(n - 2);
    const m = i + random(Math.min(most, n - 1 - i));
    const j = m + 1 + random(Math.min(most, n - m));
    if (!s.maySwap(i, m, j)) continue;
    const loss =
      s.gap(s.outOf(i - 1), s.into(m + 1)) +
      s.gap(s.outOf(j), s.into(i)) +
      s.toPlace(s.outOf(m), j + 1) -
      s.gap(s.outOf(i - 1), s.into(i)) -
      s.gap(s.outOf(m), s.into(m + 1)) -
      s.toPlace(s.outOf(j), j + 1);
    s.mark();
    for (const w of [i - 1, i, m, m + 1, j, j + 1]) search.clearDontLook(w);
    s.swap(i, m, j, false);
    if (search.improveAll() < loss - 1e-9) s.undo();
  }
  progress(1);
  return { order: s.tour.slice(1, n + 1), turned: s.turned.slice(1, n + 1) };
}
