/** Points of a tone curve, from left to right: what a grey is, and what it is taken for; both 0 to 1. */
export type Curve = readonly (readonly [number, number])[];
export const STRAIGHT: Curve = [
  [0, 0],
  [1, 1],
];

export const isStraight = (c: Curve): boolean => c.every(([x, y]) => x === y);

/**
 * A smooth curve through points that nowhere leaves the heights of the two between which it runs: cubic pieces whose slopes are held
 * back (F. N. Fritsch, R. E. Carlson, "Monotone Piecewise Cubic Interpolation", 1980). Level beyond the first and the last.
 */
export function curveThrough(c: Curve): (x: number) => number {
  const n = c.length - 1;
  const rise = Array.from({ length: n }, (_, k) => (c[k + 1][1] - c[k][1]) / (c[k + 1][0] - c[k][0]));
  const slope = Array.from({ length: n + 1 }, (_, k) => {
    if (k === 0 || k === n) return rise[k === 0 ? 0 : n - 1];
    return rise[k - 1] * rise[k] <= 0 ? 0 : (rise[k - 1] + rise[k]) / 2;
  });
  for (let k = 0; k < n; k++) {
    if (rise[k] === 0) {
      slope[k] = slope[k + 1] = 0;
      continue;
    }
    const [a, b] = [slope[k] / rise[k], slope[k + 1] / rise[k]];
    const far = a * a + b * b;
    if (far <= 9) continue;
    const t = 3 / Math.sqrt(far);
    slope[k] = t * a * rise[k];
    slope[k + 1] = t * b * rise[k];
  }
  return (x) => {
    if (x <= c[0][0]) return c[0][1];
    if (x >= c[n][0]) return c[n][1];
    let k = 0;
    while (c[k + 1][0] < x) k++;
    const wide = c[k + 1][0] - c[k][0];
    const t = (x - c[k][0]) / wide;
    const s = 1 - t;
    return (
      s * s * (1 + 2 * t) * c[k][1] +
      t * t * (3 - 2 * t) * c[k + 1][1] +
      wide * t * s * (s * slope[k] - t * slope[k + 1])
    );
  };
}
