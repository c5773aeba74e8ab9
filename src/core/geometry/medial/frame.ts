import type { Sites } from './sites';

/** A segment and a reflex corner seen from the segment: their bisector is a parabola in this frame. mm. */
export interface CornerFrame {
  /** The segment's site, and its direction. */
  readonly segment: number;
  readonly dx: number;
  readonly dy: number;
  /** Where along the segment the corner's foot lies, and how high the corner stands over it. */
  readonly foot: number;
  readonly height: number;
}

/** The frame of two sites of which one is a segment (below `count`) and one a corner. */
export function cornerFrame(s: Sites, a: number, b: number): CornerFrame {
  const segment = a < s.count ? a : b;
  const corner = (a < s.count ? b : a) - s.count;
  const dx = s.dx[segment];
  const dy = s.dy[segment];
  const vx = s.ax[corner] - s.ax[segment];
  const vy = s.ay[corner] - s.ay[segment];
  return { segment, dx, dy, foot: vx * dx + vy * dy, height: -vx * dy + vy * dx };
}
