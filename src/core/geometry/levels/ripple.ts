/**
 * Points with the ripple of the grid taken out: twice a quarter of each neighbour and half of itself. Corners and
 * the points beside them stay. A bend of radius r squares is moved inwards by about 1 / (2 r).
 */
export function withoutRipple(p: Float64Array, corners: readonly number[]): Float64Array {
  const n = p.length / 2;
  if (n < 8) return p;
  const fixed = new Uint8Array(n);
  for (const c of corners) fixed[c] = fixed[(c + 1) % n] = fixed[(c + n - 1) % n] = 1;
  let from = p;
  for (let round = 0; round < 2; round++) {
    const to = from.slice();
    for (let i = 0; i < n; i++) {
      if (fixed[i]) continue;
      const a = 2 * ((i + n - 1) % n);
      const b = 2 * ((i + 1) % n);
      to[2 * i] = (from[a] + 2 * from[2 * i] + from[b]) / 4;
      to[2 * i + 1] = (from[a + 1] + 2 * from[2 * i + 1] + from[b + 1]) / 4;
    }
    from = to;
  }
  return from;
}
