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
/** The median is the mean of the middle one of so many bands: within a 4096th of the height, and exact on level ground. */
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
  const bandOf = (h: number) => (span > 0 ? Math.min(FINE - 1, Math.floor(((h - lowest) / span) * FINE)) : 0);
  const fine = new Uint32Array(FINE);
  for (let i = 0; i < z.length; i++) if (z[i] === z[i]) fine[bandOf(z[i])]++;
  let at = 0;
  for (let n = fine[0]; n < count / 2; ) n += fine[++at];
  let sum = 0;
  for (let i = 0; i < z.length; i++) if (z[i] === z[i] && bandOf(z[i]) === at) sum += z[i];
  const bands = new Array<number>(BANDS).fill(0);
  fine.forEach((n, k) => (bands[Math.floor((k * BANDS) / FINE)] += n));
  return {
    lowest,
    highest,
    median: sum / fine[at],
    bands,
    covered: count / z.length,
  };
}
