import type { z } from 'zod';
import type { Field } from './fields';

/** Least and greatest number that may stand somewhere, both included; as in a schema's JSON form. */
export interface Limits {
  readonly min?: number;
  readonly max?: number;
}

type Def = {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly innerType?: z.ZodType;
};

/** The schema of a, maybe nested, value (`tabs.count`), without what may stand there instead of a number; null where there is none. */
function schemaAt(schema: z.ZodType, key: string): z.ZodType | null {
  const [head, ...rest] = key ? key.split('.') : [];
  const def = schema.def as unknown as Def;
  if (def.innerType) return schemaAt(def.innerType, key);
  if (head === undefined) return schema;
  const inner = def.shape?.[head];
  return inner ? schemaAt(inner, rest.join('.')) : null;
}

/** The limits of a number by the schema that it is checked by. Limits that a number may not reach are not asked for anywhere. */
export function limitsOf(schema: z.ZodType, key: string): Limits {
  const at = schemaAt(schema, key);
  if (at?.def.type !== 'number') throw new Error(`There is no number "${key}" in the schema.`);
  const { minValue, maxValue } = at as z.ZodNumber;
  return {
    ...(minValue !== null && Number.isFinite(minValue) ? { min: minValue } : {}),
    ...(maxValue !== null && Number.isFinite(maxValue) ? { max: maxValue } : {}),
  };
}

type Without<F> = F extends unknown ? Omit<F, 'min' | 'max'> : never;
/** A field as a kind describes it: its limits are those of the schema. */
export type FieldSpec = Without<Field>;

/** Fields with the limits of their values. */
export const withLimits = (schema: z.ZodType, fields: readonly FieldSpec[]): readonly Field[] =>
  fields.map((f) => (f.kind === 'length' || f.kind === 'number' ? { ...f, ...limitsOf(schema, f.key) } : f) as Field);

const within = (v: number, { min = -Infinity, max = Infinity }: Limits): number => Math.min(max, Math.max(min, v));

/**
 * Values whose numbers are brought within the limits of their schema, as deep as it says what stands where; the rest stays as it
 * is. `hold` says which numbers, all where it is not given.
 */
export function heldWithin<V>(schema: z.ZodType, values: V, hold: (v: number, l: Limits) => boolean = () => true): V {
  const { type, shape, innerType } = schema.def as unknown as Def;
  if (innerType) return heldWithin(innerType, values, hold);
  if (type === 'number' && typeof values === 'number') {
    const limits = limitsOf(schema, '');
    return (hold(values, limits) ? within(values, limits) : values) as V;
  }
  if (!shape || typeof values !== 'object' || values === null) return values;
  const held = Object.entries(shape).flatMap(([k, inner]) =>
    k in values ? [[k, heldWithin(inner, (values as Record<string, unknown>)[k], hold)]] : [],
  );
  return { ...values, ...Object.fromEntries(held) };
}
