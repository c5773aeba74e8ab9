import type { Cutter, Preset } from '../../cutters/cutter';
import { formOf } from '../../cutters/cutter';
import { grownForm, type CutterForm } from '../../cutters/form';
import {
  boundsOf,
  loopArea,
  intersect,
  offset,
  regionArea,
  simplifyRegion,
  subtract,
  type Region,
} from '../../geometry/region';
import { contentKey, hashFloats, sizedMemo } from '../../geometry/hash';
import { makeInside } from '../../geometry/inside';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { MotionBuilder, type Motion } from '../../motion/motion';
import { fitArcs, pointAt, run, slice } from '../../motion/arcPolyline';
import type { HeightField } from '../../relief/field';
import { aroundChanges } from '../../relief/window';
import { stillWanted } from '../../units/stillWanted';
import { clearingTool, type ClearingTool } from '../clearing/clear';
import { clearingMoves, contours, trackOf, type ClearingMoves } from '../clearing/contours';
import { enter, enterOpen, entryPlace, type EntryKind } from '../clearing/entry';
import { ClearedLevel, easeLevel } from '../clearing/engaged';
import { hatchRows, zigzags } from '../clearing/hatch';
import { eachTrack, rapidTo } from '../clearing/travel';
import type { Easing } from '../easing';
import { passes, travelHeights, type CutContext } from '../kind';
import type { Bounded } from './place';
import { reachOver } from './remembered';
import { linesOver, standsFree, standsWithin } from './stands';

/** More nodes than so many are not looked at: levels lie far enough from the surface for that. */
const MOST_NODES = 1e6;

/**
 * A surface of fewer nodes, none of which stands lower than the surface round it as far as the next: whatever keeps clear of its nodes
 * keeps clear of all that lies between them.
 */
export function raised(f: HeightField, most = MOST_NODES): HeightField {
  const step = Math.max(1, Math.ceil(Math.sqrt(f.z.length / most) - 1e-9));
  const [cols, rows] = [Math.floor((f.cols - 1) / step) + 1, Math.floor((f.rows - 1) / step) + 1];
  /** The greatest within a step to both sides, along one way. */
  const along = (
    from: Float32Array,
    lines: number,
    length: number,
    by: number,
    beside: number,
    of: number,
  ): Float32Array => {
    const out = new Float32Array(lines * length);
    for (let l = 0; l < lines; l++)
      for (let k = 0; k < length; k++) {
        let high = NaN;
        for (let q = Math.max(0, k * step - step); q <= Math.min(of - 1, k * step + step); q++) {
          const h = from[l * beside + q * by];
          if (!(high >= h)) high = h === h ? h : high;
        }
        out[l * length + k] = high;
      }
    return out;
  };
  const across = along(f.z, f.rows, cols, 1, f.cols, f.cols);
  stillWanted(across.length);
  const z = new Float32Array(cols * rows);
  const up = along(across, cols, rows, cols, 1, f.rows);
  for (let c = 0; c < cols; c++) for (let r = 0; r < rows; r++) z[r * cols + c] = up[c * rows + r];
  return { ...f, cols, rows, cell: f.cell * step, z };
}

/** Lines through nodes are made calmer by so much, mm, and kept as far inside as that moves them. */
const CALM = 0.01;

/** A level floor is at its level, however its height was rounded, mm. */
export const SLACK = 1e-3;

/**
 * What was worked out of levels, up to so many bytes: where a relief has changed in one place, those that do not reach there are the
 * same, and are not worked out again.
 */
const REMEMBERED = 64e6;
const regions = sizedMemo<Region>(REMEMBERED / 4, (r) => r.reduce((bytes, l) => bytes + l.byteLength, 64));
const motions = sizedMemo<Motion>(REMEMBERED, (m) => 49 * m.count);

/** How low cutters may stand over so many surfaces last is known. */
const HELD = 8;
const anew = aroundChanges(HELD);
/** How low a cutter may stand whatever its boundary; where the surface has changed, that is worked out anew. */
const freely = (f: HeightField, form: CutterForm, allowance: number, least: number): HeightField => ({
  ...f,
  z: anew(
    f,
    contentKey([form, allowance]),
    reachOver(f, grownForm(form, allowance)) + 2 * f.cell,
    (part) => standsFree(part, form, allowance, least).z,
    least - allowance,
  ),
});

/** Where a cutter may stand no higher than a height; `depth`: how low it may stand, mm below the top face. */
function regionBelow(depth: Float32Array, grid: HeightField, height: number, centres: Region): Region {
  const lines = linesOver(depth, grid, -(height + SLACK));
  return regions(hashFloats([...lines, Float64Array.of(height), ...centres]), () =>
    simplifyRegion(offset(intersect(lines, centres), -CALM, 0.002), CALM),
  );
}

