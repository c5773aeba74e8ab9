import { regionOf, type Item } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { materials, type MaterialId } from '../cutters/materials';
import { PROMISED } from '../cuts/budget';
import { corneredRegion } from '../cuts/corners';
import { cornerReliefs } from '../cuts/cornerRelief';
import { radiusOf } from '../cutters/cutter';
import { makeInside } from '../geometry/inside';
import { components, normalise, offset, pointBeside, regionArea, subtract, type Region } from '../geometry/region';
import type { Cut } from '../job/job';
import type { Pair } from '../job/pairs';
import { fitOf, putTogether, WIDE, type Fit, type FitPlace, type Half } from '../proof/fit';
import { joined, type Joined } from '../proof/joined';
import type { PressedSheet } from '../proof/pressedSheet';
import { seamAlong, type SeamPlace } from '../proof/seam';
import { nodesInside } from '../relief/distance';
import type { HeightField } from '../relief/field';
import { lengthText } from '../units/length';
import { at, leanOf, NEAR_FACE, OUTSIDE, SHORT, TIGHT, type Halves, type Says } from './halves';
import { pressedPair, type PressedFit } from './pressing';
import type { Proof } from './proving';
import type { Trouble } from './trouble';

/** A plug with upright walls in its pocket, as both were cut. */
export interface StraightFit {
  /** Clearance on each side as it was asked for, and the least and the most that there is, mm; null where no walls meet. */
  readonly clearance: number;
  readonly least: number | null;
  readonly most: number | null;
  /** How far the plug stands out of its pocket, mm; below the face where it is below zero. */
  readonly proud: number;
}
export interface Fitted {
  /** Null where there is nothing to put together, or where walls are upright. */
  readonly fit: Fit | null;
  /** Null where walls lean. */
  readonly straight: StraightFit | null;
  /** Of dies alone. */
  readonly pressed: PressedFit | null;
  /** The seam at places all along the outlines. */
  readonly seam: readonly SeamPlace[];
  /** How wide it is to be, mm. */
  readonly wanted: number;
  /** Null of dies. */
  readonly joined: Joined | null;
  /** What dies press; null for inlays. */
  readonly sheet: PressedSheet | null;
  readonly troubles: readonly Trouble[];
}

/** What is thinner than this breaks, mm: along the grain in wood, and on its own in metal. */
const THIN = { wood: 0.8, board: 0.6, metal: 0.25, layered: 0.6 } as const;
/** As many squares of its width a thin part holds at least: the tip of a corner is thin too. */
const LONG = 3;

/** Parts of a straight inlay that are too thin to last: of its plug, and of what stays between its pockets. Leaning walls hold more as they go down. */
function thinParts(outlines: Region, pocket: MaterialId, plug: MaterialId, long: Says): Trouble[] {
  const thin = (of: MaterialId, less: (w: number) => Region, words: string): Trouble[] => {
    const w = THIN[materials[of].look];
    const parts = components(less(w)).filter((p) => regionArea(p) > LONG * w * w);
    const largest = parts.sort((a, b) => regionArea(b) - regionArea(a))[0];
    return largest
      ? [
          {
            text: `${words} is thinner than ${long(w)} here: in ${materials[of].name.toLowerCase()} it may break.`,
            at: at(pointBeside(largest[0])),
          },
        ]
      : [];
  };
  const opened = (r: Region, by: number) => offset(offset(r, -by), by);
  const closed = (r: Region, by: number) => offset(offset(r, by), -by);
  return [
    ...thin(plug, (w) => subtract(outlines, opened(outlines, w / 2 + 0.003)), 'The plug'),
    ...thin(pocket, (w) => subtract(closed(outlines, w / 2), outlines), 'What stays between two parts of the pocket'),
  ];
}

const halfOf = ({ input, found }: Proof): Half => ({
  ...{ blank: input.job.blank, programs: input.programs, tools: input.tools },
  found: found?.faces.up ?? null,
});

