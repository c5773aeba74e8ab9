/** Which part one number is of another, per cent: whole, but for small ones, which keep a decimal or two. */
export const percentOf = (part: number, whole: number): number =>
  +((100 * part) / whole).toPrecision(2) >= 10
    ? Math.round((100 * part) / whole)
    : +((100 * part) / whole).toPrecision(2);

/** A large number in words, as closely as matters: "860 thousand", "1.2 million". */
export const roughly = (n: number): string =>
  n < 999_500 ? `${Math.max(1, Math.round(n / 1000))} thousand` : `${+(n / 1e6).toFixed(1)} million`;
