import { testArt } from '../testing/fonts';
import { newItem, placeItem } from './item';
import { boundsOfPaths, circlePath } from '../geometry/path';
import { arcAbout } from './draw';
import { angleAt, distanceBetween, measure, radiusAt } from './measure';
import { placesAlong, scaledItem, shear } from './transform';
import { itemKindOf } from './registry';
import { catchPoint } from './snap';

const place = (kind: string, values: object, x = 0, y = 0, angle = 0) =>
  placeItem(
    newItem({ id: 'a', name: 'a', kind, x, y, angle, values: { ...(itemKindOf(kind).defaults as object), ...values } }),
    testArt,
  );

describe('measuring', () => {
  it('gives area, length and box in closed form', () => {
    const ring = measure([place('ring', { diameter: 20, band: 5 }, 3, 4)]);
    expect(Math.abs(ring.area - 75 * Math.PI)).toBeLessThan(0.1);
    expect(Math.abs(ring.length - 30 * Math.PI)).toBeLessThan(0.01);
    expect(ring.box!.x0).toBeCloseTo(-7, 9);
    expect(ring.box!.y1).toBeCloseTo(14, 9);
    const slot = measure([place('slot', { length: 30, width: 10 })]);
    expect(Math.abs(slot.area - (200 + 25 * Math.PI))).toBeLessThan(0.05);
  });
  it('is as large wherever it lies, turned and mirrored, and its box is the one round its outlines there', () => {
    const values = { ...(itemKindOf('ring').defaults as object), diameter: 20, band: 5 };
    const hook = {
      paths: [
        {
          x: 0,
          y: 0,
          segments: [{ k: 'line', x: 9, y: 2 } as const, { k: 'line', x: 4, y: 7 } as const],
          closed: true,
        },
      ],
      fill: 'nonzero',
    };
    for (const [kind, own] of [
      ['ring', values],
      ['drawing', hook],
      ['drawing', { paths: [], fill: 'nonzero' }],
    ] as const)
      for (const angle of [0, 37, 45, 90, 180, 270])
        for (const mirror of [false, true]) {
          const item = { ...newItem({ id: 'a', name: 'a', kind, x: 3, y: -4, angle, values: own }), mirror };
          const there = placeItem(item, testArt);
          const m = measure([there, there]);
          const round = boundsOfPaths(there.paths);
          if (!round) {
            expect(m).toEqual({ box: null, area: 0, length: 0 });
            continue;
          }
          for (const side of ['x0', 'y0', 'x1', 'y1'] as const) expect(m.box![side]).toBeCloseTo(round[side], 9);
          const area = kind === 'ring' ? 75 * Math.PI : 27.5;
          const length = kind === 'ring' ? 30 * Math.PI : Math.hypot(9, 2) + Math.hypot(5, 5) + Math.hypot(4, 7);
          expect(Math.abs(m.area - 2 * area)).toBeLessThan(0.2);
          expect(Math.abs(m.length - 2 * length)).toBeLessThan(0.02);
        }
  });
  it('finds the narrowest distance between two items', () => {
    const a = place('ellipse', { width: 10, height: 10 });
    expect(distanceBetween(a, place('ellipse', { width: 6, height: 6 }, 30, 40))!.distance).toBeCloseTo(50 - 8, 2);
    expect(distanceBetween(a, place('rectangle', { width: 4, height: 40 }, 12, 0))!.distance).toBeCloseTo(5, 3);
    expect(distanceBetween(a, place('ellipse', { width: 10, height: 10 }, 4, 0))!.distance).toBe(0);
    expect(distanceBetween(a, place('drawing', { paths: [] }))).toBeNull();
  });
});

describe('catching points', () => {
  const square = place('rectangle', { width: 20, height: 10 });
  const disc = place('ellipse', { width: 10, height: 10 }, 10, 5);
  it('takes nodes before middles, middles before the line, the line before the grid', () => {
    expect(catchPoint([square], 9.8, 4.7, 1, null)).toEqual({ x: 10, y: 5, what: 'node' });
    expect(catchPoint([square], 0.3, 5.2, 1, null)).toMatchObject({ x: 0, y: 5, what: 'middle' });
    expect(catchPoint([square], 4, 5.4, 1, null)).toMatchObject({ x: 4, y: 5, what: 'on the outline' });
    expect(catchPoint([square], 40.2, 30.3, 1, 5)).toMatchObject({ x: 40, y: 30, what: 'grid' });
    expect(catchPoint([square], 40.2, 30.3, 1, null)).toBeNull();
  });
  it('knows centres and crossings', () => {
    expect(catchPoint([disc], 10.2, 5.1, 1, null)).toMatchObject({ x: 10, y: 5, what: 'centre' });
    const hit = catchPoint([square, disc], 5.2, 5.2, 0.8, null)!;
    expect(hit.what).toMatch(/crossing|node/);
    expect(Math.hypot(hit.x - 5, hit.y - 5)).toBeLessThan(0.05);
  });
});

