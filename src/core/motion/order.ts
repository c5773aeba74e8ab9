/**
 * Orders pieces of work so that the air moves between them are short: nearest neighbour over a grid,
 * then or-opt (moving single pieces, Or 1976) over each piece's nearest neighbours. Each piece has an
 * entry and an exit point; pieces are not reversed.
 */
export interface Piece {
  inX: number;
  inY: number;
  outX: number;
  outY: number;
}

const NEIGHBOURS = 8;
const ROUNDS = 12;

/** Entry points in square buckets, about two a bucket. */
class Grid {
  private readonly x0: number;
  private readonly y0: number;
  private readonly cell: number;
  private readonly cols: number;
  private readonly rows: number;
  private readonly buckets: number[][];

  constructor(private readonly pieces: readonly Piece[]) {
    let x0 = Infinity;
    let y0 = Infinity;
    let x1 = -Infinity;
    let y1 = -Infinity;
    for (const p of pieces) {
      x0 = Math.min(x0, p.inX);
      x1 = Math.max(x1, p.inX);
      y0 = Math.min(y0, p.inY);
      y1 = Math.max(y1, p.inY);
    }
    this.x0 = x0;
    this.y0 = y0;
    this.cell = Math.max(1e-6, Math.sqrt(((x1 - x0 + 1e-3) * (y1 - y0 + 1e-3) * 2) / pieces.length));
    this.cols = Math.min(2000, Math.floor((x1 - x0) / this.cell) + 1);
    this.rows = Math.min(2000, Math.floor((y1 - y0) / this.cell) + 1);
    this.buckets = Array.from({ length: this.cols * this.rows }, () => []);
    pieces.forEach((p, i) => this.bucket(p.inX, p.inY).push(i));
  }
  private col = (x: number) => Math.min(this.cols - 1, Math.max(0, Math.floor((x - this.x0) / this.cell)));
  private row = (y: number) => Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.y0) / this.cell)));
  private bucket = (x: number, y: number) => this.buckets[this.row(y) * this.cols + this.col(x)];

  remove(i: number): void {
    const b = this.bucket(this.pieces[i].inX, this.pieces[i].inY);
    b.splice(b.indexOf(i), 1);
  }

  /** The `count` nearest entries to a point, nearest first. */
  nearest(x: number, y: number, count: number, skip = -1): number[] {
    const c = this.col(x);
    const r = this.row(y);
    const found: { i: number; d: number }[] = [];
    const most = Math.max(this.cols, this.rows);
    for (let ring = 0; ring <= most; ring++) {
      if (found.length >= count && found[count - 1].d <= ((ring - 1) * this.cell) ** 2) break;
      for (let rr = r - ring; rr <= r + ring; rr++) {
        if (rr < 0 || rr >= this.rows) continue;
        const step = rr === r - ring || rr === r + ring || ring === 0 ? 1 : 2 * ring;
        for (let cc = c - ring; cc <= c + ring; cc += step) {
          if (cc < 0 || cc >= this.cols) continue;
          for (const i of this.buckets[rr * this.cols + cc]) {
            if (i === skip) continue;
            const d = (this.pieces[i].inX - x) ** 2 + (this.pieces[i].inY - y) ** 2;
            if (found.length < count || d < found[found.length - 1].d) {
              found.push({ i, d });
              found.sort((a, b) => a.d - b.d);
              if (found.length > count) found.pop();
            }
          }
        }
      }
    }
    return found.map((f) => f.i);
  }
}

export function orderPieces(pieces: readonly Piece[], startX: number, startY: number): number[] {
  const n = pieces.length;
  if (n < 2) return pieces.map((_, i) => i);
  const grid = new Grid(pieces);
  const close = pieces.map((p, i) => grid.nearest(p.outX, p.outY, NEIGHBOURS, i));
  // The tour as a linked list, with -1 for the start and the end.
  const next = new Int32Array(n).fill(-1);
  const prev = new Int32Array(n).fill(-1);
  let x = startX;
  let y = startY;
  let head = -1;
  let last = -1;
  for (let k = 0; k < n; k++) {
    const [i] = grid.nearest(x, y, 1);
    grid.remove(i);
    prev[i] = last;
    if (last >= 0) next[last] = i;
    else head = i;
    last = i;
    x = pieces[i].outX;
    y = pieces[i].outY;
  }
  const gap = (a: number, b: number): number => {
    if (b < 0) return 0;
    const dx = pieces[b].inX - (a < 0 ? startX : pieces[a].outX);
    const dy = pieces[b].inY - (a < 0 ? startY : pieces[a].outY);
    return Math.sqrt(dx * dx + dy * dy);
  };
  for (let round = 0, better = true; better && round < ROUNDS; round++) {
    better = false;
    for (let i = 0; i < n; i++) {
      const a = prev[i];
      const b = next[i];
      const saved = gap(a, i) + gap(i, b) - gap(a, b);
      if (saved < 1e-9) continue;
      let to = -2;
      let gain = 1e-9;
      // Behind or before one of the pieces near its exit.
      for (const j of close[i]) {
        for (const after of [j, prev[j]]) {
          if (after === i || after === a) continue;
          const before = after < 0 ? head : next[after];
          if (before === i) continue;
          const cost = gap(after, i) + gap(i, before) - gap(after, before);
          if (saved - cost > gain) {
            gain = saved - cost;
            to = after;
          }
        }
      }
      if (to === -2) continue;
      if (a >= 0) next[a] = b;
      else head = b;
      if (b >= 0) prev[b] = a;
      const before = to < 0 ? head : next[to];
      prev[i] = to;
      next[i] = before;
      if (to >= 0) next[to] = i;
      else head = i;
      if (before >= 0) prev[before] = i;
      better = true;
    }
  }
  const tour: number[] = [];
  for (let i = head; i >= 0; i = next[i]) tour.push(i);
  return tour;
}
