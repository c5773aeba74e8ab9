import { normalise, type Loop } from '../../geometry/region';
import { readMoves } from '../../testing/independent';
import { planOn, programOf } from '../../testing/job';
import { box, circleLoop, starLoop } from '../../testing/shapes';

const R = 1.5;
const STEP = 0.6;
const CELL = 0.04;
/** Where the rim is looked at: a little inside, so that the grid's steps do not count. */
const RIM = R - 0.05;

/** Angles (degrees of the rim that stand in material) along all level feeds of a program, on a grid of the test's own. */
function engagement(pattern: string, loops: Loop[]): { angles: number[]; uncut: number } {
  const region = normalise(loops, 'evenodd');
  const { plan, job } = planOn(
    'area',
    { cutters: ['flat-3'], depth: 1, stepDown: 1, stepOver: STEP, pattern },
    region,
    { width: 60, height: 60, thickness: 6 },
  );
  const n = Math.ceil(60 / CELL);
  const cut = new Uint8Array(n * n);
  const angles: number[] = [];
  for (const { a, b, rapid } of readMoves(programOf(plan, job, 'metric').text)) {
    // A helix counts as cut to the floor: what it leaves under it is thinner than its pitch.
    if (rapid || Math.min(a[2], b[2]) > -1e-3) continue;
    const steps = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / 0.15));
    for (let k = 1; k <= steps; k++) {
      const [x, y] = [a[0] + ((b[0] - a[0]) * k) / steps, a[1] + ((b[1] - a[1]) * k) / steps];
      if (Math.max(a[2], b[2]) < -0.999) {
        let standing = 0;
        for (let q = 0; q < 120; q++)
          standing += cut[
            Math.round((y + RIM * Math.sin((q * Math.PI) / 60)) / CELL) * n +
              Math.round((x + RIM * Math.cos((q * Math.PI) / 60)) / CELL)
          ]
            ? 0
            : 3;
        angles.push(standing);
      }
      for (let r = Math.ceil((y - R) / CELL); r * CELL <= y + R; r++) {
        const half = Math.sqrt(Math.max(0, R * R - (r * CELL - y) ** 2));
        cut.fill(1, r * n + Math.ceil((x - half) / CELL), r * n + Math.floor((x + half) / CELL) + 1);
      }
    }
  }
  let uncut = 0;
  for (let r = 0; r < n; r++) for (let c = 0; c < n; c++) uncut += cut[r * n + c] ? 0 : CELL * CELL;
  return { angles: angles.sort((p, q) => p - q), uncut };
}

/** Of a straight way with this step-over. */
const straight = (Math.acos(1 - STEP / R) * 180) / Math.PI;

test.each([
  ['a box', [box(5, 5, 42, 26)]],
  ['(long) a ring', [circleLoop(200, 14, 20, 20), circleLoop(100, 7, 18, 22)]],
  ['a star', [starLoop(7, 18, 8, 30, 30)]],
  [
    '(long) an angle with a hole',
    [Float64Array.from([2, 2, 42, 2, 42, 12, 14, 12, 14, 40, 2, 40]), circleLoop(60, 2, 9, 9)],
  ],
])('the rim stands no deeper in material than on a straight way: %s', (_name, loops) => {
  const even = engagement('trochoidal', loops);
  const plain = engagement('contours', loops);
  const at = (list: number[], f: number) => list[Math.floor(f * (list.length - 1))];
  // The first slot of a contour engages half the rim; here only the last bit of a corner engages more than a straight way.
  expect(at(even.angles, 0.998)).toBeLessThanOrEqual(straight);
  expect(at(plain.angles, 0.998)).toBeGreaterThan(100);
  expect(Math.abs(even.uncut - plain.uncut)).toBeLessThan(0.1);
});

test('a slot hardly wider than the cutter is cleared along its contours, and a wide place beside it is not', () => {
  const both = engagement('trochoidal', [box(2, 2, 20, 3.2), box(2, 20, 20, 20)]);
  const plain = engagement('contours', [box(2, 2, 20, 3.2), box(2, 20, 20, 20)]);
  expect(Math.abs(both.uncut - plain.uncut)).toBeLessThan(0.1);
});
