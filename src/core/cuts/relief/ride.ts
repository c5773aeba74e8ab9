import { formOf, type Cutter } from '../../cutters/cutter';
import { widthOf, type CutterForm } from '../../cutters/form';
import { DWELL, eachChord, isArc, MotionBuilder, PLUNGE, RAPID, type Motion } from '../../motion/motion';
import { heightAt, sparser, type HeightField } from '../../relief/field';
import type { Toolpath } from '../kind';
import type { Wanted } from '../wanted';
import { around } from './spread';
import { fewest, fewestAlong, sampledAlong, type Follower } from './follow';
import { locatorsOver } from './locator';
import { reliefShare } from './share';

/*
 * A flat cut that rides on the relief: what it does below the top face it does as far below the surface of the relief. A pointed
 * cutter rides with its point, so that the width of what it cuts at the surface stays what it was; any other rides on the surface,
 * so that it goes nowhere deeper below it than it should.
 *
 * A cone that stands upright cuts a plane of slope g in an ellipse. Put downhill by g q tan of its half angle, its tip q / tan below
 * the place where it is drawn, the ellipse lies about that place, q long along the slope and q sqrt(1 - e) across, e = (g tan)^2. The
 * edges of a groove that is r wide to either side on level ground lie where circles along its way touch their envelope: aside, and
 * ahead or behind where it grows or shrinks. q is what brings the ellipse to the nearer of both, p being their angle from the slope:
 *
 *     q = r sqrt((1 - e cos^2 p) / (1 - e))
 *
 *      top face  ----------------            _..---.._
 *      flat         \_____/                _-'  \___/  '-_     riding
 */

/** More nodes than so many are not looked at for how the surface differs. */
const MOST_NODES = 1e6;
/** Chords of arcs, mm. */
const CHORD = 0.001;

const isPointed = (form: CutterForm): boolean => form.rise < Infinity && form.ball === 0;

interface Ground extends Follower {
  /** Of a pointed cutter: tangent of its half angle, radius of its tip, and rise of the ground along X and Y. */
  readonly cone: {
    readonly tan: number;
    readonly tip: number;
    slope(x: number, y: number): readonly [number, number];
  } | null;
}

/** Where a cutter rides: heights of the surface as it meets it, 0 where there is none. */
function ground(field: HeightField, form: CutterForm, locator: ReturnType<typeof locatorsOver>): Ground {
  const share = reliefShare();
  if (isPointed(form)) {
    const at = (x: number, y: number) => Math.min(0, heightAt(field, x, y) || 0);
    const e = field.cell;
    const slope = (x: number, y: number) =>
      [(at(x + e, y) - at(x - e, y)) / (2 * e), (at(x, y + e) - at(x, y - e)) / (2 * e)] as const;
    return { step: field.cell, at, cone: { tan: 1 / form.rise, tip: form.core, slope } };
  }
  const over = locator(form, share.locate);
  return {
    step: over.step,
    at(x, y) {
      const z = over.at(x, y);
      return z > -Infinity ? Math.min(0, z) : 0;
    },
    cone: null,
  };
}

/** Ground as steep as the side of a cone cannot be cut by it: more than so much of that (squared) counts as so much. */
const STEEPEST = 0.9;
/** Edges that lie so far behind each other (the sine between the way and them) say nothing of the slope across it. */
const BEHIND = 0.3;

/** Where what stands at x, y, z over level ground is on the surface, when it goes along (dx, dy) and by so much up or down. */
function laid(
  g: Ground,
  x: number,
  y: number,
  z: number,
  dx: number,
  dy: number,
  dz: number,
): readonly [number, number, number] {
  if (z > 0) return [x, y, z];
  if (!g.cone || z === 0) return [x, y, z + g.at(x, y)];
  const { tan, tip, slope } = g.cone;
  const r = tip - z * tan;
  let [gx, gy] = slope(x, y);
  let base = g.at(x, y);
  // How much of the slope, at most, lies towards an edge: all of it where it goes straight down, and the groove is round.
  let towards = Math.hypot(gx, gy);
  const long = Math.hypot(dx, dy);
  if (long > 0) {
    const [tx, ty] = [dx / long, dy / long];
    const cos = Math.max(-1, Math.min(1, (dz * tan) / long));
    const sin = Math.sqrt(1 - cos * cos);
    const along = gx * tx + gy * ty;
    let across = gy * tx - gx * ty;
    if (sin > BEHIND) {
      // Across its way the surface is what it is at both edges, however it bends between them.
      const edge = (side: number) => g.at(x + r * (cos * tx - side * sin * ty), y + r * (cos * ty + side * sin * tx));
      const [left, right] = [edge(1), edge(-1)];
      across = (left - right) / (2 * r * sin);
      base = (left + right) / 2 - along * r * cos;
    }
    [gx, gy] = [along * tx - across * ty, along * ty + across * tx];
    towards = Math.abs(along * cos) + Math.abs(across * sin);
  }
  const e = Math.min(STEEPEST, (gx * gx + gy * gy) * tan * tan);
  const q = r * Math.sqrt((1 - Math.min(e, (towards * tan) ** 2)) / (1 - e));
  return [x - gx * tan * q, y - gy * tan * q, base - (q - tip) / tan];
}

