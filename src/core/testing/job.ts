import { shapeOf } from '../cutters/registry';
import { shippedLibrary } from '../cutters/library';
import { budgetOf } from '../cuts/budget';
import { kindOf } from '../cuts/registry';
import type { CutContext, CutPlan, Line } from '../cuts/kind';
import type { HeightField } from '../relief/field';
import type { Wanted } from '../cuts/wanted';
import type { Region } from '../geometry/region';
import { newOneSetup, type Blank, type OneSetup } from '../job/job';
import { writeProgram } from '../program/writer';
import { dialectOf } from '../program/dialect';
import { datumOf } from '../job/job';

export const library = shippedLibrary();
export const cutterOf = (id: string) => library.find((c) => c.id === id)!;

const preset = { rpm: 12000, feed: 1000, plunge: 400, stepDown: 50, stepOver: 1 };

/** Plans one cut on a bare region (given as it is flattened to the tolerance that is asked for, or as it is), without a job or fonts around it. */
export function planOn(
  kind: string,
  { stepOver, stepDown, ...values }: Record<string, unknown> & Partial<typeof preset>,
  region: Region | ((tolerance: number) => Region),
  blank: Partial<Blank> = {},
  presetOn: Partial<typeof preset> | ((cutterId: string) => Partial<typeof preset>) = {},
  lines?: Line[],
  relief: HeightField | null = null,
): { plan: CutPlan; job: OneSetup; wanted: () => Wanted } {
  const job = newOneSetup('test');
  job.blank = { ...job.blank, ...blank };
  const at = typeof region === 'function' ? region : () => region;
  const k = kindOf(kind);
  const full = k.schema.parse({ ...(k.defaults(job.blank, library) as object), ...values });
  const c: CutContext = {
    blank: job.blank,
    region: at,
    lines: (tolerance) => lines ?? at(tolerance).map((points) => ({ points, closed: true })),
    relief: () => relief,
    cutter: cutterOf,
    budget: budgetOf(),
    preset: (id) => ({
      ...preset,
      ...(stepOver ? { stepOver } : {}),
      ...(stepDown ? { stepDown } : {}),
      ...(typeof presetOn === 'function' ? presetOn(id) : presetOn),
    }),
    progress: () => {},
  };
  const plan = k.plan(full, c);
  return { plan, job, wanted: () => k.wanted(full, c, plan) };
}

/** The program text of a plan, tool numbers in order of use. */
export function programOf(
  plan: CutPlan,
  job: OneSetup,
  dialect = 'metric',
): { text: string; tools: Record<number, string> } {
  const numbers = new Map<string, number>();
  const parts = plan.toolpaths.map((t) => {
    if (!numbers.has(t.cutterId)) numbers.set(t.cutterId, numbers.size + 1);
    return {
      tool: numbers.get(t.cutterId)!,
      toolName: t.cutterId,
      cutNumber: 1,
      cutName: 'test',
      rpm: t.rpm,
      turns: shapeOf(cutterOf(t.cutterId).shape).turns,
      motion: t.motion,
    };
  });
  const text = writeProgram(
    parts,
    { title: 'test', datum: datumOf(job.blank), safeHeight: job.blank.safeHeight, park: job.blank.park, remarks: [] },
    dialectOf(dialect),
  );
  return { text, tools: Object.fromEntries([...numbers].map(([id, n]) => [n, id])) };
}
