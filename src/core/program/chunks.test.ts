import fc from 'fast-check';
import { datumOf, newOneSetup } from '../job/job';
import { MotionBuilder, type Motion } from '../motion/motion';
import { placeProgram } from '../proof/placed';
import { dialectOf, dialects } from './dialect';
import { parseProgram, ProgramError } from './parser';
import { chunkOf, textOf } from './text';
import { programChunks, writeProgram, type ProgramPart } from './writer';

const n = fc.integer({ min: -4000, max: 4000 }).map((v) => v / 100);
/** Lines of every sort, with what is kept from one to the next. */
const line = fc.oneof(
  fc.constantFrom(
    'G21',
    'G20',
    'G90',
    'G91',
    'G80',
    'G98',
    'G99',
    'S9000 M3',
    'M5',
    'T2 M6',
    'T3',
    'M0',
    'G4 P0.5',
    '(Cut 1: a)',
    '(Cut 2: b)',
    '; Cut 3: c',
    '(a remark)',
    '',
    'M3 M8',
    'T1 M6',
  ),
  fc
    .record({
      g: fc.constantFrom('G0 ', 'G1 ', ''),
      x: fc.option(n),
      y: fc.option(n),
      z: fc.option(n),
      f: fc.option(fc.integer({ min: 1, max: 900 })),
    })
    .map(
      ({ g, x, y, z, f }) =>
        `${g}${x === null ? '' : `X${x} `}${y === null ? '' : `Y${y} `}${z === null ? '' : `Z${z} `}${f === null ? '' : `F${f}`}`,
    ),
  fc
    .record({ g: fc.constantFrom('G2', 'G3'), x: n, i: n, j: n })
    .map(({ g, i, j }) => `${g} X${2 * i} Y${2 * j} I${i} J${j} F300`),
  fc.record({ g: fc.constantFrom('G81', 'G83'), x: n, y: n }).map(({ g, x, y }) => `${g} X${x} Y${y} Z-3 R1 Q1 F200`),
);

const readOr = (what: Parameters<typeof parseProgram>[0]) => {
  try {
    return parseProgram(what);
  } catch (e) {
    if (!(e instanceof ProgramError)) throw e;
    return e.message;
  }
};

