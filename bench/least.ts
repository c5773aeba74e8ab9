/**
 * Moves along rows over a relief against the least that the tolerance allows: `npm run bench:least`. Two bounds: of lines that follow
 * each other without a gap, as moves do, with ends at any sample and at any height that the tolerance allows (dynamic programming); and
 * of lines that need not even meet each other (greedy, which is best possible for them): no chain has fewer than these.
 */
import { demoSetups } from '../src/core/job/demo';
import { testArt as art } from '../src/core/testing/fonts';
import { shippedLibrary } from '../src/core/cutters/library';
import { formOf } from '../src/core/cutters/cutter';
import { fewest, sampledAlong } from '../src/core/cuts/relief/follow';
import { locatorsOver } from '../src/core/cuts/relief/locator';
import { reliefShare } from '../src/core/cuts/relief/share';
import { shapedWhenAsked } from '../src/core/pipeline/shaping';
import { flatField, type HeightField } from '../src/core/relief/field';

/** Clips a polygon (x, y interleaved) to where sign (x (1 - t) + y t) is at most sign `most`; gives the number of its corners. */
function clipped(p: Float64Array, corners: number, out: Float64Array, t: number, most: number, sign: number): number {
  let n = 0;
  let all = true;
  for (let i = 0; i < corners && all; i++) all = sign * (p[2 * i] * (1 - t) + p[2 * i + 1] * t - most) <= 0;
  if (all) {
    for (let i = 0; i < 2 * corners; i++) out[i] = p[i];
    return corners;
  }
  for (let i = 0; i < corners; i++) {
    const j = i + 1 === corners ? 0 : i + 1;
    const a = sign * (p[2 * i] * (1 - t) + p[2 * i + 1] * t - most);
    const b = sign * (p[2 * j] * (1 - t) + p[2 * j + 1] * t - most);
    if (a <= 0) {
      out[2 * n] = p[2 * i];
      out[2 * n++ + 1] = p[2 * i + 1];
    }
    if (a <= 0 !== b <= 0) {
      const f = a / (a - b);
      out[2 * n] = p[2 * i] + (p[2 * j] - p[2 * i]) * f;
      out[2 * n++ + 1] = p[2 * i + 1] + (p[2 * j + 1] - p[2 * i + 1]) * f;
    }
  }
  return n;
}

/**
 * The fewest lines that follow each other and pass all samples within a tolerance, their ends at samples. Of each sample it is known
 * by how few lines it is reached, and at which heights: with one line more it is reached at all of its heights, so that no more
 * need be known. A line is told by its heights at the sample where it begins and at the next; those that pass a row of samples are a
 * convex polygon in the plane of these two, clipped by two straight edges for each sample.
 */
function leastChain(s: Float64Array, z: Float64Array, tolerance: number): number {
  const n = s.length;
  const count = new Int32Array(n).fill(0x7fffffff);
  const low = new Float64Array(n);
  const high = new Float64Array(n);
  [count[0], low[0], high[0]] = [0, z[0] - tolerance, z[0] + tolerance];
  const reached = (k: number, from: number, to: number, lines: number) => {
    if (lines > count[k]) return;
    if (lines < count[k]) {
      [count[k], low[k], high[k]] = [lines, from, to];
      return;
    }
    low[k] = Math.min(low[k], from);
    high[k] = Math.max(high[k], to);
  };
  // Corners of the polygon, and room to clip it: an edge adds one corner at most.
  let [p, spare] = [new Float64Array(4 * n + 16), new Float64Array(4 * n + 16)];
  let corners = 0;
  const clip = (t: number, most: number, sign: number): void => {
    corners = clipped(p, corners, spare, t, most, sign);
    [p, spare] = [spare, p];
  };
  const extend = (m: number, from: number, to: number, lines: number): void => {
    const [a, b] = [z[m + 1] - tolerance, z[m + 1] + tolerance];
    reached(m + 1, a, b, lines);
    p.set([from, a, to, a, to, b, from, b]);
    corners = 4;
    for (let k = m + 2; k < n; k++) {
      const t = (s[k] - s[m]) / (s[m + 1] - s[m]);
      clip(t, z[k] + tolerance, 1);
      clip(t, z[k] - tolerance, -1);
      if (!corners) return;
      let lowest = Infinity;
      let highest = -Infinity;
      for (let i = 0; i < 2 * corners; i += 2) {
        const h = p[i] * (1 - t) + p[i + 1] * t;
        lowest = Math.min(lowest, h);
        highest = Math.max(highest, h);
      }
      reached(k, lowest, highest, lines);
    }
  };
  for (let m = 0; m < n - 1; m++) {
    extend(m, low[m], high[m], count[m] + 1);
    if (high[m] - low[m] < 2 * tolerance) extend(m, z[m] - tolerance, z[m] + tolerance, count[m] + 2);
  }
  return count[n - 1];
}

