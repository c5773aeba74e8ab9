import { eachOnAFreshDevice } from './device';
import { drop, emptyBoard, planOf, still } from './board';
import type { Maker } from './maker';

const device = eachOnAFreshDevice();

/** How many pixels of the plan have about the colour of a cut's number on its card. */
async function inkOf(maker: Maker, cut: RegExp): Promise<number> {
  const card = await maker.find('button', cut);
  return card.evaluate((e) => {
    const [r, g, b] = getComputedStyle(e.firstElementChild!).backgroundColor.match(/\d+/g)!.map(Number);
    const canvas = document.querySelector<HTMLCanvasElement>('[aria-label="Plan of the blank"] canvas')!;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let n = 0;
    for (let i = 0; i < data.length; i += 4)
      if (Math.abs(data[i] - r) + Math.abs(data[i + 1] - g) + Math.abs(data[i + 2] - b) < 60) n++;
    return n;
  });
}

const rows = (maker: Maker) =>
  maker.page.$$eval('[aria-label=Items] [role=treeitem]', (l) =>
    l.map((e) => (e as HTMLElement).innerText.split('\n')[0].trim()),
  );

/** Waits until the list shows these rows, and no others. */
const lists = (maker: Maker, names: readonly string[]) =>
  maker.until(async () => (await rows(maker)).join() === names.join(), `the list shows ${names.join(', ')}`);

test('(long) rows of the list are dragged into a group, out of it onto another, and back by undo', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  for (const kind of ['Rectangle', 'Ellipse', 'Star']) await maker.press(kind);
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.page.keyboard.down('Shift');
  await maker.press(/^Circle/, 'treeitem');
  await maker.page.keyboard.up('Shift');
  // A letter typed in the list changes nothing; the button does.
  await maker.page.keyboard.press('g');
  await lists(maker, ['Rectangle', 'Circle', 'Star']);
  await maker.press('Group');
  await maker.press('Open the group Group');
  await lists(maker, ['Group', 'Rectangle', 'Circle', 'Star']);
  const middle = async (name: RegExp) => {
    const b = (await (await maker.find('treeitem', name)).boundingBox())!;
    return [b.x + 60, b.y + b.height / 2] as const;
  };
  const carry = async (from: RegExp, to: RegExp) => {
    const [a, b] = [await middle(from), await middle(to)];
    await maker.page.mouse.move(...a);
    await maker.page.mouse.down();
    await maker.page.mouse.move(a[0], a[1] + 5, { steps: 2 });
    await maker.page.mouse.move(...b, { steps: 6 });
    await maker.page.mouse.up();
  };
  await carry(/^Star/, /^Group/);
  await maker.sees(/Group\s*3/);
  await carry(/^Star/, /^Rectangle/);
  await maker.page.waitForFunction(
    () =>
      [...document.querySelectorAll('[aria-label=Items] [role=treeitem]')]
        .map((e) => e.textContent)
        .join()
        .search(/Rectangle.*Star.*Circle/) >= 0,
  );
  await maker.press('Undo');
  await maker.press('Undo');
  await maker.sees(/Group\s*2/);
  await lists(maker, ['Group', 'Rectangle', 'Circle', 'Star']);
});

test('(long) paths of one cut are hidden and shown; tools go by slots with a check; programs change places', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.proven();
  await maker.press(/^Cut 1: Dial/);
  const shown = await maker.rests(() => inkOf(maker, /^Cut 5/));
  expect(shown).toBeGreaterThan(200);
  await maker.press('More for Cut free');
  await maker.press('Hide its paths', 'menuitem');
  await maker.page.waitForFunction(() =>
    [...document.querySelectorAll('title')].some((t) => t.textContent === 'Its paths are hidden'),
  );
  const ink = () => inkOf(maker, /^Cut 5/);
  await maker.until(async () => (await ink()) < shown / 10, 'the paths of a cut are hidden');
  await maker.press('Undo');
  await maker.until(async () => (await ink()) > shown / 2, 'its paths are shown again');

  await maker.stage('Run');
  await maker.choose('Tool numbers', 'Slots of the machine');
  await maker.proven();
  await maker.fill('Slot of Drill 3 mm', '3');
  await maker.sees(/"End mill 2 mm" has slot 3, and so has "Drill 3 mm"/);
  await maker.fill('Slot of Drill 3 mm', '7');
  await maker.proven();
  const text = async () =>
    (
      await maker.page.$$eval('[aria-label="Program text"] [role=option]', (l) => l.map((e) => e.textContent ?? ''))
    ).join('\n');
  expect(await text()).toMatch(/T32 M6/);
  await maker.choose('Files', 'One per cut');
  await maker.proven();
  await maker.press(/^Run sluice-gear-plate-04-screw-holes\.nc earlier/);
  await maker.find('button', 'Save sluice-gear-plate-03-screw-holes.nc');
  await maker.press('Undo');
  await maker.find('button', 'Save sluice-gear-plate-04-screw-holes.nc');
});