/** The same moves, those below the top face as far below the surface. */
function riddenMotion(m: Motion, g: Ground): Motion {
  const share = reliefShare();
  const b = new MotionBuilder(m.count);
  /** Where the flat motion is: what it does there goes down with the ground. */
  let [fx, fy, fz] = [0, 0, 0];
  const cone = (x: number, y: number, z: number, feed: number) => {
    const long = Math.hypot(x - fx, y - fy);
    const n = Math.max(1, Math.ceil(long / g.step));
    const p = new Float64Array(3 * (n + 1));
    for (let i = 0; i <= n; i++) {
      const t = i / n;
      p.set(laid(g, fx + (x - fx) * t, fy + (y - fy) * t, fz + (z - fz) * t, x - fx, y - fy, z - fz), 3 * i);
    }
    // Another way, another share of the depth.
    b.line(p[0], p[1], p[2], feed);
    fewestAlong(p, share.merge, (i, z) => b.line(p[3 * i], p[3 * i + 1], z, feed));
  };
  const straight = (x: number, y: number, z: number, feed: number) => {
    if (z > 0 && fz > 0) b.line(x, y, z, feed);
    else if (g.cone) cone(x, y, z, feed);
    else {
      const [x0, y0, z0] = [fx, fy, fz];
      const long = Math.hypot(x - x0, y - y0);
      const own: Follower = {
        step: g.step,
        at: (u, v) => laid(g, u, v, z0 + ((z - z0) * Math.hypot(u - x0, v - y0)) / long, 0, 0, 0)[2],
      };
      const { shares, heights } = sampledAlong(x0, y0, x, y, own, share.sample);
      b.line(x0, y0, heights[0], feed);
      fewest(shares, heights, share.merge, (s, h) => b.line(x0 + (x - x0) * s, y0 + (y - y0) * s, h, feed));
    }
    [fx, fy, fz] = [x, y, z];
  };
  for (let i = 0; i < m.count; i++) {
    const [x, y, z, feed] = [m.x[i], m.y[i], m.z[i], m.feed[i]];
    const kind = m.kind[i];
    if (kind === DWELL) b.dwell(feed);
    else if (isArc(kind)) eachChord(m, i, CHORD, (u, v, w) => straight(u, v, w, feed));
    else if (kind === RAPID || kind === PLUNGE || (x === fx && y === fy)) {
      // Straight up or down: only where it ends matters. It is lifted from where it is, and comes down over where it is to be.
      const [u, v, low] = laid(g, x, y, z, 0, 0, 0);
      const up = b.count > 0 && x === fx && y === fy && z > fz;
      if (kind === RAPID) b.rapid(up ? b.lastX : x, up ? b.lastY : y, low);
      else {
        if (!up && b.lastZ > 0 && (u !== x || v !== y)) b.rapid(u, v, b.lastZ);
        if (kind === PLUNGE) b.plunge(low, feed);
        else b.line(b.lastX, b.lastY, low, feed);
      }
      [fx, fy, fz] = [x, y, z];
    } else straight(x, y, z, feed);
  }
  return b.build();
}

export function riddenPaths(
  paths: readonly Toolpath[],
  field: HeightField,
  cutter: (id: string) => Cutter,
): Toolpath[] {
  const over = locatorsOver(field);
  return paths.map((t) => ({ ...t, motion: riddenMotion(t.motion, ground(field, formOf(cutter(t.cutterId)), over)) }));
}

/**
 * What a cut wants when it rides. Where its cutters are wide the surface under one of their edges is not that under the other: as
 * much as the surface differs as far as a cutter is wide may stay, or may be cut deeper.
 */
export function riddenWanted(w: Wanted, field: HeightField, cutters: readonly Cutter[], depth: number): Wanted {
  const height = (x: number, y: number) => Math.min(0, heightAt(field, x, y) || 0);
  const wide = Math.max(0, ...cutters.map((c) => widthOf(formOf(c), depth)));
  let known: ReturnType<typeof around> | null = null;
  const near = () => {
    const thin = sparser(field, MOST_NODES);
    return (known ??= around({ ...thin, z: thin.z.map((h) => Math.min(0, h || 0)) }, 2 * wide));
  };
  const surface = (x: number, y: number) => {
    const s = w.surface(x, y);
    return s < 0 ? s + height(x, y) : 0;
  };
  return {
    box: w.box,
    surface,
    stays(x, y) {
      const s = (w.stays ?? w.surface)(x, y);
      return Math.min(0, Math.max(surface(x, y), s + near().high(x, y)));
    },
    least(x, y) {
      const s = (w.least ?? w.surface)(x, y);
      return s < 0 ? Math.min(surface(x, y), s + near().low(x, y)) : 0;
    },
  };
}
