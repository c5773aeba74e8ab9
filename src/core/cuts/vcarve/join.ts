import type { Stroke } from './strokes';

/** So near (mm) the end of a stroke must lie to a point of a rim to belong to it: what chords of the axis may stray. */
const TOUCH = 2.5e-3;

/**
 * Strokes that end on a rim (a closed stroke along the foot of the wall) are run from there: out and back while the rim is cut,
 * instead of lifting for each. Where a stroke leads to another rim, that one is run from its far end. `worth` says of a
 * stroke (length, its far end's height) whether going back along it is quicker than lifting. What joins nothing stays as it is.
 *
 *        \     /
 *         \___/       rim ___ with two corners: one stroke instead of three
 */
export function joinRims(
  rims: readonly Stroke[],
  strokes: readonly Stroke[],
  worth: (length: number, z: number) => boolean,
): Stroke[] {
  if (!rims.length) return [...strokes];
  // Points of rims by small squares.
  const key = (x: number, y: number) => `${x},${y}`;
  const at = new Map<string, number[]>();
  rims.forEach((r, i) => {
    for (let k = 0; k < r.length / 3 - 1; k++) {
      const cell = key(Math.floor(r[3 * k] / TOUCH), Math.floor(r[3 * k + 1] / TOUCH));
      const list = at.get(cell);
      if (list) list.push(i, k);
      else at.set(cell, [i, k]);
    }
  });
  const onRim = (x: number, y: number, z: number): { rim: number; point: number } | null => {
    let best: { rim: number; point: number } | null = null;
    let least = TOUCH;
    const [c, r] = [Math.floor(x / TOUCH), Math.floor(y / TOUCH)];
    for (let dc = -1; dc <= 1; dc++)
      for (let dr = -1; dr <= 1; dr++) {
        const list = at.get(key(c + dc, r + dr)) ?? [];
        for (let n = 0; n < list.length; n += 2) {
          const [p, k] = [rims[list[n]], list[n + 1]];
          const d = Math.hypot(p[3 * k] - x, p[3 * k + 1] - y);
          if (d <= least && Math.abs(p[3 * k + 2] - z) < 1e-6) {
            least = d;
            best = { rim: list[n], point: k };
          }
        }
      }
    return best;
  };
  /** What leaves a rim at each of its points: number of the stroke, and whether it begins there. */
  const leaving: Map<number, { stroke: number; forward: boolean }[]>[] = rims.map(() => new Map());
  strokes.forEach((s, i) => {
    const n = s.length;
    let length = 0;
    for (let k = 3; k < n; k += 3) length += Math.hypot(s[k] - s[k - 3], s[k + 1] - s[k - 2], s[k + 2] - s[k - 1]);
    for (const forward of [true, false]) {
      const [a, b] = forward ? [0, n - 3] : [n - 3, 0];
      const place = onRim(s[a], s[a + 1], s[a + 2]);
      if (!place || !worth(length, s[b + 2])) continue;
      const list = leaving[place.rim].get(place.point);
      if (list) list.push({ stroke: i, forward });
      else leaving[place.rim].set(place.point, [{ stroke: i, forward }]);
    }
  });
  const used = new Uint8Array(strokes.length);
  const done = new Uint8Array(rims.length);
  const run = (rim: number, from: number, out: number[]): void => {
    done[rim] = 1;
    const r = rims[rim];
    const n = r.length / 3 - 1;
    for (let q = 0; q <= n; q++) {
      const k = (from + q) % n;
      out.push(r[3 * k], r[3 * k + 1], r[3 * k + 2]);
      if (q === n) break;
      for (const { stroke, forward } of leaving[rim].get(k) ?? []) {
        if (used[stroke]) continue;
        used[stroke] = 1;
        const s = strokes[stroke];
        const m = s.length / 3;
        const point = (i: number) => out.push(s[3 * i], s[3 * i + 1], s[3 * i + 2]);
        for (let i = 0; i < m; i++) point(forward ? i : m - 1 - i);
        const e = forward ? s.length - 3 : 0;
        const far = onRim(s[e], s[e + 1], s[e + 2]);
        if (far && !done[far.rim]) run(far.rim, far.point, out);
        for (let i = m - 1; i >= 0; i--) point(forward ? i : m - 1 - i);
        out.push(r[3 * k], r[3 * k + 1], r[3 * k + 2]);
      }
    }
  };
  const joined: Stroke[] = [];
  rims.forEach((_, i) => {
    if (done[i]) return;
    const out: number[] = [];
    run(i, 0, out);
    joined.push(Float64Array.from(out));
  });
  return joined.concat(strokes.filter((_, i) => !used[i]));
}
