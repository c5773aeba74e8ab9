/** A large number in words, as closely as matters: "860 thousand", "1.2 million". */
export const roughly = (n: number): string =>
  n < 999_500 ? `${Math.max(1, Math.round(n / 1000))} thousand` : `${+(n / 1e6).toFixed(1)} million`;
