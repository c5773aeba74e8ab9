/**
 * Local search over the order of pieces with two ends each: 2-opt (Croes 1958) and Or-opt (Or 1976, up to three pieces,
 * turned or not) over neighbour lists, then iterated with small double bridges that are kept when they pay (Martin,
 * Otto and Felten 1991; segments as short as here after Johnson and McGeoch 1997). The way begins at a given point and ends
 * anywhere. Ends are numbered 2 p (entry) and 2 p + 1 (exit); (x, y)[e] is where end e lies.
 */
export interface TourProblem {
  readonly count: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly startX: number;
  readonly startY: number;
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
/** Longest stretch that a kick may move, in pieces. */
const STRETCH = 10;

/** Square buckets over points (x, y), about `share` points each, at most a thousand to a side. */
export function bucketsOver(
  x: Float64Array,
  y: Float64Array,
  share: number,
): { x0: number; y0: number; cell: number; cols: number; rows: number } {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let e = 0; e < x.length; e++) {
    x0 = Math.min(x0, x[e]);
    x1 = Math.max(x1, x[e]);
    y0 = Math.min(y0, y[e]);
    y1 = Math.max(y1, y[e]);
  }
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
    const x = e < ends ? p.x[e] : p.startX;
    const y = e < ends ? p.y[e] : p.startY;
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
  const near = neighbours(p);
  // Places 1..n hold pieces; 0 is the start, n + 1 the open end.
  const tour = new Int32Array(n + 2);
  const turned = new Uint8Array(n + 2);
  const place = new Int32Array(n);
  tour.set(first.order, 1);
  turned.set(first.turned, 1);
  for (let k = 1; k <= n; k++) place[tour[k]] = k;
  let fixed = false;
  let bound = false;
  for (let i = 0; i < n; i++) {
    if (!p.reversible[i]) fixed = true;
    if (p.precedence[i] >= 0) bound = true;
  }
  /** End by which the piece at place k is left, and by which it is entered; 2 n is the start. */
  const outOf = (k: number) => (k === 0 ? 2 * n : 2 * tour[k] + 1 - turned[k]);
  const into = (k: number) => 2 * tour[k] + turned[k];
  const gap = (a: number, b: number): number => {
    const ax = a === 2 * n ? p.startX : p.x[a];
    const ay = a === 2 * n ? p.startY : p.y[a];
    const dx = ax - p.x[b];
    const dy = ay - p.y[b];
    return Math.sqrt(dx * dx + dy * dy);
  };
  /** Air between what is left by end a and place k, which may be the open end. */
  const toPlace = (a: number, k: number) => (k > n ? 0 : gap(a, into(k)));

