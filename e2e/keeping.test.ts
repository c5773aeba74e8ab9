import { demoJobs } from '@/core/job/demo';
import { readFileSync } from 'node:fs';
import { unpackBackup } from '@/core/job/backup';
import { unpackJob } from '@/core/job/archive';
import { changedAtOnce, emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';
import { Maker } from './maker';

const device = eachOnAFreshDevice();

test('a job in two windows: what one saves the other shows, what both change is compared, undo takes back only its own', async () => {
  const { maker: a } = device;
  await emptyBoard(a);
  await a.press('Rectangle');
  await a.sees('1 item');
  await a.fill('Centre X', '60');
  await a.saved();
  const b = await device.visit();
  await b.press('Open New job');
  await b.stage('Artwork');
  await b.press(/^Rectangle/, 'treeitem');
  await b.holds('Centre X', '60');
  await a.fill('Centre Y', '70');
  await b.holds('Centre Y', '70');
  await b.fill('Centre X', '80');
  await a.holds('Centre X', '80');
  await a.press('Undo');
  await b.holds('Centre Y', '100');
  await a.holds('Centre X', '80');

  // Both at once: nothing is overwritten until it is said what counts.
  const { late, own, other } = await changedAtOnce(a, b, 'Centre X', 90);
  await late.press('Compare');
  await late.sees(/Artwork "Rectangle", X/);
  await late.sees(new RegExp(`This window\\s+${own} mm`));
  await late.press(/^The other window/);
  await late.press('Bring together');
  await late.saved();
  for (const m of [a, b]) await m.holds('Centre X', other);
});

test('a deleted job lies in the bin, is put back, and goes for good when the bin is emptied', async () => {
  const { maker } = device;
  for (const name of ['Ferry ring', 'Sluice gear plate']) {
    await maker.press(`More for ${name}`);
    await maker.press('Delete', 'menuitem');
    await maker.page.waitForFunction((n) => !document.querySelector(`[aria-label="Open ${n}"]`), {}, name);
  }
  await maker.press('Bin, 2 jobs');
  await maker.press('Put back Ferry ring');
  await maker.press('Close');
  await maker.find('button', 'Open Ferry ring');
  await maker.press('Bin, 1 job');
  await maker.press('Empty the bin');
  await maker.press(/for good/);
  await maker.page.waitForFunction(() => !/Bin, /.test(document.body.innerText));
  await maker.page.reload();
  await maker.find('button', 'Open Ferry ring');
  expect(await maker.text()).not.toMatch(/Sluice gear plate|Bin, /);
});

test('(long) a browser that has lost its database has everything back from the second copy', async () => {
  const { maker } = device;
  const { page } = maker;
  /** What lies in the second copy. */
  const second = () =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('second');
      const names: string[] = [];
      for await (const n of (folder as unknown as { keys(): AsyncIterable<string> }).keys()) names.push(n);
      return names
        .filter((n) => n.startsWith('job.'))
        .sort()
        .join();
    });
  const changes = async (was: string) => {
    for (let i = 0; (await second()) === was; i++) {
      if (i === 100) throw new Error('The second copy does not follow.');
      await new Promise((r) => setTimeout(r, 100));
    }
    return second();
  };
  await maker.press('Open Ferry ring');
  await maker.stage('Blank');
  // Whoever keeps it may die: another one goes on.
  for (const w of page.workers()) await w.close().catch(() => {});
  let seen = await second();
  await maker.fill('Thickness (Z)', '16');
  await maker.saved();
  seen = await changes(seen);
  await maker.fill('Thickness (Z)', '17');
  await maker.saved();
  await changes(seen);
  const job = page.url();
  // A page of the same origin that opens no database: it sees when the other one is really gone.
  await page.goto(new URL('/icon.svg', job).href);
  const cdp = await page.createCDPSession();
  await cdp.send('Storage.clearDataForOrigin', { origin: new URL(job).origin, storageTypes: 'indexeddb' });
  while ((await page.evaluate(async () => (await indexedDB.databases()).length)) > 0)
    await new Promise((r) => setTimeout(r, 50));
  await page.goto(job);
  await maker.sees('The browser has lost its database');
  await maker.sees(`${Object.keys(demoJobs).length} jobs, the tool library and settings`);
  await maker.stage('Blank');
  await maker.holds('Thickness (Z)', '17');
  await maker.press('Close');
  await maker.fill('Thickness (Z)', '18');
  await maker.saved();
  await page.reload();
  await maker.stage('Blank');
  await maker.holds('Thickness (Z)', '18');
  expect(await maker.text()).not.toMatch(/lost its database/);
});

