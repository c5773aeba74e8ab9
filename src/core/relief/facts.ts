/** What is said of a relief's heights; all 0 where it is empty everywhere. */
export interface HeightFacts {
  readonly lowest: number;
  readonly highest: number;
  readonly median: number;
  /** Nodes in bands of equal height from the lowest to the highest. */
  readonly bands: readonly number[];
  /** Nodes that are not empty, as part of all. */
  readonly covered: number;
}

const BANDS = 48;
/** The median is read off bands so fine: within a 4096th of the height. */
const FINE = 4096;

/** Facts about heights, mm; NaN counts for nothing. */
export function heightFacts(z: Float32Array): HeightFacts {
  let [lowest, highest, count] = [Infinity, -Infinity, 0];
  for (let i = 0; i < z.length; i++) {
    const h = z[i];
    if (h !== h) continue;
    count++;
    if (h < lowest) lowest = h;
    if (h > highest) highest = h;
  }
  if (!count) return { lowest: 0, highest: 0, median: 0, bands: new Array(BANDS).fill(0), covered: 0 };
  const span = highest - lowest;
  const fine = new Uint32Array(FINE);
  for (let i = 0; i < z.length; i++)
    if (z[i] === z[i]) fine[span > 0 ? Math.min(FINE - 1, Math.floor(((z[i] - lowest) / span) * FINE)) : 0]++;
  let at = 0;
  for (let sum = fine[0]; sum < count / 2; ) sum += fine[++at];
  const bands = new Array<number>(BANDS).fill(0);
  fine.forEach((n, k) => (bands[Math.floor((k * BANDS) / FINE)] += n));
  return {
    lowest,
    highest,
    median: span > 0 ? lowest + ((at + 0.5) / FINE) * span : lowest,
    bands,
    covered: count / z.length,
  };
}
