import type { Sites } from './sites';

export const SEG_SEG = 0;
const SEG_CORNER = 1;
const CORNER_SEG = 2;
export const CORNER_CORNER = 3;

/**
 * How far (mm) a foot may lie beyond the end of its segment and still count. At a reflex corner the
 * corner itself takes over, so only rounding is allowed for. At a convex corner nothing takes over, and
 * where neighbours are nearly in line a rounding of 1e-13 in clearance moves the foot by far more.
 */
export const FOOT_SLACK = 1e-10;
const CONVEX_SLACK = 1e-7;
/** Two distances that differ by less than this (times 1 mm + clearance) are one where a corner is all but straight. */
const AS_NEAR = 1e-10;
/**
 * One bisector at a time, from a point on it as far as its two sites carry it, and where the balls along it meet a third one
 * (`./search.ts` finds which). In general position "squared distance to a third site minus squared clearance" (or the
 * difference itself where it is linear) is at most quadratic in the edge's parameter, so its first down-crossing has a closed
 * form.
 *
 * Parameters: segment/segment: distance along the bisector line; segment/corner: position of the foot on the segment (a
 * parabola); corner/corner: distance along the perpendicular bisector.
 */
export class Bisector {
  protected readonly n: number;
  // The bisector that is being followed.
  protected kind = 0;
  protected A = 0;
  protected B = 0;
  /** The site that the edge comes away from: it is no third site right at the start. */
  excludedSite = -1;
  /** Where the edge begins, and its clearance there. */
  x = 0;
  y = 0;
  r = 0;
  // Segment/segment and corner/corner: base, direction, slope of clearance or half distance of corners.
  private bx = 0;
  private by = 0;
  private ux = 0;
  private uy = 0;
  private k = 0;
  private t0 = 0;
  // Segment/corner: the segment's frame; corner at (ps, h) in it; travel sign.
  private S = 0;
  private ps = 0;
  private h = 0;
  private sigma = 1;
  /** How far the edge goes. */
  max = 0;
  /** The third site that ends the edge, or -1 where a foot leaves its site. */
  hit = -1;
  /** The point that `at` was asked for last. */
  px = 0;
  py = 0;
  pr = 0;
  protected endX = 0;
  protected endY = 0;
  protected endR = 0;
  private readonly reach: number;
  protected minX = 0;
  protected minY = 0;
  protected maxX = 0;
  protected maxY = 0;

  /** `size`: width and height together of what the sites take up, mm; no edge is longer than twice that. */
  constructor(
    protected readonly s: Sites,
    size: number,
  ) {
    this.n = s.count;
    this.reach = 2 * size;
  }

  protected slackAt(corner: number): number {
    return this.s.reflex[corner] ? 0 : CONVEX_SLACK;
  }

