import { stillWanted } from '../../units/stillWanted';
import { EdgeSearch } from './search';
import type { Sites } from './sites';

/**
 * Follows the exact bisectors of a region from node to node.
 *
 * An edge runs with site A on its right and site B on its left. In general position each node has
 * three contacts in counter-clockwise order; the gap between two of them is where one edge leaves.
 */
export interface MedialGraph {
  /** Pieces of edges: right and left site, ends and clearances, in local coordinates, edge after edge. */
  readonly right: Int32Array;
  readonly left: Int32Array;
  readonly x0: Float64Array;
  readonly y0: Float64Array;
  readonly r0: Float64Array;
  readonly x1: Float64Array;
  readonly y1: Float64Array;
  readonly r1: Float64Array;
  readonly pieces: number;
  /** First piece of each edge, and one more. */
  readonly edgePiece: Int32Array;
  readonly edgeFrom: Int32Array;
  readonly edgeTo: Int32Array;
  readonly edges: number;
  readonly nodeX: Float64Array;
  readonly nodeY: Float64Array;
  readonly nodeR: Float64Array;
  readonly nodes: number;
}

/** A diagram that does not close up; the caller tries again with another nudge. */
export class IncompleteGraph extends Error {
  constructor(
    readonly reason: string,
    readonly x: number,
    readonly y: number,
  ) {
    super(`medial axis incomplete near ${x.toFixed(4)}, ${y.toFixed(4)}: ${reason}`);
    this.name = 'IncompleteGraph';
  }
}

