import fc from 'fast-check';
import { real } from '../testing/real';
import { airOf, orderPieces, type RoutePiece } from './order';

const c = real(0, 100);
const stroke = fc.record({ inX: c, inY: c, outX: c, outY: c, reversible: fc.boolean() });
const ring = fc.tuple(c, c, real(0.5, 20), fc.integer({ min: 3, max: 12 })).map(([x, y, r, n]): RoutePiece => {
  const starts = Float64Array.from({ length: 2 * n }, (_, i) =>
    i % 2 ? y + r * Math.sin(((i - 1) * Math.PI) / n) : x + r * Math.cos((i * Math.PI) / n),
  );
  return { inX: starts[0], inY: starts[1], outX: starts[0], outY: starts[1], starts };
});
const work = fc.array(fc.oneof(stroke, ring), { maxLength: 40 });
/** Some pieces wait for others: each for at most one later one, so that there are no circles. */
const held = fc
  .tuple(work, fc.array(fc.nat(), { minLength: 40, maxLength: 40 }), fc.infiniteStream(fc.boolean()))
  .map(([pieces, links, some]) =>
    pieces.map((p, i): RoutePiece =>
      i + 1 < pieces.length && some.next().value ? { ...p, before: i + 1 + (links[i] % (pieces.length - i - 1)) } : p,
    ),
  );
/** The shortest of all orders, by trying every one with every side and start. */
function best(pieces: readonly RoutePiece[]): number {
  const ends = pieces.map((p) =>
    p.starts
      ? Array.from({ length: p.starts.length / 2 }, (_, s) => [
          p.starts![2 * s],
          p.starts![2 * s + 1],
          p.starts![2 * s],
          p.starts![2 * s + 1],
        ])
      : [[p.inX, p.inY, p.outX, p.outY], ...(p.reversible ? [[p.outX, p.outY, p.inX, p.inY]] : [])],
  );
  const go = (done: number, x: number, y: number): number => {
    if (done === (1 << pieces.length) - 1) return 0;
    let least = Infinity;
    for (let i = 0; i < pieces.length; i++) {
      if (done & (1 << i) || pieces.some((p, k) => p.before === i && !(done & (1 << k)))) continue;
      for (const [ax, ay, bx, by] of ends[i])
        least = Math.min(least, Math.hypot(ax - x, ay - y) + go(done | (1 << i), bx, by));
    }
    return least;
  };
  return go(0, 0, 0);
}

describe('order of travel', () => {
  it('takes every piece once, none backwards that may not, and none before what it holds', () => {
    fc.assert(
      fc.property(held, (pieces) => {
        const turns = orderPieces(pieces, 0, 0, { effort: 10 });
        expect(turns.map((t) => t.piece).sort((a, b) => a - b)).toEqual(pieces.map((_, i) => i));
        const at = new Map(turns.map((t, k) => [t.piece, k]));
        pieces.forEach((p, i) => {
          if (p.before !== undefined) expect(at.get(i)!).toBeLessThan(at.get(p.before)!);
          const t = turns[at.get(i)!];
          if (!p.reversible) expect(t.reversed).toBe(false);
          expect(t.start).toBeLessThan((p.starts?.length ?? 2) / 2);
        });
      }),
      { numRuns: 60 },
    );
  });
  it('is the shortest of all orders of a few pieces', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            stroke,
            ring.filter((r) => r.starts!.length <= 10),
          ),
          { minLength: 2, maxLength: 4 },
        ),
        (pieces) => {
          expect(airOf(pieces, orderPieces(pieces, 0, 0), 0, 0)).toBeCloseTo(best(pieces), 6);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('is never longer for having been looked at longer', () => {
    fc.assert(
      fc.property(fc.array(stroke, { minLength: 8, maxLength: 60 }), fc.nat(3), (strokes, hold) => {
        // Some wait for one that comes later in the list.
        const pieces = strokes.map((p, i) =>
          hold && i % (hold + 3) === 0 && i + 5 < strokes.length ? { ...p, before: i + 5 } : p,
        );
        const [short, long] = [0, 30].map((effort) => airOf(pieces, orderPieces(pieces, 3, 4, { effort }), 3, 4));
        expect(long).toBeLessThan(short + 1e-6);
      }),
      { numRuns: 60 },
    );
  });
  it('comes within 5 % of what the best tours of random points are known to have', () => {
    // Johnson and McGeoch: for 1,000 points uniform in a square the best closed tour is about 0.7313 sqrt(n A).
    let state = 11;
    const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
    const lengths = [0, 1, 2].map(() => {
      const points = Array.from({ length: 1000 }, (): RoutePiece => {
        const [x, y] = [100 * random(), 100 * random()];
        return { inX: x, inY: y, outX: x, outY: y };
      });
      return airOf(points, orderPieces(points, 0, 0), 0, 0);
    });
    const mean = (lengths[0] + lengths[1] + lengths[2]) / 3;
    expect(mean / (0.7313 * Math.sqrt(1000) * 100)).toBeLessThan(1.05);
    expect(mean / (0.7313 * Math.sqrt(1000) * 100)).toBeGreaterThan(0.9);
  });
  it('runs nested rings from the inside out, each begun beside the last', () => {
    const rings = Array.from({ length: 6 }, (_, k): RoutePiece => {
      const r = 30 - 5 * k;
      const starts = Float64Array.from({ length: 48 }, (_, i) =>
        i % 2 ? r * Math.sin(((i - 1) * Math.PI) / 24) : r * Math.cos((i * Math.PI) / 24),
      );
      return {
        inX: starts[0],
        inY: starts[1],
        outX: starts[0],
        outY: starts[1],
        starts,
        before: k ? k - 1 : undefined,
      };
    });
    const turns = orderPieces(rings, 5, 0);
    expect(turns.map((t) => t.piece)).toEqual([5, 4, 3, 2, 1, 0]);
    expect(airOf(rings, turns, 5, 0)).toBeCloseTo(25, 6);
  });
  it('names pieces that wait for each other', () => {
    const p = { inX: 0, inY: 0, outX: 1, outY: 0 };
    expect(() =>
      orderPieces(
        [
          { ...p, before: 1 },
          { ...p, before: 0 },
        ],
        0,
        0,
      ),
    ).toThrow(/circle/);
  });
});
