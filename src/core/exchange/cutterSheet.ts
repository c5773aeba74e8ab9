import Papa from 'papaparse';
import { cutterSchema, type Cutter } from '../cutters/cutter';
import { materialIds } from '../cutters/materials';
import { cutterShapes } from '../cutters/registry';
import { issueWords } from '../units/issues';

/** Something read from a file that cannot be a cutter: where, and why. */
export interface Refused {
  readonly where: string;
  readonly why: string;
}

/** What an import would do. */
export interface Comparison {
  readonly fresh: Cutter[];
  readonly changed: Cutter[];
  readonly same: Cutter[];
  readonly refused: Refused[];
}

const plain = [
  'id',
  'name',
  'group',
  'shape',
  'unit',
  'teeth',
  'fluteLength',
  'shankDiameter',
  'slot',
  'supplier',
  'stockNumber',
  'notes',
] as const;
const numeric = new Set(['teeth', 'fluteLength', 'shankDiameter', 'slot']);
const valueKeys = [...new Set(cutterShapes.flatMap((s) => Object.keys(s.defaults as object)))];
const presetKeys = ['rpm', 'feed', 'plunge', 'stepDown', 'stepOver'] as const;

/** Cutters as a table (CSV, RFC 4180): lengths in mm, a column for each value of any shape and each preset. */
export function cuttersToCsv(cutters: readonly Cutter[]): string {
  const rows = cutters.map((c) => ({
    ...Object.fromEntries(plain.map((k) => [k, c[k]])),
    ...Object.fromEntries(valueKeys.map((k) => [k, c.values[k] ?? ''])),
    ...Object.fromEntries(materialIds.flatMap((m) => presetKeys.map((k) => [`${m}.${k}`, c.presets[m]?.[k] ?? '']))),
  }));
  return Papa.unparse(rows, { newline: '\n' });
}

export const cuttersToJson = (cutters: readonly Cutter[]): string =>
  `${JSON.stringify({ format: 'mirvak-cutters', version: 1, cutters }, null, 2)}\n`;

/** Reads either form; entries that are no cutter are named with the reason, the rest is read. */
export function readCutters(text: string, name: string): { cutters: Cutter[]; refused: Refused[] } {
  const refused: Refused[] = [];
  const cutters: Cutter[] = [];
  const take = (raw: unknown, where: string) => {
    const r = cutterSchema.safeParse(raw);
    if (r.success) {
      if (cutters.some((c) => c.id === r.data.id))
        refused.push({ where, why: `Another cutter in this file has the id "${r.data.id}".` });
      else cutters.push(r.data);
    } else {
      const i = r.error.issues[0];
      refused.push({ where, why: `${i.path.length ? `${i.path.join('.')}: ` : ''}${issueWords(i)}` });
    }
  };
  if (/^\s*[{[]/.test(text)) {
    let data: unknown;
    try {
      data = JSON.parse(text);
    } catch {
      return { cutters: [], refused: [{ where: name, why: 'It begins as JSON, but is not readable to its end.' }] };
    }
    const list = Array.isArray(data) ? data : (data as { cutters?: unknown }).cutters;
    if (!Array.isArray(list))
      return { cutters: [], refused: [{ where: name, why: 'There is no list of cutters in it.' }] };
    list.forEach((raw, i) => take(raw, `Cutter ${i + 1}${typeof raw?.name === 'string' ? ` (${raw.name})` : ''}`));
    return { cutters, refused };
  }
  const [head = [], ...rows] = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' }).data;
  const data = rows.map((r) => Object.fromEntries(head.map((k, i) => [k, r[i] ?? ''])));
  const twice = head.find((k, i) => k && head.indexOf(k) !== i);
  if (twice)
    return { cutters: [], refused: [{ where: name, why: `Its first line names the column "${twice}" twice.` }] };
  const lacking = ['name', 'shape'].filter((k) => !head.includes(k));
  if (lacking.length)
    return { cutters: [], refused: [{ where: name, why: `Its first line names no column "${lacking[0]}".` }] };
  data.forEach((row, i) => take(fromRow(row, i), `Line ${i + 2}${row.name ? ` (${row.name})` : ''}`));
  return { cutters, refused };
}

const number = (text: string | undefined): number | undefined =>
  text === undefined || text.trim() === '' ? undefined : Number(text.replace(',', '.'));

function fromRow(row: Record<string, string>, index: number): unknown {
  const shape = cutterShapes.find((s) => s.id === row.shape);
  const values = Object.fromEntries(Object.keys((shape?.defaults as object) ?? {}).map((k) => [k, number(row[k])]));
  const presets: Record<string, unknown> = {};
  for (const m of materialIds) {
    const p = Object.fromEntries(presetKeys.map((k) => [k, number(row[`${m}.${k}`])]));
    if (presetKeys.some((k) => p[k] !== undefined)) presets[m] = p;
  }
  const head = Object.fromEntries(plain.map((k) => [k, numeric.has(k) ? number(row[k]) : (row[k] ?? '')]));
  const d = Number(values.diameter) || 1;
  return {
    ...head,
    id: head.id || `${row.shape}-${(row.name ?? '').toLowerCase().replace(/[^a-z0-9]+/g, '-') || index}`,
    unit: head.unit || 'mm',
    group: head.group || shape?.name || 'Others',
    teeth: head.teeth ?? 2,
    fluteLength: head.fluteLength ?? 3 * d,
    shankDiameter: head.shankDiameter ?? d,
    slot: head.slot ?? 0,
    values,
    presets,
  };
}

/** What of `incoming` is new, changed or the same. */
export function compareCutters(
  here: readonly Cutter[],
  incoming: readonly Cutter[],
  refused: readonly Refused[],
): Comparison {
  const known = new Map(here.map((c) => [c.id, canonical(c)]));
  const out: Comparison = { fresh: [], changed: [], same: [], refused: [...refused] };
  for (const c of incoming) {
    const old = known.get(c.id);
    (old === undefined ? out.fresh : old === canonical(c) ? out.same : out.changed).push(c);
  }
  return out;
}

/** A cutter as text that is equal for equal cutters, whatever the order of their keys. */
function canonical(v: unknown): string {
  if (typeof v !== 'object' || v === null) return JSON.stringify(v);
  return `{${Object.keys(v)
    .sort()
    .map((k) => `${k}:${canonical((v as Record<string, unknown>)[k])}`)
    .join(',')}}`;
}
