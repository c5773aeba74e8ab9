import { itemRegion, newItem } from '../artwork/item';
import { regionArea } from '../geometry/region';
import { newOneSetup, type OneSetup } from '../job/job';
import { floorsBelow } from '../job/levelFloors';
import {
  depthsOf,
  fieldsFor,
  freshMould,
  whyNoMould,
  withMould,
  type FromRelief,
  type MouldValues,
} from '../job/mould';
import { freshForm } from '../relief/freshForm';
import { outlinesOf } from '../relief/outlined';
import type { HeightField } from '../relief/field';
import { testArt as art } from '../testing/fonts';
import { library } from '../testing/job';
import { castIn } from './casting';
import { planCut } from './planning';
import { writePrograms } from './programs';
import { heldAgainst, placePrograms, prove } from './proving';
import { shapedWhenAsked, shapeRelief } from './shaping';

const cutter = (id: string) => library.find((c) => c.id === id);
const shaping = { art, mesh: () => null, picture: () => null, progress: () => {} };
const COARSE = 0.2;
/** Depths below the top face, and how much deeper the dome is than the floor, mm. */
const [FACE, FLOOR, RIM, DOME] = [0.3, 3.3, 4.1, 1];

/** The relief of a mould for a token: a floor with a rim that goes on from it, and a dome unless it is all level. */
function token(draft: number, dome = true, cell = COARSE): OneSetup {
  const one = newOneSetup('Token');
  one.blank = { ...one.blank, width: 40, height: 36, thickness: 10, material: 'aluminium', intoBed: 0.2 };
  const [x, y] = [20, 18];
  one.items = [
    newItem({ id: 'b', name: 'Token', kind: 'ellipse', x, y, values: { width: 26, height: 26 } }),
    newItem({ id: 'r', name: 'Rim', kind: 'ring', x, y, values: { diameter: 20, band: 3 } }),
    newItem({ id: 'd', name: 'Dome', kind: 'ellipse', x, y, values: { width: 8, height: 6 } }),
  ];
  const flat = (id: string, height: number) =>
    freshForm(`f-${id}`, id, 'outline', { edge: 'flat', draft, height }, { items: [id] });
  const round = { edge: 'round', over: null, top: 'fitted', height: DOME };
  one.relief = {
    ...{ baseDepth: 5 + FACE, cell },
    forms: [
      flat('b', FLOOR - FACE),
      flat('r', RIM - FLOOR),
      ...(dome ? [freshForm('f-d', 'd', 'outline', round, { items: ['d'] })] : []),
      freshForm('f-m', 'Mould', 'turned', { about: 'height', height: 2.5, mirror: 'none' }),
    ],
  };
  one.cutters = library;
  return one;
}
const fieldOf = (one: OneSetup): HeightField => shapeRelief(one, one.relief.cell!, shaping).field;
const found = (one: OneSetup) => outlinesOf(fieldOf(one), { of: 'floors', most: 9 }, { tolerance: 0.01, smallest: 4 });
const fromOf = (one: OneSetup, more: Partial<FromRelief> = {}): FromRelief => ({
  ...{ whole: true, sculpted: true, ...more },
  floors: found(one).map((f) => ({ height: f.height!, area: f.area!, paths: f.paths, below: f.below! })),
});
const usual = (more: Partial<MouldValues> = {}): MouldValues => ({
  ...freshMould([], 'mm', library),
  ...{ mills: ['flat-3', 'flat-1.5'], wall: 'cone-3.175-10-0.1', ...more },
});
function made(one: OneSetup, v: MouldValues, from: FromRelief): OneSetup {
  let n = 0;
  return withMould(one, v, new Map(), library, () => `m${n++}`, from).one;
}
function cast(one: OneSetup) {
  const relief = shapedWhenAsked(one, shaping);
  const plans = new Map(one.cuts.map((c) => [c.id, planCut(one, c, art, () => {}, relief)]));
  const programs = writePrograms(one, plans);
  const proof = prove(one, placePrograms(one, programs), programs.tools, plans, 0.1);
  const said = [...plans.values()].flatMap((p) => p.remarks.filter((r) => r.level === 'problem').map((r) => r.text));
  return {
    cast: castIn(proof, one.casting!),
    said: [...said, ...heldAgainst(proof, art, () => {}, relief).findings.map((f) => f.text)],
  };
}
/** What a relief holds below the face as it is left, mm3. */
const hollow = ({ z, cell }: HeightField): number =>
  z.reduce((s, h) => s + (h === h ? Math.max(0, -FACE - h) : 0), 0) * cell * cell;