/** Puts the halves of an inlay together, as their proofs have read the programs back. */
export function fittedPair(
  pair: Pair,
  pocket: Proof,
  plug: Proof,
  art: ArtworkContext,
  tell: (done: number) => void = () => {},
): Fitted {
  const [into, goes] = [pocket.input.job, plug.input.job];
  const pocketCut = into.cuts.find((c) => c.id === pair.pocketCut)!;
  const used = new Set(pocketCut.items);
  const items = into.items.filter((i) => used.has(i.id));
  const halves: Halves = {
    ...{ pocket, plug, tell, pocketCut },
    plugCut: goes.cuts.find((c) => c.id === pair.plugCut)!,
    outlines: regionOf(items, art, PROMISED),
    beside: regionOf(besides(into, pocketCut), art, PROMISED),
    long: (mm) => lengthText(mm, into.unit, into.unit === 'mm' ? 2 : 4),
    put: {
      pocket: halfOf(pocket),
      plug: halfOf(plug),
      turned: pair.turned,
    },
  };
  if (pair.sheet !== undefined) return pressedPair(halves, pair.sheet);
  return (pair.walls === 'upright' ? straightPair : leaningPair)(halves);
}

function leaningPair(h: Halves): Fitted {
  const { plugCut, outlines, long, put, tell } = h;
  const { lean, troubles } = leanOf(h);
  const v = plugCut.values as { startDepth: number; margin: number | null };
  const both = putTogether(put, (d) => tell(0.5 * d));
  const { width, height } = put.pocket.blank;
  const asked = { ...put, goesIn: v.startDepth, lean, outlines, margin: v.margin ?? width + height };
  const fit = fitOf(asked, both);
  // What stands further round is sawn off.
  const inside = nodesInside(offset(outlines, OUTSIDE / 2, 0.01), both.pocket);
  const level = Math.min(NEAR_FACE, v.startDepth / 2);
  const seam = seamAlong(
    {
      ...{ ...put, outlines, lean },
      ...{ pocketAt: -level, plugAt: -(v.startDepth - level - fit.short.mm) },
      ...{ within: level * Math.tan(lean) + OUTSIDE, outside: OUTSIDE },
    },
    (d) => tell(0.5 + 0.5 * d),
  );
  if (fit.missing)
    troubles.push({
      text: 'Part of the plug lies beyond its blank, from here on. Make the blank of the plug larger, or move the artwork.',
      at: at(fit.missing),
    });
  if (fit.short.mm > SHORT)
    troubles.push({
      text: `The plug stops ${long(fit.short.mm)} short of where it is to go: it meets the pocket here.`,
      at: fit.short,
    });
  if (fit.seam && fit.seam.mm > WIDE)
    troubles.push({ text: `The seam is ${long(fit.seam.mm)} wide here.`, at: fit.seam });
  if (fit.glue && fit.glue.least < SHORT && fit.short.mm <= SHORT)
    troubles.push({
      text: 'There is no room for glue under the plug. Make the pocket deeper, or let it go in less.',
      at: null,
    });
  return {
    ...{ fit, straight: null, pressed: null, seam, wanted: 0, troubles },
    joined: joined(both, v.startDepth - fit.short.mm, lean, inside),
    sheet: null,
  };
}

/** What other pockets of a set-up are made of. */
function besides(one: Proof['input']['job'], pocket: Cut): Item[] {
  const used = new Set(
    one.cuts
      .filter((c) => c !== pocket && c.enabled && c.kind === 'area' && c.values.side === 'inside')
      .flatMap((c) => c.items),
  );
  for (const id of pocket.items) used.delete(id);
  return one.items.filter((i) => used.has(i.id));
}

/** How far the floor of a pocket lies below its face, and its highest place, away from walls by `off` mm; null where it has none. */
function floorOf(field: HeightField, outlines: Region, off: number): FitPlace | null {
  const inside = nodesInside(offset(outlines, -off), field);
  let best = -1;
  for (let i = 0; i < inside.length; i++) if (inside[i] && (best < 0 || field.z[i] > field.z[best])) best = i;
  if (best < 0) return null;
  const [c, r] = [best % field.cols, Math.floor(best / field.cols)];
  return { mm: -field.z[best], x: field.x0 + c * field.cell, y: field.y0 + r * field.cell };
}

