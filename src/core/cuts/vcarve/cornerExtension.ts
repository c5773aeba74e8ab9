import type { Branches } from '../../geometry/medial/branches';

/**
 * Branches whose ends in sharp corners (clearance 0) are carried on beyond the corner, in line, until their clearance has
 * fallen to -by mm: there the tip stands above the face. On a face that is higher than it should be the corner stays sharp.
 */
export function extendedIntoCorners(b: Branches, by: number): Branches {
  const samples: number[] = [];
  const start = new Int32Array(b.count + 1);
  const beyond = (i: number, j: number) => {
    const dr = b.samples[3 * j + 2] - b.samples[3 * i + 2];
    if (b.samples[3 * i + 2] > 1e-3 || dr < 1e-6) return;
    const k = (b.samples[3 * i + 2] + by) / dr;
    for (const c of [0, 1]) samples.push(b.samples[3 * i + c] - k * (b.samples[3 * j + c] - b.samples[3 * i + c]));
    samples.push(-by);
  };
  for (let e = 0; e < b.count; e++) {
    start[e] = samples.length / 3;
    const [from, to] = [b.start[e], b.start[e + 1]];
    if (to - from > 1) beyond(from, from + 1);
    for (let k = 3 * from; k < 3 * to; k++) samples.push(b.samples[k]);
    if (to - from > 1) beyond(to - 1, to - 2);
  }
  start[b.count] = samples.length / 3;
  return { ...b, samples: Float64Array.from(samples), start };
}
