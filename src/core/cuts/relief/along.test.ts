import { formOf } from '../../cutters/cutter';
import { MotionBuilder, FEED } from '../../motion/motion';
import { flatField } from '../../relief/field';
import { cutterOf, planOn } from '../../testing/job';
import { box } from '../../testing/shapes';
import { budgetOf } from '../budget';
import type { CutContext } from '../kind';
import { goAlong } from './along';
import { rowTracks, spiralTracks } from './patterns';

const field = flatField(30, 20, 0.25);
for (let i = 0; i < field.z.length; i++) field.z[i] = -1 - 0.3 * Math.sin((i % field.cols) / 9);
const region = [box(1, 1, 29, 19)];
const preset = { rpm: 12000, feed: 800, plunge: 300, stepDown: 1, stepOver: 0.5 };

it.each(['rows', 'spiral'])('says in good time how long %s will be cut', (pattern) => {
  const told: number[] = [];
  let tracked = 0;
  const { blank } = planOn('skim', {}, [], { width: 30, height: 20, thickness: 6 }).job;
  const c = {
    blank,
    budget: budgetOf(),
    // Before anything is followed.
    expect: (minutes: number) => void told.push(tracked === 1 ? minutes : NaN),
    progress: () => {},
  } as unknown as CutContext;
  const b = new MotionBuilder();
  goAlong(
    b,
    {
      field,
      form: formOf(cutterOf('ball-2')),
      allowance: 0,
      least: -2,
      walls: [],
      region,
      step: 0.5,
      tracks(chord) {
        tracked++;
        return pattern === 'rows' ? rowTracks(region, 30, 0.5, false) : spiralTracks(region, 0.5, true, chord);
      },
      layers: [{ floor: -2, above: 0 }],
      preset,
      links: true,
    },
    c,
    () => {},
  );
  const m = b.build();
  let cut = 0;
  for (let i = 1; i < m.count; i++)
    if (m.kind[i] === FEED) cut += Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
  expect(told).toHaveLength(1);
  expect(told[0] / (cut / preset.feed)).toBeGreaterThan(0.93);
  expect(told[0] / (cut / preset.feed)).toBeLessThan(1.01);
});
