import type { z } from 'zod';
import { getAt, type Field } from './fields';

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

/** A number beyond its limits, by the name of the field that it is typed in; null where it is something else. */
function beyondWords(
  issue: z.core.$ZodIssue,
  fields: readonly Field[],
  values: Record<string, unknown>,
): string | null {
  if (issue.code !== 'too_small' && issue.code !== 'too_big') return null;
  const key = issue.path.join('.');
  const f = fields.find((g) => g.key === key && (g.kind === 'length' || g.kind === 'number'));
  if (!f) return null;
  const unit = f.kind === 'length' ? ' mm' : '';
  const limit = issue.code === 'too_small' ? `at least ${issue.minimum}` : `at most ${issue.maximum}`;
  return `"${f.label}" is ${String(getAt(values, key))}${unit}, but ${limit}${unit} is possible`;
}

/** Checks values by their own schema, whose limits are those of the fields too: what a file may hold is what a maker could have entered. True when they are sound. */
export function valuesAreSound(
  values: Record<string, unknown>,
  { schema, fields }: { readonly schema: z.ZodType; readonly fields: readonly Field[] },
  ctx: z.RefinementCtx,
): boolean {
  const r = schema.safeParse(values);
  for (const i of r.success ? [] : r.error.issues)
    ctx.addIssue({
      code: 'custom',
      path: ['values', ...i.path],
      message: beyondWords(i, fields, values) ?? issueWords(i),
    });
  return r.success;
}
