import { z } from 'zod';
import { heightOf, widthOf, type CutterForm } from '../../cutters/form';
import { joined, noBox, orNull, type Bounds } from '../../geometry/box';
import { flatten } from '../../geometry/path';
import { derived } from '../../geometry/hash';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { boundsOf, intersect, normalise, offset, subtract, unite, type Region } from '../../geometry/region';
import type { FieldSpec } from '../../units/limits';
import { choices } from '../../units/fields';
import { heightFacts, type HeightFacts } from '../../relief/facts';
import type { HeightField } from '../../relief/field';
import { borderLines } from '../../relief/levels';
import type { CutContext, OldCut } from '../kind';

/** Where a cut over the relief goes. */
export const placeSchema = {
  where: z.enum(['relief', 'inside', 'outside']),
  /** The boundary lies so far beyond that of the relief, or of the outlines, mm. */
  margin: z.number().min(-200).max(200),
  /** How far the cutter may go: its edge stays within the boundary, its middle does, or all of it rolls over the rim. */
  rim: z.enum(['edge', 'middle', 'over']),
};
export type Place = { readonly [K in keyof typeof placeSchema]: z.infer<(typeof placeSchema)[K]> };

export const placeFields: readonly FieldSpec[] = [
  {
    kind: 'choice',
    key: 'where',
    label: 'Where',
    options: choices({
      relief: 'All of the relief',
      inside: 'Inside outlines',
      outside: 'Outside outlines',
    }),
  },
  { kind: 'length', key: 'margin', label: 'Boundary further out', hint: 'Negative: further in' },
  {
    kind: 'choice',
    key: 'rim',
    label: 'Cutter at the boundary',
    options: choices({
      edge: 'Stays within',
      middle: 'Middle on it',
      over: 'Rolls over it',
    }),
  },
];

/** What stands above it is gone: a cut before has taken it. */
export const START_DEPTH: FieldSpec = {
  kind: 'length',
  key: 'startDepth',
  label: 'Start depth',
  hint: 'Other cuts have taken what is above it',
};

/** Cuts over the relief began at the top face. */
export const fromTheTop = (cut: OldCut): void => void (cut.values = { startDepth: 0, ...cut.values });

/** The words of a cut that has no relief to go over, and of one whose boundary holds nothing of it. */
export const NO_RELIEF = 'There is no relief here to cut. Shape one in the Relief stage, or leave this cut out.';
export const NOTHING_WITHIN =
  'Nothing of the relief lies within this boundary. Move it further out, or pick other outlines.';

export const placeDefaults: Place = { where: 'relief', margin: 0, rim: 'middle' };

/** A relief, and what is known of all of it. */
export interface ReliefGround {
  readonly field: HeightField;
  readonly facts: HeightFacts;
  /** Round all that is not empty. */
  readonly border: Region;
}

const grounds = derived<HeightField, ReliefGround>();
/** Of a border only this much of a cell is told from its steps. */
const BORDER = 0.25;

export const groundOf = (field: HeightField): ReliefGround =>
  grounds(field, '', () => {
    const facts = heightFacts(field.z);
    return { field, facts, border: facts.covered === 1 ? [frameOf(field)] : borderOf(field) };
  });

const borderOf = (field: HeightField): Region =>
  normalise(
    borderLines(field, { tolerance: BORDER * field.cell, smallest: field.cell * field.cell }).paths.map((p) =>
      flatten(p, 0.1 * field.cell),
    ),
    'evenodd',
  );

/** The border of a relief that is empty nowhere: through its outermost nodes. */
function frameOf({ cols, rows, cell, x0, y0 }: HeightField): Float64Array {
  const [x1, y1] = [x0 + (cols - 1) * cell, y0 + (rows - 1) * cell];
  return Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1);
}

/** Where a cutter may go, and what it must keep. */
export interface Bounded {
  /** What is to be cut lies in here. */
  readonly boundary: Region;
  /** Where the middle of the cutter may go. */
  readonly centres: Region;
  /** The same where its tip stands at a height. */
  centresAt(z: number): Region;
  /** Lines that its edge may not pass, as loops; none where it may go anywhere. */
  readonly walls: Region;
  /** Lowest that its tip may stand because of them; -Infinity for whatever. */
  wall(x: number, y: number): number;
  /** Furthest that its middle goes beyond the blank, mm. */
  readonly overEdge: number;
}

