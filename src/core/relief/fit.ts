import type { HeightFacts } from './facts';

/** How a relief lies in the thickness of its blank, mm. */
export interface Fit {
  /** Height of the relief, from its lowest to its highest point. */
  readonly height: number;
  /** From its highest point to the top face, and from the underside to its lowest point; below zero where it stands out. */
  readonly above: number;
  readonly below: number;
  readonly trouble: 'above' | 'below' | 'height' | null;
}

/** Less than this is nothing, mm: heights are single floats. */
const SLACK = 1e-4;

/** How a relief with these heights (from the top face) lies in a thickness. */
export function fitOf({ lowest, highest }: Pick<HeightFacts, 'lowest' | 'highest'>, thickness: number): Fit {
  // Less than the slack is nothing: it would show as a trace of rounding.
  const clean = (v: number) => Math.round(v / SLACK) * SLACK;
  const [height, above, below] = [highest - lowest, -highest, thickness + lowest].map(clean);
  const trouble = height > thickness + SLACK ? 'height' : above < -SLACK ? 'above' : below < -SLACK ? 'below' : null;
  return { height, above, below, trouble };
}
