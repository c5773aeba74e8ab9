import type { SectionLine } from '@/ui/view';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How far a section begins before the blank and ends behind it, as a share of the blank: its grips stand beside it. */
const BEYOND = 0.03;

/** A section from left to right through the whole blank, half way up unless said. */
export const levelLine = ({ width, height }: Size, y = height / 2): SectionLine => ({ x0: -BEYOND * width, y0: y, x1: (1 + BEYOND) * width, y1: y });

/** A section from bottom to top through the middle of the blank. */
export const uprightLine = ({ width, height }: Size): SectionLine => ({ x0: width / 2, y0: -BEYOND * height, x1: width / 2, y1: (1 + BEYOND) * height });
