import { newItem, placeItem } from '../artwork/item';
import { newOneSetup, type OneSetup } from '../job/job';
import {
  fieldsFor,
  freshMould,
  guessParts,
  mouldFields,
  whyNoMould,
  withMould,
  type MouldValues,
  type Part,
} from '../job/mould';
import { jobOf, oneSetup } from '../job/oneSetup';
import { readJob } from '../job/migrate';
import { testArt as art } from '../testing/fonts';
import { library } from '../testing/job';
import { castIn, type Cast } from './casting';
import { planCut } from './planning';
import { writePrograms } from './programs';
import { heldAgainst, placePrograms, prove } from './proving';

const cutter = (id: string) => library.find((c) => c.id === id);
/** A round token with a ring and a word on it, and a gate that leads out. */
function token(): OneSetup {
  const one = newOneSetup('Token');
  one.blank = { ...one.blank, width: 60, height: 50, thickness: 10, material: 'aluminium', intoBed: 0.2 };
  const [x, y] = [30, 25];
  const text = { kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 };
  one.items = [
    newItem({ id: 'b', name: 'Token', kind: 'ellipse', x, y, values: { width: 32, height: 32 } }),
    newItem({ id: 'r', name: 'Rim', kind: 'ring', x, y, values: { diameter: 26, band: 3 } }),
    newItem({
      ...{ id: 'w', name: 'QUAY', kind: 'lettering', x: x + 1, y },
      values: { ...text, text: 'QUAY', tracking: 30, font: 'archivo', capHeight: 4 },
    }),
    newItem({
      ...{ id: 'g', name: 'Gate', kind: 'drawing', x: 0, y: 0 },
      values: { paths: [{ x: 44, y: 25, closed: false, segments: [{ k: 'line', x: 58, y: 25 }] }], fill: 'nonzero' },
    }),
  ];
  return one;
}
const usual = (more: Partial<MouldValues> = {}): MouldValues => ({ ...freshMould([], 'mm', library), ...more });

function made(v: MouldValues, parts?: Map<string, Part>): OneSetup {
  const one = token();
  const { one: with_ } = withMould(one, v, parts ?? guessParts(one, one.items, art), library, ids());
  return { ...with_, cutters: library };
}
const ids = () => {
  let n = 0;
  return () => `m${n++}`;
};
function cast(one: OneSetup): { cast: Cast; problems: string[] } {
  const plans = new Map(one.cuts.map((c) => [c.id, planCut(one, c, art)]));
  const programs = writePrograms(one, plans);
  const proof = prove(one, placePrograms(one, programs), programs.tools, plans, 0.2);
  const problems = [...heldAgainst(proof, art).findings.map((f) => f.text)];
  return { cast: castIn(proof, one.casting!), problems };
}

