import { fromBytes, privateFiles, toBytes, type Files } from '@/compute/privateFiles';
import { hashText } from '@/core/geometry/hash';
import { db, type AssetRow, type CutterRow, type JobRow, type SettingRow } from './db';
import type { ItemRow } from './keep';

/**
 * A second copy of all work, in files apart from the database. A browser that finds its store broken (a disk that was full is
 * enough) throws all databases of the origin away and begins empty ones; what was there is put back from here. Rows lie here as
 * they lie in the database:
 *
 *     job.ID.REVISION.DELETED   a job: its row, and those of its items
 *     own.ID.CONTENT            a row of large values of such a job; it never changes
 *     file.KEY                  a font or picture
 *     rest                      the tool library, shelves and settings
 *
 * Only what is taken from the device for good is taken out of it; that a row is missing is no reason. A database that was looked
 * after has a name: one without is new, or has just been lost while a window was open, and nothing is copied from it.
 */
const BORN = 'born';
const FOLDER = 'second';
const REST = 'rest';
/** Who holds this lock reads and changes the files. */
const LOCK = 'mirvak-second-files';

interface JobFile {
  readonly row: JobRow;
  readonly items: readonly ItemRow[];
  /** Names of the files that hold its large values. */
  readonly own: readonly string[];
}
interface RestFile {
  readonly cutters: readonly CutterRow[];
  readonly settings: readonly SettingRow[];
}

let files: Promise<Files | null> | null = null;
/** Null where the browser has no such files. */
const here = (): Promise<Files | null> => (files ??= privateFiles(FOLDER).catch(() => null));
/** Whether there is a place for it. */
export const secondWorks = async (): Promise<boolean> => (await here()) !== null;
/** Keeps it elsewhere: for tests. */
export const keepSecondIn = (other: Files): void => void (files = Promise.resolve(other));

const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
async function alone<T>(work: (f: Files) => Promise<T>, otherwise: T, patience?: number): Promise<T> {
  const f = await here();
  if (!f) return otherwise;
  if (!locks) return work(f);
  const signal = patience === undefined ? undefined : AbortSignal.timeout(patience);
  return locks.request(LOCK, { signal: signal as AbortSignal }, () => work(f)) as Promise<T>;
}

const idOf = (jobId: string): string => hashText(jobId);
const ownPart = (jobId: string): string => `own.${idOf(jobId)}.`;
const fileName = (key: string): string => `file.${hashText(key)}`;

/** A file of a job by its name: `job.ID.REVISION.DELETED`. */
interface Named {
  readonly name: string;
  readonly id: string;
  readonly revision: number;
  readonly deleted: number;
}
const nameOf = (row: JobRow): string => `job.${idOf(row.id)}.${row.revision}.${row.deleted}`;
function named(name: string): Named[] {
  const [kind, id, revision, deleted] = name.split('.');
  return kind === 'job' ? [{ name, id, revision: Number(revision), deleted: Number(deleted) }] : [];
}
/** The newest first. */
const newest = (a: Named, b: Named): number => b.revision - a.revision || b.deleted - a.deleted;

async function value<T>(f: Files, name: string): Promise<T | null> {
  try {
    const bytes = await f.read(name);
    return bytes && (fromBytes(bytes) as T);
  } catch {
    // Killed while it was written.
    return null;
  }
}

async function write(f: Files, jobId: string): Promise<void> {
  const found = await db().transaction('r', db().jobs, db().items, async () => {
    const row = await db().jobs.get(jobId);
    if (!row) return null;
    const keys = await db().items.where('key').between(`${jobId}/`, `${jobId}/\uffff`).primaryKeys();
    const [large, small] = [
      keys.filter((k) => k.startsWith(`${jobId}//`)),
      keys.filter((k) => !k.startsWith(`${jobId}//`)),
    ];
    return { row, large, items: (await db().items.bulkGet(small)).flatMap((r) => r ?? []) };
  });
  if (!found) return;
  const { row, large, items } = found;
  const names = await f.names();
  const mine = names.flatMap(named).filter((n) => n.id === idOf(jobId));
  const name = nameOf(row);
  if (mine.some((n) => n.name === name)) return;
  const there = new Set(names);
  const own = large.map((key) => ({ key, name: ownPart(jobId) + hashText(key) }));
  for (const o of own) {
    if (there.has(o.name)) continue;
    const values = await db().items.get(o.key);
    // Changed since the job was read: another save is at hand, and will be copied.
    if (!values) return;
    await f.write(o.name, toBytes(values));
  }
  // A picture that was drawn here is large, and drawn again; one that comes with Mirvak is an address.
  const picture = row.picture?.startsWith('data:') ? null : row.picture;
  await f.write(name, toBytes({ row: { ...row, picture }, items, own: own.map((o) => o.name) } satisfies JobFile));
  const kept = new Set(own.map((o) => o.name));
  for (const n of mine) await f.remove(n.name);
  for (const n of names) if (n.startsWith(ownPart(jobId)) && !kept.has(n)) await f.remove(n);
}

