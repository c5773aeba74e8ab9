import fc from 'fast-check';
import { real } from '../testing/real';
import { roundInches, roundLengths } from './round';

it.each([
  [18, 0.75],
  [300, 12],
  [200, 8],
  [10, 0.375],
  [2, 0.08],
  [0.5, 0.02],
  [3, 0.125],
  [6, 0.25],
  [0.2, 0.008],
  [0.02, 0.001],
  [0.001, 0.0005],
  [-3, -0.125],
  [0, 0],
])('%s mm is %s in', (mm, inches) => {
  expect(roundInches(mm)).toBeCloseTo(inches * 25.4, 9);
});

it('goes no further than a third, rounds what is round to itself, and never the wrong way round', () => {
  fc.assert(
    fc.property(real(0.01, 2000), real(0.01, 2000), (a, b) => {
      const r = roundInches(a);
      expect(Math.abs(r / a - 1)).toBeLessThanOrEqual(0.34);
      expect(roundInches(r)).toBeCloseTo(r, 9);
      if (a < b) expect(r).toBeLessThanOrEqual(roundInches(b) + 1e-9);
    }),
  );
});

it('rounds the lengths among values, nested ones too, and nothing else', () => {
  const fields = [
    { kind: 'length', key: 'depth', label: 'Depth' },
    { kind: 'length', key: 'tabs.height', label: 'Tab height' },
    { kind: 'length', key: 'limit', label: 'Limit', optional: 'None' },
    { kind: 'number', key: 'ramp', label: 'Ramp angle' },
  ] as const;
  const values = { depth: 2, ramp: 3, limit: null, tabs: { height: 3, count: 4 } };
  expect(roundLengths(values, fields, 'mm')).toBe(values);
  expect(roundLengths(values, fields, 'in')).toEqual({
    depth: 0.08 * 25.4,
    ramp: 3,
    limit: null,
    tabs: { height: 3.175, count: 4 },
  });
});
