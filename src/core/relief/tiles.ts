import type { GreyPicture } from './picture';

/** How a picture lies: once, or again and again over everything. */
export const layings = {
  once: 'Once',
  repeated: 'Repeated',
  blended: 'Without seams',
  mirrored: 'Mirrored',
} as const;
export type Laying = keyof typeof layings;

/** So much of a picture lies over its neighbour where seams are blended. */
const OVERLAP = 0.2;

/**
 * Height of a picture at a place, its sides at 0 and 1: from its left to its right and from its upper to its lower edge; bilinear
 * between the middles of its pixels. NaN where the nearest is empty.
 */
export type Sampled = (s: number, t: number) => number;

/** Beyond the outermost middles it is as there; or, where it `wraps`, as on the other side. */
export function sampled({ width, height, light }: GreyPicture, wraps = false): Sampled {
  const within = (i: number, n: number) => (wraps ? ((i % n) + n) % n : i < 0 ? 0 : i >= n ? n - 1 : i);
  return (s, t) => {
    const x = s * width - 0.5;
    const y = t * height - 0.5;
    const c = Math.floor(x);
    const r = Math.floor(y);
    const [fx, fy] = [x - c, y - r];
    const [c0, c1] = [within(c, width), within(c + 1, width)];
    const [r0, r1] = [within(r, height) * width, within(r + 1, height) * width];
    const near = light[(fy < 0.5 ? r0 : r1) + (fx < 0.5 ? c0 : c1)];
    if (near !== near) return NaN;
    const [a, b, d, e] = [light[r0 + c0], light[r0 + c1], light[r1 + c0], light[r1 + c1]];
    // An empty neighbour is as the nearest: it draws nothing down.
    return (
      ((a === a ? a : near) * (1 - fx) + (b === b ? b : near) * fx) * (1 - fy) +
      ((d === d ? d : near) * (1 - fx) + (e === e ? e : near) * fx) * fy
    );
  };
}

const part = (s: number) => s - Math.floor(s);
const eased = (t: number) => t * t * (3 - 2 * t);

/**
 * A picture over everything, one for each whole number. Mirrored ones meet their own edges. Blended ones lie over each other:
 *
 *      |----- one -----|           what runs out of one and
 *                 |----- next ----|   what begins the next are mixed
 *                 |<-->| OVERLAP      from the one to the other
 */
export function tiled(p: GreyPicture, how: Exclude<Laying, 'once'>): Sampled {
  if (how === 'repeated') {
    const at = sampled(p, true);
    return (s, t) => at(part(s), part(t));
  }
  const at = sampled(p);
  if (how === 'mirrored') {
    const folded = (s: number) => {
      const u = 2 * part(s / 2);
      return u > 1 ? 2 - u : u;
    };
    return (s, t) => at(folded(s), folded(t));
  }
  const own = 1 - OVERLAP;
  const mixed = (t: number, from: (t: number) => number): number => {
    const u = part(t) * own;
    if (u >= OVERLAP) return from(u);
    const w = eased(u / OVERLAP);
    const [a, b] = [from(u + own), from(u)];
    return a !== a ? b : b !== b ? a : a * (1 - w) + b * w;
  };
  return (s, t) => mixed(t, (v) => mixed(s, (u) => at(u, v)));
}
