import { z } from 'zod';
import { coneOf, cuttingLength, formOf, radiusOf, type Cutter } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { makeInside } from '../../geometry/inside';
import { branchesFor, insetsOf } from '../../geometry/insets';
import { traceable } from '../../geometry/traceable';
import { components, regionArea, simplifyRegion, type Loop, type Region } from '../../geometry/region';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { MotionBuilder } from '../../motion/motion';
import { clearingTool } from '../clearing/clear';
import { clearAll, type ClearingHands, type ClearingWork } from '../clearing/meanwhile';
import { leftBy, reachOf } from '../clearing/reach';
import { finer } from '../budget';
import { durationText } from '../../units/duration';
import {
  cutKind,
  type CutContext,
  emptyPlan,
  travelHeights,
  passes,
  type Remark,
  type Toolpath,
  ownStep,
} from '../kind';
import { cutBy, nearBlank, onBlank, sideDefaults, sideFields, sideSchema, withinBlank, type Side } from '../around';
import { cornered, cornerRemarks, growField, growSchema } from '../corners';
import { carve } from '../vcarve/carve';
import { floorLines, level, rimsOf, wayOf } from '../vcarve/floor';
import { joinRims } from '../vcarve/join';
import { extendedIntoCorners } from '../vcarve/cornerExtension';
import { boxOf, EMPTY, reaching } from '../wanted';
import type { Branches } from '../../geometry/medial/branches';
import { makeStrokes, type Stroke } from '../vcarve/strokes';

/** How far end mills keep off the wall, mm. */
const HAIR = 0.01;

/** Where it goes past the edges of the blank, cutters go so much further than they have to, mm. */
const EDGE = 0.05;
const pastBy = (wide: number): number => 2 * wide + EDGE;

/** What the rapid rate is taken to be when lifting is weighed against going back, mm/min. */
const RAPID = 4000;

/**
 * V-carve: the tip of a cone with flat radius t and half angle a follows the medial axis at depth
 * min((r - t) / tan a, limit) below the start depth, r being the exact clearance to the outline.
 */
