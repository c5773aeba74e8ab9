import 'fake-indexeddb/auto';
import { newItem } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { assetsOf, type Asset } from '@/core/job/assets';
import { packJob } from '@/core/job/archive';
import { newOneSetup, type Job } from '@/core/job/job';
import { readJob } from '@/core/job/migrate';
import { jobOf } from '@/core/job/oneSetup';
import { db } from './db';
import {
  archiveFiles,
  describe as described,
  filesOf,
  hashOf,
  lackingWords,
  putFile,
  sweepFiles,
  takeFilesOf,
} from './files';
import { copyJob, createJob, deleteJob, emptyBin, exportJob, importJob, listJobs } from './jobs';
import { storageOver } from './local';

Object.assign(globalThis, { localStorage: storageOver(new Map()) });

const bytesOf = (text: string) => new TextEncoder().encode(text);
const file = (bytes: Uint8Array) => ({ arrayBuffer: async () => bytes.slice().buffer }) as unknown as File;
const values = (kind: string) => itemKindOf(kind).defaults as Record<string, unknown>;
const letters = (font: string) =>
  newItem({
    id: `l-${font}`,
    name: 'Letters',
    kind: 'lettering',
    values: { ...values('lettering'), text: 'Fenwater', font },
  });
const shown = (picture: string) =>
  newItem({ id: `p-${picture}`, name: 'Heron', kind: 'picture', values: { ...values('picture'), picture } });
const jobWith = (assets: Asset[], items: ReturnType<typeof letters>[]): Job =>
  jobOf({ ...newOneSetup('Lock 7'), assets, items });
const rows = () => db().assets.count();

describe('files that jobs bring along', () => {
  beforeEach(async () => {
    await db().delete();
    await db().open();
  });
  it('are named by the SHA-256 of their bytes', async () => {
    // FIPS 180-4, the example of one block, and the empty message.
    expect(await hashOf(bytesOf('abc'))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    expect(await hashOf(new Uint8Array())).toBe('e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855');
    // A window into a larger buffer is its own bytes alone.
    expect(await hashOf(bytesOf('xabcx').subarray(1, 4))).toBe(await hashOf(bytesOf('abc')));
  });
  it('lie there once however often they are brought, and go when no job knows them any more', async () => {
    const font = await described('font', 'Oak', '.ttf', bytesOf('a font'));
    const again = await described('font', 'Oak, from a disk', '.ttf', bytesOf('a font'));
    expect(again.id).toBe(font.id);
    const packed = packJob(jobWith([font], [letters(font.id)]), { [font.file]: bytesOf('a font') });
    const { id } = await importJob(file(packed));
    await putFile(again, bytesOf('a font'));
    await copyJob(id);
    expect(await rows()).toBe(1);
    await deleteJob(id);
    await emptyBin();
    expect(await rows()).toBe(1);
    for (const r of await listJobs()) await deleteJob(r.id);
    await emptyBin();
    expect(await rows()).toBe(0);
  });
  it('travel with the file of a job and come back bit by bit', async () => {
    const font = await described('font', 'Oak', '.ttf', bytesOf('a font'));
    const picture = await described('picture', 'heron.png', '.png', bytesOf('a picture'));
    const job = jobWith([font, picture], [letters(font.id), shown(picture.id)]);
    await putFile(font, bytesOf('a font'));
    await putFile(picture, bytesOf('a picture'));
    const { bytes, lacking } = await exportJob(await createJob(), job);
    expect(lacking).toEqual([]);
    await db().assets.clear();
    const r = await importJob(file(bytes));
    expect(r.lacking).toEqual([]);
    expect(await filesOf([font, picture])).toEqual({
      [font.id]: bytesOf('a font'),
      [picture.id]: bytesOf('a picture'),
    });
  });
  it('that are missing or damaged are told by name, and no damaged one is taken', async () => {
    const font = await described('font', 'Oak', '.ttf', bytesOf('a font'));
    const picture = await described('picture', 'heron.png', '.png', bytesOf('a picture'));
    const idle = await described('picture', 'not shown any more', '.png', bytesOf('another'));
    const job = jobWith([font, picture, idle], [letters(font.id), shown(picture.id)]);
    const lacking = await takeFilesOf(job, { [font.file]: bytesOf('a fond') });
    expect(lacking).toEqual([font, picture]);
    expect(lackingWords(lacking)).toBe('the font "Oak" and the picture "heron.png"');
    expect(await rows()).toBe(0);
    expect((await archiveFiles(job)).lacking).toEqual([font, picture]);
    // What is here already need not come again.
    await putFile(font, bytesOf('a font'));
    expect(await takeFilesOf(job, {})).toEqual([picture]);
  });
  it('of jobs from before are known under the ids that they had', async () => {
    const old = JSON.parse(JSON.stringify(jobWith([], [letters('own-1a'), shown('pic-2b')])));
    delete old.assets;
    old.version = 8;
    old.fonts = [{ id: 'own-1a', name: 'Oak', file: 'fonts/own-1a.ttf' }];
    old.pictures = [{ id: 'pic-2b', name: 'heron.png', file: 'pictures/pic-2b.png' }];
    const job = readJob(old);
    expect(assetsOf(job, 'font')).toEqual([{ ...old.fonts[0], type: 'font' }]);
    expect(assetsOf(job, 'picture')).toEqual([{ ...old.pictures[0], type: 'picture' }]);
    const id = await createJob();
    await takeFilesOf(job, { 'fonts/own-1a.ttf': bytesOf('a font'), 'pictures/pic-2b.png': bytesOf('a picture') });
    // A row that was written before is not swept empty.
    await db().jobs.update(id, { job: old });
    await sweepFiles();
    expect(await rows()).toBe(2);
    expect(Object.keys((await archiveFiles(old as Job)).files).sort()).toEqual([
      'fonts/own-1a.ttf',
      'pictures/pic-2b.png',
    ]);
  });
});
