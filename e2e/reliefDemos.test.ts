import { emptyBoard, planOf, shapedHeight } from './board';
import { eachOnAFreshDevice } from './device';
import type { Maker } from './maker';

const device = eachOnAFreshDevice();

async function blank(maker: Maker, width: string, height: string, thickness: string, material: string): Promise<void> {
  await emptyBoard(maker);
  await maker.stage('Blank');
  await maker.fill('Width (X)', width);
  await maker.fill('Height (Y)', height);
  await maker.fill('Thickness (Z)', thickness);
  await maker.choose('Material', material);
  await maker.stage('Artwork');
}
async function addCut(maker: Maker, kind: RegExp): Promise<void> {
  await maker.press('Add a cut');
  await maker.press(kind, 'menuitem');
}
/** Waits until all is proven and checked, and tells which findings there are. */
async function proven(maker: Maker): Promise<string> {
  await maker.stage('Proof');
  await maker.proven();
  await maker.until(async () => !/being checked/.test(await maker.text()), 'it is checked');
  return maker.text();
}

test('(long) a medallion is made: a heron in a dish, roughed, finished in a spiral, cut free with tabs', async () => {
  const { maker } = device;
  await blank(maker, '70', '70', '6', 'Brass');
  await maker.press('Ellipse');
  await maker.fill('Width', '60');
  await maker.fill('Height', '60');
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.choose('It counts', 'Inside outlines');
  await maker.fill('Height', '-1.6');
  await maker.press('Ornament');
  await maker.press('Heron');
  await maker.holds('Name', 'Heron');
  await maker.fill('Width (X)', '18');
  await maker.fill('Nodes lie apart', '0.1');
  expect(await shapedHeight(maker)).toBeGreaterThan(1);
  await maker.stage('Cuts');
  await addCut(maker, /^Relief roughing/);
  await maker.fill('Allowance left', '0.15');
  await addCut(maker, /^Relief finishing/);
  await maker.choose('Pattern', 'Spiral');
  await maker.fill('Step-over', '0.3');
  await maker.stage('Artwork');
  await maker.press(/^Circle/, 'treeitem');
  await maker.stage('Cuts');
  await addCut(maker, /^Profile/);
  await maker.choose('Side of the line', 'Outside');
  await maker.fill('Holding tabs', '3');
  await maker.choose('Tab shape', 'Triangular');
  expect(await proven(maker)).toMatch(/all checks pass/);
});

test('(long) a tone panel is made: a boat on the water in lines beside a drawn one, painted black', async () => {
  const { maker } = device;
  await blank(maker, '120', '80', '10', 'Maple');
  await maker.press('Rectangle');
  await maker.fill('Width', '100');
  await maker.fill('Height', '60');
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.fill('Height', '-2');
  await maker.fill('Tilt along Y', '1');
  await maker.press('Ornament');
  await maker.press('Sailing boat');
  await maker.holds('Name', 'Sailing boat');
  await maker.fill('Nodes lie apart', '0.2');
  await shapedHeight(maker);
  await maker.stage('Artwork');
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.stage('Cuts');
  await addCut(maker, /^Tone lines/);
  await maker.choose('Where', 'Inside outlines');
  // A line to run beside is asked for, and drawn.
  await maker.choose('Pattern', 'Beside a picked line');
  await maker.sees('none is picked. Pick an open line too');
  await maker.stage('Artwork');
  const at = await planOf(maker);
  await maker.press('Draw lines');
  await maker.page.mouse.click(...at(0.1, 0.55));
  await maker.page.mouse.click(...at(0.5, 0.48));
  await maker.page.mouse.click(...at(0.9, 0.55));
  await maker.page.keyboard.press('Enter');
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.page.keyboard.down('Shift');
  await maker.press(/^Line/, 'treeitem');
  await maker.page.keyboard.up('Shift');
  await maker.stage('Cuts');
  await maker.press('Use the 2 picked');
  const text = await proven(maker);
  expect(text).toMatch(/all checks pass/);
  // Paint is seen, and nothing is worked out again for it.
  await maker.stage('Blank');
  await maker.choose('Paint left in the cuts', 'Black');
  await maker.stage('Proof');
  await maker.sees('all checks pass');
});
