import fc from 'fast-check';
import { dialects } from './dialect';
import { toAscii } from './ascii';
import { ownLineTroubles } from './ownLines';
import { parseProgram } from './parser';
import { trialParts, troubleWith } from './verify';
import { writeProgram } from './writer';

const info = { title: 'Lock 7', datum: { x: 0, y: 0, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };
const with_ = (header: string[], footer: string[] = []) => ({ ...dialects[0], header, footer });

describe('lines of a maker\u2019s own', () => {
  it.each([
    ['G0 Z20', /moves the machine/],
    ['X0', /moves the machine/],
    ['G28', /moves the machine/],
    ['G43 H2', /calls a length/],
    ['G92 X0', /moves the/],
    ['G92', /moves the zero/],
    ['G20', /how numbers are read/],
    ['G91', /how numbers are read/],
    ['M30', /ends the program/],
  ])('%s before the cuts is refused by name', (line, why) => {
    expect(ownLineTroubles(with_([line]))).toEqual([{ line, where: 'header', text: expect.stringMatching(why) }]);
    expect(troubleWith(with_([line]), trialParts(), info)).toMatch(why);
  });
  it.each(['M8', 'G64 P0.01', '(G0 Z20 is not for here)', '; M3', 'M7', '', 'G54', 'S8000', 'G4 P2'])(
    '%s does no harm',
    (line) => {
      expect(ownLineTroubles(with_([line], [line]))).toEqual([]);
      if (!line.startsWith(';')) expect(troubleWith(with_([line]), trialParts(), info)).toBeNull();
    },
  );
  it.each(['M3 S500', 'M8 m03 S500'])(
    '%s is over before the first cutter is taken, whatever the change of tools does to the spindle',
    (line) => {
      for (const d of dialects) {
        const [first, drawn] = trialParts();
        for (const parts of [[first], [drawn, first]]) {
          const rows = writeProgram(parts, info, { ...d, header: [line] })
            .split('\n')
            .map((r) => r.replace(/^N\d+ /, ''));
          expect(rows.indexOf('M5')).toBeGreaterThan(rows.indexOf(line));
          expect(rows.indexOf('M5')).toBeLessThan(rows.findIndex((r) => /^T\d/.test(r)));
        }
        expect(
          troubleWith({ ...d, header: [line] }, d.files === 'any' ? trialParts() : trialParts().slice(0, 1), info),
        ).toBeNull();
      }
    },
  );
  it('may move the machine behind the last cut, where it is proven', () => {
    expect(ownLineTroubles(with_([], ['G0 X0 Y200']))).toEqual([]);
    expect(parseProgram(writeProgram(trialParts(), info, with_([], ['G0 X0 Y200']))).sections[2].motion.y.at(-1)).toBe(
      200,
    );
  });
});

describe('a program', () => {
  it('obeys every M of a line', () => {
    const text = ['G21 G90', 'T1 M6', 'S9000 M8 M3', 'G0 X0 Y0 Z5', 'G1 Z-1 F100', 'G1 X5', 'M5 M9 M30'].join('\n');
    const p = parseProgram(text);
    expect(p.ended).toBe(true);
    expect([...p.sections[0].rpm].at(-1)).toBe(9000);
    expect(() => parseProgram('M8 M77')).toThrow(/M77/);
  });
  it('holds one line for each that was written, whatever letters names and lines of one\u2019s own are made of', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary', maxLength: 40 }),
        fc.string({ unit: 'binary', maxLength: 30 }),
        fc.constantFrom(...dialects),
        (title, own, d) => {
          const line = own.replace(/[\n\r]/g, '');
          const plain = writeProgram(trialParts(), { ...info, title: 'x' }, { ...d, header: ['(x)'] }).split(
            '\n',
          ).length;
          const text = writeProgram(trialParts(), { ...info, title }, { ...d, header: [line] });
          expect(text.split('\n')).toHaveLength(plain);
          expect(text).toMatch(/^[\x20-\x7e\n]*$/);
        },
      ),
    );
  });
  it('begins its comments with a word of ours, so that no controller takes a name for a command', () => {
    for (const d of dialects)
      expect(writeProgram(trialParts(), { ...info, title: 'MSG, mind the clamp' }, d)).toMatch(
        /[(;] ?Job: MSG, mind the clamp/,
      );
  });
  it('writes letters of other scripts as they sound', () => {
    expect(toAscii('Gr\u00f6\u00dfe \u2013 \u0428\u043b\u044e\u0437 \u03a4')).toBe('Grosse - Shlyuz T');
    expect(writeProgram(trialParts(), { ...info, title: '\u0428\u043b\u044e\u0437' }, dialects[0])).toMatch(
      /Job: Shlyuz/,
    );
    // A letter whose lower byte is that of a line feed.
    expect(toAscii('\u010a\u010d')).toMatch(/^[\x20-\x7e]+$/);
  });
});
