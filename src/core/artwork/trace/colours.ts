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

/**
 * The `count` colours that stand for a picture best: k-means (Lloyd) over a histogram of 5 bits a channel, begun with the
 * commonest colour and then always the one that is farthest from, and commonest among, those taken. Over white
 * paper. No chance is in it. Flat [r, g, b, ...].
 */
export function palette(p: Picture, count: number): Float64Array {
  const bins = new Float64Array(32768);
  const sums = new Float64Array(32768 * 3);
  for (let k = 0; k < p.rgba.length; k += 4) {
    const a = p.rgba[k + 3] / 255;
    const r = p.rgba[k] * a + 255 * (1 - a);
    const g = p.rgba[k + 1] * a + 255 * (1 - a);
    const b = p.rgba[k + 2] * a + 255 * (1 - a);
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
      nearest[j] = Math.min(nearest[j], (colour(i, 0) - c[0]) ** 2 + (colour(i, 1) - c[1]) ** 2 + (colour(i, 2) - c[2]) ** 2);
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
    const a = p.rgba[k + 3] / 255;
    const r = p.rgba[k] * a + 255 * (1 - a);
    const g = p.rgba[k + 1] * a + 255 * (1 - a);
    const b = p.rgba[k + 2] * a + 255 * (1 - a);
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
