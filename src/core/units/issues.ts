import type { z } from 'zod';
import { beyondFields, type Field } from './fields';

const KINDS: Readonly<Record<string, string>> = {
  number: 'a number',
  string: 'text',
  boolean: 'true or false',
  array: 'a list',
  object: 'a group of values',
  int: 'a whole number',
};
const listed = (v: readonly unknown[]): string => v.slice(0, 8).map(String).join(', ') + (v.length > 8 ? '\u2026' : '');

/** What is wrong with a value, in words of ours; what a schema says itself stands as it is. */
export function issueWords(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'custom':
      return issue.message;
    case 'invalid_type':
      return `it should be ${KINDS[issue.expected] ?? 'something else'}`;
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? 'it is too short'
        : `it should be ${issue.inclusive ? 'at least' : 'more than'} ${issue.minimum}`;
    case 'too_big':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `it is too long: ${issue.maximum} at most`
        : `it should be ${issue.inclusive ? 'at most' : 'less than'} ${issue.maximum}`;
    case 'invalid_value':
      return `it should be one of ${listed(issue.values)}`;
    case 'not_multiple_of':
      return `it should be a multiple of ${issue.divisor}`;
    case 'invalid_union':
      return 'it is none of what may stand there';
    default:
      return 'it is not written as it should be';
  }
}

/** A sentence about the first thing that is wrong, with nothing of the place. */
export function firstIssue(error: z.ZodError): string {
  const words = issueWords(error.issues[0]);
  return `${words[0].toUpperCase()}${words.slice(1)}${words.endsWith('.') ? '' : '.'}`;
}

/**
 * Checks values by their own schema and by the limits of the fields that they are typed in: what a file may hold is what a
 * maker could have entered. True when they are sound.
 */
export function valuesAreSound(
  values: Record<string, unknown>,
  { schema, fields }: { readonly schema: z.ZodType; readonly fields: readonly Field[] },
  ctx: z.RefinementCtx,
): boolean {
  const r = schema.safeParse(values);
  const wrong = r.success
    ? beyondFields(fields, values).map((b) => ({ path: b.key.split('.'), message: b.words }))
    : r.error.issues.map((i) => ({ path: i.path, message: issueWords(i) }));
  for (const w of wrong) ctx.addIssue({ code: 'custom', path: ['values', ...w.path], message: w.message });
  return !wrong.length;
}
