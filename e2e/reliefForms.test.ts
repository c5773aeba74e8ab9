import { emptyBoard, heights, planOf } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

/** Whether heights are those that are meant, within what nodes beside the middle of a stroke leave. */
const near = (found: readonly number[], meant: readonly number[]) =>
  found.length === meant.length && meant.every((v, i) => Math.abs(v - found[i]) < 0.08);

test('(long) lettering is raised from outlines, follows its text, lies on a ground inside a panel, and says what does not fit', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.fill('Width', '200');
  await maker.fill('Height', '100');
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.choose('It counts', 'Inside outlines');
  await maker.sees('Inside 1 item');
  await maker.find('button', 'Relief, ready');
  await maker.stage('Artwork');
  await maker.press('Lettering');
  await maker.fill('Text', 'FEN', false);
  await maker.stage('Relief');
  await maker.press('From outlines');
  await maker.sees('Made of 1 item');
  await maker.choose('Top', 'Fitted to a height');
  await maker.fill('Height', '2.5');
  await maker.shows('Relief height', (v) => Math.abs(v - 2.5) < 0.2);
  const higher = await maker.page.$eval('svg[aria-label^="Relief from"]', (e) => e.getAttribute('aria-label'));
  // What stands above the face is said, with a way on.
  await maker.fill('Begins at', '20');
  await maker.sees('mm high; the blank is 18 mm thick');
  await maker.fill('Begins at', '10');
  await maker.sees('above the top face');
  await maker.press('Bring its top down to the face');
  await maker.shows('Gap above', (v) => v === 0);
  expect(higher).toMatch(/Relief from -/);
  // Another text, another relief: the sheet shows its heights without a press.
  await maker.stage('Artwork');
  await maker.press(/^FEN/, 'treeitem');
  await maker.fill('Text', '.', false);
  await maker.stage('Relief');
  await maker.find('button', 'Relief, ready');
  // A form that is left out counts for nothing.
  await maker.press('Leave out From outlines');
  await maker.shows('Relief height', (v) => v < 0.1);
});

test('(long) a plaque of a frame, a sunk panel, a star that is domed in three ways, and lettering sunk into it', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  let forms = 0;
  const raise = async (edge: string) => {
    await maker.stage('Relief');
    const name = forms++ ? `From outlines ${forms}` : 'From outlines';
    await maker.press('From outlines');
    await maker.find('button', `Leave out ${name}`);
    await maker.holds('Name', name);
    await maker.choose('Edge', edge);
  };
  await maker.press('Rectangle');
  await maker.fill('Width', '260');
  await maker.fill('Height', '160');
  await raise('Flat');
  await maker.fill('Height', '4');
  await maker.shows('Relief height', (v) => v === 0);
  // The panel: sunk as deep as it is flat.
  await maker.stage('Artwork');
  await maker.press('Rectangle');
  await maker.fill('Width', '220');
  await maker.fill('Height', '120');
  await raise('Flat');
  await maker.fill('Height', '3');
  await maker.choose('It', 'Sinks');
  await maker.shows('Relief height', (v) => v === 3);
  await maker.stage('Artwork');
  await maker.press('Star');
  await raise('Bevel');
  await maker.fill('Angle', '10');
  await maker.find('button', 'Relief, ready');
  const [low, asItComes] = await heights(maker);
  // Capped, it is as high as it says; fitted, too, however steep it is.
  await maker.choose('Top', 'Capped');
  await maker.fill('Height', '1.5');
  await maker.until(async () => (await heights(maker))[1] === low + 3, 'the frame is highest now');
  await maker.choose('Top', 'Fitted to a height');
  await maker.fill('Height', '3.5');
  await maker.until(async () => Math.abs((await heights(maker))[1] - (low + 3.5)) < 0.1, 'the star is fitted');
  expect(asItComes).toBeGreaterThan(low);
  // Lettering that is sunk into all of it lies deeper by its height.
  await maker.stage('Artwork');
  await maker.press('Lettering');
  await maker.fill('Text', 'SLUICE', false);
  await raise('Flat');
  await maker.fill('Height', '1');
  await maker.choose('It', 'Sinks');
  await maker.until(async () => (await heights(maker))[0] === low - 1, 'the lettering is sunk');
  // Its floor, the panel and the frame are level: found, and outlined.
  await maker.find('button', 'Relief, ready');
  await maker.choose('Outline', 'Flat places');
  await maker.press('Find them');
  await maker.sees(/deep, [\d.]+ cm/);
  await maker.press('Make outlines of them');
  await maker.sees(/are picked, on the layer "Level lines"/);
});

