import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { packJob } from '@/core/job/archive';
import { demoJobs } from '@/core/job/demo';
import { drop, emptyBoard, planOf, still } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('(long) letters follow a drawn line, bend, and are spaced by hand', async () => {
  const { maker } = device;
  const { mouse, keyboard } = maker.page;
  await emptyBoard(maker);
  const at = await planOf(maker);
  await maker.press('Draw lines');
  await mouse.click(...at(0.3, 0.6));
  await mouse.click(...at(0.75, 0.45));
  await keyboard.press('Enter');
  await maker.sees('1 item');
  await maker.press('Pick and move');
  await maker.press('Lettering');
  await maker.fill('Text', 'Sluice Row', false);
  await maker.sees('2 items');
  await keyboard.down('Shift');
  await maker.press(/^Line/, 'treeitem');
  await keyboard.up('Shift');
  await maker.press('Set letters along the line');
  // Only lettering has spaces: the line is not picked any more, and the size that is shown is that of the letters alone.
  await maker.find('combobox', 'Natural');
  // Along a line that rises to the right, lettering is much higher than its capitals.
  await maker.page.waitForFunction(() => Number(/Height\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) > 30);
  const width = async () => /Width\s*([\d.]+) mm/.exec(await maker.text())![1];
  const otherThan = (was: string) =>
    maker.page.waitForFunction(
      (w) => ![w, undefined].includes(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]),
      {},
      was,
    );
  const natural = await width();
  await maker.choose('Spaces', 'Fitted');
  await otherThan(natural);
  const fitted = await width();
  await maker.choose('Letters', 'Bent');
  await maker.choose('Spaces', 'Natural');
  await otherThan(fitted);
  await maker.press('Space between S and l, letter 1');
  for (let i = 0; i < 5; i++) {
    await keyboard.press('ArrowRight');
    await maker.holds('After "S"', String(10 * (i + 1)));
  }
  await otherThan(natural);
  await maker.press(/^Undo/);
  await maker.page.waitForFunction(() => ![...document.querySelectorAll('input')].some((i) => i.value === '50'));
});

test('a font of the maker\u2019s own is kept with the job, a broken one is refused', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Lettering');
  const give = async (file: string) => {
    const [chooser] = await Promise.all([maker.page.waitForFileChooser(), maker.press('Add a font file')]);
    await chooser.accept([file]);
  };
  await give(path.resolve('package.json'));
  await maker.sees(/The font "package\.json" cannot be used/);
  await give(path.resolve('node_modules/@fontsource/allura/files/allura-latin-400-normal.woff2'));
  await maker.sees('is kept with this job');
  await maker.find('combobox', /Allura/);
  await maker.saved();
  await maker.page.reload();
  await maker.stage('Artwork');
  await maker.press(/^Text/, 'treeitem');
  await maker.find('combobox', /Allura/);
  await maker.sees(/Length of outline\s*[1-9]/);
  await maker.choose('Font', 'Single line');
  await maker.sees(/Length of outline\s*[1-9]/);
});

test('a job file may hold a font that is packed tightly', async () => {
  const { maker } = device;
  const bytes = new Uint8Array(readFileSync('node_modules/@fontsource/allura/files/allura-latin-400-normal.woff2'));
  const id = createHash('sha256').update(bytes).digest('hex');
  const job = { ...demoJobs['ferry-ring'](), name: 'Ring in script' };
  job.assets = [{ id, type: 'font', name: 'Packed script', file: `fonts/${id}.woff2` }];
  for (const i of job.setups[0].items) if (i.kind === 'lettering') i.values = { ...i.values, font: id };
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'mirvak-job-')), 'ring.mirvak');
  writeFileSync(file, packJob(job, { [job.assets[0].file]: bytes }));
  await device.give(file);
  await maker.press('Open Ring in script');
  await maker.stage('Artwork');
  await maker.press(/^FERRY LANDING/, 'treeitem');
  await maker.find('combobox', /Packed script/);
  await maker.sees(/Length of outline\s*[1-9]/);
  expect(await maker.text()).not.toMatch(/cannot be used|WOFF2/);
});

