import fc from 'fast-check';
import { real } from '../testing/real';
import { flatten, pathData, placement, transformPath } from '../geometry/path';
import { boundsOf, regionArea } from '../geometry/region';
import { fontCatalogue } from '../lettering/catalogue';
import { FontError, loadFont } from '../lettering/font';
import { shippedFont, testArt, testShaper } from '../testing/fonts';
import { layOut } from '../lettering/layout';
import { itemRegion, itemSchema, newItem, placeItem, regionOf, shapeWith, type Item } from './item';
import { itemKindOf } from './registry';

const fontOf = shippedFont;
const art = testArt;
const item = (kind: string, values: object, place: Partial<Item> = {}): Item =>
  itemSchema.parse(
    newItem({ id: 'i', name: 'i', kind, values: { ...(itemKindOf(kind).defaults as object), ...values }, ...place }),
  );

describe('artwork', () => {
  it.each([
    ['square', 60 * 40],
    ['round', 60 * 40 - (4 - Math.PI) * 25],
    ['chamfer', 60 * 40 - 2 * 25],
    ['scoop', 60 * 40 - Math.PI * 25],
  ])('a rectangle with %s corners has the area that geometry gives', (corner, area) => {
    expect(
      regionArea(itemRegion(item('rectangle', { width: 60, height: 40, corner, radius: 5 }), art, 0.0005)),
    ).toBeCloseTo(area, 0);
    expect(
      regionArea(
        itemRegion(item('rectangle', { width: 60, height: 40, corner, radius: 5 }, { angle: 33, x: 7 }), art, 0.0005),
      ),
    ).toBeCloseTo(area, 0);
  });

  it('an ellipse too, and flattening keeps within its tolerance', () => {
    expect(regionArea(itemRegion(item('ellipse', { width: 30, height: 10 }), art, 0.0005))).toBeCloseTo(
      Math.PI * 75,
      1,
    );
    const [circle] = shapeWith('ellipse', { width: 20, height: 20 }, art).paths;
    for (const tolerance of [0.1, 0.01, 0.001]) {
      const p = flatten(circle, tolerance);
      for (let i = 0; i < p.length; i += 2) {
        const j = (i + 2) % p.length;
        expect(10 - Math.hypot((p[i] + p[j]) / 2, (p[i + 1] + p[j + 1]) / 2)).toBeLessThan(tolerance * 1.01);
      }
    }
  });

  it('nested items make a ring', () => {
    const ring = regionOf(
      [item('rectangle', { width: 40, height: 40 }), { ...item('rectangle', { width: 20, height: 20 }), id: 'j' }],
      art,
      0.001,
    );
    expect(regionArea(ring)).toBeCloseTo(1200, 6);
  });

  it('scales so that its box scales', () => {
    fc.assert(
      fc.property(fc.constantFrom('rectangle', 'ellipse', 'lettering'), real(0.3, 3), real(0.3, 3), (kind, sx, sy) => {
        const k = itemKindOf(kind);
        const a = shapeWith(k.id, k.defaults, art).box;
        const b = shapeWith(k.id, k.scaled(k.defaults, sx, sy), art).box;
        expect((b.x1 - b.x0) / (a.x1 - a.x0)).toBeCloseTo(sx, 3);
        expect((b.y1 - b.y0) / (a.y1 - a.y0)).toBeCloseTo(sy, 3);
      }),
      { numRuns: 25 },
    );
  });

  it('turns about its middle and draws as path data', () => {
    const p = placeItem(item('rectangle', { width: 10, height: 2 }, { angle: 90, x: 5, y: 5 }), art);
    const b = boundsOf(p.paths.map((q) => flatten(q, 0.01)))!;
    expect([b.x0, b.x1, b.y0, b.y1].map((v) => +v.toFixed(6))).toEqual([4, 6, 0, 10]);
    expect(pathData([transformPath(p.paths[0], placement(0, 0, 0))])).toMatch(/^M.*Z$/);
  });
});

