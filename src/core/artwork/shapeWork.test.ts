import fc from 'fast-check';
import { real } from '../testing/real';
import { flatten, type Path } from '../geometry/path';
import { normalise, regionArea } from '../geometry/region';
import { testArt } from '../testing/fonts';
import { box, circleLoop } from '../testing/shapes';
import { align, around, distribute, mirrored, ringPlaces, rowPlaces, turnedAbout, wrap } from './arrange';
import { enterable, gapsOf, histogram, narrowest, widths } from './gauge';
import { itemRegion, newItem, placeItem } from './item';
import { itemKindOf } from './registry';
import { apart, combine, offsetOutlines, widened } from './shapeWork';

const item = (kind: string, values: object, place: object = {}) =>
  newItem({ id: kind, name: kind, kind, values: { ...(itemKindOf(kind).defaults as object), ...values }, ...place });
const area = (paths: Path[]) =>
  regionArea(
    normalise(
      paths.map((p) => flatten(p, 1e-4)),
      'evenodd',
    ),
  );
const disc = (d: number, x = 0) => item('ellipse', { width: d, height: d }, { x });
const square = (s: number, x = 0) => item('rectangle', { width: s, height: s }, { x });
/** What two discs of radius r share, their centres d apart. */
const lens = (r: number, d: number) => 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);

