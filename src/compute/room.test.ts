import fc from 'fast-check';
import { makeRoom, readRoom, writeRoom } from './room';

const column = fc.oneof(
  fc.array(fc.double(), { maxLength: 9 }).map((a) => Float64Array.from(a)),
  fc.array(fc.float(), { maxLength: 9 }).map((a) => Float32Array.from(a)),
  fc.array(fc.integer(), { maxLength: 9 }).map((a) => Int32Array.from(a)),
  fc.uint8Array({ maxLength: 9 }),
);
const { plain } = fc.letrec<{ plain: unknown }>((tie) => ({
  plain: fc.oneof(
    { maxDepth: 3 },
    column,
    fc.constantFrom(null, true, 'a \u00b7 b', '', 0, -1.5, 1e-300, 7),
    fc.array(tie('plain'), { maxLength: 4 }),
    fc.dictionary(fc.constantFrom('x', 'y', 'cutterId'), tie('plain')),
  ),
}));

test('what is plain is read as it was written, numbers in columns to the last bit, in memory of its own', () => {
  fc.assert(
    fc.property(plain, (value) => {
      const room = makeRoom(1e6)!;
      expect(readRoom(room)).toBeNull();
      expect(writeRoom(room, value)).toBe(true);
      expect(readRoom(room)).toEqual(value);
    }),
  );
  const room = makeRoom()!;
  writeRoom(room, { of: Float64Array.of(1, NaN, -0, Infinity) });
  const read = readRoom<{ of: Float64Array }>(room)!;
  expect([...read.of]).toEqual([1, NaN, -0, Infinity]);
  expect(Object.prototype.toString.call(read.of.buffer)).toBe('[object ArrayBuffer]');
});

test('a column that stands for two things is one thing still; empty ones are told apart', () => {
  const room = makeRoom()!;
  const same = Float64Array.of(3, 4);
  writeRoom(room, {
    cx: same,
    none: new Int32Array(0),
    cy: same,
    other: Float64Array.of(3, 4),
    also: new Uint8Array(0),
  });
  const read = readRoom<Record<string, unknown>>(room)!;
  expect(read.cx).toBe(read.cy);
  expect(read.cx).not.toBe(read.other);
  expect(read).toEqual({ cx: same, none: new Int32Array(0), cy: same, other: same, also: new Uint8Array(0) });
});

test('what there is not room for is not written, and what is not plain is refused', () => {
  const room = makeRoom(100)!;
  expect(writeRoom(room, new Float64Array(12))).toBe(false);
  expect(readRoom(room)).toBeNull();
  expect(writeRoom(room, new Float64Array(2))).toBe(true);
  expect(makeRoom(2 ** 52)).toBeNull();
  expect(() => writeRoom(makeRoom()!, { area: NaN })).toThrow('NaN');
  expect(() => writeRoom(makeRoom()!, [new BigInt64Array(1)])).toThrow('column');
});
