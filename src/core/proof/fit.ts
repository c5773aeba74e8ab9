import type { Cutter } from '../cutters/cutter';
import { loopArea, offset, type Region } from '../geometry/region';
import { nodesInside } from '../relief/distance';
import { fillFrom, gridOf, type HeightField } from '../relief/field';
import { stillWanted } from '../units/stillWanted';
import type { PlacedProgram } from './placed';
import { createSimulation } from './simulate';

/** What is cut of one half of an inlay: its blank, and the programs as they were read back. */
export interface Half {
  readonly blank: { readonly width: number; readonly height: number };
  readonly programs: readonly PlacedProgram[];
  readonly tools: ReadonlyMap<number, Cutter>;
  /** Its upper face as another set-up has left it; null where it was flat. */
  readonly found?: HeightField | null;
}

export interface FitOf {
  readonly pocket: Half;
  readonly plug: Half;
  /** About which axis the plug is turned over. */
  readonly turned: 'x' | 'y';
  /** How deep it is to go in, mm. */
  readonly goesIn: number;
  /** Half angle of the cones that cut the walls, radians. */
  readonly lean: number;
  /** The outlines of the pocket, and how far round them the plug was carved: beyond that it is sawn off. */
  readonly outlines: Region;
  readonly margin: number;
}

export interface FitPlace {
  readonly mm: number;
  /** On the pocket's blank. */
  readonly x: number;
  readonly y: number;
}

/** Pocket and plug put together, as they were cut. */
export interface Fit {
  readonly goesIn: number;
  /** How far short of that it stops, and where it meets the pocket first; 0 mm where it goes all the way. */
  readonly short: FitPlace;
  /** The widest seam between walls, across them, as it stands then; null where no walls meet. */
  readonly seam: FitPlace | null;
  /** Share of the walls whose seam is wider than `WIDE`. */
  readonly wide: number;
  /** Room for glue over the floor of the pocket: least and most; null where it has no floor. */
  readonly glue: { readonly least: number; readonly most: number } | null;
  /** Room for the saw between the pocket's face and the plug's floor, as it stands: the least. */
  readonly saw: number | null;
  /** A place of the outlines at which the plug has no blank; null where it has one everywhere. */
  readonly missing: Pick<FitPlace, 'x' | 'y'> | null;
  /** Nodes lie so far apart, mm. */
  readonly cell: number;
}

/** A seam from so much on is seen, mm. */
export const WIDE = 0.05;
/** What lies this much nearer than it should is what a proof may be wrong by, mm. */
export const TOUCH = 0.01;
/** Heights are exact at nodes: so many tell what fits. */
const NODES = 1.5e6;
/** So near to the ends of a wall its floor or face may be met, mm. */
const END = 0.03;

/** Pocket and plug cut again at nodes that lie on each other when the plug is turned over: nothing is guessed between nodes. */
export interface Together {
  readonly pocket: HeightField;
  /** Heights of the plug at the nodes of the pocket, in its own frame; NaN beyond its blank. */
  readonly plugAt: (col: number, row: number) => number;
}

/** The face of a half as it was found, at nodes so far apart. */
function foundAt({ found, blank }: Half, cell: number): HeightField | null {
  if (!found) return null;
  const grid = gridOf(blank.width, blank.height, cell);
  const field = { ...grid, z: new Float32Array(grid.cols * grid.rows) };
  fillFrom(found, field);
  return field;
}

/** `tell` 0..1. Throws Cancelled. */
export function putTogether(
  f: Pick<FitOf, 'pocket' | 'plug' | 'turned'>,
  tell: (done: number) => void = () => {},
): Together {
  const across = f.turned === 'y';
  const long = across ? f.plug.blank.width : f.plug.blank.height;
  const cell = long / Math.ceil(long / Math.sqrt((f.pocket.blank.width * f.pocket.blank.height) / NODES));
  const cut = (h: Half, from: number) =>
    createSimulation().run(h.blank, cell, h.programs, h.tools, (d) => tell(from + 0.5 * d), foundAt(h, cell)).field;
  const pocket = cut(f.pocket, 0);
  return { pocket, plugAt: mirrorOf(cut(f.plug, 0.5), Math.round(long / cell), across) };
}

