import { z } from 'zod';

/** How a program is written for one controller. RS-274 / ISO 6983 words throughout. */
export const dialectSchema = z.object({
  id: z.string(),
  name: z.string(),
  unit: z.enum(['mm', 'in']),
  arcs: z.boolean(),
  decimals: z.number().int().min(2).max(6),
  /** Whether several cutters may share a file, changed by command. */
  files: z.enum(['any', 'cutter']),
  extension: z.string().regex(/^[a-z0-9]{1,5}$/),
});
export type Dialect = z.infer<typeof dialectSchema>;

/** The dialects that ship, named by what they do. A new one is one line. */
export const dialects: readonly Dialect[] = [
  { id: 'metric', name: 'Metric, arcs, tool change by command', unit: 'mm', arcs: true, decimals: 4, files: 'any', extension: 'nc' },
  { id: 'inch', name: 'Inch, arcs, tool change by command', unit: 'in', arcs: true, decimals: 5, files: 'any', extension: 'nc' },
  { id: 'metric-lines', name: 'Metric, no arcs, one file per cutter', unit: 'mm', arcs: false, decimals: 4, files: 'cutter', extension: 'nc' },
];

export function dialectOf(id: string): Dialect {
  const d = dialects.find((q) => q.id === id);
  if (!d) throw new Error(`There is no dialect called "${id}". There are: ${dialects.map((q) => q.id).join(', ')}.`);
  return d;
}
