import type { HeightField } from '../../relief/field';
import { slopeAt } from '../../relief/steep';
import { spread } from './spread';

/**
 * Ground parted by how steeply a cutter climbs over it. Rows lie evenly as seen from above, so that on what is steep they lie far apart;
 * there it goes round at heights instead, as far apart along the slope as rows on the level.
 *
 *      ______                   rows: evenly from above
 *     |      \_____
 *     |=           |            level lines: evenly up and down
 *     |==         =|
 *     |===\_____===|            along the bottom none comes by itself: rows
 */

/** Steep ground narrower than so many step-overs is gone over by rows, too: they need not end at each wall. */
const NARROW = 4;
/** Steep ground that is less than so many square step-overs large, with a step-over round it, is left to rows. */
const SPECK = 16;
/** What is level between slopes over less than so many step-overs is gone over by rows both ways: some of them cross it. */
const STRIP = 2;

/** 1 for each node that it is said of, else -1. */
export type Mask = Float32Array;

export interface SteepGround {
  /** Where level lines go. */
  readonly levels: Mask;
  /** Where rows need not go: they reach a step-over into what is steep, so that no seam shows. */
  readonly noRows: Mask;
  /** Where ground that is not steep is narrow, and at the foot of what is: rows cross rows there, and as far again beside it. */
  readonly narrow: Mask;
  readonly strips: Mask;
}

/**
 * How far from a node lies what says how it is gone over, mm: what is steep, with a step-over round it, is two wide or more, so that no
 * speck is longer than half of its square step-overs; and what is made wider and narrower goes as far again.
 */
export const steepReach = ({ cell }: HeightField, step: number): number =>
  (SPECK / 2 + 2 + Math.max(NARROW + 1, STRIP + 1)) * step + 8 * cell;

/** Parts the ground where a cutter stands by where it climbs by more than so much for each mm. `step`: of its rows, mm. */
export function steepGround(stands: HeightField, climb: number, step: number): SteepGround {
  const { z, cell } = stands;
  const wider = (m: Mask, by: number): Mask => spread({ ...stands, z: m }, by);
  const turned = (m: Mask): Mask => m.map((h) => -h);
  const narrower = (m: Mask, by: number): Mask => turned(wider(turned(m), by));
  const slope = new Float32Array(z.length);
  for (let r = 0, i = 0; r < stands.rows; r++)
    for (let c = 0; c < stands.cols; c++, i++) slope[i] = slopeAt(stands, c, r);
  const steep = slope.map((s) => (s > climb ? 1 : -1));
  const large = withoutSpecks({ ...stands, z: wider(steep, step) }, SPECK * step * step);
  const gaps = narrower(large, step);
  // At the foot of what is steep, and along the bottom between two slopes, no line comes by itself.
  const lowest = wider(turned(z), step);
  const fall = (climb / 2) * Math.max(step, cell);
  const levels = steep.map((s, i) =>
    large[i] > 0 && z[i] + lowest[i] >= fall && (s > 0 || (gaps[i] > 0 && slope[i] >= climb / 2)) ? 1 : -1,
  );
  const half = (NARROW / 2) * step;
  const noRows = wider(narrower(levels, step + half), half);
  const level = turned(levels);
  const wide = wider(narrower(level, (STRIP / 2) * step), (STRIP / 2) * step);
  // Rows beside a foot would leave a fillet there, too: those that cross it come into it.
  const narrow = level.map((s, i) => (s > 0 && (!(wide[i] > 0) || (steep[i] > 0 && large[i] > 0)) ? 1 : -1));
  return { levels, noRows, narrow: wider(narrow, step / 2), strips: wider(narrow, step) };
}

/** What is over nothing, but for what is connected over less than so much, mm2. */
function withoutSpecks({ z, cols, rows, cell }: HeightField, least: number): Mask {
  const out = new Float32Array(z.length).fill(-1);
  const seen = new Uint8Array(z.length);
  for (let from = 0; from < z.length; from++) {
    if (seen[from] || z[from] < 0) continue;
    const all = [from];
    seen[from] = 1;
    for (let n = 0; n < all.length; n++) {
      const i = all[n];
      const c = i % cols;
      for (const j of [c > 0 ? i - 1 : -1, c < cols - 1 ? i + 1 : -1, i - cols, i + cols])
        if (j >= 0 && j < rows * cols && !seen[j] && z[j] >= 0) {
          seen[j] = 1;
          all.push(j);
        }
    }
    if (all.length * cell * cell >= least) for (const i of all) out[i] = 1;
  }
  return out;
}

/** Height between two level lines that lie a step-over apart along ground that climbs by so much for each mm. */
export const levelStep = (step: number, climb: number): number => (step * climb) / Math.sqrt(1 + climb * climb);
