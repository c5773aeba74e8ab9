import { z } from 'zod';

const words = z
  .string()
  .max(200)
  .regex(/^[^\n\r]*$/, 'A line of a program is one line.');

/** How a program is written for one controller. RS-274 / ISO 6983 words throughout. */
export const dialectSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(120),
  unit: z.enum(['mm', 'in']),
  arcs: z.boolean(),
  decimals: z.number().int().min(2).max(6),
  /** Whether several cutters may share a file. */
  files: z.enum(['any', 'cutter']),
  /** How a file asks for another cutter: by M6, or by stopping with M0 until it is changed by hand. */
  change: z.enum(['command', 'pause']),
  /** Whether the length of the cutter is called (G43) after a change. */
  toolLength: z.boolean(),
  /** Seconds for which the program waits after it has started the spindle (G4). */
  spindleWait: z.number().min(0).max(120),
  /** Whether holes are drilled by canned cycles (G81, G82, G83) or spelled out. */
  cycles: z.boolean().default(false),
  /** Whether the controller is told that arc centres count from the start of the arc (G91.1). */
  arcCentres: z.boolean().default(false),
  /** Work offset that the header calls, if any. */
  workOffset: z.enum(['none', 'G54', 'G55', 'G56', 'G57', 'G58', 'G59']).default('none'),
  comments: z.enum(['brackets', 'semicolon']),
  numbers: z.boolean(),
  end: z.enum(['M30', 'M2']),
  /** Lines of the maker's own, after the units and before the end. */
  header: z.array(words).max(20),
  footer: z.array(words).max(20),
  extension: z.string().regex(/^[a-z0-9]{1,5}$/, 'An extension is one to five small letters and figures.'),
});
export type Dialect = z.infer<typeof dialectSchema>;

const plain: Omit<Dialect, 'id' | 'name'> = {
  unit: 'mm',
  arcs: true,
  decimals: 4,
  files: 'any',
  change: 'command',
  toolLength: false,
  spindleWait: 3,
  cycles: false,
  arcCentres: false,
  workOffset: 'none',
  comments: 'brackets',
  numbers: false,
  end: 'M30',
  header: [],
  footer: [],
  extension: 'nc',
};

/** The dialects that ship, named by what they do. A new one is one line. */
export const dialects: readonly Dialect[] = [
  { ...plain, id: 'metric', name: 'Metric, arcs, tool change by command' },
  { ...plain, id: 'inch', name: 'Inch, arcs, tool change by command', unit: 'in', decimals: 5 },
  { ...plain, id: 'metric-lines', name: 'Metric, no arcs, one file per cutter', arcs: false, files: 'cutter' },
  { ...plain, id: 'metric-pause', name: 'Metric, arcs, pause for the tool change', change: 'pause' },
  { ...plain, id: 'metric-files', name: 'Metric, arcs, one file per cutter', files: 'cutter' },
  {
    ...plain,
    id: 'metric-length',
    name: 'Metric, arcs, tool change with length call',
    toolLength: true,
    numbers: true,
    arcCentres: true,
    workOffset: 'G54',
  },
  { ...plain, id: 'metric-cycles', name: 'Metric, arcs, drilling by canned cycles', cycles: true },
];

/** A dialect by its id: a shipped one, whose place none of a job's own can take, or one of those. */
export function dialectOf(id: string, own: readonly Dialect[] = []): Dialect {
  const d = dialects.find((q) => q.id === id) ?? own.find((q) => q.id === id);
  if (!d)
    throw new Error(
      `There is no dialect called "${id}". There are: ${[...dialects, ...own].map((q) => q.id).join(', ')}.`,
    );
  return d;
}

/** What tells dialects apart beside their unit. */
const ways = ({ id: _i, name: _n, unit: _u, decimals: _d, ...rest }: Dialect): string =>
  JSON.stringify(Object.entries(rest).sort());

/** The same dialect in the other unit: one that is there, or a copy of it under a new id. */
export function dialectIn(
  d: Dialect,
  unit: Dialect['unit'],
  own: readonly Dialect[],
  id: string,
): { readonly dialect: Dialect; readonly fresh: boolean } {
  const same = [d, ...dialects, ...own].find((q) => q.unit === unit && ways(q) === ways(d));
  if (same) return { dialect: same, fresh: false };
  const name = d.name.replace(/^Metric\b/, 'Inch');
  return {
    dialect: {
      ...d,
      id,
      unit,
      decimals: unit === 'in' ? 5 : 4,
      name: unit === 'mm' ? d.name.replace(/^Inch\b/, 'Metric') : name,
    },
    fresh: true,
  };
}
