import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();
const dir = mkdtempSync(path.join(os.tmpdir(), 'mirvak-cuts-'));

test('the library: cutters are searched, sorted, worked out, brought in after a look, saved, and every change goes back', async () => {
  const { maker } = device;
  await maker.press('Tool library');
  await maker.fill('Search the cutters', 'taper', false);
  await maker.press('Tapered ball R 0.5 mm');
  await maker.fill('Scallop height', '0.01');
  // Rows over a ball of R 0.5: step = 2 sqrt(2 R h - h^2).
  await maker.holds('Step-over', '0.199');
  await maker.fill('At a depth of', '0.5');
  await maker.sees('It cuts');
  await maker.fill('Search the cutters', '', false);
  await maker.page.keyboard.press('Backspace');
  await maker.choose('Sorted by', 'Diameter');
  await maker.choose('Shapes', 'V-bit');
  const names = await maker.page.$$eval('[aria-label=Cutters] [aria-pressed]', (l) =>
    l.map((e) => (e as HTMLElement).innerText.split('\n')[0]),
  );
  expect(names.slice(0, 2).every((n) => / 6 mm/.test(n!)) && /25 mm/.test(names[names.length - 1]!)).toBe(true);
  await maker.press('Export cutters');
  await maker.press('As a table (CSV)', 'menuitem');
  const table = readFileSync(await device.downloaded(/^cutters.*\.csv$/), 'utf8')
    .trimEnd()
    .split('\n');
  expect(table).toHaveLength(1 + names.length);
  const file = path.join(dir, 'mine.csv');
  writeFileSync(file, [table[0], table[1].replace(/V-bit/, 'My V-bit'), table[2], 'odd,Spoon,x,spoon'].join('\n'));
  const [chooser] = await Promise.all([maker.page.waitForFileChooser(), maker.press('Import cutters')]);
  await chooser.accept([file]);
  await maker.sees('1 changed');
  await maker.sees('1 as they are here');
  await maker.sees(/1 refused/);
  await maker.press('Take 1 cutter');
  await maker.find('button', /^My V-bit/);
  await maker.press('Undo in the library');
  await maker.find('button', names[0]!);
  await maker.press('New cutter');
  await maker.fill('Name', 'Keeper\u2019s bit', false);
  await maker.find('button', 'Keeper\u2019s bit');
  await maker.fill('Supplier', 'Fenwater chandlery');
  await maker.fill('Tip flat', '30');
  await maker.sees(/At most|as wide as the cutter/);
  await maker.page.keyboard.press('Escape');
  await maker.page.reload();
  await maker.press('Keeper\u2019s bit');
  await maker.holds('Supplier', 'Fenwater chandlery');
});

test('(long) a floor is cleared by three cutters; values of a cut are marked, put back, kept in the library; cuts become a recipe', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  await maker.press(/^Cut 1: Lettering/);
  await maker.choose('Add to end mills for the floor', 'End mill 1 mm');
  await maker.proven();
  await maker.sees('End mill 3 mm, End mill 1.5 mm, End mill 1 mm, V-bit 60');
  await maker.press('Take out End mill 1 mm');
  await maker.press(/^Cut 3: Border channel/);
  await maker.sees('Offset');
  await maker.fill('Feed', '1234');
  await maker.sees('this cut\u2019s own');
  await maker.press('Keep for oak');
  await maker.press('Put back');
  await maker.press('Tool library');
  await maker.press('End mill 3 mm');
  await maker.holds('Feed', '1234');
  await maker.press('Close the tool library');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  // Two cuts at once: one value, one step back; then a recipe of both for other artwork.
  await maker.press(/^Cut 1: Lettering/);
  await maker.page.keyboard.down('Control');
  await maker.press(/^Cut 2: Ornament/);
  await maker.page.keyboard.up('Control');
  await maker.sees('A value set here is set in all of them');
  await maker.proven();
  await maker.fill('Depth limit', '2');
  await maker.fill('Name of the recipe', 'Board letters', false);
  await maker.press('Keep it');
  await maker.press('Undo');
  await maker.press('Add a cut');
  await maker.press(/^Board letters/, 'menuitem');
  await maker.find('button', /^Cut 6/);
  await maker.press('Undo');
  await maker.page.waitForFunction(() => document.querySelectorAll('[aria-label="Cut plan"] > li').length === 4);
});

test('(long) a plate is dragged with the spindle off; machine, dialect and minutes are the maker\u2019s own; lines and table point at each other', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.proven();
  await maker.stage('Run');
  const lines = await maker.page.$$eval('[aria-label="Program text"] [role=option]', (l) =>
    l.map((e) => e.textContent ?? ''),
  );
  expect(lines.join('\n')).not.toMatch(/M3\b/);
  await maker.press(/^\s*16/, 'option');
  await maker.page.waitForFunction(() => !!document.querySelector('[aria-label^="Line "]'));
  // A press on the plate's frame finds its line in the text.
  const box = (await (await maker.page.$('[aria-label="Plan of the blank"]'))!.boundingBox())!;
  const shown = async () =>
    maker.page.$$eval('[aria-label="Program text"] [aria-selected=true]', (l) => l[0]?.textContent ?? null);
  const before = await shown();
  const other = async () => ![null, before].includes(await shown());
  for (let f = 0.3; f < 0.5 && !(await other()); f += 0.004) {
    await maker.page.mouse.click(box.x + box.width * 0.5 + 22, box.y + box.height * f);
    await maker.until(other, 'another line', 80).catch(() => {});
  }
  expect(await other()).toBe(true);

  await maker.choose('Machine', 'Small bench engraver');
  await maker.fill('Highest spindle speed', '8000');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/turns 8000 at most/);
  await maker.stage('Run');
  await maker.press('Undo');
  await maker.press('Open the dialect');
  await maker.sees('move by move what was planned');
  await maker.fill('Decimals', '2');
  await maker.sees('decimals are too few');
  await maker.fill('Decimals', '3');
  await maker.sees('move by move what was planned');
  await maker.press('Use it as my own');
  await maker.sees(/, mine/);
  await maker.proven();
  const reckoned = /\d+ (min|s) becomes/;
  await maker.fill('Minutes it really took', '60');
  await maker.sees(reckoned);
  await maker.press('Take this');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/Machining time: (1 h|60 min)/);
});

test('a bad order is mended with one press', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.proven();
  for (let i = 0; i < 4; i++) {
    await maker.press('More for Cut free');
    await maker.press('Move up', 'menuitem');
    await maker.find('button', new RegExp(`^Cut ${4 - i}: Cut free`));
  }
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/"Cut free" cuts the part free before/);
  await maker.press('Move it to the end');
  await maker.sees('all checks pass', 60000);
});
