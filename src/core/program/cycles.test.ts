import fc from 'fast-check';
import { real } from '../testing/real';
import { DWELL, MotionBuilder, RAPID, type Motion } from '../motion/motion';
import { planOn } from '../testing/job';
import { circleLoop } from '../testing/shapes';
import { readMoves } from '../testing/independent';
import { holeAt } from './cycles';
import { dialectOf } from './dialect';
import { parseProgram } from './parser';
import { troubleWith } from './verify';
import { writeProgram } from './writer';

const info = { title: 'holes', datum: { x: 0, y: 0, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };
const part = (motion: Motion) => ({
  tool: 1,
  toolName: 'drill',
  cutNumber: 1,
  cutName: 'holes',
  rpm: 3000,
  turns: true,
  motion,
});
const cycles = dialectOf('metric-cycles');
const plain = dialectOf('metric');
const circles = [circleLoop(64, 1.5, 10, 10), circleLoop(64, 1.5, 40, 12), circleLoop(64, 1.5, 25, 30)];
const drilled = (values: object) =>
  planOn('drilling', { cutter: 'drill-3-118', ...values }, circles, { width: 60, height: 50, thickness: 20 }).plan
    .toolpaths[0].motion;

describe('canned cycles', () => {
  it.each([
    [{ depth: 5, peck: null, dwell: 0 }, 81],
    [{ depth: 5, peck: null, dwell: 0.5 }, 82],
    [{ depth: 5, peck: 1.5, dwell: 0 }, 83],
  ])('one line a hole where the dialect has them: %o as G%i', (values, code) => {
    const m = drilled(values);
    const text = writeProgram([part(m)], info, cycles);
    expect(text.match(new RegExp(`^G99 G${code} `, 'gm'))).toHaveLength(3);
    expect(text).not.toMatch(/^G1 .*Z-/m);
    expect(writeProgram([part(m)], info, plain)).not.toMatch(/G8[123]/);
  });

  it('are spelled out when pecks end with a wait: no cycle does that', () => {
    const text = writeProgram([part(drilled({ depth: 5, peck: 1.5, dwell: 0.5 }))], info, cycles);
    expect(text).not.toMatch(/G8[123]/);
    expect(text.match(/^G4 P0\.5$/gm)).toHaveLength(3);
  });

  it('mean, read back, what is spelled out: any depth, peck and wait', () => {
    const values = fc.record({
      depth: real(0.4, 15),
      peck: fc.option(real(0.2, 8)),
      dwell: fc.constantFrom(0, 0.25, 1),
    });
    fc.assert(
      fc.property(values, fc.constantFrom('mm' as const, 'in' as const), (v, unit) => {
        const m = drilled(v);
        const dialect = { ...cycles, unit, decimals: unit === 'mm' ? 4 : 5 };
        expect(troubleWith(dialect, [part(m)], info)).toBeNull();
        const [s] = parseProgram(writeProgram([part(m)], info, dialect)).sections;
        // No deeper anywhere than the plan, and never back down by rapid into what is not drilled.
        let deep = new Map<string, number>();
        for (let i = 1; i < s.motion.count; i++) {
          const key = `${s.motion.x[i].toFixed(2)}/${s.motion.y[i].toFixed(2)}`;
          const floor = deep.get(key) ?? 0;
          if (s.motion.kind[i] === RAPID)
            expect(s.motion.z[i]).toBeGreaterThan(floor + (floor < 0 ? 0.29 : -1e-3) - 1e-3);
          else if (s.motion.kind[i] !== DWELL) deep = deep.set(key, Math.min(floor, s.motion.z[i]));
        }
        expect([...deep.values()].filter((z) => Math.abs(z + v.depth) < 1e-3)).toHaveLength(3);
      }),
      { numRuns: 60 },
    );
  });

  it('keep their values from hole to hole and come back to where they began after G98', () => {
    const [s] = parseProgram(
      'G21 G90\nT1 M6\nS3000 M3\nG0 X0 Y0 Z5\nG98 G81 X1 Y1 Z-2 R1 F100\nX2 Y1\nG99 X3 Y1\nX4\nG80\nG0 Z10\nM30\n',
    ).sections;
    const at = (x: number) => [...s.motion.z].filter((_, i) => s.motion.x[i] === x);
    expect(at(1)).toEqual([5, 1, -2, 5]);
    expect(at(2)).toEqual([5, 1, -2, 5]);
    expect(at(3)).toEqual([5, 1, -2, 1]);
    expect(at(4).slice(0, 3)).toEqual([1, -2, 1]);
  });

  it('are found only where the moves are just those of a cycle', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 2);
    b.plunge(-1, 100);
    b.line(5, 0, -1, 300);
    b.rapid(5, 0, 2);
    expect(holeAt(b.build(), 1)).toBeNull();
    const uneven = new MotionBuilder();
    uneven.rapid(0, 0, 1);
    for (const z of [-1, -4]) {
      uneven.plunge(z, 100);
      uneven.rapid(0, 0, 1);
      if (z === -1) uneven.rapid(0, 0, -0.7);
    }
    expect(holeAt(uneven.build(), 1)).toBeNull();
  });
});

describe('waiting', () => {
  it('at the floor is written as G4 and read back as part of the motion', () => {
    const text = writeProgram([part(drilled({ depth: 3, peck: null, dwell: 0.75 }))], info, plain);
    const { sections, dwell } = parseProgram(text);
    // The wait for the spindle is not one of them.
    expect(dwell).toBe(plain.spindleWait);
    const waits = [...sections[0].motion.feed].filter((_, i) => sections[0].motion.kind[i] === DWELL);
    expect(waits).toEqual([0.75, 0.75, 0.75]);
    // A reader that knows nothing of waiting sees the same way.
    const low = readMoves(text).filter((m) => m.b[2] < 0);
    expect(low.every((m) => Math.abs(m.b[2] + 3) < 1e-9)).toBe(true);
  });
});
