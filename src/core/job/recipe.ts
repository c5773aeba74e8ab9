import { z } from 'zod';
import { cutterSchema, presetSchema, type Cutter } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import type { Cut, OneSetup } from './job';

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
});
export type Recipe = z.infer<typeof recipeSchema>;

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
    cuts: recipe.cuts.map((c) => ({
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
