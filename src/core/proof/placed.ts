import { inParts } from '../units/inParts';
import { derived } from '../geometry/hash';
import { shifted } from '../units/columns';
import { isStraight, moveLength, RAPID, type Motion } from '../motion/motion';
import { readProgram, type Run } from '../program/parser';
import type { Chunks } from '../program/text';
import type { Datum } from '../program/writer';

/** A stretch of a parsed program that belongs to one cut and one tool, in the blank's frame. */
export interface PlacedSection {
  readonly tool: number;
  readonly cutId: string | null;
  /** The same object as long as the text says the same. */
  readonly motion: Motion;
  /** Line of the program that each move comes from, counted from `firstLine`. */
  readonly line: Int32Array;
  readonly firstLine: number;
  readonly rpm: Float64Array;
}

/** Line of the program, from 1, that a move comes from. */
export const lineOf = (s: PlacedSection, move: number): number => s.firstLine + s.line[move];

export interface PlacedProgram {
  readonly file: string;
  readonly sections: readonly PlacedSection[];
  readonly ended: boolean;
  readonly toolChanges: number;
  readonly dwell: number;
}

const placed = derived<Run, Motion>();

/** The moves of a run in the blank's frame. */
const placedRun = (run: Run, { x, y, z }: Datum): Motion =>
  placed(run, `${x} ${y} ${z}`, () => {
    const m = run.motion;
    const centres = isStraight(m) ? {} : { cx: shifted(m.cx, x), cy: shifted(m.cy, y) };
    return { ...m, x: shifted(m.x, x), y: shifted(m.y, y), z: shifted(m.z, z), ...centres };
  });

/** Parses a program and undoes its datum. `cutIds` are the plan's cuts in order. Throws ProgramError. */
export function placeProgram(
  file: string,
  text: Chunks | string,
  datum: Datum,
  cutIds: readonly string[],
): PlacedProgram {
  const { runs, ...rest } = readProgram(text);
  const stretches = runs.map(({ run, firstLine }) => ({
    tool: run.tool,
    cutId: cutIds[run.cut - 1] ?? null,
    motion: placedRun(run, datum),
    line: run.line,
    firstLine,
    rpm: run.rpm,
  }));
  return { file, sections: stretches, ...rest };
}

const speeds = derived<Float64Array, readonly [least: number, most: number]>();
/** The slowest and the fastest turning of the spindle along a stretch, rpm; standing does not count. */
export const speedsOf = (s: PlacedSection): readonly [least: number, most: number] =>
  speeds(s.rpm, '', () => rangeOf(s, 'turning', [Infinity, 0]));

const cuttingSpeeds = derived<Float64Array, readonly [least: number, most: number]>();
/** The same of its cutting moves, where standing counts as 0; nothing between them where none cuts. */
export const cuttingSpeedsOf = (s: PlacedSection): readonly [least: number, most: number] =>
  cuttingSpeeds(s.rpm, '', () => rangeOf(s, 'cutting', [Infinity, -Infinity]));

function rangeOf(
  s: PlacedSection,
  of: 'turning' | 'cutting',
  [least, most]: readonly [number, number],
): readonly [least: number, most: number] {
  const found = Float64Array.of(least, most);
  inParts(s.rpm.length, (from, to) => widenBy(found, s, of, from, to));
  return [found[0], found[1]];
}
function widenBy(found: Float64Array, s: PlacedSection, of: 'turning' | 'cutting', from: number, to: number): void {
  const { rpm, motion } = s;
  let least = found[0];
  let most = found[1];
  for (let i = from; i < to; i++) {
    const v = rpm[i];
    if (of === 'turning' ? !(v > 0) : i === 0 || i >= motion.count || motion.kind[i] === RAPID) continue;
    if (v < least) least = v;
    if (v > most) most = v;
  }
  found[0] = least;
  found[1] = most;
}

/** Total length of feed moves, mm. */
export function feedLength(m: Motion): number {
  let sum = 0;
  for (let i = 1; i < m.count; i++) if (m.kind[i] !== RAPID) sum += moveLength(m, i);
  return sum;
}
