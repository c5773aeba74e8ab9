import fc from 'fast-check';
import { real } from '@/core/testing/real';
import { partOf, servesAs, spread } from './spread';

const cases = fc.record({ nodes: fc.integer({ min: 3, max: 9000 }), share: real(0.05, 1) }).chain(({ nodes, share }) =>
  fc.record({
    nodes: fc.constant(nodes),
    count: fc.constant(Math.max(2, Math.round(share * nodes))),
    ends: fc.tuple(fc.integer({ min: 0, max: nodes - 1 }), fc.integer({ min: 0, max: nodes - 1 })),
  }),
);

it('spreads vertices over all nodes, first and last among them, and never back', () => {
  fc.assert(
    fc.property(cases, fc.boolean(), ({ nodes, count, ends: [a, b] }, whole) => {
      const part = whole || a === b ? null : { from: Math.min(a, b), to: Math.max(a, b) };
      const at = spread(count, nodes, part);
      expect(at.length).toBe(count);
      expect(at[0]).toBe(0);
      expect(at[count - 1]).toBe(nodes - 1);
      for (let i = 1; i < count; i++) expect(at[i]).toBeGreaterThanOrEqual(at[i - 1]);
    }),
  );
});
it('draws what is seen of a long field as finely as its nodes lie, or with most of what there is', () => {
  expect(spread(900, 6000, { from: 2000, to: 2500 }).filter((n) => n >= 2000 && n < 2500)).toEqual(
    Array.from({ length: 500 }, (_, i) => 2000 + i),
  );
  expect(spread(900, 6000, { from: 0, to: 3000 }).filter((n) => n < 3000).length).toBe(675);
});
it('knows which nodes are seen, and when all of them are alike', () => {
  const part = partOf({ from: 40, to: 60 }, 0, 0.1, 3001)!;
  expect(part).toEqual({ from: 370, to: 630 });
  expect(partOf({ from: -50, to: 20 }, 0, 0.1, 3001)).toEqual({ from: 0, to: 305 });
  for (const seen of [null, { from: -Infinity, to: Infinity }, { from: 0, to: 300 }, { from: 400, to: 500 }])
    expect(partOf(seen, 0, 0.1, 3001)).toBeNull();
});
it('keeps what is drawn for a view that is about the same', () => {
  const drawn = { from: 100, to: 300 };
  expect(servesAs(drawn, { from: 120, to: 290 })).toBe(true);
  expect(servesAs(drawn, { from: 90, to: 290 })).toBe(false);
  expect(servesAs(drawn, { from: 150, to: 200 })).toBe(false);
  expect(servesAs(drawn, null)).toBe(false);
  expect(servesAs(null, null)).toBe(true);
});