  /** Sets up the bisector of A (right) and B (left) from the point x, y with clearance r. */
  begin(A: number, B: number): void {
    const { s, n } = this;
    this.A = A;
    this.B = B;
    this.hit = -1;
    if (A < n && B < n) {
      this.kind = SEG_SEG;
      const ax = -s.dy[A];
      const ay = s.dx[A];
      const bx = -s.dy[B];
      const by = s.dx[B];
      const mx = ax - bx;
      const my = ay - by;
      const sx = ax + bx;
      const sy = ay + by;
      const mm = mx * mx + my * my;
      const ss = sx * sx + sy * sy;
      if (mm >= ss) {
        const l = Math.sqrt(mm);
        this.ux = my / l;
        this.uy = -mx / l;
      } else {
        // Nearly parallel and facing alike: the sum of the normals is the longer, its sign comes from their turn.
        const l = ay * bx - ax * by < 0 ? -Math.sqrt(ss) : Math.sqrt(ss);
        this.ux = sx / l;
        this.uy = sy / l;
      }
      this.bx = this.x;
      this.by = this.y;
      this.t0 = 0;
      this.k = 0.5 * (sx * this.ux + sy * this.uy);
      this.max = this.reach;
      const goA = s.dx[A] * this.ux + s.dy[A] * this.uy;
      if (goA > 0) {
        const foot = (this.x - s.ax[A]) * s.dx[A] + (this.y - s.ay[A]) * s.dy[A];
        this.max = Math.min(this.max, (s.length[A] - foot + this.slackAt(s.next[A])) / goA);
      }
      const goB = -(s.dx[B] * this.ux + s.dy[B] * this.uy);
      if (goB > 0) {
        const foot = (this.x - s.ax[B]) * s.dx[B] + (this.y - s.ay[B]) * s.dy[B];
        this.max = Math.min(this.max, (foot + this.slackAt(B)) / goB);
      }
    } else if (A >= n && B >= n) {
      this.kind = CORNER_CORNER;
      const i = A - n;
      const j = B - n;
      const qx = s.ax[j] - s.ax[i];
      const qy = s.ay[j] - s.ay[i];
      const l = Math.sqrt(qx * qx + qy * qy);
      this.ux = qy / l;
      this.uy = -qx / l;
      this.bx = (s.ax[i] + s.ax[j]) / 2;
      this.by = (s.ay[i] + s.ay[j]) / 2;
      this.h = l / 2;
      this.t0 = (this.x - this.bx) * this.ux + (this.y - this.by) * this.uy;
      this.max = this.reach;
      // The right corner is left over the start of its outgoing segment, the left one over the end of its incoming one.
      const goA = s.dx[i] * this.ux + s.dy[i] * this.uy;
      if (goA > 0) this.max = Math.min(this.max, -((this.x - s.ax[i]) * s.dx[i] + (this.y - s.ay[i]) * s.dy[i]) / goA);
      const p = s.prev[j];
      const goB = -(s.dx[p] * this.ux + s.dy[p] * this.uy);
      if (goB > 0) this.max = Math.min(this.max, ((this.x - s.ax[j]) * s.dx[p] + (this.y - s.ay[j]) * s.dy[p]) / goB);
    } else {
      const seg = A < n ? A : B;
      const corner = (A < n ? B : A) - n;
      this.kind = A < n ? SEG_CORNER : CORNER_SEG;
      this.S = seg;
      this.sigma = A < n ? 1 : -1;
      const dx = s.dx[seg];
      const dy = s.dy[seg];
      const vx = s.ax[corner] - s.ax[seg];
      const vy = s.ay[corner] - s.ay[seg];
      this.ps = vx * dx + vy * dy;
      this.h = -vx * dy + vy * dx;
      this.t0 = (this.x - s.ax[seg]) * dx + (this.y - s.ay[seg]) * dy;
      this.max = this.sigma > 0 ? s.length[seg] - this.t0 + this.slackAt(s.next[seg]) : this.t0 + this.slackAt(seg);
      // The wedge of the corner: left over its outgoing (right site) or incoming (left site) segment.
      const e = A < n ? s.prev[corner] : corner;
      const way = A < n ? -1 : 1;
      // way * (x - P) . d_e must stay negative; x - P = (q, r - h) in the frame, r = (q^2 + h^2) / 2h.
      const along = way * (dx * s.dx[e] + dy * s.dy[e]);
      const across = way * (-dy * s.dx[e] + dx * s.dy[e]);
      const leave = this.downCrossing(
        -across / (2 * this.h),
        -along,
        across * (this.h / 2),
        this.t0 - this.ps,
        this.sigma,
      );
      if (leave < this.max) this.max = leave;
    }
    if (!(this.max > 0)) this.max = 0;
    this.bound();
  }

  /**
   * Travel until a2 q^2 + a1 q + a0 crosses zero downward, going from q0 in direction sigma; Infinity if never.
   * A quadratic has at most one down-crossing in a direction: the root at which its derivative is -sqrt(disc).
   */
  private downCrossing(a2: number, a1: number, a0: number, q0: number, sigma: number): number {
    const b = sigma * (2 * a2 * q0 + a1);
    const c = (a2 * q0 + a1) * q0 + a0;
    const disc = b * b - 4 * a2 * c;
    if (!(disc >= 0)) return Infinity;
    const root = Math.sqrt(disc);
    if (b <= 0) {
      const d = root - b;
      return d > 0 ? (2 * c) / d : Infinity;
    }
    return a2 < 0 ? -(b + root) / (2 * a2) : Infinity;
  }

  /** The point of the current bisector after the given travel, into px, py, pr. */
  at(travel: number): void {
    const { s } = this;
    if (this.kind === SEG_SEG) {
      this.px = this.x + this.ux * travel;
      this.py = this.y + this.uy * travel;
      this.pr = this.r + this.k * travel;
    } else if (this.kind === CORNER_CORNER) {
      const t = this.t0 + travel;
      this.px = this.bx + this.ux * t;
      this.py = this.by + this.uy * t;
      this.pr = Math.sqrt(this.h * this.h + t * t);
    } else {
      const f = this.t0 + this.sigma * travel;
      const q = f - this.ps;
      const r = (q * q + this.h * this.h) / (2 * this.h);
      this.px = s.ax[this.S] + s.dx[this.S] * f - s.dy[this.S] * r;
      this.py = s.ay[this.S] + s.dy[this.S] * f + s.dx[this.S] * r;
      this.pr = r;
    }
  }

  /** The box of the union of the balls between here and `max`. Clearance is convex along an edge, so its ends bound it. */
  protected bound(): void {
    this.at(this.max);
    this.endX = this.px;
    this.endY = this.py;
    this.endR = this.pr;
    const r = Math.max(this.r, this.pr);
    if (this.kind === SEG_SEG) {
      this.minX = Math.min(this.x - this.r, this.px - this.pr);
      this.minY = Math.min(this.y - this.r, this.py - this.pr);
      this.maxX = Math.max(this.x + this.r, this.px + this.pr);
      this.maxY = Math.max(this.y + this.r, this.py + this.pr);
      return;
    }
    this.minX = Math.min(this.x, this.px);
    this.minY = Math.min(this.y, this.py);
    this.maxX = Math.max(this.x, this.px);
    this.maxY = Math.max(this.y, this.py);
    if (this.kind !== CORNER_CORNER) {
      // The middle control point of the parabola's arc as a quadratic curve: its hull holds the arc.
      const { s } = this;
      const q0 = this.t0 - this.ps;
      const q1 = q0 + this.sigma * this.max;
      const f = this.ps + (q0 + q1) / 2;
      const c = (q0 * q1 + this.h * this.h) / (2 * this.h);
      const cx = s.ax[this.S] + s.dx[this.S] * f - s.dy[this.S] * c;
      const cy = s.ay[this.S] + s.dy[this.S] * f + s.dx[this.S] * c;
      this.minX = Math.min(this.minX, cx);
      this.minY = Math.min(this.minY, cy);
      this.maxX = Math.max(this.maxX, cx);
      this.maxY = Math.max(this.maxY, cy);
    }
    this.minX -= r;
    this.minY -= r;
    this.maxX += r;
    this.maxY += r;
  }

