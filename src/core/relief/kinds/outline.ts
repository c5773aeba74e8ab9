import { z } from 'zod';
import { choices } from '../../units/fields';
import { deepest, insideDistances } from '../distance';
import { edgeHeight, edges, type Edge } from '../edges';
import { formKind, nowhere } from '../form';

const schema = z.object({
  edge: z.enum(Object.keys(edges) as [Edge, ...Edge[]]),
  /** Of a bevel, degrees from the level; below zero it sinks. */
  angle: z.number().min(-89).max(89),
  /** How far in from the outline the edge goes, mm; null: to the middle of the widest place. */
  over: z.number().min(0.01).max(1000).nullable(),
  top: z.enum(['natural', 'capped', 'fitted']),
  /** Where it is capped, fitted or flat, mm. */
  height: z.number().min(0).max(300),
});
type OfOutlines = z.infer<typeof schema>;

/** Heights are worked out from `v` alone: a bevel that sinks is one that rises, seen from below. */
const sense = (v: OfOutlines): number => (v.edge === 'bevel' && v.angle < 0 ? -1 : 1);

/** A form that rises from outlines: its edge follows them at the exact distance, so that mitres meet in exact ridges. */
export const outline = formKind({
  id: 'outline',
  name: 'From outlines',
  summary: 'Raises picked lettering or outlines, with a flat, bevelled, rounded or moulded edge.',
  schema,
  ofOutlines: true,
  fields: [
    { kind: 'choice', key: 'edge', label: 'Edge', options: choices(edges) },
    { kind: 'number', key: 'angle', label: 'Angle', unit: '\u00b0', when: (v) => v.edge === 'bevel' },
    {
      kind: 'length',
      key: 'over',
      label: 'Width of the edge',
      optional: 'to the middle',
      when: (v) => v.edge !== 'bevel' && v.edge !== 'flat',
    },
    {
      kind: 'choice',
      key: 'top',
      label: 'Top',
      options: choices({ natural: 'As it comes', capped: 'Capped', fitted: 'Fitted to a height' }),
      when: (v) => v.edge !== 'flat',
    },
    { kind: 'length', key: 'height', label: 'Height', when: (v) => v.edge === 'flat' || v.top !== 'natural' },
  ],
  defaults: { edge: 'bevel', angle: 45, over: null, top: 'natural', height: 2 },
  evaluate(v, c) {
    const { grid, region } = c;
    if (!region.length) return nowhere(grid, 'No closed outline is picked for it. Pick lettering or outlines.');
    const d = insideDistances(region, grid);
    const out = new Float32Array(d.length);
    if (v.edge === 'flat') {
      for (let i = 0; i < d.length; i++) out[i] = d[i] >= 0 ? v.height : NaN;
      return { z: out, remark: '' };
    }
    const middle = v.top === 'fitted' || (v.edge !== 'bevel' && v.over === null) ? deepest(region) : 0;
    const over = v.over ?? middle;
    const slope = Math.tan((Math.abs(v.angle) * Math.PI) / 180);
    const top = v.top === 'fitted' ? edgeHeight(v.edge, middle, slope, over) : 0;
    const scale = sense(v) * (v.top === 'fitted' && top > 0 ? v.height / top : 1);
    const cap = v.top === 'capped' ? v.height : Infinity;
    for (let i = 0; i < d.length; i++)
      out[i] = d[i] >= 0 ? Math.min(cap, edgeHeight(v.edge, d[i], slope, over)) * scale : NaN;
    return { z: out, remark: '' };
  },
});
