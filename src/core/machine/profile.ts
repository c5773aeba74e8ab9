import { z } from 'zod';

/** What the machine can do. Speeds mm/min, accelerations mm/s2, lengths mm. */
export const machineSchema = z.object({
  name: z.string(),
  rapid: z.number().positive(),
  /** Per-axis limits of speed and acceleration. */
  maxFeed: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  accel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  junctionDeviation: z.number().positive(),
  toolChangeSeconds: z.number().min(0),
  spindleSeconds: z.number().min(0),
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
});
export type Machine = z.infer<typeof machineSchema>;

export const benchRouter: Machine = {
  name: 'Bench router',
  rapid: 4000,
  maxFeed: { x: 5000, y: 5000, z: 1500 },
  accel: { x: 400, y: 400, z: 200 },
  junctionDeviation: 0.01,
  toolChangeSeconds: 60,
  spindleSeconds: 3,
  travel: { x: 800, y: 600, z: 120 },
};
