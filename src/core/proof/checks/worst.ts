import { RAPID } from '../../motion/motion';
import type { CheckInput, Finding } from '../check';

/**
 * One finding a cut at most: visits every cutting move, keeps the place where `measure` is largest above
 * zero, and words it.
 */
export function worstPerCut(input: CheckInput, check: string, measure: (x: number, y: number, z: number, tool: number, cutId: string | null) => number, word: (worst: number, cutName: string) => string): Finding[] {
  const worst = new Map<string | null, { value: number; x: number; y: number }>();
  for (const p of input.programs)
    for (const s of p.stretches) {
      const m = s.motion;
      for (let i = 1; i < m.count; i++) {
        if (m.kind[i] === RAPID && m.z[i] >= 0) continue;
        const value = measure(m.x[i], m.y[i], m.z[i], s.tool, s.cutId);
        if (!(value > 0)) continue;
        const w = worst.get(s.cutId);
        if (!w || value > w.value) worst.set(s.cutId, { value, x: m.x[i], y: m.y[i] });
      }
    }
  return [...worst].map(([cutId, w]) => ({ check, text: word(w.value, nameOf(input, cutId)), cutId, x: w.x, y: w.y }));
}

export const nameOf = (input: CheckInput, cutId: string | null): string => input.job.cuts.find((c) => c.id === cutId)?.name ?? 'The program';
