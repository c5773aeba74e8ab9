/**
 * Measures the rows of the speed table: `npm run bench`. Median of several runs after a warm-up, one
 * thread. Absolute figures hold for the machine they are taken on. The medial axis is also held against a
 * native sweep-line diagram of the same segments, where g++ and Boost are installed.
 */
import { planCut } from '../src/core/pipeline/planning';
import { reliefCell, shapeMemory, shapeRelief } from '../src/core/pipeline/shaping';
import { writePrograms } from '../src/core/pipeline/programs';
import { placePrograms, prove } from '../src/core/pipeline/proving';
import { shapeOf } from '../src/core/cutters/registry';
import { planOn } from '../src/core/testing/job';
import { circleLoop } from '../src/core/testing/shapes';
import { components, normalise, type Region } from '../src/core/geometry/region';
import { axisOf } from '../src/core/geometry/medial/axis';
import { makeBranches } from '../src/core/geometry/medial/branches';
import { flatten, placement, transformPath } from '../src/core/geometry/path';
import { flatField, type HeightField } from '../src/core/relief/field';
import { createSimulation } from '../src/core/proof/simulate';
import { SweepKernel } from '../src/core/kernels/kernel';
import { locationsOver, prunedLocations, type Locations } from '../src/core/kernels/location';
import { makeRemover } from '../src/core/kernels/removal';
import { demoSetups } from '../src/core/job/demo';
import { parseProgram } from '../src/core/program/parser';
import { writeProgram } from '../src/core/program/writer';
import { dialectOf } from '../src/core/program/dialect';
import { MotionBuilder } from '../src/core/motion/motion';
import { layOut } from '../src/core/lettering/layout';
import { nativeLocations } from './native/locate';
import { nativeShape } from './native/shape';
import { nativeStamping } from './native/stamp';
import { nativeVoronoi } from './native/voronoi';
import { fontsFromPackages } from '../src/cli/fonts';
import { lettersBoard } from './letters';
import { medalJob, roughedMedalJob } from './medalJob';
import { followHands } from '../src/compute/followHands';
import { formHands } from '../src/compute/formHands';
import { handsOf } from './handsOf';
import { CELL, NODES, reliefWork } from './relief';

const art = fontsFromPackages();

function median(runs: number, work: () => void, warm = 1): number {
  for (let i = 0; i < warm; i++) work();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const t = performance.now();
    work();
    times.push(performance.now() - t);
  }
  return times.sort((a, b) => a - b)[times.length >> 1];
}

const row = (what: string, figure: string, reach: string, ambitious: string) =>
  console.log(`| ${what} | ${figure} | ${reach} | ${ambitious} |`);
const ms = (v: number) =>
  v < 10 ? `${v.toFixed(1)} ms` : v < 5000 ? `${v.toFixed(0)} ms` : `${(v / 1000).toFixed(1)} s`;

/** Text as a region, with about the wanted number of segments. */
function words(text: string, font: string, cap: number, tolerance: number): Region {
  const { paths } = layOut(
    { text, capHeight: cap, tracking: 0, kerning: true, leading: 1.6, align: 'left', stretch: 100 },
    art.font(font)!,
  );
  return normalise(paths.map((p) => flatten(transformPath(p, placement(0, 0, 0)), tolerance)));
}
const segments = (r: Region) => r.reduce((n, l) => n + l.length / 2, 0);

console.log('| work | measured | reach | ambitious |\n| --- | --- | --- | --- |');

/** The parts of the bench; `npm run bench -- axis removal` runs those two only. */
const wanted = process.argv.slice(2);
const part = async (name: string, work: () => void | Promise<void>): Promise<void> => {
  if (!wanted.length || wanted.includes(name)) await work();
};