describe('lettering', () => {
  const base = {
    text: 'HH',
    capHeight: 10,
    tracking: 0,
    kerning: true,
    leading: 1.5,
    align: 'left' as const,
    stretch: 100,
  };

  it.each(fontCatalogue.map((f) => [f.id]))('in %s has capitals of the wanted height', (id) => {
    const l = layOut(base, fontOf(id));
    const b = boundsOf(l.paths.map((p) => flatten(p, 0.001)))!;
    expect(l.missing).toEqual([]);
    // Script and blackletter capitals swing beyond the line that the font names.
    const slack = ['allura', 'dancing-script', 'unifrakturmaguntia'].includes(id) ? 6 : 0.6;
    expect(Math.abs(b.y1 - b.y0 - 10)).toBeLessThan(slack);
  });

  it('is kerned, tracked, led and aligned', () => {
    const font = fontOf('cinzel');
    const width = (over: object) => layOut({ ...base, text: 'AVA', ...over }, font).width;
    expect(width({ kerning: true })).toBeLessThan(width({ kerning: false }));
    expect(width({ tracking: 100 }) - width({})).toBeCloseTo((2 * 0.1 * font.unitsPerEm * 10) / font.capHeight, 6);
    expect(width({ stretch: 200 })).toBeCloseTo(2 * width({}), 6);
    const two = layOut({ ...base, text: 'H\nHHH', align: 'right' }, font);
    expect(two.height).toBeCloseTo(10 + 15, 6);
    const first = boundsOf([flatten(two.paths[0], 0.01)])!;
    expect(first.x1).toBeGreaterThan(two.width / 2 - 2);
  });

  it('names what a font lacks, and what is no font', () => {
    expect(layOut({ ...base, text: 'A\u6f22B' }, fontOf('cinzel')).missing).toEqual(['\u6f22']);
    expect(() => loadFont(new Uint8Array([1, 2, 3]), 'broken.ttf', testShaper)).toThrow(FontError);
    expect(() => loadFont(new Uint8Array([1, 2, 3]), 'broken.ttf', testShaper)).toThrow(/"broken\.ttf"/);
    expect(placeItem(item('lettering', { font: 'gone' }), art).remarks[0]).toMatch(
      /font of this lettering is not on this device/,
    );
  });
});

describe('lettering round a circle', () => {
  const round = (values: object) =>
    placeItem(item('lettering', { text: 'HIH', capHeight: 10, kerning: false, radius: 60, ...values }), art).paths;
  const points = (paths: ReturnType<typeof round>) => paths.flatMap((p) => [p, ...p.segments]);

  it('stands on the circle, outwards or inwards', () => {
    // Feet of an H lie on the tangent at its middle, so just outside the circle; heads a cap height farther out.
    const out = points(round({ baseline: 'outwards', at: 90 })).map((p) => Math.hypot(p.x, p.y));
    expect(Math.min(...out)).toBeGreaterThan(59.9);
    expect(Math.max(...out)).toBeLessThan(72);
    const inwards = points(round({ baseline: 'inwards', at: 90 })).map((p) => Math.hypot(p.x, p.y));
    expect(Math.max(...inwards)).toBeLessThan(62);
    expect(Math.min(...inwards)).toBeGreaterThan(49);
  });

  it('has its middle where it is asked for, reading clockwise outwards and the other way inwards', () => {
    for (const at of [90, 0, -90, 200])
      for (const baseline of ['outwards', 'inwards']) {
        const p = round({ baseline, at, text: 'H' });
        const b = points(p).reduce((s, q) => ({ x: s.x + q.x / points(p).length, y: s.y + q.y / points(p).length }), {
          x: 0,
          y: 0,
        });
        const turn = (((((Math.atan2(b.y, b.x) * 180) / Math.PI - at) % 360) + 540) % 360) - 180;
        expect(Math.abs(turn)).toBeLessThan(2);
      }
    const first = (baseline: string) => round({ baseline, at: 90, text: 'IH' })[0].x;
    expect(first('outwards')).toBeLessThan(0);
    expect(first('inwards')).toBeGreaterThan(0);
  });

  it('keeps the letters\u2019 own shape', () => {
    const straight = regionArea(itemRegion(item('lettering', { text: 'LOCK', capHeight: 10 }), art, 0.001));
    const bent = regionArea(
      itemRegion(item('lettering', { text: 'LOCK', capHeight: 10, baseline: 'outwards', radius: 40 }), art, 0.001),
    );
    expect(Math.abs(bent / straight - 1)).toBeLessThan(1e-3);
  });
});
