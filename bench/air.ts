/**
 * How far cutters travel at feed through air: the moves of the demo jobs that take nothing away, by their length, per cut and
 * cutter. `npm run bench:air`.
 */
import { demoSetups } from '../src/core/job/demo';
import { isArc, moveLength, RAPID, type Motion } from '../src/core/motion/motion';
import { placePrograms } from '../src/core/pipeline/proving';
import { runJob } from '../src/core/pipeline/run';
import { cutMove, removerOf } from '../src/core/proof/cutting';
import { flatField, type HeightField } from '../src/core/relief/field';
import { radiusOf } from '../src/core/cutters/cutter';
import { fontsFromPackages } from '../src/cli/fonts';

const CELL = 0.1;
const art = fontsFromPackages();

/** Sum of the heights that a move can have lowered. */
function sumUnder(f: HeightField, m: Motion, i: number, reach: number): number {
  const arc = isArc(m.kind[i]) ? Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]) : 0;
  const span = (a: number, b: number, c: number, most: number) => {
    const ends = arc ? [c - arc, c + arc] : [Math.min(a, b), Math.max(a, b)];
    return [
      Math.max(0, Math.floor((ends[0] - reach) / f.cell)),
      Math.min(most - 1, Math.ceil((ends[1] + reach) / f.cell)),
    ];
  };
  const [x0, x1] = span(m.x[i - 1], m.x[i], m.cx[i], f.cols);
  const [y0, y1] = span(m.y[i - 1], m.y[i], m.cy[i], f.rows);
  let sum = 0;
  for (let y = y0; y <= y1; y++) for (let x = x0; x <= x1; x++) sum += f.z[y * f.cols + x];
  return sum;
}

console.log('| job | cut | cutter | at feed, mm | of that through air |');
console.log('| --- | --- | --- | --- | --- |');
for (const [name, make] of Object.entries(demoSetups)) {
  const job = make();
  const { programs } = runJob(job, art, 1);
  const field = flatField(job.blank.width, job.blank.height, CELL);
  for (const p of placePrograms(job, programs))
    for (const s of p.sections) {
      const cutter = programs.tools.get(s.tool)!;
      const remover = removerOf(field, cutter);
      let feed = 0;
      let air = 0;
      for (let i = 1; i < s.motion.count; i++) {
        if (s.motion.kind[i] === RAPID) continue;
        const length = moveLength(s.motion, i);
        const before = sumUnder(field, s.motion, i, radiusOf(cutter));
        cutMove(remover, s.motion, i);
        remover.flush();
        feed += length;
        if (sumUnder(field, s.motion, i, radiusOf(cutter)) === before) air += length;
      }
      console.log(
        `| ${name} | ${job.cuts.find((c) => c.id === s.cutId)?.name} | ${cutter.name} | ${feed.toFixed(0)} | ${((100 * air) / feed).toFixed(1)} % |`,
      );
    }
}
