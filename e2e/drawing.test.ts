import { drop, emptyBoard, planOf } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

const GATE = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120"><g id="plate"><rect x="10" y="10" width="180" height="100" rx="12"/></g>
<g id="gate"><rect x="40" y="30" width="8" height="60"/><rect x="51" y="30" width="8" height="60"/><circle cx="140" cy="60" r="25"/></g></svg>`;

test('a drawing falls on the table, keeps its size and layers, is gauged, combined, and all goes back and forward', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await drop(maker.page, 'gate.svg', 'image/svg+xml', GATE);
  await maker.sees('"gate.svg": 4 things');
  await maker.sees('4 items picked');
  await maker.sees(/Width\s*180 mm/);
  await maker.find('textbox', 'Name of the layer plate');
  await maker.press('Hide the layer plate');
  await maker.chord('Control', 'KeyA');
  await maker.sees('3 items picked');
  await maker.press('Measure widths');
  await maker.sees(/Narrowest stroke: 8 mm/);
  await maker.sees(/End mill 6 mm\s*enters/);
  await maker.press('Gaps', 'button');
  await maker.sees(/Narrowest gap: 3 mm/);
  await maker.press('Close');

  // Two bars and a disc that stand apart are one drawing when united, and three again when it is taken apart.
  await maker.press('Unite');
  await maker.sees('2 items');
  await maker.press('Split into shapes');
  await maker.sees('3 items picked');

  for (let i = 0; i < 4; i++) await maker.press('Undo');
  await maker.sees('Nothing drawn yet');
  for (let i = 0; i < 4; i++) await maker.press('Redo');
  await maker.sees('4 items');
});

test('lines and curves are drawn, their nodes changed, and lengths measured', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  const at = await planOf(maker);
  const { mouse, keyboard } = maker.page;
  await maker.press('Draw lines');
  for (const [x, y] of [
    [0.35, 0.45],
    [0.6, 0.45],
    [0.6, 0.6],
    [0.35, 0.45],
  ] as const)
    await mouse.click(...at(x, y));
  await maker.sees('1 item');
  await maker.press(/^Outline/, 'treeitem');
  // A side by numbers: 50 mm straight up.
  await mouse.click(...at(0.4, 0.75));
  await maker.fill('Length of the next side', '50', true);
  await maker.page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await keyboard.press('Enter');
  await maker.sees('2 items');
  await maker.sees(/Length of outline\s*50 mm/);

  await maker.press('Draw a curve');
  for (const [x0, y0, x1, y1] of [
    [0.3, 0.8, 0.35, 0.72],
    [0.6, 0.8, 0.65, 0.88],
  ] as const) {
    await mouse.move(...at(x0, y0));
    await mouse.down();
    await mouse.move(...at(x1, y1), { steps: 4 });
    await mouse.up();
  }
  await keyboard.press('Enter');
  await maker.sees('3 items');
  await maker.press('Change nodes');
  const before = /Length of outline\s*([\d.]+) mm/.exec(await maker.text())?.[1];
  await maker.drag('button', 'Node 2 of outline 1', 30, 20);
  await maker.page.waitForFunction(
    (was) => new RegExp('Length of outline\\s*([\\d.]+) mm').exec(document.body.innerText)?.[1] !== was,
    {},
    before,
  );
  await maker.press('Node 1 of outline 1');
  await maker.press('Close');
  await maker.sees(/Area/);

  await maker.press('Measure from point to point');
  await mouse.click(...at(0.35, 0.45));
  await mouse.move(...at(0.5, 0.46), { steps: 3 });
  await mouse.click(...at(0.6, 0.45));
  const said = await maker.page.$eval('[aria-label=Measured]', (e) => e.textContent ?? '');
  const [, length] = /^([\d.]+) mm/.exec(said)!;
  expect(Number(length)).toBeGreaterThan(10);
  expect(said).toMatch(/across -?[\d.]+ mm, up -?[\d.]+ mm-?[\d.]+\u00b0/);
});

test('(long) a picture is traced over itself and placed at its wanted size', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  const png = await maker.page.evaluate(async () => {
    const c = new OffscreenCanvas(400, 300);
    const g = c.getContext('2d')!;
    g.fillStyle = '#fff';
    g.fillRect(0, 0, 400, 300);
    g.fillStyle = '#102030';
    g.beginPath();
    g.arc(120, 150, 80, 0, 7);
    g.fill();
    g.fillRect(240, 70, 100, 160);
    const bytes = new Uint8Array(await (await c.convertToBlob()).arrayBuffer());
    return btoa(String.fromCharCode(...bytes));
  });
  await drop(maker.page, 'stones.png', 'image/png', png, true);
  await maker.sees('Trace a picture');
  await maker.sees(/2 outlines, \d+ nodes/);
  // The width is that of what is drawn, from the disc's left to the bar's right, not that of the paper round it.
  await maker.fill('Width', '150');
  await maker.sees(/of what is drawn; 80(\.\d)? mm high/);
  await maker.press('Place on the blank');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  // The picture lies under the outlines, on a locked layer of its own.
  await maker.sees('2 items');
  await maker.find('button', 'Unlock the layer Pictures');
  await maker.page.waitForFunction(
    () => Math.abs(Number(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) - 150) < 0.3,
  );
  // Cut, moved, and traced again with other values: the cut stays, and the outlines stay where they were moved to.
  await maker.press('Cut this as');
  await maker.press('Area clearance', 'menuitem');
  await maker.fill('Centre X', '140');
  await maker.press('Trace again');
  await maker.holds('Smallest spot', '6');
  await maker.sees(/2 outlines, \d+ nodes/);
  await maker.fill('Smallest spot', '17000');
  await maker.sees(/1 outline, \d+ nodes/);
  await maker.press('Take these outlines');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.sees('1 drawing has new outlines.');
  // The disc alone is left: 80 mm wide, its middle 35 mm left of that of the pair.
  await maker.page.waitForFunction(
    () =>
      Math.abs(
        Number(
          [...document.querySelectorAll('label')]
            .find((l) => l.textContent === 'Centre X')
            ?.parentElement?.querySelector('input')?.value,
        ) - 105,
      ) < 0.05,
  );
  await maker.page.waitForFunction(
    () => Math.abs(Number(/Width\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) - 80) < 0.3,
  );
  await maker.chord('Alt', 'Digit4');
  await maker.sees('Cuts 1 item');
  // The picture comes back with the job.
  await maker.page.reload();
  await maker.stage('Artwork');
  await maker.press(/^stones\b(?!\.png)/, 'treeitem');
  await maker.press('Trace again');
  await maker.holds('Smallest spot', '17000');
  await maker.press('Cancel');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  for (let i = 0; i < 4; i++) await maker.press(/^Undo/);
  await maker.sees('Nothing drawn yet');
});

test('(long) lettering goes round a circle, and things are aligned, mirrored and copied in a ring', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Lettering');
  await maker.fill('Text', 'FENWATER LOCK', false);
  await maker.choose('Baseline', 'Round a circle, standing outwards');
  await maker.fill('Radius of the baseline', '60');
  await maker.page.waitForFunction(() => Number(/Height\s*([\d.]+) mm/.exec(document.body.innerText)?.[1]) > 30);
  await maker.press('Star');
  await maker.press('Align top');
  await maker.holds('Centre Y', '170');
  await maker.press('Copies in a ring');
  await maker.fill('How many in all', '6');
  await maker.press('Make 5 copies');
  await maker.sees('7 items');
  await maker.press('Mirror left to right');
  await maker.chord('Control', 'KeyA');
  await maker.sees('7 items picked');
  await maker.press('Group');
  await maker.find('button', /^Open the group Group/);
  await maker.press('Ungroup');
  await maker.chord('Control', 'KeyC');
  await maker.chord('Control', 'KeyV');
  await maker.sees('14 items');
});

test('files that cannot be read are refused by name and nothing is lost', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Ellipse');
  await maker.sees('1 item');
  for (const [name, content, why] of [
    ['broken.svg', '<svg><path d="M0 0"', /broken\.svg.*not read/],
    ['bomb.svg', '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg>&a;</svg>', /bomb\.svg.*entities/],
    ['loop.svg', '<svg><g id="a"><use href="#a"/></g></svg>', /loop\.svg.*leads back to itself/],
    ['words.dxf', 'nothing of the kind', /words\.dxf/],
  ] as const) {
    await drop(maker.page, name, '', content);
    await maker.sees(why);
  }
  await maker.sees('1 item');
});