test('(long) holes wait at their floor and are drilled by canned cycles where the dialect has them', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.proven();
  await maker.press(/^Cut 4: Screw holes/);
  await maker.fill('Peck depth', '', false);
  await maker.page.keyboard.press('Backspace');
  await maker.page.keyboard.press('Enter');
  await maker.fill('Dwell at the floor', '0.5');
  await maker.proven();
  await maker.stage('Run');
  await maker.choose('Files', 'One per cut');
  await maker.choose('Dialect', 'Metric, arcs, drilling by canned cycles');
  await maker.proven();
  await maker.press('sluice-gear-plate-04-screw-holes.nc');
  await maker.page.waitForFunction(() =>
    /G99 G82 X.* P0\.5/.test(document.querySelector('[aria-label="Program text"]')?.textContent ?? ''),
  );
});

test('(long) groups of the library are renamed, put into one another, taken out, and dragged', async () => {
  const { maker } = device;
  await maker.press('Tool library');
  const heads = () =>
    maker.page.$$eval('[aria-label^="Drag the group "]', (l) => l.map((e) => e.getAttribute('aria-label')!.slice(15)));
  await maker.find('button', 'Drag the group Drills');
  const before = await heads();
  await maker.press('More for the group Engraving cones');
  await maker.press('Put into V-bits', 'menuitem');
  await maker.find('button', 'Drag the group V-bits / Engraving cones');
  await maker.press('More for the group V-bits / Engraving cones');
  await maker.press('Take out of V-bits', 'menuitem');
  await maker.find('button', 'Drag the group Engraving cones');
  await maker.press('More for the group Ball noses');
  await maker.press('Rename', 'menuitem');
  await maker.fill('Name of the group', 'Balls');
  await maker.find('button', 'Drag the group Balls');
  for (let i = 0; i < 3; i++) await maker.press('Undo in the library');
  await maker.page.waitForFunction(() => !!document.querySelector('[aria-label="Drag the group Ball noses"]'));
  expect(await heads()).toEqual(before);
  // By keyboard: taken up, moved one place down, put down.
  await maker.press('Close V-bits');
  await maker.press('Close Ball noses');
  const handle = await maker.find('button', 'Drag the group Ball noses');
  await handle.focus();
  // What is said to those who cannot see it.
  const said = () => maker.page.$eval('[id^=DndLiveRegion]', (e) => e.textContent ?? '');
  for (const key of ['Space', 'ArrowDown'] as const) {
    const before = await said();
    await maker.page.keyboard.press(key);
    await maker.until(async () => (await said()) !== before, `what ${key} does is said`);
  }
  await maker.page.keyboard.press('Space');
  await maker.page.waitForFunction(
    () =>
      [...document.querySelectorAll('[aria-label^="Drag the group "]')]
        .map((e) => e.getAttribute('aria-label'))
        .join()
        .search(/V-bits.*Ball noses/) >= 0,
  );
});

test('(long) a cutter that the library has otherwise is offered to the cut that uses it, which keeps its own until it is taken', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  await maker.press('Tool library');
  await maker.fill('Search the cutters', 'v-bit', false);
  await maker.press(/^V-bit 60\u00b0 12 mm/);
  await maker.fill('Plunge feed', '333');
  await maker.press('Close the tool library');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.press(/^Cut 2: Ornament/);
  await maker.sees('The library has this cutter otherwise (plunge)');
  expect(await maker.valueOf('Plunge feed')).not.toBe('333');
  await maker.press('Take it');
  await maker.holds('Plunge feed', '333');
  await maker.proven();
});

