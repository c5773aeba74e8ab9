import { readFileSync } from 'node:fs';
import { unzipSync, strFromU8 } from 'fflate';
import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';
import type { Maker } from './maker';

const device = eachOnAFreshDevice();

/** Waits until a set-up stands first in the bar. */
const comesFirst = (maker: Maker, name: string) =>
  maker.page.waitForFunction(
    (n) => document.querySelector('[role=tablist][aria-label="Set-ups"] [role=tab]')?.textContent?.startsWith(n),
    {},
    name,
  );

/** Draws an ellipse in the middle and clears it to a depth. */
async function pocket(maker: Maker, depth: string): Promise<void> {
  await maker.stage('Artwork');
  await maker.press('Ellipse');
  await maker.sees('1 item');
  await maker.press('Cut this as');
  await maker.press('Area clearance', 'menuitem');
  await maker.stage('Cuts');
  await maker.fill('Depth', depth);
}

test('a plate cut from both faces: the other face is added, cuts that meet are found, and undo takes it all back', async () => {
  const { maker } = device;
  await emptyBoard(maker, ['120', '90']);
  await pocket(maker, '10');
  await maker.press('Add a set-up');
  await maker.press(/^The other face, turned left to right/, 'menuitem');
  await maker.find('tab', /^Set-up 1, other face, Empty/);
  await maker.stage('Blank');
  await maker.sees('The face that lay down in "Set-up 1" is up.');
  await pocket(maker, '10');
  await maker.stage('Proof');
  await maker.sees(/What is cut here meets what .Set-up 1. has cut from the other face/);
  await maker.find('tab', /^Set-up 1, other face, \d+ finding/);
  await maker.stage('Cuts');
  await maker.fill('Depth', '5');
  await maker.stage('Proof');
  await maker.sees('all checks pass');
  await maker.press('More for set-up Set-up 1, other face');
  await maker.press('Rename', 'menuitem');
  await maker.fill('Name of the set-up', 'Back');
  await maker.find('tab', /^Back, /);

  // The first set-up goes deeper: the second is worked out anew, though it is not looked at.
  await maker.press(/^Set-up 1, /, 'tab');
  await maker.stage('Cuts');
  await maker.fill('Depth', '14');
  await maker.find('tab', /^Back, \d+ finding/);
  await maker.press('Undo');
  await maker.find('tab', /^Back, \d+ min|^Back, [\d.]+ (min|s|h)/);

  await maker.stage('Run');
  await maker.sees('All set-ups');
  await maker.press(/^Save the programs of all set-ups/);
  const files = unzipSync(readFileSync(await device.downloaded(/^new-job-programs\.zip$/)));
  expect(Object.keys(files).sort()).toEqual(['1-set-up-1/new-job-1-set-up-1.nc', '2-back/new-job-2-back.nc']);
  for (const text of Object.values(files)) expect(strFromU8(text)).toMatch(/M30/);

  await maker.press(/^Back, /, 'tab');
  await maker.press('More for set-up Back');
  await maker.press('Copy', 'menuitem');
  await maker.find('tab', /^Back copy, /);
  await maker.press('More for set-up Back copy');
  await maker.press('Delete', 'menuitem');
  await maker.page.waitForFunction(
    () => document.querySelectorAll('[role=tablist][aria-label="Set-ups"] [role=tab]').length === 2,
  );
  // A step that was made elsewhere is undone where it is seen.
  await maker.press(/^Set-up 1, /, 'tab');
  for (let i = 0; i < 3; i++) await maker.press('Undo');
  await maker.find('tab', /^Set-up 1, other face, /);
  await maker.saved();
  await maker.page.reload();
  await maker.find('tab', /^Set-up 1, other face, /);

  // On narrow screens nothing lies over the tabs.
  for (const width of [1024, 820]) {
    await maker.page.setViewport({ width, height: 1000 });
    await maker.press(/^Set-up 1, (?!other)/, 'tab');
    await maker.press(/^Set-up 1, other face, /, 'tab');
    await maker.press('Add a set-up');
    await maker.find('menuitem', /^The same face again/);
    await maker.page.keyboard.press('Escape');
  }
});