/** Whether one line passes samples i..j within a tolerance: over slopes, what parts the highest lower end from the lowest upper end is convex. */
function passes(s: Float64Array, z: Float64Array, i: number, j: number, tolerance: number): boolean {
  const gap = (slope: number): number => {
    let [low, high] = [-Infinity, Infinity];
    for (let k = i; k <= j; k++) {
      const h = z[k] - slope * (s[k] - s[i]);
      if (h - tolerance > low) low = h - tolerance;
      if (h + tolerance < high) high = h + tolerance;
    }
    return low - high;
  };
  let [a, b] = [-1e3, 1e3];
  // No other slopes pass the first two samples.
  const d = s[i + 1] - s[i];
  a = Math.max(a, (z[i + 1] - z[i] - 2 * tolerance) / d);
  b = Math.min(b, (z[i + 1] - z[i] + 2 * tolerance) / d);
  for (let n = 0; n < 60; n++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    const [gp, gq] = [gap(p), gap(q)];
    if (gp <= 1e-12 || gq <= 1e-12) return true;
    if (gp < gq) b = q;
    else a = p;
  }
  return false;
}

/** Samples of a row without most of those on straight stretches. */
function bends(s: Float64Array, z: Float64Array): number[] {
  const out = [0];
  for (let k = 1; k < s.length - 1; k++)
    if (Math.abs(z[k - 1] - 2 * z[k] + z[k + 1]) > 1e-9 || k - out[out.length - 1] >= STRAIGHT) out.push(k);
  return [...out, s.length - 1];
}

/** The fewest lines that pass all samples, where they need not meet. */
function least(s: Float64Array, z: Float64Array, tolerance: number): number {
  let count = 0;
  for (let i = 0; i < s.length - 1; count++) {
    let j = i + 1;
    let step = 1;
    while (j + step < s.length && passes(s, z, i, j + step, tolerance)) {
      j += step;
      step *= 2;
    }
    for (step >>= 1; step >= 1; step >>= 1) if (j + step < s.length && passes(s, z, i, j + step, tolerance)) j += step;
    // The next line begins at the sample after the last that this one passes.
    i = j + 1;
  }
  return count;
}

const share = reliefShare();
const DENSER = 4;
/** Of a straight stretch so many samples are enough: who passes two of its places within a tolerance passes what lies between. */
const STRAIGHT = 64;
const library = shippedLibrary();
function measured(what: string, field: HeightField, cutter: string, apart: number): void {
  const locator = locatorsOver(field)(formOf(library.find((c) => c.id === cutter)!), share.locate);
  const [w, h] = [(field.cols - 1) * field.cell, (field.rows - 1) * field.cell];
  let [moves, chain, apartAll] = [0, 0, 0];
  for (let y = apart / 2; y < h; y += apart) {
    locator.restart();
    const bottom = (x: number, v: number) => Math.max(-50, locator.at(x, v));
    const { shares, heights } = sampledAlong(0, y, w, y, { step: locator.step, at: bottom }, share.sample);
    fewest(shares, heights, share.merge, () => moves++);
    // Samples so close that what lies between two of them is nothing.
    const n = Math.ceil((DENSER * w) / locator.step);
    const dense = Float64Array.from({ length: n + 1 }, (_, k) => (k / n) * w);
    const heightsOf = dense.map((x) => bottom(x, y));
    const told = bends(dense, heightsOf);
    chain += leastChain(
      Float64Array.from(told, (k) => dense[k]),
      Float64Array.from(told, (k) => heightsOf[k]),
      share.merge,
    );
    apartAll += least(dense, heightsOf, share.merge);
  }
  console.log(
    `| ${what} | ${cutter} | ${moves} | ${chain} | ${(moves / chain).toFixed(3)} | ${apartAll} | ${(moves / apartAll).toFixed(3)} |`,
  );
}

console.log(
  '| rows over | cutter | moves | least of a chain | times | least of lines apart | times |\n| --- | --- | --- | --- | --- | --- | --- |',
);
const ground = (at: (x: number, y: number) => number): HeightField => {
  const f = flatField(40, 30, 0.05);
  for (let r = 0, i = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++, i++) f.z[i] = at(c * f.cell, r * f.cell);
  return f;
};
for (const cutter of ['ball-2', 'taperedBall-6-0.25-5', 'cone-3.175-15-0.2']) {
  measured(
    'a cosine',
    ground((x, y) => -2 + Math.cos(0.7 * x) * Math.cos(0.5 * y)),
    cutter,
    5,
  );
  measured(
    'a hemisphere',
    ground((x, y) => Math.max(-8, Math.sqrt(Math.max(0, 144 - (x - 20) ** 2 - (y - 15) ** 2)) - 12)),
    cutter,
    5,
  );
}
for (const [name, cutter] of [
  ['heron-medallion', 'taperedBall-6-0.25-5'],
  ['reed-bed-sign', 'ball-4'],
] as const) {
  const job = demoSetups[name]();
  const relief = shapedWhenAsked(job, { art, mesh: () => null, picture: () => null, progress: () => {} })();
  measured(name, relief!, cutter, name === 'heron-medallion' ? 12 : 45);
}