describe('a program in chunks', () => {
  it('is read as the same text in one piece, wherever it is parted', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 40 }), fc.array(fc.nat(40)), (lines, cuts) => {
        const all = ['G1 F500', ...lines].map((l) => `${l}\n`);
        const at = [...new Set([0, ...cuts.filter((c) => c < all.length), all.length])].sort((a, b) => a - b);
        const chunks = at.slice(1).map((to, k) => chunkOf(all.slice(at[k], to).join('')));
        const whole = readOr(all.join(''));
        expect(readOr(chunks)).toEqual(whole);
        // Read once more, what is kept is used.
        expect(readOr(chunks)).toEqual(whole);
      }),
      { numRuns: 400 },
    );
  });

  const motion = fc
    .array(fc.record({ x: n, y: n, z: n, feed: fc.integer({ min: 50, max: 900 }), arc: fc.boolean() }), {
      minLength: 1,
      maxLength: 6,
    })
    .map((moves): Motion => {
      const b = new MotionBuilder();
      b.rapid(moves[0].x, moves[0].y, 10);
      for (const m of moves) {
        if (m.arc && Math.hypot(m.x, m.y) > 0.5)
          b.arc(true, b.lastX + 2 * m.x, b.lastY + 2 * m.y, m.z, b.lastX + m.x, b.lastY + m.y, m.feed);
        else b.line(m.x, m.y, m.z, m.feed);
      }
      b.rapid(b.lastX, b.lastY, 10);
      return b.build();
    });
  const info = { title: 'Weir', datum: { x: 1, y: 2, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };

  it('is written as if nothing was kept, whichever parts were written before, and from where', () => {
    fc.assert(
      fc.property(
        fc.array(motion, { minLength: 1, maxLength: 4 }),
        fc.array(
          fc.array(fc.record({ of: fc.nat(3), tool: fc.integer({ min: 1, max: 2 }) }), { minLength: 1, maxLength: 5 }),
          {
            minLength: 2,
            maxLength: 4,
          },
        ),
        fc.constantFrom(...dialects.map((d) => d.id)),
        (motions, jobs, id) => {
          for (const job of jobs) {
            const part = (q: (typeof job)[number], k: number): ProgramPart => ({
              tool: q.tool,
              toolName: `t${q.tool}`,
              cutNumber: k + 1,
              cutName: `c${k}`,
              rpm: 9000,
              turns: true,
              motion: motions[q.of % motions.length],
            });
            const kept = programChunks(job.map(part), info, dialectOf(id));
            const anew = writeProgram(
              job.map(part).map((p) => ({ ...p, motion: structuredClone(p.motion) })),
              info,
              dialectOf(id),
            );
            expect(textOf(kept)).toBe(anew);
            const ids = job.map((_, k) => `c${k}`);
            const bare = (p: ReturnType<typeof placeProgram>) =>
              p.sections.map(({ firstLine, line, ...s }) => ({ ...s, line: line.map((l) => l + firstLine) }));
            // The same places, tools, cuts, lines: chunks part stretches, and no move comes twice or is missing.
            const whole = bare(placeProgram('a.nc', anew, info.datum, ids));
            const parts = bare(placeProgram('a.nc', kept, info.datum, ids));
            const flat = (list: typeof whole) =>
              list.flatMap((s, k) =>
                Array.from(s.line, (l, i) => [
                  l,
                  s.tool,
                  s.cutId,
                  s.motion.kind[i],
                  s.motion.x[i],
                  s.motion.y[i],
                  s.motion.z[i],
                  s.motion.feed[i],
                  s.rpm[i],
                ]).slice(k ? 1 : 0),
              );
            const moves = (list: typeof whole) => flat(list).filter((m) => m[3] !== 0 || m[6] !== info.safeHeight);
            expect(moves(parts)).toEqual(moves(whole));
          }
        },
      ),
    );
  });

  it('keeps the moves of a part that did not change: the same object, wherever its lines stand', () => {
    const long = new MotionBuilder();
    long.rapid(0, 0, 10);
    for (let i = 0; i < 500; i++) long.line(i / 10, Math.sin(i), -1, 900);
    long.rapid(0, 0, 10);
    const kept = long.build();
    const place = (more: number) => {
      const b = new MotionBuilder();
      b.rapid(0, 0, 10);
      for (let i = 0; i <= more; i++) b.line(i, 1, -1, 700);
      b.rapid(0, 0, 10);
      const parts = [b.build(), kept].map((m, k) => ({
        tool: 1,
        toolName: 't',
        cutNumber: k + 1,
        cutName: `c${k}`,
        rpm: 9000,
        turns: true,
        motion: m,
      }));
      const { datum } = { datum: datumOf(newOneSetup('x').blank) };
      return placeProgram('a.nc', programChunks(parts, { ...info, datum }, dialectOf('metric')), datum, [
        'a',
        'b',
      ]).sections.find((s) => s.motion.count > 400)!;
    };
    const [a, b] = [place(3), place(9)];
    expect(b.motion).toBe(a.motion);
    expect(b.firstLine).toBe(a.firstLine + 6);
    expect([a.cutId, b.cutId]).toEqual(['b', 'b']);
  });

  it('knows whose cut each move is where cutters are changed by hand at the park position', () => {
    const square = (z: number) => {
      const b = new MotionBuilder();
      b.rapid(5, 5, 10);
      b.line(5, 5, z, 300);
      b.line(9, 5, z, 300);
      b.rapid(9, 5, 10);
      return b.build();
    };
    const parts = [1, 2, 3].map((n) => ({
      tool: n,
      toolName: `t${n}`,
      cutNumber: n,
      cutName: `c${n}`,
      rpm: 9000,
      turns: true,
      motion: square(-n),
    }));
    for (const parkAtChange of [false, true]) {
      const { sections: stretches } = placeProgram(
        'a.nc',
        programChunks(parts, { ...info, park: { x: 50, y: 60 }, parkAtChange }, dialectOf('metric-pause')),
        info.datum,
        ['a', 'b', 'c'],
      );
      const cutting = stretches.flatMap((s) =>
        [...s.motion.z].flatMap((z, i) => (i && s.motion.kind[i] !== 0 ? [[s.tool, s.cutId, Math.round(z)]] : [])),
      );
      expect(new Set(cutting.map((c) => c.join()))).toEqual(new Set(['1,a,-1', '2,b,-2', '3,c,-3']));
    }
  });
});
