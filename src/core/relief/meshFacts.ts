import { derived } from '../geometry/hash';
import { stillWanted } from '../units/stillWanted';
import type { Grid } from './field';
import { boxOfMesh, stood, trianglesOf, type Mesh, type Standing } from './mesh';

/** What of a mesh a relief cannot show, or shows otherwise than the mesh has it. */
export interface MeshFacts {
  /** Share of it, seen from above, where it hangs over something: 0 to 1. */
  readonly undercut: number;
  /** Openings in its surface, its rim and an open underside left out; null where there are too many triangles to look. */
  readonly holes: number | null;
}

/** It is looked through along so many nodes of its longer side. */
const NODES = 256;
/** Layers that lie closer together than this share of its rise are one. */
const APART = 0.004;
/** With more triangles than so many, openings are not looked for. */
const MOST = 4_000_000;
/** Less than this share of it is nothing. */
const SOME = 0.002;

const factsKept = derived<Mesh, MeshFacts>();
/** What is to be known of a mesh as it stands; how it is turned about Z changes nothing. */
export const meshFacts = (m: Mesh, { up, tipX, tipY }: Omit<Standing, 'turn'>): MeshFacts =>
  factsKept(m, `${up} ${tipX} ${tipY}`, () => {
    const s = stood(m, { up, tipX, tipY, turn: 0 });
    return { undercut: undercutOf(s), holes: trianglesOf(m) > MOST ? null : holesIn(s) };
  });

/**
 * Straight down through each node, what is solid lies between a face that looks up and the next that looks down; solids may reach into
 * each other. Air below what is solid is an undercut, but for what stands at the very bottom.
 */
function undercutOf(s: Mesh): number {
  const { low, high } = boxOfMesh(s);
  const [wide, deep, rise] = [0, 1, 2].map((k) => high[k] - low[k]);
  const cell = Math.max(wide, deep) / NODES;
  if (!(cell > 0) || !(rise > 0)) return 0;
  const met = facesMet(s, {
    cols: Math.max(1, Math.ceil(wide / cell)),
    rows: Math.max(1, Math.ceil(deep / cell)),
    cell,
    // Half a cell in, so that upright sides fall between nodes.
    x0: low[0] + cell / 2,
    y0: low[1] + cell / 2,
  });
  const near = APART * rise;
  const order = Uint32Array.from(met.node, (_, i) => i).sort(
    (a, b) => met.node[a] - met.node[b] || met.z[b] - met.z[a] || met.up[b] - met.up[a],
  );
  let [all, hidden] = [0, 0];
  for (let i = 0; i < order.length;) {
    const first = order[i];
    all++;
    // A mesh that is inside out is as good.
    const sense = met.up[first];
    let [depth, air, last] = [0, false, NaN];
    let was = 0;
    for (; i < order.length && met.node[order[i]] === met.node[first]; i++) {
      const [z, up] = [met.z[order[i]], met.up[order[i]] * sense];
      // Neighbours both have the node on the edge between them.
      if (z === last && up === was) continue;
      if (depth <= 0 && last - z > near) air = true;
      depth += up;
      [last, was] = [z, up];
    }
    if (air || (depth <= 0 && last > low[2] + near)) hidden++;
  }
  return all && hidden / all >= SOME ? hidden / all : 0;
}

/** The faces over and under each node: which node, how high, and whether it looks up (1) or down (-1). */
function facesMet(
  { corners: p }: Mesh,
  g: Grid,
): { readonly node: number[]; readonly z: number[]; readonly up: number[] } {
  const out: { node: number[]; z: number[]; up: number[] } = { node: [], z: [], up: [] };
  for (let i = 0; i < p.length; i += 9) {
    stillWanted();
    const ax = p[i];
    const ay = p[i + 1];
    const bx = p[i + 3];
    const by = p[i + 4];
    const cx = p[i + 6];
    const cy = p[i + 7];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const c0 = Math.max(0, Math.ceil((Math.min(ax, bx, cx) - g.x0) / g.cell));
    const c1 = Math.min(g.cols - 1, Math.floor((Math.max(ax, bx, cx) - g.x0) / g.cell));
    const r0 = Math.max(0, Math.ceil((Math.min(ay, by, cy) - g.y0) / g.cell));
    const r1 = Math.min(g.rows - 1, Math.floor((Math.max(ay, by, cy) - g.y0) / g.cell));
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++) {
        const [dx, dy] = [g.x0 + c * g.cell - ax, g.y0 + r * g.cell - ay];
        const u = (dx * (cy - ay) - dy * (cx - ax)) / area;
        const v = (dy * (bx - ax) - dx * (by - ay)) / area;
        if (u < 0 || v < 0 || u + v > 1) continue;
        out.node.push(r * g.cols + c);
        out.z.push(Math.fround(p[i + 2] + u * (p[i + 5] - p[i + 2]) + v * (p[i + 8] - p[i + 2])));
        out.up.push(Math.sign(area));
      }
  }
  return out;
}