  /** Travel until the ball meets the line of a segment from its inner side, Infinity if it never does. */
  protected travelToLine(C: number): number {
    const { s } = this;
    const nx = -s.dy[C];
    const ny = s.dx[C];
    if (this.kind === SEG_SEG) {
      const slope = nx * this.ux + ny * this.uy - this.k;
      return slope >= 0 ? Infinity : (nx * this.x + ny * this.y - s.offset[C] - this.r) / -slope;
    }
    if (this.kind === CORNER_CORNER) {
      const alpha = nx * this.bx + ny * this.by - s.offset[C];
      const beta = nx * this.ux + ny * this.uy;
      return this.downCrossing(beta * beta - 1, 2 * alpha * beta, alpha * alpha - this.h * this.h, this.t0, 1);
    }
    const S = this.S;
    const along = nx * s.dx[S] + ny * s.dy[S];
    const across = -nx * s.dy[S] + ny * s.dx[S] - 1;
    const alpha = nx * s.ax[S] + ny * s.ay[S] - s.offset[C] + along * this.ps + (across * this.h) / 2;
    return this.downCrossing(across / (2 * this.h), along, alpha, this.t0 - this.ps, this.sigma);
  }

  /** Travel until the ball meets a point, Infinity if it never does. */
  protected travelTo(cx: number, cy: number): number {
    if (this.kind === SEG_SEG) {
      const wx = this.x - cx;
      const wy = this.y - cy;
      const d = Math.sqrt(wx * wx + wy * wy);
      return this.downCrossing(
        1 - this.k * this.k,
        2 * (wx * this.ux + wy * this.uy - this.r * this.k),
        (d - this.r) * (d + this.r),
        0,
        1,
      );
    }
    if (this.kind === CORNER_CORNER) {
      const wx = this.bx - cx;
      const wy = this.by - cy;
      return this.downCrossing(0, 2 * (wx * this.ux + wy * this.uy), wx * wx + wy * wy - this.h * this.h, this.t0, 1);
    }
    const { s, S } = this;
    const vx = cx - s.ax[S];
    const vy = cy - s.ay[S];
    const e = this.ps - (vx * s.dx[S] + vy * s.dy[S]);
    const qh = -vx * s.dy[S] + vy * s.dx[S];
    return this.downCrossing(1 - qh / this.h, 2 * e, e * e + qh * (qh - this.h), this.t0 - this.ps, this.sigma);
  }

  /**
   * Which of the two sites the edge leaves at `max`, and the site that follows on that side. Where the outline is all but
   * straight at a convex corner, the next segment is as near as the one that is left, but no crossing of the two could be
   * worked out: then that segment is the hit, and null comes back. Null without a hit: the edge runs out of its sites.
   */
  nextSite(): { right: number; left: number } | null {
    const { s, n, A, B } = this;
    this.at(this.max);
    const over = (site: number, isRight: boolean): number => {
      if (site < n) {
        const foot = (this.px - s.ax[site]) * s.dx[site] + (this.py - s.ay[site]) * s.dy[site];
        return isRight ? foot - s.length[site] : -foot;
      }
      const i = site - n;
      const e = isRight ? i : s.prev[i];
      const f = (this.px - s.ax[i]) * s.dx[e] + (this.py - s.ay[i]) * s.dy[e];
      return isRight ? f : -f;
    };
    const overA = over(A, true);
    const overB = over(B, false);
    if (Math.max(overA, overB) < -1e-6 * (1 + this.pr)) return null;
    if (overA >= overB) {
      if (A >= n) return { right: A - n, left: B };
      const j = s.next[A];
      if (s.reflex[j]) return { right: n + j, left: B };
      this.meet(j);
      return null;
    }
    if (B >= n) return { right: A, left: s.prev[B - n] };
    if (s.reflex[B]) return { right: A, left: n + B };
    this.meet(s.prev[B]);
    return null;
  }

  private meet(next: number): void {
    const { s } = this;
    if (next === this.A || next === this.B) return;
    const away = -s.dy[next] * this.px + s.dx[next] * this.py - s.offset[next];
    if (Math.abs(away - this.pr) < AS_NEAR * (1 + this.pr)) this.hit = next;
  }
}
