import { strFromU8, strToU8, zipSync } from 'fflate';
import { z } from 'zod';
import { cutterSchema } from '../cutters/cutter';
import { machineSchema } from '../machine/profile';
import { dialectSchema } from '../program/dialect';
import { JobError } from './migrate';
import { keptReliefSchema, type KeptRelief } from '../relief/keptRelief';
import { recipeSchema } from './recipe';
import { openZip, isZip, type ZipLimits } from './zip';

/** A job in a backup: as the bytes of its own .mirvak file, so that each can be taken out and imported alone. */
export interface BackedUpJob {
  readonly id: string;
  readonly name: string;
  /** When it was changed last, ms since 1970. */
  readonly updated: number;
  readonly bytes: Uint8Array;
}

/** What a device keeps beside its jobs. */
const keptSchema = z.object({
  cutters: z.array(cutterSchema),
  groups: z.array(z.string()),
  machines: z.array(machineSchema),
  dialects: z.array(dialectSchema),
  recipes: z.array(recipeSchema),
  unit: z.enum(['mm', 'in']),
});
export type Kept = z.infer<typeof keptSchema> & { readonly reliefs: readonly KeptRelief[] };

/** Everything that a device keeps. */
export interface Backup {
  /** ISO time. */
  readonly made: string;
  readonly jobs: readonly BackedUpJob[];
  readonly kept: Kept;
}

const listSchema = z.object({
  format: z.literal('mirvak-backup'),
  version: z.literal(1),
  made: z.string(),
  jobs: z
    .array(
      z.object({ id: z.string().min(1).max(60), name: z.string().max(200), updated: z.number(), file: z.string() }),
    )
    .max(20000),
});

const MB = 1024 * 1024;
/** Where the reliefs of the maker's own library lie. */
const RELIEFS = 'reliefs/';

const limits: ZipLimits = {
  packed: 1024 * MB,
  opened: 1024 * MB,
  files: 20010,
  each: [
    { ending: '.json', most: 64 * MB },
    { ending: '.mirvak', most: 256 * MB },
  ],
};

/** A backup as the bytes of one file: a zip of `backup.json`, `kept.json` and a `.mirvak` for each job. */
export function packBackup(b: Backup): Uint8Array {
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = {};
  const jobs = b.jobs.map((j, i) => {
    const file = `jobs/${i + 1}.mirvak`;
    // They are packed already.
    files[file] = [j.bytes, { level: 0 }];
    return { id: j.id, name: j.name, updated: j.updated, file };
  });
  const list: z.infer<typeof listSchema> = { format: 'mirvak-backup', version: 1, made: b.made, jobs };
  return zipSync({
    'backup.json': [strToU8(JSON.stringify(list, null, 1)), { level: 6 }],
    'kept.json': [strToU8(JSON.stringify({ ...b.kept, reliefs: undefined })), { level: 6 }],
    // Each is megabytes of heights that are packed already: a file of its own.
    ...Object.fromEntries(
      b.kept.reliefs.map((r, k) => [`${RELIEFS}${k + 1}.json`, [strToU8(JSON.stringify(r)), { level: 0 }] as const]),
    ),
    ...files,
  });
}

function read<T>(bytes: Uint8Array | undefined, schema: z.ZodType<T>, name: string): T {
  let data: unknown;
  try {
    data = JSON.parse(strFromU8(bytes!));
  } catch {
    throw new JobError(`The file holds no readable ${name}; it is not a backup that Mirvak made.`);
  }
  const r = schema.safeParse(data);
  if (!r.success)
    throw new JobError(`${name} in the backup has a wrong value at ${r.error.issues[0].path.join('.') || 'its root'}.`);
  return r.data;
}

/** The bytes of a backup's file to what it holds; the jobs are not opened yet. Throws JobError. */
export function unpackBackup(bytes: Uint8Array): Backup {
  if (!isZip(bytes)) throw new JobError('The file is not a backup that Mirvak made.');
  const files = openZip(bytes, limits);
  const { made, jobs } = read(files['backup.json'], listSchema, 'backup.json');
  const kept = read(files['kept.json'], keptSchema, 'kept.json');
  const reliefs = Object.keys(files)
    .filter((f) => f.startsWith(RELIEFS))
    .map((f) => read(files[f], keptReliefSchema, f));
  return {
    made,
    kept: { ...kept, reliefs },
    jobs: jobs.map(({ file, ...j }) => {
      if (!files[file]) throw new JobError(`"${j.name}" is missing from the backup.`);
      return { ...j, bytes: files[file] };
    }),
  };
}
