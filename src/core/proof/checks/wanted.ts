import { heightOf } from '../../cutters/form';
import { formOf } from '../../cutters/cutter';
import { nearestShare } from '../../geometry/straight';
import { chordsOf, extentOf } from '../../motion/extent';
import { RAPID } from '../../motion/motion';
import { areaText, lengthText } from '../../units/length';
import type { Check, CheckInput, Finding } from '../check';
import type { Place } from '../places';
import { nameOf } from './worst';

/** From this share on most of the artwork counts as untouched. */
const MOST = 0.6;
/** So many places are told of each cut; their sum tells of the others. */
const PLACES = 12;
/** What adds up to less (mm2) at places that are all lower than this (mm) is told by the reach of the cutters, if at all. */
const LEAST_AREA = 0.05;

/** What is wanted against what the proof shows: material left, material taken, cuts that do nothing. */
export const wanted: Check = {
  id: 'wanted',
  name: 'What is wanted is cut',
  late: true,
  run(input) {
    const { job, plans, compared } = input;
    const out: Finding[] = [];
    const { unit } = job;
    const say = (cutId: string | null, text: string, places: readonly Place[] = []) =>
      out.push({
        check: 'wanted',
        text,
        cutId,
        x: places[0]?.x ?? null,
        y: places[0]?.y ?? null,
        places: places.slice(0, PLACES).map(({ x, y }) => ({ x, y })),
      });
    for (const cut of job.cuts) {
      const plan = plans.get(cut.id);
      // What the planner itself says of a cut that it could not plan is told by another check.
      if (!cut.enabled || !plan || plan.toolpaths.length || plan.remarks.some((r) => r.level === 'problem')) continue;
      say(cut.id, `"${cut.name}" has nothing to cut: its program is empty. Look at what is picked for it.`);
    }
    if (!compared) return out;
    for (const c of compared.cuts) {
      if (!plans.get(c.cutId)?.toolpaths.length) continue;
      const name = nameOf(input, c.cutId);
      const at = (list: readonly Place[]) => `${list.length} ${list.length === 1 ? 'place' : 'places'}`;
      if (c.untouched !== null && c.untouched > MOST)
        say(
          c.cutId,
          `"${name}" moves, but leaves ${Math.round(100 * c.untouched)} % of its artwork untouched. Look at its cutters, its depth and its speeds.`,
          c.left,
        );
      else {
        const sum = c.left.reduce((s, p) => s + p.area, 0);
        const high = Math.max(0, ...c.left.map((p) => p.height));
        if (sum > LEAST_AREA)
          say(
            c.cutId,
            `"${name}" leaves ${areaText(sum, unit)} standing up to ${lengthText(high, unit, unit === 'mm' ? 2 : 3)} too high, at ${at(c.left)}. Look at its cutters and their step-over there.`,
            c.left,
          );
      }
      if (c.idle)
        say(
          c.cutId,
          `"${name}" removes nothing: other cuts before it have taken all that it is to take. Switch it off, or make it deeper.`,
        );
    }
    // What lies too low is told by the cut that went there.
    const byCut = new Map<string | null, Place[]>();
    for (const p of compared.below.slice(0, 200)) {
      const cutId = deepestAt(input, p.x, p.y);
      byCut.set(cutId, [...(byCut.get(cutId) ?? []), p]);
    }
    for (const [cutId, list] of byCut) {
      const sum = list.reduce((s, p) => s + p.area, 0);
      const deep = Math.max(...list.map((p) => p.height));
      const start = Number(job.cuts.find((c) => c.id === cutId)?.values.startDepth ?? 0);
      say(
        cutId,
        `"${nameOf(input, cutId)}" takes ${areaText(sum, unit)} up to ${lengthText(deep, unit, unit === 'mm' ? 2 : 3)} below what is wanted. ${start > 0 ? 'It starts below the face where nothing has been cleared before: clear that first, or lessen its start depth.' : 'Look at the place before you cut.'}`,
        list,
      );
    }
    return out;
  },
};

/** The cut whose cutter goes lowest at a place. */
function deepestAt(input: CheckInput, x: number, y: number): string | null {
  let best: string | null = null;
  let low = Infinity;
  for (const p of input.programs)
    for (const s of p.sections) {
      const cutter = input.tools.get(s.tool);
      if (!cutter) continue;
      const form = formOf(cutter);
      const { all } = extentOf(s.motion);
      const r = form.radius + 1e-6;
      if (x < all.x0 - r || x > all.x1 + r || y < all.y0 - r || y > all.y1 + r) continue;
      const m = chordsOf(s.motion);
      for (let i = 1; i < m.count; i++) {
        if (m.kind[i] === RAPID && m.z[i] >= 0 && m.z[i - 1] >= 0) continue;
        const [ex, ey] = [m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]];
        const f = nearestShare(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], x, y);
        const d = Math.hypot(x - m.x[i - 1] - f * ex, y - m.y[i - 1] - f * ey);
        if (d > r) continue;
        const z =
          Math.min(
            m.z[i - 1] + f * (m.z[i] - m.z[i - 1]),
            ex !== 0 || ey !== 0 ? Infinity : Math.min(m.z[i], m.z[i - 1]),
          ) + heightOf(form, Math.min(d, form.radius));
        if (z < low) {
          low = z;
          best = s.cutId;
        }
      }
    }
  return best;
}
