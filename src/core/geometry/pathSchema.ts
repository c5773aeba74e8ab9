import { z } from 'zod';

/** Paths as they stand in a job: see ./path.ts for what the values mean. */
const mm = z.number().finite().min(-1e6).max(1e6);
export const segmentSchema = z.discriminatedUnion('k', [
  z.object({ k: z.literal('line'), x: mm, y: mm }),
  z.object({ k: z.literal('arc'), x: mm, y: mm, cx: mm, cy: mm, ccw: z.boolean() }),
  z.object({ k: z.literal('cubic'), x1: mm, y1: mm, x2: mm, y2: mm, x: mm, y: mm }),
]);
export const pathSchema = z.object({ x: mm, y: mm, segments: z.array(segmentSchema), closed: z.boolean() });
