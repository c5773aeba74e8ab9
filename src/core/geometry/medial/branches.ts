import { stillWanted } from '../../units/stillWanted';
import { cornerFrame } from './frame';
import type { Axis } from './axis';

/**
 * The medial axis of one component as branches to cut along: sampled so that straight moves between
 * samples gouge less than the tolerance, without the twigs that remove nothing, in the blank's frame.
 */
export interface Branches {
  /** x, y, clearance of the samples, branch after branch. */
  readonly samples: Float64Array;
  /** First sample of each branch, and one more. */
  readonly start: Int32Array;
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly count: number;
  /** Nodes that have lost all their branches: one plunge each (x, y, clearance). */
  readonly plunges: Float64Array;
}

/**
 * @param tolerance radial, mm: what sampling may gouge.
 * @param prune radial, mm: what pruning may leave. A little more than the chords of the outline stand off its curves, so
 *   that round ends lose the spokes that lead to the chords' corners.
 *
 * Sampling: a chord of length ds along a curved bisector at clearance r gouges ds^2 / (8 r).
 * Pruning: a leaf branch may go when every ball on it lies within the tolerance in the ball of the node
 * where it hangs: rho + |p - c| - r <= prune. Excesses add up as branches are taken off one after
 * another, so the bound holds for whole trees of twigs (triangle inequality).
 */
export function makeBranches(axis: Axis, tolerance: number, prune = tolerance): Branches {
  const { sites: s, trace: t } = axis;
  const n = s.count;
  const xyz: number[] = [];
  const first = new Int32Array(t.edges + 1);
  for (let e = 0; e < t.edges; e++) {
    stillWanted();
    first[e] = xyz.length / 3;
    const p0 = t.edgePiece[e];
    const p1 = t.edgePiece[e + 1];
    xyz.push(t.x0[p0], t.y0[p0], t.r0[p0]);
    for (let p = p0; p < p1; p++) {
      const A = t.right[p];
      const B = t.left[p];
      if (A >= n || B >= n) {
        const low = Math.max(1e-4, Math.min(t.r0[p], t.r1[p]));
        if (A >= n && B >= n) {
          const mx = (s.ax[A - n] + s.ax[B - n]) / 2;
          const my = (s.ay[A - n] + s.ay[B - n]) / 2;
          const h2 = (s.ax[A - n] - mx) ** 2 + (s.ay[A - n] - my) ** 2;
          const l = Math.hypot(t.x1[p] - t.x0[p], t.y1[p] - t.y0[p]);
          const k = Math.ceil(l / Math.sqrt(8 * Math.max(Math.sqrt(h2), 1e-4) * tolerance));
          for (let i = 1; i < k; i++) {
            const x = t.x0[p] + ((t.x1[p] - t.x0[p]) * i) / k;
            const y = t.y0[p] + ((t.y1[p] - t.y0[p]) * i) / k;
            xyz.push(x, y, Math.sqrt(h2 + (x - mx) ** 2 + (y - my) ** 2));
          }
        } else {
          const { segment: S, dx, dy, foot: ps, height: h } = cornerFrame(s, A, B);
          const s0 = (t.x0[p] - s.ax[S]) * dx + (t.y0[p] - s.ay[S]) * dy;
          const s1 = (t.x1[p] - s.ax[S]) * dx + (t.y1[p] - s.ay[S]) * dy;
          const k = Math.ceil(Math.abs(s1 - s0) / Math.sqrt(8 * Math.max(h / 2, Math.min(low, h)) * tolerance));
          for (let i = 1; i < k; i++) {
            const f = s0 + ((s1 - s0) * i) / k;
            const r = ((f - ps) ** 2 + h * h) / (2 * h);
            xyz.push(s.ax[S] + dx * f - dy * r, s.ay[S] + dy * f + dx * r, r);
          }
        }
      }
      xyz.push(t.x1[p], t.y1[p], t.r1[p]);
    }
  }
  first[t.edges] = xyz.length / 3;

  // Prune leaves inwards.
  const degree = new Int32Array(t.nodes);
  const edgesOf: number[][] = Array.from({ length: t.nodes }, () => []);
  for (let e = 0; e < t.edges; e++) {
    for (const v of [t.edgeFrom[e], t.edgeTo[e]]) {
      degree[v]++;
      edgesOf[v].push(e);
    }
  }
  const gone = new Uint8Array(t.edges);
  const excess = new Float64Array(t.nodes);
  const lone: number[] = [];
  const queue: number[] = [];
  for (let v = 0; v < t.nodes; v++) if (degree[v] === 1) queue.push(v);
  for (let q = 0; q < queue.length; q++) {
    stillWanted();
    const v = queue[q];
    if (degree[v] !== 1) continue;
    const e = edgesOf[v].find((k) => !gone[k])!;
    const w = t.edgeFrom[e] === v ? t.edgeTo[e] : t.edgeFrom[e];
    const wx = t.nodeX[w];
    const wy = t.nodeY[w];
    const wr = t.nodeR[w];
    let worst = excess[v] + t.nodeR[v] + Math.hypot(t.nodeX[v] - wx, t.nodeY[v] - wy) - wr;
    for (let k = first[e]; k < first[e + 1] && worst <= prune; k++)
      worst = Math.max(worst, xyz[3 * k + 2] + Math.hypot(xyz[3 * k] - wx, xyz[3 * k + 1] - wy) - wr);
    if (worst > prune) continue;
    gone[e] = 1;
    degree[v] = 0;
    degree[w]--;
    excess[w] = Math.max(excess[w], worst);
    if (degree[w] === 1) queue.push(w);
    else if (degree[w] === 0) lone.push(w);
  }
  const samples: number[] = [];
  const start: number[] = [];
  const from: number[] = [];
  const to: number[] = [];
  for (let e = 0; e < t.edges; e++) {
    if (gone[e]) continue;
    start.push(samples.length / 3);
    from.push(t.edgeFrom[e]);
    to.push(t.edgeTo[e]);
    for (let k = first[e]; k < first[e + 1]; k++)
      samples.push(xyz[3 * k] + s.originX, xyz[3 * k + 1] + s.originY, xyz[3 * k + 2]);
  }
  start.push(samples.length / 3);
  return {
    samples: Float64Array.from(samples),
    start: Int32Array.from(start),
    from: Int32Array.from(from),
    to: Int32Array.from(to),
    count: from.length,
    plunges: Float64Array.from(lone.flatMap((v) => [t.nodeX[v] + s.originX, t.nodeY[v] + s.originY, t.nodeR[v]])),
  };
}
