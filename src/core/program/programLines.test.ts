import fc from 'fast-check';
import { real } from '../testing/real';
import { breaksIn, ProgramLines } from './programLines';

const bytes = (s: string) => Uint8Array.from(s, (c) => c.charCodeAt(0));
const linesOf = (chunks: readonly Uint8Array[]) => new ProgramLines(chunks, chunks.map(breaksIn));
/** A text cut into chunks anywhere, some of them empty. */
const text = fc
  .array(fc.constantFrom('G1X1', 'G0', '', 'M30', '(Lock 7)', 'X-12.345Y6'), { maxLength: 900 })
  .map((l) => l.join('\n'));
const cut = fc.tuple(text, fc.boolean(), fc.array(real(0, 1), { maxLength: 6 })).map(([t, ends, at]) => {
  const whole = bytes(ends ? `${t}\n` : t);
  const places = [0, ...at.map((f) => Math.floor(f * whole.length)), whole.length].sort((a, b) => a - b);
  return { whole, chunks: places.slice(1).map((p, k) => whole.subarray(places[k], p)) };
});

describe('lines of a program in chunks', () => {
  it('are those of the text as one, however it is cut', () => {
    fc.assert(
      fc.property(cut, fc.nat(1000), fc.integer({ min: 1, max: 40 }), ({ whole, chunks }, from, many) => {
        const all = new TextDecoder('latin1').decode(whole).split('\n');
        // A last end of a line begins no other.
        if (all.length > 1 && all.at(-1) === '') all.pop();
        const lines = linesOf(chunks);
        expect(lines.count).toBe(all.length);
        const at = from % all.length;
        expect(lines.slice(at, at + many)).toEqual(all.slice(at, at + many));
        expect(lines.slice(0, all.length)).toEqual(all);
      }),
    );
  });
  it('far down in a long program are read without the rest of it', () => {
    // A chunk of a thousand lines, ten thousand times.
    const chunk = bytes(Array.from({ length: 1000 }, (_, i) => `G1X${i}\n`).join(''));
    const chunks = Array.from({ length: 10_000 }, () => chunk);
    const lines = linesOf(chunks);
    expect(lines.count).toBe(10_000_000);
    expect(lines.slice(9_000_000 + 998, 9_000_000 + 1002)).toEqual(['G1X998', 'G1X999', 'G1X0', 'G1X1']);
    expect(lines.slice(9_999_999, 10_000_050)).toEqual(['G1X999']);
  });
  it('of nothing are one, empty', () => {
    expect([linesOf([]).count, linesOf([]).slice(0, 5)]).toEqual([1, ['']]);
    expect(linesOf([new Uint8Array()]).slice(0, 5)).toEqual(['']);
  });
});
