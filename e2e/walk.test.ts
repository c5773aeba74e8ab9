import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { packJob } from '@/core/job/archive';
import { demoJobs } from '@/core/job/demo';
import { eachOnAFreshDevice } from './device';

const demos = Object.keys(demoJobs).length;
const device = eachOnAFreshDevice({ solid: true });

/** Minutes of the card with a name. */
const minutes = (name: string) =>
  device.maker.page.$$eval(
    'ol[aria-label="Cut plan"] li',
    (cards, n) =>
      cards
        .map((c) => (c as HTMLElement).innerText)
        .find((t) => t.includes(n))
        ?.match(/(\d+ h )?[\d.]+ (min|s)\b/)?.[0] ?? '',
    name,
  );

test('(long) the walk: open the board, change a word, drag a tab, export programs', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  await maker.sees(/Proof of 1 program/);
  await maker.page.waitForSelector('[aria-label="Plan of the blank"] canvas');
  await maker.page.waitForSelector('[aria-label="The blank in the round"] canvas');
  const before = await minutes('Lettering');
  expect(before).toMatch(/\d+ min/);

  await maker.stage('Artwork');
  await maker.press(/^LOCK 7/, 'treeitem');
  await maker.fill('Text', 'LOCK 77', false);
  await maker.stage('Cuts');
  await maker.page.waitForFunction(
    (was: string) => {
      const t =
        [...document.querySelectorAll('ol[aria-label="Cut plan"] li')]
          .map((c) => (c as HTMLElement).innerText)
          .find((q) => q.includes('Lettering')) ?? '';
      return t.includes('up to date') && !t.includes(was);
    },
    { timeout: 60000 },
    before,
  );
  await maker.proven();

  await maker.press(/^Cut 4: Cut free/);
  await maker.drag('button', 'Holding tab 1', 25, 0);
  await maker.sees('6 tabs stand where you put them');
  await maker.proven();

  await maker.stage('Run');
  await maker.sees('lock-cottage-board.nc');
  await maker.press('Save the program');
  const program = readFileSync(await device.downloaded(/^lock-cottage-board.*\.nc$/), 'utf8');
  expect(program).toMatch(/G21/);
  expect(program.trim().endsWith('M30')).toBe(true);
  expect(program.split('\n').length).toBeGreaterThan(3000);

  await maker.stage('Proof');
  await maker.sees('all checks pass');
  await maker.press('Play');
  await maker.sees(/lock-cottage-board\.nc line \d+/);
  await maker.press('Pause');
  await maker.press('Show finished');
});

test('(long) the shelf shows its pictures from the start; a job that was never open here gets that of its proof by itself', async () => {
  const { maker } = device;
  const seen = () =>
    maker.page.$$eval('[aria-label=Jobs] img', (l) =>
      l.map((e) => [
        (e as HTMLImageElement).naturalWidth,
        (e as HTMLImageElement).src.length,
        Number((e as HTMLImageElement).src.startsWith('data:')),
      ]),
    );
  await maker.page.waitForFunction(
    (count) =>
      [...document.querySelectorAll<HTMLImageElement>('[aria-label=Jobs] img')].filter((e) => e.naturalWidth === 600)
        .length === count,
    {},
    demos,
  );
  expect((await seen()).map(([, , own]) => own)).toEqual(new Array(demos).fill(0));
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'mirvak-')), 'plate.mirvak');
  writeFileSync(file, packJob({ ...demoJobs['keeper-plate'](), name: 'From another bench' }));
  await device.give(file);
  await maker.sees('From another bench');
  await maker.page.waitForFunction(
    (count) => document.querySelectorAll('[aria-label=Jobs] img').length === count,
    { timeout: 120000 },
    demos + 1,
  );
  // A picture with something on it.
  const [[width, length]] = (await seen()).filter(([, , own]) => own);
  expect(width).toBe(600);
  expect(length).toBeGreaterThan(20000);
});