const trace = (parts: Region[]) => parts.forEach((p) => axisOf(p));
await part('axis', () => {
  for (const [n, cap, tol] of [
    [5000, 30, 0.0009],
    [30000, 60, 0.00008],
  ] as const) {
    const region = words('Quay & Sluice 1794', 'libre-baskerville', cap, tol);
    const parts = components(region);
    const native = nativeVoronoi(region);
    const ours = median(7, () => trace(parts), 3);
    const ratio =
      native === null
        ? 'native not measured: g++ and libboost-dev are missing'
        : `native ${ms(native)}, ratio ${(ours / native).toFixed(2)}`;
    row(
      `medial axis, lettering of ${segments(region)} segments (about ${n})`,
      `${ms(ours)}; ${ratio}`,
      '1.0 x native',
      '0.5 x',
    );
  }
});
await part('wavy', () => {
  // Ripples all round a disc and a ripple on those: many sites are nearly as near to every point of the middle.
  for (const n of [5000, 20000, 60000]) {
    const wave = Float64Array.from({ length: 2 * n }, (_, i) => {
      const t = (2 * Math.PI * (i >> 1)) / n;
      const r = 100 + 1.5 * Math.sin(180 * t) + 0.1 * Math.sin(1111 * t);
      return 150 + r * (i & 1 ? Math.sin(t) : Math.cos(t));
    });
    const region = normalise([wave]);
    const native = nativeVoronoi(region);
    const ours = median(3, () => trace(components(region)), 1);
    row(
      `medial axis, wavy outline of ${segments(region)} segments`,
      `${ms(ours)}; ${native === null ? 'native not measured' : `native ${ms(native)}, ratio ${(ours / native).toFixed(2)}`}`,
      n === 20000 ? '2 x native' : '-',
      '-',
    );
  }
});
await part('lettering', () => {
  const lines = Array.from({ length: 7 }, () => 'Fenwater Lock & Quay Sluice 1794 keeper').join('\n');
  const region = words(lines, 'libre-baskerville', 30, 0.0009);
  const parts = components(region);
  row(`medial axis, ${segments(region)} segments of lettering`, ms(median(3, () => trace(parts), 1)), '2 s', '1 s');
});
await part('circle', () => {
  for (const r of [40, 400]) {
    const parts = components(normalise([circleLoop(20000, r)]));
    row(`medial axis, circle of 20,000 segments, radius ${r} mm`, ms(median(3, () => trace(parts), 1)), '3 s', '0.3 s');
  }
});
await part('word', () => {
  let tol = 0.002;
  let region = words('Quay & Sluice 1794', 'libre-baskerville', 30, tol);
  while (segments(region) < 4600) region = words('Quay & Sluice 1794', 'libre-baskerville', 30, (tol *= 0.93));
  const time = median(15, () => components(region).forEach((p) => makeBranches(axisOf(p), 0.0007)), 5);
  row(
    `a word, "Quay & Sluice 1794", ${segments(region)} segments: axis, sampling, pruning`,
    ms(time),
    '100 ms',
    '40 ms',
  );
});
await part('letter', () => {
  const simulation = createSimulation();
  let k = 0;
  const change = () => {
    // Another last letter each time: the axes of all other letters are kept.
    const job = lettersBoard('ABCDEFGHJKLMNPQRSTUVWXYZ'[k++ % 24]);
    const plans = new Map([['c', planCut(job, job.cuts[0], art)]]);
    const programs = writePrograms(job, plans);
    prove(job, placePrograms(job, programs), programs.tools, plans, Math.sqrt((360 * 120) / 2e6), () => {}, simulation);
  };
  row(
    'one letter changed on a 20-letter board: plan, write, read back, prove (core, 2 million heights)',
    ms(median(11, change, 4)),
    '400 ms',
    '150 ms',
  );
});
await part('clearing', () => {
  const lines = Array.from({ length: 4 }, () => 'Fenwater Lock.').join('\n');
  let k = 0;
  let nodes = 0;
  const regions = Array.from({ length: 6 }, (_, i) => words(lines, 'libre-baskerville', 30 + i / 100, 0.0009));
  const time = median(5, () => {
    // A little larger each time: nothing is kept from the run before. Flattening is not part of the row.
    const region = regions[k++];
    nodes = segments(region);
    planOn(
      'area',
      { cutters: ['flat-6', 'flat-3', 'flat-1'], depth: 1 },
      region,
      { width: 900, height: 500 },
      { stepOver: 0.5 },
    );
  });
  row(`area clearance, region of ${nodes} nodes, three cutters`, ms(time), '1.5 s', '0.5 s');
});
await part('removal', () => {
  const moves = 20000;
  const cpu = () => process.cpuUsage().user / 1000;
  for (const [name, id, values, reach, ambitious] of [
    ['ball 3 mm', 'ball', { diameter: 3 }, 0.4, 0.8],
    ['ball 6 mm', 'ball', { diameter: 6 }, 0.6, 1],
    ['cone 0.2 mm tip, 15 degrees half', 'cone', { diameter: 3.175, halfAngle: 15, tipDiameter: 0.2 }, 0.3, 0.5],
    ['tapered ball R 0.25', 'taperedBall', { diameter: 3.175, tipRadius: 0.25, halfAngle: 10 }, null, null],
  ] as const) {
    const form = shapeOf(id).form(values);
    const path: [number, number, number][] = [];
    // A finishing pattern: lines 0.3 mm apart over 100 x 100 mm, heights waving by a millimetre.
    for (let i = 0; i <= moves; i++) {
      const line = Math.floor(i / 900);
      const along = (i % 900) * 0.1;
      const x = line % 2 ? 95 - along : 5 + along;
      const y = 5 + line * 0.3;
      path.push([x, y, -1.2 + 0.8 * Math.sin(x * 0.35) * Math.cos(y * 0.4)]);
    }
    const [x, y, z] = [0, 1, 2].map((k) => Float64Array.from(path, (p) => p[k]));
    const speed = (field: HeightField, some: number) => {
      const r = makeRemover(field, form);
      const t = cpu();
      r.follow(x, y, z, 1, some + 1);
      r.flush();
      return some / (cpu() - t);
    };
    // The kernel is compiled twice, the second time while it runs.
    for (let k = 0; k < 8; k++) speed(SweepKernel.at(flatField(100, 100, 0.05))!, moves);
    // In turns: each figure is held against what was measured in the same moment.
    const figures: number[][] = [];
    const ratios: number[] = [];
    for (let round = 0; round < 10; round++) {
      const flat = flatField(100, 100, 0.05);
      // The best of three, as of the native one.
      const kernel = Math.max(...[1, 2, 3].map(() => speed(SweepKernel.at(flat) ?? flat, moves)));
      const doubles = speed(flat, moves / 5);
      const native = id === 'taperedBall' ? null : nativeStamping(form, path);
      if (!round) continue;
      figures.push([kernel, doubles]);
      if (native) ratios.push(kernel / (moves / native));
    }
    const middle = (l: number[]) => l.sort((a, b) => a - b)[l.length >> 1];
    row(
      `material removal, ${name}, thousand 0.1 mm moves a second into 2000 x 2000 cells`,
      `${middle(figures.map((f) => f[0])).toFixed(0)} (in doubles ${middle(figures.map((f) => f[1])).toFixed(0)})${ratios.length ? `; native stamping, ratio ${middle(ratios).toFixed(2)}` : ''}`,
      reach ? `ratio ${reach}` : '500',
      ambitious ? `ratio ${ambitious}` : '500',
    );
  }
});
await part('relief', async () => {
  const two = reliefWork(formHands(await handsOf(1)));
  const mean = (z: Float32Array) => {
    let [sum, count] = [0, 0];
    for (const h of z)
      if (h === h) {
        sum += h;
        count++;
      }
    return sum / count;
  };
  for (const [k, { what, work, bar, straight }] of reliefWork().entries()) {
    const alone = median(5, work, 2);
    const native = straight && nativeShape(straight, NODES, CELL);
    const z = straight && straight.of !== 'outline' ? work() : null;
    // Distances are not yet heights.
    const same = native && z ? `, means ${mean(z).toFixed(4)} and ${native.mean.toFixed(4)}` : '';
    const beside = native ? `; straight native ${ms(native.ms)}, ratio ${(alone / native.ms).toFixed(2)}${same}` : '';
    row(what, `${ms(alone)}; by two ${ms(median(5, two[k].work, 2))}${beside}`, bar, '');
  }
});
await part('medal', async () => {
  // By one and by two; rows of the second lie a hair further apart, so that none of them is known from the first.
  for (const [who, stepOver, hands] of [
    ['one core', 0.1, undefined],
    ['two cores for its ways', 0.1000001, followHands(await handsOf(1))],
  ] as const) {
    const job = medalJob(stepOver);
    const memory = shapeMemory();
    const simulation = createSimulation();
    const [form] = job.relief.forms.slice(-1);
    const finished = (rise: number) => {
      form.values = { ...form.values, rise };
      const at = [performance.now()];
      const lap = () => void at.push(performance.now());
      const none = { mesh: () => null, picture: () => null, progress: () => {} };
      const { field } = shapeRelief(job, reliefCell(job), { art, ...none }, memory);
      lap();
      const plan = planCut(
        job,
        job.cuts[0],
        art,
        () => {},
        () => field,
        { hands },
      );
      lap();
      const plans = new Map([[job.cuts[0].id, plan]]);
      const programs = writePrograms(job, plans);
      const placed = placePrograms(job, programs);
      lap();
      prove(job, placed, programs.tools, plans, 0.07, () => {}, simulation);
      lap();
      const [shape, planned, written, proven] = at.slice(1).map((t, i) => t - at[i]);
      return {
        all: planned + written + proven,
        says: `shaped in ${ms(shape)}, planned ${ms(planned)}, written and read ${ms(written)}, proven ${ms(proven)}`,
      };
    };
    const name = `a relief of 100 x 100 mm finished at 0.1 mm by a tapered ball of 0.3 mm, ${who}`;
    const first = finished(2);
    row(name, `${ms(first.all)}; ${first.says}`, '8 s', '');
    const again = [2.5, 2.6, 2.7, 2.8, 2.9].map(finished).sort((a, b) => a.all - b.all)[2];
    row('the same, an ornament in its corner changed', `${ms(again.all)}; ${again.says}`, '2 s', '');
  }
  const job = roughedMedalJob();
  const memory = shapeMemory();
  const roughed = (rise: number) => {
    const [form] = job.relief.forms.slice(-1);
    form.values = { ...form.values, rise };
    const none = { mesh: () => null, picture: () => null, progress: () => {} };
    const { field } = shapeRelief(job, reliefCell(job), { art, ...none }, memory);
    const began = performance.now();
    planCut(
      job,
      job.cuts[0],
      art,
      () => {},
      () => field,
    );
    return performance.now() - began;
  };
  row('its roughing by two end mills planned', `${ms(roughed(2))}`, '', '');
  const changed = [2.5, 2.6, 2.7, 2.8, 2.9].map(roughed).sort((a, b) => a - b)[2];
  row('the same, that ornament changed', `${ms(changed)}`, '', '');
});
await part('location', () => {
  const size = 2000;
  const cell = 0.05;
  // A carved heron's worth of shapes: waves, walls of a millimetre, a fine ripple, grain.
  const surface = flatField((size - 1) * cell, (size - 1) * cell, cell);
  surface.z.forEach((_, i) => {
    const [x, y] = [(i % size) * cell, Math.floor(i / size) * cell];
    const wall = Math.hypot((x % 20) - 10, (y % 20) - 10) < 5 ? 0 : -1.2;
    surface.z[i] = wall - 1.2 + 1.1 * Math.sin(0.35 * x) * Math.cos(0.4 * y) + 0.05 * Math.sin(6 * x) * Math.sin(5 * y);
  });
  const [step, rows] = [2, 100];
  const first = (size - rows * step) / 2;
  const cpu = () => process.cpuUsage().user / 1000;
  for (const [name, id, values, reach, ambitious] of [
    ['ball 3 mm', 'ball', { diameter: 3 }, '1500', '4000'],
    ['ball 6 mm', 'ball', { diameter: 6 }, '700', '1500'],
    ['cone 0.2 mm tip, 15 degrees half', 'cone', { diameter: 3, halfAngle: 15, tipDiameter: 0.2 }, '4000', '8000'],
    ['tapered ball R 0.25', 'taperedBall', { diameter: 3, tipRadius: 0.25, halfAngle: 10 }, '-', '-'],
  ] as const) {
    const form = shapeOf(id).form({ ...(shapeOf(id).defaults as object), ...values });
    const [at, slow] = [locationsOver(surface, step)(form), prunedLocations(surface, step)(form)];
    const speed = (l: Locations, some: number) => {
      const t = cpu();
      for (let r = 0; r < some; r++) l.row(first + r * step);
      return (some * l.count) / (cpu() - t);
    };
    for (const l of [at, slow]) speed(l, 20);
    const best = (l: Locations, some: number) => Math.max(...[1, 2, 3, 4, 5].map(() => speed(l, some)));
    const [fast, pruned] = [best(at, rows), best(slow, 20)];
    const native = nativeLocations(surface, form, step, rows);
    let same = 0;
    if (native)
      for (let r = 0; r < rows; r++)
        at.row(first + r * step).forEach((z, i) => (same += z === native.heights[r * at.count + i] ? 1 : 0));
    row(
      `cutter location on 2000 x 2000 nodes, ${name}, thousand places a second`,
      `${fast.toFixed(0)} (in TypeScript ${pruned.toFixed(0)}${native ? `; the plain greatest in native code ${((rows * at.count) / native.ms).toFixed(0)}, the same in ${same} of ${rows * at.count}` : ''})`,
      reach,
      ambitious,
    );
  }
});
await part('program', () => {
  const b = new MotionBuilder();
  b.rapid(0, 0, 10);
  const n = 400000;
  for (let i = 1; i < n; i++)
    b.line(100 + 90 * Math.cos(i * 0.0007), 100 + 90 * Math.sin(i * 0.0013), -1 + 0.5 * Math.sin(i * 0.01), 1200);
  const motion = b.build();
  const info = { title: 'bench', datum: { x: 0, y: 0, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };
  const time = median(3, () =>
    parseProgram(
      writeProgram(
        [{ tool: 1, toolName: 't', cutNumber: 1, cutName: 'c', rpm: 1, turns: true, motion }],
        info,
        dialectOf('metric'),
      ),
    ),
  );
  row(
    'program text, written and parsed back, moves a second',
    `${(n / time / 1000).toFixed(2)} million`,
    '1 million',
    '3 million',
  );
});
await part('demo', () => {
  for (const [name, make] of Object.entries(demoSetups)) {
    const job = make();
    const t = performance.now();
    const plans = new Map(job.cuts.map((c) => [c.id, planCut(job, c, art)]));
    const programs = writePrograms(job, plans);
    const proof = prove(
      job,
      placePrograms(job, programs),
      programs.tools,
      plans,
      Math.sqrt((job.blank.width * job.blank.height) / 2e6),
    );
    row(
      `demo job ${name}, all of it, first time`,
      `${ms(performance.now() - t)}, ${proof.findings.length} findings`,
      '-',
      '-',
    );
  }
});
