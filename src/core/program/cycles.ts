import { DWELL, PLUNGE, RAPID, type Motion } from '../motion/motion';

/** One hole as a canned cycle says it: G81 in one go, G82 with a wait at its floor, G83 in pecks. mm, seconds. */
export interface Hole {
  readonly code: 81 | 82 | 83;
  /** Height to which the drill comes back, and from which it goes down. */
  readonly from: number;
  readonly floor: number;
  /** Drilled at a time; 0 in one go. */
  readonly peck: number;
  readonly wait: number;
  readonly feed: number;
  /** The last move that belongs to the hole: the drill is back at `from`. */
  readonly last: number;
}

const SAME = 1e-7;

/**
 * The hole that begins at move i, the first way down, when the moves are just what a canned cycle does (RS-274: down at the
 * feed, up by rapid to where it began; in pecks of one size, each time back down by rapid to a bit above the last floor).
 * Null for anything else, which is then written as it is;
 * so is what begins below the top face.
 */
export function holeAt(m: Motion, i: number): Hole | null {
  if (i < 1 || m.kind[i] !== PLUNGE || m.z[i - 1] <= 0) return null;
  const from = m.z[i - 1];
  const peck = from - m.z[i];
  const here = (k: number, kind: number) => k < m.count && m.kind[k] === kind && m.x[k] === m.x[i] && m.y[k] === m.y[i];
  let floor = m.z[i];
  let k = i + 1;
  while (
    here(k, RAPID) &&
    Math.abs(m.z[k] - from) < SAME &&
    here(k + 1, RAPID) &&
    m.z[k + 1] > floor &&
    m.z[k + 1] < from &&
    here(k + 2, PLUNGE) &&
    m.feed[k + 2] === m.feed[i]
  ) {
    // Only the last peck may be smaller.
    if (
      Math.abs(floor - (m.z[i] - peck * Math.round((m.z[i] - floor) / peck))) > SAME ||
      floor - m.z[k + 2] > peck + SAME
    )
      return null;
    floor = m.z[k + 2];
    k += 3;
  }
  const pecks = k > i + 1;
  const wait = here(k, DWELL) ? m.feed[k++] : 0;
  if (!here(k, RAPID) || m.z[k] < from - SAME || (pecks && wait > 0)) return null;
  return {
    code: pecks ? 83 : wait > 0 ? 82 : 81,
    from,
    floor,
    peck: pecks ? peck : 0,
    wait,
    feed: m.feed[i],
    last: Math.abs(m.z[k] - from) < SAME ? k : k - 1,
  };
}