export const vcarve = cutKind({
  id: 'vcarve',
  name: 'V-carve',
  summary: 'Carves outlines with a V-bit, deeper where they are wider.',
  canRide: true,
  schema: z.object({
    cutter: z.string(),
    endMills: z.array(z.string()).max(8),
    startDepth: z.number().min(0).max(500),
    limit: z.number().min(0.001).max(500).nullable(),
    /** How far above the face sharp corners run out, mm. */
    overRise: z.number().min(0).max(20),
    ...sideSchema,
    ...growSchema,
  }),
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'V-bit or cone', shapes: ['v', 'cone'] },
    ...sideFields('Carves'),
    { kind: 'length', key: 'startDepth', label: 'Start depth' },
    { kind: 'length', key: 'limit', label: 'Depth limit', optional: 'None' },
    growField,
    {
      kind: 'length',
      key: 'overRise',
      label: 'Run corners out above',
      hint: 'For blanks that are not flat',
      when: (v) => v.side === 'inside',
    },
    {
      kind: 'cutters',
      key: 'endMills',
      label: 'End mills for the floor',
      shapes: ['flat', 'bull'],
      optional: 'None, the V-bit clears it',
      when: (v) => v.limit !== null,
    },
  ],
  defaults: (_blank, cutters) => ({
    cutter: nearestCutter(cutters, 'v', 12, 60),
    endMills: [],
    startDepth: 0,
    limit: null,
    overRise: 0,
    ...sideDefaults,
    grow: 0,
  }),
  fills: true,
  outlinesOnly: () => true,
  cutters: (v) => (v.limit !== null ? [...v.endMills, v.cutter] : [v.cutter]),
  upgrades: {
    // A floor had one end mill, and steps of its own.
    4: (cut) => {
      const { floorStep, endMillStep, endMill, ...v } = cut.values;
      ownStep(cut, v.cutter, floorStep);
      ownStep(cut, endMill, endMillStep);
      cut.values = { ...v, endMills: endMill ? [endMill] : [], overRise: 0 };
    },
    // It carved inside of outlines alone.
    15: (cut) => void (cut.values = { ...sideDefaults, ...cut.values }),
  },
  plan(v, given) {
    const c = cornered(given, v);
    const cutter = c.cutter(v.cutter);
    const preset = c.preset(v.cutter);
    const { tan, tip } = coneOf(cutter);
    const remarks: Remark[] = cornerRemarks(given, v);
    const around = v.side === 'around';
    // Round outlines all that stands above the start depth is carved as well.
    const face = around ? 0 : -v.startDepth;
    const limit = limitOf(v, cutter, remarks);
    if (!(limit > 0)) return emptyPlan(remarks);
    // Depth errors are radial ones divided by tan a: steep cones get finer outlines.
    const budget = finer(c.budget, 1 / tan);
    const R = limit * tan + tip;
    // Where it goes past the edges, its wall there lies so far off that the cone on it never meets the blank.
    const widestCut = R + v.startDepth * tan;
    const past = pastBy(widestCut);
    const outlines = c.region(budget.flatten);
    const region = outlineOf(cutBy(v, outlines, budget.offset, c.blank, past), remarks);
    if (!region.length) return emptyPlan(remarks);
    const height = (r: number) => -v.startDepth - Math.min((r - tip) / tan, limit);
    const floorWork = v.endMills.length && v.limit !== null ? floorWorkOf(v, c, outlines, limit, tan) : null;
    const clear = floorWork && (c.meanwhile ?? alone)(floorWork.work);
    const share = floorWork ? 0.5 : 1;
    const parts = components(region);
    const branches: Branches[] = [];
    parts.forEach((part, i) => {
      branches.push(branchesFor(part, budget.sample, budget.prune));
      c.progress((0.6 * share * (i + 1)) / parts.length);
    });
    const widest = widestOf(branches);
    const deepest = Math.min(limit, Math.max(0, (widest - tip) / tan));
    if (v.limit === null && widest > R + 1e-9)
      remarks.push({
        level: 'problem',
        text: `Parts of the artwork are wider than ${cutter.name} (${(2 * R).toFixed(2)} mm); they get a flat floor at its full depth of ${limit.toFixed(2)} mm.`,
      });

    const insets = insetsOf(region);
    const flat = widest > R ? insets.at(R - tip, budget.offset) : [];
    const toClear = onBlank(v, flat, c.blank);
    const mills = toClear.length ? floorWork : null;
    const rest = mills ? mills.leftOf(toClear) : toClear;
    // How far inside the rim there can be something left to clear.
    const deep = mills ? Math.min(widest - R, mills.smallest + tip) : widest - R;

    // Going back along a stroke costs its length, lifting the way up, over and down again.
    const lift = (z: number) =>
      (2 * (c.blank.clearance - z)) / RAPID + (c.blank.clearance + v.startDepth + deepest) / preset.plunge + 0.01;
    const costs = { feed: preset.feed, plunge: preset.plunge, rapid: RAPID, clearance: c.blank.clearance };
    const levels = deepest > 0 ? passes(face, -v.startDepth - deepest, preset.stepDown) : [];
    const allRims = flat.length ? rimsOf(insets, R, budget) : [];
    const rimRegion: Region = allRims.map((l) => l.subarray(0, l.length - 2));
    const rims = nearBlank(v, allRims, 2, c.blank, widestCut);
    const tick = () => c.progress(0.8 * share);
    const fine = floorOf(rest, preset.stepOver, cutter.name, remarks);
    const over = rest === flat ? null : rest;
    const lines = fine ? floorLines(insets, branches, R, over, fine, deep, budget, tick) : [];
    // All passes but the last one need not be smooth: ridges there are a quarter of the step-down high.
    const wide = Math.max(fine, 2 * (tip + (tan * preset.stepDown) / 4));
    const rough =
      !fine || levels.length < 2
        ? []
        : wide > 1.2 * fine
          ? floorLines(insets, branches, R, over, wide, deep, budget, tick)
          : lines;
    hours(lines, rough, levels.length, preset.feed, v, remarks);
    const b = new MotionBuilder();
    let previousLevel = face;
    const overRise = around ? 0 : v.overRise;
    for (const floor of levels) {
      const first = previousLevel === face;
      const low = tip + Math.max(0, -v.startDepth - previousLevel) * tan - (first ? overRise * tan : 0);
      const parts = overRise > 0 && first ? branches.map((q) => extendedIntoCorners(q, overRise * tan)) : branches;
      const all = parts.flatMap((part) => [
        ...makeStrokes(part, low, R, tip + (-v.startDepth - floor) * tan, (r) => Math.max(height(r), floor), costs),
        ...plungesOf(part, low, R, around ? previousLevel : -v.startDepth, (r) => Math.max(height(r), floor)),
      ]);
      const strokes = nearBlank(v, all, 3, c.blank, widestCut);
      const last = floor === levels[levels.length - 1];
      const joined = joinRims(
        rims.map((l) => level(l, floor)),
        strokes,
        (length, z) => length / preset.feed <= lift(z),
      );
      carve(b, [...joined, ...(last ? lines : rough).map((l) => level(l, floor))], c.blank, preset, {
        rim: rimRegion,
        lift: lift(floor),
        tolerance: c.budget.merge,
        weight: Math.min(1, tan),
      });
      previousLevel = floor;
      c.progress(0.9 * share);
    }
    const cleared = mills && clear!((f) => c.progress(share + (1 - share) * f));
    const toolpaths: Toolpath[] = cleared ? [...cleared.toolpaths] : [];
    for (const id of cleared?.idle ?? [])
      remarks.push({
        level: 'note',
        text: `${c.cutter(id).name} finds no floor that is wide enough for it, or nothing that the others left.`,
      });
    if (b.count) {
      b.lift(c.blank.safeHeight);
      toolpaths.push({ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() });
    }
    const unreached = tip > 0 ? reachOf(region, tip) : { area: 0, left: [] };
    c.progress(1);
    const plan = {
      ...{ toolpaths, remarks, reach: cleared?.reach, tabs: [], cutsFree: false },
      unreached: { area: unreached.area, region: unreached.left },
    };
    return withinBlank(v, plan, c.blank, Math.max(past, mills?.past ?? 0));
  },
  wanted(v, given) {
    const c = cornered(given, v);
    const cutter = c.cutter(v.cutter);
    const { tan, tip } = coneOf(cutter);
    const limit = limitOf(v, cutter);
    const budget = finer(c.budget, 1 / tan);
    const past = pastBy((limit + v.startDepth) * tan + tip);
    const region = limit > 0 ? cutBy(v, c.region(budget.flatten), budget.offset, c.blank, past) : [];
    if (!region.length) return EMPTY;
    const inside = makeInside(region);
    const outline = makeSegmentIndex(region);
    const top = -v.startDepth;
    // Beside what it carves round outlines the cone goes on rising from the start depth to the face.
    const beside =
      v.side === 'around' && v.startDepth > 0
        ? (x: number, y: number) => Math.min(0, top + outline.distance(x, y, v.startDepth * tan) / tan)
        : () => 0;
    const surface = (x: number, y: number) =>
      inside(x, y) ? top - Math.min(outline.distance(x, y, limit * tan) / tan, limit) : beside(x, y);
    // Ridges between the lines of the tip on the floor, and what the end mills leave instead.
    const scallop = Math.max(0, c.preset(v.cutter).stepOver / 2 - tip) / tan;
    const insets = insetsOf(region);
    const mills =
      v.limit === null
        ? []
        : v.endMills.map((id) =>
            reaching(
              insets.at(HAIR + tan * limit + radiusOf(c.cutter(id)), budget.offset),
              formOf(c.cutter(id)),
              top - limit,
            ),
          );
    // Into corners that a flat tip does not enter nothing goes on rising.
    const reached = tip > 0 && v.side === 'around' ? makeSegmentIndex(reachOf(region, tip).reached) : outline;
    return {
      box: boxOf(region, v.side === 'around' ? v.startDepth * tan : 0),
      surface,
      stays(x, y) {
        if (!inside(x, y))
          return v.side === 'around' ? Math.min(0, top + reached.distance(x, y, v.startDepth * tan + tip) / tan) : 0;
        const d = outline.distance(x, y);
        // A flat tip goes as deep as the widest place within its own width lets it: the groove's bottom is as wide as the tip.
        let wallClearance = d;
        if (tip > 0)
          for (let k = 0; k < 16; k++) {
            const [px, py] = [x + tip * Math.cos((k * Math.PI) / 8), y + tip * Math.sin((k * Math.PI) / 8)];
            if (inside(px, py)) wallClearance = Math.max(wallClearance, outline.distance(px, py));
          }
        const deep = top - Math.min(Math.max(0, wallClearance - tip) / tan, limit);
        if (d < limit * tan - 1e-3) return deep;
        return Math.min(deep + scallop, 0, ...mills.map((m) => m(x, y)));
      },
    };
  },
  side(v, blank, cutter) {
    const c = cutter(v.cutter);
    const draftAngle = c ? (Math.atan(coneOf(c).tan) * 180) / Math.PI : 30;
    return {
      start: v.startDepth,
      floor: v.startDepth + (v.limit ?? Math.min(blank.thickness / 2, 6)),
      draftAngle: draftAngle,
    };
  },
});

