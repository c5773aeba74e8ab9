import fc from 'fast-check';
import { real } from '../../testing/real';
import { boundsOfPaths, circlePath, transformPath, type Path } from '../../geometry/path';
import { box } from '../../testing/shapes';
import { testArt } from '../../testing/fonts';
import { newItem, placeItem, type Item } from '../item';
import { itemKindOf } from '../registry';
import { scaledItem, shear } from '../transform';
import { drawnItem } from '../drawn';
import { laidUnder, layerTitle, pixelsOnBlank, retraced, tracedFrom, tracedItem, tracedOnBlank } from './again';
import { traceDefaults } from './options';
import type { TracedLayer } from './trace';

const square = (x: number, y: number, side: number): Path => {
  const b = box(x, y, x + side, y + side);
  return {
    x: b[0],
    y: b[1],
    closed: true,
    segments: Array.from({ length: b.length / 2 }, (_, i) => ({
      k: 'line' as const,
      x: b[(2 * i + 2) % b.length],
      y: b[(2 * i + 3) % b.length],
    })),
  };
};
const layer = (colour: string, ...paths: Path[]): TracedLayer => ({ colour, paths, points: 100 });
const red = layer('#c02020', square(20, 30, 40), square(90, 10, 12));
const blue = layer('#2040b0', circlePath(120, 80, 25));
const pixels = { width: 200, height: 150 };
const picture = newItem({
  id: 'pic',
  name: 'Emblem.png',
  kind: 'picture',
  x: 100,
  y: 80,
  values: { picture: 'pic-1', pixels, width: 100, height: 75, shade: 35, trace: traceDefaults },
});
const map = pixelsOnBlank(picture);
const like = (id: string) => ({ id, name: id, layer: 'layer-1', group: null });
const items = [tracedItem(like('red'), red, 'pic', map), tracedItem(like('blue'), blue, 'pic', map)];
const paths = (i: Item) => placeItem(i, testArt).paths;
const points = (list: readonly Path[]) => list.flatMap((p) => [p.x, p.y, ...p.segments.flatMap((s) => [s.x, s.y])]);
const close = (a: readonly number[], b: readonly number[]) => {
  expect(a).toHaveLength(b.length);
  a.forEach((v, i) => expect(Math.abs(v - b[i])).toBeLessThan(1e-6));
};

const moves = fc.record({
  x: fc.constantFrom(0, -12.5, 40),
  y: real(-50, 50),
  angle: fc.constantFrom(0, 45, 90, 180, -133.7),
  mirror: fc.boolean(),
  s: fc.constantFrom(1, 0.5, 3.25),
});
const shifted = (i: Item, m: { x: number; y: number; angle: number; mirror: boolean; s: number }): Item => ({
  ...scaledItem(i, m.s, m.s, 10, 20)!,
  x: i.x + m.x,
  y: i.y + m.y,
  angle: m.angle,
  mirror: m.mirror,
});

describe('a picture traced again', () => {
  it('lays the outlines over the picture', () => {
    const b = boundsOfPaths(paths(items[0]))!;
    // Half a millimetre a pixel, the picture's lower left corner at 50, 42.5.
    expect(b.x0).toBeCloseTo(60, 9);
    expect(b.y0).toBeCloseTo(47.5, 9);
    expect(b.x1).toBeCloseTo(101, 9);
  });

  it('with the same values gives the same outlines, wherever and however they were moved meanwhile', () => {
    fc.assert(
      fc.property(moves, (m) => {
        const moved = items.map((i) => shifted(i, m));
        const r = retraced([red, blue], picture, moved);
        expect([r.fresh, r.gone]).toEqual([[], []]);
        r.changed.forEach((i, k) => {
          expect(i.id).toBe(items[k].id);
          close(points(paths(i)), points(paths(moved[k])));
        });
      }),
    );
  });

  it('with other outlines puts them where the old ones would have them, though their middle is another', () => {
    fc.assert(
      fc.property(moves, (m) => {
        const more = layer('#c22222', ...red.paths, square(150, 120, 20));
        const moved = shifted(items[0], m);
        const [now] = retraced([more], picture, [moved]).changed;
        // The first outlines are the same ones, and lie where they lay.
        close(points(paths(now).slice(0, 2)), points(paths(moved)));
        expect(paths(now)).toHaveLength(3);
        const b = boundsOfPaths(now.values.paths as Path[])!;
        expect(b.x0 + b.x1).toBeCloseTo(0, 6);
        expect(tracedFrom(now)!.colour).toBe('#c22222');
      }),
    );
  });

  it('keeps up with uneven scales, shears and conversion to outlines', () => {
    const wide = { ...items[0], values: itemKindOf('drawing').scaled(items[0].values, 2, 0.5) as Item['values'] };
    close(points(paths(retraced([red], picture, [wide]).changed[0])), points(paths(wide)));
    const m = shear(20, 'across', 70, 50);
    const leaning = drawnItem(
      like('red'),
      paths(items[0]).map((p) => transformPath(p, m)),
      'nonzero',
      tracedOnBlank(items[0], m),
    );
    close(points(paths(retraced([red], picture, [leaning]).changed[0])), points(paths(leaning)));
  });

  it('gives each colour its nearest, tells what is new and what is gone, and renews copies', () => {
    const copy = { ...items[0], id: 'red 2', x: items[0].x + 60 };
    const green = layer('#208040', square(10, 100, 20));
    const r = retraced([layer('#b03030', square(20, 30, 44)), green], picture, [...items, copy]);
    // Red takes both reds; green is nearer to blue than to nothing.
    expect(r.changed.map((i) => i.id)).toEqual(['red', 'blue', 'red 2']);
    expect(r.fresh).toEqual([]);
    const fewer = retraced([layer('#b03030', square(20, 30, 44))], picture, items);
    expect(fewer.gone.map((i) => i.id)).toEqual(['blue']);
    const more = retraced([red, blue, green], picture, items);
    expect(more.fresh.map((f) => f.layer)).toEqual([green]);
    const made = tracedItem(like('green'), green, 'pic', more.fresh[0].map);
    expect(boundsOfPaths(paths(made))!.y1).toBeCloseTo(42.5 + 60, 9);
    // What was traced of another picture is left alone.
    expect(retraced([red], { ...picture, id: 'other' }, items)).toMatchObject({ changed: [], gone: [] });
  });

  it('can lay its picture under outlines that were moved, turned, mirrored and scaled', () => {
    fc.assert(
      fc.property(moves, (m) => {
        const moved = shifted(items[0], m);
        const under = laidUnder(picture, moved);
        close(points(red.paths.map((p) => transformPath(p, pixelsOnBlank(under)))), points(paths(moved)));
      }),
    );
    expect(
      laidUnder(picture, newItem({ id: 'x', name: 'x', kind: 'drawing', values: { paths: [], fill: 'nonzero' } })),
    ).toBe(picture);
  });

  it('names colours in words where there are several', () => {
    expect(layerTitle('Emblem', red, true)).toBe('Emblem, red');
    expect(layerTitle('Emblem', red, false)).toBe('Emblem');
  });
});
