import { z } from 'zod';
import type { CutterForm } from './form';
import { materialIds } from './materials';
import { shapeOf } from './registry';
import { formatLength, type Unit } from '../units/length';
import { valuesAreSound } from '../units/issues';

/** Speeds and steps for one cutter in one material: rpm, mm/min, mm. */
export const presetSchema = z.object({
  rpm: z.number().min(0).max(100_000),
  feed: z.number().min(0.1).max(100_000),
  plunge: z.number().min(0.1).max(100_000),
  stepDown: z.number().min(0.0001).max(500),
  stepOver: z.number().min(0.0001).max(500),
});
export type Preset = z.infer<typeof presetSchema>;
export const allPresetValues = Object.keys(presetSchema.shape) as readonly (keyof Preset)[];

/** A cutter of the library or of a job. `shape` and `values` are checked together against the shape's schema. */
export const cutterSchema = z
  .object({
    id: z.string().min(1),
    name: z.string(),
    group: z.string(),
    shape: z.string(),
    values: z.record(z.string(), z.number()),
    teeth: z.number().int().min(1).max(12),
    /** Length of the cutting edges from the tip, mm. */
    fluteLength: z.number().min(0.01).max(300),
    shankDiameter: z.number().min(0.1).max(100),
    unit: z.enum(['mm', 'in']),
    notes: z.string(),
    supplier: z.string().max(200).default(''),
    stockNumber: z.string().max(200).default(''),
    slot: z.number().int().min(0).max(999),
    presets: z.partialRecord(z.enum(materialIds), presetSchema),
  })
  .superRefine((c, ctx) => {
    let shape;
    try {
      shape = shapeOf(c.shape);
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['shape'], message: (e as Error).message });
      return;
    }
    if (!valuesAreSound(c.values, shape, ctx)) return;
    const problem = shape.problem(c.values);
    if (problem) ctx.addIssue({ code: 'custom', path: ['values'], message: problem });
  });
export type Cutter = z.infer<typeof cutterSchema>;

export const profileOf = (c: Cutter) => {
  const shape = shapeOf(c.shape);
  return (rho: number) => shape.profile(c.values, rho);
};
/** The outline of a cutter. */
export const formOf = (c: Cutter): CutterForm => shapeOf(c.shape).form(c.values);
export const radiusOf = (c: Cutter): number => shapeOf(c.shape).radius(c.values);

/** Tangent of a cone's half angle and the radius of its flat tip, for the cutters that V-carve. */
export function coneOf(c: Cutter): { tan: number; tip: number } {
  const half = c.shape === 'cone' ? c.values.halfAngle : c.values.includedAngle / 2;
  return { tan: Math.tan((half * Math.PI) / 180), tip: (c.values.tipDiameter ?? 0) / 2 };
}

/** Height to which the cutting edges reach: flutes, and for cones no higher than the cone itself. */
export function cuttingLength(c: Cutter): number {
  if (c.shape !== 'v' && c.shape !== 'cone') return c.fluteLength;
  const { tan, tip } = coneOf(c);
  return Math.min(c.fluteLength, (radiusOf(c) - tip) / tan);
}

/** E.g. `V-bit 60° 12 mm`. */
export function cutterLabel(c: Cutter, unit: Unit): string {
  const s = shapeOf(c.shape);
  return `${s.name} ${s.label(c.values, (v) => `${formatLength(v, unit)} ${unit}`)}`;
}

/** Whether two copies of a cutter say something different; the slot is the machine's matter. */
export const differs = (a: Cutter, b: Cutter): boolean =>
  JSON.stringify({ ...a, slot: 0 }) !== JSON.stringify({ ...b, slot: 0 });

/** Radius of what a cutter clears `depth` mm above its lowest point: half the width of a groove of that depth. */
export const radiusAt = (c: Cutter, depth: number): number => shapeOf(c.shape).radiusAt(c.values, depth);

/** Height of a cutter's surface above its lowest point, `rho` mm from its axis. */
export const profileAt = (c: Cutter, rho: number): number => shapeOf(c.shape).profile(c.values, rho);

/** What each tooth takes at a turn, mm. */
export const chipLoad = (c: Cutter, p: Pick<Preset, 'feed' | 'rpm'>): number =>
  p.rpm > 0 ? p.feed / (p.rpm * c.teeth) : 0;

/** Material removed at full step-down and step-over, mm3/min. */
export const removalRate = (p: Preset): number => p.feed * p.stepDown * p.stepOver;

/** Height of the ridges that rows `step` mm apart leave on a flat floor: the cutter's own profile half a step from its axis. */
export function scallopOf(c: Cutter, step: number): number {
  const h = profileAt(c, step / 2);
  return Number.isFinite(h) ? h : 0;
}

/** The step-over whose ridges are `height` mm high: twice the radius at which the profile has risen so far. */
export const stepForScallop = (c: Cutter, height: number): number => 2 * radiusAt(c, height);

/** Whether its rows leave ridges on a flat floor, so that their height says how far apart they are. */
export const leavesRidges = (c: Cutter): boolean => radiusAt(c, 1e-4) < radiusOf(c) - 1e-3;
