/**
 * Level lines of a field by marching squares (Lorensen and Cline's idea in the plane), with the crossing of each
 * grid edge found by linear interpolation between its two nodes, so that what is smooth comes back
 * between the nodes. Saddles are joined or parted by the mean of their four nodes.
 *
 * `field` holds values at the middles of unit squares, row 0 on top. Empty ones (NaN) count as lower than any level, and a line
 * runs half-way between them and their neighbours. What lies outside the field counts as `beyond`; with -Infinity, lines run
 * along the outermost nodes themselves. Points come as x, y interleaved, x right and y DOWN, square (0, 0) covering 0..1. As
 * seen with row 0 on top, loops have the inside (values of at least `level`) on their left: outer ones run counter-clockwise.
 */
export function contours(
  field: Float32Array,
  width: number,
  height: number,
  level: number,
  beyond = 0,
): Float64Array[] {
  const cols = width + 1;
  const rows = height + 1;
  // With a rim around it, every node that is asked for is there.
  const wide = width + 2;
  const rimmed = new Float32Array(wide * (height + 2));
  if (beyond) rimmed.fill(beyond);
  for (let y = 0; y < height; y++) rimmed.set(field.subarray(y * width, (y + 1) * width), (y + 1) * wide + 1);
  const at = (x: number, y: number): number => rimmed[(y + 1) * wide + x + 1];
  // One mark for each cell and each way through it.
  const seen = new Uint8Array(cols * rows);
  const loops: Float64Array[] = [];
  let buffer = new Float64Array(4096);
  // Cell (c, r) has its corners at nodes (c - 1, r - 1) .. (c, r). Sides: 0 top, 1 right, 2 bottom, 3 left.
  const kindOf = (c: number, r: number): number =>
    (at(c - 1, r - 1) >= level ? 8 : 0) |
    (at(c, r - 1) >= level ? 4 : 0) |
    (at(c, r) >= level ? 2 : 0) |
    (at(c - 1, r) >= level ? 1 : 0);
  const middleIn = (c: number, r: number): boolean =>
    at(c - 1, r - 1) + at(c, r - 1) + at(c, r) + at(c - 1, r) >= 4 * level;
  for (let r = 0; r < rows; r++)
    for (
      let c = nextMet(rimmed, r * wide, wide, level, 0);
      c < cols;
      c = nextMet(rimmed, r * wide, wide, level, c + 1)
    ) {
      const kind = kindOf(c, r);
      const saddle = kind === 5 || kind === 10;
      for (let way = 0; way < (saddle ? 2 : 1); way++) {
        if (seen[r * cols + c] & (1 << way)) continue;
        let n = 0;
        let cc = c;
        let rr = r;
        // Enter by the first exit of this way and go round.
        let from = -1;
        for (;;) {
          const k = kindOf(cc, rr);
          const [w, to] = step(k, from, way, k === 5 || k === 10 ? middleIn(cc, rr) : false);
          if (seen[rr * cols + cc] & (1 << w)) break;
          seen[rr * cols + cc] |= 1 << w;
          // Where the side that is left is crossed.
          let ax: number;
          let ay: number;
          let bx: number;
          let by: number;
          if (to === 0) {
            ax = cc - 1;
            ay = rr - 1;
            bx = cc;
            by = rr - 1;
          } else if (to === 1) {
            ax = cc;
            ay = rr - 1;
            bx = cc;
            by = rr;
          } else if (to === 2) {
            ax = cc - 1;
            ay = rr;
            bx = cc;
            by = rr;
          } else {
            ax = cc - 1;
            ay = rr - 1;
            bx = cc - 1;
            by = rr;
          }
          const va = at(ax, ay);
          const vb = at(bx, by);
          const f = shareTo(va, vb, level);
          if (2 * n + 2 > buffer.length) {
            const longer = new Float64Array(2 * buffer.length);
            longer.set(buffer);
            buffer = longer;
          }
          buffer[2 * n] = ax + (bx - ax) * f + 0.5;
          buffer[2 * n + 1] = ay + (by - ay) * f + 0.5;
          n++;
          if (to === 0) rr--;
          else if (to === 1) cc++;
          else if (to === 2) rr++;
          else cc--;
          from = (to + 2) % 4;
        }
        if (n > 2) loops.push(buffer.slice(0, 2 * n));
      }
    }
  return loops;
}

/**
 * The first cell from one on that a level runs through, in the row whose upper nodes begin at `row`; as many as there are where it
 * runs through none. Most cells lie whole on one side.
 */
function nextMet(nodes: Float32Array, row: number, wide: number, level: number, from: number): number {
  let i = row + from;
  const end = row + wide - 1;
  const inside = nodes[i] >= level;
  if (nodes[i + wide] >= level !== inside) return from;
  for (i++; i <= end; i++) if (nodes[i] >= level !== inside || nodes[i + wide] >= level !== inside) return i - 1 - row;
  return wide - 1;
}

/** How far from one node to the other, as a share, a level is met. */
function shareTo(a: number, b: number, level: number): number {
  if (a === b || a !== a || b !== b) return 0.5;
  if (a === -Infinity) return 1;
  return Math.min(1, Math.max(0, (level - a) / (b - a)));
}

/** For each kind of cell without a saddle: the side by which it is left. */
const EXIT = new Int8Array([-1, 3, 2, 3, 1, -1, 2, 3, 0, 0, -1, 0, 1, 1, 2, -1]);

/** Which way through a cell is taken and by which side it is left; `from` is the side of entry, -1 at the start. */
function step(kind: number, from: number, way: number, joined: boolean): [number, number] {
  if (kind !== 5 && kind !== 10) return [0, EXIT[kind]];
  // Two ways, each from one side to another: pairs of (entry, exit).
  const ways =
    kind === 5
      ? joined
        ? [
            [2, 1],
            [0, 3],
          ]
        : [
            [2, 3],
            [0, 1],
          ]
      : joined
        ? [
            [1, 0],
            [3, 2],
          ]
        : [
            [3, 0],
            [1, 2],
          ];
  const w = from < 0 ? way : ways.findIndex(([entry]) => entry === from);
  return [w, ways[w][1]];
}