describe('a mould of what is picked', () => {
  it('is guessed: the outermost outline is cast, what it holds stands on it, lines lead into it', () => {
    const one = token();
    expect(Object.fromEntries(guessParts(one, one.items, art))).toEqual({
      b: 'body',
      r: 'raised',
      w: 'words',
      g: 'channel',
    });
    // What no part asks for is not asked.
    const asked = (parts: Map<string, Part>) => fieldsFor(parts).map((f) => f.key);
    expect(asked(new Map([['b', 'body']]))).toEqual(
      expect.not.arrayContaining(['raised', 'words', 'bit', 'channel', 'ball']),
    );
    expect(asked(guessParts(one, one.items, art))).toEqual(mouldFields.map((f) => f.key));
    const sculpted = { ...one, relief: { ...one.relief, forms: [{ visible: true, kind: 'outline', items: ['r'] }] } };
    expect(guessParts(sculpted as never, one.items, art).get('r')).toBe('sculpted');
  });

  it('is a set of ordinary cuts that hold what is to be cast, mirrored', () => {
    const v = usual();
    const one = made(v);
    expect(one.cuts.map((c) => c.kind)).toEqual(['skim', 'area', 'area', 'vcarve', 'line']);
    const job = jobOf({ ...one, cutters: library });
    expect(oneSetup(readJob(JSON.parse(JSON.stringify(job)))).cuts).toEqual(one.cuts);
    // Mirrored about the middle of the blank.
    expect(one.items.find((i) => i.id === 'w')).toMatchObject({ x: 60 - 31, mirror: true });
    const gate = placeItem(
      one.items.find((i) => i.id === 'g')!,
      art,
    ).paths[0];
    expect(gate.x).toBeCloseTo(60 - 44, 6);
    const { cast: c, problems } = cast(one);
    expect(problems).toEqual([]);
    expect(c.casting!.through).toBeNull();
    expect(c.casting!.thickness).toBeCloseTo(v.depth + v.raised, 2);
    // A cone without its tip, a ring with leaning walls on it, and a little for words and gate.
    const tan = Math.tan((10 * Math.PI) / 180);
    const cone = (r: number, h: number) => (Math.PI * h * (r * r + r * (r - h * tan) + (r - h * tan) ** 2)) / 3;
    const least =
      cone(16, v.depth) + cone(13, v.raised) - (Math.PI * 100 * v.raised + 2 * Math.PI * 10 * v.raised ** 2 * tan);
    expect(c.volume).toBeGreaterThan(0.99 * least);
    expect(c.volume).toBeLessThan(1.06 * least);
    expect(c.troubles.map((t) => t.text).filter((t) => !/leans by less/.test(t))).toEqual([]);
  });

  it('is larger by what the casting shrinks, where that is asked for', () => {
    const plain = made(usual({ material: 'castAluminium' }));
    const large = made(usual({ material: 'castAluminium', larger: true }));
    const times = 1 / (1 - 0.013);
    const [a, b] = [plain, large].map((o) => o.items.find((i) => i.id === 'b')!.values as { width: number });
    expect(b.width / a.width).toBeCloseTo(times, 9);
    expect(large.relief.shrinks).toBe(1.3);
    const floor = (o: OneSetup) => o.cuts[1].values as { depth: number; startDepth: number };
    expect((floor(large).depth - 0.3) / (floor(plain).depth - 0.3)).toBeCloseTo(times, 9);
    expect(large.casting!.shrinks).toBe(1.3);
  });

  it('is not made of what cannot be one, with a way on', () => {
    const one = token();
    const parts = guessParts(one, one.items, art);
    const why = (v: Partial<MouldValues>, p = parts, o = one) => whyNoMould(o, usual(v), p, cutter, art);
    expect(why({})).toBeNull();
    expect(why({}, new Map([['b', 'raised']]))).toMatch(/No picked thing is the outline/);
    expect(why({ wall: '' })).toMatch(/Choose a cone/);
    expect(why({ bit: '' })).toMatch(/for the lettering/);
    expect(why({ ball: '' })).toMatch(/Choose a ball/);
    expect(why({ mills: [] })).toMatch(/Choose an end mill/);
    expect(why({ depth: 9.5 })).toMatch(/Nothing would be left under the mould/);
    expect(why({}, new Map([...parts, ['r', 'sculpted']]))).toMatch(/no relief to sculpt from/);
    expect(why({ depth: 1, channel: 9.8 })).toMatch(/Nothing would be left/);
    const off = { ...one, items: one.items.map((i) => (i.id === 'w' ? { ...i, x: 50 } : i)) };
    expect(why({}, parts, off)).toMatch(/"QUAY" lies beyond the outline of the casting/);
    const thick = { ...one, blank: { ...one.blank, thickness: 90 } };
    expect(why({ depth: 60 }, parts, thick)).toMatch(/deep at most, and the wall is 60 mm high/);
  });

  it.each(['mm', 'in'] as const)('begins with cutters of the unit, in %s', (unit) => {
    const v = freshMould([], unit, library);
    for (const id of [...v.mills, v.bit]) expect(cutter(id)!.unit).toBe(unit);
    expect(whyNoMould(token(), v, guessParts(token(), token().items, art), cutter, art)).toBeNull();
    expect(freshMould([{ kind: 'lettering', mirror: true }] as never, unit, library).mirror).toBe(false);
  });
});