describe('a mould of a relief', () => {
  it('finds its level floors, and clears each with walls that lean outwards from its edges', () => {
    const one = token(10);
    const from = fromOf(one);
    expect(floorsBelow(from.floors, FACE).map((f) => f.depth)).toEqual([
      expect.closeTo(FLOOR, 2),
      expect.closeTo(RIM, 2),
    ]);
    const v = usual();
    expect(whyNoMould(one, v, new Map(), cutter, art, from)).toBeNull();
    const mould = made(one, v, from);
    expect(mould.cuts.map((c) => c.kind)).toEqual(['skim', 'area', 'area', 'reliefRough', 'reliefFinish']);
    // Rim and dome lie deeper than the floor, and are cleared down to it with it; what is level is all that the rest leaves out.
    const drawn = new Map(mould.items.filter((i) => i.kind === 'drawing').map((i) => [i.id, i]));
    const named = (ids: readonly string[]) => ids.map((id) => drawn.get(id)!.name).sort();
    expect(mould.cuts.slice(1, 3).map((c) => named(c.items))).toEqual([['Floor, 3.3 mm deep'], ['Floor, 4.1 mm deep']]);
    const areaOf = (id: string) => regionArea(itemRegion(drawn.get(id)!, art, 0.001));
    const foot = 13 - (FLOOR - FACE) * Math.tan(Math.PI / 18);
    expect(areaOf(mould.cuts[1].items[0])).toBeCloseTo(Math.PI * foot ** 2, 0);
    expect(named(mould.cuts[4].items)).toEqual([
      'Floor, 4.1 mm deep',
      'Level part, 3.3 mm deep',
      'Level part, 3.3 mm deep',
    ]);
    expect(mould.cuts[4].values).toMatchObject({ where: 'outside', startDepth: FACE });
    expect(mould.layers.at(-1)!.name).toBe('Level floors');
  });

  it('(long) is cut as it was shaped', () => {
    const one = token(10, true, 0.1);
    const { cast: c, said } = cast(made(one, usual(), fromOf(one)));
    expect(said).toEqual([]);
    const wanted = hollow(fieldOf(one));
    expect(c.volume / wanted).toBeGreaterThan(0.99);
    expect(c.volume / wanted).toBeLessThan(1.01);
    expect(c.casting!.thickness).toBeCloseTo(FLOOR + DOME - FACE, 2);
  });

  it('(long) of upright walls has walls that lean by the cone', () => {
    const one = token(0, false);
    const from = fromOf(one, { sculpted: false });
    const mould = made(one, usual(), from);
    expect(mould.cuts.map((c) => c.kind)).toEqual(['skim', 'area', 'area']);
    const { cast: c, said } = cast(mould);
    expect(said).toEqual([]);
    // Cones of 10 degrees from floors that are as large as they were, within half of how far nodes lie apart.
    const tan = Math.tan((10 * Math.PI) / 180);
    const cone = (r: number, h: number) => (Math.PI * h * (r * r + r * (r + h * tan) + (r + h * tan) ** 2)) / 3;
    const [high, rim] = [FLOOR - FACE, RIM - FLOOR];
    const ring = cone(10, rim) - (Math.PI * rim * (49 + 7 * (7 - rim * tan) + (7 - rim * tan) ** 2)) / 3;
    const off = COARSE / 2 / 13;
    expect(c.volume / (cone(13, high) + ring)).toBeGreaterThan(1 - 3 * off);
    expect(c.volume / (cone(13, high) + ring)).toBeLessThan(1 + 3 * off);
    expect(c.troubles.map((t) => t.text).filter((t) => /leans by less/.test(t))).toEqual([]);
  });

  it('is larger by what the casting shrinks, and clears below the floor of picked outlines only what lies deeper', () => {
    const one = token(10);
    const from = fromOf(one);
    const v = usual({ larger: true, material: 'castAluminium' });
    const times = 1 / (1 - 0.013);
    expect(depthsOf(one, v, from)).toEqual([expect.closeTo(FLOOR * times, 2), expect.closeTo(RIM * times, 2)]);
    // Of a relief that is as much larger already they are as they were found.
    const large = { ...one, relief: { ...one.relief, shrinks: 1.3 } };
    expect(depthsOf(large, v, from)).toEqual([expect.closeTo(FLOOR, 2), expect.closeTo(RIM, 2)]);
    const width = (o: OneSetup) => {
      const xs = (o.items.find((i) => /4\.1/.test(i.name))!.values as { paths: { segments: { x: number }[] }[] }).paths;
      const all = xs.flatMap((p) => p.segments.map((s) => s.x));
      return Math.max(...all) - Math.min(...all);
    };
    const [plain, larger] = [made(one, usual(), from), made(one, v, from)];
    expect(width(larger) / width(plain)).toBeCloseTo(times, 6);
    expect(depthsOf(one, usual({ depth: 3.2 }), { ...from, whole: false })).toEqual([expect.closeTo(RIM, 2)]);
  });

  it('is not made of what cannot be one, with a way on; what it has no part for is not asked', () => {
    const one = token(10);
    const from = fromOf(one);
    const why = (v: Partial<MouldValues>, f: Partial<FromRelief> = {}, o = one) =>
      whyNoMould(o, usual(v), new Map(), cutter, art, { ...from, ...f });
    expect(why({}, {}, { ...one, relief: { ...one.relief, forms: [] } })).toMatch(/Shape one in the Relief stage/);
    expect(why({}, { floors: [], sculpted: false })).toMatch(/Nothing of the relief is to be cut/);
    expect(why({ mills: [] })).toMatch(/Choose an end mill/);
    expect(why({ ball: '' })).toMatch(/Choose a ball/);
    expect(why({ ball: '' }, { sculpted: false })).toBeNull();
    expect(why({ wall: '' })).toMatch(/Choose a cone/);
    expect(why({ wall: '' }, { floors: [] })).toBeNull();
    const thin = { ...one, blank: { ...one.blank, thickness: 4 } };
    expect(why({}, {}, thin)).toMatch(/Nothing would be left under the mould.*4\.1 mm deep/);
    const far = { ...one, blank: { ...one.blank, thickness: 90 } };
    const deep = from.floors.map((f) => ({ ...f, height: 20 * f.height }));
    expect(why({}, { floors: deep }, far)).toMatch(/deep at most, and a floor lies/);
    const asked = (f: Partial<FromRelief>) => fieldsFor(new Map(), { ...from, ...f }).map((q) => q.key);
    expect(asked({})).toEqual(['material', 'skim', 'wall', 'ball', 'mills', 'larger']);
    expect(asked({ floors: [], sculpted: false })).toEqual(['material', 'skim', 'mills', 'larger']);
  });
});
