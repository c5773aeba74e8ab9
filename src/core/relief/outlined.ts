import type { Path } from '../geometry/path';
import { heightFacts } from './facts';
import type { HeightField } from './field';
import { flatPlaces } from './flats';
import { floorPlaces } from './floors';
import { borderLines, evenLevels, levelLines, type LevelOptions } from './levels';

/** What of a relief is to be made into outlines. Heights in mm from the top face. */
export type OutlinesAsked =
  | { readonly of: 'heights'; readonly heights: readonly number[] }
  | { readonly of: 'even'; readonly count: number }
  | { readonly of: 'border' }
  | { readonly of: 'flats' }
  /** Level floors, and what is cleared for so many of them, the largest. */
  | { readonly of: 'floors'; readonly most: number };

export interface ReliefOutline {
  /** Null for the border. */
  readonly height: number | null;
  /** Of a flat place, mm2. */
  readonly area: number | null;
  readonly paths: readonly Path[];
  /** Of a level floor: round all that is taken away down to it; see floorPlaces. */
  readonly below?: readonly Path[];
  /** Islands that were left out since they are small. */
  readonly left: number;
}

/** Less than this is nothing, mm: heights are single floats. */
const SLACK = 1e-3;

/** Outlines of a relief. Where there is nothing at a height, its outline has no paths. */
export function outlinesOf(f: HeightField, asked: OutlinesAsked, o: LevelOptions): ReliefOutline[] {
  if (asked.of === 'border') return [{ height: null, area: null, ...borderLines(f, o) }];
  if (asked.of === 'flats') return flatPlaces(f, o).map((p) => ({ ...p, left: 0 }));
  if (asked.of === 'floors') return floorPlaces(f, o, asked.most).map((p) => ({ ...p, left: 0 }));
  const facts = heightFacts(f.z);
  if (!facts.covered) return [];
  const heights = asked.of === 'even' ? evenLevels(facts, asked.count) : asked.heights;
  // Beyond its lowest and its highest there is no line: what is at least so high would be all of it.
  const within = (h: number) => h >= facts.lowest - SLACK && h <= facts.highest + SLACK;
  return heights.map((height) => ({
    height,
    area: null,
    ...(within(height) ? levelLines(f, height, facts, o) : { paths: [], left: 0 }),
  }));
}
