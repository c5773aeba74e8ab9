import { z } from 'zod';
import { denoise as filtered, measuredGrain, reachOf } from '../denoise';
import { formKindByRows } from '../form';

const schema = z.object({
  /** How high the grain is, mm; null: as it is measured. */
  grain: z.number().min(0.0001).max(20).nullable(),
  /** Strokes so wide stay as they are, mm. */
  detail: z.number().min(0.01).max(50),
});

/** What varies by more than so many times the grain is no grain: less leaves grain, more takes edges. */
const BEYOND = 1.25;
/** Windows reach at least so many nodes to each side, or so many pixels, which share their grain with their neighbours. */
const NODES = 2;
const PIXELS = 2;

/** Takes the grain off what lies under it, and keeps edges and fine strokes. */
export const denoise = formKindByRows({
  id: 'denoise',
  name: 'Noise removal',
  summary: 'Takes the grain off what lies under it; edges and fine strokes stay.',
  schema,
  adjusts: true,
  fields: [
    { kind: 'length', key: 'grain', label: 'Height of the grain', optional: 'as measured' },
    { kind: 'length', key: 'detail', label: 'Finest stroke that stays' },
  ],
  defaults: { grain: null, detail: 0.3 },
  higher: (v, by) => ({ ...v, grain: v.grain && v.grain * by }),
  prepare(v, { grid, under, pixel }) {
    // Grain of a picture is as wide as its pixels, however many nodes lie on each; what is drawn between two of them is of both.
    const wide = pixel / grid.cell;
    const grain = v.grain ?? measuredGrain(under, grid, Math.max(1, Math.ceil(2 * wide)));
    const radius = Math.max(NODES, PIXELS * wide, v.detail / 2 / grid.cell);
    return { data: { grain, radius }, reach: reachOf(radius), remark: '' };
  },
  // Without grain there is nothing to take.
  rows: ({ grain, radius }, grid, under) => (grain > 0 ? filtered(under, grid, BEYOND * grain, radius) : under.slice()),
});
