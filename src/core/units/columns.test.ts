import { MotionBuilder, isStraight } from '../motion/motion';
import { column, noughts, shifted, taken, used } from './columns';

const isShared = (v: { readonly buffer: ArrayBufferLike }) => v.buffer instanceof SharedArrayBuffer;

describe('columns', () => {
  it.each([0, 1, 4095, 4096, 10_000])('of %i numbers are those that were written, shared when they are long', (n) => {
    const from = Float64Array.from({ length: n + 7 }, (_, i) => Math.sin(i));
    const own = taken(from, n);
    expect([...own]).toEqual([...from.subarray(0, n)]);
    expect(isShared(own)).toBe(n >= 4096);
    // They are their own: what is written on does not reach them.
    from.fill(5);
    expect(own.includes(5)).toBe(false);
    expect([...shifted(own, 2)]).toEqual([...own].map((v) => v + 2));
    expect(shifted(own, 0)).toBe(own);
    expect(taken(new Uint8Array(n).fill(3), n)).toBeInstanceOf(Uint8Array);
  });
  it('made with room for more keep their memory where they use most of it, and have one of their own where not', () => {
    for (const [room, n, own] of [
      [10_000, 9_000, false],
      [10_000, 5_000, false],
      [10_000, 4_999, true],
      [1_000, 1_000, true],
    ] as const) {
      const from = column(Float64Array, room);
      expect([from.length, from.every((v) => v === 0)]).toEqual([room, true]);
      for (let i = 0; i < n; i++) from[i] = i * 1.1;
      const first = used(from, n);
      expect([...first]).toEqual(Array.from({ length: n }, (_, i) => i * 1.1));
      expect(first.buffer === from.buffer).toBe(!own);
      expect(isShared(first)).toBe(n >= 4096);
    }
  });
  it('of a motion that is built on stay what they were', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 5);
    for (let i = 0; i < 6000; i++) b.line(i, 1, -1, 600);
    const first = b.build();
    const was = [...first.x];
    for (let i = 0; i < 20_000; i++) b.line(-i, 2, -2, 500);
    expect([...first.x]).toEqual(was);
    expect(first.count).toBe(6001);
    expect([...b.build().x.subarray(0, 6001)]).toEqual(was);
  });
  it('of noughts are noughts, however many are asked for, and shared', () => {
    for (const n of [3, 5000, 2, 2_000_000, 7]) {
      const v = noughts(n);
      expect([v.length, isShared(v), v.every((q) => q === 0)]).toEqual([n, true, true]);
    }
  });
  it('keep the centres of a motion with arcs, and none of one without, on whichever thread', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 5);
    for (let i = 0; i < 5000; i++) b.line(i, 1, -1, 600);
    expect(isStraight(b.build())).toBe(true);
    expect(isStraight(structuredClone(b.build()))).toBe(true);
    b.arc(true, 10, 0, -1, 5, 3, 600);
    const m = b.build();
    expect(isStraight(m)).toBe(false);
    expect([m.cx[5001], m.cy[5001], m.cx[17]]).toEqual([5, 3, 0]);
  });
});
