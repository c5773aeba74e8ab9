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
    /** Id of the group that holds it (`./groups.ts`); null where it stands by itself. */
    group: z.string().nullable(),
    visible: z.boolean(),
    meets: z.enum(Object.keys(meetings) as [Meeting, ...Meeting[]]),
    /** How much of its height counts, 1 for all of it. */
    strength: z.number().min(0).max(1000),
    /** So far above the stack's base it begins, mm. */
    base: z.number().min(-300).max(300),
    /** Outlines that it is made of, for kinds that are. */
    items: z.array(z.string()).max(10_000),
    /** A drawn line that it takes its profile from, for kinds that do. */
    profile: z.object({ items: z.array(z.string()).max(10) }),
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
  /** What is cast in it shrinks by so much, percent: all of it is larger by that, from the middle of the top face. */
  shrinks: z.number().min(0).max(10).optional(),
});
export type Relief = z.infer<typeof reliefSchema>;
export const noRelief = (): Relief => ({ forms: [], baseDepth: 0, cell: null });

/** How many times as large a relief is made as it is drawn. */
export const enlarged = ({ shrinks = 0 }: Pick<Relief, 'shrinks'>): number => 1 / (1 - shrinks / 100);

/** Ids of files that forms name. */
export const assetsOfForms = (forms: readonly Form[]): string[] =>
  forms.flatMap((f) => formKindOf(f.kind).assets?.(f.values) ?? []);

/** What comes of a height `f` over a height `u` that is not empty; `sense` is -1 where a form sinks, or keeps the lower. */
function meet(meets: Meeting, sense: number, u: number, f: number): number {
  if (meets === 'replace') return f;
  if (meets === 'add' || meets === 'sink') return u + sense * f;
  return sense * f > sense * u ? f : u;
}

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
  const sense = meets === 'sink' || meets === 'lower' ? -1 : 1;
  const alone = meets === 'sink' ? -1 : 1;
  if (!weights) {
    // Where it counts wholly there is less to ask at each of millions of nodes: a loop for each way, and in each what is most common first.
    const [b, s] = [sense * base, sense * strength];
    if (meets === 'replace') {
      for (let i = 0; i < under.length; i++) {
        const f = b + s * form[i];
        if (f === f) under[i] = f;
      }
    } else if (meets === 'add' || meets === 'sink') {
      for (let i = 0; i < under.length; i++) {
        const f = b + s * form[i];
        const sum = under[i] + f;
        if (sum === sum) under[i] = sum;
        else if (f === f) under[i] = f;
      }
    } else {
      for (let i = 0; i < under.length; i++) {
        const f = b + s * form[i];
        // Whatever is compared with what is empty is not larger.
        if (f === f && !(sense * under[i] >= f)) under[i] = sense * f;
      }
    }
    return;
  }
  for (let i = 0; i < under.length; i++) {
    const f = base + strength * form[i];
    const w = weights[i];
    if (f !== f || w <= 0) continue;
    const u = under[i];
    const empty = u !== u;
    const to = empty ? alone * f : meet(meets, sense, u, f);
    under[i] = w >= 1 ? to : (empty ? 0 : u) * (1 - w) + to * w;
  }
}

/**
 * Puts heights in the place of what is under them, in place, as far as `share` (0 to 1) times the weights say. Where one of the two
 * is empty there is nothing between them: the one that counts for more stands.
 */
export function adjust(under: Float32Array, to: Float32Array, share: number, weights: Float32Array | null): void {
  const most = Math.min(1, share);
  if (most === 1 && !weights) return under.set(to);
  for (let i = 0; i < under.length; i++) {
    const w = weights ? most * weights[i] : most;
    if (w <= 0) continue;
    const [u, t] = [under[i], to[i]];
    under[i] = w >= 1 ? t : u !== u || t !== t ? (w >= 0.5 ? t : u) : u + w * (t - u);
  }
}

/** A form of a stack, one that stands by itself, that is so many times as high. */
export function scaledForm(f: Form, by: number): Form {
  const kind = formKindOf(f.kind);
  if (kind.adjusts) return { ...f, values: (kind.higher?.(f.values, by) ?? f.values) as Form['values'] };
  return { ...f, strength: Math.min(1000, f.strength * by), base: f.base * by };
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
