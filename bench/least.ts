/**
 * Moves along rows over a relief against the least that the tolerance allows: `npm run bench:least`. The least is that of lines which
 * need not even meet each other: as many as are needed so that every sample of a row is passed within the tolerance, each as long as
 * any line can be (greedy, which is best possible for them). No chain of moves has fewer that stays within what merging may leave out.
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
const DENSER = 8;
const library = shippedLibrary();
function measured(what: string, field: HeightField, cutter: string, apart: number): void {
  const locator = locatorsOver(field)(formOf(library.find((c) => c.id === cutter)!), share.locate);
  const [w, h] = [(field.cols - 1) * field.cell, (field.rows - 1) * field.cell];
  let [moves, fewer] = [0, 0];
  for (let y = apart / 2; y < h; y += apart) {
    locator.restart();
    const bottom = (x: number, v: number) => Math.max(-50, locator.at(x, v));
    const { shares, heights } = sampledAlong(0, y, w, y, { step: locator.step, at: bottom }, share.sample);
    fewest(shares, heights, share.merge, () => moves++);
    // Samples so close that what lies between two of them is nothing.
    const n = Math.ceil((DENSER * w) / locator.step);
    const dense = Float64Array.from({ length: n + 1 }, (_, k) => (k / n) * w);
    fewer += least(
      dense,
      dense.map((x) => bottom(x, y)),
      share.merge,
    );
  }
  console.log(`| ${what} | ${cutter} | ${moves} | ${fewer} | ${(moves / fewer).toFixed(3)} |`);
}

console.log('| rows over | cutter | moves | least | times | \n| --- | --- | --- | --- | --- |');
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
    1,
  );
  measured(
    'a hemisphere',
    ground((x, y) => Math.max(-8, Math.sqrt(Math.max(0, 144 - (x - 20) ** 2 - (y - 15) ** 2)) - 12)),
    cutter,
    1,
  );
}
for (const [name, cutter] of [
  ['heron-medallion', 'taperedBall-6-0.25-5'],
  ['reed-bed-sign', 'ball-4'],
] as const) {
  const job = demoSetups[name]();
  const relief = shapedWhenAsked(job, { art, mesh: () => null, picture: () => null, progress: () => {} })();
  measured(name, relief!, cutter, name === 'heron-medallion' ? 1.5 : 8);
}
