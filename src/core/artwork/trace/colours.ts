import { hsl } from 'd3-color';

/** A picture as it comes from a decoder: RGBA, 8 bits each, row 0 on top. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray | Uint8Array;
}

/** How dark each pixel is, 0 for white and clear to 1 for black (Rec. 709 weights, over white paper). */
export function darkness(p: Picture): Float32Array {
  const out = new Float32Array(p.width * p.height);
  for (let i = 0, k = 0; i < out.length; i++, k += 4) {
    const light = (0.2126 * p.rgba[k] + 0.7152 * p.rgba[k + 1] + 0.0722 * p.rgba[k + 2]) / 255;
    out[i] = (1 - light) * (p.rgba[k + 3] / 255);
  }
  return out;
}

/** The threshold (0..1, as lightness) that parts a picture best into light and dark (Otsu, 1979). */
export function bestThreshold(p: Picture): number {
  const dark = darkness(p);
  const bins = new Float64Array(256);
  for (const d of dark) bins[Math.min(255, Math.floor((1 - d) * 256))]++;
  let all = 0;
  for (let i = 0; i < 256; i++) all += i * bins[i];
  let below = 0;
  let sum = 0;
  let best = 0.5;
  let most = -1;
  for (let i = 0; i < 255; i++) {
    below += bins[i];
    sum += i * bins[i];
    const above = dark.length - below;
    if (!below || !above) continue;
    const m0 = sum / below;
    const m1 = (all - sum) / above;
    const between = below * above * (m0 - m1) ** 2;
    // Half way between the two means, so that anti-aliased edges lie in the middle of their ramp.
    if (between > most) {
      most = between;
      best = (m0 + m1 + 1) / 512;
    }
  }
  return best;
}

/** A pixel's colour over white paper. */
function over(p: Picture, k: number): [number, number, number] {
  const a = p.rgba[k + 3] / 255;
  return [p.rgba[k] * a + 255 * (1 - a), p.rgba[k + 1] * a + 255 * (1 - a), p.rgba[k + 2] * a + 255 * (1 - a)];
}

const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** The place in a palette of the colour that lies round the edge of a picture; -1 where none has more than half of it. */
export function groundOf(p: Picture, colours: Float64Array): number {
  const n = colours.length / 3;
  const seen = new Float64Array(n);
  let all = 0;
  const look = (x: number, y: number) => {
    const c = over(p, 4 * (y * p.width + x));
    let best = 0;
    for (let j = 1; j < n; j++)
      if (apart(c, [...colours.slice(3 * j, 3 * j + 3)]) < apart(c, [...colours.slice(3 * best, 3 * best + 3)]))
        best = j;
    seen[best]++;
    all++;
  };
  for (let x = 0; x < p.width; x++) for (const y of [0, p.height - 1]) look(x, y);
  for (let y = 1; y < p.height - 1; y++) for (const x of [0, p.width - 1]) look(x, y);
  const most = seen.reduce((m, v, j) => (v > seen[m] ? j : m), 0);
  return seen[most] > all / 2 ? most : -1;
}

/** Colours nearer to each other than this (of 255 a channel) count as one; so much of the flat parts a colour must have. */
const ALIKE = 44;
const LEAST_SHARE = 0.004;

/**
 * How many colours a picture is drawn in, 2 to 8: those of its flat parts, where neighbours are alike, so that soft edges
 * between two colours do not count as a third.
 */
export function proposedColours(p: Picture): number {
  const { width: w, height: h } = p;
  const bins = new Map<number, { n: number; c: [number, number, number] }>();
  let flat = 0;
  for (let y = 1; y < h - 1; y++)
    for (let x = 1; x < w - 1; x++) {
      const k = 4 * (y * w + x);
      const c = over(p, k);
      if (
        apart(c, over(p, k - 4)) > 12 ||
        apart(c, over(p, k + 4)) > 12 ||
        apart(c, over(p, k - 4 * w)) > 12 ||
        apart(c, over(p, k + 4 * w)) > 12
      )
        continue;
      flat++;
      const key = ((c[0] >> 3) << 10) | ((c[1] >> 3) << 5) | (c[2] >> 3);
      const b = bins.get(key);
      if (b) b.n++;
      else bins.set(key, { n: 1, c });
    }
  const taken: { n: number; c: readonly number[] }[] = [];
  for (const b of [...bins.values()].sort((a, q) => q.n - a.n)) {
    const near = taken.find((t) => apart(t.c, b.c) < ALIKE);
    if (near) near.n += b.n;
    else taken.push({ ...b });
  }
  return Math.min(8, Math.max(2, taken.filter((t) => t.n >= LEAST_SHARE * flat).length));
}

