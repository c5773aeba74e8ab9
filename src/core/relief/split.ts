import { heightAt, type HeightField } from './field';

/**
 * One field to the left of an X, mm, and another one right of it, on the nodes of the right one; where their nodes differ the left
 * one is bilinear between its own, and goes on level beyond them.
 */
export function besideEachOther(left: HeightField, right: HeightField, x: number): HeightField {
  const z = right.z.slice();
  const cols = Math.min(right.cols, Math.max(0, Math.ceil((x - right.x0) / right.cell)));
  const same = left.cols === right.cols && left.rows === right.rows && left.cell === right.cell;
  const [most, top] = [left.x0 + (left.cols - 1) * left.cell, left.y0 + (left.rows - 1) * left.cell];
  for (let r = 0; r < right.rows; r++) {
    const from = r * right.cols;
    if (same) {
      z.set(left.z.subarray(from, from + cols), from);
      continue;
    }
    const y = Math.min(top, right.y0 + r * right.cell);
    for (let c = 0; c < cols; c++) z[from + c] = heightAt(left, Math.min(most, right.x0 + c * right.cell), y);
  }
  return { ...right, z };
}
