import { placeItem } from '../artwork/item';
import { boundsOfPaths } from '../geometry/path';
import { jobSchema, newOneSetup } from '../job/job';
import { jobOf } from '../job/oneSetup';
import { testArt } from '../testing/fonts';
import type { Drawn, DrawnText } from './drawn';
import { itemsOf } from './items';
import { readSvg } from './svg/read';

const here = (layers: { id: string; name: string }[] = []) => {
  let n = 0;
  return { blank: { width: 300, height: 200 }, layers, freshId: () => `id-${++n}` };
};
const text = (t: Partial<DrawnText>): DrawnText => ({
  text: 'Lock',
  layer: 'Words',
  family: 'Cinzel',
  bold: false,
  size: 10,
  x: 50,
  y: 60,
  angle: 0,
  anchor: 'left',
  ...t,
});
const drawn = (d: Partial<Drawn>): Drawn => ({ things: [], texts: [], layers: [], remarks: [], unitKnown: true, ...d });

describe('what a file drew, as artwork', () => {
  const source =
    '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40"><g id="plate"><rect x="5" y="5" width="60" height="20"/></g><g id="holes" fill="#c00"><circle cx="15" cy="15" r="3"/><circle cx="55" cy="15" r="3"/></g></svg>';

  it('keeps its size, and its middle is the middle of the blank', () => {
    const got = itemsOf(readSvg(source, 'plate.svg'), 'plate', here());
    const b = boundsOfPaths(got.items.flatMap((i) => placeItem(i, testArt).paths))!;
    expect([b.x1 - b.x0, b.y1 - b.y0].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([60, 20]);
    expect((b.x0 + b.x1) / 2).toBeCloseTo(150, 9);
    expect((b.y0 + b.y1) / 2).toBeCloseTo(100, 9);
  });

  it('comes on layers by name, old ones where they are there, in one group', () => {
    const got = itemsOf(readSvg(source, 'plate.svg'), 'plate', here([{ id: 'mine', name: 'plate' }]));
    expect(got.layers.map((l) => [l.name, l.colour])).toEqual([['holes', '#cc0000']]);
    expect(got.items[0].layer).toBe('mine');
    expect(got.groups).toHaveLength(1);
    expect(got.items.every((i) => i.group === got.groups[0].id)).toBe(true);
    expect(new Set(got.items.map((i) => i.id)).size).toBe(3);
  });

  it('makes a job that is valid', () => {
    const job = newOneSetup('plate');
    const got = itemsOf(readSvg(source, 'plate.svg'), 'plate', here(job.layers));
    const r = jobSchema.safeParse(
      jobOf({ ...job, layers: [...job.layers, ...got.layers], groups: got.groups, items: got.items }),
    );
    expect(r.success).toBe(true);
  });

  it('keeps text as lettering where it stood, in the font that it names or the nearest', () => {
    const known = itemsOf(drawn({ texts: [text({})] }), 'words', here());
    expect(known.items[0]).toMatchObject({
      kind: 'lettering',
      name: 'Lock',
      values: { text: 'Lock', font: 'cinzel', align: 'left' },
    });
    expect(known.items[0].values.capHeight).toBeCloseTo(7, 9);
    expect(known.remarks).toEqual([]);
    const serif = itemsOf(drawn({ texts: [text({ family: 'Some Roman, serif' })] }), 'words', here());
    expect(serif.items[0].values.font).toBe('libre-baskerville');
    expect(serif.remarks.join()).toMatch(/nearest font.*Some Roman/);
    const plain = itemsOf(
      drawn({ texts: [text({ family: 'Plain Sans', anchor: 'centre', angle: 90 })] }),
      'words',
      here(),
    );
    expect(plain.items[0]).toMatchObject({ angle: 90, values: { font: 'archivo', align: 'centre' } });
    // Turned by a quarter, half the cap height is to the left of where the baseline ran.
    expect(plain.items[0].x).toBeCloseTo(50 - 3.5, 9);
    expect(plain.items[0].y).toBeCloseTo(60, 9);
  });

  it('says when the unit was guessed, and nothing comes of an empty file', () => {
    expect(itemsOf(drawn({ unitKnown: false, texts: [text({})] }), 'x', here()).remarks.join()).toMatch(
      /does not say its unit/,
    );
    expect(itemsOf(drawn({}), 'x', here())).toEqual({ items: [], layers: [], groups: [], remarks: [] });
  });

  it('in a unit that the maker names is as large as that says, words included', () => {
    const paths = [
      { x: 0, y: 0, segments: [{ k: 'arc' as const, x: 4, y: 0, cx: 2, cy: 0, ccw: false }], closed: false },
    ];
    const source = drawn({
      unitKnown: false,
      things: [{ name: 'a', layer: '0', colour: '#1e2a2f', fill: 'nonzero', paths }],
      texts: [text({ size: 2 })],
    });
    const inches = itemsOf(source, 'plan', { ...here(), unit: 25.4 });
    const box = boundsOfPaths(placeItem(inches.items[0], testArt).paths)!;
    expect(box.x1 - box.x0).toBeCloseTo(101.6, 6);
    expect(box.y1 - box.y0).toBeCloseTo(50.8, 6);
    expect(inches.items[1].values.capHeight).toBeCloseTo(2 * 0.7 * 25.4, 6);
    expect(inches.remarks.join()).not.toMatch(/unit/);
    expect(itemsOf(source, 'plan', here()).remarks.join()).toMatch(/does not say its unit/);
  });
});