/** Brings the copy of a job up to what lies in the database. */
export const copySecond = (jobId: string): Promise<void> => alone((f) => write(f, jobId), undefined);

/** What JSON can say; handles of folders and the like are of this browser session's database alone. */
const plain = (v: unknown): boolean =>
  typeof v !== 'object' ||
  v === null ||
  (/^\[object (Object|Array)\]$/.test(String(Object.prototype.toString.call(v))) && Object.values(v).every(plain));

/** Brings the copies of fonts, pictures, the library, shelves and settings up to what lies in the database. */
export const copySecondRest = (): Promise<void> =>
  alone(async (f) => {
    const there = new Set(await f.names());
    for (const key of await db().assets.toCollection().primaryKeys()) {
      const asset = there.has(fileName(key)) ? undefined : await db().assets.get(key);
      if (asset) await f.write(fileName(key), toBytes(asset));
    }
    const [cutters, settings] = await Promise.all([
      db().cutters.toArray(),
      db()
        .settings.filter((r) => plain(r.value))
        .toArray(),
    ]);
    if (!settings.some((r) => r.key === BORN)) return;
    const bytes = toBytes({ cutters, settings } satisfies RestFile);
    const was = await f.read(REST);
    if (was?.length !== bytes.length || was.some((b, i) => b !== bytes[i])) await f.write(REST, bytes);
  }, undefined);

/** Brings the whole second copy up to the database. */
export async function copyAllSecond(): Promise<void> {
  for (const id of await db().jobs.toCollection().primaryKeys()) await copySecond(id);
  await copySecondRest();
}

/** Does what takes jobs or files from the device for good, with their second copies; `assets`: keys of fonts and pictures. */
export const withoutSecond = <T>(
  what: { readonly jobs?: readonly string[]; readonly assets?: readonly string[] },
  work: () => Promise<T>,
): Promise<T> =>
  here().then((f) =>
    !f
      ? work()
      : alone(async () => {
          const gone = new Set(what.jobs?.map(idOf));
          const files = new Set(what.assets?.map(fileName));
          for (const n of await f.names())
            if (files.has(n) || (/^(job|own)\./.test(n) && gone.has(n.split('.')[1]))) await f.remove(n);
          return work();
        }, undefined as T),
  );

/** What was put back. */
export interface PutBackCount {
  readonly jobs: number;
  /** Jobs that could not be read whole here either. */
  readonly broken: number;
  /** Whether the library, shelves and settings were lost too. */
  readonly rest: boolean;
  /** Whether it could not be put back: it is tried again when Mirvak is opened anew. */
  readonly failed?: boolean;
}
export const NOTHING_LOST: PutBackCount = { jobs: 0, broken: 0, rest: false };

/** Puts back what the database has lost, if it has; to be asked before anything is made in it. */
export const putBackLost = (patience = 3000): Promise<PutBackCount> =>
  alone(
    async (f) => {
      const names = await f.names();
      const all = names.flatMap(named).sort(newest);
      const present = new Set((await db().jobs.toCollection().primaryKeys()).map(idOf));
      const born = !!(await db().settings.get(BORN));
      const lost = all.filter((n) => !present.has(n.id));
      if (born && !lost.length) return NOTHING_LOST;
      const rest = born ? null : await value<RestFile>(f, REST);
      const jobs: { file: JobFile; own: ItemRow[] }[] = [];
      const whole = new Set<string>();
      for (const n of lost) {
        const file = present.has(n.id) ? null : await value<JobFile>(f, n.name);
        if (!file) continue;
        present.add(n.id);
        const own = await Promise.all(file.own.map((o) => value<ItemRow>(f, o)));
        jobs.push({ file, own: own.flatMap((o) => o ?? []) });
        if (own.every((o) => o !== null)) whole.add(n.id);
      }
      const assets: AssetRow[] = [];
      const kept = new Set((await db().assets.toCollection().primaryKeys()).map(fileName));
      for (const n of names) {
        const asset = n.startsWith('file.') && !kept.has(n) ? await value<AssetRow>(f, n) : null;
        if (asset) assets.push(asset);
      }
      await db().transaction('rw', db().jobs, db().items, db().assets, db().cutters, db().settings, async () => {
        await db().assets.bulkPut(assets);
        await db().cutters.bulkPut([...(rest?.cutters ?? [])]);
        await db().settings.bulkPut([...(rest?.settings ?? [])]);
        if (!(await db().settings.get(BORN))) await db().settings.put({ key: BORN, value: Date.now() });
        for (const { file, own } of jobs) {
          await db().items.bulkPut([...file.items, ...own]);
          await db().jobs.put(file.row);
        }
      });
      return {
        jobs: jobs.filter((j) => !j.file.row.deleted).length,
        broken: new Set(lost.map((n) => n.id).filter((id) => !whole.has(id))).size,
        rest: !!rest,
      };
    },
    NOTHING_LOST,
    patience,
  );
