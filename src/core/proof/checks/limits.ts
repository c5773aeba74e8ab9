import { lengthText } from '../../units/length';
import { datumOf } from '../../job/job';
import { DWELL, RAPID } from '../../motion/motion';
import type { Check, Finding } from '../check';

/** Programs beyond what the machine can do: its travel, its feeds, the speeds of its spindle. */
export const limits: Check = {
  id: 'limits',
  name: 'Stays within the machine',
  run: ({ job, programs }) => {
    const { machine } = job.run;
    const { unit } = job;
    const out: Finding[] = [];
    const datum = datumOf(job.blank);
    let [x0, y0, z0, x1, y1, z1] = [datum.x, datum.y, datum.z, datum.x, datum.y, datum.z];
    const told = new Set<string>();
    const tell = (key: string, cutId: string | null, text: string, x: number | null, y: number | null) => {
      if (told.has(`${key}/${cutId}`)) return;
      told.add(`${key}/${cutId}`);
      out.push({ check: 'limits', text, cutId, x, y });
    };
    const name = (id: string | null) => job.cuts.find((c) => c.id === id)?.name ?? 'The program';
    for (const p of programs)
      for (const s of p.stretches) {
        const m = s.motion;
        for (let i = 0; i < m.count; i++) {
          x0 = Math.min(x0, m.x[i]);
          x1 = Math.max(x1, m.x[i]);
          y0 = Math.min(y0, m.y[i]);
          y1 = Math.max(y1, m.y[i]);
          z0 = Math.min(z0, m.z[i]);
          z1 = Math.max(z1, m.z[i]);
          const rpm = s.rpm[i];
          if (rpm > machine.spindle.max) tell('fast', s.cutId, `"${name(s.cutId)}" asks for ${Math.round(rpm)} rpm; the spindle of "${machine.name}" turns ${machine.spindle.max} at most.`, m.x[i], m.y[i]);
          if (rpm > 0 && rpm < machine.spindle.min) tell('slow', s.cutId, `"${name(s.cutId)}" asks for ${Math.round(rpm)} rpm; the spindle of "${machine.name}" turns no slower than ${machine.spindle.min}.`, m.x[i], m.y[i]);
          const down = i > 0 && m.kind[i] !== RAPID && m.kind[i] !== DWELL && m.z[i] < m.z[i - 1] && m.x[i] === m.x[i - 1] && m.y[i] === m.y[i - 1];
          if (down && m.feed[i] > machine.maxFeed.z + 0.5) tell('plunge', s.cutId, `"${name(s.cutId)}" plunges at ${lengthText(m.feed[i], unit)}/min; the Z axis of "${machine.name}" goes ${lengthText(machine.maxFeed.z, unit)}/min at most and will be slower. Lessen the plunge feed of its cutter.`, m.x[i], m.y[i]);
          if (i && m.kind[i] !== RAPID && m.kind[i] !== DWELL && m.feed[i] > Math.max(machine.maxFeed.x, machine.maxFeed.y) + 0.5) tell('feed', s.cutId, `"${name(s.cutId)}" is to be fed at ${lengthText(m.feed[i], unit)} a minute; "${machine.name}" goes ${lengthText(Math.max(machine.maxFeed.x, machine.maxFeed.y), unit)} at most and will be slower.`, m.x[i], m.y[i]);
        }
      }
    const wide = (got: number, has: number, axis: string) => {
      if (got > has + 1e-6) out.push({ check: 'limits', text: `The programs need ${lengthText(got, unit)} in ${axis}; "${machine.name}" travels ${lengthText(has, unit)}.`, cutId: null, x: null, y: null });
    };
    wide(x1 - x0, machine.travel.x, 'X');
    wide(y1 - y0, machine.travel.y, 'Y');
    wide(z1 - z0, machine.travel.z, 'Z');
    return out;
  },
};
