import fc from 'fast-check';
import { bytesOf, ByteText, chunkOf, lengthOf, textOf } from './text';

describe('text by bytes', () => {
  it('writes numbers as they are, without trailing zeros', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90000000, max: 90000000 }), fc.integer({ min: 2, max: 6 }), (steps, decimals) => {
        const t = new ByteText();
        t.room(64);
        t.word(88, steps, decimals);
        const said = textOf([t.take()]);
        expect(said).toMatch(/^X-?(0|[1-9]\d*)(\.\d*[1-9])?$/);
        expect(Math.round(Number(said.slice(1)) * 10 ** decimals)).toBe(steps);
      }),
    );
  });
  it('grows as it is filled', () => {
    const t = new ByteText();
    for (let i = 0; i < 30000; i++) t.line(`X${i}`);
    const lines = textOf([t.take()]).split('\n');
    expect(lines).toHaveLength(30001);
    expect(lines[29999]).toBe('X29999');
  });
  it('is the same in chunks, wherever they part, shared or not', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary' })), (parts) => {
        const chunks = parts.map(chunkOf);
        const shared = chunks.map((c) => {
          const s = new Uint8Array(new SharedArrayBuffer(c.length));
          s.set(c);
          return s;
        });
        const said = parts.join('').replace(/[^\x00-\xff]/g, '?');
        expect(textOf(shared)).toBe(textOf(chunks));
        expect(textOf(chunks)).toBe(textOf([chunkOf(parts.join(''))]));
        expect(bytesOf(shared)).toEqual(Uint8Array.from(said, (c) => c.charCodeAt(0)));
        expect(lengthOf(chunks)).toBe(parts.join('').length);
      }),
    );
    const t = new ByteText();
    t.line('G0 X1');
    const first = t.take();
    t.line('X2');
    expect([textOf([first]), textOf([t.take()])]).toEqual(['G0 X1\n', 'X2\n']);
  });
});
