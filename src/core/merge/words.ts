import { itemKindOf } from '../artwork/registry';
import { kindOf } from '../cuts/registry';
import type { Job } from '../job/job';
import { formKindOf } from '../relief/registry';
import { getAt, type Field } from '../units/fields';
import { formatLength, type Unit } from '../units/length';
import { placeOf, type Conflict } from './job';

interface Thing {
  readonly id: string;
  readonly name: string;
  readonly kind?: string;
}

/** A conflict as a maker reads it: which thing, what of it, and what each version says. */
export interface ConflictWords {
  readonly place: string;
  readonly what: string;
  readonly mine: string;
  readonly theirs: string;
}

const parts: Readonly<Record<string, string>> = {
  name: 'Name of the job',
  notes: 'Notes',
  unit: 'Unit',
  blank: 'Blank',
  clamps: 'Clamps',
  guides: 'Guides',
  relief: 'Relief',
  run: 'Run',
};
const lists: Readonly<Record<string, string>> = {
  items: 'Artwork',
  cuts: 'Cut',
  cutters: 'Cutter',
  layers: 'Layer',
  groups: 'Group',
  blanks: 'Blank',
  setups: 'Set-up',
  forms: 'Form',
  assets: 'Font, picture or mesh',
};
/** Values that have no field of a form, as they are called on the screen. */
const own: Readonly<Record<string, string>> = {
  name: 'name',
  x: 'X',
  y: 'Y',
  rotation: 'rotation',
  shear: 'slant',
  mirrored: 'mirrored',
  layer: 'layer',
  group: 'group',
  hidden: 'hidden',
  locked: 'locked',
  enabled: 'on or off',
  items: 'its artwork',
  overrides: 'speeds of its own',
  width: 'width',
  height: 'height',
  thickness: 'thickness',
  material: 'material',
  datum: 'datum',
  zZero: 'Z zero',
  safeHeight: 'safe height',
  clearance: 'clearance',
  approach: 'approach height',
  park: 'park position',
  intoBed: 'spoilboard depth',
  machine: 'machine',
  dialect: 'dialect',
  dialects: 'dialects',
  files: 'files',
  numbers: 'tool numbers',
  colour: 'colour',
  visible: 'shown',
  presets: 'presets',
  nodes: 'its outline',
  shape: 'its shape',
  parkAtChange: 'park at tool changes',
  blank: 'blank',
  after: 'what it starts from',
  fits: 'what it goes into',
  meets: 'how it meets what lies under it',
  strength: 'strength',
  base: 'where it begins',
  mask: 'where it counts',
  profile: 'the line of its profile',
  baseDepth: 'depth of its base',
  cell: 'resolution',
};
const LENGTHS = new Set([
  'x',
  'y',
  'width',
  'height',
  'thickness',
  'safeHeight',
  'clearance',
  'approach',
  'intoBed',
  'base',
  'baseDepth',
  'cell',
]);

function said(v: unknown, unit: Unit, field: Field | undefined, key: string): string {
  if (v === undefined) return 'taken out';
  if (field?.kind === 'choice') return field.options.find((o) => o.value === v)?.label ?? String(v);
  if (typeof v === 'number')
    return field?.kind === 'length' || LENGTHS.has(key)
      ? `${formatLength(v, unit)} ${unit}`
      : String(Math.round(v * 1e4) / 1e4);
  if (typeof v === 'boolean') return v ? 'yes' : 'no';
  if (typeof v === 'string') return v === '' ? 'empty' : v.length > 60 ? `${v.slice(0, 57)}\u2026` : v;
  if (Array.isArray(v)) return v.length === 1 ? '1 thing' : `${v.length} things`;
  return v === null ? 'none' : 'changed';
}

/** The words of a conflict between two versions of a job. `job`: a version that has the things that it names. */
export function wordsOf(conflict: Conflict, versions: readonly Job[]): ConflictWords {
  const unit = versions[0].unit;
  // What stands in a set-up is called as it is; by the set-up too, where there are several.
  const [first, setupId] = conflict.path;
  const inside = first === 'setups' && conflict.path.length > 2;
  const roots: readonly object[] = inside
    ? versions.flatMap((v) => v.setups.filter((s) => s.id === setupId))
    : versions;
  const inSetup = inside ? conflict.path.slice(2) : conflict.path;
  // The forms of a relief are things with names of their own.
  const path = inSetup[0] === 'relief' && inSetup[1] === 'forms' && inSetup.length > 2 ? inSetup.slice(1) : inSetup;
  const several = versions.some((v) => v.setups.length > 1);
  const where = inside && several ? `${(roots[0] as Thing | undefined)?.name ?? setupId}: ` : '';
  const [top, id, ...rest] = path;
  if (!lists[top]) {
    // How a blank lies on the machine stands in the set-up itself, and is shown with the blank.
    const key = (inside && !parts[top] ? path : path.slice(1)).join('.');
    const last = path[path.length - 1];
    return {
      place: `${where}${parts[top] ?? (inside ? 'Blank' : top)}`,
      what: key ? (own[last] ?? key) : '',
      mine: said(conflict.mine, unit, undefined, last),
      theirs: said(conflict.theirs, unit, undefined, last),
    };
  }
  const listOf = (v: object): readonly Thing[] =>
    top === 'forms' ? (v as Job['setups'][number]).relief.forms : (v as Record<string, Thing[]>)[top];
  const thing = roots.map((v) => listOf(v).find((q) => q.id === id)).find((q) => q);
  // The only blank needs no name.
  const place =
    top === 'blanks' && versions.every((v) => v.blanks.length === 1)
      ? 'Blank'
      : `${where}${lists[top]} "${thing?.name ?? id}"`;
  if (!rest.length)
    return {
      place,
      what: '',
      mine: conflict.mine === undefined ? 'taken out' : 'changed',
      theirs: conflict.theirs === undefined ? 'taken out' : 'changed',
    };
  const fieldsOf = { items: itemKindOf, cuts: kindOf, forms: formKindOf }[top as string];
  const fields = fieldsOf?.(thing!.kind!).fields ?? [];
  const key = rest[0] === 'values' ? placeOf(rest.slice(1)).replace(/\//g, '.') : '';
  // A field may name a value inside the one that conflicts.
  const field =
    fields.find((f) => f.key === key) ??
    fields.find((f) => key && (f.key.startsWith(`${key}.`) || key.startsWith(`${f.key}.`)));
  const last = rest[rest.length - 1];
  const inner = (v: unknown) =>
    field && field.key.startsWith(`${key}.`)
      ? getAt({ v } as Record<string, unknown>, `v.${field.key.slice(key.length + 1)}`)
      : v;
  return {
    place,
    what: field?.label ?? own[last] ?? last,
    mine: said(inner(conflict.mine), unit, field, last),
    theirs: said(inner(conflict.theirs), unit, field, last),
  };
}
