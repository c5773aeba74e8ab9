import { textOf, type Chunks } from '../program/text';
import fc from 'fast-check';
import { demoSetups } from '../job/demo';
import type { OneSetup } from '../job/job';
import { dialects } from '../program/dialect';
import { readMoves, type TestMove } from '../testing/independent';
import { testArt } from '../testing/fonts';
import { planCut } from './planning';
import { slug, writePrograms } from './programs';
import { placePrograms, timePrograms } from './proving';

const board = demoSetups['sluice-gear-plate']();
const plans = new Map(board.cuts.map((c) => [c.id, planCut(board, c, testArt)]));
const cutting = (files: readonly { chunks: Chunks }[]): TestMove[] =>
  files.flatMap((f) => readMoves(textOf(f.chunks))).filter((m) => !m.rapid && m.b[2] < 0.01);
const place = (m: TestMove) => `${m.tool} ${m.b.map((v) => v.toFixed(3)).join(' ')}`;
const written = (job: OneSetup, files: OneSetup['run']['files'], dialect = 'metric') =>
  writePrograms(job, plans, { files, dialect });

describe('programs in files', () => {
  it('cut the same whether in one file, by cutter or by cut', () => {
    const one = cutting(written(board, 'one').files).map(place);
    expect(cutting(written(board, 'cutter').files).map(place)).toEqual(one);
    expect(cutting(written(board, 'cut').files).map(place)).toEqual(one);
  });
  it.each(dialects.map((d) => [d.id]))(
    'of the dialect %s end high with the spindle off, have names of their own, and one cutter each where it says so',
    (id) => {
      for (const files of ['one', 'cutter', 'cut'] as const) {
        const w = written(board, files, id);
        expect(new Set(w.files.map((f) => f.name)).size).toBe(w.files.length);
        for (const f of w.files) {
          expect(f.name).toMatch(/^[a-z0-9-]+\.nc$/);
          const lines = textOf(f.chunks)
            .trim()
            .split('\n')
            .map((l) => l.replace(/^N\d+ /, ''));
          expect(lines[lines.length - 1]).toBe('M30');
          expect(lines.lastIndexOf('M5')).toBeGreaterThan(
            Math.max(...lines.flatMap((l, i) => (/M3\b/.test(l) ? [i] : [-1]))),
          );
          if (w.dialect.files === 'cutter') expect(new Set(textOf(f.chunks).match(/T\d+/g)).size).toBe(1);
        }
        expect(new Set(w.files.flatMap((f) => f.cuts))).toEqual(new Set(board.cuts.map((c) => c.id)));
      }
    },
  );
  it('leave out what is switched off, and number tools by use or by slots', () => {
    const job = { ...board, cuts: board.cuts.map((c) => (c.kind === 'drag' ? { ...c, enabled: false } : c)) };
    expect([...written(job, 'one').tools.values()].map((c) => c.shape)).toEqual(['drill', 'flat']);
    expect([...written(job, 'one').tools.keys()]).toEqual([1, 2]);
    const slots = { ...job, run: { ...job.run, numbers: 'slots' as const } };
    expect([...written(slots, 'one').tools.keys()]).toEqual(
      job.cutters.filter((c) => c.shape !== 'drag').map((c) => c.slot),
    );
  });
  it('list their cutters by the maker\u2019s names, where they stand and what they are bought as, with sizes in the unit of the file', () => {
    const cutters = board.cutters.map((c) =>
      c.shape === 'drill' ? { ...c, name: 'Old faithful', slot: 7, stockNumber: 'D-30' } : c,
    );
    const job = { ...board, cutters, blank: { ...board.blank, width: 150, height: 100, thickness: 2 } };
    const text = textOf(written(job, 'one').files[0].chunks);
    expect(text).toContain('(Blank 150 x 100 x 2 mm)');
    expect(text).toContain('(T2 Old faithful, slot 7, stock number D-30)');
    // What it says of its time is what the proof says of it, but for the ways from and to where the spindle waits.
    const [, said] = /\(Machining time about (\d+) min, tool changes included\)/.exec(text)!;
    expect(Math.abs(Number(said) - timePrograms(job, placePrograms(job, written(job, 'one'))).minutes)).toBeLessThan(
      0.7,
    );
    expect(textOf(written(job, 'one', 'inch').files[0].chunks)).toContain('(Blank 5.9055 x 3.937 x 0.0787 in)');
  });
  it('are named in plain letters, whatever the job is called', () => {
    fc.assert(fc.property(fc.string(), (s) => expect(slug(s)).toMatch(/^[a-z0-9_-]{1,60}$/)));
    expect(slug('Schleuse Nr. 7 \u2013 T\u00fcr')).toBe('schleuse-nr-7-tur');
  });
});

describe('names of files', () => {
  it.each([
    ['Lock cottage board', 'lock-cottage-board'],
    ['Gr\u00f6\u00dfe 7', 'gro\u00dfe-7'],
    ['\u0428\u043b\u044e\u0437 \u2116 3', '\u0448\u043b\u044e\u0437-no-3'],
    ['\u6c34\u95e8 / 7', '\u6c34\u95e8-7'],
    ['\u05e9\u05dc\u05d5\u05dd', '\u05e9\u05dc\u05d5\u05dd'],
    ['../..\\etc:*?"<>|', 'etc'],
    ['CON', 'job-con'],
    ['\u{1f6a2}', 'job'],
    ['a'.repeat(90), 'a'.repeat(60)],
  ])('%s is kept in its own script', (name, want) => expect(slug(name)).toBe(want));
});
