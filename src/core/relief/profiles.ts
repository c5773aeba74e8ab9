import type { Line } from './form';

/**
 * Profiles across a width: how high they stand, mm, at `u` from one side (-1) over the middle (0) to the other (1); `half` of the
 * width and the height in the middle, mm.
 *
 *      arch        bow         hollow       ridge        wave
 *     .-''-.                  '.    .'        /\         .-.
 *    |      |    _.-''-._       '--'        /    \     _'   '_
 */
export const profiles = {
  bow: {
    name: 'Bow',
    at: (u: number, half: number, height: number): number => {
      // A part of a circle through both sides and the middle; as far as half of one.
      if (height <= 0) return 0;
      const h = Math.min(height, half);
      const r = (half * half + h * h) / (2 * h);
      return (Math.sqrt(Math.max(0, r * r - u * u * half * half)) - (r - h)) * (height / h);
    },
  },
  arch: { name: 'Arch', at: (u: number, _: number, height: number) => height * Math.sqrt(Math.max(0, 1 - u * u)) },
  hollow: {
    name: 'Hollow',
    at: (u: number, half: number, height: number): number => height - profiles.bow.at(u, half, height),
  },
  ridge: { name: 'Ridge', at: (u: number, _: number, height: number) => height * (1 - Math.abs(u)) },
  wave: { name: 'Wave', at: (u: number, _: number, height: number) => (height / 2) * (1 + Math.cos(Math.PI * u)) },
} as const;
export type ProfileId = keyof typeof profiles;

/** A drawn line as a profile: from its left end to its right one, heights above its lowest point, both in mm. */
export interface DrawnProfile {
  readonly width: number;
  readonly height: number;
  /** How high it stands so far from its left end, mm; where it doubles back, its highest. */
  readonly at: (x: number) => number;
  /** Its highest place up to so far from its left end, mm. */
  readonly highest: (to: number) => number;
}

/** Null where lines do not go from left to right at all. */
export function drawnProfile(lines: readonly Line[]): DrawnProfile | null {
  const steps: number[][] = [];
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { points, closed } of lines) {
    const n = points.length;
    for (let i = 0; i < n; i += 2) {
      left = Math.min(left, points[i]);
      right = Math.max(right, points[i]);
      low = Math.min(low, points[i + 1]);
      high = Math.max(high, points[i + 1]);
      const j = (i + 2) % n;
      if (j === 0 && !closed) continue;
      const [a, b] = points[i] <= points[j] ? [i, j] : [j, i];
      steps.push([points[a], points[a + 1], points[b], points[b + 1]]);
    }
  }
  if (!(right - left > 1e-6)) return null;
  steps.sort((a, b) => a[0] - b[0]);
  // The longest step says how far back one has to look for those that reach a place.
  const longest = Math.max(...steps.map((s) => s[2] - s[0]));
  const at = (d: number): number => {
    const x = Math.min(right, Math.max(left, left + d));
    let [first, last] = [0, steps.length];
    while (first < last) {
      const middle = (first + last) >> 1;
      if (steps[middle][0] < x - longest - 1e-9) first = middle + 1;
      else last = middle;
    }
    let best = -Infinity;
    for (let k = first; k < steps.length && steps[k][0] <= x; k++) {
      const [x0, y0, x1, y1] = steps[k];
      if (x1 < x) continue;
      best = Math.max(best, x1 > x0 ? y0 + ((x - x0) / (x1 - x0)) * (y1 - y0) : Math.max(y0, y1));
    }
    // Between two lines there is nothing: it stands at the lowest.
    return (best === -Infinity ? low : best) - low;
  };
  // Between its corners it is straight: it is highest at one of them, or where it ends.
  const highest = (to: number): number => {
    let best = at(to);
    for (const s of steps) for (const k of [0, 2]) if (s[k] - left <= to) best = Math.max(best, s[k + 1] - low);
    return best;
  };
  return { width: right - left, height: high - low, at, highest };
}
