import { newItem, placeItem, type Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { newOneSetup } from '@/core/job/job';
import { testArt } from '@/core/testing/fonts';
import { PickIndex } from './pick';

const made = (id: string, kind: string, values: Record<string, unknown>, x = 0, y = 0): Item =>
  newItem({ id, name: id, kind, x, y, values: { ...(itemKindOf(kind).defaults as Item['values']), ...values } });

function indexOf(...items: Item[]): (x: number, y: number) => string | null {
  const job = newOneSetup('Pick');
  job.blank.width = job.blank.height = 400;
  job.items = items;
  const index = new PickIndex(job, new Map(items.map((i) => [i.id, placeItem(i, testArt)])));
  return (x, y) => index.at(x, y, 0.5, 0.2);
}

describe('what a press on the table means', () => {
  const letters = { text: 'O  O', capHeight: 20, font: 'archivo' };

  it('means a straight lettering between its letters, however far they stand apart', () => {
    const at = indexOf(made('text', 'lettering', { ...letters, tracking: 4000 }, 200, 200));
    expect(at(200, 200)).toBe('text');
    expect(at(200, 230)).toBeNull();
  });

  it('means a lettering round a circle near its letters, and leaves the inside of the circle to others', () => {
    const round = { ...letters, text: 'FENWATER LOCK', baseline: 'outwards', radius: 100, at: 90 };
    const at = indexOf(made('ring', 'lettering', round, 200, 200));
    expect(at(200, 310)).toBe('ring');
    // 17 mm off the baseline is nearer than the letters are high; the middle is not.
    expect(at(200, 283)).toBe('ring');
    for (const [x, y] of [
      [200, 200],
      [200, 260],
      [150, 190],
    ])
      expect(at(x, y)).toBeNull();
    expect(
      indexOf(made('ring', 'lettering', round, 200, 200), made('dot', 'ellipse', { width: 8, height: 4 }, 200, 200))(
        200,
        200,
      ),
    ).toBe('dot');
  });

  it('means a lettering or picture that has no lines by its box', () => {
    const at = indexOf(
      made('lost', 'lettering', { ...letters, font: 'none', baseline: 'outwards' }, 100, 100),
      made('picture', 'picture', { width: 60, height: 40 }, 300, 300),
    );
    expect([at(100, 100), at(300, 300), at(325, 315), at(325, 325)]).toEqual(['lost', 'picture', 'picture', null]);
  });

  it('means a large rectangle by its line alone, and a small one by its inside', () => {
    const at = indexOf(
      made('large', 'rectangle', { width: 200, height: 200 }, 200, 200),
      made('small', 'rectangle', { width: 5, height: 5 }, 60, 60),
    );
    expect([at(100, 200), at(200, 200), at(60, 60)]).toEqual(['large', null, 'small']);
  });

  it('means linked artwork as what it follows, in its own size', () => {
    const item = made('source', 'lettering', letters);
    const source = { item, setup: { id: 'front', name: 'Front' }, flip: { x: -1, y: 1 } };
    const half = { item: 'source', through: true, wide: 50, high: 50, source };
    expect(indexOf(made('link', 'linked', half, 200, 200))(200, 200)).toBe('link');
    const round = { ...source, item: made('source', 'lettering', { ...letters, baseline: 'outwards', radius: 100 }) };
    const at = indexOf(made('link', 'linked', { ...half, source: round }, 200, 200));
    // The foot of its letters is 50 mm from its middle: half of 20 mm off it at the most.
    expect([at(200, 243), at(200, 235), at(200, 200)]).toEqual(['link', null, null]);
  });
});
