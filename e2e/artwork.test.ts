import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

/** Number in a field once it has come to rest. */
const shown = (label: string) => device.maker.restsAt(label);

test('artwork is picked by a box, scaled and turned by handles, and every change goes back one by one', async () => {
  const { maker } = device;
  await maker.press('New job');
  await maker.sees('Piece of material');
  await maker.stage('Artwork');
  await maker.press('Rectangle');
  await maker.sees('1 item');
  await maker.fill('Width', '80');
  await maker.fill('Height', '50');
  await maker.holds('Height', '50');
  const width = await shown('Width');
  const height = await shown('Height');
  const x = await shown('Centre X');

  // A corner keeps the proportions and the opposite corner; an edge changes one measure.
  await maker.drag('button', 'Scale by the upper right corner', 24, -24);
  await maker.page.waitForFunction(
    (w: number) => [...document.querySelectorAll('input')].some((i) => Number(i.value) > w * 1.02),
    {},
    width,
  );
  const wider = await shown('Width');
  expect((await shown('Height')) / wider).toBeCloseTo(height / width, 3);
  expect((await shown('Centre X')) - wider / 2).toBeCloseTo(x - width / 2, 2);
  await maker.drag('button', 'Scale by the right edge', 20, 0);
  await maker.page.waitForFunction(
    (w: number) => [...document.querySelectorAll('input')].some((i) => Number(i.value) > w),
    {},
    wider,
  );
  expect((await shown('Height')) / (await shown('Width'))).toBeLessThan((height / width) * 0.99);

  await maker.drag('button', 'Turn', 60, 0);
  await maker.page.waitForFunction(() =>
    [...document.querySelectorAll('label')].some(
      (l) =>
        l.textContent === 'Rotation' && Number((document.getElementById(l.htmlFor) as HTMLInputElement).value) < -1,
    ),
  );

  await maker.press('Ellipse');
  await maker.sees('2 items');
  await maker.press('Fit the blank into the view');
  await maker.page.keyboard.press('Escape');
  const table = (await (await maker.page.waitForSelector('[aria-label="Plan of the blank"] canvas'))!.boundingBox())!;
  // Beside the tools, outside of the blank.
  await maker.page.mouse.move(table.x + 82, table.y + 30);
  await maker.page.mouse.down();
  await maker.page.mouse.move(table.x + table.width / 2, table.y + table.height / 2, { steps: 5 });
  await maker.page.mouse.move(table.x + table.width - 8, table.y + table.height - 8, { steps: 5 });
  await maker.page.mouse.up();
  await maker.sees('2 items picked');
  // The middle button moves the view and pastes nothing, though some systems take its press for that: the last step stays the last.
  await maker.chord('Control', 'c');
  await maker.page.mouse.move(table.x + 200, table.y + 200);
  await maker.page.mouse.down({ button: 'middle' });
  await maker.page.mouse.move(table.x + 230, table.y + 190, { steps: 4 });
  await maker.page.mouse.up({ button: 'middle' });

  const undone = () =>
    maker.page.evaluate(() => {
      const labels = [...document.querySelectorAll('span[aria-label]')].map((e) => e.getAttribute('aria-label') ?? '');
      return labels.find((l) => /^undo/i.test(l))?.toLowerCase() ?? '';
    });
  for (const name of ['add ellipse', 'turn', 'scale', 'scale', 'change height', 'change width', 'add rectangle']) {
    let last = '';
    await maker
      .until(async () => (last = await undone()) === `undo: ${name}`, `the last step is to ${name}`, 20000)
      .catch((e) => {
        throw new Error(`${(e as Error).message} It is "${last}".`);
      });
    await maker.press('Undo');
  }
  await maker.sees('Nothing drawn yet');
  for (let i = 0; i < 7; i++) await maker.press('Redo');
  await maker.sees('2 items');
});

