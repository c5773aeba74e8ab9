import { hashFloats } from '@/core/geometry/hash';
import type { Job } from '@/core/job/job';
import { tellOthers } from './channel';
import { itemsOfAll } from './keep';
import { db } from './db';
import { withoutSecond } from './second';

/**
 * Files that jobs bring along: fonts and pictures. A file's id comes from its bytes: the same file brought twice is kept once,
 * and copies of a job share it.
 */
export type Kind = 'fonts' | 'pictures';
const kinds: readonly Kind[] = ['fonts', 'pictures'];
interface Named {
  readonly id: string;
  readonly file: string;
}
const shelfOf = (kind: Kind): string => `*${kind}`;
const keyOf = (kind: Kind, id: string): string => `${shelfOf(kind)}/${id}`;

/** What a file's bytes are called, for ids. */
export function hashOf(bytes: Uint8Array): string {
  const padded = new Float64Array(Math.ceil(bytes.length / 8));
  new Uint8Array(padded.buffer).set(bytes);
  return `${hashFloats([padded])}${bytes.length.toString(36)}`;
}

/** Keeps a file that is known by a job. */
export async function putFile(kind: Kind, named: Named, bytes: Uint8Array): Promise<void> {
  await db().assets.put({ key: keyOf(kind, named.id), jobId: shelfOf(kind), path: named.file, bytes });
  tellOthers({ of: 'files' });
}

/** Files by id; those that are not here are left out. */
export async function filesOf(kind: Kind, named: readonly Named[]): Promise<Record<string, Uint8Array>> {
  const rows = await db().assets.bulkGet(named.map((f) => keyOf(kind, f.id)));
  return Object.fromEntries(rows.flatMap((r, i) => (r ? [[named[i].id, r.bytes]] : [])));
}

/** The files of a job as they lie in its archive. Pictures that no item shows any more are left out. */
export async function archiveFiles(job: Job): Promise<Record<string, Uint8Array>> {
  const shown = new Set(itemsOfAll(job).filter((i) => i.kind === 'picture').map((i) => i.values.picture));
  const out: Record<string, Uint8Array> = {};
  for (const kind of kinds) {
    // A job on the shelf may be of an older version, without such a list.
    const named = ((job[kind] ?? []) as readonly Named[]).filter((f) => kind === 'fonts' || shown.has(f.id));
    const files = await filesOf(kind, named);
    for (const f of named) if (files[f.id]) out[f.file] = files[f.id];
  }
  return out;
}

/** Takes the files of an archive that its job knows. */
export async function takeFilesOf(job: Pick<Job, 'fonts' | 'pictures'>, assets: Readonly<Record<string, Uint8Array>>): Promise<void> {
  for (const kind of kinds) for (const f of job[kind]) if (assets[f.file]) await putFile(kind, f, assets[f.file]);
}

/** Removes files that no job on the shelf knows. */
export async function sweepFiles(): Promise<void> {
  const used = new Set<string>();
  await db().jobs.each((row) => kinds.forEach((kind) => (row.job[kind] ?? []).forEach((f) => used.add(keyOf(kind, f.id)))));
  const keys = (await db().assets.where('jobId').anyOf(kinds.map(shelfOf)).primaryKeys()).filter((k) => !used.has(k));
  if (keys.length) await withoutSecond({ assets: keys }, () => db().assets.bulkDelete(keys));
}
