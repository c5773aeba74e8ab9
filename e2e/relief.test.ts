import { readFileSync } from 'node:fs';
import { chance } from '@/core/relief/noise';
import { greyPng } from '@/core/testing/png';
import { emptyBoard, drop } from './board';
import { eachOnAFreshDevice } from './device';
import { PATIENCE, type Maker } from './maker';

const device = eachOnAFreshDevice();

/** A four-sided point of 20 x 20 x 10 mm, standing on its Y as many programs model: its base looks along Y. */
function point(): string {
  const at: readonly (readonly [number, number, number])[] = [
    [0, 0, 0],
    [20, 0, 0],
    [20, 0, 20],
    [0, 0, 20],
    [10, 10, 10],
  ];
  const faces = [
    [0, 4, 1],
    [1, 4, 2],
    [2, 4, 3],
    [3, 4, 0],
    [0, 1, 2],
    [0, 2, 3],
  ];
  return [...at.map((p) => `v ${p.join(' ')}`), ...faces.map((f) => `f ${f.map((k) => k + 1).join(' ')}`)].join('\n');
}

/** Waits until a field shows a number that is meant. */
async function shows(maker: Maker, label: string, meant: (v: number) => boolean): Promise<void> {
  const until = Date.now() + PATIENCE;
  for (;;) {
    const v = await maker.valueOf(label);
    if (v !== '' && meant(Number(v))) return;
    if (Date.now() > until) throw new Error(`"${label}" shows "${v}".`);
    await new Promise((r) => setTimeout(r, 60));
  }
}

/** Lowest and highest corners of a binary STL, read for itself. */
function boxOf(bytes: Buffer) {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  const count = bytes.readUInt32LE(80);
  expect(bytes.length).toBe(84 + 50 * count);
  for (let t = 0; t < count; t++)
    for (let k = 0; k < 9; k++) {
      const v = bytes.readFloatLE(84 + 50 * t + 12 + 4 * k);
      low[k % 3] = Math.min(low[k % 3], v);
      high[k % 3] = Math.max(high[k % 3], v);
    }
  return { low, high };
}

test('a mesh is dropped, stood up, sized to 37 mm, made 3 mm high alone, and saved as a body; a broken one changes nothing', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await drop(maker.page, 'finial.obj', '', point());
  await maker.sees('"finial.obj": 6 triangles');
  // It was stood up by itself: its thin side looks up.
  await maker.sees('Its Y');
  await maker.holds('Width (X)', '20');
  await maker.fill('Width (X)', '37');
  await maker.holds('Height (Y)', '37');
  await maker.fill('Rise (Z)', '3');
  await maker.holds('Width (X)', '37');
  // The height of what was shaped; the top of the first form stood at the face, 9 mm above the base.
  await maker.find('button', 'Relief, ready');
  await shows(maker, 'Relief height', (v) => Math.abs(v - 3) < 0.05);
  await maker.fill('Gap above', '0');
  await shows(maker, 'Gap above', (v) => v === 0);
  await shows(maker, 'Gap below', (v) => Math.abs(v - 15) < 0.05);
  await maker.saved();
  await drop(maker.page, 'torn.stl', '', 'solid torn\nfacet\nouter loop\nvertex 1 2 three\n');
  await maker.sees('"torn.stl" was not read: "three" stands in line 4');
  expect(await maker.page.$$eval('[aria-label=Forms] > li', (l) => l.length)).toBe(1);
  await maker.press('Export as STL');
  const { low, high } = boxOf(readFileSync(await device.downloaded(/-relief\.stl$/)));
  expect([low[2], high[2]]).toEqual([-18, 0]);
  expect([high[0] - low[0], high[1] - low[1]]).toEqual([300, 200]);
  // It is there when the job is opened again, file and all.
  await maker.page.reload();
  await maker.stage('Relief');
  await maker.find('button', 'Relief, ready');
  await maker.sees('finial');
  await maker.press('Delete finial');
  await maker.sees('No relief yet');
  await maker.press('Undo');
  await maker.find('button', 'Relief, ready');
});

