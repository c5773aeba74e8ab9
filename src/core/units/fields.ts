/** Small descriptions of the values of cutters, cuts and the blank, from which forms are made. */
export interface FieldBase {
  /** Path of the value in the edited object. */
  readonly key: string;
  readonly label: string;
  readonly hint?: string;
  /** What is meant where an object has no such value. */
  readonly missing?: string | number | boolean;
  /** Shown only when this holds for the edited object. */
  readonly when?: (values: Record<string, unknown>) => boolean;
}

export type Field =
  | (FieldBase & {
      readonly kind: 'length';
      /** A length per minute: a feed. */ readonly rate?: boolean;
      readonly min?: number;
      readonly max?: number;
      readonly optional?: string;
    })
  | (FieldBase & {
      readonly kind: 'number';
      readonly min?: number;
      readonly max?: number;
      readonly unit?: string;
      readonly whole?: boolean;
    })
  | (FieldBase & {
      readonly kind: 'choice';
      readonly options: readonly { readonly value: string; readonly label: string }[];
    })
  | (FieldBase & { readonly kind: 'flag' })
  | (FieldBase & { readonly kind: 'text'; readonly lines?: number })
  /** Picks a font: a shipped one, or one of the job's own. */
  | (FieldBase & { readonly kind: 'font' })
  /** Picks a motif, of one group only when it is named; `none` names the empty choice. */
  | (FieldBase & { readonly kind: 'motif'; readonly group?: string; readonly none?: string })
  /** Picks a carved ornament. */
  | (FieldBase & { readonly kind: 'ornament' })
  /** A curve through points, both of whose numbers go from 0 to 1: a list of pairs, from left to right. */
  | (FieldBase & { readonly kind: 'curve' })
  /** Picks a cutter among the given shapes; `optional` names the empty choice. */
  | (FieldBase & { readonly kind: 'cutter'; readonly shapes: readonly string[]; readonly optional?: string })
  /** A list of cutters among the given shapes; `optional` says what an empty list means. */
  | (FieldBase & { readonly kind: 'cutters'; readonly shapes: readonly string[]; readonly optional?: string });

/** Choices of a field by their names, in order. */
export const choices = (names: Readonly<Record<string, string>>): { value: string; label: string }[] =>
  Object.entries(names).map(([value, label]) => ({ value, label }));

type Values = Record<string, unknown>;

/** The value, maybe a nested one, that a field's key names. */
export const getAt = (v: Values, key: string): unknown =>
  key.split('.').reduce<unknown>((o, k) => (o as Values | undefined)?.[k], v);

/** A copy of values with one, maybe nested, value changed. */
export function setAt(v: Values, key: string, value: unknown): Values {
  const [head, ...rest] = key.split('.');
  return { ...v, [head]: rest.length ? setAt((v[head] ?? {}) as Values, rest.join('.'), value) : value };
}
