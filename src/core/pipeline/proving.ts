import type { ArtworkContext } from '../artwork/kind';
import type { Cutter } from '../cutters/cutter';
import type { CutPlan } from '../cuts/kind';
import { kindOf } from '../cuts/registry';
import { datumOf, type OneSetup } from '../job/job';
import { seconds, timed, type Time } from '../motion/timing';
import { buriedIn } from '../proof/buried';
import type { CheckInput, Finding } from '../proof/check';
import { checks } from '../proof/checks';
import { compare } from '../proof/compare';
import type { Onlooker } from '../proof/cutting';
import { deflectedPrograms } from '../proof/deflection';
import { placeProgram, type PlacedProgram } from '../proof/placed';
import type { Faces, Found } from '../proof/faces';
import { createSimulation, type Simulation } from '../proof/simulate';
import { stays } from '../proof/stays';
import type { HeightField } from '../relief/field';
import { presetOf, wantedOf, type Progress } from './planning';
import type { Programs } from './programs';
import { noRelief, type GiveRelief } from './shaping';

export interface SectionTime {
  readonly file: string;
  readonly cutId: string | null;
  readonly tool: number;
  readonly time: Time;
}

export interface Proof {
  readonly field: HeightField;
  /** The blank as it was found, and as it is left. */
  readonly found: Found | null;
  readonly left: Faces;
  readonly findings: readonly Finding[];
  /** What may stay on a relief and does; none as long as it has not been compared. */
  readonly stays: readonly Finding[];
  /** What the checks were asked about. */
  readonly input: CheckInput;
  readonly times: readonly SectionTime[];
  /** Minutes of everything, tool changes and spindle starts included. */
  readonly minutes: number;
  readonly toolChanges: number;
  /** Minutes of that for which nothing moves: changes, and spindles that come up to speed. */
  readonly standing: number;
}

/** Reads the exported text back, in the blank's frame. */
export const placePrograms = (job: OneSetup, programs: Programs): PlacedProgram[] =>
  programs.files.map((f) =>
    placeProgram(
      f.name,
      f.chunks,
      datumOf(job.blank),
      job.cuts.map((c) => c.id),
    ),
  );

/** Times of moving as the machine's reported minutes have taught. */
const scaled = (t: Time, factor: number): Time => ({
  ...t,
  cutting: t.cutting * factor,
  plunging: t.plunging * factor,
  air: t.air * factor,
});

/** Times, tool changes and total of parsed programs on the job's machine. */
export function timePrograms(
  job: OneSetup,
  placed: readonly PlacedProgram[],
): Pick<Proof, 'minutes' | 'toolChanges' | 'standing'> & { times: SectionTime[] } {
  const times = placed.flatMap((p) =>
    p.sections.map((s) => ({
      file: p.file,
      cutId: s.cutId,
      tool: s.tool,
      time: scaled(timed(s.motion, job.run.machine), job.run.machine.factor),
    })),
  );
  const toolChanges = placed.reduce((n, p) => n + p.toolChanges, 0);
  const moving = times.reduce((s, t) => s + seconds(t.time), 0);
  const { toolChangeSeconds, spindleSeconds } = job.run.machine;
  // A program that waits for the spindle waits while it comes up to speed, not once more after that.
  const standing =
    (toolChanges * toolChangeSeconds +
      Math.max(
        toolChanges * spindleSeconds,
        placed.reduce((s, p) => s + p.dwell, 0),
      )) /
    60;
  return { times, toolChanges, standing, minutes: moving / 60 + standing };
}

/**
 * Cuts the programs out of the blank and asks every check. Heights at nodes `cell` mm apart. With a simulation
 * that ran before, only what has changed is cut anew; the field is the simulation's own. `found`: what the set-up that this
 * one starts from has left, at the same nodes; an uncut blank where it is not given. `onlooker`: see Simulation.
 */
export function prove(
  job: OneSetup,
  placed: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  plans: ReadonlyMap<string, CutPlan>,
  cell: number,
  progress: Progress = () => {},
  simulation: Simulation = createSimulation(),
  found: Found | null = null,
  onlooker: Onlooker | null = null,
): Proof {
  const deflected = deflectedPrograms(placed, tools, job.blank.material);
  const { field, collisions: clashes } = simulation.run(
    job.blank,
    cell,
    deflected,
    tools,
    progress,
    found?.faces.up ?? null,
    onlooker,
  );
  const input: CheckInput = { job, programs: deflected, tools, plans, collisions: clashes, field, found };
  return {
    field,
    found,
    left: { up: field, down: found?.faces.down ?? null },
    findings: checks.flatMap((c) => c.run(input)),
    stays: [],
    input,
    ...timePrograms(job, placed),
  };
}

/** Fewer moves than this are proven before anybody has looked. */
const FEW_MOVES = 2000;

/** The field that a proof will leave, at nodes so far apart that it is there at once; null where the proof itself will be. */
export function glimpseOf(
  job: OneSetup,
  placed: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  cell: number,
  progress: Progress = () => {},
  found: HeightField | null = null,
): HeightField | null {
  if (placed.reduce((n, p) => n + p.sections.reduce((m, s) => m + s.motion.count, 0), 0) < FEW_MOVES) return null;
  const deflected = deflectedPrograms(placed, tools, job.blank.material);
  return createSimulation().run(job.blank, cell, deflected, tools, progress, found).field;
}

/** What a proof is found to be once it has been held against what is wanted. */
export type Held = Pick<Proof, 'findings' | 'stays'>;

/** All findings of a proof held against what is wanted, and what stays: the longest of the checks, done after the others. */
export function heldAgainst(
  proof: Proof,
  art: ArtworkContext,
  progress: Progress = () => {},
  relief: GiveRelief = noRelief,
): Held {
  const { job, plans } = proof.input;
  const input = {
    ...proof.input,
    compared: compare(proof.field, wantedOf(job, art, plans, relief), progress, proof.found?.faces.up ?? null),
    buried: buriedIn(proof.input, (s, cutter) => {
      const cut = job.cuts.find((c) => c.id === s.cutId);
      return cut && kindOf(cut.kind).atOnce?.(cut.values) ? presetOf(cutter, job, cut) : null;
    }),
  };
  return { findings: checks.flatMap((c) => c.run(input)), stays: stays(input) };
}
