import { readFileSync } from 'node:fs';
import { unpackJob } from '@/core/job/archive';
import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('(long) a job that is left while nothing can be saved stays in its window, is exported or opened again, and is saved when there is room', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.saved();
  // The disk is full, for the database and for what is beside it.
  await maker.page.evaluate(() => {
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    const { put, add } = IDBObjectStore.prototype;
    const { setItem } = Storage.prototype;
    Object.assign(IDBObjectStore.prototype, { put: full, add: full });
    Object.assign(Storage.prototype, { setItem: full });
    Object.assign(window, {
      makeRoom: () => {
        Object.assign(IDBObjectStore.prototype, { put, add });
        Object.assign(Storage.prototype, { setItem });
      },
    });
  });
  await maker.fill('Centre X', '61');
  await maker.sees('This device has no room left');
  await maker.press('Job shelf');
  await maker.sees('The last changes of "New job" could not be saved. They are in this window only.');
  await maker.press('Export to a file');
  const { job } = unpackJob(readFileSync(await device.downloaded(/^new-job.*\.mirvak$/)));
  expect(job.setups[0].items).toHaveLength(1);
  await maker.press('Open it again');
  await maker.sees('This device has no room left');
  await maker.stage('Artwork');
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.holds('Centre X', '61');
  // What was done before it was left is undone as ever.
  await maker.press('Undo');
  await maker.holds('Centre X', '150');
  await maker.press('Redo');
  await maker.page.evaluate(() => (window as unknown as { makeRoom(): void }).makeRoom());
  // The next change is saved, and all that came before it.
  await maker.fill('Centre Y', '62');
  await maker.saved();
  await maker.page.reload();
  await maker.stage('Artwork');
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.holds('Centre X', '61');
  await maker.holds('Centre Y', '62');
});

test('a page that fails as a whole says so; the job can be exported, and gone back to', async () => {
  device.excuse(/the page fails/);
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.saved();
  await maker.page.evaluate(() => {
    const { createElement } = Document.prototype;
    Document.prototype.createElement = function (this: Document, ...args: [string]) {
      if (args[0] === 'kbd') throw new TypeError('the page fails');
      return createElement.apply(this, args);
    } as typeof createElement;
    Object.assign(window, { mend: () => void Object.assign(Document.prototype, { createElement }) });
  });
  await maker.chord('Control', 'KeyK');
  await maker.sees('This is a fault of Mirvak. Your job "New job" is here as you left it');
  await maker.press('Export the job to a file');
  expect(unpackJob(readFileSync(await device.downloaded(/^new-job.*\.mirvak$/))).job.setups[0].items).toHaveLength(1);
  await maker.page.evaluate(() => (window as unknown as { mend(): void }).mend());
  await maker.press('Try again');
  await maker.stage('Artwork');
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.fill('Centre X', '77');
  await maker.saved();
});

test('(long) work that was not backed up for two weeks is said on the shelf, and is backed up from there', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.press('Job shelf');
  await maker.find('button', 'Open New job');
  const visitIn = async (days: number) => {
    await maker.page.evaluateOnNewDocument(
      `{ const now = Date.now.bind(Date); Date.now = () => now() + ${days} * 864e5; }`,
    );
    await maker.page.goto(process.env.MIRVAK_URL!);
    await maker.find('button', 'Open New job');
  };
  const words = 'There is work on this device that has not been backed up for two weeks.';
  await visitIn(13);
  // What was changed is on the shelf, and nothing is due.
  await maker.sees(/\d+ \w+ 20\d\d/);
  expect(await maker.text()).not.toContain(words);
  await visitIn(2);
  await maker.sees(words);
  await maker.press('Back up everything');
  await maker.sees('Everything is in one file');
  await maker.page.reload();
  await maker.find('button', 'Open New job');
  await maker.press('Safekeeping');
  await maker.sees('Last made');
  expect(await maker.text()).not.toContain(words);
});