/**
 * Puts a plug into its pocket, node by node:
 *
 *     gap(x, y) = height of the plug over the floor of the pocket = (-plug(width - x, y) - goesIn) - pocket(x, y)
 *
 * Where that is below zero the halves lie in one another: so far the plug stands off. Throws Cancelled.
 */
export function fitOf(f: FitOf, both: Together): Fit {
  const { pocket, plugAt } = both;
  const { cell } = pocket;
  const inside = nodesInside(
    offset(
      f.outlines.filter((l) => loopArea(l) > 0),
      f.margin,
      0.01,
    ),
    pocket,
  );
  // What else is cut of the one blank or the other belongs to no inlay.
  const carved = nodesInside(f.outlines, pocket);
  /** At each node of the pocket how far the halves stand apart. */
  const gaps = new Float32Array(pocket.z.length).fill(NaN);
  let [short, at, missing] = [0, -1, -1];
  for (let r = 0, i = 0; r < pocket.rows; r++) {
    stillWanted(pocket.cols);
    for (let c = 0; c < pocket.cols; c++, i++) {
      if (!inside[i]) continue;
      const h = plugAt(c, r);
      if (h !== h) {
        if (carved[i] && missing < 0) missing = i;
        continue;
      }
      const gap = -h - f.goesIn - pocket.z[i];
      gaps[i] = gap;
      if (-gap > short) [short, at] = [-gap, i];
    }
  }
  if (short < TOUCH) short = 0;
  const place = (mm: number, i: number): FitPlace => ({
    mm,
    x: pocket.x0 + (i % pocket.cols) * cell,
    y: pocket.y0 + Math.floor(i / pocket.cols) * cell,
  });
  const sine = Math.sin(f.lean);
  // On walls of both: a node of the one that lies on a floor or a face belongs to no seam.
  let [widest, where, walls, wide] = [-Infinity, -1, 0, 0];
  let [least, most, saw] = [Infinity, -Infinity, Infinity];
  const lowest = pocket.z.reduce((a, z, i) => (carved[i] && z < a ? z : a), 0);
  const floor = gaps.reduce((a, gap, i) => (!carved[i] && pocket.z[i] > -1e-6 && gap > a ? gap : a), 0) + short;
  for (let i = 0; i < gaps.length; i++) {
    const gap = gaps[i] + short;
    if (gap !== gap) continue;
    const z = pocket.z[i];
    if (!carved[i]) {
      if (z > -1e-6 && gap > floor - END && gap < saw) saw = gap;
    } else if (z > -END) continue;
    else if (z > -f.goesIn + END) {
      walls++;
      const seam = gap * sine;
      if (seam > WIDE) wide++;
      if (seam > widest) [widest, where] = [seam, i];
    } else if (z < lowest + END) {
      least = Math.min(least, gap);
      most = Math.max(most, gap);
    }
  }
  return {
    goesIn: f.goesIn,
    short: place(short, Math.max(0, at)),
    seam: walls ? place(Math.max(0, widest), where) : null,
    wide: walls ? wide / walls : 0,
    glue: most >= least ? { least, most } : null,
    saw: saw < Infinity ? saw : null,
    missing: missing < 0 ? null : place(0, missing),
    cell,
  };
}

/** Heights of a plug at the nodes of the pocket into which it goes; NaN beyond its blank. `n`: cells along the axis that is mirrored. */
function mirrorOf({ z, cols, rows }: HeightField, n: number, across: boolean): (c: number, r: number) => number {
  return (c, r) => {
    const [cc, rr] = across ? [n - c, r] : [c, n - r];
    return cc >= 0 && rr >= 0 && cc < cols && rr < rows ? z[rr * cols + cc] : NaN;
  };
}
