import { Bisector, CORNER_CORNER, FOOT_SLACK, SEG_SEG } from './bisector';
import type { Sites } from './sites';
import { FAN, LEAF, makeSiteTree, type SiteTree } from './siteTree';

/** Hits at a clearance below this (mm) are other corners of the same point, not third sites. */
const NO_CLEARANCE = 1e-9;

/** What ends an edge: of all sites the first that the balls along it meet. The box tree is searched over their union, which shrinks with every hit. */
export class EdgeSearch extends Bisector {
  private readonly tree: SiteTree;
  private readonly stack = new Int32Array(256);
  private readonly order = new Float64Array(256);

  constructor(s: Sites) {
    const tree = makeSiteTree(s);
    const root = tree.boxes.length - 4;
    super(s, tree.boxes[root + 2] - tree.boxes[root] + tree.boxes[root + 3] - tree.boxes[root + 1]);
    this.tree = tree;
  }

  private trySegment(C: number): void {
    const { s, n, A, B } = this;
    if (C === A || C === B || C === A - n || C === B - n) return;
    if (A >= n && C === s.prev[A - n]) return;
    if (B >= n && C === s.prev[B - n]) return;
    const travel = this.travelToLine(C);
    if (!(travel < this.max) || !(travel > -FOOT_SLACK)) return;
    if (C === this.excludedSite && travel < 1e-9) return;
    this.at(travel);
    const vx = this.px - s.ax[C];
    const vy = this.py - s.ay[C];
    const foot = vx * s.dx[C] + vy * s.dy[C];
    if (foot < -FOOT_SLACK - this.slackAt(C) || foot > s.length[C] + FOOT_SLACK + this.slackAt(s.next[C])) return;
    if (this.pr < NO_CLEARANCE || vy * s.dx[C] - vx * s.dy[C] < 0) return;
    this.max = travel > 0 ? travel : 0;
    this.hit = C;
    this.bound();
  }

  private tryCorner(i: number): void {
    const { s, n, A, B } = this;
    if (A === i || B === i || A === n + i || B === n + i) return;
    const p = s.prev[i];
    if (A === p || B === p) return;
    const cx = s.ax[i];
    const cy = s.ay[i];
    const travel = this.travelTo(cx, cy);
    if (!(travel < this.max) || !(travel > -FOOT_SLACK)) return;
    if (n + i === this.excludedSite && travel < 1e-9) return;
    this.at(travel);
    const vx = this.px - cx;
    const vy = this.py - cy;
    if (vx * s.dx[p] + vy * s.dy[p] < -FOOT_SLACK || vx * s.dx[i] + vy * s.dy[i] > FOOT_SLACK) return;
    if (this.pr < NO_CLEARANCE) return;
    this.max = travel > 0 ? travel : 0;
    this.hit = n + i;
    this.bound();
  }

  /**
   * Whether a ball between here and `max` may reach the chain of a box. A ball's distance to a half plane, less its
   * clearance, is concave along every kind of edge, so both ends free means all free. Two half planes that hold the chain are
   * tried: that of its chord, and that which faces the middle of the edge. Where an edge is straight, what its last ball
   * must grow by to hold all others is known (way and clearance at the start less its own: clearance is convex), and its
   * distance decides: out of a corner that is all but straight that is next to nothing.
   *
   *          ( ball )     A chain that bends towards the ball, a little way from where the ball touches the outline,
   *       ____\\__//____   lies beyond the half plane of its own chord, but clear of that square to the line between
   *   ___/    chain  \__  chain and ball.
   */
  private near(b: number): boolean {
    const { slabs } = this.tree;
    const k = (b / 4) * 6;
    const nx = slabs[k];
    const ny = slabs[k + 1];
    const most = slabs[k + 2];
    const { x, y, r, endX, endY, endR } = this;
    const a0 = nx * x + ny * y;
    const a1 = nx * endX + ny * endY;
    if (a0 - r > most + 1e-9 && a1 - endR > most + 1e-9) return false;
    const least = slabs[k + 3];
    const lo = slabs[k + 4];
    const hi = slabs[k + 5];
    // In the frame of the slab: along the chord, and into the region.
    const t0 = ny * x - nx * y;
    const t1 = ny * endX - nx * endY;
    if (this.kind === SEG_SEG || this.kind === CORNER_CORNER) {
      const dt = t1 < lo ? lo - t1 : t1 > hi ? t1 - hi : 0;
      const dn = a1 < least ? least - a1 : a1 > most ? a1 - most : 0;
      const all = Math.max(endR, r + this.max) + 1e-9;
      if (dt * dt + dn * dn > all * all) return false;
    }
    let ut = (t0 + t1 - lo - hi) / 2;
    let un = (a0 + a1 - most - least) / 2;
    const l = Math.sqrt(ut * ut + un * un);
    if (!(l > 0)) return true;
    ut /= l;
    un /= l;
    const reach = (ut > 0 ? ut * hi : ut * lo) + (un > 0 ? un * most : un * least) + 1e-9;
    return ut * t0 + un * a0 - r <= reach || ut * t1 + un * a1 - endR <= reach;
  }

