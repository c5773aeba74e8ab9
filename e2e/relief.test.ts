import { readFileSync } from 'node:fs';
import { chance } from '@/core/relief/noise';
import { readPicture } from '@/core/exchange/picture/read';
import { greyPng } from '@/core/testing/png';
import { emptyBoard, drop, heights, shapedHeight } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

/** A four-sided point of 20 x 20 x 10 mm, standing on its Y as many programs model: its base looks along Y. */
function point(scale = 1): string {
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
  return [
    ...at.map((p) => `v ${p.map((v) => v * scale).join(' ')}`),
    ...faces.map((f) => `f ${f.map((k) => k + 1).join(' ')}`),
  ].join('\n');
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

test('a mesh that would be too small to see is asked for its unit, and can be left alone', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await drop(maker.page, 'crumb.obj', '', point(0.04));
  await maker.sees('would be too small to see if its numbers were millimetres');
  await maker.press('Leave the file alone');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await drop(maker.page, 'crumb.obj', '', point(0.04));
  await maker.press(/^Inches/);
  await maker.sees('20.32 \u00d7 20.32');
  await maker.shows('Width (X)', (v) => v === 20.32);
  expect(await maker.page.$$('ol[aria-label=Forms] > li')).toHaveLength(1);
});

test('(long) a mesh is dropped, stood up, sized to 37 mm, made 3 mm high alone, and saved as a body; a broken one changes nothing', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await drop(maker.page, 'finial.obj', '', point());
  await maker.sees('"finial.obj": 6 triangles');
  // It was stood up by itself: its thin side looks up.
  await maker.sees('Its Y');
  await maker.holds('Width (X)', '20');
  await maker.fill('Width (X)', '37');
  await maker.holds('Height (Y)', '37');
  // Stood up otherwise it keeps its shape: twice as long one way as it is thick the other.
  await maker.choose('What looks up', 'Its Z');
  await maker.shows('Height (Y)', (v) => Math.abs(v - 18.5) < 0.01);
  await maker.sees('to half the thickness');
  await maker.choose('What looks up', 'Its Y');
  await maker.holds('Height (Y)', '37');
  await maker.fill('Tipped about X', '90');
  await maker.shows('Height (Y)', (v) => Math.abs(v - 18.5) < 0.01);
  await maker.press('Undo');
  await maker.holds('Height (Y)', '37');
  await maker.fill('Turned about Z', '45');
  await maker.shows('Width (X)', (v) => Math.abs(v - 37 * Math.SQRT2) < 0.01);
  await maker.fill('Turned about Z', '0');
  await maker.holds('Width (X)', '37');
  await maker.fill('Rise (Z)', '3');
  await maker.holds('Width (X)', '37');
  // The height of what was shaped; the top of the first form stood at the face, 9 mm above the base.
  await maker.find('button', 'Relief, ready');
  await maker.shows('Relief height', (v) => Math.abs(v - 3) < 0.05);
  await maker.fill('Nodes lie apart', '0.5');
  await maker.sees('0.24 million nodes; each form takes 1 MB');
  await maker.find('button', 'Relief, ready');
  await maker.fill('Gap above', '0');
  await maker.shows('Gap above', (v) => v === 0);
  await maker.shows('Gap below', (v) => Math.abs(v - 15) < 0.05);
  await maker.saved();
  await drop(maker.page, 'torn.stl', '', 'solid torn\nfacet\nouter loop\nvertex 1 2 three\n');
  await maker.sees('"torn.stl" was not read: "three" stands in line 4');
  expect(await maker.page.$$eval('[aria-label=Forms] > li', (l) => l.length)).toBe(1);
  await maker.press('Export as STL');
  const { low, high } = boxOf(readFileSync(await device.downloaded(/-relief\.stl$/)));
  expect([low[2], high[2]]).toEqual([-18, 0]);
  expect([high[0] - low[0], high[1] - low[1]]).toEqual([300, 200]);
  // As a picture it holds the same heights, a pixel for each node; so many as are asked for.
  await maker.press('Export as PNG, 16 bit');
  await maker.sees('black is -3 mm, white 0 mm from the top face');
  const png = readPicture('relief.png', readFileSync(await device.downloaded(/-relief\.png$/)));
  expect([png.width, png.height]).toEqual([601, 401]);
  expect(png.light[200 * 601 + 300]).toBeGreaterThan(0.98);
  expect(png.light[0]).toBeNaN();
  // It is there when the job is opened again, file and all.
  await maker.page.reload();
  await maker.stage('Relief');
  await maker.find('button', 'Relief, ready');
  await maker.sees('finial');
  await maker.until(async () => `${await heights(maker).catch(() => '')}` === '-3,0', 'its mesh is there too');
  await maker.press('Delete finial');
  await maker.sees('No relief yet');
  await maker.press('Undo');
  await maker.find('button', 'Relief, ready');
});

test('(long) a picture is dropped, its grain goes and comes back, levels of it are outlined and used as a mask', async () => {
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
  // A node for each pixel.
  await maker.fill('Nodes lie apart', '1');
  await maker.find('button', 'Relief, ready');
  const rough = await shapedHeight(maker);
  await maker.press('Noise removal');
  await maker.shows('Relief height', (v) => v < rough - 0.1);
  await maker.press('Leave out Noise removal');
  await maker.shows('Relief height', (v) => v === rough);
  await maker.press('Take in Noise removal');
  await maker.shows('Relief height', (v) => v < rough - 0.1);
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
