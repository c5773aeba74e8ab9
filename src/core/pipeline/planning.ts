import { itemRegion, itemsById, itemSchema, linesOf, placeItem, regionOf, type Item } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { shapeOf } from '../cutters/registry';
import type { Cutter, Preset } from '../cutters/cutter';
import { presetFor } from '../cutters/library';
import { budgetOf } from '../cuts/budget';
import {
  emptyPlan,
  type CutBlank,
  type CutContext,
  type CutPlan,
  type Expected,
  type Remark,
  type Target,
} from '../cuts/kind';
import { kindOf } from '../cuts/registry';
import { riddenPaths, riddenWanted } from '../cuts/relief/ride';
import type { Wanted } from '../cuts/wanted';
import { inBox } from '../geometry/box';
import { contentKey, derived, hashText } from '../geometry/hash';
import { flatten } from '../geometry/path';
import { loopArea } from '../geometry/region';
import type { Cut, OneSetup } from '../job/job';
import { pick } from '../job/oneSetup';
import { noRelief, reliefKey, type GiveRelief } from './shaping';

/** Raised when a result is no longer wanted. */
export class Cancelled extends Error {
  constructor() {
    super('Cancelled');
    this.name = 'Cancelled';
  }
}

export type Progress = (done: number) => void;

/** Whether a cut has no artwork and cannot do without. */
export const lacksArtwork = (cut: Cut): boolean => !cut.items.length && !kindOf(cut.kind).bare?.(cut.values);

const NOTHING_TO_RIDE =
  'This cut is to follow the relief, and there is none: it lies flat. Shape one in the Relief stage, or let the cut lie flat.';

/** Whether a cut is worked out from the relief. */
export const usesRelief = (cut: Cut): boolean => isRidden(cut) || (kindOf(cut.kind).onRelief?.(cut.values) ?? false);
const isRidden = (cut: Cut): boolean => !!cut.rides && !!kindOf(cut.kind).canRide;

/** Who helps with a plan, and who is told what all of it will take, minutes, before it is made. */
export type PlanMeans = Pick<CutContext, 'hands' | 'meanwhile' | 'expect'>;

/** Items by their ids; undefined for what is not there. */
function itemsOf(job: Pick<OneSetup, 'items'>, ids: readonly string[]): (Item | undefined)[] {
  const all = itemsById(job.items);
  return ids.map((id) => all.get(id));
}

const complete = new WeakMap<Item, Item>();
/** An item with everything that its kind fills in; looked through once as long as it lives. */
function completed(item: Item): Item {
  let made = complete.get(item);
  if (!made) complete.set(item, (made = itemSchema.parse(item)));
  return made;
}

/** What planners can ask of the blank: nothing else of it is handed to them. */
const blankKeys = [
  'width',
  'height',
  'thickness',
  'material',
  'unit',
  'safeHeight',
  'clearance',
  'approach',
  'clamps',
] as const satisfies readonly (keyof CutBlank)[];
const blankOf = (job: OneSetup): CutBlank => ({ ...pick(job.blank, BLANKS_OWN), unit: job.unit, clamps: job.clamps });
const BLANKS_OWN = blankKeys.filter((k) => k !== 'unit' && k !== 'clamps');

/** The same values, where it is noted which of them were asked for. */
function noting<T extends object>(values: T, asked: Set<keyof T>): T {
  const out = {} as T;
  for (const key of Object.keys(values) as (keyof T)[])
    Object.defineProperty(out, key, { enumerable: true, get: () => (asked.add(key), values[key]) });
  return out;
}

/** All that a cut's plan depends on; of the blank only what was asked for, where that is known. */
export function planInputs(job: OneSetup, cut: Cut, asked: readonly (keyof CutBlank)[] = blankKeys) {
  const used = kindOf(cut.kind).cutters(cut.values);
  return {
    kind: cut.kind,
    values: cut.values,
    overrides: cut.overrides,
    // Names and visibility do not change where things are; hidden items are still cut when picked.
    items: itemsOf(job, cut.items).map(
      (i) => i && { kind: i.kind, x: i.x, y: i.y, angle: i.angle, mirror: i.mirror, values: i.values },
    ),
    rides: isRidden(cut),
    relief: usesRelief(cut) ? reliefKey(job) : null,
    cutters: used.map((id) => job.cutters.find((c) => c.id === id) ?? null),
    blank: pick(blankOf(job), asked),
  };
}