  /** Whether places i..j may be run backwards. */
  const mayTurn = (i: number, j: number): boolean => {
    if (!fixed && !bound) return true;
    for (let k = i; k <= j; k++) {
      if (!p.reversible[tour[k]]) return false;
      const after = p.precedence[tour[k]];
      if (after >= 0 && place[after] <= j) return false;
    }
    return true;
  };
  /** Whether places i..m may change places with m + 1..j. */
  const maySwap = (i: number, m: number, j: number): boolean => {
    if (!bound) return true;
    for (let k = i; k <= m; k++) {
      const after = p.precedence[tour[k]];
      if (after >= 0 && place[after] > m && place[after] <= j) return false;
    }
    return true;
  };
  const reverse = (i: number, j: number) => {
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
  };
  const keepTour = new Int32Array(n + 2);
  const keepTurned = new Uint8Array(n + 2);
  /** Places i..m after m + 1..j; `turn` runs the first stretch backwards. */
  const swap = (i: number, m: number, j: number, turn: boolean) => {
    const a = m - i + 1;
    const b = j - m;
    if (turn) reverse(i, m);
    // The shorter stretch is put aside.
    const [aside, put] = a <= b ? [i, i + b] : [m + 1, i];
    const many = Math.min(a, b);
    keepTour.set(tour.subarray(aside, aside + many));
    keepTurned.set(turned.subarray(aside, aside + many));
    const [shift, from, to] = a <= b ? [i, m + 1, j + 1] : [i + b, i, m + 1];
    tour.copyWithin(shift, from, to);
    turned.copyWithin(shift, from, to);
    tour.set(keepTour.subarray(0, many), put);
    turned.set(keepTurned.subarray(0, many), put);
    for (let k = i; k <= j; k++) place[tour[k]] = k;
  };
  const beginAt = (piece: number, which: number) => {
    const s = p.starts[piece]!;
    p.start[piece] = which;
    p.x[2 * piece] = p.x[2 * piece + 1] = s[2 * which];
    p.y[2 * piece] = p.y[2 * piece + 1] = s[2 * which + 1];
  };
  /** What was done since a kick, to be undone: kind (0 turned, 1 swapped, 2 swapped and turned, 3 begun elsewhere), i, m, j. */
  const log: number[] = [];
  let logging = false;
  const doReverse = (i: number, j: number) => {
    reverse(i, j);
    if (logging) log.push(0, i, 0, j);
  };
  const doSwap = (i: number, m: number, j: number, turn: boolean) => {
    swap(i, m, j, turn);
    if (logging) log.push(turn ? 2 : 1, i, m, j);
  };
  const undo = () => {
    while (log.length) {
      const j = log.pop()!;
      const m = log.pop()!;
      const i = log.pop()!;
      const kind = log.pop()!;
      if (kind === 0) reverse(i, j);
      else if (kind === 3) beginAt(i, j);
      else {
        const mid = i + (j - m) - 1;
        swap(i, mid, j, false);
        if (kind === 2) reverse(i, i + (m - i));
      }
    }
  };

  const queue = new Int32Array(n);
  const queued = new Uint8Array(n);
  let head = 0;
  let waiting = 0;
  const clearDontLook = (k: number) => {
    if (k < 1 || k > n) return;
    const piece = tour[k];
    if (queued[piece]) return;
    queued[piece] = 1;
    queue[(head + waiting++) % n] = piece;
  };

