import { MotionBuilder } from '../motion/motion';
import { newOneSetup } from '../job/job';
import { cutterOf } from '../testing/job';
import { buriedIn, deepestInRows } from './buried';
import { flatField, type HeightField } from '../relief/field';
import type { CheckInput } from './check';
import { buried } from './checks/buried';
import type { PlacedSection } from './placed';

const cutter = cutterOf('flat-6');
const job = newOneSetup('buried');
job.blank = { ...job.blank, width: 60, height: 40, thickness: 10 };
job.cuts = [{ id: 'b', name: 'Finish', kind: 'reliefFinish', enabled: true, items: [], values: {}, overrides: {} }];

/** Rows over all of the blank as far as an X, at a depth. */
function rows(cutId: string, upTo: number, z: number): PlacedSection {
  const b = new MotionBuilder();
  b.lift(5);
  for (let y = 0; y <= 40; y += 2) {
    b.rapid(0, y, 5);
    b.plunge(z, 300);
    b.line(upTo - 3, y, z, 800);
    b.lift(5);
  }
  const motion = b.build();
  return {
    tool: 1,
    cutId,
    motion,
    line: new Int32Array(motion.count),
    firstLine: 0,
    rpm: new Float64Array(motion.count),
  };
}
const preset = { rpm: 12000, feed: 800, plunge: 300, stepDown: 0.2, stepOver: 2 };
function looked(...sections: PlacedSection[]) {
  return lookedFrom(null, ...sections);
}
function lookedFrom(up: HeightField | null, ...sections: PlacedSection[]) {
  const programs = [{ file: 'a', sections, ended: true, toolChanges: 1, dwell: 0 }];
  const input = {
    job,
    programs,
    tools: new Map([[1, cutter]]),
    found: up && { faces: { up, down: null } },
  } as unknown as CheckInput;
  const all = buriedIn(input, (s) => (s.cutId === 'b' ? preset : null));
  return { all, findings: buried.run({ ...input, buried: all }).map((f) => f.text) };
}

it('tells what a cutter goes through at once, as what was cut before leaves it', () => {
  const alone = looked(rows('b', 60, -1.5));
  expect(alone.all).toHaveLength(1);
  expect(alone.all[0].mostly).toBeCloseTo(1.5, 5);
  expect(alone.findings[0]).toMatch(/"Finish" goes through 1\.50? mm of material at once.*Rough the relief before it/);
  // Two thirds of it are roughed to half a millimetre above.
  const roughed = looked(rows('a', 40, -1), rows('b', 60, -1.5));
  expect(roughed.all[0].mostly).toBeCloseTo(0.5, 5);
  expect(roughed.all[0].most).toBeCloseTo(1.5, 5);
  expect(roughed.all[0].x).toBeGreaterThan(39);
  // Rows of a third of its width take a third of a slot: 0.6 mm, and what is uneven.
  expect(deepestInRows(cutter, 0.2, 2)).toBeCloseTo(0.6, 9);
  expect(roughed.findings).toEqual([]);
  // A twentieth of it that nothing has roughed is told as well, with another way on; a hundredth is an edge.
  const far = looked(rows('a', 56, -2), rows('b', 60, -2.5));
  expect(far.all[0].mostly).toBeCloseTo(0.5, 5);
  expect(far.all[0].inPlaces).toBeCloseTo(2.5, 5);
  expect(far.findings[0]).toMatch(
    /goes through up to 2\.50? mm of material at once in some places.*a smaller cutter as well/,
  );
  expect(looked(rows('a', 59.4, -2), rows('b', 60, -2.5)).findings).toEqual([]);
  // What comes after it is no help, and what is gone already is nothing.
  expect(looked(rows('b', 60, -1.5), rows('a', 40, -1)).findings).toHaveLength(1);
  expect(looked(rows('a', 60, -1.5), rows('b', 60, -1.5)).all).toEqual([]);
  // What another has left of the blank is not there to be gone through.
  const [half, gone] = [-1.2, -1.5].map((z) => flatField(60, 40, 1, z));
  expect(lookedFrom(half, rows('b', 60, -1.5)).all[0].most).toBeCloseTo(0.3, 5);
  expect(lookedFrom(gone, rows('b', 60, -1.5)).all).toEqual([]);
});
