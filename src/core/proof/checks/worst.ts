import { chordsOf, extentOf, type Extent } from '../../motion/extent';
import { RAPID } from '../../motion/motion';
import type { CheckInput, Finding } from '../check';

/** What is looked for at the ends of cutting moves. */
export interface Sought {
  /** How bad it is there; nothing where it is not above zero. */
  measure(x: number, y: number, z: number, cutId: string | null): number;
  /** Whether it may be found in moves of an extent at all: where not, they are not looked through. */
  may(extent: Extent, cutId: string | null): boolean;
  word(worst: number, cutName: string): string;
}

/** One finding a cut at most: visits every cutting move, arcs as chords, and words the place where `measure` is largest. */
export function worstPerCut(input: CheckInput, check: string, { measure, may, word }: Sought): Finding[] {
  const worst = new Map<string | null, { value: number; x: number; y: number }>();
  for (const { cutId, motion } of input.programs.flatMap((p) => p.sections)) {
    if (!may(extentOf(motion), cutId)) continue;
    const m = chordsOf(motion);
    for (let i = 1; i < m.count; i++) {
      if (m.kind[i] === RAPID && m.z[i] >= 0) continue;
      const value = measure(m.x[i], m.y[i], m.z[i], cutId);
      if (!(value > 0)) continue;
      const w = worst.get(cutId);
      if (!w || value > w.value) worst.set(cutId, { value, x: m.x[i], y: m.y[i] });
    }
  }
  return [...worst].map(([cutId, w]) => ({ check, text: word(w.value, nameOf(input, cutId)), cutId, x: w.x, y: w.y }));
}

export const nameOf = (input: CheckInput, cutId: string | null): string =>
  input.job.cuts.find((c) => c.id === cutId)?.name ?? 'The program';
