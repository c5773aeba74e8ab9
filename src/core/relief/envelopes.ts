/** Ends of segments, from left to right: where they lie and a segment that each belongs to; and for each segment, which are its own. */
export interface Ends {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly segment: Int32Array;
  readonly first: Int32Array;
  readonly last: Int32Array;
}

/** Segments in flat columns (`columnsOf`), of lines with so many each, that are closed or not. */
export function endsOf(s: Float64Array, lines: readonly { readonly count: number; readonly closed: boolean }[]): Ends {
  const n = s.length / 5 + lines.filter((l) => !l.closed).length;
  const [x, y] = [new Float64Array(n), new Float64Array(n)];
  const segment = new Int32Array(n);
  const [first, last] = [new Int32Array(s.length / 5), new Int32Array(s.length / 5)];
  let [i, k] = [0, 0];
  for (const { count, closed } of lines) {
    const begin = k;
    for (let q = 0; q < count; q++, i++, k++) {
      [x[k], y[k], segment[k]] = [s[5 * i], s[5 * i + 1], 5 * i];
      first[i] = k;
      last[i] = closed && q === count - 1 ? begin : k + 1;
    }
    if (closed || !count) continue;
    const at = 5 * (i - 1);
    [x[k], y[k], segment[k]] = [s[at] + s[at + 2], s[at + 1] + s[at + 3], at];
    k++;
  }
  const order = Int32Array.from(x.keys()).sort((a, b) => x[a] - x[b]);
  const place = new Int32Array(n);
  order.forEach((was, now) => (place[was] = now));
  return {
    x: x.map((_, now) => x[order[now]]),
    y: y.map((_, now) => y[order[now]]),
    segment: segment.map((_, now) => segment[order[now]]),
    first: first.map((was) => place[was]),
    last: last.map((was) => place[was]),
  };
}

/** A row of nodes: how many, where the first lies and how far apart they are, mm. */
export interface NodeRow {
  readonly count: number;
  readonly x: number;
  readonly y: number;
  readonly cell: number;
}

/** So much of the distance of two nodes a foot may lie beyond the end of its segment: rather looked at twice than not at all. */
const EDGE = 1e-9;

/**
 * Nearest segments for rows of nodes, whatever many of them are about equally near: along a row the squared distance to an end is
 * (x - ex)^2 + c; without x^2 that is a straight line in x, and the least of many lines is found in one pass over them, from left to
 * right (as in P. Felzenszwalb, D. Huttenlocher, "Distance Transforms of Sampled Functions", 2012, whose parabolas stand on nodes;
 * these stand anywhere). Between its ends a segment is asked only by nodes whose foot lies on it.
 *
 *      least of     \      /      an end that is nowhere
 *      the lines     \____/       the least is left out
 */
export class RowNearest {
  private readonly marks: Uint8Array;
  private readonly taken: Int32Array;
  private readonly asked: Int32Array;
  private n = 0;
  private segments = 0;
  /** Of the least: ends, where each begins to be it, and what is added to its line. */
  private readonly hull: Int32Array;
  private readonly from: Float64Array;
  private readonly plus: Float64Array;
  /** What is found for a row: squared distances, mm2, and columns of segments. */
  readonly square: Float64Array;
  readonly which: Int32Array;

  constructor(
    private readonly s: Float64Array,
    private readonly ends: Ends,
    most: number,
  ) {
    const n = ends.x.length;
    this.marks = new Uint8Array(n);
    this.taken = new Int32Array(n);
    this.hull = new Int32Array(n);
    this.from = new Float64Array(n);
    this.plus = new Float64Array(n);
    this.asked = new Int32Array(s.length / 5);
    this.square = new Float64Array(most);
    this.which = new Int32Array(most);
  }

