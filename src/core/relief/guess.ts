import type { MeshBox, UpSide } from './mesh';

export interface MeshGuess {
  readonly up: UpSide;
  readonly width: number;
  readonly height: number;
  readonly rise: number;
  /** By what its own sizes were multiplied, width and height alike. */
  readonly scale: number;
  /** What would fit it into the blank, where its own sizes are absurd there as millimetres; else null. */
  readonly fitting: number | null;
  /** Whether its rise was made smaller by itself. */
  readonly shallower: boolean;
}

/** So much of the blank a mesh that does not fit is made to take. */
const FITS = 0.9;
/** So much of the thickness a relief may take at first. */
const RISES = 0.5;
export const mostRise = (blank: { readonly thickness: number }): number => RISES * blank.thickness;

/**
 * How a mesh that was just brought may be meant: reliefs are flat, so its thinnest side looks up, its own Z where that is not
 * much thicker. Its numbers are of `unit`, mm; where that is not known, of millimetres, unless it would be larger than the blank or too
 * small to see: then it is fitted in. A rise that the thickness does not hold is made shallower.
 */
export function guessMesh(
  { low, high }: MeshBox,
  blank: { readonly width: number; readonly height: number; readonly thickness: number },
  unit: number | null = null,
): MeshGuess {
  const [x, y, z] = [0, 1, 2].map((k) => high[k] - low[k]);
  const thin = Math.min(x, y, z);
  const up: UpSide = z <= 1.5 * thin ? 'z+' : y === thin ? 'y+' : 'x+';
  // Sizes as it stands: see STANDING in ./mesh.ts.
  const [w, h, r] = up === 'z+' ? [x, y, z] : up === 'y+' ? [x, z, y] : [y, z, x];
  const fit = Math.min(blank.width / Math.max(w, 1e-9), blank.height / Math.max(h, 1e-9));
  const fitting = fit < 1 || fit > 200 ? FITS * fit : null;
  const scale = unit ?? fitting ?? 1;
  const most = mostRise(blank);
  const shallower = r * scale > most;
  return {
    up,
    width: w * scale,
    height: h * scale,
    rise: shallower ? most : Math.max(r * scale, 0.01),
    scale,
    fitting,
    shallower,
  };
}

/** How large a picture may be meant, mm: fitted into the blank with its ratio kept, and a tenth of its width, or a quarter of the thickness, high. */
export function guessPicture(
  pixels: { readonly width: number; readonly height: number },
  blank: { readonly width: number; readonly height: number; readonly thickness: number },
): { readonly width: number; readonly height: number; readonly rise: number } {
  const each = FITS * Math.min(blank.width / pixels.width, blank.height / pixels.height);
  const [width, height] = [pixels.width * each, pixels.height * each];
  return { width, height, rise: Math.max(0.1, Math.min(width / 10, blank.thickness / 4)) };
}
