import fc from 'fast-check';
import { real } from '../testing/real';
import { shapeWith } from '../artwork/item';
import { itemKindOf } from '../artwork/registry';
import { boundsOfPaths, circlePath, flatten, placement, transformPath, type Path } from '../geometry/path';
import { shippedFont } from '../testing/fonts';
import { capRound, capWithin, circleOf, roomOutside, roundBaseline } from './round';

const art = { font: () => shippedFont('archivo') };
const lettering = itemKindOf('lettering');
const set = (
  text: string,
  capHeight: number,
  oval: { rx: number; ry: number },
  side: 'outside' | 'inside',
  at: 'top' | 'bottom',
) => {
  const round = { ...oval, side, at };
  return shapeWith(
    'lettering',
    {
      ...(lettering.defaults as Record<string, unknown>),
      text,
      font: 'archivo',
      capHeight,
      round,
      ...roundBaseline(round, round, capHeight),
    },
    art,
  ).paths;
};
const pointsOf = (paths: readonly Path[]) =>
  paths.flatMap((p) => {
    const l = flatten(p, 0.01);
    return Array.from({ length: l.length / 2 }, (_, i) => [l[2 * i], l[2 * i + 1]]);
  });

describe('letters round a circle or an ellipse', () => {
  it('stand wholly on the side that is said, about the top or the bottom, and read from left to right', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 80 }),
        fc.constantFrom(1, 1, 0.7, 1.5),
        fc.constantFrom('outside' as const, 'inside' as const),
        fc.constantFrom('top' as const, 'bottom' as const),
        (rx, k, side, at) => {
          const oval = { rx, ry: rx * k };
          const cap = 0.12 * Math.min(oval.rx, oval.ry);
          const paths = set('HEH', cap, oval, side, at);
          for (const [x, y] of pointsOf(paths)) {
            const q = Math.hypot(x / oval.rx, y / oval.ry);
            if (side === 'outside') expect(q).toBeGreaterThan(1);
            else expect(q).toBeLessThan(1);
            if (at === 'top') expect(y).toBeGreaterThan(0);
            else expect(y).toBeLessThan(0);
          }
          const b = boundsOfPaths(paths)!;
          expect(b.x0 + b.x1).toBeCloseTo(0, 1);
          // The E is the one letter that is not the same from left and right: its arms point to the right.
          const box = (p: Path) => boundsOfPaths([p])!;
          const [first, , last] = [paths[0], paths[1], paths[paths.length - 1]].map(box);
          expect(first.x0).toBeLessThan(last.x0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('keep off the line by the same gap on both sides, whatever their size', () => {
    for (const cap of [4, 8]) {
      const r = (side: 'outside' | 'inside', at: 'top' | 'bottom') =>
        pointsOf(set('H', cap, { rx: 50, ry: 50 }, side, at)).map(([x, y]) => Math.hypot(x, y));
      expect(Math.min(...r('outside', 'top')) - 50).toBeCloseTo(0.3 * cap, 1);
      expect(Math.min(...r('outside', 'bottom')) - 50).toBeCloseTo(0.3 * cap, 1);
      expect(50 - Math.max(...r('inside', 'bottom'))).toBeCloseTo(0.3 * cap, 0);
      expect(50 - Math.max(...r('inside', 'top'))).toBeCloseTo(0.3 * cap, 0);
    }
  });

  it('follow when they grow or change sides, and not when they were set straight since', () => {
    const round = { rx: 30, ry: 30, side: 'inside' as const, at: 'top' as const };
    const v = {
      ...(lettering.defaults as Record<string, unknown>),
      text: 'H',
      font: 'archivo',
      capHeight: 5,
      round,
      ...roundBaseline(round, round, 5),
    };
    expect((lettering.changed!({ ...v, capHeight: 8 }, v) as typeof v & { radius: number }).radius).toBeCloseTo(
      30 - 2.4 - 8,
      9,
    );
    expect(
      (lettering.changed!({ ...v, round: { ...round, side: 'outside' } }, v) as typeof v & { radius: number }).radius,
    ).toBeCloseTo(31.5, 9);
    const straight = { ...v, baseline: 'straight' };
    expect(lettering.changed!({ ...straight, capHeight: 8 }, straight)).toEqual({ ...straight, capHeight: 8 });
  });

  it('find a circle in outlines however they are drawn, and only there', () => {
    const c = circlePath(12, -7, 9);
    expect(circleOf([c])).toMatchObject({ x: 12, y: -7 });
    const many: Path = {
      x: 9,
      y: 0,
      closed: true,
      segments: Array.from({ length: 90 }, (_, i) => ({
        k: 'line' as const,
        x: 9 * Math.cos((2 * Math.PI * (i + 1)) / 90),
        y: 9 * Math.sin((2 * Math.PI * (i + 1)) / 90),
      })),
    };
    expect(circleOf([many])!.r).toBeCloseTo(9, 6);
    expect(circleOf([circlePath(0, 0, 4), circlePath(0, 0, 6)])!.r).toBeCloseTo(6, 6);
    expect(circleOf([transformPath(c, placement(0, 0, 0, 1, 1.05))])).toBeNull();
    const square: Path = {
      x: 1,
      y: 0,
      closed: true,
      segments: [
        { k: 'line', x: 0, y: 1 },
        { k: 'line', x: -1, y: 0 },
        { k: 'line', x: 0, y: -1 },
        { k: 'line', x: 1, y: 0 },
      ],
    };
    expect(circleOf([square])).toBeNull();
    expect(circleOf([{ ...c, closed: false }])).toBeNull();
  });

  it('lie in the middle with their box inside, some room to its corners, and hardly smaller than that allows', () => {
    for (const [rx, ry, width, height] of [
      [60, 40, 5, 1],
      [40, 40, 0.8, 1],
      [100, 20, 30, 4.2],
      [3, 3, 8, 1],
    ]) {
      const cap = capWithin({ rx, ry }, width, height);
      const corner = (c: number) => ((c * width) / 2 / rx) ** 2 + ((c * height) / 2 / ry) ** 2;
      expect(corner(cap)).toBeLessThanOrEqual(0.65);
      expect(corner(cap + (cap < 1 ? 0.011 : 0.51))).toBeGreaterThan(0.63);
    }
  });

  it('get a size that fits: the radius, the room outside, and the way round all bound it', () => {
    const oval = { rx: 40, ry: 40 };
    expect(capRound(oval, 3, 100)).toBe(10);
    expect(capRound(oval, 3, 8)).toBe(5);
    expect(capRound(oval, 40, 100)).toBeLessThanOrEqual((0.4 * Math.PI * 80) / 40);
    expect(capRound(oval, 3, -5)).toBeCloseTo(3, 6);
  });
});

describe('the room round an oval', () => {
  const ring = (r: number, x = 0, y = 0) => circlePath(x, y, r);
  it('is what is left to the nearest outline around or beside it; what lies inside or across is passed over', () => {
    const circle = { rx: 50, ry: 50 };
    expect(roomOutside(circle, [])).toBe(Infinity);
    expect(roomOutside(circle, [ring(60), ring(40), ring(75)])).toBeCloseTo(10, 1);
    expect(roomOutside(circle, [ring(20, 50, 0)])).toBe(Infinity);
    expect(roomOutside(circle, [ring(10, 0, 90)])).toBeCloseTo(30, 1);
    // The middle of a side is nearer than its corners.
    expect(
      roomOutside(circle, [
        {
          x: -70,
          y: -70,
          segments: [
            { k: 'line', x: 70, y: -70 },
            { k: 'line', x: 70, y: 70 },
            { k: 'line', x: -70, y: 70 },
            { k: 'line', x: -70, y: -70 },
          ],
          closed: true,
        },
      ]),
    ).toBeCloseTo(20, 6);
  });
  it('of an ellipse is never told too large', () => {
    fc.assert(
      fc.property(real(5, 60), real(5, 60), real(0, 6.3), real(61, 140), (rx, ry, t, away) => {
        const [x, y, r] = [Math.cos(t) * (away + 8), Math.sin(t) * (away + 8), 3];
        const room = roomOutside({ rx, ry }, [ring(r, x, y)]);
        let least = Infinity;
        for (let k = 0; k < 2000; k++)
          least = Math.min(least, Math.hypot(rx * Math.cos(k / 318.3) - x, ry * Math.sin(k / 318.3) - y) - r);
        expect(room).toBeLessThanOrEqual(least + 0.02);
        expect(room).toBeGreaterThan(0);
      }),
    );
  });
});
