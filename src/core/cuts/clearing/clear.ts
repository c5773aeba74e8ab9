import { radiusAt, radiusOf, type Cutter, type Preset } from '../../cutters/cutter';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import type { Insets } from '../../geometry/insets';
import { regionArea, type Region } from '../../geometry/region';
import { MotionBuilder, type Motion } from '../../motion/motion';
import { fitArcs, pointAt, run } from '../../motion/arcPolyline';
import type { Budget } from '../budget';
import { passes, type Reached } from '../kind';
import { clearingMoves, contours, levelsOf, type ClearingMoves, type Footprint } from './contours';
import { enterOpen, type EntryKind } from './entry';
import { trochoidal } from './trochoidal';
import { hatchRows, zigzags } from './hatch';
import { leftBy, reachOf, restOf, without } from './reach';
import { restMoves } from './rest';
import { eachTrack, rapidTo, type RetractHeights } from './travel';
import { wallPass } from './wallPass';

/** One cutter of a clearing and how it is driven. */
export interface ClearingTool extends Footprint {
  readonly id: string;
  readonly preset: Preset;
}

/** A ridge this high between passes counts as level floor, mm: it widens the floor that a round rim leaves by a little. */
const LEVEL = 0.004;

/** A cutter of a clearing list. */
export const clearingTool = (cutter: Cutter, preset: Preset): ClearingTool => ({
  id: cutter.id,
  radius: radiusOf(cutter),
  floorRadius: Math.min(radiusOf(cutter), radiusAt(cutter, LEVEL)),
  preset,
});

/** How the widest cutter goes about it; the others follow what is left. */
export const patterns = ['contours', 'hatch', 'trochoidal'] as const;
export type Pattern = (typeof patterns)[number];

export interface ClearingOptions extends RetractHeights {
  readonly clearance: number;
  readonly approach: number;
  /** Heights of the face and of the floor. */
  readonly stockTop: number;
  readonly floor: number;
  /** Height at which walls that lean stand at the outline; the face where it is not said. Above it they are upright. */
  readonly wallTop?: number;
  readonly ramp: number;
  readonly entry: EntryKind;
  readonly climb: boolean;
  readonly pattern: Pattern;
  /** Of the hatch, degrees from X. */
  readonly angle: number;
  /** Tangent of the wall's lean: the region shrinks by so many mm for each mm of depth. */
  readonly draft: number;
  readonly budget: Budget;
  progress(done: number): void;
}

export interface Cleared {
  readonly toolpaths: { cutterId: string; rpm: number; motion: Motion }[];
  /** What no cutter of the list can enter on the floor, mm2 and where. */
  readonly left: Region;
  readonly area: number;
  /** Ids of cutters that found nothing to do. */
  readonly idle: string[];
  /** Each cutter's part of the floor. */
  readonly reach: Reached[];
}

/**
 * Clears a region to a flat floor with several cutters, the widest first, each taking only what the wider ones left. With a
 * draft the walls lean, and each pass is cleared to where the wall is at its height.
 */
export function clearWith(tools: readonly ClearingTool[], insets: Insets, offset: number, o: ClearingOptions): Cleared {
  const sorted = [...tools].sort((a, b) => b.radius - a.radius);
  const regionAt = (z: number): Region =>
    insets.at(offset + o.draft * Math.max(0, (o.wallTop ?? o.stockTop) - z), o.budget.offset);
  const floor = regionAt(o.floor);
  const reaches = sorted.map((t) => reachOf(floor, t.radius));
  const lefts = leftBy(floor, sorted, reaches);
  const toolpaths: Cleared['toolpaths'] = [];
  const idle: string[] = [];
  sorted.forEach((tool, k) => {
    const b = new MotionBuilder();
    const levels = passes(o.stockTop, o.floor, tool.preset.stepDown);
    const step = Math.min(tool.preset.stepOver, 2 * tool.floorRadius);
    const report = () => o.progress((k + 0.5) / sorted.length);
    /** What the wider cutters left of a region at height z: where walls lean, the first pass of each at or below z says how far it went. */
    const leftAt = (region: Region, z: number): Region => {
      if (!o.draft) return lefts[k - 1];
      return sorted.slice(0, k).reduce((left, wider) => {
        const pass = passes(o.stockTop, o.floor, wider.preset.stepDown).find((q) => q <= z + 1e-9) ?? o.floor;
        return restOf(left, reachOf(regionAt(pass), wider.radius, wider.floorRadius).swept).left;
      }, region);
    };
    const level = (at: readonly number[], face: number) => {
      const region = o.draft ? regionAt(at[at.length - 1]) : floor;
      if (!region.length) return;
      const wall = o.entry === 'helix' ? makeSegmentIndex(region) : null;
      const m: ClearingMoves = {
        ...o,
        levels: at,
        stockTop: face,
        feed: tool.preset.feed,
        plunge: tool.preset.plunge,
        radius: tool.radius,
        floorRadius: tool.floorRadius,
        wallClearance: wall ? (x, y) => wall.distance(x, y) : undefined,
      };
      if (k) restMoves(b, region, leftAt(region, at[at.length - 1]), step, m, report);
      else if (o.pattern === 'hatch') hatchMoves(b, region, step, o.angle, m, report);
      else if (o.pattern === 'trochoidal') trochoidal(b, region, step, m, report);
      else clearingMoves(b, contours(region, m, step, report), m);
    };
    if (o.draft > 0) levels.forEach((z, i) => level([z], i ? levels[i - 1] : o.stockTop));
    else level(levels, o.stockTop);
    if (b.count) toolpaths.push({ cutterId: tool.id, rpm: tool.preset.rpm, motion: b.build() });
    else idle.push(tool.id);
  });
  o.progress(1);
  const reach = sorted.map((t, k): Reached => {
    const region = k ? without(reaches[k].reached, reaches[k - 1].reached) : reaches[k].reached;
    return { cutterId: t.id, region, area: regionArea(region) };
  });
  const { left, area } = reaches[sorted.length - 1];
  return { toolpaths, left, area, idle, reach };
}

/** Rows to and fro, then once along the wall: with rows no further apart than the cutter is wide nothing is left between. */
function hatchMoves(
  b: MotionBuilder,
  region: Region,
  step: number,
  angle: number,
  m: ClearingMoves,
  progress: () => void,
): void {
  const { free, levels } = levelsOf(region, m, step, m.radius, progress);
  if (!levels.length) return;
  const lines = zigzags(hatchRows(free, angle, step), free, 4 * step + m.radius).map((l) =>
    fitArcs(l, false, m.budget.arc),
  );
  const near = 8 * m.radius;
  let previousLevel = m.stockTop;
  for (const z of m.levels) {
    eachTrack(b, lines, (t) => {
      const p = pointAt(t, 0);
      rapidTo(b, p.x, p.y, m, near);
      enterOpen(b, t, m, z, previousLevel, false);
      run(b, t.segments, z, z, m.feed);
      progress();
    });
    wallPass(b, levels[0].loops, m, z, previousLevel);
    previousLevel = z;
  }
  b.lift(m.safe);
}