test('lettering is raised from outlines, follows its text, lies on a ground inside a panel, and says what does not fit', async () => {
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
  await shows(maker, 'Relief height', (v) => Math.abs(v - 2.5) < 0.2);
  const higher = await maker.page.$eval('svg[aria-label^="Relief from"]', (e) => e.getAttribute('aria-label'));
  // What stands above the face is said, with a way on.
  await maker.fill('Begins at', '20');
  await maker.sees('mm high; the blank is 18 mm thick');
  await maker.fill('Begins at', '10');
  await maker.sees('above the top face');
  await maker.press('Bring its top down to the face');
  await shows(maker, 'Gap above', (v) => v === 0);
  expect(higher).toMatch(/Relief from -/);
  // Another text, another relief: the sheet shows its heights without a press.
  await maker.stage('Artwork');
  await maker.press(/^FEN/, 'treeitem');
  await maker.fill('Text', '.', false);
  await maker.stage('Relief');
  await maker.find('button', 'Relief, ready');
  // A form that is left out counts for nothing.
  await maker.press('Leave out From outlines');
  await shows(maker, 'Relief height', (v) => v < 0.1);
});

/** Heights of the relief: lowest and highest, as the gauge says them. */
const heights = (maker: Maker) =>
  maker.page.$eval('svg[aria-label^="Relief from"]', (e) =>
    (e.getAttribute('aria-label')!.match(/-?[\d.]+/g) ?? []).slice(0, 2).map(Number),
  );

test('a picture is dropped, its grain goes and comes back, levels of it are outlined and used as a mask', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Relief');
  // A dome over level ground, with grain.
  const png = greyPng(300, 200, 8, (x, y) => {
    const q = Math.hypot(x - 150, y - 100) / 90;
    return 0.2 + (q < 1 ? 0.6 * Math.sqrt(1 - q * q) : 0) + 0.1 * (chance(x, y, 1) - 0.5);
  });
  await drop(maker.page, 'moon.png', 'image/png', Buffer.from(png).toString('base64'), true);
  await maker.sees('"moon.png": 300 \u00d7 200 pixels');
  await maker.find('button', 'Relief, ready');
  const rough = Number(await maker.valueOf('Relief height'));
  await maker.press('Noise removal');
  await shows(maker, 'Relief height', (v) => v < rough - 0.1);
  await maker.press('Leave out Noise removal');
  await shows(maker, 'Relief height', (v) => v === rough);
  await maker.press('Take in Noise removal');
  await shows(maker, 'Relief height', (v) => v < rough - 0.1);
  // Too deep: said, with where the relief lies. Then one that is there, which becomes artwork.
  await maker.find('button', 'Relief, ready');
  await maker.fill('Depths, mm', '9; 2', false);
  await maker.press('Make outlines');
  await maker.sees('Nothing is outlined at 9 mm deep');
  await maker.sees('"Level 2 mm deep" is picked');
  // A picture that is torn changes nothing.
  await drop(maker.page, 'torn.png', 'image/png', Buffer.from(png.subarray(0, 900)).toString('base64'), true);
  await maker.sees('"torn.png" was not read: it ends in the middle');
  expect(await maker.page.$$eval('[aria-label=Forms] > li', (l) => l.length)).toBe(2);
  // The outline is still picked: a texture is kept to it.
  await maker.press('Texture');
  await maker.choose('It counts', 'Inside outlines');
  await maker.sees('Inside 1 item');
  await maker.find('button', 'Relief, ready');
  // All of it is there when the job is opened again, its picture too.
  await maker.saved();
  const before = await heights(maker);
  await maker.page.reload();
  await maker.stage('Relief');
  await maker.until(async () => `${await heights(maker).catch(() => '')}` === `${before}`, 'the relief is as it was');
});

test('a plaque of a frame, a sunk panel, a star that is domed in three ways, and lettering sunk into it', async () => {
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
  await shows(maker, 'Relief height', (v) => v === 0);
  // The panel: sunk as deep as it is flat.
  await maker.stage('Artwork');
  await maker.press('Rectangle');
  await maker.fill('Width', '220');
  await maker.fill('Height', '120');
  await raise('Flat');
  await maker.fill('Height', '3');
  await maker.choose('It', 'Sinks');
  await shows(maker, 'Relief height', (v) => v === 3);
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
