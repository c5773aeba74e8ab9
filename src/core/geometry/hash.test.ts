import fc from 'fast-check';
import { contentKey, sizedMemo } from './hash';

const plain = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.double({ noNaN: true, noDefaultInfinity: true }).map((v) => v + 0),
    fc.string(),
    fc.boolean(),
    fc.constant(null),
    fc.array(fc.integer(), { maxLength: 90 }),
    fc.array(tie('value'), { maxLength: 6 }),
    fc.dictionary(
      fc.string({ minLength: 1, maxLength: 3 }).filter((k) => k !== '__proto__'),
      tie('value'),
      { maxKeys: 6 },
    ),
  ),
})).value;

describe('content keys', () => {
  it('are equal where the content is, whichever objects hold it', () => {
    fc.assert(
      fc.property(plain, (v) => contentKey(structuredClone(v)) === contentKey(v) && contentKey(v) === contentKey(v)),
    );
  });
  it('differ where the content does', () => {
    fc.assert(
      fc.property(plain, plain, (a, b) => {
        fc.pre(JSON.stringify(a) !== JSON.stringify(b));
        return (
          contentKey(a) !== contentKey(b) &&
          contentKey({ long: 'x'.repeat(300), a }) !== contentKey({ long: 'x'.repeat(300), a: b })
        );
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

describe('results that are kept up to a size', () => {
  it('are those that were asked for last, as many as there is room for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 12 }), { maxLength: 60 }),
        fc.integer({ min: 12, max: 40 }),
        (asked, most) => {
          const memo = sizedMemo<number>(most, (v) => v);
          /** Those asked for last first, each of its own size. */
          let model: number[] = [];
          for (const v of asked) {
            let made = false;
            expect(memo(`k${v}`, () => ((made = true), v))).toBe(v);
            expect(made).toBe(!model.includes(v));
            model = [v, ...model.filter((m) => m !== v)];
            for (let sum = 0, i = 0; i < model.length; i++)
              if ((sum += model[i]) > most) model = made ? model.slice(0, i) : model;
          }
        },
      ),
    );
  });
  it('keep what is larger than all the room until the next', () => {
    const memo = sizedMemo<number>(5, (v) => v);
    let made = 0;
    const ask = (v: number) => memo(`k${v}`, () => (made++, v));
    for (const v of [9, 9, 2, 9]) ask(v);
    expect(made).toBe(3);
  });
});
