import { lengthText } from '../../units/length';
import { datumOf } from '../../job/job';
import { extentOf, isPlunge } from '../../motion/extent';
import { DWELL, RAPID } from '../../motion/motion';
import type { Check, Finding } from '../check';
import { speedsOf } from '../placed';

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
    const fastest = Math.max(machine.maxFeed.x, machine.maxFeed.y) + 0.5;
    const fastestDown = machine.maxFeed.z + 0.5;
    const told = new Set<string>();
    const tell = (key: string, cutId: string | null, text: string, x: number | null, y: number | null) => {
      if (told.has(`${key}/${cutId}`)) return;
      told.add(`${key}/${cutId}`);
      out.push({ check: 'limits', text, cutId, x, y });
    };
    const name = (id: string | null) => job.cuts.find((c) => c.id === id)?.name ?? 'The program';
    for (const p of programs)
      for (const s of p.sections) {
        const m = s.motion;
        const { all, feed, plunge } = extentOf(m);
        x0 = Math.min(x0, all.x0);
        x1 = Math.max(x1, all.x1);
        y0 = Math.min(y0, all.y0);
        y1 = Math.max(y1, all.y1);
        z0 = Math.min(z0, all.z0);
        z1 = Math.max(z1, all.z1);
        const [least, most] = speedsOf(s);
        if (feed <= fastest && plunge <= fastestDown && most <= machine.spindle.max && least >= machine.spindle.min)
          continue;
        for (let i = 0; i < m.count; i++) {
          const rpm = s.rpm[i];
          if (rpm > machine.spindle.max)
            tell(
              'fast',
              s.cutId,
              `"${name(s.cutId)}" asks for ${Math.round(rpm)} rpm; the spindle of "${machine.name}" turns ${machine.spindle.max} at most.`,
              m.x[i],
              m.y[i],
            );
          if (rpm > 0 && rpm < machine.spindle.min)
            tell(
              'slow',
              s.cutId,
              `"${name(s.cutId)}" asks for ${Math.round(rpm)} rpm; the spindle of "${machine.name}" turns no slower than ${machine.spindle.min}.`,
              m.x[i],
              m.y[i],
            );
          if (isPlunge(m, i) && m.feed[i] > fastestDown)
            tell(
              'plunge',
              s.cutId,
              `"${name(s.cutId)}" plunges at ${lengthText(m.feed[i], unit)}/min; the Z axis of "${machine.name}" goes ${lengthText(machine.maxFeed.z, unit)}/min at most and will be slower. Lessen the plunge feed of its cutter.`,
              m.x[i],
              m.y[i],
            );
          if (i && m.kind[i] !== RAPID && m.kind[i] !== DWELL && m.feed[i] > fastest)
            tell(
              'feed',
              s.cutId,
              `"${name(s.cutId)}" is to be fed at ${lengthText(m.feed[i], unit)} a minute; "${machine.name}" goes ${lengthText(Math.max(machine.maxFeed.x, machine.maxFeed.y), unit)} at most and will be slower.`,
              m.x[i],
              m.y[i],
            );
        }
      }
    const wide = (got: number, has: number, axis: string) => {
      if (got > has + 1e-6)
        out.push({
          check: 'limits',
          text: `The programs need ${lengthText(got, unit)} in ${axis}; "${machine.name}" travels ${lengthText(has, unit)}.`,
          cutId: null,
          x: null,
          y: null,
        });
    };
    wide(x1 - x0, machine.travel.x, 'X');
    wide(y1 - y0, machine.travel.y, 'Y');
    wide(z1 - z0, machine.travel.z, 'Z');
    return out;
  },
};
