import { itemSchema, linesOf, regionOf } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { shapeOf } from '../cutters/registry';
import type { Cutter, Preset } from '../cutters/cutter';
import { presetFor } from '../cutters/library';
import { budgetOf } from '../cuts/budget';
import { emptyPlan, type CutContext, type CutPlan, type Target } from '../cuts/kind';
import { kindOf } from '../cuts/registry';
import { hashText } from '../geometry/hash';
import type { Cut, Job } from '../job/job';

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

/** All that a cut's plan depends on, and nothing else. */
function inputs(job: Job, cut: Cut) {
  const used = kindOf(cut.kind).cutters(cut.values);
  return {
    kind: cut.kind,
    values: cut.values,
    overrides: cut.overrides,
    // Names and visibility do not change where things are; hidden items are still cut when picked.
    items: cut.items.map((id) => job.items.find((i) => i.id === id)).map((i) => i && { kind: i.kind, x: i.x, y: i.y, angle: i.angle, mirror: i.mirror, values: i.values }),
    cutters: used.map((id) => job.cutters.find((c) => c.id === id) ?? null),
    blank: [job.blank.width, job.blank.height, job.blank.thickness, job.blank.material, job.blank.safeHeight, job.blank.clearance, job.blank.approach],
    clamps: job.clamps,
  };
}

/** Content key of a cut's plan: equal keys mean equal plans. */
export const cutKey = (job: Job, cut: Cut): string => hashText(JSON.stringify(inputs(job, cut)));

function contextOf(job: Job, cut: Cut, art: ArtworkContext, progress: Progress): CutContext {
  const items = cut.items.map((id) => job.items.find((i) => i.id === id)).filter((i) => i !== undefined);
  const cutter = (id: string): Cutter => {
    const c = job.cutters.find((q) => q.id === id);
    if (!c) throw new MissingCutter(cut.name);
    return c;
  };
  return {
    blank: { ...job.blank, clamps: job.clamps },
    region: (tolerance) => regionOf(items.map((i) => itemSchema.parse(i)), art, tolerance),
    lines: (tolerance) => linesOf(items.map((i) => itemSchema.parse(i)), art, tolerance),
    cutter,
    preset: (id) => presetOf(cutter(id), job, cut),
    budget: budgetOf(),
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
export function presetOf(cutter: Cutter, job: Job, cut: Cut | null): Preset {
  const preset = cutter.presets[job.blank.material] ?? presetFor(cutter.shape, cutter.values, cutter.teeth, job.blank.material);
  return { ...preset, ...(cut?.overrides[cutter.id] ?? {}) };
}

/** Plans one cut. Trouble that the maker can mend comes back as a remark; Cancelled passes through. */
export function planCut(job: Job, cut: Cut, art: ArtworkContext, progress: Progress = () => {}): CutPlan {
  if (lacksArtwork(cut)) return emptyPlan([{ level: 'problem', text: 'No artwork is picked for this cut.' }]);
  try {
    const plan = kindOf(cut.kind).plan(cut.values, contextOf(job, cut, art, progress));
    for (const t of plan.toolpaths) for (const c of [job.cutters.find((q) => q.id === t.cutterId)!]) if (!shapeOf(c.shape).turns && t.rpm !== 0) throw new Error(`${c.name} is drawn, not turned.`);
    return plan;
  } catch (e) {
    if (e instanceof Cancelled) throw e;
    if (e instanceof MissingCutter || e instanceof RangeError) return emptyPlan([{ level: 'problem', text: e.message }]);
    throw e;
  }
}

/** The wanted surface of a job: the lowest of its cuts' targets. */
export function targetOf(job: Job, art: ArtworkContext): Target {
  const all: Target[] = [];
  for (const cut of job.cuts) {
    if (!cut.enabled || lacksArtwork(cut)) continue;
    try {
      const t = kindOf(cut.kind).target(cut.values, contextOf(job, cut, art, () => {}));
      if (t) all.push(t);
    } catch (e) {
      if (!(e instanceof MissingCutter)) throw e;
    }
  }
  return (x, y) => {
    let z = 0;
    for (const t of all) z = Math.min(z, t(x, y));
    return z;
  };
}
