import { formOf } from '../../cutters/cutter';
import { MotionBuilder, FEED } from '../../motion/motion';
import { flatField } from '../../relief/field';
import { cutterOf, planOn } from '../../testing/job';
import { box } from '../../testing/shapes';
import { budgetOf } from '../budget';
import type { CutContext, Expected } from '../kind';
import { sinkOf } from '../easing';
import { goAlong } from './along';
import { rowTracks, spiralTracks } from './patterns';

const [WIDTH, HEIGHT, STEP] = [30, 20, 0.08];
const region = [box(1, 1, 29, 19)];
const preset = { rpm: 12000, feed: 800, plunge: 100, stepDown: 1, stepOver: STEP };
const patterns = {
  rows: () => rowTracks(region, 30, STEP, false),
  spiral: (chord: number) => spiralTracks(region, STEP, true, chord),
};
/** Waves on which it goes up and down at up to 45 degrees, with valleys that are narrow for a ball of 2 mm. */
const waves = flatField(WIDTH, HEIGHT, 0.1);
for (let i = 0; i < waves.z.length; i++) waves.z[i] = -1 - 0.6 * Math.sin(((i % waves.cols) * waves.cell) / 0.6);
let nth = 0;

it.each([
  ['rows', 'off', 1],
  ['rows', 'strong', 1],
  ['spiral', 'gentle', 1],
  ['rows', 'gentle', 2],
] as const)(
  'says in good time how long %s will be cut, eased: %s, in layers: %d, and of how many moves',
  (pattern, ease, layers) => {
    nth++;
    const told: Expected[] = [];
    let begun = false;
    const { blank } = planOn('skim', {}, [], { width: WIDTH, height: HEIGHT, thickness: 6 }).job;
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
        // A surface of its own: nothing is known from before.
        field: { ...waves, z: waves.z.map((h) => h - 1e-3 * nth) },
        form: formOf(cutterOf('ball-2')),
        allowance: 0,
        least: -2,
        walls: [],
        region,
        step: STEP,
        tracks: patterns[pattern],
        layers:
          layers === 1
            ? [{ floor: -2, above: 0 }]
            : [
                { floor: -1, above: 0 },
                { floor: -2, above: -1 },
              ],
        preset,
        sink: sinkOf(ease, preset.plunge),
        ease,
        links: true,
      },
      c,
      () => void (begun = true),
    );
    const m = b.build();
    let minutes = 0;
    for (let i = 1; i < m.count; i++)
      if (m.kind[i] === FEED) {
        minutes += Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]) / m.feed[i];
      }
    expect(told).toHaveLength(1);
    expect(told[0].minutes / minutes).toBeGreaterThan(0.93);
    expect(told[0].minutes / minutes).toBeLessThan(1.07);
    expect(told[0].moves / m.count).toBeGreaterThan(0.85);
    expect(told[0].moves / m.count).toBeLessThan(1.15);
  },
);
