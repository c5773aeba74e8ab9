import { cutterLabel, type Cutter } from '../cutters/cutter';
import { shapeOf } from '../cutters/registry';
import type { CutPlan } from '../cuts/kind';
import { datumOf, type OneSetup } from '../job/job';
import { seconds, timed } from '../motion/timing';
import { durationText } from '../units/duration';
import { formatLength } from '../units/length';
import { dialectOf, type Dialect } from '../program/dialect';
import type { Chunks } from '../program/text';
import { programChunks, type ProgramPart } from '../program/writer';

export interface ProgramFile {
  readonly name: string;
  readonly chunks: Chunks;
  /** Ids of the cuts whose work the file holds, in order. */
  readonly cuts: readonly string[];
}

export interface Programs {
  readonly files: readonly ProgramFile[];
  /** Cutters by their tool numbers, in the order of use. */
  readonly tools: ReadonlyMap<number, Cutter>;
  readonly dialect: Dialect;
}

/** A file name of plain letters, digits and dashes. */
export const slug = (text: string): string =>
  [
    ...text
      .normalize('NFKD')
      // Accents of Latin letters go; marks that make a letter another one in other scripts stay.
      .replace(/(\p{Script=Latin})\p{M}+/gu, '$1')
      .normalize('NFC')
      .replace(/[^\p{L}\p{M}\p{N}\s_-]/gu, '')
      .trim()
      .toLowerCase()
      .replace(/[\s_]+/g, '-'),
  ]
    .slice(0, 60)
    .join('')
    // Names that some systems keep for themselves.
    .replace(/^(con|prn|aux|nul|com\d|lpt\d)$/, 'job-$1') || 'job';

/** The folder that the programs of a set-up lie in, where a job has several. */
export const folderOf = (job: OneSetup): string => `${job.at.number}-${slug(job.at.name)}`;

/** Writes the programs of a job's enabled cuts, in run order. */
export function writePrograms(
  job: OneSetup,
  plans: ReadonlyMap<string, CutPlan>,
  options: { dialect?: string; files?: OneSetup['run']['files'] } = {},
): Programs {
  const dialect = dialectOf(options.dialect ?? job.run.dialect, job.run.dialects);
  const asked = options.files ?? job.run.files;
  const split = dialect.files === 'cutter' && asked === 'one' ? 'cutter' : asked;
  const numberOf = toolNumbers(job);
  const tools = new Map<number, Cutter>();
  const groups: { label: string; tool: number; parts: ProgramPart[]; cuts: string[] }[] = [];
  for (const cut of job.cuts) {
    const plan = cut.enabled ? plans.get(cut.id) : undefined;
    if (!plan) continue;
    let first = true;
    for (const path of plan.toolpaths) {
      const cutter = job.cutters.find((c) => c.id === path.cutterId)!;
      const tool = numberOf(cutter);
      tools.set(tool, cutter);
      const part: ProgramPart = {
        tool,
        toolName: cutterLabel(cutter, job.unit),
        cutNumber: job.cuts.indexOf(cut) + 1,
        cutName: cut.name,
        rpm: path.rpm,
        turns: shapeOf(cutter.shape).turns,
        motion: path.motion,
      };
      const last = groups[groups.length - 1];
      const together =
        last &&
        (split === 'one' ||
          (split === 'cutter' && last.tool === tool) ||
          (split === 'cut' && !first && (dialect.files === 'any' || last.tool === tool)));
      if (together) {
        last.parts.push(part);
        last.tool = tool;
        if (!last.cuts.includes(cut.id)) last.cuts.push(cut.id);
      } else
        groups.push({
          label: split === 'cutter' ? `t${tool}-${cutter.name}` : cut.name,
          tool,
          parts: [part],
          cuts: [cut.id],
        });
      first = false;
    }
  }
  const base = job.at.only ? slug(job.name) : `${slug(job.name)}-${folderOf(job)}`;
  const files = groups.map((g, i) => {
    const name =
      groups.length === 1 && split === 'one'
        ? `${base}.${dialect.extension}`
        : `${base}-${String(i + 1).padStart(2, '0')}-${slug(g.label)}.${dialect.extension}`;
    const chunks = programChunks(
      g.parts,
      {
        title: `${job.name}${job.at.only ? '' : `, ${job.at.name}`} - ${i + 1} of ${groups.length}`,
        datum: datumOf(job.blank),
        safeHeight: job.blank.safeHeight,
        park: job.blank.park,
        parkAtChange: job.blank.parkAtChange,
        remarks: [
          `Blank ${[job.blank.width, job.blank.height, job.blank.thickness].map((v) => formatLength(v, dialect.unit)).join(' x ')} ${dialect.unit}`,
          `Zero: ${zeroText(job)}`,
          ...[...new Set(g.parts.map((p) => p.tool))].map((n) => toolText(n, tools.get(n)!)),
          `Machining time about ${durationText(minutesOf(g.parts, job, dialect.spindleWait))}, tool changes included`,
        ],
      },
      dialect,
    );
    return { name, chunks, cuts: g.cuts };
  });
  return { files, tools, dialect };
}

/** A cutter as the header lists it: its number, the maker's own name, where it stands and what it is bought as. */
const toolText = (n: number, c: Cutter): string =>
  [`T${n} ${c.name}`, c.slot > 0 ? `slot ${c.slot}` : '', c.stockNumber ? `stock number ${c.stockNumber}` : '']
    .filter((w) => w)
    .join(', ');

/** Minutes of some parts: moving, as the machine has taught, and for each cutter its change and its spindle. */
function minutesOf(parts: readonly ProgramPart[], job: OneSetup, wait: number): number {
  const { machine } = job.run;
  const moving = parts.reduce((s, p) => s + seconds(timed(p.motion, machine)), 0) * machine.factor;
  const changes = parts.filter((p, i) => p.tool !== parts[i - 1]?.tool).length;
  return (moving + changes * (machine.toolChangeSeconds + Math.max(machine.spindleSeconds, wait))) / 60;
}

/**
 * Numbers of cutters in programs: in the order in which they are asked for, or their slots. A cutter without a slot, or with
 * one that another has already, gets the next number above all slots.
 */
export function toolNumbers(job: OneSetup): (cutter: Cutter) => number {
  const numbers = new Map<string, number>();
  const slots = job.run.numbers === 'slots';
  let next = slots ? Math.max(0, ...job.cutters.map((c) => c.slot)) + 1 : 1;
  return (cutter) => {
    const known = numbers.get(cutter.id);
    if (known !== undefined) return known;
    const free = slots && cutter.slot > 0 && ![...numbers.values()].includes(cutter.slot);
    const number = free ? cutter.slot : next++;
    numbers.set(cutter.id, number);
    return number;
  };
}

const COLUMN: Record<string, string> = { l: 'left', c: 'centre', r: 'right' };
const ROW: Record<string, string> = { b: 'bottom', m: 'middle', t: 'top' };

/** Where the program's zero is, in words. */
export const zeroText = (job: OneSetup): string =>
  `${ROW[job.blank.datum[1]]} ${COLUMN[job.blank.datum[0]]} of the blank, Z 0 on ${job.blank.zZero === 'top' ? 'its top face' : 'the spoilboard'}`;
