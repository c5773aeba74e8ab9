import fc from 'fast-check';
import { produce } from 'immer';
import { demoJobs } from '@/core/job/demo';
import { oneSetup } from '@/core/job/oneSetup';
import { Receiver, Sender, type Parcel } from './parcel';

/** As it goes between threads: copied. */
const sent = <T>(p: Parcel<T>): Parcel<T> => structuredClone(p);
/** How many single values go along. */
const weigh = (v: unknown): number =>
  typeof v === 'object' && v !== null
    ? ArrayBuffer.isView(v)
      ? v.byteLength
      : Object.values(v).reduce<number>((n, p) => n + weigh(p), 1)
    : 1;

const plain: fc.Arbitrary<unknown> = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small', maxDepth: 6 },
    fc.double({ noNaN: true }),
    fc.string(),
    fc.constantFrom(null, undefined, true, 0),
    fc.array(fc.integer(), { maxLength: 80 }),
    fc.array(tie('value'), { maxLength: 8 }),
    fc.dictionary(
      fc.string({ minLength: 1, maxLength: 4 }).filter((k) => k !== '__proto__'),
      tie('value'),
    ),
  ),
})).value;

describe('parcels', () => {
  it('bring what was packed, whatever went before', () => {
    fc.assert(
      fc.property(fc.array(plain, { minLength: 1, maxLength: 6 }), fc.nat(), (values, seed) => {
        const [sender, receiver] = [new Sender(), new Receiver()];
        for (const [k, v] of values.entries()) {
          // Values that hold parts of those before.
          const mixed = { v, again: values[(seed + k) % (k + 1)], list: values.slice(0, k) };
          expect(receiver.unpack(sent(sender.pack(mixed)))).toEqual(mixed);
        }
      }),
    );
  });
  it('send a changed letter, not the drawing', () => {
    const board = oneSetup(demoJobs['lock-cottage-board']());
    const drawn = Array.from({ length: 200 }, (_, i) => ({
      ...board.items[0],
      id: `d${i}`,
      values: { points: Array.from({ length: 90 }, (_, k) => ({ x: i, y: k })) },
    }));
    const job = { ...board, items: [...board.items, ...drawn] };
    const [sender, receiver] = [new Sender(), new Receiver()];
    const first = sender.pack(job);
    const there = receiver.unpack(sent(first));
    const next = produce(job, (j) => void (j.items[0].x += 1));
    const second = sender.pack(next);
    expect(weigh(second)).toBeLessThan(weigh(first) / 50);
    const now = receiver.unpack(sent(second));
    expect(now).toEqual(next);
    expect(now).not.toEqual(there);
    expect(there).toEqual(job);
    // The same piece is the same object.
    expect(now.cutters).toBe(there.cutters);
    expect(weigh(sender.pack(next))).toBeLessThan(8);
  });
  it('bring moves once, shared or not', () => {
    const [sender, receiver] = [new Sender(), new Receiver()];
    const x = new Float64Array(new SharedArrayBuffer(80000));
    x.forEach((_, i) => (x[i] = Math.sin(i)));
    const motion = { count: 10000, x, y: new Float64Array(10000) };
    const a = receiver.unpack(
      sent(sender.pack({ plans: [['cut', { motion }]] as [string, { motion: typeof motion }][] })),
    );
    const again = sender.pack({
      plans: [
        ['cut', { motion }],
        ['other', null],
      ],
    });
    expect(weigh(again)).toBeLessThan(40);
    const b = receiver.unpack(sent(again)) as typeof a;
    expect(b.plans[0][1].motion).toBe(a.plans[0][1].motion);
    expect(b.plans[0][1].motion.x).toEqual(x);
  });
  it('say when a piece has not come', () => {
    const sender = new Sender();
    const long = Array.from({ length: 100 }, (_, i) => i);
    sender.pack({ long });
    expect(() => new Receiver().unpack(sender.pack({ long }))).toThrow('has not come');
    expect(() => sender.pack({ m: new Map() })).toThrow(TypeError);
  });
});
