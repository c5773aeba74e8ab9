import type { SectionLine } from '@/ui/view';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How far a section begins before the blank and ends behind it, as a share of the blank: its grips stand beside it. */
const BEYOND = 0.03;

/** A section from left to right through the whole blank, half way up unless said. */
export const levelLine = ({ width, height }: Size, y = height / 2): SectionLine => ({
  x0: -BEYOND * width,
  y0: y,
  x1: (1 + BEYOND) * width,
  y1: y,
});

/** A section from bottom to top through the middle of the blank. */
export const uprightLine = ({ width, height }: Size): SectionLine => ({
  x0: width / 2,
  y0: -BEYOND * height,
  x1: width / 2,
  y1: (1 + BEYOND) * height,
});

/**
 * Where a section lies after the blank has changed: one that went right across goes right across again, another stays where it
 * is; one that the blank has left behind goes through the middle.
 */
export function followed(line: SectionLine, before: Size, after: Size): SectionLine {
  const spread = (a: number, b: number, was: number, is: number): [number, number] =>
    was !== is && Math.min(a, b) <= 0 && Math.max(a, b) >= was ? [(a * is) / was, (b * is) / was] : [a, b];
  const [x0, x1] = spread(line.x0, line.x1, before.width, after.width);
  const [y0, y1] = spread(line.y0, line.y1, before.height, after.height);
  const out = (a: number, b: number, most: number) =>
    Math.max(a, b) < 0 || Math.min(a, b) > most || Math.abs(a - b) > 1.2 * most;
  if (out(x0, x1, after.width) || out(y0, y1, after.height)) return levelLine(after);
  // Half way up stays half way up.
  const middle = y0 === y1 && Math.abs(y0 - before.height / 2) < 1e-9 ? after.height / 2 : null;
  return middle === null ? { x0, y0, x1, y1 } : { x0, y0: middle, x1, y1: middle };
}
