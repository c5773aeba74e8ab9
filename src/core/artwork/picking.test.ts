import fc from 'fast-check';
import { flatten } from '../geometry/path';
import { contains } from '../geometry/region';
import { newItem, placeItem, type PlacedItem } from './item';
import { boundaryOf, distanceTo, filledBy, isInside, isWithin, liesInside, offBlank, touches } from './picking';

const art = { font: () => null };
const rect = (x: number, y: number, width: number, height: number, angle = 0): PlacedItem =>
  placeItem(
    newItem({
      id: 'r',
      name: 'R',
      kind: 'rectangle',
      x,
      y,
      angle,
      values: { width, height, corner: 'square', radius: 0 },
    }),
    art,
  );
const ring = (x: number, y: number, diameter: number): PlacedItem =>
  placeItem(newItem({ id: 'e', name: 'E', kind: 'ellipse', x, y, values: { width: diameter, height: diameter } }), art);

describe('pointing at artwork', () => {
  it('measures to the line, inside and outside alike', () => {
    const r = rect(50, 30, 40, 20);
    expect(distanceTo(r, 50, 30)).toBeCloseTo(10, 9);
    expect(distanceTo(r, 73, 44)).toBeCloseTo(5, 9);
    expect(distanceTo(r, 70, 40)).toBe(0);
    expect(distanceTo(ring(10, 10, 8), 10, 10)).toBeCloseTo(4, 1);
  });

  it('touches a box exactly where sampled points of the outline lie in it', () => {
    const num = fc.integer({ min: 0, max: 60 });
    fc.assert(
      fc.property(
        num,
        num,
        num,
        num,
        fc.constantFrom(0, 30, 45, 90),
        fc.integer({ min: 4, max: 40 }),
        (x0, y0, w, h, angle, size) => {
          const r = rect(30, 30, size, 10, angle);
          const b = { x0, y0, x1: x0 + w + 0.5, y1: y0 + h + 0.5 };
          let sampled = false;
          for (const p of r.paths) {
            const l = flatten(p, 0.01);
            for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
              for (let k = 0; k <= 2000 && !sampled; k++) {
                const [x, y] = [l[j] + ((l[i] - l[j]) * k) / 2000, l[j + 1] + ((l[i + 1] - l[j + 1]) * k) / 2000];
                // A hair off the edges of the box rounding decides.
                sampled = x > b.x0 - 1e-9 && x < b.x1 + 1e-9 && y > b.y0 - 1e-9 && y < b.y1 + 1e-9;
              }
          }
          if (sampled) expect(touches(r, b)).toBe(true);
          else if (touches(r, b))
            expect(touches(r, { x0: b.x0 + 0.02, y0: b.y0 + 0.02, x1: b.x1 - 0.02, y1: b.y1 - 0.02 })).toBe(false);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('knows inside from outside under both rules, as the region of the outlines has it', () => {
    const pair = (fill: 'nonzero' | 'evenodd'): PlacedItem => ({
      ...rect(50, 50, 60, 40),
      paths: [...rect(50, 50, 60, 40).paths, ...rect(60, 50, 60, 20, 30).paths],
      fill,
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 110 }),
        fc.integer({ min: 0, max: 110 }),
        fc.constantFrom('nonzero' as const, 'evenodd' as const),
        (x, y, fill) => {
          const p = pair(fill);
          // On an outline either is right.
          fc.pre(distanceTo(p, x, y) > 1e-6);
          expect(isInside(p, x, y)).toBe(contains(filledBy(p), x, y));
        },
      ),
      { numRuns: 300 },
    );
    expect(
      isInside({ ...rect(5, 5, 4, 4), paths: rect(5, 5, 4, 4).paths.map((q) => ({ ...q, closed: false })) }, 5, 5),
    ).toBe(false);
  });

  it('a box inside of an outline, or around it, touches nothing', () => {
    const r = rect(50, 50, 60, 60);
    expect(touches(r, { x0: 40, y0: 40, x1: 60, y1: 60 })).toBe(false);
    expect(touches(r, { x0: 0, y0: 0, x1: 10, y1: 100 })).toBe(false);
    expect(isWithin(r, { x0: 20, y0: 20, x1: 80, y1: 80 })).toBe(true);
    expect(isWithin(r, { x0: 20.1, y0: 20, x1: 80, y1: 80 })).toBe(false);
  });

  it('a turned thing is within what its outline needs, not what its frame would', () => {
    const r = ring(50, 50, 20);
    const turned = placeItem(
      newItem({ id: 'e', name: 'E', kind: 'ellipse', x: 50, y: 50, angle: 45, values: { width: 20, height: 20 } }),
      art,
    );
    for (const q of [r, turned]) expect(isWithin(q, { x0: 39.99, y0: 39.99, x1: 60.01, y1: 60.01 })).toBe(true);
  });

  it('reaches beyond the blank, or lies off it', () => {
    const things = [
      rect(50, 50, 100, 100),
      rect(95, 50, 20, 10),
      rect(130, 50, 20, 10),
      rect(50, -30, 10, 10),
      rect(50, 50, 142, 2, 45),
    ].map((placed, i) => ({ id: String(i), placed }));
    expect(offBlank(things, { width: 100, height: 100 })).toEqual({ over: ['1', '2', '3', '4'], off: ['2', '3'] });
  });

  it('has a boundary where one outline holds all others, and only there', () => {
    const things = [ring(50, 50, 10), rect(50, 50, 60, 40), ring(60, 50, 10)].map((placed, i) => ({
      id: String(i),
      placed,
    }));
    expect(boundaryOf(things)).toBe('1');
    expect(boundaryOf([...things, { id: '3', placed: ring(100, 50, 10) }])).toBeNull();
    expect(boundaryOf([things[1]])).toBeNull();
    expect(boundaryOf([things[0], things[2]])).toBeNull();
  });

  it('lies inside of an outline, but not of its hole, and not half', () => {
    const frame = filledBy(rect(50, 50, 60, 60));
    expect(liesInside(ring(50, 50, 30), frame)).toBe(true);
    expect(liesInside(ring(80, 50, 30), frame)).toBe(false);
    expect(liesInside(ring(150, 50, 30), frame)).toBe(false);
    expect(liesInside(rect(50, 50, 58, 10, 45), frame)).toBe(true);
    expect(liesInside(rect(50, 50, 90, 10, 45), frame)).toBe(false);
    const hollow = [...frame, Float64Array.of(30, 30, 30, 70, 70, 70, 70, 30)];
    expect(liesInside(ring(50, 50, 30), hollow)).toBe(false);
    expect(liesInside(ring(25, 25, 6), hollow)).toBe(true);
  });
});
