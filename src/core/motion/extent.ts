import { inParts } from '../units/inParts';
import { noBox, widen, type Bounds } from '../geometry/box';
import { derived } from '../geometry/hash';
import { DWELL, eachChord, isArc, RAPID, withoutArcs, type Motion } from './motion';

/** Least and largest of x, y, z, mm. */
export interface Box3 extends Bounds {
  z0: number;
  z1: number;
}

/** How far a motion goes, and how fast. */
export interface Extent {
  /** All its places, where it begins too. */
  readonly all: Box3;
  /** Those of the ends of moves that may cut: at a feed, or by rapid below the top face. Empty (x0 above x1) where there are none. */
  readonly cutting: Box3;
  /** The fastest feed, and the fastest straight down, mm/min; 0 where there is none. */
  readonly feed: number;
  readonly plunge: number;
}

const nothing = (): Box3 => ({ ...noBox(), z0: Infinity, z1: -Infinity });

function widen3(b: Box3, x: number, y: number, z: number): void {
  widen(b, x, y);
  if (z < b.z0) b.z0 = z;
  if (z > b.z1) b.z1 = z;
}

/** How finely arcs are looked at, mm. */
const CHORD = 0.01;
const chords = derived<Motion, Motion>();
/** A motion with its arcs as chords, for looking at; worked out once. */
export const chordsOf = (m: Motion): Motion => chords(m, '', () => withoutArcs(m, CHORD));

/** Whether a move goes straight down at its feed. */
export const isPlunge = (m: Motion, i: number): boolean =>
  i > 0 &&
  m.kind[i] !== RAPID &&
  m.kind[i] !== DWELL &&
  m.z[i] < m.z[i - 1] &&
  m.x[i] === m.x[i - 1] &&
  m.y[i] === m.y[i - 1];

const extents = derived<Motion, Extent>();
/** Worked out once for a motion: a question that its extent answers costs nothing however many moves there are. */
export const extentOf = (m: Motion): Extent =>
  extents(m, '', () => {
    const e = { all: nothing(), cutting: nothing(), feed: 0, plunge: 0 };
    inParts(m.count, (from, to) => widenOver(e, m, from, to));
    return e;
  });

function widenOver(
  e: { readonly all: Box3; readonly cutting: Box3; feed: number; plunge: number },
  m: Motion,
  from: number,
  to: number,
): void {
  for (let i = from; i < to; i++) {
    const kind = m.kind[i];
    const cuts = i > 0 && !(kind === RAPID && m.z[i] >= 0);
    if (isArc(kind))
      eachChord(m, i, CHORD, (x, y, z) => {
        widen3(e.all, x, y, z);
        widen3(e.cutting, x, y, z);
      });
    else {
      widen3(e.all, m.x[i], m.y[i], m.z[i]);
      if (cuts) widen3(e.cutting, m.x[i], m.y[i], m.z[i]);
    }
    if (i && kind !== RAPID && kind !== DWELL && m.feed[i] > e.feed) e.feed = m.feed[i];
    if (isPlunge(m, i) && m.feed[i] > e.plunge) e.plunge = m.feed[i];
  }
}