/** The depth limit below the start depth, or how deep the cutter can go there where that is less; what is not kept is remarked. */
function limitOf(
  v: Side & { readonly limit: number | null; readonly startDepth: number },
  cutter: Cutter,
  remarks: Remark[] = [],
): number {
  const length = cuttingLength(cutter);
  const cone = v.side === 'around' ? length - v.startDepth : length;
  if ((v.limit ?? Infinity) <= cone) return v.limit!;
  if (cone <= 0)
    remarks.push({
      level: 'problem',
      text: `${cutter.name} cuts ${length.toFixed(2)} mm deep at most: it comes no lower than the start depth. Take a longer one, or let the plug go in less.`,
    });
  else if (v.limit !== null)
    remarks.push({
      level: 'problem',
      text: `${cutter.name} cuts ${length.toFixed(2)} mm deep at most; the depth limit is held at ${cone.toFixed(2)} mm.`,
    });
  return cone;
}

/** What of the artwork has an axis that can be found; what has not is told by size and place. */
function outlineOf(artwork: Region, remarks: Remark[]): Region {
  const { region, lost } = traceable(artwork);
  for (const l of lost) {
    const what = `${l.area.toPrecision(2)} mm\u00b2 of the artwork, within ${l.side.toFixed(2)} mm,`;
    remarks.push({
      level: 'problem',
      text: `The outline is too tangled here for an exact V-carve: ${what} are left out.`,
      x: l.x,
      y: l.y,
      mend: 'simplify',
    });
  }
  return region;
}