describe('combined outlines', () => {
  const two = [disc(20), disc(20, 12)];
  const shared = lens(10, 12);
  it.each([
    ['unite', 200 * Math.PI - shared, 4],
    ['subtract', 100 * Math.PI - shared, 4],
    ['intersect', shared, 4],
    ['exclude', 200 * Math.PI - 2 * shared, 8],
  ] as const)('%s: two discs come back with the right area, as arcs', (how, want, most) => {
    const paths = combine(two, how, testArt);
    expect(Math.abs(area(paths) - want)).toBeLessThan(0.05);
    const segments = paths.flatMap((p) => p.segments);
    expect(segments.length).toBeLessThanOrEqual(most);
    expect(segments.every((s) => s.k === 'arc')).toBe(true);
  });

  it('subtract leaves nothing where all is covered, and text can be combined with shapes', () => {
    expect(combine([disc(5), disc(20)], 'subtract', testArt)).toEqual([]);
    const plate = combine([square(60), item('lettering', { text: 'OK', capHeight: 12 })], 'subtract', testArt);
    const letters = regionArea(itemRegion(item('lettering', { text: 'OK', capHeight: 12 }), testArt, 1e-3));
    expect(Math.abs(area(plate) - (3600 - letters))).toBeLessThan(0.5);
  });

  it('offsets in and out, with each kind of corner, in several steps', () => {
    const s = square(20);
    expect(area(offsetOutlines([s], 3, 1, 'sharp', testArt)[0])).toBeCloseTo(26 * 26, 3);
    expect(Math.abs(area(offsetOutlines([s], 3, 1, 'round', testArt)[0]) - (26 * 26 - (4 - Math.PI) * 9))).toBeLessThan(
      0.15,
    );
    const inner = offsetOutlines([s], -3, 4, 'sharp', testArt);
    expect(inner.map((p) => Math.round(area(p)))).toEqual([196, 64, 4]);
    const grown = offsetOutlines([disc(20)], 5, 1, 'round', testArt)[0];
    expect(grown[0].segments.length).toBeLessThanOrEqual(2);
    expect(Math.abs(area(grown) - 225 * Math.PI)).toBeLessThan(0.2);
  });

  it('inks lines with a width, and takes a drawing apart', () => {
    const line = item('drawing', { paths: [{ x: 0, y: 0, segments: [{ k: 'line', x: 30, y: 0 }], closed: false }] });
    expect(Math.abs(area(widened(line, 4, testArt)) - (120 + 4 * Math.PI))).toBeLessThan(0.12);
    const pieces = apart(item('lettering', { text: 'Lock', font: 'zilla-slab' }), testArt);
    expect(pieces).toHaveLength(4);
  });

  it('area of a union and of what is shared add up, for any two shapes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 9 }),
        fc.integer({ min: 3, max: 9 }),
        real(-30, 30),
        real(-180, 180),
        (n, m, x, angle) => {
          const a = item('polygon', { sides: n, radius: 20 });
          const b = item('star', { points: m, radius: 22 }, { x, angle });
          const sum = [a, b].reduce((s, i) => s + regionArea(itemRegion(i, testArt, 1e-3)), 0);
          expect(
            Math.abs(area(combine([a, b], 'unite', testArt)) + area(combine([a, b], 'intersect', testArt)) - sum),
          ).toBeLessThan(0.5);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('arranging', () => {
  const boxes = [
    { id: 'a', box: { x0: 0, y0: 0, x1: 10, y1: 4 } },
    { id: 'b', box: { x0: 12, y0: 3, x1: 14, y1: 9 } },
    { id: 'c', box: { x0: 40, y0: -5, x1: 50, y1: 5 } },
  ];
  it('aligns to a box', () => {
    expect(align(boxes, 'right', { x0: 0, y0: 0, x1: 100, y1: 50 }).map((s) => s.dx)).toEqual([90, 86, 50]);
    expect(align(boxes, 'middle', { x0: 0, y0: 0, x1: 100, y1: 50 }).map((s) => s.dy)).toEqual([23, 19, 25]);
    expect(around(boxes.map((b) => b.box))).toEqual({ x0: 0, y0: -5, x1: 50, y1: 9 });
  });
  it('distributes so that gaps are equal and the outermost stay', () => {
    const moved = distribute(boxes, 'x');
    expect(moved.map((m) => m.dx)).toEqual([0, 12, 0]);
    expect(distribute(boxes.slice(0, 2), 'x')).toEqual([]);
  });
  it('makes rows and rings', () => {
    expect(rowPlaces(3, 2, 10, 20)).toHaveLength(5);
    const ring = ringPlaces({ x: 10, y: 0, angle: 0 }, 4, 0, 0, 360, true);
    expect(ring[1].x).toBeCloseTo(0, 9);
    expect(ring[1].y).toBeCloseTo(10, 9);
    expect(ring.map((p) => p.angle)).toEqual([0, 90, 180, -90]);
    expect(ringPlaces({ x: 10, y: 0, angle: 0 }, 3, 0, 0, 180, false)[2].x).toBeCloseTo(-10, 9);
    expect(wrap(540)).toBe(180);
  });
  it('mirrors and turns what is drawn, not only its place', () => {
    fc.assert(
      fc.property(
        real(-170, 170),
        fc.boolean(),
        fc.constantFrom('upright' as const, 'level' as const),
        real(-200, 200),
        (angle, mirror, axis, degrees) => {
          const i = item('lettering', { text: 'R', capHeight: 10 }, { x: 7, y: -3, angle, mirror });
          const points = (q: typeof i) =>
            placeItem(q, testArt)
              .paths.flatMap((p) => [p, ...p.segments])
              .map((s) => [s.x, s.y]);
          const before = points(i);
          points(mirrored(i, axis, 2, 5)).forEach(([x, y], k) => {
            expect(x).toBeCloseTo(axis === 'upright' ? 4 - before[k][0] : before[k][0], 6);
            expect(y).toBeCloseTo(axis === 'upright' ? before[k][1] : 10 - before[k][1], 6);
          });
          const t = (degrees * Math.PI) / 180;
          points(turnedAbout(i, degrees, 2, 5)).forEach(([x, y], k) => {
            const [dx, dy] = [before[k][0] - 2, before[k][1] - 5];
            expect(x).toBeCloseTo(2 + dx * Math.cos(t) - dy * Math.sin(t), 6);
            expect(y).toBeCloseTo(5 + dx * Math.sin(t) + dy * Math.cos(t), 6);
          });
        },
      ),
      { numRuns: 20 },
    );
  });
});

describe('the gap gauge', () => {
  it('finds the width of strokes and of the gaps between them', () => {
    const bars = normalise([box(0, 0, 40, 3), box(0, 4.5, 40, 9)]);
    const strokes = widths(bars);
    expect(narrowest(strokes)!.width).toBeCloseTo(3, 6);
    expect(Math.max(...strokes.map((p) => p.width))).toBeCloseTo(4.5, 6);
    const gaps = widths(gapsOf(bars, 2));
    const n = narrowest(gaps)!;
    expect(n.width).toBeCloseTo(1.5, 2);
    expect(n.y).toBeCloseTo(3.75, 1);
  });
  it('says what a cutter can enter, and counts lengths by width', () => {
    const bars = normalise([box(0, 0, 40, 3), box(0, 10, 40, 16)]);
    expect(enterable(bars, 1.4)).toBeGreaterThan(0.98);
    const wide = (40 * 6 - (4 - Math.PI) * 4) / (40 * 9);
    expect(enterable(bars, 2)).toBeCloseTo(wide, 3);
    expect(enterable(bars, 4)).toBe(0);
    const h = histogram(widths(bars), 6);
    expect(h.step).toBeCloseTo(1, 6);
    expect(h.length.reduce((a, b) => a + b, 0)).toBeCloseTo(h.length[5] + h.length[2] + h.length[3], 6);
  });
  it('of a ring is its band all round', () => {
    const ring = normalise([circleLoop(400, 20), circleLoop(400, 15)], 'evenodd');
    for (const p of widths(ring)) expect(Math.abs(p.width - 5)).toBeLessThan(0.01);
    expect(widths(ring).reduce((s, p) => s + p.length, 0)).toBeCloseTo(2 * Math.PI * 17.5, 0);
  });
});
