import type { MaterialId } from '../../cutters/materials';
import { materials } from '../../cutters/materials';
import { heightAt, type HeightField } from '../../relief/field';
import type { HeightFacts } from '../../relief/facts';

/** What of a relief is dark, and how lines make it so. */
export interface Tone {
  /** Whether what is low is dark, or what is high. */
  readonly dark: 'low' | 'high';
  /** Share of the area that is cut where it is lightest and darkest, 0 to 1. */
  readonly lightest: number;
  readonly darkest: number;
  /** Lines lie so far apart, mm. */
  readonly spacing: number;
  /** Whether lines cross each other: what both cut counts once. */
  readonly crossed: boolean;
}

/** Share of the area that is to be cut at a place, 0 to 1; NaN where the relief is empty. */
export function darkness(f: HeightField, { lowest, highest }: HeightFacts, t: Tone): (x: number, y: number) => number {
  const range = highest - lowest;
  return (x, y) => {
    const h = heightAt(f, x, y);
    const up = range > 0 ? (h - lowest) / range : 0;
    return t.lightest + (t.darkest - t.lightest) * (t.dark === 'low' ? 1 - up : up);
  };
}

/**
 * How wide grooves are that cut so much of the area (the law of areas of line screens: J. A. C. Yule, "Principles of Color
 * Reproduction", 1967): rows cut width / spacing; of two sets that cross each other each leaves its share of what the other leaves.
 */
export const grooveWidth = (share: number, { spacing, crossed }: Pick<Tone, 'spacing' | 'crossed'>): number =>
  spacing * (crossed ? 1 - Math.sqrt(1 - Math.min(1, share)) : share);

/** And the share of the area that grooves of a width cut. */
export const shareOfWidth = (width: number, { spacing, crossed }: Pick<Tone, 'spacing' | 'crossed'>): number => {
  const own = Math.min(1, width / spacing);
  return crossed ? 1 - (1 - own) * (1 - own) : own;
};

/** Narrower lands between two grooves chip, mm: along the grain of wood, in paint and laminate, of metal as a burr. */
const CHIPS: Record<(typeof materials)[MaterialId]['look'], number> = {
  wood: 0.3,
  board: 0.2,
  layered: 0.15,
  metal: 0.08,
};
export const narrowestLand = (material: MaterialId): number => CHIPS[materials[material].look];