test('(long) a diamond in a sprung holder is pressed by a load, and says what groove to expect', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.proven();
  await maker.press(/^Cut 3: Serial number/);
  await maker.choose('Pressed in by', 'Load of the spring');
  await maker.sees(/is held firmly/);
  await maker.press('Tool library');
  await maker.fill('Search the cutters', 'diamond 120', false);
  await maker.press(/^Drag diamond 120/);
  await maker.fill('Spring of the holder', '8');
  await maker.press('Use it so in this job');
  await maker.press('Close the tool library');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.fill('Load', '4');
  await maker.proven();
  await maker.sees(/Makes grooves about 0\.0\d+ mm deep and 0\.\d+ mm wide/);
});

test('(long) ends of lines are joined within a distance, a traced outline is simplified within another, copies go to another layer', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  // A wave of many short sides in two halves whose ends lie 0.4 mm apart.
  const wave = (from: number, to: number) =>
    Array.from({ length: 81 }, (_, i) => from + ((to - from) * i) / 80)
      .map((x) => `${x.toFixed(3)},${(60 + 15 * Math.sin(x / 12)).toFixed(4)}`)
      .join(' ');
  await drop(
    maker.page,
    'wave.svg',
    'image/svg+xml',
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120"><polyline fill="none" stroke="black" points="${wave(20, 90)}"/><polyline fill="none" stroke="black" points="${wave(90.4, 170)}"/></svg>`,
  );
  await maker.sees('2 items');
  await maker.chord('Control', 'KeyA');
  await maker.sees('2 items picked');
  await maker.press('Join ends');
  await maker.fill('Ends nearer than', '0.2');
  await maker.press('Join');
  await maker.sees('No two ends lie within 0.2 mm');
  await maker.fill('Ends nearer than', '0.5');
  await maker.press('Join');
  await maker.sees(/1 item\b/);
  await maker.page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await maker.press('Change nodes');
  await maker.fill('How far a simpler outline may lie off', '0.02', false);
  await maker.press('Simplify');
  await maker.sees(/16\d nodes became \d{1,2}, within 0\.02 mm/);
  await maker.press('Pick and move');
  await maker.press('Layer');
  await maker.press('Copy what is picked to the layer Layer 3');
  await maker.sees('2 items');
  await maker.press('Undo');
  await maker.sees(/1 item\b/);
});

test('(long) holding tabs are put on the table by a double press and taken away by Delete; an arc takes a typed radius', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  await maker.press(/^Cut 4: Cut free/);
  await maker.find('button', 'Holding tab 6');
  const count = () => maker.page.$$eval('[aria-label^="Holding tab "]', (l) => l.length);
  expect(await count()).toBe(6);
  const [a, b] = await Promise.all(
    ['Holding tab 1', 'Holding tab 2'].map(async (n) => (await (await maker.find('button', n)).boundingBox())!),
  );
  // Between the first two, beside the outline.
  await maker.page.mouse.click(
    (a.x + a.width / 2 + b.x + b.width / 2) / 2,
    (a.y + a.height / 2 + b.y + b.height / 2) / 2 + 1,
    { count: 2 },
  );
  await maker.find('button', 'Holding tab 7');
  await maker.sees('7 tabs stand where you put them');
  const last = (await (await maker.find('button', 'Holding tab 7')).boundingBox())!;
  await maker.page.mouse.click(last.x + last.width / 2, last.y + last.height / 2);
  await maker.page.keyboard.press('Delete');
  await maker.sees('6 tabs stand where you put them');
  await maker.proven();
  expect(await count()).toBe(6);
  await maker.press('Spread them evenly');
  await maker.proven();

  await maker.stage('Artwork');
  await maker.press('Plan');
  await still(maker);
  const at = await planOf(maker);
  await maker.press('Draw an arc through three points');
  await maker.page.mouse.click(...at(0.4, 0.5));
  await maker.fill('Length of the next side', '60');
  await maker.fill('Radius of the arc', '20');
  await maker.sees('further apart than a circle of this radius');
  await maker.fill('Radius of the arc', '50');
  await maker.sees(/Length of outline\s*64\.35 mm/);
});
