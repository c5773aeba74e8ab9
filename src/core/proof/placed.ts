import { moveLength, RAPID, type Motion } from '../motion/motion';
import { parseProgram } from '../program/parser';
import type { Datum } from '../program/writer';

/** A stretch of a parsed program that belongs to one cut and one tool, in the blank's frame. */
export interface PlacedStretch {
  readonly tool: number;
  readonly cutId: string | null;
  readonly motion: Motion;
  readonly line: Int32Array;
  readonly rpm: Float64Array;
}

export interface PlacedProgram {
  readonly file: string;
  readonly stretches: readonly PlacedStretch[];
  readonly ended: boolean;
  readonly toolChanges: number;
  readonly dwell: number;
}

/** Parses a program and undoes its datum. `cutIds` are the plan's cuts in order. Throws ProgramError. */
export function placeProgram(file: string, text: string, datum: Datum, cutIds: readonly string[]): PlacedProgram {
  const p = parseProgram(text);
  const stretches: PlacedStretch[] = [];
  for (const s of p.sections) {
    const m = s.motion;
    for (let i = 0; i < m.count; i++) {
      m.x[i] += datum.x;
      m.y[i] += datum.y;
      m.z[i] += datum.z;
      m.cx[i] += datum.x;
      m.cy[i] += datum.y;
    }
    const marks = s.cuts.length ? s.cuts : [{ move: 0, cut: 0 }];
    marks.forEach((mark, k) => {
      const from = k === 0 ? 0 : mark.move;
      const to = k + 1 < marks.length ? marks[k + 1].move : m.count;
      // Each stretch begins where the one before it ended.
      const a = Math.max(0, from - (from > 0 ? 1 : 0));
      if (to <= a) return;
      const cut = <T extends Float64Array | Uint8Array | Int32Array>(v: T): T => v.slice(a, to) as T;
      stretches.push({
        tool: s.tool,
        cutId: cutIds[mark.cut - 1] ?? null,
        motion: { count: to - a, kind: cut(m.kind), x: cut(m.x), y: cut(m.y), z: cut(m.z), cx: cut(m.cx), cy: cut(m.cy), feed: cut(m.feed) },
        line: cut(s.line),
        rpm: cut(s.rpm),
      });
    });
  }
  return { file, stretches, ended: p.ended, toolChanges: p.toolChanges, dwell: p.dwell };
}

/** Total length of feed moves, mm. */
export function feedLength(m: Motion): number {
  let sum = 0;
  for (let i = 1; i < m.count; i++) if (m.kind[i] !== RAPID) sum += moveLength(m, i);
  return sum;
}