test('(long) everything goes into one file and comes back from it; a folder of the maker gets each job', async () => {
  const { maker } = device;
  await maker.press('Safekeeping');
  await maker.sees(/Mirvak uses [\d.]+ [kM]B/);
  await maker.sees('None was made yet');
  await maker.press('Back up everything');
  const file = await device.downloaded(/\.mirvak-backup$/);
  await maker.sees('Everything is in one file');
  expect(
    unpackBackup(readFileSync(file))
      .jobs.map((j) => j.name)
      .sort(),
  ).toEqual(
    Object.values(demoJobs)
      .map((make) => make().name)
      .sort(),
  );

  // The browser's own question for a folder is answered with one of the page's origin.
  await maker.page.evaluate(() =>
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('Jobs', { create: true }),
    }),
  );
  await maker.press('Done');
  await maker.press('More for Ferry ring');
  await maker.press('Delete', 'menuitem');
  await maker.press('Bin, 1 job');
  await maker.press('Empty the bin');
  await maker.press(/for good/);
  await maker.page.waitForFunction(() => !/Bin, /.test(document.body.innerText));
  await maker.press('Safekeeping');
  const [chooser] = await Promise.all([maker.page.waitForFileChooser(), maker.press('Bring a backup back')]);
  await chooser.accept([file]);
  await maker.sees(`1 job put back, ${Object.keys(demoJobs).length - 1} already here`);
  await maker.press('Choose a folder');
  await maker.sees('Each job is also written to the folder "Jobs"');
  const inFolder = () =>
    maker.page.evaluate(async () => {
      const out: Record<string, number[]> = {};
      const dir = await (await navigator.storage.getDirectory()).getDirectoryHandle('Jobs');
      for await (const [name, h] of (
        dir as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> }
      ).entries()) {
        // What goes while it is looked at is not there.
        const file = await h.getFile().catch(() => null);
        if (file) out[name] = [...new Uint8Array(await file.arrayBuffer().catch(() => new ArrayBuffer(0)))];
      }
      return out;
    });
  for (
    let i = 0;
    i < 100 &&
    !(
      Object.keys(await inFolder()).length === Object.keys(demoJobs).length &&
      (await inFolder())['ferry-ring.mirvak']?.length
    );
    i++
  )
    await new Promise((r) => setTimeout(r, 100));
  expect(unpackJob(Uint8Array.from((await inFolder())['ferry-ring.mirvak'])).job.name).toBe('Ferry ring');
  await maker.press('Done');
  await maker.press('Open Ferry ring');
  await maker.fill('Name of the job', 'Ferry ring, blue');
  await maker.saved();
  // The new name first, then the old one goes.
  const ferries = async () =>
    Object.keys(await inFolder())
      .filter((n) => n.startsWith('ferry-ring'))
      .join();
  for (let i = 0; i < 200 && (await ferries()) !== 'ferry-ring-blue.mirvak'; i++)
    await new Promise((r) => setTimeout(r, 100));
  expect(await ferries()).toBe('ferry-ring-blue.mirvak');
});

test.each([
  [
    'no storage at all',
    () => {
      Object.defineProperty(window, 'indexedDB', { value: undefined });
      Object.defineProperty(window, 'localStorage', {
        get: () => {
          throw new DOMException('no', 'SecurityError');
        },
      });
    },
    /keeps nothing for Mirvak here/,
  ],
  [
    'a database that never answers',
    () => {
      IDBFactory.prototype.open = () => new EventTarget() as IDBOpenDBRequest;
    },
    /does not answer/,
  ],
])('with %s jobs are made, exported and imported all the same, and it is said', async (name, spoil, words) => {
  const { page } = device.maker;
  await page.evaluateOnNewDocument(spoil);
  await page.reload();
  const maker = new Maker(page);
  await maker.sees(words);
  await maker.press('New job');
  await maker.sees('Piece of material');
  await maker.fill('Width (X)', '123');
  await maker.sees('In this window only');
  await maker.press('Export the job to a file');
  const file = await device.downloaded(/^new-job.*\.mirvak$/);
  expect(unpackJob(readFileSync(file)).job.blanks[0].width).toBe(123);
  await maker.press('Job shelf');
  await maker.find('button', 'Open New job');
  const input = (await page.$('input[type=file]'))!;
  await (input as unknown as { uploadFile(f: string): Promise<void> }).uploadFile(file);
  await maker.sees('is on the shelf');
  await page.waitForFunction(() => document.querySelectorAll('[aria-label="Open New job"]').length === 2);
  void name;
});

test('(long) a job opens with the proof it was left with, which plays and follows the next change; kept proofs can be emptied', async () => {
  const { maker } = device;
  const { page } = maker;
  // Notes whether a cut was ever said to be worked on since the page came.
  await page.evaluateOnNewDocument(`
    window.worked = false;
    new MutationObserver(() => { if (/working \\d+ %/.test(document.body?.innerText ?? '')) window.worked = true; }).observe(document, { subtree: true, childList: true, characterData: true });
  `);
  const worked = () => page.evaluate(() => (window as unknown as { worked: boolean }).worked);
  await maker.press('Open Sluice gear plate');
  await maker.stage('Cuts');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('all checks pass');
  await maker.stage('Cuts');
  await maker.sees(/\d+ min/);
  const [minutes] = /[\d.]+ min/.exec(await maker.text())!;
  // Leaving keeps at once what would be kept after a rest; the shelf says what it takes.
  await maker.press('Job shelf');
  for (let tries = 0; !/Proofs of 1 set-up are kept/.test(await maker.text()); tries++) {
    expect(tries).toBeLessThan(20);
    await maker.press('Safekeeping');
    await maker.sees('None was made yet');
    if (!/Proofs of 1 set-up/.test(await maker.text())) await maker.press('Done');
  }
  await page.reload();
  await maker.press('Open Sluice gear plate');
  await maker.stage('Cuts');
  await maker.proven();
  expect(await worked()).toBe(false);
  await maker.sees(minutes);
  await maker.stage('Proof');
  await maker.press('Play');
  await maker.sees(/line \d{2,}/);
  // A change is proven as ever.
  await maker.stage('Artwork');
  await maker.press(/^SLUICE GEAR/, 'treeitem');
  await maker.fill('Text', 'SLUICE GATE', false);
  await maker.page.keyboard.press('Tab');
  await maker.proven();
  await maker.press('Undo');
  await maker.proven();
  await maker.press('Job shelf');
  await maker.press('Safekeeping');
  await maker.press('Empty kept proofs');
  await maker.sees('Kept proofs are gone');
  await page.reload();
  await maker.press('Open Sluice gear plate');
  await maker.stage('Cuts');
  await maker.proven();
  expect(await worked()).toBe(true);
});
