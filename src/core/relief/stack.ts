import { z } from 'zod';
import { valuesAreSound } from '../units/issues';
import { meetings, type Meeting } from './form';
import { formKindOf } from './registry';

/** A form as it stands in a job. */
export const formSchema = z
  .object({
    id: z.string().min(1),
    name: z.string().min(1).max(200),
    kind: z.string(),
    visible: z.boolean(),
    meets: z.enum(Object.keys(meetings) as [Meeting, ...Meeting[]]),
    /** How much of its height counts, 1 for all of it. */
    strength: z.number().min(0).max(1000),
    /** So far above the stack's base it begins, mm. */
    base: z.number().min(-300).max(300),
    /** Outlines that it is made of, for kinds that are. */
    items: z.array(z.string()).max(10_000),
    /** Outlines that it is kept to, or kept out of, with an edge so soft, mm; null where it is not. */
    mask: z
      .object({
        items: z.array(z.string()).max(10_000),
        side: z.enum(['inside', 'outside']),
        edge: z.number().min(0).max(500),
      })
      .nullable(),
    values: z.record(z.string(), z.unknown()),
  })
  .superRefine((form, ctx) => {
    try {
      valuesAreSound(form.values, formKindOf(form.kind), ctx);
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['kind'], message: (e as Error).message });
    }
  });
export type Form = z.infer<typeof formSchema>;

/** The relief of a set-up: its forms, the lowest first. */
export const reliefSchema = z.object({
  forms: z.array(formSchema).max(500),
  /** The stack's base lies so far below the top face, mm. */
  baseDepth: z.number().min(-300).max(300),
  /** Nodes lie so far apart, mm; null: as Mirvak proposes. */
  cell: z.number().min(0.01).max(10).nullable(),
});
export type Relief = z.infer<typeof reliefSchema>;
export const noRelief = (): Relief => ({ forms: [], baseDepth: 0, cell: null });

/** Ids of files that forms name. */
export const assetsOfForms = (forms: readonly Form[]): string[] =>
  forms.flatMap((f) => formKindOf(f.kind).assets?.(f.values) ?? []);

/**
 * Lays a form on what is under it, in place; heights in mm above the base, NaN where empty. `weights`, 0 to 1 for each node, say
 * how much it counts there; null: wholly. Beyond the mask what is under stays as it is, empty places too; where a soft edge runs
 * out over an empty place it runs out to the base.
 */
export function lay(
  under: Float32Array,
  form: Float32Array,
  { meets, strength, base }: Pick<Form, 'meets' | 'strength' | 'base'>,
  weights: Float32Array | null,
): void {
  for (let i = 0; i < under.length; i++) {
    const h = form[i];
    const w = weights ? weights[i] : 1;
    if (h !== h || w <= 0) continue;
    const f = base + strength * h;
    const u = under[i];
    const empty = u !== u;
    let to: number;
    if (meets === 'add') to = empty ? f : u + f;
    else if (meets === 'sink') to = empty ? -f : u - f;
    else if (meets === 'replace' || empty) to = f;
    else to = meets === 'higher' ? Math.max(u, f) : Math.min(u, f);
    under[i] = w >= 1 ? to : (empty ? 0 : u) * (1 - w) + to * w;
  }
}

/** How much a mask lets through at each node, from signed distances to its outlines (positive inside), mm; see `./distance.ts`. */
export function maskWeights(signed: Float32Array, side: 'inside' | 'outside', edge: number): Float32Array {
  const out = new Float32Array(signed.length);
  const sense = side === 'inside' ? 1 : -1;
  for (let i = 0; i < out.length; i++) {
    const d = sense * signed[i];
    // Half a cosine: level at both ends.
    out[i] = edge > 0 ? 0.5 - 0.5 * Math.cos(Math.PI * Math.min(1, Math.max(0, d / edge))) : d >= 0 ? 1 : 0;
  }
  return out;
}
