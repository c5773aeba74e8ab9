import type { Check, Finding } from '../check';

/** Nothing may be cut in a part after it has been cut free. */
export const order: Check = {
  id: 'order',
  name: 'Cut free last',
  run: ({ job, plans, programs }) => {
    const sequence = programs.flatMap((p) => p.stretches.map((s) => s.cutName));
    const out: Finding[] = [];
    for (const cut of job.cuts) {
      if (!plans.get(cut.id)?.cutsFree || !cut.enabled) continue;
      const at = sequence.indexOf(cut.name);
      if (at < 0) continue;
      const later = [...new Set(sequence.slice(at + 1))].filter((name) => name !== cut.name && !job.cuts.some((c) => c.name === name && plans.get(c.id)?.cutsFree));
      if (later.length) out.push({ check: 'order', text: `"${cut.name}" cuts the part free before ${later.map((n) => `"${n}"`).join(', ')}. Move it to the end of the plan.`, cutId: cut.id, x: null, y: null });
    }
    return out;
  },
};
