import { z } from 'zod';

const axesOf = (least: number, most: number) => {
  const axis = z.number().min(least).max(most);
  return z.object({ x: axis, y: axis, z: axis });
};

/** What the machine can do. Speeds mm/min, accelerations mm/s2, lengths mm. */
export const machineSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().min(1).max(120),
  rapid: z.number().min(0.1).max(100_000),
  /** Per-axis limits of speed and acceleration. */
  maxFeed: axesOf(0.1, 100_000),
  accel: axesOf(1, 50_000),
  junctionDeviation: z.number().min(0.0001).max(1),
  /** Slowest and fastest the spindle turns, rpm. */
  spindle: z.object({ min: z.number().min(0).max(100_000), max: z.number().min(1).max(100_000) }),
  toolChangeSeconds: z.number().min(0).max(3600),
  spindleSeconds: z.number().min(0).max(3600),
  travel: axesOf(1, 100_000),
  /** Whether it can touch a surface and tell its height. */
  probe: z.boolean(),
  /** The dialect that its controller reads. */
  dialect: z.string(),
  /** Real minutes for each minute reckoned: from what the maker has reported. */
  factor: z.number().min(0.2).max(5),
});
export type Machine = z.infer<typeof machineSchema>;

const plain = { junctionDeviation: 0.01, spindleSeconds: 3, probe: false, dialect: 'metric', factor: 1 };

/** The machines that ship, by what they are; each can be changed. */
export const machines: readonly Machine[] = [
  {
    ...plain,
    id: 'bench-router',
    name: 'Bench router',
    rapid: 4000,
    maxFeed: { x: 5000, y: 5000, z: 1500 },
    accel: { x: 400, y: 400, z: 200 },
    spindle: { min: 6000, max: 24000 },
    toolChangeSeconds: 60,
    travel: { x: 800, y: 600, z: 120 },
  },
  {
    ...plain,
    id: 'bench-engraver',
    name: 'Small bench engraver',
    rapid: 2500,
    maxFeed: { x: 2500, y: 2500, z: 800 },
    accel: { x: 250, y: 250, z: 120 },
    spindle: { min: 3000, max: 20000 },
    toolChangeSeconds: 90,
    travel: { x: 300, y: 200, z: 60 },
    probe: true,
    dialect: 'metric-pause',
  },
  {
    ...plain,
    id: 'milling-machine',
    name: 'Milling machine',
    rapid: 10000,
    maxFeed: { x: 8000, y: 8000, z: 5000 },
    accel: { x: 1500, y: 1500, z: 1000 },
    spindle: { min: 100, max: 12000 },
    junctionDeviation: 0.005,
    toolChangeSeconds: 12,
    travel: { x: 600, y: 400, z: 400 },
    probe: true,
    dialect: 'metric-length',
  },
];
export const [benchRouter] = machines;

/**
 * The factor that brings reckoned minutes to reported ones: sum of reported over sum of reckoned, so that long jobs count
 * for what they are. Both are lists of minutes, pair by pair; reckoned ones without any factor.
 */
export function calibrated(reckoned: readonly number[], reported: readonly number[]): number {
  const a = reckoned.reduce((s, v) => s + v, 0);
  const b = reported.reduce((s, v) => s + v, 0);
  if (!(a > 0) || !(b > 0)) return 1;
  return Math.min(5, Math.max(0.2, b / a));
}