/** Content key of a cut's plan: equal keys mean equal plans. `asked`: what a plan says that it has asked of the blank. */
export const cutKey = (job: OneSetup, cut: Cut, asked?: CutPlan['asked']): string =>
  hashText(contentKey(planInputs(job, cut, asked)));

function contextOf(
  job: OneSetup,
  cut: Cut,
  art: ArtworkContext,
  progress: Progress,
  relief: GiveRelief,
  asked: Set<keyof CutBlank> = new Set(),
  { hands, meanwhile, expect }: PlanMeans = {},
): CutContext {
  let expected: Expected = { minutes: 0, moves: 0 };
  const items = itemsOf(job, cut.items).filter((i) => i !== undefined);
  const cutter = (id: string): Cutter => {
    const c = job.cutters.find((q) => q.id === id);
    if (!c) throw new MissingCutter(cut.name);
    return c;
  };
  return {
    blank: noting(blankOf(job), asked),
    region: (tolerance) => regionOf(items.map(completed), art, tolerance),
    lines: (tolerance) => linesOf(items.map(completed), art, tolerance),
    relief,
    cutter,
    preset(id) {
      asked.add('material');
      return presetOf(cutter(id), job, cut);
    },
    budget: budgetOf(),
    hands,
    meanwhile,
    expect: ({ minutes, moves }) => {
      expected = { minutes: expected.minutes + minutes, moves: expected.moves + moves };
      expect?.(expected);
    },
    progress,
  };
}

class MissingCutter extends Error {
  constructor(cut: string) {
    super(`"${cut}" has no cutter. Choose one.`);
    this.name = 'MissingCutter';
  }
}

/** The speeds a cut uses for a cutter: the cutter's preset for the material, then the cut's own values. */
export function presetOf(cutter: Cutter, job: OneSetup, cut: Cut | null): Preset {
  const preset =
    cutter.presets[job.blank.material] ?? presetFor(cutter.shape, cutter.values, cutter.teeth, job.blank.material);
  return { ...preset, ...(cut?.overrides[cutter.id] ?? {}) };
}

/**
 * What a cut leaves out of what is picked for it, by name and place: letters that a font lacks, text without letters, items
 * without a closed outline where only outlines are cut.
 */
function leftOut(job: OneSetup, cut: Cut, art: ArtworkContext): Remark[] {
  const kind = kindOf(cut.kind);
  const outlines = kind.outlinesOnly?.(cut.values) ?? false;
  const out: Remark[] = [];
  for (const item of itemsOf(job, cut.items)) {
    if (!item) continue;
    const parsed = completed(item);
    const { paths, remarks } = placeItem(parsed, art);
    const at = { x: item.x, y: item.y };
    for (const text of remarks) out.push({ level: 'problem', text: `"${item.name}": ${text}`, ...at });
    if (!paths.length && !remarks.length)
      out.push({
        level: 'problem',
        text: `"${item.name}" draws nothing, so nothing of it is cut. Type its text, or take it out of this cut.`,
        ...at,
      });
    else if (
      outlines &&
      paths.length &&
      !paths.some((p) => p.closed && Math.abs(loopArea(flatten(p, 0.05))) > 1e-9) &&
      !itemRegion(parsed, art, 0.01).length
    )
      out.push({
        level: 'problem',
        text: `"${item.name}" has no closed outline, and ${kind.name.toLowerCase()} needs one: it is left out. Close its ends, or engrave it as a line.`,
        ...at,
      });
    else if (outlines && paths.some((p) => !p.closed)) {
      const open = paths.find((p) => !p.closed)!;
      out.push({
        level: 'note',
        text: `"${item.name}" has open lines (${paths.filter((p) => !p.closed).length}); they are left out.`,
        x: open.x,
        y: open.y,
      });
    }
  }
  if (
    outlines &&
    cut.items.length > 1 &&
    !out.length &&
    !contextOf(job, cut, art, () => {}, noRelief).region(0.01).length
  )
    out.push({
      level: 'problem',
      text: 'The picked outlines lie on each other and cancel each other out: nothing is left to cut. Pick one of them.',
    });
  return out;
}

