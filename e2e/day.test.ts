import { demoJobs } from '@/core/job/demo';
import { changedAtOnce } from './board';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { eachOnAFreshDevice } from './device';

const demos = Object.keys(demoJobs).length;
const device = eachOnAFreshDevice();

test('(long) a board of one\u2019s own from an empty page', async () => {
  const { maker } = device;
  await maker.press('New job');
  await maker.sees('Piece of material');
  await maker.fill('Width (X)', '8in');
  await maker.holds('Width (X)', '203.2');
  await maker.fill('Height (Y)', '100/3*3');
  await maker.fill('Thickness (Z)', '3/4"');
  await maker.holds('Thickness (Z)', '19.05');
  await maker.fill('Thickness (Z)', '12 apples');
  await maker.sees(/"12 apples" has "apples" too much/);
  await maker.page.keyboard.press('Escape');
  await maker.choose('Material', 'Walnut');

  await maker.stage('Artwork');
  await maker.press('Lettering');
  await maker.fill('Text', 'WEIR', false);
  await maker.press('Rectangle');
  await maker.fill('Width', '150');
  await maker.stage('Cuts');
  await maker.press('Add a cut');
  await maker.press(/^Profile/, 'menuitem');
  await maker.stage('Artwork');
  await maker.press(/^WEIR/, 'treeitem');
  await maker.stage('Cuts');
  await maker.press('Add a cut');
  await maker.press(/^V-carve/, 'menuitem');
  await maker.proven();

  // The part is cut free before it is lettered: that is said, shown, and mended by reordering.
  await maker.stage('Proof');
  await maker.sees(/"Profile" cuts the part free before "V-carve"/);
  await maker.press('Show me');
  await maker.stage('Cuts');
  await maker.press('More for V-carve');
  await maker.press('Move up', 'menuitem');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('all checks pass');
  await maker.stage('Run');
  await maker.choose('Dialect', 'Metric, no arcs, one file per cutter');
  await maker.sees(/2 programs/);
});

