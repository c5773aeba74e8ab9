import { stillWanted } from '../units/stillWanted';
import { fieldsKernel } from './fieldsKernel';
import { slide, type Size } from './slide';

/** More than so many rounds change little. */
const ROUNDS = 2;

/**
 * Takes grain off heights and keeps edges: a guided filter (K. He, J. Sun, X. Tang, "Guided Image Filtering", 2013). In each square
 * window the heights are taken for a line of what guides them, h = a g + b, the more level the less they vary against `grain`;
 * each node gets the mean of the lines of all windows that hold it. The first round is guided by the heights themselves; each
 * further one by what the round before has made, so that grain beside an edge goes as well (after Q. Zhang and others, "Rolling
 * Guidance Filter", 2014).
 *
 * `grain` is the height, mm, up to which what varies is grain; `radius` half the side of a window in nodes. Empty nodes (NaN)
 * stay empty and count for nothing. A window of any size costs the same.
 */
export const denoise = (z: Float32Array, size: Size, grain: number, radius: number): Float32Array =>
  denoiseByKernel(z, size, grain, radius) ?? denoiseInScript(z, size, grain, radius);

/** In TypeScript: what the kernel is held to. */
export function denoiseInScript(z: Float32Array, size: Size, grain: number, radius: number): Float32Array {
  const r = nodesOf(radius);
  let guide = z;
  const eps = grain * grain;
  for (let k = 0; k < ROUNDS; k++) {
    const fitted = guide === z ? ownLines(z, size, r, eps) : lines(z, guide, size, r, eps);
    guide = means(z, guide, size, r, fitted);
  }
  return guide;
}

const nodesOf = (radius: number): number => Math.max(1, Math.round(radius));
/** How many nodes to each side what comes of one depends on: each round slides two windows. */
export const reachOf = (radius: number): number => 2 * ROUNDS * nodesOf(radius);

/** Nodes that the kernel has room for at once, and how many times as many rows it makes as it looks at beside them, at least. */
const AT_ONCE = 1.5e6;
const WORTH = 2;

/** By the kernel (`wasm/fields.as.ts`), one band of rows after the other; null where this machine has none. */
export function denoiseByKernel(
  z: Float32Array,
  { cols, rows }: Size,
  grain: number,
  radius: number,
  atOnce = AT_ONCE,
): Float32Array | null {
  const r = nodesOf(radius);
  const beside = reachOf(radius);
  const band = Math.min(rows, Math.max(Math.floor(atOnce / cols) - 2 * beside, WORTH * beside, 1));
  const most = cols * Math.min(rows, band + 2 * beside);
  // Of each column up to five sums and how many there are.
  const room = 48 * (cols + 2 * r + 2);
  const kernel = fieldsKernel(20 * most + room);
  if (!kernel) return null;
  const { run, memory, at } = kernel;
  const [h, a, b, one, other, free] = [0, 1, 2, 3, 4, 5].map((k) => at(k, most));
  const fresh = () => {
    stillWanted(most);
    new Uint8Array(memory.buffer, free, room).fill(0);
    return free;
  };
  const out = new Float32Array(z.length);
  for (let from = 0; from < rows; from += band) {
    const to = Math.min(rows, from + band);
    const [first, last] = [Math.max(0, from - beside), Math.min(rows, to + beside)];
    const n = last - first;
    new Float32Array(memory.buffer, h, n * cols).set(z.subarray(first * cols, last * cols));
    run.ownLines(h, cols, n, r, grain * grain, a, b, fresh());
    run.means(h, h, cols, n, r, a, b, one, fresh());
    let [guide, next] = [one, other];
    for (let k = 1; k < ROUNDS; k++) {
      run.lines(h, guide, cols, n, r, grain * grain, a, b, fresh());
      run.means(h, guide, cols, n, r, a, b, next, fresh());
      [guide, next] = [next, guide];
    }
    const made = new Float32Array(memory.buffer, guide, n * cols);
    out.set(made.subarray((from - first) * cols, (to - first) * cols), from * cols);
  }
  return out;
}