/** Plans one cut. Trouble that the maker can mend comes back as a remark; Cancelled passes through. */
export function planCut(
  job: OneSetup,
  cut: Cut,
  art: ArtworkContext,
  progress: Progress = () => {},
  relief: GiveRelief = noRelief,
  means: PlanMeans = {},
): CutPlan {
  if (lacksArtwork(cut)) return emptyPlan([{ level: 'problem', text: 'No artwork is picked for this cut.' }]);
  try {
    const picked = leftOut(job, cut, art);
    const asked = new Set<keyof CutBlank>();
    const c = contextOf(job, cut, art, progress, relief, asked, means);
    const { remarks: own, toolpaths, ...rest } = kindOf(cut.kind).plan(cut.values, c);
    const field = isRidden(cut) ? relief() : null;
    const remarks: Remark[] =
      isRidden(cut) && !field ? [...own, { level: 'problem', text: NOTHING_TO_RIDE }] : [...own];
    const ridden = field ? riddenPaths(toolpaths, field, c.cutter) : toolpaths;
    const plan = {
      ...rest,
      toolpaths: ridden,
      remarks: [...picked, ...remarks],
      asked: blankKeys.filter((k) => asked.has(k)),
    };
    for (const t of plan.toolpaths)
      for (const c of [job.cutters.find((q) => q.id === t.cutterId)!])
        if (!shapeOf(c.shape).turns && t.rpm !== 0) throw new Error(`${c.name} is drawn, not turned.`);
    return plan;
  } catch (e) {
    if (e instanceof Cancelled) throw e;
    if (e instanceof MissingCutter || e instanceof RangeError)
      return emptyPlan([{ level: 'problem', text: e.message }]);
    throw e;
  }
}

const wanteds = derived<CutPlan | Cut, Wanted>();
/**
 * What a cut is to make, worked out once for a plan of it (or for the cut, where there is none), as long as nothing that it
 * depends on changes.
 */
function wantedBy(job: OneSetup, cut: Cut, art: ArtworkContext, plan: CutPlan | undefined, relief: GiveRelief): Wanted {
  const make = () => {
    const c = contextOf(job, cut, art, () => {}, relief);
    const kind = kindOf(cut.kind);
    const wanted = kind.wanted(cut.values, c, plan);
    const field = isRidden(cut) ? relief() : null;
    if (!field) return wanted;
    const { floor } = kind.side(cut.values, c.blank, c.cutter);
    return riddenWanted(wanted, field, kind.cutters(cut.values).map(c.cutter), floor);
  };
  // A relief may come as well.
  if (usesRelief(cut) && !relief()) return make();
  // A font that has not come yet may come: what is drawn without it is not kept.
  if (itemsOf(job, cut.items).some((i) => i && placeItem(completed(i), art).remarks.length > 0)) return make();
  return wanteds(plan ?? cut, cutKey(job, cut), make);
}

/** What each enabled cut of a job is to make. Cuts whose values make no sense yet want nothing. */
export function wantedOf(
  job: OneSetup,
  art: ArtworkContext,
  plans?: ReadonlyMap<string, CutPlan>,
  relief: GiveRelief = noRelief,
): Map<string, Wanted> {
  const all = new Map<string, Wanted>();
  for (const cut of job.cuts) {
    if (!cut.enabled || lacksArtwork(cut)) continue;
    try {
      all.set(cut.id, wantedBy(job, cut, art, plans?.get(cut.id), relief));
    } catch (e) {
      if (!(e instanceof MissingCutter || e instanceof RangeError)) throw e;
    }
  }
  return all;
}

/** The wanted surface of a job: the lowest of its cuts'. */
export function targetOf(job: OneSetup, art: ArtworkContext, relief?: GiveRelief): Target {
  const all = [...wantedOf(job, art, undefined, relief).values()];
  return (x, y) => {
    let z = 0;
    for (const { box, surface } of all) if (inBox(box, x, y)) z = Math.min(z, surface(x, y));
    return z;
  };
}
