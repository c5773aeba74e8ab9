import type { CutPlan } from '../cuts/kind';
import { shapeOf } from '../cutters/registry';
import { datumOf, type Blank, type OneSetup } from '../job/job';
import { seconds, sumTimes } from '../motion/timing';
import type { Finding } from '../proof/check';
import { checks } from '../proof/checks';
import type { Programs } from './programs';
import type { Proof, SectionTime } from './proving';

const round = (v: number, d = 4) => +v.toFixed(d);

/** What cutting comes to: minutes, mm, and moves of the programs. */
export interface Sums {
  readonly minutes: number;
  readonly cuttingMinutes: number;
  readonly plungingMinutes: number;
  readonly airMinutes: number;
  readonly cutLength: number;
  readonly airLength: number;
  readonly moves: number;
}

/** Something that the proof says, of which cut and where. */
export interface Said {
  readonly text: string;
  readonly cut: string | null;
  readonly x: number | null;
  readonly y: number | null;
}
const said = (f: Finding): Said => ({ text: f.text, cut: f.cutId, x: f.x, y: f.y });

/** What a plan comes to, as `report.json` has it. Places in mm, in the blank's frame. */
export interface Report {
  readonly job: string;
  /** With the changes of cutters. */
  readonly minutes: number;
  readonly toolChanges: number;
  readonly cuts: readonly (Sums & { readonly id: string; readonly name: string; readonly kind: string })[];
  readonly cutters: readonly (Sums & { readonly tool: number; readonly name: string })[];
  readonly checks: readonly {
    readonly id: string;
    readonly name: string;
    readonly passed: boolean;
    readonly findings: readonly Said[];
  }[];
  /** What stays on a relief, which is no finding. */
  readonly stays: readonly Said[];
}

type Axes = { readonly x: number; readonly y: number; readonly z: number };

/** What is set up, as `setup.json` has it: mm, in the coordinates of the programs. */
export interface SetupSheet {
  readonly files: readonly string[];
  /** Its lower left corner, and its size. */
  readonly blank: {
    readonly x0: number;
    readonly y0: number;
    readonly width: number;
    readonly height: number;
    readonly thickness: number;
  };
  readonly zZero: Blank['zZero'];
  /** By tool number: the values of its shape beside these. */
  readonly tools: Readonly<
    Record<
      string,
      { readonly name: string; readonly fluteLength: number; readonly shankDiameter: number } & Readonly<
        Record<string, string | number>
      >
    >
  >;
  readonly clamps: readonly {
    readonly x0: number;
    readonly y0: number;
    readonly x1: number;
    readonly y1: number;
    readonly height: number;
  }[];
  /** How far programs may go into the bed, and how far the axis of a skim leaves the blank. */
  readonly overshoot: number;
  readonly margin: number;
  readonly toolChange: 'M6' | 'T';
  readonly machine: {
    readonly rapid: number;
    /** The least of its axes. */
    readonly accel: number;
    readonly axes: Axes;
    readonly junctionDeviation: number;
    readonly maxFeed: Axes;
  };
}

const sum = (list: readonly SectionTime[]): Sums => {
  const t = sumTimes(list.map((s) => s.time));
  return {
    minutes: round(seconds(t) / 60),
    cuttingMinutes: round(t.cutting / 60),
    plungingMinutes: round(t.plunging / 60),
    airMinutes: round(t.air / 60),
    cutLength: round(t.cutLength, 2),
    airLength: round(t.airLength, 2),
    moves: t.moves,
  };
};

/** What a plan comes to, per cut and cutter, and what each check said. Minutes, mm. */
export function reportOf(job: OneSetup, programs: Programs, proof: Proof): Report {
  return {
    job: job.name,
    minutes: round(proof.minutes),
    toolChanges: proof.toolChanges,
    cuts: job.cuts
      .filter((c) => c.enabled)
      .map((c) => ({ id: c.id, name: c.name, kind: c.kind, ...sum(proof.times.filter((t) => t.cutId === c.id)) })),
    cutters: [...programs.tools].map(([n, c]) => ({
      tool: n,
      name: c.name,
      ...sum(proof.times.filter((t) => t.tool === n)),
    })),
    checks: checks.map((c) => {
      const found = proof.findings.filter((f) => f.check === c.id);
      return {
        id: c.id,
        name: c.name,
        passed: found.length === 0,
        findings: found.map(said),
      };
    }),
    stays: proof.stays.map(said),
  };
}

/** The machine-readable set-up sheet, in program coordinates and mm. */
export function setupOf(job: OneSetup, programs: Programs, plans: ReadonlyMap<string, CutPlan>): SetupSheet {
  const d = datumOf(job.blank);
  const m = job.run.machine;
  return {
    files: programs.files.map((f) => f.name),
    blank: {
      x0: 0 - d.x,
      y0: 0 - d.y,
      width: job.blank.width,
      height: job.blank.height,
      thickness: job.blank.thickness,
    },
    zZero: job.blank.zZero,
    tools: Object.fromEntries(
      [...programs.tools].map(([n, c]) => [
        String(n),
        {
          name: c.name,
          ...shapeOf(c.shape).setup(c.values),
          fluteLength: c.fluteLength,
          shankDiameter: c.shankDiameter,
        },
      ]),
    ),
    clamps: job.clamps.map((c) => ({
      x0: c.x0 - d.x,
      y0: c.y0 - d.y,
      x1: c.x1 - d.x,
      y1: c.y1 - d.y,
      height: c.height,
    })),
    overshoot: job.blank.intoBed,
    margin: Math.max(0, ...[...plans.values()].map((p) => p.overEdge ?? 0)),
    toolChange: programs.dialect.change === 'command' ? 'M6' : 'T',
    machine: {
      rapid: m.rapid,
      accel: Math.min(m.accel.x, m.accel.y, m.accel.z),
      axes: m.accel,
      junctionDeviation: m.junctionDeviation,
      maxFeed: m.maxFeed,
    },
  };
}
