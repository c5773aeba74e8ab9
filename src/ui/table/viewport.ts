/** The plan's window on the blank: screen = (ox + x * k, oy - y * k), pixels and mm. */
export interface Viewport {
  k: number;
  ox: number;
  oy: number;
}

export const toScreen = (v: Viewport, x: number, y: number) => ({ x: v.ox + x * v.k, y: v.oy - y * v.k });
export const toWorld = (v: Viewport, x: number, y: number) => ({ x: (x - v.ox) / v.k, y: (v.oy - y) / v.k });

/** Fits a rectangle from 0, 0 with a margin, beside `strip` pixels at the left. */
export function fitted(width: number, height: number, w: number, h: number, ruler: number, strip = 0): Viewport {
  const pad = 26;
  const left = ruler + strip;
  const k = Math.max(0.01, Math.min((w - left - 2 * pad) / width, (h - ruler - 2 * pad) / height));
  return { k, ox: left + (w - left - width * k) / 2, oy: ruler + (h - ruler + height * k) / 2 };
}

export function zoomed(v: Viewport, x: number, y: number, factor: number): Viewport {
  const k = Math.min(2000, Math.max(0.02, v.k * factor));
  const f = k / v.k;
  return { k, ox: x - (x - v.ox) * f, oy: y - (y - v.oy) * f };
}

/** A step of 1, 2 or 5 times a power of ten (of the unit) that is at least `px` pixels wide. mm. */
export function niceStep(k: number, px: number, unit: number): number {
  const want = px / (k * unit);
  const p = 10 ** Math.floor(Math.log10(want));
  return [1, 2, 5, 10].map((m) => m * p).find((s) => s >= want)! * unit;
}

/** So many in a column that all columns are about equally long, none longer than `most`. */
export const evenRows = (count: number, most: number): number =>
  Math.ceil(count / Math.ceil(count / Math.max(1, most)));

/** A place in the window as one of the plan, in pixels. */
export type Local = (e: { clientX: number; clientY: number }) => { x: number; y: number };