/** Whether a place along the seam lies at a corner that one of both cuts relieves. */
function reliefsIn(h: Halves, wanted: Region, clearance: number): (p: SeamPlace) => boolean {
  const blank = h.pocket.input.job.blank;
  const of = ({ input }: Proof, { values }: Cut, outlines: Region, outside: boolean): Region => {
    const ids = [values.cutters ?? values.cutter].flat();
    const radii = input.job.cutters.filter((c) => ids.includes(c.id)).map(radiusOf);
    return values.relieved ? cornerReliefs(outlines, { radius: Math.min(...radii), outside, blank }, PROMISED).cut : [];
  };
  const plug = corneredRegion(h.outlines, h.plugCut.values, PROMISED);
  const all = [...of(h.pocket, h.pocketCut, wanted, false), ...of(h.plug, h.plugCut, plug, true)];
  if (!all.length) return () => false;
  // Sections that begin beside them come to them still.
  const inside = makeInside(offset(normalise(all), BY + Math.max(0, clearance)));
  return ({ x, y }) => inside(x, y);
}
/** Beside reliefs the seam is not looked at for so much, mm. */
const BY = 0.2;

function straightPair(h: Halves): Fitted {
  const { pocket, plug, pocketCut, plugCut, outlines, beside, long, put, tell } = h;
  const v = pocketCut.values as { depth: number; corners?: number; grow?: number };
  const w = plugCut.values as { corners?: number; grow?: number; allowance?: number };
  const clearance = (v.grow ?? 0) - (w.grow ?? 0);
  const wanted = corneredRegion(outlines, { corners: v.corners, grow: v.grow }, PROMISED);
  const both = putTogether(put, (d) => tell(0.5 * d));
  const height = -v.depth / 2;
  const places = seamAlong(
    {
      ...{ ...put, outlines: wanted, lean: 0, pocketAt: height, plugAt: height },
      ...{ within: Math.max(0, clearance) + OUTSIDE, outside: OUTSIDE },
      isOpen: beside.length ? makeInside(beside) : undefined,
    },
    (d) => tell(0.5 + 0.5 * d),
  );
  // A pocket whose walls a cone leans is told.
  const { troubles } = leanOf(h);
  const isRelieved = reliefsIn(h, wanted, clearance);
  const seam = places.map((p) => (isRelieved(p) ? { ...p, relieved: true } : p));
  const met = seam.filter((p) => p.wide === p.wide);
  const least = met.reduce<SeamPlace | null>((a, p) => (!a || p.wide < a.wide ? p : a), null);
  // Reliefs are wider than the seam, and are meant to be.
  const most = met.reduce<SeamPlace | null>((a, p) => ((a && p.wide <= a.wide) || p.relieved ? a : p), null);
  const lost = seam.find((p) => p.wide !== p.wide && !p.relieved);
  if (lost)
    troubles.push({
      text: `Walls of pocket and plug do not meet at ${seam.length - met.length} of ${seam.length} places, this one among them: one of both is not cut there, or lies more than ${long(OUTSIDE)} off.`,
      at: at(lost),
    });
  if (least && least.wide < -TIGHT)
    troubles.push({
      text: `The plug is ${long(-least.wide)} too large for its pocket here. Round the corners of both by the larger cutter's radius, let both be relieved, or give it more clearance.`,
      at: { ...at(least), mm: -least.wide },
    });
  if (most && most.wide > clearance + WIDE)
    troubles.push({
      text: `The seam is ${long(most.wide)} wide here, and ${long(clearance)} are wanted.`,
      at: { ...at(most), mm: most.wide },
    });
  const floor = floorOf(pocket.field, wanted, 2 * pocket.field.cell);
  const thick = plug.input.job.blank.thickness;
  if (floor && v.depth - floor.mm > SHORT)
    troubles.push({
      text: `The floor of the pocket stands ${long(v.depth - floor.mm)} too high here: the plug does not go down on it.`,
      at: floor,
    });
  troubles.push(...thinParts(outlines, pocket.input.job.blank.material, plug.input.job.blank.material, long));
  const proud = thick - (floor ? floor.mm : v.depth);
  if (proud < -SHORT)
    troubles.push({
      text: `The plug ends ${long(-proud)} below the face: its plate is ${long(thick)} thick, and the pocket ${long(v.depth)} deep.`,
      at: null,
    });
  return {
    fit: null,
    pressed: null,
    straight: { clearance, least: least?.wide ?? null, most: most?.wide ?? null, proud },
    ...{ seam, wanted: clearance, troubles },
    joined: joined(both, floor ? floor.mm : v.depth, 0, nodesInside(wanted, both.pocket), Math.min(0, proud)),
    sheet: null,
  };
}
