import type { HeightField } from './field';

/** A unit vector towards the light. */
export type Light = readonly [number, number, number];

/** Light from the upper left, above. */
const LIGHT: Light = [-0.48, 0.48, 0.735];

/** Light from a direction, degrees from +X towards +Y, so many degrees above the ground. */
export function lightFrom(from: number, high: number): Light {
  const [a, b] = [(from * Math.PI) / 180, (high * Math.PI) / 180];
  return [Math.cos(a) * Math.cos(b), Math.sin(a) * Math.cos(b), Math.sin(b)];
}

/** Under a light that stands lower than this (its Z) level ground is darker than under a higher one. */
const LOW = 0.5;

/**
 * Heights of a field at the middles of `cols` x `rows` points, row 0 at the top, by bilinear interpolation; its empty nodes (NaN)
 * count as `empty`.
 */
function sampled(f: HeightField, cols: number, rows: number, empty: number): Float32Array {
  const out = new Float32Array(cols * rows);
  const { z, cols: across } = f;
  // Which nodes a column of points lies between, and how far it is beyond the first of them.
  const first = new Int32Array(cols);
  const beyond = new Float64Array(cols);
  const between = (at: number, nodes: number) => Math.max(0, Math.min(nodes - 2, Math.floor(at)));
  for (let c = 0; c < cols; c++) {
    const u = ((c + 0.5) / cols) * (f.cols - 1);
    first[c] = between(u, f.cols);
    beyond[c] = u - first[c];
  }
  for (let r = 0; r < rows; r++) {
    const v = (1 - (r + 0.5) / rows) * (f.rows - 1);
    const below = between(v, f.rows) * across;
    const fv = v - below / across;
    sampleRow(out, r * cols, z, below, f.rows > 1 ? across : 0, f.cols > 1 ? 1 : 0, first, beyond, fv, empty);
  }
  return out;
}

/** One row of points between two rows of nodes. By itself, so that it is compiled as one loop. */
function sampleRow(
  out: Float32Array,
  to: number,
  z: Float32Array,
  below: number,
  up: number,
  right: number,
  first: Int32Array,
  beyond: Float64Array,
  fv: number,
  empty: number,
): void {
  for (let c = 0; c < first.length; c++) {
    const i = below + first[c];
    let a = z[i];
    let b = z[i + right];
    let p = z[i + up];
    let q = z[i + up + right];
    if (a !== a) a = empty;
    if (b !== b) b = empty;
    if (p !== p) p = empty;
    if (q !== q) q = empty;
    const fu = beyond[c];
    out[to + c] = (a * (1 - fu) + b * fu) * (1 - fv) + (p * (1 - fu) + q * fu) * fv;
  }
}

/**
 * A height field as seen from straight above, lit (hillshading by the surface's normal): for each of
 * `cols` x `rows` points, row 0 at the top, how bright it is, 0..1. Lower places are a little darker, so that floors part from
 * faces of the same slope. `deep` is the depth, mm, of the darkest. Empty nodes count as `empty`.
 */
export function shade(
  f: HeightField,
  cols: number,
  rows: number,
  deep: number,
  light: Light = LIGHT,
  empty = NaN,
): Float32Array {
  const out = new Float32Array(cols * rows);
  const [w, h] = [(f.cols - 1) * f.cell, (f.rows - 1) * f.cell];
  const z = sampled(f, cols, rows, empty);
  // Slopes are taken over a cell at least: within one the surface is bilinear, and its facets would show.
  const step = Math.max(f.cell, w / cols, h / rows);
  const [nx, ny] = [Math.max(1, Math.round((step / w) * cols * 0.5)), Math.max(1, Math.round((step / h) * rows * 0.5))];
  for (let r = 0; r < rows; r++) {
    const [up, down] = [Math.max(0, r - ny), Math.min(rows - 1, r + ny)];
    shadeRow(out, z, cols, r, up, down, nx, w / cols, (down - up) * (h / rows) || 1, deep, light);
  }
  return out;
}

/** One row of points, lit. By itself, so that it is compiled as one loop. */
function shadeRow(
  out: Float32Array,
  z: Float32Array,
  cols: number,
  r: number,
  up: number,
  down: number,
  nx: number,
  wide: number,
  dy: number,
  deep: number,
  light: Light,
): void {
  const [lx, ly, lz] = light;
  const level = 0.75 / Math.max(LOW, lz);
  const at = r * cols;
  for (let c = 0; c < cols; c++) {
    const left = Math.max(0, c - nx);
    const right = Math.min(cols - 1, c + nx);
    const dx = (right - left) * wide || 1;
    const gx = (z[at + right] - z[at + left]) / dx;
    const gy = (z[up * cols + c] - z[down * cols + c]) / dy;
    const lit = Math.max(0, (-gx * lx - gy * ly + lz) / Math.sqrt(1 + gx * gx + gy * gy));
    const deeper = deep > 0 ? Math.min(1, Math.max(0, -z[at + c] / deep)) : 0;
    out[at + c] = Math.min(1, (0.25 + level * lit) * (1 - 0.35 * deeper));
  }
}
