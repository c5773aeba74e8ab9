import { flatField } from '../relief/field';
import { paintedShare } from './paints';

it('paint stays in what lies under the face, and where it is half of a place, in half of it', () => {
  const f = flatField(9, 9, 1);
  for (let r = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = c < 5 ? -0.3 : -0.01;
  expect(paintedShare(f, 0, 3, 0, 9)).toBe(1);
  // What is sanded away with the face keeps none.
  expect(paintedShare(f, 6, 9, 2, 4)).toBe(0);
  expect(paintedShare(f, 4, 5, 3, 3)).toBe(0.5);
  expect(paintedShare(f, 4, 4, 1, 1)).toBe(1);
});