/** What one cutter of a roughing does at its levels. */
export interface RoughCutter {
  readonly tool: ClearingTool;
  readonly form: CutterForm;
  readonly levels: readonly number[];
  /** Where its middle may go at each level, and what of that it goes over. */
  readonly free: readonly Region[];
  readonly todo: readonly Region[];
}

export interface RoughOptions {
  /** What stands higher is gone, mm below the top face. */
  readonly startDepth: number;
  readonly allowance: number;
  /** Level floors of the relief, mm from the top face: each gets a level of its own. */
  readonly floors: readonly number[];
  /** The lowest of the relief. */
  readonly lowest: number;
}

/** Levels lie no nearer to each other than so, mm. */
const NEAREST = 0.02;

/** Heights of a cutter's levels: by its step-down, and one at each level floor. */
export function roughLevels(o: RoughOptions, stepDown: number): number[] {
  const least = o.lowest + o.allowance;
  const own = passes(-o.startDepth, least, stepDown);
  const floors = o.floors
    .map((h) => h + o.allowance)
    .filter((h) => h < -o.startDepth - NEAREST && h > least + NEAREST && own.every((z) => Math.abs(z - h) > NEAREST));
  return [...own, ...floors].sort((a, b) => b - a);
}

/** Rims between what two cutters reach that are thinner than so are rounding, mm. */
const HAIR = 0.05;
/** What is left over less than so much is not gone over again, mm2. */
const SPECK = 0.05;

/** Works out the levels of cutters, widest first, each only what the wider ones leave. */
export function roughed(
  field: HeightField,
  cutters: readonly { readonly cutter: Cutter; readonly preset: Preset; readonly place: Bounded }[],
  o: RoughOptions,
  progress: (done: number) => void,
): RoughCutter[] {
  const surface = raised(field);
  const out: RoughCutter[] = [];
  for (const [n, { cutter, preset, place }] of cutters.entries()) {
    const form = formOf(cutter);
    const tool = clearingTool(cutter, preset);
    const stands = standsWithin(freely(surface, form, o.allowance, o.lowest + o.allowance), place);
    // What must not be entered stands far above: the line keeps to the last node that may be.
    const depth = new Float32Array(stands.z.length);
    for (let i = 0; i < depth.length; i++) depth[i] = stands.z[i] === Infinity ? NaN : -stands.z[i];
    const levels = roughLevels(o, preset.stepDown);
    const free: Region[] = [];
    const todo: Region[] = [];
    for (const [k, z] of levels.entries()) {
      progress((n + k / levels.length) / cutters.length);
      stillWanted(surface.z.length);
      const region = regionBelow(depth, stands, z, place.centresAt(z));
      free.push(region);
      todo.push(n && region.length ? besideOthers(region, z, tool.radius, out) : region);
    }
    out.push({ tool, form, levels, free, todo });
  }
  return out;
}

/** How far wider cutters went at a height or lower. */
function wider(before: readonly RoughCutter[], z: number): { readonly radius: number; readonly free: Region }[] {
  return before.flatMap(({ levels, free, tool }) => {
    // The first of its levels that goes as deep says it.
    const k = levels.findIndex((h) => h <= z + NEAREST);
    return k >= 0 && free[k].length ? [{ radius: tool.radius, free: free[k] }] : [];
  });
}
/** What they have taken there, and so much round it, mm. */
const goneBy = (before: readonly RoughCutter[], z: number, more: number): Region[] =>
  wider(before, z).map(({ radius, free }) => offset(free, radius + more, 0.01));

/** All of that, as a key. */
const keyOfWider = (before: readonly RoughCutter[], z: number): string =>
  wider(before, z)
    .map(({ radius, free }) => `${radius} ${hashFloats(free)}`)
    .join();

/** Where a cutter's middle has to go at a height so that it takes what the wider ones before have not taken there. */
const besideOthers = (region: Region, z: number, radius: number, before: readonly RoughCutter[]): Region =>
  regions(`${hashFloats(region)} ${radius} beside ${keyOfWider(before, z)}`, () => {
    let left = offset(region, radius, 0.01);
    for (const gone of goneBy(before, z, HAIR)) left = subtract(left, gone);
    left = left.filter((l) => Math.abs(loopArea(l)) > SPECK);
    return left.length && regionArea(left) > SPECK ? intersect(region, offset(left, radius, 0.01)) : [];
  });