/** Walks from every convex corner along all edges, node by node. */
function walk(s: Sites): MedialGraph {
  const n = s.count;
  const e = new EdgeSearch(s);
  let cap = 4 * n + 16;
  let right = new Int32Array(cap);
  let left = new Int32Array(cap);
  let x0 = new Float64Array(cap);
  let y0 = new Float64Array(cap);
  let r0 = new Float64Array(cap);
  let x1 = new Float64Array(cap);
  let y1 = new Float64Array(cap);
  let r1 = new Float64Array(cap);
  let pieces = 0;
  const grow = () => {
    cap *= 2;
    const wide = <T extends Int32Array | Float64Array>(a: T): T => {
      const b = new (a.constructor as new (n: number) => T)(cap);
      b.set(a as never);
      return b;
    };
    right = wide(right);
    left = wide(left);
    x0 = wide(x0);
    y0 = wide(y0);
    r0 = wide(r0);
    x1 = wide(x1);
    y1 = wide(y1);
    r1 = wide(r1);
  };
  const nodeX: number[] = [];
  const nodeY: number[] = [];
  const nodeR: number[] = [];
  // Three contacts of each node in counter-clockwise order; a convex corner has its two segments and -1.
  const contact: number[] = [];
  const usedGaps: number[] = [];
  const byKey = new Map<number, number>();
  const thirdOf: number[] = [];
  const after: number[] = [];
  const edgePiece: number[] = [];
  const edgeFrom: number[] = [];
  const edgeTo: number[] = [];
  const work: number[] = [];
  const sites = 2 * n;
  const owned = new Uint8Array(n);
  const fail = (why: string): never => {
    throw new IncompleteGraph(why, e.x + s.originX, e.y + s.originY);
  };

  for (let i = 0; i < n; i++) {
    if (s.reflex[i]) continue;
    contact.push(i, s.prev[i], -1);
    usedGaps.push(0);
    nodeX.push(s.ax[i]);
    nodeY.push(s.ay[i]);
    nodeR.push(0);
    thirdOf.push(-1);
    after.push(-1);
  }
  const leaves = nodeX.length;
  // Corners come first: an edge is never followed back down into one.
  for (let i = 0; i < leaves; i++) work.push(i, 0);

  for (let w = 0; w < work.length; w += 2) {
    const from = work[w];
    const gap = work[w + 1];
    if (usedGaps[from] & (1 << gap)) continue;
    usedGaps[from] |= 1 << gap;
    let A = contact[3 * from + gap];
    let B = contact[3 * from + ((gap + 1) % 3)];
    e.excludedSite = contact[3 * from + ((gap + 2) % 3)];
    e.x = nodeX[from];
    e.y = nodeY[from];
    e.r = nodeR[from];
    edgePiece.push(pieces);
    edgeFrom.push(from);
    for (let steps = 0; ; steps++) {
      if (steps > sites + 8) fail('an edge that does not end');
      stillWanted();
      e.begin(A, B);
      e.search();
      e.at(e.max);
      if (pieces === cap) grow();
      right[pieces] = A;
      left[pieces] = B;
      x0[pieces] = e.x;
      y0[pieces] = e.y;
      r0[pieces] = e.r;
      x1[pieces] = e.px;
      y1[pieces] = e.py;
      r1[pieces] = e.pr;
      pieces++;
      if (A < n) owned[A] = 1;
      if (B < n) owned[B] = 1;
      if (e.hit >= 0) break;
      const on = e.nextSite();
      if (!on) {
        if (e.hit < 0) return fail('an edge that runs out of its sites');
        break;
      }
      A = on.right;
      B = on.left;
      e.x = e.px;
      e.y = e.py;
      e.r = e.pr;
    }
    e.at(e.max);
    const C = e.hit;
    const m = Math.min(A, B, C);
    const second = m === A ? C : m === C ? B : A;
    const last = m === A ? B : m === C ? A : C;
    // Two of the three contacts make the key, exact below 2^53 for forty million segments; the third tells apart what shares them.
    const key = m * sites + second;
    const head = byKey.get(key) ?? -1;
    let to = head;
    while (to >= 0 && thirdOf[to] !== last) to = after[to];
    if (to < 0) {
      to = nodeX.length;
      byKey.set(key, to);
      thirdOf[to] = last;
      after[to] = head;
      nodeX.push(e.px);
      nodeY.push(e.py);
      nodeR.push(e.pr);
      contact.push(A, C, B);
      usedGaps.push(4);
      work.push(to, 1, to, 0);
    } else {
      let arrive = -1;
      for (let g = 0; g < 3; g++) if (contact[3 * to + g] === B && contact[3 * to + ((g + 1) % 3)] === A) arrive = g;
      if (arrive < 0 || usedGaps[to] & (1 << arrive)) {
        e.x = e.px;
        e.y = e.py;
        return fail('two edges in one gap');
      }
      usedGaps[to] |= 1 << arrive;
    }
    edgeTo.push(to);
  }
  edgePiece.push(pieces);
  for (let i = leaves; i < usedGaps.length; i++) {
    if (usedGaps[i] === 7) continue;
    e.x = nodeX[i];
    e.y = nodeY[i];
    fail('a gap without an edge');
  }
  for (let i = 0; i < n; i++) {
    if (owned[i]) continue;
    e.x = s.ax[i];
    e.y = s.ay[i];
    fail('a segment without an edge');
  }
  return {
    right,
    left,
    x0,
    y0,
    r0,
    x1,
    y1,
    r1,
    pieces,
    edgePiece: Int32Array.from(edgePiece),
    edgeFrom: Int32Array.from(edgeFrom),
    edgeTo: Int32Array.from(edgeTo),
    edges: edgeFrom.length,
    nodeX: Float64Array.from(nodeX),
    nodeY: Float64Array.from(nodeY),
    nodeR: Float64Array.from(nodeR),
    nodes: nodeX.length,
  };
}

/** Traces the whole axis of one connected region and checks that it is complete. Throws IncompleteGraph. */
export function traceAxis(s: Sites): MedialGraph {
  const t = walk(s);
  // A connected graph for each part of the inside, whose independent loops are its holes (Euler): nothing
  // was jumped over. There is one part, unless loops touch and pinch the inside off.
  const root = Int32Array.from({ length: t.nodes }, (_, i) => i);
  const find = (i: number) => {
    while (root[i] !== i) i = root[i] = root[root[i]];
    return i;
  };
  let parts = t.nodes;
  for (let e = 0; e < t.edges; e++) {
    const a = find(t.edgeFrom[e]);
    const b = find(t.edgeTo[e]);
    if (a !== b) {
      root[a] = b;
      parts--;
    }
  }
  if (parts !== 1 && !s.weaklySimple) throw new IncompleteGraph(`${parts} parts`, s.originX, s.originY);
  if (t.edges - t.nodes + parts !== s.loops - parts)
    throw new IncompleteGraph(`${t.edges - t.nodes + parts} loops for ${s.loops - parts} holes`, s.originX, s.originY);
  return t;
}
