import { sideDefaults } from '../cuts/around';
import { newItem } from '../artwork/item';
import type { CastingValues } from '../job/job';
import { newOneSetup, type OneSetup } from '../job/job';
import { cutOut, readMoves, testCone, testFlat } from '../testing/independent';
import { testArt as art } from '../testing/fonts';
import { cutterOf } from '../testing/job';
import { seeded } from '../testing/seeded';
import { castIn } from './casting';
import { planCut } from './planning';
import { writePrograms } from './programs';
import { placePrograms, prove } from './proving';

const usual: CastingValues = { material: 'castTin', below: null, shrinks: 0, draft: 3 };
const [DEEP, DRAFT] = [4, 10];
const CONE = 'cone-3.175-10-0.1';

/** A mould with walls finished by a cone, or, where that is null, as an end mill leaves them. */
function mould(
  kind: 'ellipse' | 'rectangle',
  size: Record<string, unknown>,
  wall: string | null = CONE,
  depth = DEEP,
): OneSetup {
  const one = newOneSetup('Mould');
  one.blank = { ...one.blank, width: 50, height: 40, thickness: 8, material: 'aluminium', intoBed: 0.2 };
  one.items = [newItem({ id: 'i', name: 'Token', kind, x: 24.3, y: 19.1, values: size })];
  one.cutters = ['flat-3', CONE].map(cutterOf);
  one.cuts = [
    {
      ...{ id: 'c', name: 'Floor', kind: 'area', enabled: true, items: ['i'], overrides: {} },
      values: {
        ...{ cutters: ['flat-3'], startDepth: 0, depth, wall, ...sideDefaults },
        ...{ pattern: 'contours', angle: 0, allowance: 0, floorAllowance: 0 },
        ...{ entry: 'helix', ramp: 3, direction: 'climb' },
      },
    },
  ];
  return one;
}
const circle = { width: 26, height: 26 };

function proven(one: OneSetup) {
  const plans = new Map(one.cuts.map((c) => [c.id, planCut(one, c, art)]));
  const programs = writePrograms(one, plans);
  return { programs, proof: prove(one, placePrograms(one, programs), programs.tools, plans, 0.05) };
}
const text = (chunks: readonly (string | Uint8Array)[]) =>
  chunks.map((c) => (typeof c === 'string' ? c : new TextDecoder().decode(c))).join('');

describe('a mould with leaning walls', () => {
  it('has them within a tenth of a degree, and its floor within a hundredth of a millimetre', () => {
    const r = 13;
    const { programs } = proven(mould('ellipse', circle));
    const moves = programs.files.flatMap((f) => readMoves(text(f.chunks)));
    const random = seeded(3);
    // Rays from the middle, each with places down the wall and on the floor, in order of X for the machine of the tests.
    const tan = Math.tan((DRAFT * Math.PI) / 180);
    const foot = r - DEEP * tan;
    const rays = Array.from({ length: 60 }, () => {
      const a = random() * 2 * Math.PI;
      const at = (rho: number) => ({ a, rho, x: 24.3 + rho * Math.cos(a), y: 19.1 + rho * Math.sin(a) });
      const wall = Array.from({ length: 12 }, (_, k) => at(foot + (r - foot) * (0.15 + (0.7 * k) / 11)));
      return [...wall, ...Array.from({ length: 20 }, () => at((foot - 0.12) * Math.sqrt(random())))];
    });
    const places = rays.flat().sort((a, b) => a.x - b.x);
    const cloud = {
      x: Float64Array.from(places, (p) => p.x),
      y: Float64Array.from(places, (p) => p.y),
      z: new Float64Array(places.length),
    };
    cutOut(cloud, moves, { 1: testFlat(3), 2: testCone(2 * DRAFT, 0.1, 3.175) });
    const z = new Map(places.map((p, i) => [p, cloud.z[i]]));
    for (const ray of rays) {
      const wall = ray.slice(0, 12);
      // The line that fits the wall best, by least squares: how far across for each mm down.
      const mz = wall.reduce((s, p) => s + z.get(p)!, 0) / 12;
      const mr = wall.reduce((s, p) => s + p.rho, 0) / 12;
      const across = wall.reduce((s, p) => s + (z.get(p)! - mz) * (p.rho - mr), 0);
      const square = wall.reduce((s, p) => s + (z.get(p)! - mz) ** 2, 0);
      expect(Math.abs((Math.atan(across / square) * 180) / Math.PI - DRAFT)).toBeLessThan(0.1);
      for (const p of ray.slice(12)) expect(Math.abs(z.get(p)! + DEEP)).toBeLessThan(0.01);
    }
  });

  it('holds what the closed form says, within a thousandth, and weighs it', () => {
    const { proof } = proven(mould('ellipse', circle));
    const cast = castIn(proof, usual);
    // A cone without its tip: all round, and level at the bottom.
    const [r, foot] = [13, 13 - DEEP * Math.tan((DRAFT * Math.PI) / 180)];
    const want = (Math.PI * DEEP * (r * r + r * foot + foot * foot)) / 3;
    expect(Math.abs(cast.volume / want - 1)).toBeLessThan(1e-3);
    expect(cast.mass).toBeCloseTo((cast.volume / 1000) * 7.3, 9);
    expect(cast.troubles).toEqual([]);
    expect(cast.casting!.thickness).toBeCloseTo(DEEP, 3);
    for (const mm of cast.casting!.size) expect(Math.abs(mm - 26)).toBeLessThan(0.1);
    expect(castIn(proof, { ...usual, shrinks: 2 }).cold).toBe(0.98);
  });
});