  /** The best of the moves that give piece `t` a nearer neighbour; 0 when none pays. */
  const improve = (t: number): number => {
    const s = p.starts[t];
    if (s && s.length > 2) {
      const k = place[t];
      const from = outOf(k - 1);
      const ax = from === 2 * n ? p.startX : p.x[from];
      const ay = from === 2 * n ? p.startY : p.y[from];
      const last = k === n;
      const bx = last ? 0 : p.x[into(k + 1)];
      const by = last ? 0 : p.y[into(k + 1)];
      const now = p.start[t];
      let best = now;
      let least = Infinity;
      let present = 0;
      for (let q = 0; q < s.length / 2; q++) {
        const ux = s[2 * q] - ax;
        const uy = s[2 * q + 1] - ay;
        const vx = s[2 * q] - bx;
        const vy = s[2 * q + 1] - by;
        const c = Math.sqrt(ux * ux + uy * uy) + (last ? 0 : Math.sqrt(vx * vx + vy * vy));
        if (q === now) present = c;
        if (c < least) {
          least = c;
          best = q;
        }
      }
      if (present - least > 1e-9) {
        if (logging) log.push(3, t, 0, now);
        beginAt(t, best);
        clearDontLook(k - 1);
        clearDontLook(k + 1);
        return present - least;
      }
    }
    for (let side = 0; side < 2; side++) {
      const k = place[t];
      const leaving = side === 0;
      if (leaving && k === n) continue;
      const e = leaving ? outOf(k) : into(k);
      const now = leaving ? gap(e, into(k + 1)) : gap(outOf(k - 1), e);
      for (let q = 0; q <= NEIGHBOURS; q++) {
        // After its own neighbours, an end that is entered looks at the start as well.
        const c = q < NEIGHBOURS ? near[e * NEIGHBOURS + q] : leaving ? -1 : 2 * n;
        if (c < 0) continue;
        const d = gap(c === 2 * n ? 2 * n : e, c === 2 * n ? e : c);
        if (d >= now - 1e-9) {
          if (c === 2 * n) continue;
          q = NEIGHBOURS - 1;
          continue;
        }
        const m = c === 2 * n ? 0 : place[c >> 1];
        const cLeaves = c === 2 * n || c === outOf(m);
        if (leaving === cLeaves) {
          // 2-opt: both ends on the same side of their gaps.
          const lo = Math.min(k, m) + (leaving ? 1 : 0);
          const hi = Math.max(k, m) - (leaving ? 0 : 1);
          if (lo >= 1 && lo <= hi) {
            const gain =
              gap(outOf(lo - 1), into(lo)) +
              toPlace(outOf(hi), hi + 1) -
              gap(outOf(lo - 1), outOf(hi)) -
              toPlace(into(lo), hi + 1);
            if (gain > 1e-9 && mayTurn(lo, hi)) {
              clearDontLook(lo - 1);
              clearDontLook(lo);
              clearDontLook(hi);
              clearDontLook(hi + 1);
              doReverse(lo, hi);
              return gain;
            }
          }
        }
        // Or-opt: one to three pieces, ending with this one at the end in question, go to where c is.
        for (let size = 1; size <= 3; size++) {
          const i = leaving ? k - size + 1 : k;
          const j = leaving ? k : k + size - 1;
          if (i < 1 || j > n || (m >= i && m <= j)) break;
          // The place after which they go: c's own when c is left by, the one before when it is entered by.
          const after = cLeaves ? m : m - 1;
          if (after === i - 1 || after === j) continue;
          const turn = leaving === cLeaves;
          if (turn && !mayTurn(i, j)) continue;
          const enter = turn ? outOf(j) : into(i);
          const leave = turn ? into(i) : outOf(j);
          const gain =
            gap(outOf(i - 1), into(i)) +
            toPlace(outOf(j), j + 1) -
            toPlace(outOf(i - 1), j + 1) +
            toPlace(outOf(after), after + 1) -
            gap(outOf(after), enter) -
            toPlace(leave, after + 1);
          if (gain <= 1e-9) continue;
          if (after > j ? !maySwap(i, j, after) : !maySwap(after + 1, i - 1, j)) continue;
          for (const w of [i - 1, i, j, j + 1, after, after + 1]) clearDontLook(w);
          if (after > j) doSwap(i, j, after, turn);
          else {
            if (turn) doReverse(i, j);
            doSwap(after + 1, i - 1, j, false);
          }
          return gain;
        }
      }
    }
    return 0;
  };
  const improveAll = (): number => {
    let sum = 0;
    while (waiting) {
      const t = queue[head];
      head = (head + 1) % n;
      waiting--;
      queued[t] = 0;
      for (let gain = improve(t); gain > 0; gain = improve(t)) sum += gain;
    }
    return sum;
  };

  for (let k = 1; k <= n; k++) clearDontLook(k);
  improveAll();
  progress(0.2);
  let state = 20260701;
  const random = (below: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 4294967296) * below);
  };
  logging = true;
  for (let k = 0; k < kicks && n >= 8; k++) {
    if (k % 4096 === 0) progress(0.2 + (0.8 * k) / kicks);
    const most = Math.min(STRETCH, (n - 1) >> 1);
    const i = 1 + random(n - 2);
    const m = i + random(Math.min(most, n - 1 - i));
    const j = m + 1 + random(Math.min(most, n - m));
    if (!maySwap(i, m, j)) continue;
    const loss =
      gap(outOf(i - 1), into(m + 1)) +
      gap(outOf(j), into(i)) +
      toPlace(outOf(m), j + 1) -
      gap(outOf(i - 1), into(i)) -
      gap(outOf(m), into(m + 1)) -
      toPlace(outOf(j), j + 1);
    log.length = 0;
    for (const w of [i - 1, i, m, m + 1, j, j + 1]) clearDontLook(w);
    doSwap(i, m, j, false);
    if (improveAll() < loss - 1e-9) undo();
  }
  progress(1);
  return { order: tour.slice(1, n + 1), turned: turned.slice(1, n + 1) };
}
