import { readFileSync } from 'node:fs';
import type { KeyInput } from 'puppeteer-core';
import { readMoves } from '../src/core/testing/independent';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

/** A board of 300 x 150 with two lines of lettering, a rounded border inset from the edge and engraved, cut out with tabs. */
function expectBoard(program: string): void {
  expect(program).toMatch(/V-carve/);
  expect(program).toMatch(/Line engraving/);
  expect(program).toMatch(/Profile/);
  expect(program.trim().endsWith('M30')).toBe(true);
  const z = [...program.matchAll(/Z(-?[\d.]+)/g)].map((m) => Number(m[1]));
  const x = readMoves(program)
    .filter((m) => m.b[2] < -10)
    .map((m) => m.b[0]);
  // Through the blank of 18 mm, and over tabs that stand 3 mm high.
  expect(Math.min(...z)).toBeCloseTo(-18, 6);
  expect(z.filter((v) => Math.abs(v + 15) < 1e-6).length).toBeGreaterThanOrEqual(4);
  // Along 290 mm, half a cutter of 6 mm outside.
  expect(Math.max(...x) - Math.min(...x)).toBeCloseTo(296, 2);
  expect(program).toMatch(/\nG[23] /);
}

test('a lettered board from an empty page to its saved program in at most 20 actions', async () => {
  const { maker } = device;
  let actions = 0;
  const act = async (what: Promise<unknown>) => {
    actions++;
    await what;
  };
  await act(maker.press('New job'));
  await act(maker.fill('Width (X)', '300', false));
  await act(maker.fill('Height (Y)', '150', false));
  await act(maker.stage('Artwork'));
  await act(maker.press('Lettering'));
  await act(maker.fill('Text', 'FENWATER\nLOCK 7', false));
  await act(maker.press('Cut this as'));
  await act(maker.press(/^V-carve/, 'menuitem'));
  await act(maker.press('Rectangle'));
  await maker.focused('Width');
  await act(maker.fill('Corner radius', '8', false));
  await act(maker.press('Cut this as'));
  await act(maker.press(/^Line engraving/, 'menuitem'));
  await act(maker.press('Rectangle'));
  await maker.focused('Width');
  await act(maker.fill('Width', '290', false));
  await act(maker.fill('Height', '140', false));
  await act(maker.press('Cut this as'));
  await act(maker.press(/^Profile/, 'menuitem'));
  await act(maker.stage('Run'));
  await maker.proven();
  await act(maker.press('Save the program'));
  expect(actions).toBeLessThanOrEqual(20);
  expectBoard(readFileSync(await device.downloaded(/\.nc$/), 'utf8'));
  await maker.stage('Proof');
  await maker.sees('all checks pass');
});

test('(long) the same by keyboard alone, in at most 60 keys beside what is typed into fields', async () => {
  const { maker } = device;
  const { page } = maker;
  let keys = 0;
  const key = async (...chord: string[]) => {
    keys++;
    await maker.chord(...chord);
  };
  const kind = async (letter: KeyInput, name: RegExp) => {
    await key('Control', 'Enter');
    await maker.find('menuitem', /^V-carve/);
    await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'menuitem');
    if (letter !== 'Enter') await key(letter);
    await page.waitForFunction(
      (n: string) => new RegExp(n).test(document.activeElement?.textContent ?? ''),
      {},
      name.source,
    );
    await key('Enter');
    await page.waitForFunction(() => !document.querySelector('[role=menu]'));
  };
  keys += await maker.tabTo('New job');
  await key('Enter');
  await maker.focused('Width (X)');
  await page.keyboard.type('300');
  await key('Tab');
  await page.keyboard.type('150');
  await key('Alt', '2');
  await maker.focused('Artwork');
  keys += await maker.tabTo('Lettering');
  await key('Enter');
  await maker.focused('Text');
  await page.keyboard.type('FENWATER\nLOCK 7');
  await kind('Enter', /^V-carve/);
  await key('Alt', '2');
  keys += await maker.tabTo('Rectangle');
  await key('Enter');
  await maker.focused('Width');
  keys += await maker.tabTo('Corner radius');
  await page.keyboard.type('8');
  await kind('l', /^Line engraving/);
  await key('Alt', '2');
  keys += await maker.tabTo('Rectangle');
  await key('Enter');
  await maker.focused('Width');
  await page.keyboard.type('290');
  await key('Tab');
  await page.keyboard.type('140');
  await kind('p', /^Profile/);
  await key('Alt', '6');
  await maker.proven();
  await maker.focused('Run');
  keys += await maker.tabTo('Save the program');
  await key('Enter');
  console.log(`${keys} keys`);
  expect(keys).toBeLessThanOrEqual(60);
  expectBoard(readFileSync(await device.downloaded(/\.nc$/), 'utf8'));
});
