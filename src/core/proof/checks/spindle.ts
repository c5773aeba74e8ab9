import { shapeOf } from '../../cutters/registry';
import { RAPID } from '../../motion/motion';
import { dialectOf } from '../../program/dialect';
import { ownLineTroubles } from '../../program/ownLines';
import type { Check, Finding } from '../check';
import { cuttingSpeedsOf, lineOf } from '../placed';

/** Turning cutters cut with the spindle on, drawn ones with it off, and every program ends. */
export const spindle: Check = {
  id: 'spindle',
  name: 'Tools and spindle',
  run: ({ job, programs, tools }) => {
    const dialect = dialectOf(job.run.dialect, job.run.dialects);
    const out: Finding[] = ownLineTroubles(dialect).map((t) => ({
      check: 'spindle',
      text: `${t.text} Change the dialect "${dialect.name}" under Run.`,
      cutId: null,
      x: null,
      y: null,
    }));
    for (const p of programs) {
      if (!p.ended)
        out.push({ check: 'spindle', text: `${p.file} does not end with M30.`, cutId: null, x: null, y: null });
      for (const s of p.sections) {
        const { cutId } = s;
        const name = job.cuts.find((c) => c.id === cutId)?.name ?? p.file;
        const cutter = tools.get(s.tool);
        if (!cutter) {
          out.push({
            check: 'spindle',
            text: `${p.file} calls tool ${s.tool}, which is not in the plan.`,
            cutId,
            x: null,
            y: null,
          });
          continue;
        }
        const turns = shapeOf(cutter.shape).turns;
        // Moves with a cutter that turns want it on, others off.
        const [least, most] = cuttingSpeedsOf(s);
        if (turns ? least > 0 : most <= 0) continue;
        for (let i = 1; i < s.motion.count; i++)
          if (s.motion.kind[i] !== RAPID && s.rpm[i] > 0 !== turns) {
            out.push({
              check: 'spindle',
              text: `"${name}" cuts with the spindle ${turns ? 'standing' : 'turning'} (${p.file}, line ${lineOf(s, i)}).`,
              cutId,
              x: s.motion.x[i],
              y: s.motion.y[i],
            });
            break;
          }
      }
    }
    return out;
  },
};
