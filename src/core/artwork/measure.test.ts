import { testArt } from '../testing/fonts';
import { newItem, placeItem } from './item';
import { distanceBetween, measure } from './measure';
import { itemKindOf } from './registry';
import { catchPoint } from './snap';

const place = (kind: string, values: object, x = 0, y = 0, angle = 0) => placeItem(newItem({ id: 'a', name: 'a', kind, x, y, angle, values: { ...(itemKindOf(kind).defaults as object), ...values } }), testArt);

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