/**
 * Openings of a surface: rings of edges that have a face on one side only. Corners at the very same place are one. The rim
 * round all of a sheet, and the open underside of a shell, are no faults.
 */
function holesIn({ corners }: Mesh): number {
  const points = corners.length / 3;
  const ids = welded(corners);
  // Each edge by its two corners: met an odd number of times, it has a face on one side only.
  const size = 2 ** Math.ceil(Math.log2(2 * points + 2));
  const [from, to, odd] = [new Int32Array(size).fill(-1), new Int32Array(size), new Uint8Array(size)];
  for (let t = 0; t < points; t += 3) {
    stillWanted();
    const p = ids[t];
    const q = ids[t + 1];
    const r = ids[t + 2];
    // Without area it has no sides.
    if (p === q || q === r || r === p) continue;
    for (let k = 0; k < 3; k++) {
      const a = k === 0 ? p : k === 1 ? q : r;
      const b = k === 0 ? q : k === 1 ? r : p;
      const low = a < b ? a : b;
      const high = a < b ? b : a;
      let at = mixed(Math.imul(low, 0x9e3779b1) ^ Math.imul(high, 0x85ebca6b)) & (size - 1);
      while (from[at] >= 0 && (from[at] !== low || to[at] !== high)) at = (at + 1) & (size - 1);
      from[at] = low;
      to[at] = high;
      odd[at] ^= 1;
    }
  }
  // Edges that share a corner are of one opening.
  const open = new Map<number, number>();
  const root = (v: number): number => {
    let r = v;
    while (open.get(r)! !== r) r = open.get(r)!;
    for (let w = v; w !== r;) {
      const next = open.get(w)!;
      open.set(w, r);
      w = next;
    }
    return r;
  };
  for (let i = 0; i < size; i++) {
    if (!odd[i]) continue;
    for (const v of [from[i], to[i]]) if (!open.has(v)) open.set(v, v);
    open.set(root(from[i]), root(to[i]));
  }
  const whole = boxOfMesh({ corners });
  const around = new Map<number, { low: number[]; high: number[] }>();
  for (const v of open.keys()) {
    const r = root(v);
    const b = around.get(r) ?? { low: [Infinity, Infinity, Infinity], high: [-Infinity, -Infinity, -Infinity] };
    around.set(r, b);
    for (let k = 0; k < 3; k++) {
      b.low[k] = Math.min(b.low[k], corners[3 * v + k]);
      b.high[k] = Math.max(b.high[k], corners[3 * v + k]);
    }
  }
  const near = (k: number) => APART * (whole.high[k] - whole.low[k]);
  return [...around.values()].filter(({ low, high }) => {
    const underside = high[2] <= whole.low[2] + near(2);
    const rim = [0, 1].every((k) => low[k] <= whole.low[k] + near(k) && high[k] >= whole.high[k] - near(k));
    return !underside && !rim;
  }).length;
}

/** Bits of a number, each in many others: a table fills evenly, however alike its keys are. */
function mixed(h: number): number {
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return h ^ (h >>> 15);
}

/** For each corner the first one that lies at the very same place. */
function welded(corners: Float32Array): Int32Array {
  const count = corners.length / 3;
  const size = 2 ** Math.ceil(Math.log2(2 * count + 2));
  const table = new Int32Array(size).fill(-1);
  const ids = new Int32Array(count);
  const bits = new Int32Array(corners.buffer, corners.byteOffset, corners.length);
  for (let i = 0; i < count; i++) {
    stillWanted();
    const x = corners[3 * i];
    const y = corners[3 * i + 1];
    const z = corners[3 * i + 2];
    // Zero below and above is one place, of different bits.
    const hx = x === 0 ? 0 : Math.imul(bits[3 * i], 0x27d4eb2d);
    const hy = y === 0 ? 0 : Math.imul(bits[3 * i + 1], 0x165667b1);
    const hz = z === 0 ? 0 : Math.imul(bits[3 * i + 2], 0x9e3779b1);
    const h = hx ^ hy ^ hz;
    let at = mixed(h) & (size - 1);
    for (; table[at] >= 0; at = (at + 1) & (size - 1)) {
      const j = 3 * table[at];
      if (corners[j] === x && corners[j + 1] === y && corners[j + 2] === z) break;
    }
    if (table[at] < 0) table[at] = i;
    ids[i] = table[at];
  }
  return ids;
}
