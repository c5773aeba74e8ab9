import { killedAtWork, LOST_AT_MOST } from './killed';
import { seeded } from '@/core/testing/seeded';

test.each([
  ['one', 20261127],
  ['two', 20261128],
] as const)('a browser that dies at work, in %s window or windows, loses two seconds at most', async (kind, seed) => {
  const { lost, why } = await killedAtWork(process.env.MIRVAK_URL!, kind, seeded(seed));
  expect(why).toBe('');
  expect(lost).toBeLessThanOrEqual(LOST_AT_MOST);
});