/** What lies so near to the edge of the blank lies on it, mm. */
const EDGE = 0.01;

/** Round all that cutters may touch in their places; null where they come nowhere. */
export const boxOfPlaces = (list: readonly { readonly form: CutterForm; readonly place: Bounded }[]): Bounds | null =>
  orNull(
    list.reduce((all, { form, place }) => {
      const b = boundsOf(place.centres);
      return b
        ? joined(all, {
            x0: b.x0 - form.radius,
            y0: b.y0 - form.radius,
            x1: b.x1 + form.radius,
            y1: b.y1 + form.radius,
          })
        : all;
    }, noBox()),
  );

/** What of the relief is meant, within its border. */
export function boundaryOf(v: Place, c: CutContext, g: ReliefGround): Region {
  const tolerance = c.budget.offset;
  const out = (r: Region) => (v.margin ? offset(r, v.margin, tolerance) : r);
  if (v.where === 'relief') return out(g.border);
  const picked = out(c.region(c.budget.flatten));
  const all = v.margin > 0 ? out(g.border) : g.border;
  return v.where === 'inside' ? intersect(picked, all) : subtract(all, picked);
}

/** Lowest that a tip may stand beside lines that the edge of its cutter may not pass. */
export function wallOver(walls: Region, form: CutterForm): (x: number, y: number) => number {
  if (!walls.length) return () => -Infinity;
  const lines = makeSegmentIndex(walls);
  return (x, y) => -heightOf(form, lines.distance(x, y, form.radius));
}

export function bounded(v: Place, c: CutContext, g: ReliefGround, form: CutterForm): Bounded {
  const tolerance = c.budget.offset;
  const boundary = boundaryOf(v, c, g);
  const beyond = (centres: Region): number => {
    const b = boundsOf(centres);
    return b ? Math.max(0, -b.x0, -b.y0, b.x1 - c.blank.width, b.y1 - c.blank.height) : 0;
  };
  if (v.rim === 'over') {
    // Until it has left the lowest that is cut.
    const centres = offset(boundary, widthOf(form, Math.max(0, -g.facts.lowest)), tolerance);
    return {
      boundary,
      centres,
      centresAt: () => centres,
      walls: [],
      wall: wallOver([], form),
      overEdge: beyond(centres),
    };
  }
  if (v.rim === 'middle' || !boundary.length)
    return {
      boundary,
      centres: boundary,
      centresAt: () => boundary,
      walls: [],
      wall: wallOver([], form),
      overEdge: beyond(boundary),
    };
  // The blank's own edge is no wall: there is nothing beyond it.
  const { width, height } = c.blank;
  const walls = withoutEdge(boundary, width, height);
  return {
    boundary,
    centres: boundary,
    centresAt(z) {
      const far = 2 * form.radius + 1;
      const blank = (by: number): Region => [
        Float64Array.of(-by, -by, width + by, -by, width + by, height + by, -by, height + by),
      ];
      const open = unite(boundary, subtract(blank(far), blank(0)));
      return intersect(boundary, offset(open, -widthOf(form, Math.max(0, -z)), tolerance));
    },
    walls,
    wall: wallOver(walls, form),
    overEdge: beyond(boundary),
  };
}

/** The outlines without what of them runs along the edge of the blank: as loops there and back. */
function withoutEdge(region: Region, width: number, height: number): Region {
  const at = (v: number, edge: number) => Math.abs(v - edge) < EDGE;
  const onEdge = (ax: number, ay: number, bx: number, by: number) =>
    (at(ax, 0) && at(bx, 0)) ||
    (at(ay, 0) && at(by, 0)) ||
    (at(ax, width) && at(bx, width)) ||
    (at(ay, height) && at(by, height));
  return region.flatMap((l) => {
    const out: Float64Array[] = [];
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length;
      if (!onEdge(l[i], l[i + 1], l[j], l[j + 1])) out.push(Float64Array.of(l[i], l[i + 1], l[j], l[j + 1]));
    }
    return out;
  });
}