/** How the levels are gone over. */
export interface RoughMoves {
  readonly pattern: 'contours' | 'hatch';
  readonly angle: number;
  readonly entry: EntryKind;
  readonly ramp: number;
  readonly climb: boolean;
  readonly startDepth: number;
  readonly ease: Easing;
}

/** The moves of one cutter, after those of wider ones. */
export function roughMoves(
  q: RoughCutter,
  before: readonly RoughCutter[],
  c: CutContext,
  m: RoughMoves,
  progress: () => void,
): Motion | null {
  const all = new MotionBuilder();
  const { preset, radius, floorRadius } = q.tool;
  const heights = travelHeights(c.blank);
  const cutter = [radius, floorRadius, preset.feed, preset.plunge, preset.stepOver];
  const how = contentKey([m.pattern, m.angle, m.entry, m.ramp, m.climb, m.ease, heights, c.budget, cutter]);
  for (const [k, z] of q.levels.entries()) {
    const region = q.todo[k];
    if (!region.length) continue;
    const stockTop = k ? q.levels[k - 1] : -m.startDepth;
    const from = all.count ? [all.lastX, all.lastY, all.lastZ] : [];
    const met = m.ease === 'off' ? '' : keyOfWider(before, z);
    const key = `${how} ${hashFloats([...region, Float64Array.of(z, stockTop, ...from)])} ${met}`;
    all.add(motions(key, () => levelMoves(q, before, c, m, region, { z, stockTop, from, heights }, progress)));
    progress();
  }
  return all.count ? all.build() : null;
}

/** The moves at one level; the first is where the cutter was before, where it was anywhere. */
function levelMoves(
  { tool }: RoughCutter,
  before: readonly RoughCutter[],
  c: CutContext,
  m: RoughMoves,
  region: Region,
  at: {
    readonly z: number;
    readonly stockTop: number;
    readonly from: readonly number[];
    readonly heights: ReturnType<typeof travelHeights>;
  },
  progress: () => void,
): Motion {
  const { z, stockTop, from, heights } = at;
  const step = Math.min(tool.preset.stepOver, 2 * tool.floorRadius);
  const b = new MotionBuilder();
  if (from.length) b.rapid(from[0], from[1], from[2]);
  const wall = makeSegmentIndex(region);
  const inside = makeInside(region);
  const moves: ClearingMoves = {
    ...heights,
    stockTop,
    cleared: true,
    levels: [z],
    feed: tool.preset.feed,
    plunge: tool.preset.plunge,
    ramp: m.ramp,
    entry: m.entry,
    climb: m.climb,
    radius: tool.radius,
    floorRadius: tool.floorRadius,
    // The region is where its middle may go: what is free of walls round that is so much more.
    wallClearance: (x, y) => (inside(x, y) ? wall.distance(x, y) + tool.radius : 0),
    budget: c.budget,
  };
  if (m.pattern === 'contours')
    clearingMoves(
      b,
      contours(region, { radius: 0, floorRadius: tool.floorRadius, budget: c.budget }, step, progress),
      moves,
    );
  else rowMoves(b, region, step, m.angle, moves, progress);
  const motion = b.build();
  if (m.ease === 'off' || !motion.count) return motion;
  const level = new ClearedLevel(boundsOf(region)!, tool.radius);
  for (const gone of goneBy(before, z, 0)) level.clearAll(gone);
  const eased = new MotionBuilder();
  eased.rapid(motion.x[0], motion.y[0], motion.z[0]);
  easeLevel(motion, z, level, step, m.ease, eased);
  return eased.build();
}

/** Rows to and fro at one level, and then once round. */
function rowMoves(
  b: MotionBuilder,
  region: Region,
  step: number,
  angle: number,
  m: ClearingMoves,
  progress: () => void,
): void {
  const [z] = m.levels;
  const near = 8 * m.radius;
  const lines = zigzags(hatchRows(region, angle, step), region, 4 * step).map((l) => fitArcs(l, false, m.budget.arc));
  eachTrack(b, lines, (t) => {
    const p = pointAt(t, 0);
    rapidTo(b, p.x, p.y, m, near);
    enterOpen(b, t, m, z, m.stockTop, false);
    run(b, t.segments, z, z, m.feed);
    progress();
  });
  const rims = region.map((l) => trackOf(l, m)).filter((t) => t.length > 0);
  eachTrack(b, rims, (t, s) => {
    const place = entryPlace(t, s, m);
    const p = pointAt(t, place.s);
    rapidTo(b, p.x, p.y, m, near);
    const at = enter(b, t, place, m, z, m.stockTop);
    run(b, slice(t, at, at + t.length), z, z, m.feed);
    progress();
  });
  b.lift(m.safe);
}
