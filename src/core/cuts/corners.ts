import { z } from 'zod';
import { derived } from '../geometry/hash';
import { components, offset, pointBeside, regionArea, subtract, type Region } from '../geometry/region';
import { lengthText } from '../units/length';
import type { FieldSpec } from '../units/limits';
import type { CutContext, Remark } from './kind';

/**
 * Outlines as two pieces that go into each other need them: every corner, of the outline and of what lies round it, is as round as
 * the larger of both cutters, so that what the one leaves in a corner is what the other leaves out; and moved outwards or inwards
 * for the room between them. Opening and closing by a disc (Serra, Image Analysis and Mathematical Morphology, 1982), by offsets.
 *
 *        ______                  _____
 *       |      |                /     \          r at each corner,
 *       |   ___|     ->        |    __/          inside and outside
 *       |  |                   |   /
 *       |__|                    \_/
 */
export const growSchema = {
  /** How far outlines are moved outwards, mm; inwards below zero. */
  grow: z.number().min(-20).max(20).default(0),
};
export const cornerSchema = {
  /** Radius of all corners, mm; 0: as they are drawn. */
  corners: z.number().min(0).max(50).default(0),
  ...growSchema,
};
export const growField: FieldSpec = {
  ...{ kind: 'length', key: 'grow', label: 'Outline grown by', hint: 'Below zero for smaller', missing: 0 },
};
export const cornerFields: readonly FieldSpec[] = [
  { kind: 'length', key: 'corners', label: 'Corners rounded to', hint: 'Radius, 0 for as drawn', missing: 0 },
  growField,
];
/** What files of before these values lack. */
type Corners = { readonly [K in keyof typeof cornerSchema]?: number };

const made = derived<Region, Region>();
const rounded = (region: Region, r: number, tolerance: number): Region => {
  const t = tolerance / 4;
  return offset(offset(offset(region, r, t), -2 * r, t), r, t);
};

/** Outlines with their corners rounded and grown, each point within about `tolerance` mm. */
export function corneredRegion(region: Region, { corners = 0, grow = 0 }: Corners, tolerance: number): Region {
  if (!corners && !grow) return region;
  return made(region, `${corners} ${grow} ${tolerance}`, () =>
    offset(corners ? rounded(region, corners, tolerance) : region, grow, tolerance / 4),
  );
}

/** A cut's context with outlines as they are asked for. */
export const cornered = (c: CutContext, v: Corners): CutContext =>
  v.corners || v.grow ? { ...c, region: (tolerance) => corneredRegion(c.region(tolerance), v, tolerance) } : c;

/** What rounding takes of a right-angled corner, as part of the square of its radius, is 1 - pi / 4; so much is more than a corner. */
const MORE = 1;
/** The same of the tip of a star or a letter that is made smaller. */
const TIP = 12;
/** So many places are told one by one. */
const TOLD = 3;

/** Parts of outlines that rounding or shrinking leaves out, or gaps between them that rounding or growing fills: more than their corners. */
export function cornerRemarks(c: CutContext, { corners: r = 0, grow = 0 }: Corners): Remark[] {
  if (!r && !grow) return [];
  const region = c.region(c.budget.flatten);
  const rounded = corneredRegion(region, { corners: r }, c.budget.flatten);
  const long = (mm: number) => lengthText(mm, c.blank.unit ?? 'mm');
  const told = (parts: Region, more: number, words: string, way: string): Remark[] => {
    const places = components(parts).filter((p) => regionArea(p) > more);
    return places.slice(0, TOLD).map((p, k) => ({
      level: 'problem' as const,
      text: `${words} here${k === TOLD - 1 && places.length > TOLD ? `, and at ${places.length - TOLD} more places` : ''}. ${way}`,
      ...pointBeside(p[0]),
    }));
  };
  const [wide, twice] = [long(2 * r), long(2 * Math.abs(grow))];
  const byRounding = 'Take a smaller cutter, or round corners less.';
  return [
    ...told(
      subtract(region, rounded),
      MORE * r * r,
      `The outline is narrower than ${wide}, as round as its corners are to be: part of it is left out`,
      byRounding,
    ),
    ...told(
      subtract(rounded, region),
      MORE * r * r,
      `Outlines leave less than ${wide} between them, as round as corners are to be: the gap is filled`,
      byRounding,
    ),
    ...told(
      grow < 0 ? subtract(rounded, thereAndBack(rounded, grow)) : [],
      TIP * grow * grow,
      `The outline is narrower than ${twice}, twice what it is made smaller by: part of it is left out`,
      'Make it smaller by less, or the outline bolder.',
    ),
    ...told(
      grow > 0 ? subtract(thereAndBack(rounded, grow), rounded) : [],
      TIP * grow * grow,
      `Outlines leave less than ${twice} between them, twice what they are grown by: the gap is filled`,
      'Grow them less, or move them apart.',
    ),
  ];
}

/** A region moved and moved back by a hair more, so that what tolerances take is not counted. */
const thereAndBack = (region: Region, grow: number): Region =>
  offset(offset(region, grow), -1.02 * grow - Math.sign(grow) * 0.002);
