import { formOf } from '../../cutters/cutter';
import { MotionBuilder, FEED } from '../../motion/motion';
import { flatField } from '../../relief/field';
import { cutterOf, planOn } from '../../testing/job';
import { box } from '../../testing/shapes';
import { budgetOf } from '../budget';
import type { CutContext, Expected } from '../kind';
import { goAlong } from './along';
import { rowTracks, spiralTracks } from './patterns';

const field = flatField(30, 20, 0.25);
for (let i = 0; i < field.z.length; i++) field.z[i] = -1 - 0.3 * Math.sin((i % field.cols) / 9);
const region = [box(1, 1, 29, 19)];
const preset = { rpm: 12000, feed: 800, plunge: 300, stepDown: 1, stepOver: 0.5 };

it.each(['rows', 'spiral'])('says in good time how long %s will be cut, and of how many moves', (pattern) => {
  const told: Expected[] = [];
  let begun = false;
  const { blank } = planOn('skim', {}, [], { width: 30, height: 20, thickness: 6 }).job;
  const c = {
    blank,
    budget: budgetOf(),
    expect: (more: Expected) => void told.push(begun ? { minutes: NaN, moves: NaN } : more),
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
      step: 0.03,
      tracks(chord) {
        return pattern === 'rows' ? rowTracks(region, 30, 0.03, false) : spiralTracks(region, 0.03, true, chord);
      },
      layers: [{ floor: -2, above: 0 }],
      preset,
      links: true,
    },
    c,
    () => void (begun = true),
  );
  const m = b.build();
  let cut = 0;
  for (let i = 1; i < m.count; i++)
    if (m.kind[i] === FEED) cut += Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
  expect(told).toHaveLength(1);
  const { minutes, moves } = told[0];
  expect(minutes / (cut / preset.feed)).toBeGreaterThan(0.93);
  expect(minutes / (cut / preset.feed)).toBeLessThan(1.01);
  expect(moves / m.count).toBeGreaterThan(0.85);
  expect(moves / m.count).toBeLessThan(1.15);
});
