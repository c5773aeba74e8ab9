/**
 * Long programs: `npm run bench:long -- [MOVES] [CORES]`. A surface finished by many short moves beside a small cut: written, read and
 * timed, and proven, for the first time, and again when the small cut has changed. Seconds of the wall clock; cutting on so many cores
 * (one, where it is not said), all else on one. Then the program is played to places anywhere in it, on one.
 */
import { handsOver, sharedHeights } from '../src/compute/hands';
import { cutterOf } from '../src/core/testing/job';
import { handsOf } from './handsOf';
import { emptyPlan, type CutPlan } from '../src/core/cuts/kind';
import { newOneSetup, type OneSetup } from '../src/core/job/job';
import { MotionBuilder, type Motion } from '../src/core/motion/motion';
import { writePrograms } from '../src/core/pipeline/programs';
import { placePrograms, prove } from '../src/core/pipeline/proving';
import { lengthOf } from '../src/core/program/text';
import { createPlayer } from '../src/core/proof/player';
import { createSimulation } from '../src/core/proof/simulate';

const moves = Number(process.argv[2] ?? 1_000_000);
const cores = Number(process.argv[3] ?? 1);
const STEP = 0.1;
const [WIDTH, HEIGHT] = [300, 200];

/** Lines across a wavy surface, one beside the other, in steps of 0.1 mm. */
function finishing(count: number): Motion {
  const b = new MotionBuilder();
  const perLine = Math.round((WIDTH - 20) / STEP);
  const between = (HEIGHT - 20) / Math.ceil(count / perLine);
  b.rapid(10, 10, 10);
  for (let i = 0; i < count; i++) {
    const line = Math.floor(i / perLine);
    const k = line % 2 ? perLine - 1 - (i % perLine) : i % perLine;
    const [x, y] = [10 + k * STEP, 10 + line * between];
    b.line(x, y, -2 + 1.5 * Math.sin(x / 9) * Math.cos(y / 7), 1200);
  }
  b.rapid(10, 10, 10);
  return b.build();
}

/** A small square in a corner, so deep. */
function square(depth: number): Motion {
  const b = new MotionBuilder();
  b.rapid(4, 4, 10);
  for (const [x, y] of [
    [4, 4],
    [8, 4],
    [8, 8],
    [4, 8],
    [4, 4],
  ])
    b.line(x, y, -depth, 900);
  b.rapid(4, 4, 10);
  return b.build();
}

const ball = cutterOf('ball-3');
const cut = (id: string) => ({ id, name: id, kind: 'profile', enabled: true, items: [], values: {}, overrides: {} });
const job: OneSetup = { ...newOneSetup('Weir'), cutters: [ball], cuts: [cut('surface'), cut('square')] };
const plan = (motion: Motion): CutPlan => ({
  ...emptyPlan([]),
  toolpaths: [{ cutterId: ball.id, rpm: 18000, motion }],
});

const helpers = await handsOf(cores - 1);
const simulation = createSimulation(cores > 1 ? { hands: handsOver(helpers), memory: sharedHeights } : {});
const seconds = (t: number) => `${((performance.now() - t) / 1000).toFixed(2)} s`;
function run(what: string, plans: Map<string, CutPlan>): void {
  let t = performance.now();
  const programs = writePrograms(job, plans);
  const written = seconds(t);
  t = performance.now();
  const placed = placePrograms(job, programs);
  const read = seconds(t);
  t = performance.now();
  prove(job, placed, programs.tools, plans, STEP, undefined, simulation);
  console.log(
    `| ${what} | ${written} | ${read} | ${seconds(t)} | ${(lengthOf(programs.files[0].chunks) / 1e6).toFixed(0)} MB |`,
  );
}

console.log(
  `${moves} moves, ${cores} ${cores > 1 ? 'cores' : 'core'}\n| what | written | read | cut, checked, timed | text |\n| --- | --- | --- | --- | --- |`,
);
const surface = plan(finishing(moves));
run(
  'first time',
  new Map([
    ['surface', surface],
    ['square', plan(square(1))],
  ]),
);
run(
  'the square changed',
  new Map([
    ['surface', surface],
    ['square', plan(square(2))],
  ]),
);
run(
  'nothing changed',
  new Map([
    ['surface', surface],
    ['square', plan(square(2))],
  ]),
);
if (cores > 1) {
  // Cutting alone, by one and by all, in turn: of each the quickest of three.
  const plans = new Map([['surface', surface]]);
  const programs = writePrograms(job, plans);
  const placed = placePrograms(job, programs);
  const hands = { hands: handsOver(helpers), memory: sharedHeights };
  const best = { one: Infinity, all: Infinity };
  for (let k = 0; k < 3; k++)
    for (const [who, means] of [
      ['one', {}],
      ['all', hands],
    ] as const) {
      const fresh = createSimulation(means);
      const t = performance.now();
      fresh.run(job.blank, STEP, placed, programs.tools);
      best[who] = Math.min(best[who], performance.now() - t);
    }
  const { one, all } = best;
  console.log(
    `cutting alone: one core ${(one / 1000).toFixed(2)} s, ${cores} cores ${(all / 1000).toFixed(2)} s, ratio ${(one / all).toFixed(2)}`,
  );
}
// Playing: to the end for the first time, then to places anywhere, each with the copy of the field that the window gets.
const playing = new Map([['surface', surface]]);
const programs = writePrograms(job, playing);
const player = createPlayer(job, placePrograms(job, programs), programs.tools);
const times = Array.from({ length: 41 }, (_, k) => {
  const t = performance.now();
  player.to(k ? Math.floor(player.moves * ((k * 0.618) % 1)) : player.moves, 2 * STEP, null, () => {}).field.z.slice();
  return performance.now() - t;
});
const [end, ...places] = times;
places.sort((a, b) => a - b);
console.log(
  `playing to the end ${(end / 1000).toFixed(2)} s, then to 40 places: half within ${places[20].toFixed(0)} ms, longest ${places[39].toFixed(0)} ms`,
);
for (const w of helpers) void w.terminate();
