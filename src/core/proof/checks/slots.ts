import type { Check, Finding } from '../check';

/** Where programs call cutters by their slots: each used cutter has one, and no two the same. */
export const slots: Check = {
  id: 'slots',
  name: 'Every cutter has a slot of its own',
  run: ({ job, tools }) => {
    if (job.run.numbers !== 'slots') return [];
    const out: Finding[] = [];
    const taken = new Map<number, string>();
    for (const [number, c] of tools) {
      const other = c.slot > 0 ? taken.get(c.slot) : undefined;
      const say = (why: string) =>
        out.push({
          check: 'slots',
          text: `"${c.name}" ${why}: the program calls it as tool ${number}. Give it a slot of its own under Run.`,
          cutId: null,
          x: null,
          y: null,
        });
      if (c.slot === 0) say('has no slot');
      else if (other) say(`has slot ${c.slot}, and so has "${other}"`);
      else taken.set(c.slot, c.name);
    }
    return out;
  },
};
