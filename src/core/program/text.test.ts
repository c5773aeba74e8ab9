import fc from 'fast-check';
import { ByteText } from './text';

describe('text by bytes', () => {
  it('writes numbers as they are, without trailing zeros', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90000000, max: 90000000 }), fc.integer({ min: 2, max: 6 }), (steps, decimals) => {
        const t = new ByteText();
        t.room(64);
        t.word(88, steps, decimals);
        const said = t.toString();
        expect(said).toMatch(/^X-?(0|[1-9]\d*)(\.\d*[1-9])?$/);
        expect(Math.round(Number(said.slice(1)) * 10 ** decimals)).toBe(steps);
      }),
    );
  });
  it('grows as it is filled', () => {
    const t = new ByteText();
    for (let i = 0; i < 30000; i++) t.line(`X${i}`);
    const lines = t.toString().split('\n');
    expect(lines).toHaveLength(30001);
    expect(lines[29999]).toBe('X29999');
  });
});
