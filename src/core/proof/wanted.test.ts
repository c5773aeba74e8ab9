import { tryJob } from '../testing/jobs';

/**
 * Random artwork, kinds, cutters and values, a third of the programs spoilt on purpose, judged by the tests' own machine:
 * what it sees too high or too low is a finding, and what is found it sees. `npm run truth -- jobs 5000` tries more of them.
 */
describe('wanted against proof', () => {
  const JOBS = 30;
  it(`nothing is silent, and nothing false, in ${JOBS} jobs`, () => {
    const wrong: string[] = [];
    let seen = 0;
    let quiet = 0;
    for (let seed = 1; seed <= JOBS; seed++) {
      const v = tryJob(seed);
      if (v.wrong) wrong.push(`job ${seed}, ${v.kind} ${v.spoilt}: ${v.wrong} ${JSON.stringify(v.values)}`);
      if (v.high > 0.4 || v.low > 0.4) seen++;
      else if (!v.found.length) quiet++;
    }
    expect(wrong).toEqual([]);
    // The judge can see, and most good programs are left in peace.
    expect(seen).toBeGreaterThan(JOBS / 6);
    expect(quiet).toBeGreaterThan(JOBS / 6);
  });
});