test('(long) motifs are found by other words, borders run along a rectangle and a ring', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Motif');
  await maker.sees('1 item');
  await (await maker.page.waitForSelector('[aria-haspopup=dialog]'))!.click();
  await maker.fill('Search the motifs', 'canal water', false);
  await maker.press('Narrow boat');
  await maker.find('treeitem', /^Narrow boat/);
  await maker.press('Border');
  await maker.sees('2 items');
  await maker.page.waitForFunction(
    () => Math.abs(Number(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) - 199) < 1.5,
  );
  await maker.choose('Runs along', 'A ring');
  await maker.page.waitForFunction(
    () => Math.abs(Number(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) - 126) < 6,
  );
});

test('(long) corners are rounded, lines trimmed, and the menu and the sheet of shortcuts are there', async () => {
  const { maker } = device;
  const { mouse, keyboard } = maker.page;
  await emptyBoard(maker);
  const at = await planOf(maker);
  await maker.press('Rectangle');
  await maker.sees('1 item');
  await maker.fill('Width', '80');
  await maker.fill('Height', '50');
  // The new rectangle has to stand on the table before it can be pressed, and the menu has to be open.
  await maker.sees(/Length of outline\s*[1-9]/);
  await still(maker);
  await mouse.click(...at(0.5, 0.5), { button: 'right' });
  await maker.press(/^Convert the picked items to outlines/, 'menuitem');
  await maker.find('treeitem', /^Rectangle\s*drawing/);
  const outline = async () => Number(/Length of outline\s*([\d.]+) mm/.exec(await maker.text())![1]);
  const square = await outline();
  await maker.press('Change nodes');
  await maker.press('Node 2 of outline 1');
  await maker.fill('Size of the corner', '8', false);
  await maker.press('Round corner');
  await maker.page.waitForFunction(
    (was) => Number(/Length of outline\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) < was - 1,
    {},
    square,
  );
  // Two sides of 8 mm give way to a quarter turn.
  expect((await outline()) - square).toBeCloseTo(4 * Math.PI - 16, 1);

  // A line across it: its end outside is trimmed where it meets the rectangle.
  await maker.press('Draw lines');
  await mouse.click(...at(0.2, 0.52));
  await mouse.click(...at(0.52, 0.52));
  await keyboard.press('Enter');
  await maker.sees('2 items');
  const line = await outline();
  await maker.press('Trim lines at crossings');
  await mouse.move(...at(0.24, 0.521), { steps: 3 });
  await mouse.click(...at(0.24, 0.521));
  await maker.page.waitForFunction(
    (was) => Number(/Length of outline\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) < was - 5,
    {},
    line,
  );

  await maker.press('Pick and move');
  await maker.page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await keyboard.type('?');
  await maker.sees('Zoom at the pointer');
  await keyboard.press('Escape');
});

