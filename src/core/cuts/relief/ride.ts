import { formOf, type Cutter } from '../../cutters/cutter';
import { widthOf, type CutterForm } from '../../cutters/form';
import { DWELL, eachChord, isArc, MotionBuilder, PLUNGE, RAPID, type Motion } from '../../motion/motion';
import { heightAt, sparser, type HeightField } from '../../relief/field';
import type { Toolpath } from '../kind';
import type { Wanted } from '../wanted';
import { around } from './closing';
import { fewest, fewestAlong, sampledAlong, type Follower } from './follow';
import { locatorsOver } from './locator';
import { reliefShare } from './share';

/*
 * A flat cut that rides on the relief: what it does below the top face it does as far below the surface of the relief. A pointed
 * cutter rides with its point, so that the width of what it cuts at the surface stays what it was; any other rides on the surface,
 * so that it goes nowhere deeper below it than it should.
 *
 * A cone that stands upright on a slope is met sooner uphill than downhill. Where its groove is 2 r wide on level ground, it is so
 * wide on the surface, and where it is drawn, when it goes less deep and stands a little downhill (`tan` of its half angle, `n` across
 * its way, `t` along it):
 *
 *     depth  r / tan  (1 - (n tan)^2) sqrt(1 - (t tan)^2)        aside  r n tan
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
  /** Of a pointed cutter: tangent of its half angle, and rise of the ground along X and Y. */
  readonly cone: { readonly tan: number; slope(x: number, y: number): readonly [number, number] } | null;
}

/** Less of a depth than so is not gone to: a cone on what is as steep as its own side cuts nothing. */
const LEAST_SHARE = 0.3;

/** Where a cutter rides: heights of the surface as it meets it, 0 where there is none. */
function ground(field: HeightField, form: CutterForm, locator: ReturnType<typeof locatorsOver>): Ground {
  const share = reliefShare();
  if (isPointed(form)) {
    const at = (x: number, y: number) => Math.min(0, heightAt(field, x, y) || 0);
    const e = field.cell;
    const slope = (x: number, y: number) =>
      [(at(x + e, y) - at(x - e, y)) / (2 * e), (at(x, y + e) - at(x, y - e)) / (2 * e)] as const;
    return { step: field.cell, at, cone: { tan: 1 / form.rise, slope } };
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

/** Where what stands at x, y, z over level ground is on the surface, when it goes along (dx, dy). */
function laid(g: Ground, x: number, y: number, z: number, dx: number, dy: number): readonly [number, number, number] {
  if (z > 0) return [x, y, z];
  const long = Math.hypot(dx, dy);
  if (!g.cone || z === 0) return [x, y, z + g.at(x, y)];
  const { tan, slope } = g.cone;
  const [gx, gy] = slope(x, y);
  if (!(long > 0)) {
    // Straight down: no deeper than whichever way it goes on.
    return [x, y, z * Math.max(LEAST_SHARE, 1 - (gx * gx + gy * gy) * tan * tan) + g.at(x, y)];
  }
  const [tx, ty] = [dx / long, dy / long];
  // Across its way the surface is what it is at both edges of the groove, however it bends between them.
  const r = Math.max(-z * tan, g.step / 2);
  const left = g.at(x - ty * r, y + tx * r);
  const right = g.at(x + ty * r, y - tx * r);
  const along = (gx * tx + gy * ty) * tan;
  const across = Math.max(-1, Math.min(1, ((left - right) / (2 * r)) * tan));
  const share = Math.max(LEAST_SHARE, (1 - across * across) * Math.sqrt(Math.max(0, 1 - along * along)));
  const aside = across * z * tan;
  return [x - ty * aside, y + tx * aside, z * share + (left + right) / 2 + (across / tan) * aside];
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
      p.set(laid(g, fx + (x - fx) * t, fy + (y - fy) * t, fz + (z - fz) * t, x - fx, y - fy), 3 * i);
    }
    // Another way, another share of the depth.
    b.line(p[0], p[1], p[2], feed);
    fewestAlong(p, share.merge, (i) => b.line(p[3 * i], p[3 * i + 1], p[3 * i + 2], feed));
  };
  const straight = (x: number, y: number, z: number, feed: number) => {
    if (z > 0 && fz > 0) b.line(x, y, z, feed);
    else if (g.cone) cone(x, y, z, feed);
    else {
      const [x0, y0, z0] = [fx, fy, fz];
      const long = Math.hypot(x - x0, y - y0);
      const own: Follower = {
        step: g.step,
        at: (u, v) => laid(g, u, v, z0 + ((z - z0) * Math.hypot(u - x0, v - y0)) / long, 0, 0)[2],
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
      // Straight up or down: only where it ends matters. It is lifted from where it is.
      const low = laid(g, x, y, z, 0, 0)[2];
      const up = b.count > 0 && x === fx && y === fy && z > fz;
      if (kind === RAPID) b.rapid(up ? b.lastX : x, up ? b.lastY : y, low);
      else if (kind === PLUNGE) b.plunge(low, feed);
      else b.line(b.lastX, b.lastY, low, feed);
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
