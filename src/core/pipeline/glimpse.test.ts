import { demoSetups } from '../job/demo';
import { testArt } from '../testing/fonts';
import { planCut, wantedOf } from './planning';
import { glimpseOf, placePrograms, prove } from './proving';
import { writePrograms } from './programs';

const job = demoSetups['keeper-plate']();
const plans = new Map(job.cuts.map((c) => [c.id, planCut(job, c, testArt)]));
const programs = writePrograms(job, plans);
const placed = placePrograms(job, programs);

test('a glimpse is the proof at every fourth node', () => {
  const glimpse = glimpseOf(job, placed, programs.tools, 0.8)!;
  const { field } = prove(job, placed, programs.tools, plans, 0.2);
  let cut = 0;
  for (let r = 0; r < glimpse.rows; r++)
    for (let c = 0; c < glimpse.cols; c++) {
      const z = glimpse.z[r * glimpse.cols + c];
      expect(Math.abs(z - field.z[4 * r * field.cols + 4 * c])).toBeLessThan(1e-6);
      if (z < 0) cut++;
    }
  expect(cut).toBeGreaterThan(500);
});

test('there is none of what is proven before anybody has looked', () => {
  const few = job.cuts.filter((c) => plans.get(c.id)!.toolpaths.reduce((n, t) => n + t.motion.count, 0) < 1000);
  expect(few.length).toBeGreaterThan(0);
  const alone = { ...job, cuts: few };
  const written = writePrograms(alone, plans);
  expect(glimpseOf(alone, placePrograms(alone, written), written.tools, 0.8)).toBeNull();
});

test('what a cut wants is known as long as neither its plan nor anything it depends on changes', () => {
  const [first, second] = job.cuts;
  const before = wantedOf(job, testArt, plans);
  const deeper = { ...job, cuts: [first, { ...second, values: { ...second.values, beyond: 0.07 } }] };
  const now = wantedOf(deeper, testArt, new Map([...plans, [second.id, planCut(deeper, deeper.cuts[1], testArt)]]));
  expect(now.get(first.id)).toBe(before.get(first.id));
  expect(now.get(second.id)).not.toBe(before.get(second.id));
  const other = { ...job, items: job.items.map((i) => ({ ...i, x: i.x + 1 })) };
  for (const cut of job.cuts) expect(wantedOf(other, testArt, plans).get(cut.id)).not.toBe(before.get(cut.id));
  // What lacks its font is asked again: it may come.
  const bare = { font: () => null };
  const [a, b] = [wantedOf(job, bare), wantedOf(job, bare)];
  expect(a.get(first.id)).not.toBe(b.get(first.id));
});
