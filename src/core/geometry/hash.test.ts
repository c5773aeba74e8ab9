import fc from 'fast-check';
import { contentKey } from './hash';

const plain = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.double({ noNaN: true, noDefaultInfinity: true }).map((v) => v + 0),
    fc.string(),
    fc.boolean(),
    fc.constant(null),
    fc.array(fc.integer(), { maxLength: 90 }),
    fc.array(tie('value'), { maxLength: 6 }),
    fc.dictionary(fc.string({ minLength: 1, maxLength: 3 }).filter((k) => k !== '__proto__'), tie('value'), { maxKeys: 6 }),
  ),
})).value;

describe('content keys', () => {
  it('are equal where the content is, whichever objects hold it', () => {
    fc.assert(fc.property(plain, (v) => contentKey(structuredClone(v)) === contentKey(v) && contentKey(v) === contentKey(v)));
  });
  it('differ where the content does', () => {
    fc.assert(
      fc.property(plain, plain, (a, b) => {
        fc.pre(JSON.stringify(a) !== JSON.stringify(b));
        return contentKey(a) !== contentKey(b) && contentKey({ long: 'x'.repeat(300), a }) !== contentKey({ long: 'x'.repeat(300), a: b });
      }),
    );
    const long = Array.from({ length: 1000 }, (_, i) => i);
    for (let i = 0; i < 1000; i += 37) expect(contentKey(long.with(i, -1))).not.toBe(contentKey(long));
    expect(contentKey([1, 23])).not.toBe(contentKey([12, 3]));
    expect(contentKey({ a: '1' })).not.toBe(contentKey({ a: 1 }));
    expect(contentKey(NaN)).not.toBe(contentKey(Infinity));
  });
  it('take fields that are undefined for none', () => {
    expect(contentKey({ a: 1, b: undefined })).toBe(contentKey({ a: 1 }));
  });
});
