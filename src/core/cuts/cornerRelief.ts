import { z } from 'zod';
import { derived } from '../geometry/hash';
import { makeSegmentIndex } from '../geometry/segmentIndex';
import {
  boundsOf,
  components,
  inBox,
  loopArea,
  normalise,
  offset,
  regionArea,
  subtract,
  thicken,
  unite,
  type Loop,
  type Region,
} from '../geometry/region';
import { lengthText } from '../units/length';
import type { FieldSpec } from '../units/limits';
import type { CutBlank, Remark } from './kind';
import { grown } from './wanted';

/**
 * Corner relief: into every corner that a cutter leaves round it goes on, along the middle, until it touches the tip; then a
 * sharp corner of the other piece goes in.
 *
 *                 ____
 *     ____________\   |   <- tip
 *                  `. |      the cutter comes from where it touches both walls (o), and stands one
 *          .-.       `|      radius off the tip at last (x)
 *         ( o )-> x   |
 *          `-`        |
 */
export const reliefSchema = {
  /** Inner corners are relieved, by the narrowest end mill; otherwise they stay as round as that is. */
  relieved: z.boolean().default(false),
};
export const reliefField = (when?: FieldSpec['when']): FieldSpec => ({
  ...{ kind: 'flag', key: 'relieved', label: 'Relieve inner corners' },
  ...{ missing: false, when },
});

/** A cutter finds its way into a relief by this much, mm: that is wider all round. */
const SLACK = 0.02;
/** What is left of a corner by less than this, mm, needs no relief. */
const SEEN = 0.003;
/** A tip so many radii from where the cutter touches both walls, or more, is a slot and no corner: 23 degrees. */
const LONG = 5;
/** Of a corner so much, of the square of the radius, may stay beside its relief. */
const BESIDE = 0.01;

interface Reliefs {
  /** What is cut for them, past the walls too. */
  readonly cut: Region;
  /** Tips of corners that cannot be relieved, being too sharp or no corners but narrow parts. */
  readonly left: readonly Tip[];
  /** Tips of corners whose relief comes through to what is cut beside them. */
  readonly through: readonly Tip[];
}
interface Tip {
  readonly x: number;
  readonly y: number;
}
const NONE: Reliefs = { cut: [], left: [], through: [] };

/** What is relieved: the corners on a blank of outlines that a cutter of a radius, mm, clears inside of, or goes round. */
export interface ReliefsOf {
  readonly radius: number;
  readonly outside: boolean;
  readonly blank: Pick<CutBlank, 'width' | 'height'>;
}

const reckoned = derived<Region, Reliefs>();

/** Reliefs of corners, each point within about `tolerance` mm. */
export function cornerReliefs(outlines: Region, of: ReliefsOf, tolerance: number): Reliefs {
  const { width, height } = of.blank;
  return reckoned(outlines, `${of.radius} ${of.outside} ${width} ${height} ${tolerance}`, () => {
    const t = tolerance / 4;
    const r = of.radius + SLACK;
    const region = of.outside ? around(outlines, of) : outlines;
    const centres = offset(region, -r, t);
    if (!centres.length) return NONE;
    const index = makeSegmentIndex(centres);
    const [slots, left]: [(Tip & { slot: Region })[], Tip[]] = [[], []];
    for (const part of components(subtract(region, offset(centres, r + 2 * t, t)))) {
      const { x, y, far } = farthest(part, (px, py) => index.distance(px, py));
      if (far - r < SEEN || !inBox({ x0: 0, y0: 0, x1: width, y1: height }, x, y)) continue;
      const from = nearestOn(centres, x, y);
      const on = 1 - r / far;
      const way = Float64Array.of(from.x, from.y, from.x + (x - from.x) * on, from.y + (y - from.y) * on);
      // As wide as it has to be between the corners of its polygon too.
      const slot = thicken(way, r + t, t);
      if (far > LONG * r || regionArea(subtract(part, slot)) > BESIDE * r * r) left.push({ x, y });
      else slots.push({ x, y, slot });
    }
    return {
      ...{ left, through: comingThrough(region, slots) },
      cut: unite(
        slots.flatMap((s) => s.slot),
        [],
      ),
    };
  });
}

