import { allPresetValues, type Preset } from '../cutters/cutter';
import { box, circleLoop, starLoop } from '../testing/shapes';
import { normalise } from '../geometry/region';
import { flatField } from '../relief/field';
import { planOn } from '../testing/job';
import { cutKinds, kindOf } from './registry';
import type { CutPlan } from './kind';

/** Work that lets every value of a preset be seen: floors wider than any cutter, walls, levels, a slot that only the finer mill enters. */
const region = normalise([starLoop(5, 15, 10, 20, 20), circleLoop(40, 2, 20, 20), box(4, 36, 25, 39)], 'evenodd');
const blank = { width: 40, height: 42, thickness: 12, material: 'oak' as const };
/** A relief with a groove that only the finer cutters enter. */
const relief = flatField(blank.width, blank.height, 0.5);
for (let i = 0; i < relief.z.length; i++)
  relief.z[i] =
    -1 - 0.5 * Math.cos(((i % relief.cols) * 0.5) / 3) - (Math.abs((i % relief.cols) * 0.5 - 20) < 1.6 ? 1 : 0);
const values: Record<string, Record<string, unknown>> = {
  area: { cutters: ['flat-6', 'flat-2'], wall: 'v-12-60-0', depth: 3 },
  vcarve: { limit: 3, endMills: [] },
  'vcarve with an end mill': { limit: 3, endMills: ['flat-2'] },
  profile: { through: false, depth: 3 },
  line: { depth: 0.5, fill: 'hatch', spacing: 1 },
  drag: { depth: 0.5, fill: 'hatch', spacing: 1 },
  drilling: { places: 'circles', depth: 5, through: false },
  skim: { depth: 2 },
  reliefRough: { cutters: ['flat-6', 'flat-2'] },
  reliefFinish: { cutters: ['ball-6', 'ball-2'], rest: 0.02, where: 'inside' },
  toneLines: { spacing: 2 },
  tooledTexture: {},
  'reliefFinish in layers': { cutters: ['ball-6'], layers: true },
};
const lower: Preset = { rpm: 9000, feed: 700, plunge: 90, stepDown: 0.11, stepOver: 0.35 };
const base: Preset = { rpm: 12000, feed: 1000, plunge: 400, stepDown: 0.4, stepOver: 0.5 };
const moves = (p: CutPlan): string =>
  JSON.stringify(
    p.toolpaths.map((t) => [
      t.cutterId,
      t.rpm,
      t.motion.count,
      ...[t.motion.x, t.motion.y, t.motion.z, t.motion.feed].map((a) => [...a]),
    ]),
  );

test('every kind is looked at', () => {
  expect(cutKinds.map((k) => k.id).filter((id) => !values[id])).toEqual([]);
});

test.each(Object.keys(values))('%s goes by the values of a preset that its form shows, and by no others', (name) => {
  const id = name.split(' ')[0];
  const plan = (preset: (cutterId: string) => Preset) =>
    planOn(id, values[name], region, blank, preset, undefined, relief);
  const { plan: was } = plan(() => base);
  expect(was.toolpaths.length).toBeGreaterThan(0);
  const kind = kindOf(id);
  const full = kind.schema.parse({
    ...(kind.defaults({ ...blank } as never, []) as object),
    ...values[name],
    cutter: was.toolpaths.at(-1)!.cutterId,
  });
  for (const cutterId of new Set(was.toolpaths.map((t) => t.cutterId))) {
    const shown = kind.presets?.(full, cutterId) ?? allPresetValues;
    const seen = allPresetValues.filter(
      (key) => moves(plan((c) => (c === cutterId ? { ...base, [key]: lower[key] } : base)).plan) !== moves(was),
    );
    expect([cutterId, seen]).toEqual([cutterId, shown]);
  }
});
