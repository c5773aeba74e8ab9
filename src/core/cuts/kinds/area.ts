import { z } from 'zod';
import { allPresetValues, coneOf, cuttingLength, formOf, radiusOf } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { shapeOf } from '../../cutters/registry';
import { makeInside } from '../../geometry/inside';
import { insetsOf } from '../../geometry/insets';
import type { Region } from '../../geometry/region';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { choices } from '../../units/fields';
import { clearingTool, clearWith, patterns } from '../clearing/clear';
import { entryKinds } from '../clearing/entry';
import { wallMoves } from '../clearing/walls';
import { finer, type Budget } from '../budget';
import { cutBy, nearBlank, sideDefaults, sideFields, sideSchema, withinBlank, type Side } from '../around';
import { cornered, cornerFields, cornerRemarks, cornerSchema } from '../corners';
import { relievedRegion, reliefField, reliefRemarks, reliefSchema } from '../cornerRelief';
import { alongLines, boxOf, EMPTY, reaching } from '../wanted';
import { cutKind, emptyPlan, travelHeights, passes, ownStep, type CutContext, type Toolpath } from '../kind';

/** On a leaning wall what stands off sideways is a depth. */
const budgetFor = (cone: { readonly tan: number } | null, c: CutContext): Budget =>
  cone ? finer(c.budget, 1 / cone.tan) : c.budget;

/**
 * What is cleared, and how far past the edges of the blank that goes: the widest cutter's axis stands on them there. `near`: so
 * far to its side the cone on a wall cuts, mm.
 */
function clearedBy(
  v: Side & Cleared,
  c: CutContext,
  budget: Budget,
): { readonly region: Region; readonly past: number; readonly near: number; readonly relief: Relief | null } {
  const radius = Math.max(...v.cutters.map((id) => radiusOf(c.cutter(id))));
  const lean = v.wall ? coneOf(c.cutter(v.wall)).tan * Math.max(0, v.depth - v.startDepth) : 0;
  // At its floor, and leaning out as far again above it, the cone on the wall out there does not meet the blank.
  const near = v.wall ? lean + coneOf(c.cutter(v.wall)).tip : 0;
  const past = v.allowance + Math.max(lean + radius, 2 * near) + PAST;
  const outlines = cutBy(v, c.region(budget.flatten), budget.offset, c.blank, past);
  const relief = v.relieved && !v.wall ? reliefsBy(v, c) : null;
  const region = relief ? relievedRegion(outlines, relief.of, budget.flatten) : outlines;
  return { region, past, near, relief: relief && { ...relief, outlines } };
}
/** Corners are relieved by the narrowest cutter. */
function reliefsBy(v: Cleared, c: CutContext) {
  const [narrowest] = v.cutters.map((id) => c.cutter(id)).sort((a, b) => radiusOf(a) - radiusOf(b));
  return { cutter: narrowest, of: { radius: radiusOf(narrowest), outside: false, blank: c.blank } };
}
type Relief = ReturnType<typeof reliefsBy> & { readonly outlines: Region };
type Cleared = Readonly<
  Record<'allowance' | 'depth' | 'startDepth', number> & { cutters: string[]; wall: string | null; relieved: boolean }
>;
/** What is cleared past the edges reaches so much further than it has to, mm. */
const PAST = 0.05;

