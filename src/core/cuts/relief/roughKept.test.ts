import { blank, fieldOf, grounds, type Ground } from '../../testing/reliefCuts';
import type { planOn } from '../../testing/job';

/** A relief with a block in its corner that stands so high, mm. */
const withBlock =
  (high: number): Ground =>
  (x, y) =>
    x < 1.5 && y < 1.5 ? Math.max(high, grounds.cosine(x, y)) : grounds.cosine(x, y);

const usual = { cutters: ['flat-2', 'flat-1'], allowance: 0.1, pattern: 'contours', ease: 'gentle' };
const presets = { stepDown: 0.3, stepOver: 0.3, feed: 600 };

/** One after the other; each has most of its levels as one before, or differs from it in one thing. */
const asked: Record<string, { ground?: Ground; values?: object; preset?: object }> = {
  first: {},
  'a higher block': { ground: withBlock(-0.6) },
  'a block that is gone': { ground: grounds.cosine },
  'the first once more': {},
  'its tops cut off': { ground: (x, y) => Math.min(-0.75, withBlock(-0.9)(x, y)) },
  'by another wide one': { values: { cutters: ['flat-3', 'flat-1'] } },
  'a faster feed': { preset: { feed: 900 } },
  'a wider step-over': { preset: { stepOver: 0.4 } },
  'strongly eased': { values: { ease: 'strong' } },
  'not eased': { values: { ease: 'off' } },
  'the other way round': { values: { direction: 'conventional' } },
  'by a ramp': { values: { entry: 'ramp' } },
  'by a steeper ramp': { values: { entry: 'ramp', ramp: 9 } },
  'in rows': { values: { pattern: 'hatch' } },
  'in rows across': { values: { pattern: 'hatch', angle: 90 } },
  'less of it left': { values: { allowance: 0.05 } },
  'from below': { values: { startDepth: 0.2 } },
  'by the finer alone': { values: { cutters: ['flat-1'] } },
};
/** Beginning anew takes a second: those that are most easily mistaken. */
const DOUBTED = [
  'a higher block',
  'its tops cut off',
  'by another wide one',
  'less of it left',
  'a faster feed',
  'the other way round',
];

it('what was worked out before, whatever it was, changes no roughing', async () => {
  const fresh = async () => {
    let plan!: typeof planOn;
    await jest.isolateModulesAsync(async () => void ({ planOn: plan } = await import('../../testing/job')));
    return plan;
  };
  const made = (plan: typeof planOn, { ground = withBlock(-0.9), values = {}, preset = {} }: (typeof asked)[string]) =>
    plan(
      'reliefRough',
      { ...usual, ...values },
      [],
      blank,
      () => ({ ...presets, ...preset }),
      undefined,
      fieldOf(ground),
    ).plan.toolpaths;
  const warm = await fresh();
  const ways = new Set<string>();
  for (const [name, a] of Object.entries(asked)) {
    const got = made(warm, a);
    expect(got.length).toBeGreaterThan(0);
    ways.add(JSON.stringify(got.map((t) => [t.motion.kind, t.motion.x, t.motion.y, t.motion.z, t.motion.feed])));
    if (DOUBTED.includes(name)) expect({ name, got }).toEqual({ name, got: made(await fresh(), a) });
  }
  // Each of them could have been mistaken; one came twice.
  expect(ways.size).toBe(Object.keys(asked).length - 1);
});
