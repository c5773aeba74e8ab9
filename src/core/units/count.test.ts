import { roughly } from './count';

it.each([
  [1, '1 thousand'],
  [86_400, '86 thousand'],
  [999_499, '999 thousand'],
  [999_500, '1 million'],
  [1_240_000, '1.2 million'],
  [10_000_000, '10 million'],
])('says %d as %s', (n, words) => expect(roughly(n)).toBe(words));
