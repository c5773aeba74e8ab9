import type { Check, Finding } from '../check';

/** Nothing may be cut in a part after it has been cut free. */
export const order: Check = {
  id: 'order',
  name: 'Cut free last',
  run: ({ job, plans, programs }) => {
    const sequence = programs.flatMap((p) => p.sections.map((s) => s.cutId));
    const out: Finding[] = [];
    for (const cut of job.cuts) {
      if (!plans.get(cut.id)?.cutsFree || !cut.enabled) continue;
      const at = sequence.indexOf(cut.id);
      if (at < 0) continue;
      const later = [...new Set(sequence.slice(at + 1))].filter(
        (id) => id !== null && id !== cut.id && !plans.get(id)?.cutsFree,
      );
      if (later.length)
        out.push({
          check: 'order',
          text: `"${cut.name}" cuts the part free before ${later.map((id) => `"${job.cuts.find((c) => c.id === id)?.name}"`).join(', ')}. Move it to the end of the plan.`,
          cutId: cut.id,
          x: null,
          y: null,
          mend: 'last',
        });
    }
    return out;
  },
};