test('(long) what can be pressed stands still while a job opens', async () => {
  const { maker } = device;
  const { page } = maker;
  // At each frame, from the first on which it can be seen.
  await page.evaluateOnNewDocument(() => {
    const places = new Set<string>();
    Object.assign(window, { places });
    const look = () => {
      for (const b of document.querySelectorAll('nav[aria-label=Stages] button')) {
        const { x, y } = b.getBoundingClientRect();
        places.add(`${b.textContent} ${Math.round(x)} ${Math.round(y)}`);
      }
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  await maker.press('Open Ferry ring');
  await maker.find('button', /^Blank, /);
  await page.reload();
  await maker.proven();
  const places = await page.evaluate(() => [...(window as unknown as { places: Set<string> }).places]);
  expect(places.length).toBe(6);
});

test('a reload in mid-edit loses nothing, and undo goes all the way back', async () => {
  const { maker } = device;
  await maker.press(/Open Keeper.s gear plate/);
  await maker.press(/^Front,/, 'tab');
  await maker.stage('Artwork');
  await maker.press(/^1794/, 'treeitem');
  await maker.fill('Text', '1812', false);
  await maker.page.reload();
  await maker.stage('Artwork');
  await maker.press(/^(1812|1794)/, 'treeitem');
  expect(await (await maker.find('textbox', 'Text')).evaluate((e) => (e as HTMLTextAreaElement).value)).toBe('1812');

  await maker.fill('Cap height', '6');
  await maker.stage('Blank');
  await maker.fill('Thickness (Z)', '3');
  await maker.stage('Run');
  await maker.press('Undo');
  await maker.press('Undo');
  await maker.stage('Blank');
  await maker.holds('Thickness (Z)', '2');
  await maker.press('Redo');
  await maker.holds('Thickness (Z)', '2');
  await maker.press('Redo');
  await maker.holds('Thickness (Z)', '3');
  await maker.saved();
});

test('by keyboard alone', async () => {
  const { maker } = device;
  const focusOn = async (name: string) => {
    for (let i = 0; i < 60; i++) {
      await maker.page.keyboard.press('Tab');
      if (await maker.page.evaluate((n: string) => document.activeElement?.getAttribute('aria-label') === n, name))
        return;
    }
    throw new Error(`"${name}" cannot be reached with Tab.`);
  };
  const command = async (words: string) => {
    await maker.chord('Control', 'KeyK');
    await maker.find('combobox', 'Search the actions');
    await maker.page.keyboard.type(words);
    await maker.page.keyboard.press('Enter');
  };
  await focusOn('Open Lock cottage board');
  await maker.page.keyboard.press('Enter');
  await maker.sees('Cut free');
  await command('add lettering');
  await maker.sees('8 items');
  await command('go to artwork');
  const x = Number(await maker.valueOf('Centre X'));
  // The caret stands in the new text: arrows are its own. From the sheet on to the table.
  await maker.page.keyboard.press('F6');
  await maker.page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'application');
  await maker.page.keyboard.press('ArrowRight');
  await maker.chord('Shift', 'ArrowRight');
  await maker.page.waitForFunction(
    (v: string) => [...document.querySelectorAll('input')].some((i) => i.value === v),
    {},
    String(x + 11),
  );
  await maker.chord('Control', 'KeyZ');
  await maker.page.keyboard.press('Delete');
  await maker.sees('7 items');
  await maker.chord('Alt', 'Digit1');
  await maker.sees('Piece of material');
});

test('a broken file is refused by name and nothing is lost', async () => {
  const { maker } = device;
  const dir = mkdtempSync(path.join(os.tmpdir(), 'mirvak-broken-'));
  const broken = {
    'broken.mirvak': 'PK\u0003\u0004 not really a zip',
    'other.json': '{"format":"something else"}',
    'newer.json': '{"format":"mirvak-job","version":99}',
  };
  const reasons = { 'broken.mirvak': /damaged archive/, 'other.json': /not a Mirvak job/, 'newer.json': /version 99/ };
  for (const [name, content] of Object.entries(broken)) {
    writeFileSync(path.join(dir, name), content);
    await device.give(path.join(dir, name));
    await maker.sees(reasons[name as keyof typeof reasons]);
    await maker.sees(`"${name}" was not imported`);
  }
  expect(await maker.page.$$eval('[aria-label=Jobs] > li', (l) => l.length)).toBe(demos);
});

test('jobs are copied, renamed, deleted with undo, exported and brought back', async () => {
  const { maker } = device;
  await maker.press('More for Lock cottage board');
  await maker.press('Copy', 'menuitem');
  await maker.sees('Lock cottage board copy');
  await maker.press('More for Lock cottage board copy');
  await maker.press('Rename', 'menuitem');
  await maker.fill('Name of the job', 'Lower gate board', false);
  await maker.press('Rename');
  await maker.sees('Lower gate board');
  await maker.press('More for Lower gate board');
  await maker.press('Export to a file', 'menuitem');
  const file = await device.downloaded(/^lower-gate-board.*\.mirvak$/);
  await maker.press('More for Lower gate board');
  await maker.press('Delete', 'menuitem');
  await maker.sees('"Lower gate board" is deleted');
  await maker.page.waitForFunction((n) => document.querySelectorAll('[aria-label=Jobs] > li').length === n, {}, demos);
  await maker.press('Undo');
  await maker.page.waitForFunction(
    (n) => document.querySelectorAll('[aria-label=Jobs] > li').length === n,
    {},
    demos + 1,
  );
  await device.give(file);
  await maker.page.waitForFunction(
    (n) => document.querySelectorAll('[aria-label=Jobs] > li').length === n,
    {},
    demos + 2,
  );
});

test('(long) of two windows that change the same at once, one takes the other\u2019s version, or keeps its own as a copy', async () => {
  const a = device.maker;
  await a.press('Open Ferry ring');
  await a.stage('Blank');
  const b = await device.visit();
  await b.press('Open Ferry ring');
  await b.stage('Blank');
  const first = await changedAtOnce(a, b, 'Thickness (Z)', 4);
  await first.late.press('Take the other version');
  for (const m of [a, b]) await m.holds('Thickness (Z)', first.other);
  const second = await changedAtOnce(a, b, 'Thickness (Z)', 20);
  await second.late.press('Keep mine as a copy');
  await second.late.sees('Ferry ring (my version)');
  await second.late.stage('Blank');
  await second.late.holds('Thickness (Z)', second.own);
});

test('(long) the section reads depths, and paths can be stopped and go on', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  const strip = await maker.page.waitForSelector('section[aria-label=Section] svg');
  const b = (await strip!.boundingBox())!;
  const read = async () =>
    (await maker.page.$eval('section[aria-label=Section]', (e) => (e as HTMLElement).innerText)).match(
      /wanted (-?[\d.]+)\s*proof (-?[\d.]+)/,
    );
  let deepest = 0;
  for (let i = 1; i < 60; i++) {
    await maker.page.mouse.move(b.x + 60 + ((b.width - 80) * i) / 60, b.y + 60);
    const m = await read();
    if (!m) continue;
    deepest = Math.min(deepest, Number(m[2]));
    // Away from walls, what is wanted is what is cut.
    if (Number(m[1]) === 0 && i > 5 && i < 55) expect(Number(m[2])).toBeGreaterThan(-3.2);
  }
  expect(deepest).toBeLessThan(-2.4);
  const before = await maker.page.$eval('section[aria-label=Section]', (e) => e.innerHTML);
  await maker.drag('button', 'End of the section line', 0, 60);
  await maker.page.waitForFunction(
    (was: string) => document.querySelector('section[aria-label=Section]')!.innerHTML !== was,
    {},
    before,
  );
});
