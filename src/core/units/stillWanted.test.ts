import { axisOf } from '../geometry/medial/axis';
import { makeBranches } from '../geometry/medial/branches';
import { components, normalise, offset, simplifyRegion, type Region } from '../geometry/region';
import { planOn } from '../testing/job';
import { combLoop, starLoop } from '../testing/shapes';
import { stillWanted, whileWanted } from './stillWanted';

const comb = normalise([combLoop(160, 1.4, 9)]);
const star = (points: number): Region => normalise([starLoop(points, 18, 14, 20, 20)]);

/** Long work, each time on something that nobody has worked on before. */
const works: Record<string, (n: number) => unknown> = {
  'a medial axis': (n) => axisOf(components(star(300 + n))[0]),
  'its branches': (n) => makeBranches(axisOf(components(star(340 + n))[0]), 0.004),
  'an offset': (n) => offset(comb, 0.3 + n / 100),
  'an offset inwards': (n) => offset(comb, -0.2 - n / 100),
  'a union': (n) => normalise(Array.from({ length: 40 }, (_, k) => starLoop(40 + n, 6, 4, 3 * k, 5))),
  'dropping corners': (n) => simplifyRegion(star(800 + n), 0.004),
  'a plan': (n) => planOn('vcarve', { limit: 2, endMills: ['flat-3'] }, star(30 + n), { width: 40, height: 40 }).plan,
};

describe('work that is no longer wanted', () => {
  it.each(Object.keys(works))(
    'is given up in the middle of %s, and comes out the same when it is asked for again',
    (name) => {
      const work = works[name];
      let asked = 0;
      const whole = whileWanted(
        () => void asked++,
        () => work(0),
      );
      expect(asked).toBeGreaterThan(5);
      class Enough extends Error {}
      for (const share of [0, 0.2, 0.5]) {
        // Another one of about the same size each time: what was worked out before would not be worked out again.
        const n = 1 + 10 * share;
        let left = Math.floor(share * asked);
        const given = () =>
          whileWanted(
            () => {
              if (--left < 0) throw new Enough();
            },
            () => work(n),
          );
        expect(given).toThrow(Enough);
        left = Infinity;
        expect(given()).toEqual(work(n));
      }
      expect(work(0)).toEqual(whole);
    },
  );
  it('is asked for by the one who began it, and by nobody when it is over', () => {
    const told: string[] = [];
    const many = () => {
      for (let i = 0; i < 100; i++) stillWanted();
    };
    // What was counted before counts no more.
    whileWanted(
      () => {},
      () => stillWanted(64),
    );
    whileWanted(
      () => told.push('outer'),
      () => {
        whileWanted(() => told.push('inner'), many);
        expect(() =>
          whileWanted(() => {
            throw new Error('over');
          }, many),
        ).toThrow('over');
        many();
      },
    );
    many();
    expect(told).toEqual(['inner', 'outer']);
  });
});