  private inside(i: number): boolean {
    const { s } = this;
    return s.ax[i] > this.minX && s.ax[i] < this.maxX && s.ay[i] > this.minY && s.ay[i] < this.maxY;
  }

  /**
   * A length that the edge cannot exceed by much, since no ball on it holds a point of the outline: the corner nearest to the
   * far end is looked for by one way down the tree, the edge is cut where its ball meets it, and again from there. A long edge
   * that stands on the outline would else ask all that its farthest ball covers.
   */
  private probe(): number {
    const { s } = this;
    const { boxes, levelStart, levels } = this.tree;
    const whole = this.max;
    const a = this.A < this.n ? this.A : this.A - this.n;
    const c = this.B < this.n ? this.B : this.B - this.n;
    for (let tries = 0; tries < 12; tries++) {
      let index = 0;
      for (let level = levels - 1; level > 0; level--) {
        const begin = index * FAN;
        const end = Math.min(levelStart[level] - levelStart[level - 1], begin + FAN);
        let least = Infinity;
        for (let k = begin; k < end; k++) {
          const q = 4 * (levelStart[level - 1] + k);
          const vx = (boxes[q] + boxes[q + 2]) / 2 - this.endX;
          const vy = (boxes[q + 1] + boxes[q + 3]) / 2 - this.endY;
          const away = vx * vx + vy * vy;
          if (away < least) {
            least = away;
            index = k;
          }
        }
      }
      let travel = Infinity;
      for (let i = index * LEAF; i < Math.min(this.n, (index + 1) * LEAF); i++) {
        if (i === a || i === c || i === s.next[a] || i === s.next[c]) continue;
        const t = this.travelTo(s.ax[i], s.ay[i]);
        if (t > 0 && t < travel) travel = t;
      }
      if (!(travel < 0.99 * this.max)) break;
      this.max = travel * (1 + 1e-9) + 1e-7;
      this.bound();
    }
    const far = this.max;
    this.max = whole;
    return far;
  }

  /** Finds what ends the edge: `max` and `hit`. */
  search(): void {
    const { s, n } = this;
    // Most edges end at a near neighbour of their own sites along the boundary: look there first, in
    // doubling steps, for what is hit prunes the rest.
    const a = this.A < n ? this.A : this.A - n;
    const c = this.B < n ? this.B : this.B - n;
    this.trySegment(s.next[a]);
    this.trySegment(s.prev[c]);
    for (let step = 2; a + step < n && this.inside(a + step); step *= 2) this.trySegment(a + step);
    for (let step = 2; c - step >= 0 && this.inside(c - step); step *= 2) this.trySegment(c - step);
    if (this.endR > 1.05 * this.r) {
      const { max, hit } = this;
      const far = this.probe();
      if (far < max) {
        this.max = far;
        this.hit = -1;
        this.sweep();
        if (this.hit >= 0) return;
        // Nothing below what rounding allows: all is asked after all.
        this.max = max;
        this.hit = hit;
      }
      this.bound();
    }
    this.sweep();
  }

  private sweep(): void {
    const { s, n, stack } = this;
    const { boxes, levelStart, levels } = this.tree;
    let top = 0;
    stack[top++] = levels - 1;
    stack[top++] = 0;
    while (top > 0) {
      const index = stack[--top];
      const level = stack[--top];
      const b = 4 * (levelStart[level] + index);
      if (boxes[b] > this.maxX || boxes[b + 1] > this.maxY || boxes[b + 2] < this.minX || boxes[b + 3] < this.minY)
        continue;
      if (!this.near(b)) continue;
      if (level === 0) {
        const end = Math.min(n, (index + 1) * LEAF);
        for (let i = index * LEAF; i < end; i++) {
          // Free of a segment's line at both ends means free of it all along (see `near`).
          const nx = -s.dy[i];
          const ny = s.dx[i];
          const o = s.offset[i] + 1e-9;
          if (nx * this.endX + ny * this.endY - this.endR < o || nx * this.x + ny * this.y - this.r < o)
            this.trySegment(i);
          if (s.reflex[i] && this.inside(i)) this.tryCorner(i);
        }
      } else {
        // The nearest to the far ball is looked at first: what it hits makes that ball smaller for all others.
        const begin = index * FAN;
        const end = Math.min(levelStart[level] - levelStart[level - 1], begin + FAN);
        const from = top;
        for (let c = begin; c < end; c++) {
          const q = 4 * (levelStart[level - 1] + c);
          const vx = (boxes[q] + boxes[q + 2]) / 2 - this.endX;
          const vy = (boxes[q + 1] + boxes[q + 3]) / 2 - this.endY;
          const away = vx * vx + vy * vy;
          let at = top;
          for (; at > from && this.order[at - 2] < away; at -= 2) {
            stack[at] = stack[at - 2];
            stack[at + 1] = stack[at - 1];
            this.order[at] = this.order[at - 2];
          }
          stack[at] = level - 1;
          stack[at + 1] = c;
          this.order[at] = away;
          top += 2;
        }
      }
    }
  }
}
