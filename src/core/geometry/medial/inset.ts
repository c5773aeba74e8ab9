import { stillWanted } from '../../units/stillWanted';
import { arcChords } from '../path';
import type { Loop, Region } from '../region';
import type { Axis } from './axis';
import { cornerFrame } from './frame';
import type { Sites } from './sites';

/** Places where a contour passes from one site to the next: the site that it leaves, the one that it comes to, and where. */
interface Crossings {
  readonly end: readonly number[];
  readonly begin: readonly number[];
  readonly x: readonly number[];
  readonly y: readonly number[];
}

/** Where edges of the axis have clearance R. */
function crossingsAt({ sites: s, trace: t }: Axis, R: number): Crossings {
  const n = s.count;
  const endSite: number[] = [];
  const beginSite: number[] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const add = (end: number, begin: number, x: number, y: number) => {
    endSite.push(end);
    beginSite.push(begin);
    xs.push(x);
    ys.push(y);
  };
  for (let p = 0; p < t.pieces; p++) {
    stillWanted();
    const A = t.right[p];
    const B = t.left[p];
    const r0 = t.r0[p];
    const r1 = t.r1[p];
    if (A < n && B < n) {
      if (r0 < R === r1 < R) continue;
      const f = (R - r0) / (r1 - r0);
      const x = t.x0[p] + (t.x1[p] - t.x0[p]) * f;
      const y = t.y0[p] + (t.y1[p] - t.y0[p]) * f;
      if (r1 > r0) add(B, A, x, y);
      else add(A, B, x, y);
      continue;
    }
    if (A >= n && B >= n) {
      const i = A - n;
      const j = B - n;
      const mx = (s.ax[i] + s.ax[j]) / 2;
      const my = (s.ay[i] + s.ay[j]) / 2;
      const h = Math.hypot(s.ax[i] - mx, s.ay[i] - my);
      if (h >= R) continue;
      const ux = (s.ay[j] - s.ay[i]) / (2 * h);
      const uy = -(s.ax[j] - s.ax[i]) / (2 * h);
      const t0 = (t.x0[p] - mx) * ux + (t.y0[p] - my) * uy;
      const t1 = (t.x1[p] - mx) * ux + (t.y1[p] - my) * uy;
      const w = Math.sqrt(R * R - h * h);
      // Clearance falls before the middle and rises after it.
      if (t0 < -w && -w <= t1) add(A, B, mx - w * ux, my - w * uy);
      if (t0 < w && w <= t1) add(B, A, mx + w * ux, my + w * uy);
      continue;
    }
    const { segment: S, dx, dy, foot: ps, height: h } = cornerFrame(s, A, B);
    const w2 = 2 * h * R - h * h;
    if (w2 <= 0) continue;
    const w = Math.sqrt(w2);
    const sign = A < n ? 1 : -1;
    const q0 = ((t.x0[p] - s.ax[S]) * dx + (t.y0[p] - s.ay[S]) * dy - ps) * sign;
    const q1 = ((t.x1[p] - s.ax[S]) * dx + (t.y1[p] - s.ay[S]) * dy - ps) * sign;
    const at = (q: number): [number, number] => {
      const f = ps + sign * q;
      return [s.ax[S] + dx * f - dy * R, s.ay[S] + dy * f + dx * R];
    };
    if (q0 < -w && -w <= q1) add(A, B, ...at(-w));
    if (q0 < w && w <= q1) add(B, A, ...at(w));
  }
  return { end: endSite, begin: beginSite, x: xs, y: ys };
}

/** The contour at distance R along the sites: straight beside a segment, round about a reflex corner. */
class ContourWalk {
  private readonly ends = new Map<number, { at: number; k: number }[]>();

  constructor(
    private readonly s: Sites,
    private readonly c: Crossings,
    private readonly R: number,
    private readonly tolerance: number,
  ) {
    const { ends } = this;
    c.end.forEach((site, k) => {
      const e = { at: this.placeOf(site, c.x[k], c.y[k]), k };
      const list = ends.get(site);
      if (list) list.push(e);
      else ends.set(site, [e]);
    });
    for (const list of ends.values()) if (list.length > 1) list.sort((a, b) => a.at - b.at);
  }

  /** Where along its site a point of the contour lies: foot on a segment, clockwise turn about a corner. */
  private placeOf(site: number, x: number, y: number): number {
    const { s } = this;
    if (site < s.count) return (x - s.ax[site]) * s.dx[site] + (y - s.ay[site]) * s.dy[site];
    const i = site - s.count;
    const p = s.prev[i];
    const nx = -s.dy[p];
    const ny = s.dx[p];
    const wx = x - s.ax[i];
    const wy = y - s.ay[i];
    return -Math.atan2(nx * wy - ny * wx, nx * wx + ny * wy);
  }

  /** Adds the inner points of an arc, clockwise about the corner at the start of segment i. */
  arc(out: number[], i: number, x0: number, y0: number, x1: number, y1: number): void {
    const { s, R, tolerance } = this;
    const ax = x0 - s.ax[i];
    const ay = y0 - s.ay[i];
    const bx = x1 - s.ax[i];
    const by = y1 - s.ay[i];
    let sweep = -Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    if (sweep < 0) sweep = 0;
    const steps = arcChords(sweep, R, tolerance);
    for (let k = 1; k < steps; k++) {
      const a = (-sweep * k) / steps;
      const c = Math.cos(a);
      const d = Math.sin(a);
      out.push(s.ax[i] + ax * c - ay * d, s.ay[i] + ax * d + ay * c);
    }
  }

