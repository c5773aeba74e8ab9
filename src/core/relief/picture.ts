import { boxMeans } from './slide';

/** A picture of greys: `light` holds 0 (black) to 1 (white) for each pixel, row 0 on top; NaN where it is wholly transparent. */
export interface GreyPicture {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
  /** Different greys that its file can tell apart. */
  readonly greys: number;
}

/** A picture with so many times fewer pixels along each side: each the mean of those that it stands for. */
export function reduced(p: GreyPicture, k: number): GreyPicture {
  if (k < 2) return p;
  const [width, height] = [Math.ceil(p.width / k), Math.ceil(p.height / k)];
  const light = new Float32Array(width * height);
  for (let r = 0; r < height; r++)
    for (let c = 0; c < width; c++) {
      let [sum, n] = [0, 0];
      for (let y = r * k; y < Math.min(p.height, (r + 1) * k); y++)
        for (let x = c * k; x < Math.min(p.width, (c + 1) * k); x++) {
          const l = p.light[y * p.width + x];
          if (l !== l) continue;
          sum += l;
          n++;
        }
      light[r * width + c] = sum / n;
    }
  return { ...p, width, height, light };
}

/** How much is left out at each side of a picture, per cent of its width and its height. */
export interface Crop {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}
/** At least so much of a picture stays, per cent. */
export const LEAST_LEFT = 2;

/** What is left of a picture without its margins: whole pixels, at least one. */
export function cropped(p: GreyPicture, crop: Crop): GreyPicture {
  const cut = (n: number, from: number, to: number): [number, number] => {
    const first = Math.min(n - 1, Math.round((from / 100) * n));
    return [first, Math.max(first + 1, n - Math.round((to / 100) * n))];
  };
  const [x0, x1] = cut(p.width, crop.left, crop.right);
  const [y0, y1] = cut(p.height, crop.top, crop.bottom);
  const [width, height] = [x1 - x0, y1 - y0];
  if (width === p.width && height === p.height) return p;
  const light = new Float32Array(width * height);
  for (let r = 0; r < height; r++)
    light.set(p.light.subarray((y0 + r) * p.width + x0, (y0 + r) * p.width + x1), r * width);
  return { ...p, width, height, light };
}

/** Windows over which steps are smoothed, in pixels to each side, one after the other; wider ones flatten what is round. */
const REACH = [6, 3];

/**
 * A picture without the steps that its few greys make of slopes: each pixel is moved to the mean of those round it, but by no more
 * than half a step, which is all that its file does not know.
 */
export function withoutSteps(p: GreyPicture): GreyPicture {
  // Sixteen bits have no steps that could be cut.
  if (p.greys > 4096) return p;
  const half = 0.5 / (p.greys - 1);
  let light = p.light;
  const size = { cols: p.width, rows: p.height };
  for (const r of REACH) {
    light = boxMeans(light, size, r);
    for (let i = 0; i < light.length; i++) {
      const l = p.light[i];
      // What is empty compares with nothing.
      if (light[i] > l + half) light[i] = l + half;
      else if (light[i] < l - half) light[i] = l - half;
    }
  }
  return { ...p, light };
}
