import { z } from 'zod';
import { cutterSchema, presetSchema, type Cutter } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import { JOB_VERSION, type Cut, type OneSetup } from './job';
import { upgradeCut } from './migrate';

/** Cuts with their cutters and values, without the artwork: to be used again on other artwork. */
export const recipeSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  cuts: z
    .array(
      z.object({
        name: z.string(),
        kind: z.string(),
        values: z.record(z.string(), z.unknown()),
        overrides: z.record(z.string(), presetSchema.partial()),
      }),
    )
    .min(1),
  cutters: z.array(cutterSchema),
  /** Of which version of a job its cuts are; the first that were kept did not say it. */
  version: z.number().int().optional(),
});
export type Recipe = z.infer<typeof recipeSchema>;

/** What recipes are of that do not say it. */
const FIRST_VERSION = 10;

function upToDate(kept: Recipe['cuts'][number], version: number, job: OneSetup): Recipe['cuts'][number] {
  const cut = structuredClone(kept);
  for (let v = version; v < JOB_VERSION; v++) upgradeCut(cut, v, job.blank.thickness);
  return cut;
}

/** A recipe of some cuts of a job. What belongs to one piece of artwork alone (placed tabs) stays behind. */
export function recipeOf(job: OneSetup, cutIds: readonly string[], id: string, name: string): Recipe {
  const cuts = job.cuts.filter((c) => cutIds.includes(c.id));
  const used = new Set(cuts.flatMap((c) => kindOf(c.kind).cutters(c.values)));
  return {
    id,
    name,
    cuts: cuts.map((c) => ({
      name: c.name,
      kind: c.kind,
      values: c.values.tabs ? { ...c.values, tabs: { ...(c.values.tabs as object), at: [] } } : c.values,
      overrides: c.overrides,
    })),
    cutters: job.cutters.filter((c) => used.has(c.id)),
    version: JOB_VERSION,
  };
}

/**
 * The cuts of a recipe for a job's items, and the cutters that the job lacks for them. A cutter that the job has already under
 * the same id stays the job's own. What a recipe of an older make does not say is as in a new cut.
 */
export function applied(
  recipe: Recipe,
  job: OneSetup,
  items: readonly string[],
  freshId: () => string,
): { cuts: Cut[]; cutters: Cutter[] } {
  return {
    cuts: recipe.cuts
      .map((kept) => upToDate(kept, recipe.version ?? FIRST_VERSION, job))
      .map((c) => ({
        id: freshId(),
        name: c.name,
        kind: c.kind,
        enabled: true,
        items: [...items],
        values: { ...(kindOf(c.kind).defaults(job.blank, recipe.cutters) as Cut['values']), ...c.values },
        overrides: c.overrides,
      })),
    cutters: recipe.cutters.filter((c) => !job.cutters.some((q) => q.id === c.id)),
  };
}