  /** The first `n` of these segments are all that can be nearest within a box. */
  take(list: Int32Array, n: number, x0: number, y0: number, x1: number, y1: number): void {
    const { marks, taken, asked, ends, s } = this;
    let count = 0;
    let segments = 0;
    const mark = (e: number) => {
      if (marks[e]) return;
      marks[e] = 1;
      taken[count++] = e;
    };
    for (let q = 0; q < n; q++) {
      const at = list[q];
      mark(ends.first[at / 5]);
      mark(ends.last[at / 5]);
      // Where along it the feet of the box's corners lie: it is left out if all are before or behind it.
      const [ex, ey, inv] = [s[at + 2], s[at + 3], s[at + 4]];
      const least =
        (Math.min((x0 - s[at]) * ex, (x1 - s[at]) * ex) + Math.min((y0 - s[at + 1]) * ey, (y1 - s[at + 1]) * ey)) * inv;
      const greatest =
        (Math.max((x0 - s[at]) * ex, (x1 - s[at]) * ex) + Math.max((y0 - s[at + 1]) * ey, (y1 - s[at + 1]) * ey)) * inv;
      if (inv > 0 && least <= 1 + EDGE && greatest >= -EDGE) asked[segments++] = at;
    }
    // They are numbered from left to right.
    if (16 * count < marks.length) taken.subarray(0, count).sort();
    else for (let e = 0, k = 0; k < count; e++) if (marks[e]) taken[k++] = e;
    for (let k = 0; k < count; k++) marks[taken[k]] = 0;
    this.n = count;
    this.segments = segments;
  }

  /** Finds what is nearest to the nodes of a row: `square` and `which`. */
  find(row: NodeRow): void {
    this.findEnds(row);
    this.findFeet(row);
  }

  private findEnds({ count, x: x0, y, cell }: NodeRow): void {
    const { taken, hull, from, plus, ends, square, which } = this;
    const right = (count - 1) * cell;
    let top = -1;
    for (let k = 0; k < this.n; k++) {
      const e = taken[k];
      const ex = ends.x[e] - x0;
      const dy = y - ends.y[e];
      const c = ex * ex + dy * dy;
      let begins = -Infinity;
      while (top >= 0) {
        const bx = ends.x[hull[top]] - x0;
        const apart = 2 * (ex - bx);
        begins = apart > 0 ? (c - plus[top]) / apart : c < plus[top] ? -Infinity : Infinity;
        if (begins > from[top]) break;
        top--;
        begins = -Infinity;
      }
      if (begins > right) continue;
      hull[++top] = e;
      from[top] = begins;
      plus[top] = c;
    }
    for (let i = 0, k = 0; i < count; i++) {
      while (k < top && from[k + 1] <= i * cell) k++;
      const e = hull[k];
      const dx = x0 + i * cell - ends.x[e];
      const dy = y - ends.y[e];
      square[i] = dx * dx + dy * dy;
      which[i] = ends.segment[e];
    }
  }

  private findFeet({ count, x: x0, y, cell }: NodeRow): void {
    const { asked, s, square, which } = this;
    for (let k = 0; k < this.segments; k++) {
      const at = asked[k];
      const [ex, ey, inv] = [s[at + 2], s[at + 3], s[at + 4]];
      const px = x0 - s[at];
      const py = y - s[at + 1];
      // Along it by so much at the first node, and more with each.
      const t = (px * ex + py * ey) * inv;
      const by = cell * ex * inv;
      let [a, b] = [0, count - 1];
      if (Math.abs(by) < 1e-12) {
        if (t < 0 || t > 1) continue;
      } else {
        const [i, j] = by > 0 ? [-t / by, (1 - t) / by] : [(1 - t) / by, -t / by];
        if (i > a) a = Math.ceil(i - EDGE);
        if (j < b) b = Math.floor(j + EDGE);
      }
      for (let i = a; i <= b; i++) {
        const cross = (px + i * cell) * ey - py * ex;
        const d = cross * cross * inv;
        if (d >= square[i]) continue;
        square[i] = d;
        which[i] = at;
      }
    }
  }
}
