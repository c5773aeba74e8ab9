import { z } from 'zod';
import { choices } from '../../units/fields';
import { deepest, insideDistances } from '../distance';
import { edgeHeight, edges, type Edge } from '../edges';
import { formKindByRows, type Line } from '../form';
import { drawnProfile } from '../profiles';

const schema = z.object({
  edge: z.enum(Object.keys(edges) as [Edge, ...Edge[]]),
  /** Of a bevel, degrees from the level; below zero it sinks. */
  angle: z.number().min(-89).max(89),
  /** How far the walls of a flat one lean inwards from upright, degrees. */
  draft: z.number().min(0).max(80),
  /** How far in from the outline the edge goes, mm; null: to the middle of the widest place, a drawn one as it was drawn. */
  over: z.number().min(0.01).max(1000).nullable(),
  top: z.enum(['natural', 'capped', 'fitted']),
  /** Where it is capped, fitted or flat, mm. */
  height: z.number().min(0).max(300),
});
type OfOutlines = z.infer<typeof schema>;

/** Heights are worked out from `v` alone: a bevel that sinks is one that rises, seen from below. */
const sense = (v: OfOutlines): number => (v.edge === 'bevel' && v.angle < 0 ? -1 : 1);

/** How high an edge stands at a distance from its outline, and its highest place up to a distance; mm. */
interface EdgeLine {
  readonly at: (d: number) => number;
  readonly highest: (to: number) => number;
}

/** The edge that is asked for; `middle` is how far the innermost place lies from the outline. Null: its profile is not drawn yet. */
function edgeLine(v: OfOutlines, profile: readonly Line[], middle: number): EdgeLine | null {
  if (v.edge === 'drawn') {
    const drawn = drawnProfile(profile);
    if (!drawn) return null;
    const by = (v.over ?? drawn.width) / drawn.width;
    return { at: (d) => drawn.at(d / by), highest: (to) => drawn.highest(to / by) };
  }
  const lean = (v.draft * Math.PI) / 180;
  const over = v.over ?? middle;
  const rises =
    v.edge === 'flat'
      ? (d: number) => (lean > 0 ? Math.min(v.height, d / Math.tan(lean)) : v.height)
      : edgeHeight.bind(null, v.edge);
  const slope = Math.tan((Math.abs(v.angle) * Math.PI) / 180);
  const at = (d: number) => rises(d, slope, over);
  // These rise all the way.
  return { at, highest: at };
}

/** A form that rises from outlines: its edge follows them at the exact distance, so that mitres meet in exact ridges. */
export const outline = formKindByRows({
  id: 'outline',
  name: 'From outlines',
  summary: 'Raises picked lettering or outlines, with a flat, bevelled, rounded, moulded or drawn edge.',
  schema,
  ofOutlines: true,
  fields: [
    { kind: 'choice', key: 'edge', label: 'Edge', options: choices(edges) },
    { kind: 'number', key: 'angle', label: 'Angle', unit: '\u00b0', when: (v) => v.edge === 'bevel' },
    { kind: 'number', key: 'draft', label: 'Draft of its walls', unit: '\u00b0', when: (v) => v.edge === 'flat' },
    {
      kind: 'length',
      key: 'over',
      label: 'Width of the edge',
      optional: 'to the middle',
      when: (v) => v.edge === 'round' || v.edge === 'cove' || v.edge === 'ogee',
    },
    {
      kind: 'length',
      key: 'over',
      label: 'Width of the edge',
      optional: 'as drawn',
      when: (v) => v.edge === 'drawn',
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
  defaults: { edge: 'bevel', angle: 45, draft: 0, over: null, top: 'natural', height: 2 },
  drawn: (v) => v.edge === 'drawn',
  prepare(v, { region, profile }) {
    if (!region.length)
      return { data: null, remark: 'No closed outline is picked for it. Pick lettering or outlines.' };
    const [flat, leans] = [v.edge === 'flat', v.edge === 'flat' && v.draft > 0];
    const whole = v.over === null && v.edge !== 'bevel' && v.edge !== 'drawn';
    const middle = leans || (!flat && (whole || v.top === 'fitted')) ? deepest(region) : 0;
    const edge = edgeLine(v, profile, middle);
    if (!edge)
      return {
        data: null,
        remark: 'No line is picked for its edge. Draw one from the outline (left) inwards, and pick it.',
      };
    const reached = edge.highest(middle);
    const remark =
      leans && reached < v.height - 1e-3
        ? `It reaches ${Number(reached.toFixed(3))} mm, not ${v.height}: its outlines are too narrow for so much draft.`
        : '';
    return { data: { v, region, profile, middle }, remark };
  },
  rows({ v, region, profile, middle }, grid) {
    const edge = edgeLine(v, profile, middle)!;
    const d = insideDistances(region, grid);
    const out = new Float32Array(d.length);
    const shaped = v.edge !== 'flat';
    const top = shaped && v.top === 'fitted' ? edge.highest(middle) : 0;
    const scale = sense(v) * (top > 0 ? v.height / top : 1);
    const cap = shaped && v.top === 'capped' ? v.height : Infinity;
    for (let i = 0; i < d.length; i++) out[i] = d[i] >= 0 ? Math.min(cap, edge.at(d[i])) * scale : NaN;
    return out;
  },
});
