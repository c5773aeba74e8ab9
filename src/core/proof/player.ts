import { radiusOf, type Cutter } from '../cutters/cutter';
import type { OneSetup } from '../job/job';
import { moveLength, RAPID } from '../motion/motion';
import { timeOf } from '../motion/timing';
import { SweepKernel } from '../kernels/kernel';
import { flatField, type HeightField } from '../relief/field';
import { lineOf, type PlacedProgram } from './placed';
import { deflectedPrograms } from './deflection';
import { KeyFrames } from './keyFrames';
import { cutMove, removerOf } from './cutting';
import type { Remover } from '../kernels/removal';

/** The material after a number of moves, and where the cutter then is; `seconds` of machine time, tool changes left out. */
export interface Played {
  readonly field: HeightField;
  readonly move: number;
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly cutterId: string | null;
  readonly cutId: string | null;
  readonly file: string;
  readonly line: number;
  readonly seconds: number;
}

/** Nodes that may be looked at between two frames: about a tenth of a second of cutting. */
const BETWEEN = 4e6;
/** What a move costs beside its nodes, as so many of them. */
const EACH = 40;
/** Bytes that frames may take. */
const MOST = 192e6;

/** Cuts parsed programs move by move: forwards from where it stands, or from the key frame that lies nearest before what is asked for. */
export interface Player {
  readonly moves: number;
  to(move: number, cell: number, only: readonly string[] | null, progress: (done: number) => void): Played;
}

/**
 * `found`: the upper face as it was before the first move, at nodes so far apart; flat where it gives none.
 * `apart`: how much work lies between two key frames, in nodes.
 */
export function createPlayer(
  job: OneSetup,
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  found: (cell: number) => HeightField | null = () => null,
  apart = BETWEEN,
): Player {
  // What is cut is where the tips go; the time is that of the programmed way.
  const deflected = deflectedPrograms(programs, tools, job.blank.material);
  const list = programs.flatMap((p, k) =>
    p.sections.map((s, i) => ({ ...s, programmed: s.motion, motion: deflected[k].sections[i].motion, file: p.file })),
  );
  let first = 0;
  const starts = list.map((s) => {
    const at = first;
    first += s.motion.count;
    return at;
  });
  const moves = first;
  const widths = list.map((s) => 2 * (tools.has(s.tool) ? radiusOf(tools.get(s.tool)!) : 0));
  const clocks = list.map(() => null as Float64Array | null);
  let before: Float64Array | null = null;
  /** Seconds before each stretch, and at each move of one. */
  const clock = (k: number): Float64Array => {
    if (!clocks[k]) {
      const per = new Float64Array(list[k].motion.count);
      timeOf(list[k].programmed, job.run.machine, per);
      for (let i = 1; i < per.length; i++) per[i] += per[i - 1];
      clocks[k] = per;
    }
    return clocks[k]!;
  };
  const startSeconds = (k: number): number => {
    if (!before) {
      before = new Float64Array(list.length + 1);
      for (let i = 0; i < list.length; i++) before[i + 1] = before[i] + (clock(i).at(-1) ?? 0);
    }
    return before[k];
  };
  let field: HeightField | null = null;
  let frames: KeyFrames | null = null;
  let between = apart;
  let work = 0;
  let at = 0;
  let key = '';
  return {
    moves,
    to(move, cell, only, progress) {
      const goal = Math.max(0, Math.min(moves, Math.round(move)));
      const wanted = JSON.stringify([cell, only]);
      if (!field || !frames || wanted !== key) {
        const flat = flatField(job.blank.width, job.blank.height, cell);
        field = SweepKernel.at(flat) ?? flat;
        const before = found(cell);
        if (before) field.z.set(before.z);
        frames = new KeyFrames(field, MOST);
        frames.keep(0);
        between = apart;
        work = 0;
        at = 0;
        key = wanted;
      }
      const near = frames.before(goal);
      if (goal < at || near > at) {
        frames.restore(near);
        at = near;
        work = 0;
      }
      let k = 0;
      while (k + 1 < list.length && starts[k + 1] <= at) k++;
      let remover: Remover | null = null;
      let of = -1;
      const from = at;
      try {
        while (at < goal) {
          while (k + 1 < list.length && starts[k + 1] <= at) k++;
          const s = list[k];
          if (of !== k) {
            remover?.flush();
            const cutter = tools.get(s.tool);
            remover =
              cutter && (!only || (s.cutId !== null && only.includes(s.cutId))) ? removerOf(field, cutter) : null;
            of = k;
          }
          const i = at - starts[k];
          if (i > 0 && remover && !(s.motion.kind[i] === RAPID && s.motion.z[i] >= 0)) {
            cutMove(remover, s.motion, i);
            work += EACH + (widths[k] * (moveLength(s.motion, i) + widths[k])) / (cell * cell);
          }
          at++;
          if (work > between && at > frames.last) {
            remover?.flush();
            if (frames.keep(at)) between *= 2;
            work = 0;
          }
          if ((at & 255) === 0) progress((at - from) / (goal - from));
        }
      } finally {
        // Also when it is given up: what has been passed has been cut.
        remover?.flush();
      }
      const last = Math.max(0, at - 1);
      let q = 0;
      while (q + 1 < list.length && starts[q + 1] <= last) q++;
      const s = list[q];
      if (!s)
        return {
          field,
          move: at,
          x: 0,
          y: 0,
          z: job.blank.safeHeight,
          cutterId: null,
          cutId: null,
          file: '',
          line: 0,
          seconds: 0,
        };
      const i = last - starts[q];
      return {
        field,
        move: at,
        x: s.motion.x[i],
        y: s.motion.y[i],
        z: s.motion.z[i],
        cutterId: tools.get(s.tool)?.id ?? null,
        cutId: s.cutId,
        file: s.file,
        line: lineOf(s, i),
        seconds: startSeconds(q) + clock(q)[i],
      };
    },
  };
}
