import { z } from 'zod';

export const traceOptionsSchema = z.object({
  /** Outlines of what is darker than the threshold, or of each of so many colours; or the centre lines of what is darker. */
  mode: z.enum(['threshold', 'colours', 'centre']),
  /** 0 (only black counts) to 1 (all but white does). */
  threshold: z.number().min(0).max(1),
  colours: z.number().int().min(2).max(16),
  /** Whether the colour round the edge of the picture gets no outlines. */
  skipGround: z.boolean(),
  invert: z.boolean(),
  /** Spots and holes smaller than this are left out, square pixels. */
  speckle: z.number().min(0),
  /** Turn in degrees from which a bend is a corner. */
  corner: z.number().min(0).max(180),
  /** How far a curve may lie from the edge, pixels. */
  accuracy: z.number().positive(),
});
export type TraceOptions = z.infer<typeof traceOptionsSchema>;

export const traceDefaults: TraceOptions = {
  mode: 'threshold',
  threshold: 0.5,
  colours: 4,
  skipGround: true,
  invert: false,
  speckle: 6,
  corner: 30,
  accuracy: 0.2,
};