describe('what keeps a casting from coming out is told, with its place', () => {
  const told = (one: OneSetup, v: Partial<CastingValues> = {}) =>
    castIn(proven(one).proof, { ...usual, ...v }).troubles;
  it('upright walls, and those that lean by less than is asked', () => {
    const [held] = told(mould('rectangle', { width: 20, height: 12, radius: 0, corner: 'square' }, null));
    expect(held.text).toMatch(/leans by less than 3/);
    // On a wall.
    const away = Math.min(Math.abs(Math.abs(held.at!.x - 24.3) - 10), Math.abs(Math.abs(held.at!.y - 19.1) - 6));
    expect(away).toBeLessThan(0.1);
    expect(told(mould('ellipse', circle), { draft: 12 })[0].text).toMatch(/leans by less than 12/);
    expect(told(mould('ellipse', circle), { draft: 9 })).toEqual([]);
  });
  it('a floor that is cut through', () => {
    const [hole] = told(mould('ellipse', circle, null, 8.1), { draft: 0 });
    expect(hole.text).toMatch(/cut through/);
    expect(Math.hypot(hole.at!.x - 24.3, hole.at!.y - 19.1)).toBeLessThan(13.1);
  });
  it('but for holes that are drilled beside it, through which bolts go: none of them is cast', () => {
    const one = mould('ellipse', circle);
    one.items = [
      ...one.items,
      newItem({ id: 'h', name: 'Bolt', kind: 'ellipse', x: 44, y: 34, values: { width: 3, height: 3 } }),
    ];
    one.cutters = [...one.cutters, cutterOf('drill-3-118')];
    one.cuts = [
      ...one.cuts,
      {
        ...{ id: 'b', name: 'Bolt hole', kind: 'drilling', enabled: true, items: ['h'], overrides: {} },
        values: {
          cutter: 'drill-3-118',
          places: 'circles',
          through: true,
          depth: 3,
          beyond: 0.1,
          peck: null,
          dwell: 0,
        },
      },
    ];
    const cast = castIn(proven(one).proof, usual);
    expect([cast.troubles, cast.unfilled]).toEqual([[], 1]);
    const [r, foot] = [13, 13 - DEEP * Math.tan((DRAFT * Math.PI) / 180)];
    expect(Math.abs(cast.volume / ((Math.PI * DEEP * (r * r + r * foot + foot * foot)) / 3) - 1)).toBeLessThan(1e-3);
    for (const mm of cast.casting!.size) expect(Math.abs(mm - 26)).toBeLessThan(0.1);
  });
  it('(long) a mould that is filled over its rim, and one that holds nothing', () => {
    const skimmed = mould('ellipse', circle);
    skimmed.cutters = [...skimmed.cutters, cutterOf('flat-8')];
    skimmed.cuts = [
      {
        ...{ id: 's', name: 'Skim', kind: 'skim', enabled: true, items: [], overrides: {} },
        values: { cutter: 'flat-8', where: 'blank', depth: 0.3, angle: 0, overlap: 1 },
      },
      ...skimmed.cuts,
    ];
    expect(told(skimmed)).toEqual([]);
    expect(told(skimmed, { below: 0 })[0].text).toMatch(/filled 0\.3 mm higher/);
    expect(told(skimmed, { below: 6 })[0].text).toMatch(/nothing to cast/);
  });
});