test('(long) an ornament is found by another word, dragged, turned and made larger on the table, and all of it goes back', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Relief');
  await maker.press('Ornament');
  await maker.sees('Library of reliefs');
  await maker.press('Heron');
  await maker.holds('Name', 'Heron');
  await maker.shows('Gap above', (v) => v >= 0 && v < 0.01);
  await maker.press('Piece');
  await maker.fill('Search the ornaments', 'pond', false);
  await maker.until(
    async () => (await maker.page.$$('[role=dialog] button[aria-pressed]')).length === 1,
    'one is found by that word',
  );
  await maker.press('Water lily');
  // It is called after what it is, and keeps to the room of the one before.
  await maker.holds('Name', 'Water lily');
  await maker.find('button', 'Relief, ready');
  const wide = Number(await maker.valueOf('Width (X)'));
  await maker.drag('button', 'Move Water lily', -60, 20);
  await maker.shows('Middle X', (v) => v < 149);
  await maker.shows('Middle Y', (v) => v < 99);
  await maker.drag('button', 'Scale by the upper right corner', 20, -20);
  await maker.shows('Width (X)', (v) => v > wide + 1);
  await maker.drag('button', 'Turn', 60, 60);
  await maker.shows('Turned by', (v) => v < -20);
  await maker.shows('Gap above', (v) => v >= 0 && v < 0.01);
  for (let k = 0; k < 3; k++) await maker.press('Undo');
  await maker.shows('Middle X', (v) => v === 150);
  await maker.shows('Width (X)', (v) => v === wide);
  await maker.shows('Turned by', (v) => v === 0);
});

test('(long) a relief is sculpted: strokes are seen at once, mirrored, taken back one by one, and still there after a reload', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.find('button', 'Relief, ready');
  await maker.press('Sculpting');
  await maker.sees('No strokes');
  const place = await planOf(maker);
  const draw = async (...places: (readonly [number, number])[]) => {
    // A list that is going out would take the press.
    await maker.page.waitForFunction(() => !document.querySelector('.MuiPopover-root'));
    const [first, ...more] = places.map(([x, y]) => place(x, y));
    await maker.page.mouse.move(...first);
    await maker.page.mouse.down();
    for (const p of more) await maker.page.mouse.move(...p, { steps: 8 });
    await maker.page.mouse.up();
  };
  await maker.fill('Raises by', '2');
  await draw([0.3, 0.45], [0.42, 0.45]);
  await maker.sees('1 stroke');
  await maker.until(async () => near(await heights(maker), [-5, -3]), 'it is raised by 2 mm along its middle');
  await maker.choose('Brush', 'Lower');
  await maker.choose('Mirrored', 'Left and right');
  await maker.fill('Lowers by', '1');
  await draw([0.4, 0.6], [0.4, 0.7]);
  await maker.sees('2 strokes');
  await maker.until(async () => near(await heights(maker), [-6, -3]), 'both sides are lowered by 1 mm');
  // Half of all of it, and whole again.
  await maker.fill('Strength', '50');
  await maker.until(async () => near(await heights(maker), [-5.5, -4]), 'half of it is left');
  await maker.press('Undo');
  await maker.until(async () => near(await heights(maker), [-6, -3]), 'it counts wholly again');
  await maker.press('Undo');
  await maker.sees('1 stroke');
  await maker.press('Redo');
  await maker.sees('2 strokes');
  await maker.saved();
  await maker.page.reload();
  await maker.stage('Relief');
  await maker.until(async () => near(await heights(maker).catch(() => []), [-6, -3]), 'its strokes are there again');
});