/** Area clearance with one or several end mills; the wall upright, or leaning as the cone that finishes it. */
export const area = cutKind({
  id: 'area',
  name: 'Area clearance',
  summary: 'Clears the inside of outlines, or what lies round them, to a flat floor.',
  canRide: true,
  schema: z.object({
    cutters: z.array(z.string()).min(1).max(8),
    ...sideSchema,
    startDepth: z.number().min(0).max(500),
    depth: z.number().min(0.001).max(500),
    pattern: z.enum(patterns),
    angle: z.number().min(-360).max(360),
    allowance: z.number().min(0).max(20),
    floorAllowance: z.number().min(0).max(20),
    ...cornerSchema,
    ...reliefSchema,
    entry: z.enum(entryKinds),
    ramp: z.number().min(0.5).max(45),
    direction: z.enum(['climb', 'conventional']),
    /** The cone that gives the wall its lean. */
    wall: z.string().nullable(),
  }),
  fields: [
    {
      kind: 'cutters',
      key: 'cutters',
      label: 'Cutters',
      shapes: ['flat', 'bull'],
      hint: 'The widest goes first; each takes what the wider ones left',
    },
    ...sideFields('Clears'),
    { kind: 'length', key: 'startDepth', label: 'Start depth' },
    { kind: 'length', key: 'depth', label: 'Depth', hint: 'Measured from the top face' },
    {
      kind: 'choice',
      key: 'pattern',
      label: 'Pattern',
      options: choices({ contours: 'Offset', hatch: 'Parallel lines', trochoidal: 'Even engagement' }),
      hint: 'Even engagement (trochoidal) never bites wider than the step-over',
    },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle of the lines',
      unit: '\u00b0',
      when: (v) => v.pattern === 'hatch',
    },
    { kind: 'length', key: 'allowance', label: 'Wall allowance' },
    { kind: 'length', key: 'floorAllowance', label: 'Floor allowance' },
    ...cornerFields,
    reliefField((v) => !v.wall),
    {
      kind: 'choice',
      key: 'entry',
      label: 'Entry',
      options: choices({ helix: 'Helix, else ramp', ramp: 'Ramp', plunge: 'Straight down' }),
    },
    {
      kind: 'number',
      key: 'ramp',
      label: 'Ramp angle',
      unit: '\u00b0',
      when: (v) => v.entry !== 'plunge',
    },
    {
      kind: 'choice',
      key: 'direction',
      label: 'Direction',
      options: choices({ climb: 'Climb', conventional: 'Conventional' }),
    },
    {
      kind: 'cutter',
      key: 'wall',
      label: 'Tapered wall (draft)',
      shapes: ['v', 'cone'],
      optional: 'None, the wall is upright',
    },
  ],
  defaults: (blank, cutters) => ({
    cutters: [nearestCutter(cutters, 'flat', 3)],
    ...sideDefaults,
    startDepth: 0,
    depth: Math.min(2, blank.thickness / 3),
    pattern: 'contours' as const,
    angle: 0,
    allowance: 0,
    floorAllowance: 0,
    corners: 0,
    grow: 0,
    relieved: false,
    entry: 'helix' as const,
    ramp: 3,
    direction: 'climb' as const,
    wall: null,
  }),
  fills: true,
  outlinesOnly: () => true,
  cutters: (v) => [...v.cutters, ...(v.wall ? [v.wall] : [])],
  // The cone goes along the wall, level by level.
  presets: (v, id) => (v.cutters.includes(id) ? allPresetValues : ['rpm', 'feed', 'plunge', 'stepDown']),
  upgrades: {
    // It had one cutter, and a step of its own.
    4: (cut) => {
      const { stepOver, cutter, ...v } = cut.values;
      ownStep(cut, cutter, stepOver);
      cut.values = {
        ...v,
        cutters: [cutter],
        pattern: 'contours',
        angle: 0,
        floorAllowance: 0,
        entry: 'ramp',
        wall: null,
      };
    },
    // It cleared the inside of outlines alone.
    17: (cut) => void (cut.values = { ...sideDefaults, ...cut.values }),
    // Its name was not the trade's.
    10: (cut) => void (cut.values.pattern === 'even' && (cut.values = { ...cut.values, pattern: 'trochoidal' })),
  },
  plan(v, given) {
    const c = cornered(given, v);
    const cone = v.wall ? coneOf(c.cutter(v.wall)) : null;
    const budget = budgetFor(cone, c);
    const { region, past, near, relief } = clearedBy(v, c, budget);
    const remarks = cornerRemarks(given, v);
    if (relief) remarks.push(...reliefRemarks(relief.outlines, relief.of, relief.cutter, budget.flatten));
    const floor = -(v.depth - v.floorAllowance);
    if (floor >= -v.startDepth)
      return emptyPlan([{ level: 'problem', text: 'The depth is not below the start depth.' }]);
    if (!region.length) return emptyPlan(remarks);
    const insets = insetsOf(region);
    const tools = [...new Set(v.cutters)].map((id) => clearingTool(c.cutter(id), c.preset(id)));
    const entry = tools.every((t) => shapeOf(c.cutter(t.id).shape).plunges)
      ? v.entry
      : v.entry === 'plunge'
        ? 'ramp'
        : v.entry;
    if (entry !== v.entry)
      remarks.push({ level: 'note', text: 'A cutter of the list cannot go straight down; it enters by a ramp.' });
    const cleared = clearWith(tools, insets, v.allowance + (cone ? 0.01 : 0), {
      ...travelHeights(c.blank),
      stockTop: -v.startDepth,
      floor,
      ramp: v.ramp,
      entry,
      climb: v.direction === 'climb',
      pattern: v.pattern,
      angle: v.angle,
      draft: cone ? cone.tan : 0,
      budget: c.budget,
      progress: (f) => c.progress(0.9 * f),
    });
    const toolpaths: Toolpath[] = [...cleared.toolpaths];
    if (!toolpaths.length)
      remarks.push({
        level: 'problem',
        text: `${c.cutter(v.cutters[0]).name} is too wide to enter any of the picked outlines. Choose a smaller cutter.`,
      });
    else
      for (const id of cleared.idle)
        remarks.push({
          level: 'note',
          text: `${c.cutter(id).name} finds nothing to do: the others reach everything that it could.`,
        });
    if (v.wall && cone) {
      const cutter = c.cutter(v.wall);
      const high = cuttingLength(cutter);
      if (-floor - v.startDepth > high)
        remarks.push({
          level: 'problem',
          text: `${cutter.name} cuts ${high.toFixed(2)} mm deep at most; the wall is deeper than that.`,
        });
      else {
        const path = wallMoves(insets, cone, v.allowance, {
          near: (loops) => nearBlank(v, loops, 2, c.blank, near),
          safe: c.blank.safeHeight,
          clearance: c.blank.clearance,
          approach: c.blank.approach,
          stockTop: -v.startDepth,
          floor,
          preset: c.preset(v.wall),
          climb: v.direction === 'climb',
          budget,
        });
        if (path) toolpaths.push({ cutterId: v.wall, rpm: c.preset(v.wall).rpm, motion: path });
      }
    }
    c.progress(1);
    const plan = {
      ...{ toolpaths, remarks, reach: cleared.reach, tabs: [], cutsFree: false },
      unreached: { area: cleared.area, region: cleared.left },
    };
    return withinBlank(v, plan, c.blank, past);
  },
  wanted(v, given) {
    const c = cornered(given, v);
    const cone = v.wall ? coneOf(c.cutter(v.wall)) : null;
    const budget = budgetFor(cone, c);
    const { region } = clearedBy(v, c, budget);
    if (!region.length) return EMPTY;
    const tan = cone?.tan ?? 0;
    const [face, floor] = [-v.startDepth, -(v.depth - v.floorAllowance)];
    const inside = makeInside(region);
    const outline = v.allowance > 0 || tan > 0 ? makeSegmentIndex(region) : null;
    const insets = insetsOf(region);
    // Each cutter's axis keeps its radius from the wall; where walls lean, from where they stand at the floor.
    const reach = v.cutters.map((id) =>
      reaching(
        insets.at(v.allowance + tan * (face - floor) + radiusOf(c.cutter(id)), budget.offset),
        formOf(c.cutter(id)),
        floor,
      ),
    );
    // The cone's tip goes round at each pass: corners get as sharp as its passes are close.
    if (v.wall && cone)
      for (const z of passes(face, floor, c.preset(v.wall).stepDown)) {
        const loops = insets.at(v.allowance + cone.tip + tan * (face - z), budget.offset);
        reach.push(
          alongLines(
            loops.map((points) => ({ points, closed: true })),
            formOf(c.cutter(v.wall)),
            z,
          ),
        );
      }
    const surface = (x: number, y: number): number => {
      if (!inside(x, y)) return 0;
      if (!outline) return floor;
      const d = outline.distance(x, y) - v.allowance;
      if (d < 0) return 0;
      return tan > 0 ? Math.max(floor, face - d / tan) : floor;
    };
    return {
      box: boxOf(region, 0),
      surface,
      stays: (x, y) => (inside(x, y) ? Math.max(surface(x, y), Math.min(0, ...reach.map((r) => r(x, y)))) : 0),
    };
  },
  side: (v, _blank, cutter) => {
    const c = v.wall ? cutter(v.wall) : null;
    return {
      start: v.startDepth,
      floor: v.depth - v.floorAllowance,
      draftAngle: c ? (Math.atan(coneOf(c).tan) * 180) / Math.PI : 0,
    };
  },
});
