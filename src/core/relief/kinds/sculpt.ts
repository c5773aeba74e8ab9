import { z } from 'zod';
import { formKind } from '../form';
import { brushStrokeSchema, MOST_STROKES, dabsOf, layDabs, type BrushStroke } from '../sculpt';

const schema = z.object({ strokes: z.array(brushStrokeSchema).max(MOST_STROKES) });

/** What was made: a stroke that goes on, or one more, is laid on it instead of all of them anew. */
interface Made {
  readonly under: Float32Array;
  readonly cols: number;
  readonly cell: number;
  readonly strokes: readonly BrushStroke[];
  readonly dabs: Float64Array;
  readonly z: Float32Array;
  readonly met: boolean;
}
/** The latest first: a first look and the fine one come in turn. */
let kept: readonly Made[] = [];
const KEPT = 2;
/** More nodes than so many are laid anew: their heights would fill the memory. */
const MOST_KEPT = 8e6;

const same = (a: Float32Array, b: Float32Array): boolean => {
  if (a.length !== b.length) return false;
  // What is empty is not equal to itself.
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i] && (a[i] === a[i] || b[i] === b[i])) return false;
  return true;
};
/** Whether each dab of `a` is a dab of `b` at the same place in their row, of a stroke with the same brush. */
function goesOn(a: Made, strokes: readonly BrushStroke[], dabs: Float64Array): boolean {
  if (a.dabs.length > dabs.length || a.strokes.length > strokes.length) return false;
  for (let i = 0; i < a.dabs.length; i++) if (a.dabs[i] !== dabs[i]) return false;
  return a.strokes.every((s, k) => brushOf(s) === brushOf(strokes[k]));
}
const brushOf = ({ tool, radius, height, share, soft, level, mirror }: BrushStroke): string =>
  [tool, radius, height, share, soft, level, mirror].join(' ');

/** Strokes of a brush over all that lies under it: they can be weakened, masked and left out like any form. */
export const sculpt = formKind({
  id: 'sculpt',
  name: 'Sculpting',
  summary: 'A round brush that raises, lowers, smooths, flattens or pulls to a height what lies under it.',
  schema,
  adjusts: true,
  brushed: true,
  fields: [],
  defaults: { strokes: [] },
  higher: (v, by) => ({
    strokes: v.strokes.map((s) => ({ ...s, height: Math.min(100, s.height * by), level: s.level * by })),
  }),
  evaluate({ strokes }, { grid: g, under }) {
    const dabs = dabsOf(strokes);
    const on = kept.find(
      (m) => m.cols === g.cols && m.cell === g.cell && goesOn(m, strokes, dabs) && same(m.under, under),
    );
    const z = (on?.z ?? under).slice();
    const met = layDabs(z, g, strokes, dabs, (on?.dabs.length ?? 0) / 4) || !!on?.met;
    if (z.length <= MOST_KEPT) {
      const made = { under: on?.under ?? under.slice(), cols: g.cols, cell: g.cell, strokes, dabs, z: z.slice(), met };
      kept = [made, ...kept.filter((m) => m !== on)].slice(0, KEPT);
    }
    return {
      z,
      remark:
        dabs.length && !met
          ? 'Its strokes met nothing: the relief is empty there. Put a ground or another form under it.'
          : '',
    };
  },
});
