import { radiusAt, type Cutter } from './cutter';

/** Detail is looked at this deep, mm: a hair of a heron, a vein of a leaf. */
export const HAIR = 0.1;

/** How wide a furrow of a depth is at least, mm, that a cutter leaves: finer detail it cannot show. */
export const furrowWidth = (c: Cutter, depth = HAIR): number => 2 * radiusAt(c, depth);

/** How far apart nodes lie at most that show what a cutter can, mm: two across its finest furrow, and no nearer than the finest grid. */
export const cellFor = (c: Cutter, finest: number): number => Math.max(finest, furrowWidth(c) / 2);
