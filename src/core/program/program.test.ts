import fc from 'fast-check';
import { real } from '../testing/real';
import { MotionBuilder, RAPID, withoutArcs, type Motion } from '../motion/motion';
import { readMoves } from '../testing/independent';
import { dialects } from './dialect';
import { parseProgram, ProgramError } from './parser';
import { writeProgram } from './writer';

const info = {
  title: 'A test',
  datum: { x: 12.5, y: -3, z: -6 },
  safeHeight: 10,
  park: { x: 0, y: 0 },
  remarks: ['caf\u00e9 (and brackets)'],
};
const part = (motion: Motion, tool = 1, turns = true) => ({
  tool,
  toolName: 'End mill',
  cutNumber: 1,
  cutName: 'Cut',
  rpm: turns ? 12000 : 0,
  turns,
  motion,
});

const coordinate = real(-200, 200);
const motions = fc
  .array(
    fc.tuple(fc.constantFrom('rapid', 'line', 'arc', 'plunge'), coordinate, coordinate, real(-20, 5), real(0.3, 6)),
    { minLength: 1, maxLength: 40 },
  )
  .map((list) => {
    const b = new MotionBuilder();
    b.rapid(1, 2, 10);
    for (const [kind, x, y, z, sweep] of list) {
      if (kind === 'rapid') b.rapid(x, y, z);
      else if (kind === 'line') b.line(x, y, z, 800);
      else if (kind === 'plunge') b.plunge(z, 200);
      else {
        const r = Math.hypot(b.lastX - x, b.lastY - y);
        if (r < 0.5) continue;
        const a = Math.atan2(b.lastY - y, b.lastX - x) + sweep;
        b.arc(true, x + r * Math.cos(a), y + r * Math.sin(a), z, x, y, 600);
      }
    }
    return b.build();
  });

describe('programs', () => {
  it.each(dialects.map((d) => [d.id, d] as const))(
    'in %s read back to the same motion within 0.001 mm',
    (_id, dialect) => {
      fc.assert(
        fc.property(motions, (m) => {
          const text = writeProgram([part(m)], info, dialect);
          const [section] = parseProgram(text).sections;
          const back = withoutArcs(section.motion, 0.0005);
          const want = withoutArcs(m, 0.0005);
          // Every end of a move comes by in order; rounding may drop moves shorter than itself.
          let k = 0;
          for (let i = 0; i < m.count; i++) {
            const near = (q: Motion, j: number) =>
              Math.hypot(
                q.x[j] + info.datum.x - m.x[i],
                q.y[j] + info.datum.y - m.y[i],
                q.z[j] + info.datum.z - m.z[i],
              );
            while (k < section.motion.count && near(section.motion, k) > 0.001) k++;
            expect(k).toBeLessThan(section.motion.count);
          }
          expect(back.count).toBeGreaterThan(0);
          expect(want.count).toBeGreaterThan(0);
        }),
        { numRuns: 60 },
      );
    },
  );

  it('mean the same to another reader', () => {
    fc.assert(
      fc.property(motions, (m) => {
        const text = writeProgram([part(m)], info, dialects[0]);
        const theirs = readMoves(text);
        const last = theirs[theirs.length - 1].b;
        const mine = parseProgram(text).sections[0].motion;
        expect(last[0]).toBeCloseTo(mine.x[mine.count - 1], 6);
        expect(last[1]).toBeCloseTo(mine.y[mine.count - 1], 6);
      }),
    );
  });

  it('begin safely, change tools with the spindle off, and end', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 10);
    b.line(5, 5, -1, 500);
    const text = writeProgram([part(b.build(), 1), part(b.build(), 2)], info, dialects[0]);
    const lines = text.trim().split('\n');
    expect(lines[0]).toBe('(Job: A test)');
    expect(lines).toContain('G21');
    expect(lines.slice(-3)).toEqual(['M5', 'G0 X-12.5 Y3', 'M30']);
    const change = lines.indexOf('T2 M6');
    expect(lines.slice(0, change).lastIndexOf('M5')).toBeGreaterThan(lines.slice(0, change).lastIndexOf('S12000 M3'));
    expect(lines[1]).toMatch(/^\(cafe  and brackets \)$/);
    const parsed = parseProgram(text);
    expect(parsed.ended).toBe(true);
    expect(parsed.sections.map((s) => s.tool)).toEqual([1, 2]);
    expect(parsed.sections[1].motion.kind[1]).toBe(RAPID);
  });

  it('keep the spindle off for cutters that are drawn', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 10);
    b.line(5, 5, -1, 500);
    const text = writeProgram([part(b.build(), 1, false)], info, dialects[0]);
    expect(text).not.toMatch(/M3\b/);
    expect(parseProgram(text).sections[0].rpm.every((r) => r === 0)).toBe(true);
  });

  it.each([
    ['G1 X5', /before any|without a feed/],
    ['G0 X', /lacks its number/],
    ['G0 X1000000', /more than a kilometre/],
    ['G0 X1\nG1 Z-19999999999 F300', /Line 2: it goes more than a kilometre/],
    ['G20\nG0 Y40000', /more than a kilometre/],
    ['F300\nG81 X1 Z-9999999 R1', /more than a kilometre/],
    ['G1 X1 F100\n(open', /not closed/],
    ['G18', /XY plane/],
    ['G77', /G77 is not known/],
    ['G2 X1 Y1 F10', /without I and J/],
    ['G0 X0 Y0\nG2 X5 Y0 I1 J0 F10', /radii/],
    ['U5', /word "U"/],
    ['G81 Z-1 F100', /needs R/],
    ['G83 Z-1 R1 F100', /without Q/],
    ['G81 Z2 R1 F100', /Z below it/],
    ['G91\nG81 Z-1 R1 F100', /G91/],
    ['G81 Z-1 R1', /without a feed/],
    ['G80\nX5', /before any/],
    ['G4', /seconds/],
    ['M99', /M99/],
  ])('are refused with the line when they are wrong: %s', (text, why) => {
    expect(() => parseProgram(text)).toThrow(ProgramError);
    expect(() => parseProgram(text)).toThrow(why);
  });
});