/** The greatest clearance of all branches, mm. */
function widestOf(branches: readonly Branches[]): number {
  let widest = 0;
  for (const { samples, plunges } of branches)
    for (const list of [samples, plunges])
      for (let k = 2; k < list.length; k += 3) if (list[k] > widest) widest = list[k];
  return widest;
}

/** Strokes straight down where a branch is a single point. */
function plungesOf(part: Branches, low: number, R: number, top: number, height: (r: number) => number): Stroke[] {
  const out: Stroke[] = [];
  for (let k = 0; k < part.plunges.length; k += 3) {
    const [x, y] = [part.plunges[k], part.plunges[k + 1]];
    const r = Math.min(part.plunges[k + 2], R);
    if (r > low) out.push(Float64Array.of(x, y, top, x, y, height(r)));
  }
  return out;
}

const alone: ClearingHands = (work) => (progress) => clearAll(work, progress);

/**
 * How the end mills clear the floor, down to the limit. `leftOf` is what they leave of it, `smallest` the radius of the smallest of
 * them, and `past` how far they go past the edges of the blank.
 */
function floorWorkOf(
  v: Side & { readonly endMills: readonly string[]; readonly startDepth: number },
  c: CutContext,
  outlines: Region,
  limit: number,
  tan: number,
): { work: ClearingWork; leftOf(floor: Region): Region; smallest: number; past: number } {
  const tools = [...new Set(v.endMills)].map((id) => clearingTool(c.cutter(id), c.preset(id)));
  const past = HAIR + tan * limit + Math.max(...tools.map((t) => t.radius)) + EDGE;
  const region = cutBy(v, outlines, c.budget.offset, c.blank, past);
  // They keep a hair off walls: into a stroke that narrows they come less far by much more.
  const sorted = [...tools].sort((a, b) => b.radius - a.radius).map((t) => ({ ...t, radius: t.radius + HAIR }));
  return {
    work: {
      tools,
      // A hair off the wall at every height: the wall belongs to the V-bit, so the outline may be coarse here.
      region: simplifyRegion(region, HAIR / 3),
      offset: HAIR,
      options: {
        ...travelHeights(c.blank),
        stockTop: v.side === 'around' ? 0 : -v.startDepth,
        wallTop: -v.startDepth,
        floor: -v.startDepth - limit,
        ramp: 3,
        entry: 'helix',
        climb: true,
        pattern: 'contours',
        angle: 0,
        draft: tan,
        budget: c.budget,
      },
    },
    leftOf: (floor) => leftBy(floor, sorted, []).pop()!,
    smallest: Math.min(...tools.map((t) => t.radius)),
    past,
  };
}

/** More way than this (mm) over a floor is days of work. */
const MOST_WAY = 3e6;
/** From so many minutes on a floor is worth a word. */
const LONG = 15;

/** The step-over for what a V-bit's tip clears of the floor; 0, and a problem said, where it would never end. */
function floorOf(rest: Region, step: number, name: string, remarks: Remark[]): number {
  const area = regionArea(rest);
  if (!(area > 0)) return 0;
  if (area / step < MOST_WAY) return step;
  remarks.push({
    level: 'problem',
    text: `${name} would have to go ${Math.round(area / step / 1e6)} km to and fro to clear a floor of ${Math.round(area / 100)} cm\u00b2 with its tip; the floor is left. Enter a depth limit and add an end mill for the floor, or take a wider step-over.`,
  });
  return 0;
}

/** Says what a floor takes that is cleared by a tip alone. */
function hours(
  lines: readonly Loop[],
  rough: readonly Loop[],
  passes: number,
  feed: number,
  v: { readonly endMills: readonly string[]; readonly limit: number | null },
  remarks: Remark[],
): void {
  const minutes = (wayOf(lines) + wayOf(rough) * (passes - 1)) / feed;
  if (minutes > LONG && !v.endMills.length)
    remarks.push({
      level: 'note',
      text: `The tip of the bit alone takes about ${durationText(minutes)} to clear the floor. ${v.limit === null ? 'Enter a depth limit and add' : 'Add'} an end mill for the floor: it needs a small part of that.`,
      mend: 'end-mill',
    });
}
