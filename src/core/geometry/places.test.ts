import fc from 'fast-check';
import { Places } from './places';

test('places are one where both coordinates are, out to kilometres, and else never', () => {
  const unit = fc.oneof(fc.integer({ min: -3, max: 3 }), fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }));
  const near = fc.tuple(unit, unit).chain(([x, y]) =>
    fc.array(
      fc
        .tuple(fc.integer({ min: -1, max: 1 }), fc.integer({ min: -1, max: 1 }))
        .map(([dx, dy]) => [x + dx, y + dy] as const),
      { minLength: 1, maxLength: 12 },
    ),
  );
  fc.assert(
    fc.property(fc.array(near, { minLength: 1, maxLength: 5 }), (groups) => {
      const all = groups.flat();
      const places = new Places(all.length);
      const names = all.map(([x, y]) => places.of(x / 1e5, y / 1e5));
      const plain = new Map<string, number>();
      for (const [x, y] of all) if (!plain.has(`${x} ${y}`)) plain.set(`${x} ${y}`, plain.size);
      expect(names).toEqual(all.map(([x, y]) => plain.get(`${x} ${y}`)));
      expect(places.count).toBe(plain.size);
    }),
    { numRuns: 400 },
  );
});