test('(long) artwork of the front is linked to the back: it follows, is cut there, is made its own, and is missed when it goes', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Artwork');
  await maker.press('Ellipse');
  await maker.sees('1 item');
  await maker.fill('Centre X', '20');
  await maker.press('Add a set-up');
  await maker.press(/^The other face, turned left to right/, 'menuitem');
  await maker.find('tab', /^Set-up 1, other face, Empty/);
  await maker.stage('Artwork');
  await maker.press('Link from another set-up');
  await maker.press('Circle', 'checkbox');
  await maker.press('Link');
  await maker.sees('Follows \u201cCircle\u201d of \u201cSet-up 1\u201d');
  // A new blank is 300 mm wide.
  await maker.holds('Centre X', '280');

  // It is moved a little here, then its original is moved: both count.
  await maker.fill('Centre Y', '60');
  await maker.press('Cut this as');
  await maker.press('Area clearance', 'menuitem');
  await maker.press('Show the original');
  // One looks before one types: the sheet is that of the original.
  await maker.page.waitForFunction(() => !document.body.innerText.includes('Follows'));
  await maker.holds('Centre X', '20');
  await maker.fill('Centre X', '30');
  await maker.press(/^Set-up 1, other face, /, 'tab');
  await maker.stage('Artwork');
  await maker.press(/^Circle/, 'treeitem');
  await maker.holds('Centre X', '270');
  await maker.holds('Centre Y', '60');

  // What it follows goes: that is said in both set-ups, and taken back.
  await maker.press(/^Set-up 1, (?!other)/, 'tab');
  await maker.stage('Artwork');
  await maker.press(/^Circle/, 'treeitem');
  await maker.holds('Centre X', '30');
  await maker.press('Delete the picked items');
  await maker.sees('"Circle" in "Set-up 1, other face" followed what has gone, and draws nothing now.');
  await maker.find('tab', /^Set-up 1, other face, \d+ finding/);
  await maker.press('Undo');
  await maker.find('tab', /^Set-up 1, other face, [\d.]+ (min|s|h)/);

  await maker.press(/^Set-up 1, other face, /, 'tab');
  await maker.press(/^Circle/, 'treeitem');
  await maker.press('Make it its own');
  await maker.press(/^Set-up 1, (?!other)/, 'tab');
  await maker.press(/^Circle/, 'treeitem');
  await maker.holds('Centre X', '30');
  await maker.fill('Centre X', '40');
  await maker.press('Link into another set-up');
  await maker.sees('"Circle" is linked into "Set-up 1, other face".');
  await maker.press('Show it there');
  await maker.sees('Follows \u201cCircle\u201d of \u201cSet-up 1\u201d');
  await maker.holds('Centre X', '260');
  await maker.press(/^Circle\s*ellipse/, 'treeitem');
  await maker.holds('Centre X', '270');

  // By hand along the bar: where it cannot be run it stays, and says why; what stands alone goes anywhere.
  await maker.drag('tab', /^Set-up 1, other face, /, -220, 0);
  await maker.sees(
    '"Set-up 1, other face" cannot be run there. "Set-up 1, other face" starts from what "Set-up 1" leaves.',
  );
  await maker.press('Add a set-up');
  await maker.press(/^Another blank/, 'menuitem');
  await maker.find('tab', /^Set-up 3, Empty/);
  // The menu lies over the bar until it is gone.
  await maker.page.waitForFunction(() => !document.querySelector('[role=menu]'));
  await maker.drag('tab', /^Set-up 3, /, -420, 0);
  await comesFirst(maker, 'Set-up 3');
  await maker.press('Undo');
  await comesFirst(maker, 'Set-up 1');
});