test('(long) heights are pinned on the plan and become depths for outlines; walls with too little draft are told; the light is turned', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.fill('Tilt along X', '1.5');
  await maker.shows('Relief height', (v) => Math.abs(v - 300 * Math.tan((1.5 * Math.PI) / 180)) < 0.01);
  await maker.find('button', 'Relief, ready');
  const place = await planOf(maker);
  await maker.press('Pin heights on the plan');
  await maker.sees('Press the plan where you want to know the height.');
  await maker.page.mouse.click(...place(0.35, 0.5));
  await maker.sees(/A at X [\d.]+ mm, Y [\d.]+ mm: [\d.]+ mm below the face/);
  await maker.page.mouse.click(...place(0.6, 0.5));
  await maker.sees(/B lies [\d.]+ mm higher than A, [\d.]+ mm away: 1\.5\u00b0 on the way/);
  await maker.press('At the depths of the pins');
  expect(await maker.valueOf('Depths, mm')).toMatch(/^[\d.]+; [\d.]+$/);
  await maker.press('Tint walls with too little draft', 'checkbox');
  await maker.fill('Least draft', '88');
  await maker.sees('All of it has as much.');
  await maker.fill('Least draft', '89');
  await maker.sees('100.0 % of it has less.');
  await (await maker.find('slider', 'Light')).focus();
  await maker.page.keyboard.press('ArrowLeft');
  await maker.page.keyboard.press('ArrowDown');
  await maker.sees('from 140\u00b0, 42\u00b0 high');
  await maker.press('Take the pins off');
  await maker.sees('Press the plan where you want to know the height.');
  await maker.page.keyboard.press('Escape');
  await maker.until(
    async () => !(await maker.text()).includes('Press the plan where you want'),
    'presses on the plan are what they were',
  );
});

test('(long) forms are grouped, kept in the library, and dragged from there onto the table; what it was is seen beside it', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.fill('Height', '1');
  await maker.press('Ground');
  await maker.holds('Name', 'Ground 2');
  await maker.fill('Height', '2');
  await maker.choose('In group', 'A new one');
  await maker.find('button', 'Hide what is in Group');
  await maker.until(async () => near(await heights(maker), [-2, -2]), 'both of them count');
  // As one it is left out, and taken in again.
  await maker.press('Leave out Group');
  await maker.until(async () => near(await heights(maker), [-4, -4]), 'the group is left out');
  await maker.press('Take in Group');
  await maker.press('Hide what is in Group');
  await maker.until(
    async () => (await maker.page.$$('ol[aria-label=Forms] > li')).length === 2,
    'the group and the ground are listed',
  );
  await maker.press('Ornament');
  await maker.press('Rosette');
  await maker.holds('Name', 'Rosette');
  await maker.press('Keep it in the library');
  await maker.sees('"Rosette" is in the library of reliefs');
  // Dragged out of the library it comes to lie where it is dropped.
  await maker.press('Ornament');
  // The maker's own come first, as soon as they are read.
  await maker.find('button', 'Delete Rosette from the library');
  const tile = await maker.page.waitForSelector('[role=dialog] button[aria-label=Rosette]');
  const place = await planOf(maker);
  const to = place(0.3, 0.45);
  const box = (await tile!.boundingBox())!;
  await maker.page.mouse.move(box.x + 20, box.y + 20);
  await maker.page.mouse.down();
  await maker.page.mouse.move(box.x + 30, box.y + 30, { steps: 3 });
  await maker.page.mouse.move(...to, { steps: 5 });
  await maker.page.mouse.up();
  await maker.sees('as it was kept');
  await maker.shows('Middle X', (v) => v > 20 && v < 120);
  // What is deleted from the library can be put back.
  await maker.press('Ornament');
  await maker.press('Delete Rosette from the library');
  await maker.press('Put it back');
  await maker.press('Ornament');
  await maker.find('button', 'Delete Rosette from the library');
  await maker.page.keyboard.press('Escape');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.press('Limit');
  await maker.holds('Name', 'Limit');
  await maker.fill('Not above', '0.5');
  await maker.press('Beside what it was, on the left of a line', 'checkbox');
  const line = await maker.find('slider', 'Line between both');
  await line.evaluate((e) => (e as unknown as HTMLElement).focus());
  await maker.page.keyboard.press('ArrowRight');
  await maker.until(
    async () => (await line.evaluate((e) => e.getAttribute('aria-valuenow'))) === '51',
    'the line moves',
  );
});