/** Whether regions are of as many parts, with as many holes. */
const alike = (a: Region, b: Region): boolean =>
  a.length === b.length && a.filter((l) => loopArea(l) > 0).length === b.filter((l) => loopArea(l) > 0).length;

/** Tips of slots that join what was apart, or leave something standing alone. */
function comingThrough(region: Region, slots: readonly (Tip & { readonly slot: Region })[]): Tip[] {
  let so = normalise(region);
  const all = unite(
    so,
    slots.flatMap((s) => s.slot),
  );
  if (alike(all, so)) return [];
  return slots.flatMap(({ x, y, slot }) => {
    const before = so;
    so = unite(so, slot);
    return alike(so, before) ? [] : [{ x, y }];
  });
}

/** The corner of a part that is farthest, and how far. */
function farthest(part: Region, distance: (x: number, y: number) => number) {
  const best = { x: 0, y: 0, far: -1 };
  for (const l of part)
    for (let i = 0; i < l.length; i += 2) {
      const far = distance(l[i], l[i + 1]);
      if (far > best.far) Object.assign(best, { x: l[i], y: l[i + 1], far });
    }
  return best;
}

/** The point of outlines that is nearest to a place. */
function nearestOn(loops: readonly Loop[], x: number, y: number): { x: number; y: number } {
  let best = { x, y };
  let least = Infinity;
  for (const l of loops)
    for (let j = l.length - 2, i = 0; i < l.length; j = i, i += 2) {
      const [ex, ey] = [l[i] - l[j], l[i + 1] - l[j + 1]];
      const long = ex * ex + ey * ey;
      const s = long > 0 ? Math.min(1, Math.max(0, ((x - l[j]) * ex + (y - l[j + 1]) * ey) / long)) : 0;
      const [px, py] = [l[j] + s * ex, l[j + 1] + s * ey];
      const d = (px - x) ** 2 + (py - y) ** 2;
      if (d < least) [least, best] = [d, { x: px, y: py }];
    }
  return best;
}

/** What lies round a region, to well past the blank: what is round it there has corners that are nobody's. */
function around(region: Region, { radius, blank }: ReliefsOf): Region {
  const whole = Float64Array.of(0, 0, blank.width, 0, blank.width, blank.height, 0, blank.height);
  const { x0, y0, x1, y1 } = grown(boundsOf([...region, whole]), 8 * radius + 1);
  return subtract([Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1)], region);
}

const made = derived<Region, Region>();

/** Outlines with their corners relieved: larger by that where a cutter clears inside of them, smaller where it goes round. */
export const relievedRegion = (outlines: Region, of: ReliefsOf, tolerance: number): Region =>
  made(outlines, `${of.radius} ${of.outside} ${of.blank.width} ${of.blank.height} ${tolerance}`, () => {
    const { cut } = cornerReliefs(outlines, of, tolerance);
    return cut.length ? (of.outside ? subtract : unite)(outlines, cut) : outlines;
  });

/** So many places are told one by one. */
const TOLD = 3;

/** Corners that stay as they are, told with their places. */
export function reliefRemarks(
  outlines: Region,
  of: ReliefsOf & { readonly blank: CutBlank },
  cutter: { readonly name: string },
  tolerance: number,
): Remark[] {
  const { left, through } = cornerReliefs(outlines, of, tolerance);
  const wide = lengthText(2 * of.radius, of.blank.unit ?? 'mm');
  const told = (places: readonly Tip[], words: (more: number) => string): Remark[] =>
    places
      .slice(0, TOLD)
      .map((p, k) => ({ level: 'problem', text: words(k === TOLD - 1 ? places.length - TOLD : 0), x: p.x, y: p.y }));
  return [
    ...told(
      left,
      (more) =>
        `${cutter.name}, ${wide} wide, cannot relieve this corner${more ? `, nor ${more} more` : ''}: it is too sharp, or the end of something narrow. Take a narrower cutter.`,
    ),
    ...told(
      through,
      (more) =>
        `The relief of this corner${more ? `, and of ${more} more,` : ''} comes through to what is cut beside it. Take a narrower cutter, or move them apart.`,
    ),
  ];
}
