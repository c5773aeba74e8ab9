import type { Tour, TourProblem } from './tour';

/**
 * A tour as it stands, and what may be done to it: places 1..n hold pieces; 0 is the start, n + 1 the open end. What was done
 * since a mark can be undone.
 */
export class TourState {
  readonly n: number;
  /** The piece at each place, whether it is run backwards, and the place of each piece. */
  readonly tour: Int32Array;
  readonly turned: Uint8Array;
  readonly place: Int32Array;
  /** Whether all pieces may be run backwards, and whether none must keep before another. */
  private readonly loose: boolean;
  private readonly bound: boolean;
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly keepTour: Int32Array;
  private readonly keepTurned: Uint8Array;
  /** What was done since the mark: kind (0 turned, 1 swapped, 2 swapped and turned, 3 begun elsewhere), i, m, j. */
  private readonly log: number[] = [];
  private logging = false;

  constructor(
    readonly p: TourProblem,
    first: Tour,
  ) {
    const n = (this.n = p.count);
    this.x = p.x;
    this.y = p.y;
    this.tour = new Int32Array(n + 2);
    this.turned = new Uint8Array(n + 2);
    this.place = new Int32Array(n);
    this.keepTour = new Int32Array(n + 2);
    this.keepTurned = new Uint8Array(n + 2);
    this.tour.set(first.order, 1);
    this.turned.set(first.turned, 1);
    for (let k = 1; k <= n; k++) this.place[this.tour[k]] = k;
    this.bound = p.precedence.some((after) => after >= 0);
    this.loose = !this.bound && p.reversible.every((r) => r === 1);
  }

  /** End by which the piece at place k is left, and by which it is entered; 2 n is the start. */
  outOf(k: number): number {
    return k === 0 ? 2 * this.n : 2 * this.tour[k] + 1 - this.turned[k];
  }
  into(k: number): number {
    return 2 * this.tour[k] + this.turned[k];
  }
  /** Air between end a, which may be the start, and end b, mm. */
  gap(a: number, b: number): number {
    const { x, y } = this;
    const dx = x[a] - x[b];
    const dy = y[a] - y[b];
    return Math.sqrt(dx * dx + dy * dy);
  }
  /** Air between what is left by end a and place k, which may be the open end. */
  toPlace(a: number, k: number): number {
    return k > this.n ? 0 : this.gap(a, this.into(k));
  }

  /** Whether places i..j may be run backwards. */
  mayTurn(i: number, j: number): boolean {
    if (this.loose) return true;
    const { p, tour, place } = this;
    for (let k = i; k <= j; k++) {
      if (!p.reversible[tour[k]]) return false;
      const after = p.precedence[tour[k]];
      if (after >= 0 && place[after] <= j) return false;
    }
    return true;
  }
  /** Whether places i..m may change places with m + 1..j. */
  maySwap(i: number, m: number, j: number): boolean {
    if (!this.bound) return true;
    const { p, tour, place } = this;
    for (let k = i; k <= m; k++) {
      const after = p.precedence[tour[k]];
      if (after >= 0 && place[after] > m && place[after] <= j) return false;
    }
    return true;
  }

  private turn(i: number, j: number): void {
    const { tour, turned, place } = this;
    for (let a = i, b = j; a <= b; a++, b--) {
      const t = tour[a];
      const w = turned[a];
      tour[a] = tour[b];
      turned[a] = 1 - turned[b];
      tour[b] = t;
      turned[b] = 1 - w;
      place[tour[a]] = a;
      place[tour[b]] = b;
    }
  }
  private exchange(i: number, m: number, j: number, turn: boolean): void {
    const { tour, turned, keepTour, keepTurned } = this;
    const a = m - i + 1;
    const b = j - m;
    if (turn) this.turn(i, m);
    // The shorter part is put aside.
    const [aside, put] = a <= b ? [i, i + b] : [m + 1, i];
    const many = Math.min(a, b);
    keepTour.set(tour.subarray(aside, aside + many));
    keepTurned.set(turned.subarray(aside, aside + many));
    const [shift, from, to] = a <= b ? [i, m + 1, j + 1] : [i + b, i, m + 1];
    tour.copyWithin(shift, from, to);
    turned.copyWithin(shift, from, to);
    tour.set(keepTour.subarray(0, many), put);
    turned.set(keepTurned.subarray(0, many), put);
    for (let k = i; k <= j; k++) this.place[tour[k]] = k;
  }
  private start(piece: number, which: number): void {
    const { p } = this;
    const s = p.starts[piece]!;
    p.start[piece] = which;
    p.x[2 * piece] = p.x[2 * piece + 1] = s[2 * which];
    p.y[2 * piece] = p.y[2 * piece + 1] = s[2 * which + 1];
  }

  /** Runs places i..j backwards. */
  reverse(i: number, j: number): void {
    this.turn(i, j);
    if (this.logging) this.log.push(0, i, 0, j);
  }
  /** Places i..m after m + 1..j; `turn` runs the first part backwards. */
  swap(i: number, m: number, j: number, turn: boolean): void {
    this.exchange(i, m, j, turn);
    if (this.logging) this.log.push(turn ? 2 : 1, i, m, j);
  }
  /** Begins a closed piece at another of its starts. */
  beginAt(piece: number, which: number): void {
    if (this.logging) this.log.push(3, piece, 0, this.p.start[piece]);
    this.start(piece, which);
  }
  /** From here on what is done can be undone. */
  mark(): void {
    this.log.length = 0;
    this.logging = true;
  }
  undo(): void {
    const { log } = this;
    while (log.length) {
      const j = log.pop()!;
      const m = log.pop()!;
      const i = log.pop()!;
      const kind = log.pop()!;
      if (kind === 0) this.turn(i, j);
      else if (kind === 3) this.start(i, j);
      else {
        this.exchange(i, i + (j - m) - 1, j, false);
        if (kind === 2) this.turn(i, i + (m - i));
      }
    }
  }
}
