import { killedAtWork, LOST_AT_MOST } from './killed';
import { seeded } from '@/core/testing/seeded';

// Two windows at once, on a device that runs other tests beside them, are measured by `npm run crash`, not here.
test('(long) a browser that dies at work loses two seconds at most', async () => {
  const { lost, why } = await killedAtWork(process.env.MIRVAK_URL!, 'one', seeded(20261127));
  expect(why).toBe('');
  expect(lost).toBeLessThanOrEqual(LOST_AT_MOST);
});