test('(long) a drawing that does not say its unit is asked about, and centre lines of strokes are traced', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  const dxf = [
    '0',
    'SECTION',
    '2',
    'ENTITIES',
    '0',
    'LINE',
    '8',
    '0',
    '10',
    '0',
    '20',
    '0',
    '11',
    '4',
    '21',
    '0',
    '0',
    'ENDSEC',
    '0',
    'EOF',
    '',
  ].join('\n');
  await drop(maker.page, 'rail.dxf', '', dxf);
  await maker.sees('How large is it?');
  await maker.press(/^Inches/);
  await maker.sees('"rail.dxf": 1 thing');
  await maker.sees(/Width\s*101.6 mm/);
  await drop(maker.page, 'rail.dxf', '', dxf);
  await maker.press('Leave the file alone');
  await maker.sees('1 item');

  const png = await maker.page.evaluate(async () => {
    const c = new OffscreenCanvas(400, 200);
    const g = c.getContext('2d')!;
    g.fillStyle = '#fff';
    g.fillRect(0, 0, 400, 200);
    g.lineWidth = 9;
    g.lineCap = 'round';
    g.beginPath();
    g.moveTo(40, 100);
    g.bezierCurveTo(120, 20, 260, 190, 360, 90);
    g.stroke();
    return btoa(String.fromCharCode(...new Uint8Array(await (await c.convertToBlob()).arrayBuffer())));
  });
  await drop(maker.page, 'stroke.png', 'image/png', png, true);
  await maker.sees('Trace a picture');
  await maker.choose('Trace', 'Centre lines of strokes');
  await maker.sees(/1 line, \d+ nodes/);
  await maker.fill('Width', '160');
  await maker.press('Place on the blank');
  await maker.sees('3 items');
  // As wide as was asked for, from end to end.
  await maker.page.waitForFunction(
    () => Math.abs(Number(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) - 160) < 1.5,
  );
});

test('lettering is typed at once; letters typed elsewhere change nothing; arrows walk the list; names are changed in their rows', async () => {
  const { maker } = device;
  const { keyboard } = maker.page;
  await emptyBoard(maker);
  await maker.press('Lettering');
  // The caret stands in the text, with all of it selected.
  await maker.page.waitForFunction(() => {
    const e = document.activeElement as HTMLTextAreaElement;
    return e?.tagName === 'TEXTAREA' && e.value === 'Text' && e.selectionEnd - e.selectionStart === 4;
  });
  await keyboard.type('Lock 7');
  await maker.find('treeitem', /^Lock 7/);
  await maker.press('Rectangle');
  await maker.find('treeitem', /^Rectangle/);
  const items = () =>
    maker.page.$$eval('[aria-label=Items] [role=treeitem]', (l) =>
      l.map((e) => `${(e as HTMLElement).innerText.split('\n')[0]} ${e.getAttribute('aria-selected')}`),
    );
  await maker.press(/^Rectangle/, 'treeitem');
  await maker.saved();
  const before = await maker.text();
  await keyboard.type('gmtcdanx');
  expect(await items()).toEqual(['Lock 7 false', 'Rectangle true']);
  expect(await maker.text()).toBe(before);
  await keyboard.press('ArrowUp');
  await maker.page.waitForFunction(
    () =>
      document.querySelector('[aria-label=Items] [role=treeitem]')?.getAttribute('aria-selected') === 'true' &&
      document.activeElement?.textContent?.startsWith('Lock 7'),
  );
  const row = (await (await maker.find('treeitem', /^Lock 7/)).boundingBox())!;
  await maker.page.mouse.click(row.x + 40, row.y + row.height / 2, { count: 2 });
  await maker.page.waitForFunction(() => (document.activeElement as HTMLInputElement)?.value === 'Lock 7');
  await keyboard.type('Name of the lock');
  await keyboard.press('Enter');
  await maker.find('treeitem', /^Name of the lock/);
  // By key: Tab comes to one row only, End to the last, F2 to its name.
  await maker.press(/^Name of the lock/, 'treeitem');
  expect(
    await maker.page.$$eval('[aria-label=Items] [role=treeitem]', (l) => l.map((e) => (e as HTMLElement).tabIndex)),
  ).toEqual([0, -1]);
  await keyboard.press('End');
  await maker.page.waitForFunction(() => document.activeElement?.textContent?.startsWith('Rectangle'));
  await keyboard.press('F2');
  await maker.page.waitForFunction(() => (document.activeElement as HTMLInputElement)?.value === 'Rectangle');
  await keyboard.type('Plate');
  await keyboard.press('Enter');
  await maker.page.waitForFunction(
    () =>
      document.activeElement?.getAttribute('role') === 'treeitem' &&
      document.activeElement.textContent?.startsWith('Plate'),
  );
});
