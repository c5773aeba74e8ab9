import { demoSetups } from '../job/demo';
import { cellOf, finestInUse } from './finest';
import { furrowWidth } from '../cutters/detail';

const job = demoSetups['heron-medallion']();

it('is the finest of those that cut the relief, whatever else is on the machine', () => {
  const finest = finestInUse(job)!;
  const used = job.cuts.flatMap((c) => (c.kind.startsWith('relief') ? (c.values.cutters as string[]) : []));
  expect(used).toContain(finest.id);
  for (const c of job.cutters)
    if (used.includes(c.id)) expect(furrowWidth(c)).toBeGreaterThanOrEqual(furrowWidth(finest));
  expect(finestInUse({ ...job, cuts: job.cuts.map((c) => ({ ...c, enabled: false })) })).toBeNull();
  // A finer one that only engraves a line does not count.
  const thin = { ...finest, id: 'thin', name: 'thin' };
  expect(finestInUse({ ...job, cutters: [...job.cutters, thin] })).toEqual(finest);
});
it('asks for nodes as fine as its furrow, and no finer than the pixels of pictures', () => {
  const finest = finestInUse(job)!;
  expect(cellOf(finest, 0)).toBeCloseTo(Math.max(0.02, furrowWidth(finest) / 2), 9);
  expect(cellOf(finest, 1)).toBe(0.5);
});
