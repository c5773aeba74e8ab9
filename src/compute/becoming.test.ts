import { flatField, type HeightField } from '@/core/relief/field';
import { becoming } from './becoming';

it('is shown coarse where it is not ready and as it will be where it is, another one each time and not too often', () => {
  let now = 0;
  const shown: HeightField[] = [];
  const coarse = flatField(10, 10, 2, -1);
  const field = flatField(10, 10, 0.5, -3);
  const on = becoming(
    coarse,
    { y0: 2, y1: 4 },
    (f) => shown.push(f),
    () => now,
  );
  expect([on.y0, on.y1]).toEqual([2, 4]);
  const rowsOf = (f: HeightField) => Array.from({ length: f.rows }, (_, r) => f.z[r * f.cols + 3]);
  const want = (ready: (row: number) => boolean) => rowsOf(field).map((z, r) => (ready(r) ? z : -1));
  now = 1999;
  on.done(field, { from: 4, to: 8 });
  expect(shown.length).toBe(0);
  now = 2001;
  on.done(field, { from: 12, to: 16 });
  expect(shown.map(rowsOf)).toEqual([want((r) => (r >= 4 && r < 8) || (r >= 12 && r < 16))]);
  now = 3400;
  on.done(field, { from: 0, to: 4 });
  expect(shown.length).toBe(1);
  now = 4100;
  on.done(field, { from: 16, to: 21 });
  expect(shown.length).toBe(2);
  expect(shown[1]).not.toBe(shown[0]);
  expect(rowsOf(shown[1])).toEqual(want((r) => r < 8 || r >= 12));
  // It is no part of the field that is being cut.
  field.z.fill(9);
  expect(Math.max(...rowsOf(shown[1]))).toBe(-1);
  expect([shown[1].cols, shown[1].rows, shown[1].cell]).toEqual([field.cols, field.rows, field.cell]);
});