describe('radii and angles', () => {
  it('an arc gives its own radius and centre, a cubic that of its bend, a line none', () => {
    const ring = place('drawing', { paths: [circlePath(0, 0, 12.5)], fill: 'nonzero' }, 3, 4);
    expect(radiusAt([ring], 3 + 12.4, 4, 1)).toEqual({
      radius: expect.closeTo(12.5, 9),
      exact: true,
      cx: expect.closeTo(3, 9),
      cy: expect.closeTo(4, 9),
    });
    const k = (4 / 3) * Math.tan(Math.PI / 8) * 20;
    const quarter = place('drawing', {
      paths: [{ x: 20, y: 0, segments: [{ k: 'cubic', x1: 20, y1: k, x2: k, y2: 20, x: 0, y: 20 }], closed: false }],
      fill: 'nonzero',
    });
    const r = radiusAt([quarter], 14.2, 14.2, 1)!;
    expect(r.exact).toBe(false);
    expect(Math.abs(r.radius - 20)).toBeLessThan(0.3);
    expect(Math.hypot(r.cx, r.cy)).toBeLessThan(0.4);
    expect(radiusAt([place('rectangle', { width: 20, height: 10 })], 0, 5, 1)).toBeNull();
    expect(radiusAt([ring], 60, 60, 1)).toBeNull();
  });
  it('the angle at a corner is the same from either side', () => {
    expect(angleAt({ x: 5, y: 0 }, { x: 0, y: 0 }, { x: 0, y: 3 })).toBeCloseTo(90, 9);
    expect(angleAt({ x: -1, y: 1 }, { x: 0, y: 0 }, { x: 1, y: 0 })).toBeCloseTo(135, 9);
    expect(angleAt({ x: 1, y: 0 }, { x: 0, y: 0 }, { x: -1, y: 1 })).toBeCloseTo(135, 9);
  });
});

describe('catching tangents and guides', () => {
  const disc = place('drawing', { paths: [circlePath(0, 0, 10)], fill: 'nonzero' });
  it('a tangent from the point before touches the circle square to its radius', () => {
    const from = { x: 30, y: 5 };
    const to = Math.atan2(5, 30) + Math.acos(10 / Math.hypot(30, 5));
    const hit = catchPoint([disc], 10 * Math.cos(to) + 0.2, 10 * Math.sin(to) + 0.1, 1, null, { from })!;
    expect(hit.what).toBe('tangent');
    expect(hit.x * (from.x - hit.x) + hit.y * (from.y - hit.y)).toBeCloseTo(0, 6);
    expect(catchPoint([disc], hit.x, hit.y, 0.5, null)!.what).not.toBe('tangent');
  });
  it('guides are caught along their length, and where they cross', () => {
    const guides = [
      { axis: 'x', at: 25 },
      { axis: 'y', at: -8 },
    ] as const;
    expect(catchPoint([], 25.4, 3, 1, null, { guides })).toEqual({ x: 25, y: 3, what: 'guide' });
    expect(catchPoint([], 25.3, -7.8, 1, null, { guides })).toEqual({ x: 25, y: -8, what: 'crossing of guides' });
    expect(catchPoint([], 27, 3, 1, null, { guides })).toBeNull();
  });
});

describe('moving and scaling', () => {
  const item = newItem({
    id: 'a',
    name: 'a',
    kind: 'rectangle',
    x: 10,
    y: 20,
    angle: 0,
    values: { ...(itemKindOf('rectangle').defaults as object), width: 30, height: 10 },
  });
  it('what stands square is scaled in its own measures, what is turned only evenly', () => {
    const box = measure([placeItem(scaledItem(item, 2, 3, 0, 0)!, testArt)]).box!;
    expect([box.x0, box.y0, box.x1, box.y1]).toEqual([-10, 45, 50, 75].map((v) => expect.closeTo(v, 9)));
    const upright = measure([placeItem(scaledItem({ ...item, angle: 90 }, 2, 3, 10, 20)!, testArt)]).box!;
    expect(upright.x1 - upright.x0).toBeCloseTo(20, 6);
    expect(upright.y1 - upright.y0).toBeCloseTo(90, 6);
    expect(scaledItem({ ...item, angle: 30 }, 2, 3, 0, 0)).toBeNull();
    expect(scaledItem({ ...item, angle: 30 }, 2, 2, 0, 0)).not.toBeNull();
  });
  it('a shear keeps its middle and its area', () => {
    for (const way of ['across', 'up'] as const) {
      const m = shear(30, way, 7, -4);
      expect([m.a * 7 + m.c * -4 + m.e, m.b * 7 + m.d * -4 + m.f]).toEqual([7, -4].map((v) => expect.closeTo(v, 9)));
      expect(m.a * m.d - m.b * m.c).toBeCloseTo(1, 12);
    }
  });
  it('places along a line go from end to end, along a ring all round', () => {
    const l = { x: 0, y: 0, segments: [{ k: 'line' as const, x: 30, y: 40 }], closed: false };
    expect(placesAlong(l, 6).map((p) => Math.hypot(p.x, p.y))).toEqual(
      [0, 10, 20, 30, 40, 50].map((v) => expect.closeTo(v, 6)),
    );
    const ring = placesAlong(circlePath(0, 0, 10), 4);
    expect(ring.map((p) => [Math.round(p.x), Math.round(p.y)])).toEqual(
      [
        [10, 0],
        [0, 10],
        [-10, 0],
        [-0, -10],
      ].map(([x, y]) => [expect.closeTo(x, 6), expect.closeTo(y, 6)]),
    );
    expect(ring[0].angle).toBeCloseTo(90, 6);
  });
});

describe('an arc about its centre', () => {
  it('begins at the first point, keeps its radius, and goes the shorter way', () => {
    const p = arcAbout({ x: 10, y: 0 }, { x: 0, y: 0 }, { x: 0, y: 33 });
    expect(p.segments).toEqual([
      { k: 'arc', x: expect.closeTo(0, 9), y: expect.closeTo(10, 9), cx: 0, cy: 0, ccw: true },
    ]);
    expect(arcAbout({ x: 10, y: 0 }, { x: 0, y: 0 }, { x: 0, y: -2 }).segments[0]).toMatchObject({ ccw: false });
    expect(arcAbout({ x: 10, y: 0 }, { x: 0, y: 0 }, { x: 4, y: 0 }).closed).toBe(true);
  });
});