test('millimetres and inches are the same board', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.stage('Blank');
  await maker.holds('Width (X)', '360');
  await maker.press(/^Unit: mm/);
  await maker.holds('Width (X)', '14.17323');
  await maker.fill('Thickness (Z)', '18mm');
  await maker.holds('Thickness (Z)', '0.70866');
  await maker.fill('Thickness (Z)', '3/4');
  // Rates are no finer than they are known, and stay what they are.
  await maker.stage('Run');
  await maker.holds('Rapid rate', '157.48');
  await maker.holds('Travel X, in', '31.496');
  await maker.fill('Speed X, in/min', '200');
  await maker.press(/^Unit: in/);
  await maker.holds('Speed X, mm/min', '5080');
  await maker.holds('Travel X, mm', '800');
  await maker.holds('Rapid rate', '4000');
  await maker.stage('Blank');
  await maker.holds('Thickness (Z)', '19.05');
  await maker.holds('Width (X)', '360');
});

test('a font that lacks a letter says which, and the lettering stays', async () => {
  const { maker } = device;
  await maker.press('New job');
  await maker.stage('Artwork');
  await maker.press('Lettering');
  await maker.fill('Text', 'Lock \u2603 7', false);
  await maker.sees(/\u2603/);
  await maker.sees(/has no/);
});

test('two fingers zoom the plan and move it, and what lies between them goes along', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.sees('1 item');
  const corner = async (name: string) => {
    const b = (await (await maker.find('button', `Scale by the ${name} corner`)).boundingBox())!;
    return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
  };
  const [low, high] = [await corner('lower left'), await corner('upper right')];
  const middle = { x: (low.x + high.x) / 2, y: (low.y + high.y) / 2 };
  const cdp = await maker.page.createCDPSession();
  const fingers = (type: 'touchStart' | 'touchMove' | 'touchEnd', spread: number, dx: number) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints:
        type === 'touchEnd' ? [] : [-1, 1].map((side, id) => ({ x: middle.x + dx + side * spread, y: middle.y, id })),
    });
  await fingers('touchStart', 20, 0);
  for (let k = 1; k <= 8; k++) await fingers('touchMove', 20 + 1.25 * k, 5 * k);
  await fingers('touchEnd', 0, 0);
  const [a, b] = await maker.rests(async () => [await corner('lower left'), await corner('upper right')]);
  expect((b.x - a.x) / (high.x - low.x)).toBeCloseTo(1.5, 1);
  expect((a.x + b.x) / 2 - middle.x).toBeCloseTo(40, -0.5);
  expect((a.y + b.y) / 2 - middle.y).toBeCloseTo(0, -0.5);
  // What the first finger began is given up: nothing was moved, so there is one change to undo, the rectangle.
  await maker.press('Undo');
  await maker.sees('Nothing drawn yet');
});

test('what is small is moved by its line, and scaled by the grips around it', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.sees('1 item');
  await maker.fill('Width', '80');
  await maker.fill('Height', '80');
  await maker.holds('Height', '80');
  const edges = () =>
    maker.rests(async () => {
      const [left, right] = await Promise.all(
        ['left', 'right'].map(async (side) => {
          const b = (await (await maker.find('button', `Scale by the ${side} edge`)).boundingBox())!;
          return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
        }),
      );
      return { apart: right.x - left.x, x: (left.x + right.x) / 2, y: left.y };
    });
  const perMm = (await edges()).apart / 80;
  await maker.fill('Width', '8');
  await maker.fill('Height', '8');
  await maker.holds('Height', '8');
  const { apart, x, y } = await edges();
  // Grips leave it free, line and all.
  expect(apart).toBeGreaterThan(8 * perMm + 20);
  const was = await shown('Centre X');
  const { mouse } = maker.page;
  // By its upper line: through its middle goes the line of the section.
  await mouse.move(x, y - 4 * perMm);
  await mouse.down();
  await mouse.move(x + 50, y - 4 * perMm, { steps: 6 });
  await mouse.up();
  const above = (label: string, least: number) =>
    maker.page.waitForFunction(
      (name: string, from: number) =>
        [...document.querySelectorAll('label')].some(
          (l) =>
            l.textContent === name && Number((document.getElementById(l.htmlFor) as HTMLInputElement).value) > from,
        ),
      {},
      label,
      least,
    );
  await above('Centre X', was + 30 / perMm);
  expect(await shown('Width')).toBe(8);
  // A grip that stands aside scales by as much as it is pulled, not by how far off it stands.
  await maker.drag('button', 'Scale by the right edge', 25, 0);
  await above('Width', 9);
  expect(Math.abs((await shown('Width')) - 8 - 25 / perMm)).toBeLessThan(3 / perMm);
  expect(await shown('Height')).toBe(8);
});
