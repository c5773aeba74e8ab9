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
  const { lowest, highest, count } = rangeOf(z);
  if (!count) return { lowest: 0, highest: 0, median: 0, bands: new Array(BANDS).fill(0), covered: 0 };
  const fine = new Uint32Array(FINE);
  const sums = new Float64Array(FINE);
  inBands(z, lowest, highest > lowest ? FINE / (highest - lowest) : 0, fine, sums);
  let at = 0;
  for (let n = fine[0]; n < count / 2;) n += fine[++at];
  const bands = new Array<number>(BANDS).fill(0);
  fine.forEach((n, k) => (bands[Math.floor((k * BANDS) / FINE)] += n));
  return { lowest, highest, median: sums[at] / fine[at], bands, covered: count / z.length };
}

function rangeOf(z: Float32Array) {
  let lowest = Infinity;
  let highest = -Infinity;
  let count = 0;
  for (let i = 0; i < z.length; i++) {
    const h = z[i];
    if (h !== h) continue;
    count++;
    if (h < lowest) lowest = h;
    if (h > highest) highest = h;
  }
  return { lowest, highest, count };
}

/** How many heights, and their sum, each band holds. By itself, so that it is compiled as one loop. */
function inBands(z: Float32Array, lowest: number, scale: number, count: Uint32Array, sums: Float64Array): void {
  for (let i = 0; i < z.length; i++) {
    const h = z[i];
    if (h !== h) continue;
    const band = Math.min(FINE - 1, Math.floor((h - lowest) * scale));
    count[band]++;
    sums[band] += h;
  }
}
