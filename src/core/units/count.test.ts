import { percentOf, roughly } from './count';

it.each([
  [1, '1 thousand'],
  [86_400, '86 thousand'],
  [999_499, '999 thousand'],
  [999_500, '1 million'],
  [1_240_000, '1.2 million'],
  [10_000_000, '10 million'],
])('says %d as %s', (n, words) => expect(roughly(n)).toBe(words));

it.each([
  [0.01, 3, 0.33],
  [0.12, 0.5, 24],
  [1, 3, 33],
  [0.095, 1, 9.5],
  [3, 3, 100],
  [4, 3, 133],
])('says what part %d is of %d', (part, whole, percent) => expect(percentOf(part, whole)).toBe(percent));
