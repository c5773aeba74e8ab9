import type { Insets } from '../../geometry/insets';
import type { Branches } from '../../geometry/medial/branches';
import { roundOnce } from '../../geometry/loop';
import type { Bounds } from '../../geometry/box';
import { boundsOf, boxesMeet, clipLines, components, offset, type Loop, type Region } from '../../geometry/region';
import type { Budget } from '../budget';
import { append } from '../../units/append';
import type { Stroke } from './strokes';

/**
 * Lines for the tip of a V-bit over the floor of a carve, x, y interleaved.
 *
 * `rims`: where the floor meets the wall, R mm inside the outline. `lines`: contours a step apart wherever something is left,
 * and the medial axis beyond them. Any place between two contours goes, by the shortest way inwards, either to the next
 * contour or to the axis before it: with both run, none is further than half a step from a line, also along the middle of a
 * stroke and at the corners of contours, where the next contour alone may be a whole step away.
 */
export interface FloorLines {
  readonly rims: Loop[];
  readonly lines: Loop[];
}

export const rimsOf = (insets: Insets, R: number, budget: Budget): Loop[] => insets.at(R, budget.offset).map(roundOnce);

/** Contours and axis over `rest` (all of the floor when null), `step` mm apart, down to `deep` mm inside the rim. */
export function floorLines(
  insets: Insets,
  branches: readonly Branches[],
  R: number,
  rest: Region | null,
  step: number,
  deep: number,
  budget: Budget,
  progress: () => void,
): Loop[] {
  if (rest && !rest.length) return [];
  const rings: Loop[] = [];
  for (let k = 1; (k - 1) * step < deep; k++) {
    progress();
    append(rings, insets.at(R + k * step, 10 * budget.offset).map(roundOnce));
  }
  const all = rings.concat(axisBeyond(branches, R + step / 2));
  return rest ? nearParts(all, offset(rest, step / 2 + 0.01, 0.01)) : all;
}

/** Lines are looked at in stretches of so many points: of one that goes round everything only what passes a place is clipped there. */
const STRETCH = 32;

/** The parts of lines that lie in a region: piece by piece, since all together cost far more. */
export function nearParts(lines: readonly Loop[], region: Region): Loop[] {
  const stretches = lines.map((l) => {
    const out: { readonly to: number; readonly box: Bounds }[] = [];
    const last = l.length / 2 - 1;
    for (let i = 0; i < Math.max(1, last); i += STRETCH) {
      const to = Math.min(last, i + STRETCH);
      out.push({ to, box: boundsOf([l.subarray(2 * i, 2 * to + 2)])! });
    }
    return { whole: boundsOf([l])!, out };
  });
  return components(region).flatMap((part) => {
    const b = boundsOf(part)!;
    const near: Loop[] = [];
    stretches.forEach(({ whole, out }, k) => {
      if (!boxesMeet(whole, b)) return;
      // Stretches that follow on each other stay one line.
      for (let n = 0; n < out.length; n++) {
        if (!boxesMeet(out[n].box, b)) continue;
        const from = n * STRETCH;
        while (n + 1 < out.length && boxesMeet(out[n + 1].box, b)) n++;
        near.push(lines[k].subarray(2 * from, 2 * out[n].to + 2));
      }
    });
    return clipLines(near, part);
  });
}

/** The parts of branches whose clearance is above `least`; single places as lines of a hair's length. */
function axisBeyond(branches: readonly Branches[], least: number): Loop[] {
  const out: Loop[] = [];
  for (const b of branches) {
    for (let e = 0; e < b.count; e++) {
      let line: number[] = [];
      const end = () => {
        if (line.length >= 4) out.push(Float64Array.from(line));
        line = [];
      };
      for (let k = b.start[e]; k < b.start[e + 1]; k++) {
        const [x, y, r] = b.samples.subarray(3 * k, 3 * k + 3);
        if (k > b.start[e]) {
          const [px, py, pr] = b.samples.subarray(3 * k - 3, 3 * k);
          if (pr > least !== r > least) {
            const f = (least - pr) / (r - pr);
            line.push(px + f * (x - px), py + f * (y - py));
            if (r <= least) end();
          }
        }
        if (r > least) line.push(x, y);
      }
      end();
    }
    for (let k = 0; k < b.plunges.length; k += 3)
      if (b.plunges[k + 2] > least)
        out.push(Float64Array.of(b.plunges[k], b.plunges[k + 1], b.plunges[k] + 1e-4, b.plunges[k + 1]));
  }
  return out;
}

export const wayOf = (lines: readonly Loop[]): number => {
  let sum = 0;
  for (const l of lines) for (let i = 2; i < l.length; i += 2) sum += Math.hypot(l[i] - l[i - 2], l[i + 1] - l[i - 1]);
  return sum;
};

/** A line at one height. */
export function level(line: Loop, z: number): Stroke {
  const out = new Float64Array((line.length / 2) * 3);
  for (let i = 0; i < line.length / 2; i++) {
    out[3 * i] = line[2 * i];
    out[3 * i + 1] = line[2 * i + 1];
    out[3 * i + 2] = z;
  }
  return out;
}