  /** From crossing k to the one where the contour leaves the chain of sites that it comes to there; -1 if none. */
  private follow(k: number, out: number[]): number {
    const { s, c, R, ends } = this;
    const n = s.count;
    let site = c.begin[k];
    let x = c.x[k];
    let y = c.y[k];
    let at = this.placeOf(site, x, y);
    for (let guard = 0; guard <= 2 * n + 2; guard++) {
      const end = ends.get(site)?.find((e) => e.at >= at - 1e-9);
      if (end) {
        if (site >= n) this.arc(out, site - n, x, y, c.x[end.k], c.y[end.k]);
        out.push(c.x[end.k], c.y[end.k]);
        return end.k;
      }
      if (site < n) {
        const j = s.next[site];
        if (!s.reflex[j]) return -1;
        x = s.ax[j] - s.dy[site] * R;
        y = s.ay[j] + s.dx[site] * R;
        out.push(x, y);
        site = n + j;
        at = -1e-9;
      } else {
        const i = site - n;
        const ex = s.ax[i] - s.dy[i] * R;
        const ey = s.ay[i] + s.dx[i] * R;
        this.arc(out, i, x, y, ex, ey);
        out.push(ex, ey);
        x = ex;
        y = ey;
        site = i;
        at = -1e-9;
      }
    }
    return -1;
  }

  /** The closed contour through crossing k; `done` notes the crossings on it. Null where it does not close. */
  loopFrom(k: number, done: Uint8Array): number[] | null {
    const out: number[] = [this.c.x[k], this.c.y[k]];
    for (let at = k; ;) {
      done[at] = 1;
      const next = this.follow(at, out);
      if (next === k) return out;
      if (next < 0 || done[next]) return null;
      at = next;
    }
  }
}

/** Points as a loop in the frame of the artwork, without doubles; null where fewer than three are left. */
function closed(out: readonly number[], { originX, originY }: Sites): Loop | null {
  const loop: number[] = [];
  for (let i = 0; i < out.length; i += 2) {
    const x = out[i] + originX;
    const y = out[i + 1] + originY;
    const m = loop.length;
    if (m && Math.abs(loop[m - 2] - x) < 1e-6 && Math.abs(loop[m - 1] - y) < 1e-6) continue;
    loop.push(x, y);
  }
  while (
    loop.length > 2 &&
    Math.abs(loop[0] - loop[loop.length - 2]) < 1e-6 &&
    Math.abs(loop[1] - loop[loop.length - 1]) < 1e-6
  )
    loop.length -= 2;
  return loop.length >= 6 ? Float64Array.from(loop) : null;
}

/** Contours of loops of the outline that no crossing touches: holes without convex corners, wholly inside or wholly out. */
function untouched({ sites: s, trace: t }: Axis, R: number, c: Crossings, walk: ContourWalk): number[][] {
  const n = s.count;
  const all: number[][] = [];
  const touched = new Uint8Array(n);
  for (const sites of [c.end, c.begin])
    for (const site of sites) {
      const first = site < n ? site : site - n;
      for (let i = first; !touched[i]; i = s.next[i]) touched[i] = 1;
    }
  const high = new Uint8Array(n);
  for (let p = 0; p < t.pieces; p++)
    for (const site of [t.right[p], t.left[p]]) if (t.r0[p] > R) high[site < n ? site : site - n] = 1;
  for (let i = 0; i < n; i++) {
    if (touched[i]) continue;
    let any = false;
    let convex = false;
    const out: number[] = [];
    for (let j = i; !touched[j]; j = s.next[j]) {
      touched[j] = 1;
      if (high[j]) any = true;
      if (!s.reflex[j]) convex = true;
      const p = s.prev[j];
      const x0 = s.ax[j] - s.dy[p] * R;
      const y0 = s.ay[j] + s.dx[p] * R;
      const x1 = s.ax[j] - s.dy[j] * R;
      const y1 = s.ay[j] + s.dx[j] * R;
      out.push(x0, y0);
      walk.arc(out, j, x0, y0, x1, y1);
      out.push(x1, y1);
    }
    if (any && !convex) all.push(out);
  }
  return all;
}

/**
 * The outline moved inwards by a distance, read off the medial axis: where an edge of the axis has the
 * wanted clearance, the contour passes from one site's offset to the next one's. Between crossings it
 * is the parallel of a segment or an arc about a reflex corner, so it is exact but for the chords of the
 * arcs (sagitta `tolerance` mm). One pass over the axis per distance, whatever the shape.
 */
export function insetOf(axis: Axis, distance: number, tolerance: number): Region {
  const c = crossingsAt(axis, distance);
  const walk = new ContourWalk(axis.sites, c, distance, tolerance);
  const loops: Loop[] = [];
  const add = (out: readonly number[]) => {
    const loop = closed(out, axis.sites);
    if (loop) loops.push(loop);
  };
  const done = new Uint8Array(c.x.length);
  for (let k = 0; k < done.length; k++) {
    if (done[k]) continue;
    const out = walk.loopFrom(k, done);
    if (!out) throw new InsetError(distance);
    add(out);
  }
  untouched(axis, distance, c, walk).forEach(add);
  return loops;
}

/** A contour that does not close; the caller falls back to integer offsets. */
export class InsetError extends Error {
  constructor(distance: number) {
    super(`The contour at ${distance} mm does not close.`);
    this.name = 'InsetError';
  }
}