/** Of the window round each node, its line: slopes and what is added. */
interface Lines {
  readonly a: Float32Array;
  readonly b: Float32Array;
}

function lines(z: Float32Array, guide: Float32Array, size: Size, r: number, eps: number): Lines {
  const { cols } = size;
  const a = new Float32Array(z.length);
  const b = new Float32Array(z.length);
  // Sums of g, g g, h and g h: in doubles, since what varies is small beside what is high.
  slide(
    size,
    r,
    4,
    (row, sense, [n, g1, g2, h1, gh]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        const h = z[i];
        if (h !== h) continue;
        const g = sense * guide[i];
        n[c] += sense;
        g1[c] += g;
        g2[c] += g * guide[i];
        h1[c] += sense * h;
        gh[c] += g * h;
      }
    },
    (row, [n, g1, g2, h1, gh]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        const w = 1 / n[c];
        const mg = g1[c] * w;
        const slope = (gh[c] * w - mg * h1[c] * w) / (Math.max(0, g2[c] * w - mg * mg) + eps);
        a[i] = slope;
        b[i] = h1[c] * w - slope * mg;
      }
    },
  );
  return { a, b };
}

/** The same of heights that guide themselves: half as many sums. */
function ownLines(z: Float32Array, size: Size, r: number, eps: number): Lines {
  const { cols } = size;
  const a = new Float32Array(z.length);
  const b = new Float32Array(z.length);
  slide(
    size,
    r,
    2,
    (row, sense, [n, h1, h2]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        const h = z[i];
        if (h !== h) continue;
        n[c] += sense;
        h1[c] += sense * h;
        h2[c] += sense * h * h;
      }
    },
    (row, [n, h1, h2]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        const w = 1 / n[c];
        const mean = h1[c] * w;
        const varies = Math.max(0, h2[c] * w - mean * mean);
        const slope = varies / (varies + eps);
        a[i] = slope;
        b[i] = mean - slope * mean;
      }
    },
  );
  return { a, b };
}

/** What comes of the means of lines over windows where they are guided. */
function means(z: Float32Array, guide: Float32Array, size: Size, r: number, { a, b }: Lines): Float32Array {
  const { cols } = size;
  const out = new Float32Array(z.length);
  slide(
    size,
    r,
    2,
    (row, sense, [n, a1, b1]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        if (z[i] !== z[i]) continue;
        n[c] += sense;
        a1[c] += sense * a[i];
        b1[c] += sense * b[i];
      }
    },
    (row, [n, a1, b1]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++)
        out[i] = z[i] === z[i] ? (a1[c] * guide[i] + b1[c]) / n[c] : NaN;
    },
  );
  return out;
}

/** Of so many nodes at most the grain is measured. */
const SAMPLES = 200_000;

/**
 * How high the grain of heights is, mm (its standard deviation): the median of what a mask leaves that level, sloping and evenly
 * bent ground does not answer to (after J. Immerkaer, "Fast Noise Variance Estimation", 1996; the median, so that edges do not
 * count). `apart`: nodes that are looked at lie so many apart, as grain is wide. 0 where there is nothing to measure.
 */
export function measuredGrain(z: Float32Array, { cols, rows }: Size, apart = 1): number {
  const across = cols - 2 * apart;
  const inner = across * (rows - 2 * apart);
  if (across <= 0 || inner <= 0) return 0;
  const step = Math.max(1, Math.floor(inner / SAMPLES));
  const found: number[] = [];
  for (let k = 0; k < inner; k += step) {
    const i = (apart + Math.floor(k / across)) * cols + apart + (k % across);
    const [up, down, n] = [i + apart * cols, i - apart * cols, apart];
    const v =
      z[up - n] + z[up + n] + z[down - n] + z[down + n] - 2 * (z[up] + z[down] + z[i - n] + z[i + n]) + 4 * z[i];
    if (v === v) found.push(Math.abs(v));
  }
  if (!found.length) return 0;
  const sorted = Float64Array.from(found).sort();
  // Of normal noise, the median of the absolute is 0.6745 of the deviation; the mask makes six of one.
  return sorted[sorted.length >> 1] / 0.6745 / 6;
}