/** Hues by name, each up to so many degrees of the colour circle. */
const HUES: readonly (readonly [number, string])[] = [
  [14, 'red'],
  [40, 'orange'],
  [66, 'yellow'],
  [165, 'green'],
  [192, 'teal'],
  [255, 'blue'],
  [300, 'purple'],
  [342, 'pink'],
  [360, 'red'],
];

/** What a maker would call a colour (#rrggbb): its hue, light or dark; a grey, where it has hardly any. */
export function colourName(hex: string): string {
  const { h, s, l } = hsl(hex);
  if (l < 0.09) return 'black';
  if (!(s > 0) || s * Math.min(l, 1 - l) < 0.06)
    return l > 0.94 ? 'white' : l > 0.68 ? 'light grey' : l < 0.36 ? 'dark grey' : 'grey';
  const hue = HUES.find(([to]) => h <= to)![1];
  if ((hue === 'orange' || hue === 'yellow') && l < 0.42) return l < 0.22 ? 'dark brown' : 'brown';
  if (hue === 'red' && l > 0.72) return 'pink';
  return l > 0.72 ? `light ${hue}` : l < 0.32 ? `dark ${hue}` : hue;
}

/**
 * The `count` colours that stand for a picture best: k-means (Lloyd) over a histogram of 5 bits a channel, begun with the
 * commonest colour and then always the one that is farthest from, and commonest among, those taken. Over white
 * paper. No chance is in it. Flat [r, g, b, ...].
 */
export function palette(p: Picture, count: number): Float64Array {
  const bins = new Float64Array(32768);
  const sums = new Float64Array(32768 * 3);
  for (let k = 0; k < p.rgba.length; k += 4) {
    const [r, g, b] = over(p, k);
    const i = ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);
    bins[i]++;
    sums[3 * i] += r;
    sums[3 * i + 1] += g;
    sums[3 * i + 2] += b;
  }
  const used: number[] = [];
  for (let i = 0; i < 32768; i++) if (bins[i]) used.push(i);
  const colour = (i: number, c: number) => sums[3 * i + c] / bins[i];
  const centres: number[][] = [];
  const nearest = new Float64Array(used.length).fill(Infinity);
  for (let n = 0; n < Math.min(count, used.length); n++) {
    let best = 0;
    let most = -1;
    used.forEach((i, j) => {
      const score = n === 0 ? bins[i] : nearest[j] * Math.sqrt(bins[i]);
      if (score > most) {
        most = score;
        best = j;
      }
    });
    const c = [0, 1, 2].map((k) => colour(used[best], k));
    centres.push(c);
    used.forEach((i, j) => {
      nearest[j] = Math.min(
        nearest[j],
        (colour(i, 0) - c[0]) ** 2 + (colour(i, 1) - c[1]) ** 2 + (colour(i, 2) - c[2]) ** 2,
      );
    });
  }
  for (let round = 0; round < 12; round++) {
    const total = centres.map(() => [0, 0, 0, 0]);
    for (const i of used) {
      let best = 0;
      let least = Infinity;
      centres.forEach((c, j) => {
        const d = (colour(i, 0) - c[0]) ** 2 + (colour(i, 1) - c[1]) ** 2 + (colour(i, 2) - c[2]) ** 2;
        if (d < least) {
          least = d;
          best = j;
        }
      });
      // The square root keeps small spots of a colour from being drowned by the paper.
      const w = Math.sqrt(bins[i]);
      for (let k = 0; k < 3; k++) total[best][k] += colour(i, k) * w;
      total[best][3] += w;
    }
    total.forEach((t, j) => {
      if (t[3]) centres[j] = [t[0] / t[3], t[1] / t[3], t[2] / t[3]];
    });
  }
  return Float64Array.from(centres.flat());
}

/**
 * How much each pixel belongs to one colour of a palette, 0.5 where it is as near to another: between two colours
 * that are mixed at an edge it rises with the mixture, so that the edge is found between the pixels.
 */
export function belonging(p: Picture, colours: Float64Array, which: number): Float32Array {
  const out = new Float32Array(p.width * p.height);
  const n = colours.length / 3;
  const [cr, cg, cb] = colours.slice(3 * which, 3 * which + 3);
  for (let i = 0, k = 0; i < out.length; i++, k += 4) {
    const [r, g, b] = over(p, k);
    const mine = Math.sqrt((r - cr) ** 2 + (g - cg) ** 2 + (b - cb) ** 2);
    let other = Infinity;
    for (let j = 0; j < n; j++) {
      if (j === which) continue;
      const d = Math.sqrt((r - colours[3 * j]) ** 2 + (g - colours[3 * j + 1]) ** 2 + (b - colours[3 * j + 2]) ** 2);
      if (d < other) other = d;
    }
    out[i] = mine + other > 0 ? other / (mine + other) : 1;
  }
  return out;
}
