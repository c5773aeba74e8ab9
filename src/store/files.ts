import type { Asset, AssetType } from '@/core/job/assets';
import { assetsCalled, assetTypes, neededBy } from '@/core/job/assets';
import { assetsIn } from '@/core/job/oldAssets';
import type { Job } from '@/core/job/job';
import { tellOthers } from './channel';
import { itemsOfAll } from './keep';
import { db } from './db';
import { withoutSecond } from './second';

/**
 * Files that jobs bring along, a row each. A file's id comes from its bytes: the same file brought twice is kept once, and all
 * jobs that know it share it. Who knows it is counted from the jobs when files are swept, so that no count can go wrong.
 */
const shelfOf = (type: AssetType): string => `*${assetsCalled[type]}`;
const keyOf = ({ type, id }: Pick<Asset, 'type' | 'id'>): string => `${shelfOf(type)}/${id}`;

/** Ids of assets that are the SHA-256 of their bytes. */
const HASH = /^[0-9a-f]{64}$/;

/** SHA-256 (FIPS 180-4) of bytes, in hexadecimal. */
export async function hashOf(bytes: Uint8Array): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>);
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** What a job says of a file; `ending` with its dot, or nothing. */
export async function describe(type: AssetType, name: string, ending: string, bytes: Uint8Array): Promise<Asset> {
  const id = await hashOf(bytes);
  return { id, type, name: name.slice(0, 200), file: `${assetsCalled[type]}/${id}${ending}` };
}

/** Keeps a file that is known by a job. */
export async function putFile(asset: Asset, bytes: Uint8Array): Promise<void> {
  await db().assets.put({ key: keyOf(asset), jobId: shelfOf(asset.type), path: asset.file, bytes });
  tellOthers({ of: 'files' });
}

/** Files by id; those that are not here are left out. */
export async function filesOf(assets: readonly Asset[]): Promise<Record<string, Uint8Array>> {
  const rows = await db().assets.bulkGet(assets.map(keyOf));
  return Object.fromEntries(rows.flatMap((r, i) => (r ? [[assets[i].id, r.bytes]] : [])));
}

/** Of some assets those whose files are not on this device. */
export async function lackingOf(assets: readonly Asset[]): Promise<Asset[]> {
  const here = new Set(await db().assets.where('key').anyOf(assets.map(keyOf)).primaryKeys());
  return assets.filter((a) => !here.has(keyOf(a)));
}

/**
 * The files of a job as they lie in its archive, and what of it is not on this device though artwork needs it. Pictures that no
 * item shows any more are left out.
 */
export async function archiveFiles(
  job: Job,
): Promise<{ readonly files: Record<string, Uint8Array>; readonly lacking: readonly Asset[] }> {
  const assets = assetsIn(job);
  const needed = neededBy(itemsOfAll(job), assets, formsOfAll(job));
  const wanted = assets.filter((a) => a.type === 'font' || needed.includes(a));
  const bytes = await filesOf(wanted);
  const files: Record<string, Uint8Array> = {};
  for (const a of wanted) if (bytes[a.id]) files[a.file] = bytes[a.id];
  return { files, lacking: needed.filter((a) => !bytes[a.id]) };
}

/** The forms of all set-ups. A job as it lies on the shelf may be of a time when there were none. */
const formsOfAll = (job: Job) => job.setups.flatMap((s) => s.relief?.forms ?? []);

/** Takes the files of an archive that its job knows; gives what artwork needs and neither brings nor finds here, or brings damaged. */
export async function takeFilesOf(job: Job, files: Readonly<Record<string, Uint8Array>>): Promise<readonly Asset[]> {
  for (const a of job.assets) {
    const bytes = files[a.file];
    if (bytes && (!HASH.test(a.id) || (await hashOf(bytes)) === a.id)) await putFile(a, bytes);
  }
  return lackingOf(neededBy(itemsOfAll(job), job.assets, formsOfAll(job)));
}

/** Removes files that no job on the shelf knows. */
export async function sweepFiles(): Promise<void> {
  const used = new Set<string>();
  await db().jobs.each((row) => assetsIn(row.job).forEach((a) => used.add(keyOf(a))));
  const keys = (await db().assets.where('jobId').anyOf(assetTypes.map(shelfOf)).primaryKeys()).filter(
    (k) => !used.has(k),
  );
  if (keys.length) await withoutSecond({ assets: keys }, () => db().assets.bulkDelete(keys));
}

/** What is said of files that a job lacks, by name. */
export const lackingWords = (lacking: readonly Asset[]): string => {
  const named = (type: AssetType): string[] => {
    const names = lacking.filter((a) => a.type === type).map((a) => `"${a.name}"`);
    return names.length
      ? [
          `the ${names.length > 1 ? assetsCalled[type] : type} ${names.slice(0, 5).join(', ')}${names.length > 5 ? ` and ${names.length - 5} more` : ''}`,
        ]
      : [];
  };
  return assetTypes.flatMap(named).join(' and ');
};
