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
  // What the sheet says comes a moment after the stage: its own word is waited for.
  let text = '';
  const said = async () => {
    text = await maker.text();
    return !/being checked|Working/.test(text) && /all checks pass|\d findings?\b/.test(text);
  };
  await maker.until(said, 'it is checked');
  return text;
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

/** Picks things of the artwork by their names in the tree. */
async function pick(maker: Maker, ...names: RegExp[]): Promise<void> {
  await maker.stage('Artwork');
  await maker.press(names[0], 'treeitem');
  await maker.page.keyboard.down('Shift');
  for (const name of names.slice(1)) await maker.press(name, 'treeitem');
  await maker.page.keyboard.up('Shift');
}

test('(long) a mould is made: skimmed, floor and rim with leaning walls, lettering from the floor, a boat roughed and finished crossed', async () => {
  const { maker } = device;
  await blank(maker, '80', '60', '12', 'Aluminium');
  await maker.press('Ellipse');
  await maker.fill('Width', '44');
  await maker.fill('Height', '44');
  await maker.press('Ring');
  await maker.fill('Outer diameter', '40');
  await maker.fill('Width of the band', '4');
  await maker.press('Lettering');
  await maker.fill('Text', 'ONE CROSSING', false);
  await maker.fill('Cap height', '2.2');
  await maker.fill('Centre Y', '20');
  await maker.press('Mirror left to right');
  await maker.press('Motif');
  await (await maker.page.waitForSelector('[aria-haspopup=dialog]'))!.click();
  await maker.fill('Search the motifs', 'canal water', false);
  await maker.press('Narrow boat');
  await maker.fill('Width', '26');
  await maker.fill('Height', '12');
  await maker.press('Mirror left to right');
  // The boat is sunk into the floor.
  await maker.stage('Relief');
  await maker.press('From outlines');
  await maker.choose('Edge', 'Round-over');
  await maker.choose('Top', 'Fitted to a height');
  await maker.fill('Height', '1.2');
  await maker.choose('It', 'Sinks');
  await maker.press('Ground');
  await maker.fill('Height', '-3.3');
  await maker.fill('Nodes lie apart', '0.1');
  await shapedHeight(maker);
  await maker.stage('Cuts');
  await addCut(maker, /^Skim/);
  await maker.choose('Cutter', 'End mill 8 mm');
  await maker.fill('Depth', '0.3');
  const floor = async (name: RegExp, start: string, depth: string) => {
    await pick(maker, name);
    await maker.stage('Cuts');
    await addCut(maker, /^Area clearance/);
    await maker.fill('Start depth', start);
    await maker.fill('Depth', depth);
    await maker.choose('Tapered wall (draft)', 'Cone 10° half, 0.1 mm tip');
  };
  await floor(/^Circle|^Ellipse/, '0.3', '3.3');
  await floor(/^Ring/, '3.3', '4.1');
  await pick(maker, /^ONE CROSSING/);
  await maker.stage('Cuts');
  await addCut(maker, /^V-carve/);
  await maker.choose('V-bit or cone', 'V-bit 60° 6 mm');
  await maker.fill('Start depth', '3.3');
  await maker.fill('Depth limit', '0.5');
  await pick(maker, /^Narrow boat/);
  await maker.stage('Cuts');
  await addCut(maker, /^Relief roughing/);
  await maker.choose('Where', 'Inside outlines');
  // Without a start depth it would go through what the floor has taken already.
  await maker.fill('Start depth', '3.3');
  await maker.choose('Add to cutters', 'End mill 1.5 mm');
  await maker.press('Take out End mill 3 mm');
  await maker.fill('Allowance left', '0.1');
  await addCut(maker, /^Relief finishing/);
  await maker.choose('Where', 'Inside outlines');
  await maker.fill('Start depth', '3.3');
  await maker.choose('Pattern', 'Crossed rows');
  await maker.fill('Angle of the rows', '45');
  await maker.fill('Step-over', '0.2');
  expect(await proven(maker)).toMatch(/all checks pass/);
});

test('(long) a sign is made: rows in a sunk panel round raised lettering, lines that ride, cut out with a last pass', async () => {
  const { maker } = device;
  await blank(maker, '160', '100', '18', 'Oak');
  const rectangle = async (name: string, width: string, height: string, y = '') => {
    await maker.press('Rectangle');
    await maker.fill('Width', width);
    await maker.fill('Height', height);
    if (y) await maker.fill('Centre Y', y);
    await maker.fill('Name in the list', name);
  };
  await rectangle('Frame', '150', '90');
  await rectangle('Panel', '136', '76');
  await rectangle('Banner', '110', '20', '28');
  await maker.press('Lettering');
  await maker.fill('Text', 'REED', false);
  await maker.fill('Cap height', '18');
  await maker.fill('Centre Y', '58');
  await maker.press('Lettering');
  await maker.fill('Text', 'LOCK', false);
  await maker.fill('Cap height', '7');
  await maker.fill('Centre Y', '28');
  const form = async (names: RegExp[], tile: string) => {
    await pick(maker, ...names);
    await maker.stage('Relief');
    await maker.press(tile);
  };
  await form([/^Frame/], 'From outlines');
  await maker.choose('Top', 'Capped');
  await maker.fill('Height', '5');
  await form([/^Panel/], 'From outlines');
  await maker.choose('Edge', 'Flat');
  await maker.fill('Height', '4');
  await maker.choose('It', 'Sinks');
  await form([/^Banner/], 'From outlines');
  await maker.choose('Edge', 'Round-over');
  await maker.choose('Top', 'Fitted to a height');
  await maker.fill('Height', '3');
  await form([/^REED/], 'From outlines');
  await maker.choose('Top', 'Fitted to a height');
  await maker.fill('Height', '3.5');
  await maker.fill('Nodes lie apart', '0.2');
  await shapedHeight(maker);
  await maker.stage('Cuts');
  await addCut(maker, /^Relief roughing/);
  await maker.fill('Allowance left', '0.4');
  // Inside of the panel, and not on what lies in it; then on that and on the frame.
  const finish = async (names: RegExp[], step: string) => {
    await pick(maker, ...names);
    await maker.stage('Cuts');
    await addCut(maker, /^Relief finishing/);
    await maker.choose('Where', 'Inside outlines');
    await maker.fill('Step-over', step);
  };
  await finish([/^Panel/, /^REED/, /^Banner/], '0.8');
  await finish([/^Frame/, /^Panel/, /^REED/, /^Banner/], '0.4');
  await pick(maker, /^LOCK/);
  await maker.stage('Cuts');
  await addCut(maker, /^V-carve/);
  await maker.press('Follow the relief', 'checkbox');
  await pick(maker, /^Frame/);
  await maker.stage('Cuts');
  await addCut(maker, /^Profile/);
  await maker.choose('Side of the line', 'Outside');
  await maker.fill('Finishing allowance', '0.3');
  await maker.fill('Holding tabs', '4');
  expect(await proven(maker)).toMatch(/all checks pass/);
});
