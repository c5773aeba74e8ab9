import fc from 'fast-check';
import { real } from '../testing/real';
import { cutOut, distanceToLine, readMoves, testCone, testFlat } from '../testing/independent';
import { cutterOf } from '../testing/job';
import { seeded } from '../testing/seeded';
import { cutAlong } from './along';
import { lineNear } from './lookup';
import { placeProgram } from './placed';

const tools = new Map([
  [1, cutterOf('flat-3')],
  [2, cutterOf('v-12-60-0')],
]);
const head = 'G21 G90 G17\nT1 M6\nS12000 M3\n';
const place = (text: string) => placeProgram('a.nc', text, { x: 0, y: 0, z: 0 }, ['a', 'b']);

/** At how many of 241 places along a line the section and the machine of the tests differ. */
function differing(text: string, [x0, y0, x1, y1]: number[]): number {
  const n = 241;
  const z = cutAlong([place(text)], tools, { x0, y0, x1, y1 }, n);
  const cloud = { x: new Float64Array(n), y: new Float64Array(n), z: new Float64Array(n) };
  for (let i = 0; i < n; i++)
    [cloud.x[i], cloud.y[i]] = [x0 + ((x1 - x0) * i) / (n - 1), y0 + ((y1 - y0) * i) / (n - 1)];
  // The machine of the tests wants its points in order of X.
  const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => cloud.x[a] - cloud.x[b]);
  const sorted = {
    x: Float64Array.from(order, (i) => cloud.x[i]),
    y: Float64Array.from(order, (i) => cloud.y[i]),
    z: new Float64Array(n),
  };
  cutOut(sorted, readMoves(text), { 1: testFlat(3), 2: testCone(60, 0, 12) });
  // On the very rim of a flat cutter rounding decides: a few places may differ.
  let differ = 0;
  order.forEach((i, k) => (differ += Math.abs(sorted.z[k] - z[i]) > 0.002 ? 1 : 0));
  return differ;
}

describe('a section cut along its line', () => {
  it('is what the tests\u2019 own machine cuts there, for lines in any direction', () => {
    const text = `${head}G0 X10 Y10 Z5\nG1 Z-2 F300\nG1 X50 Y30 F900\nG3 X30 Y50 I-15 J5\nG1 X10 Y10 Z-1\nG0 Z5\nT2 M6\nG0 X20 Y40\nG1 Z-3 F300\nG1 X45 Y12 Z-1.5 F700\nG0 Z5\nM5\nM30\n`;
    const at = real(0, 60);
    fc.assert(
      fc.property(
        fc.oneof(
          fc.tuple(at, at, at, at),
          fc.constantFrom([0, 20, 60, 20], [30, 0, 30, 60], [0, 0, 60, 60], [60, 60, 0, 0], [10, 10, 50, 30]),
        ),
        ([x0, y0, x1, y1]) => {
          fc.pre(Math.hypot(x1 - x0, y1 - y0) > 1);
          expect(differing(text, [x0, y0, x1, y1])).toBeLessThanOrEqual(4);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('(long) is so for thousands of moves too, of which few come near', () => {
    // Scribbles that stay where they are for hundreds of moves, and then go elsewhere.
    const random = seeded(5);
    const words: string[] = [];
    const lines: number[][] = [
      [0, 0, 60, 60],
      [60, 7, 3, 41],
    ];
    for (let k = 0; k < 5; k++) {
      const [x, y] = [60 * random(), 60 * random()];
      // Lines that pass by them so closely that they are cut all the same.
      lines.push([0, y - 0.4, 60, y - 0.4], [x + 5.4, 60, x + 5.4, 0]);
      words.push('G0 Z2', `X${x.toFixed(3)} Y${y.toFixed(3)}`);
      for (let i = 0; i < 2100; i++)
        words.push(
          `G1 X${(x + 5 * random()).toFixed(3)} Y${(y + 5 * random()).toFixed(3)} Z${(-2 * random()).toFixed(3)} F900`,
        );
    }
    const text = `${head.replace('T1', 'T2')}G0 Z5\n${words.join('\n')}\nG0 Z5\nM30\n`;
    expect(words.length).toBeGreaterThan(10 * 1024);
    for (const line of lines) expect(differing(text, line)).toBe(0);
    const m = place(text).sections[0].motion;
    for (let k = 0; k < 60; k++) {
      const [x, y] = [62 * random(), 62 * random()];
      let least = 0.5;
      for (let i = 1; i < m.count; i++)
        if (m.kind[i] !== 0)
          least = Math.min(least, distanceToLine(Float64Array.of(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i]), x, y));
      const found = lineNear([place(text)], x, y, 0.5);
      expect(found ? distanceToLine(found.points, x, y) : 0.5).toBeCloseTo(least, 9);
    }
  });

  it('sees a groove that is narrower than any cell of a proof', () => {
    const text = `${head}G0 X20 Y0 Z5\nG1 Z-1 F300\nG1 Y40 F900\nG0 Z5\nM30\n`.replace('T1', 'T2');
    const z = cutAlong([place(text)], tools, { x0: 19, y0: 20, x1: 21, y1: 20 }, 2001);
    // 60 degrees included: the walls fall by 1 / tan 30.
    for (let i = 0; i < z.length; i++)
      expect(z[i]).toBeCloseTo(Math.min(0, -1 + Math.abs(19 + i / 1000 - 20) / Math.tan(Math.PI / 6)), 4);
  });

  it('of nothing, or of no length, is the top face', () => {
    expect([...cutAlong([], tools, { x0: 0, y0: 0, x1: 10, y1: 0 }, 3)]).toEqual([0, 0, 0]);
    expect([...cutAlong([place(`${head}G0 Z5\nM30\n`)], tools, { x0: 4, y0: 4, x1: 4, y1: 4 }, 2)]).toEqual([0, 0]);
  });
});
