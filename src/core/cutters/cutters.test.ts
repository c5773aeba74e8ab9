import fc from 'fast-check';
import { real } from '../testing/real';
import { coneOf, cutterLabel, cutterSchema, cuttingLength, profileOf, radiusOf } from './cutter';
import {
  cuttersIn,
  finerThan,
  hasLabel,
  nearestCutter,
  newCutter,
  presetFor,
  reshaped,
  shippedLibrary,
  stepShareOf,
} from './library';
import { materialIds, materials } from './materials';
import { roundInches } from '../units/round';
import { cutterShapes, shapeOf } from './registry';

const library = shippedLibrary();

describe('the shipped library', () => {
  it('holds what the trade expects, every cutter valid and with its own id', () => {
    for (const c of library) expect(cutterSchema.safeParse(c).error?.issues ?? []).toEqual([]);
    expect(new Set(library.map((c) => c.id)).size).toBe(library.length);
    const flats = library.filter((c) => c.shape === 'flat').map((c) => c.values.diameter);
    expect([Math.min(...flats), Math.max(...flats)]).toEqual([1, 12.7]);
    // In both units that cutters are sold in.
    for (const s of ['flat', 'v', 'ball', 'drill'])
      expect(
        cuttersIn(library, 'in')
          .filter((c) => c.shape === s)
          .every((c) => c.unit === 'in'),
      ).toBe(true);
    expect(cuttersIn(library, 'in').some((c) => c.shape === 'drag')).toBe(true);
    expect(library.find((c) => c.id === nearestCutter(cuttersIn(library, 'in'), 'flat', 3))!.values.diameter).toBe(
      3.175,
    );
    expect(library.find((c) => c.id === nearestCutter(library, 'v', 12, 60))!.values).toMatchObject({
      diameter: 12,
      includedAngle: 60,
    });
    expect(nearestCutter([], 'flat', 3)).toBe('');
    expect(new Set(library.filter((c) => c.shape === 'v').map((c) => c.values.includedAngle))).toEqual(
      new Set([30, 60, 90, 120]),
    );
    for (const s of ['ball', 'cone', 'taperedBall', 'drag', 'drill'])
      expect(library.some((c) => c.shape === s)).toBe(true);
  });

  it('has a preset for every material, from surface speed and chip load', () => {
    for (const c of library) expect(Object.keys(c.presets).sort()).toEqual([...materialIds].sort());
    // 6 mm, two teeth, brass: 120 m/min is 6366 rpm; the chip is 0.5 % of the diameter.
    const p = presetFor('flat', { diameter: 6 }, 2, 'brass');
    expect(p.rpm).toBe(6400);
    expect(p.feed).toBeCloseTo(6400 * 2 * 0.005 * 6, -1);
    expect(p.stepDown).toBeCloseTo(6 * materials.brass.stepDown, 6);
    expect(presetFor('drag', { diameter: 3, includedAngle: 90, tipRadius: 0 }, 1, 'oak').rpm).toBe(0);
  });

  it('never gives a fine tip the speeds of the thick cutter above it', () => {
    for (const m of materialIds) {
      const fine = presetFor('taperedBall', { diameter: 6, tipRadius: 0.25, halfAngle: 5 }, 2, m);
      const mill = presetFor('flat', { diameter: 6 }, 2, m);
      expect(fine.stepDown).toBeLessThan(0.5 * mill.stepDown);
      expect(fine.stepOver).toBeLessThanOrEqual(0.25);
      expect(fine.feed / (fine.rpm * 2)).toBeLessThan(0.5 * (mill.feed / (mill.rpm * 2)));
      // The ridges of a pointed cutter's own step-over.
      for (const c of library.filter((q) => ['v', 'cone', 'taperedBall'].includes(q.shape)))
        expect(profileOf(c)(c.presets[m]!.stepOver / 2)).toBeLessThanOrEqual(0.05 + 1e-9);
    }
  });
  it('works presets out anew when values or the shape change, and keeps what the maker entered', () => {
    const c = library.find((q) => q.id === 'flat-6')!;
    const entered = { ...c, presets: { ...c.presets, oak: { ...c.presets.oak!, feed: 777 } } };
    const thin = reshaped(entered, 'flat', { diameter: 1 });
    expect(thin.presets.oak!.feed).toBe(777);
    expect(thin.presets.brass).toEqual(presetFor('flat', { diameter: 1 }, 2, 'brass'));
    expect(reshaped(entered, 'taperedBall', { diameter: 6, tipRadius: 0.25, halfAngle: 5 }).presets.oak).toEqual(
      presetFor('taperedBall', { diameter: 6, tipRadius: 0.25, halfAngle: 5 }, 2, 'oak'),
    );
  });
  it('tells how high the edges reach: a cone no higher than itself', () => {
    const v = library.find((c) => c.id === 'v-12-60-0')!;
    expect(cuttingLength({ ...v, fluteLength: 99 })).toBeCloseTo(6 / Math.tan(Math.PI / 6), 9);
    expect(coneOf(library.find((c) => c.shape === 'cone')!).tip).toBeGreaterThan(0);
  });
});

describe.each(cutterShapes.map((s) => [s.id, s] as const))('the shape %s', (id, shape) => {
  const values = shape.defaults as Record<string, number>;
  it('rises from its lowest point, and its width at a height undoes its profile', () => {
    fc.assert(
      fc.property(real(0.02, 0.98), (f) => {
        const rho = f * shape.radius(values);
        const h = shape.profile(values, rho);
        expect(h).toBeGreaterThanOrEqual(shape.profile(values, rho * 0.5));
        if (h > 1e-6) expect(shape.radiusAt(values, h)).toBeCloseTo(rho, 6);
        // Convex: the middle of a chord lies above.
        expect(shape.profile(values, rho / 2)).toBeLessThanOrEqual((shape.profile(values, 0) + h) / 2 + 1e-9);
      }),
    );
    expect(shape.profile(values, shape.radius(values) * 1.001)).toBe(Infinity);
  });
  it('refuses values that cannot be', () => {
    expect(shape.schema.safeParse({ ...values, diameter: -1 }).success).toBe(false);
    expect(shape.schema.safeParse({ ...values, diameter: NaN }).success).toBe(false);
    expect(shape.problem(values)).toBeNull();
    const c = { ...library[0], shape: id, values };
    expect(profileOf(c)(0)).toBeGreaterThanOrEqual(0);
    expect(radiusOf(c)).toBeGreaterThan(0);
    expect(shapeOf(id).setup(values).shape).toBeTruthy();
  });
});

test('a new cutter is named by its shape and size, lies where its kind lies, and has a preset for every material', () => {
  for (const { id: shape } of cutterShapes) {
    const c = newCutter(shape, 'mm', library, 'fresh');
    // Its label, and a number where the library has one that is called so.
    expect(c.name).toBe(
      library.some((q) => q.name === cutterLabel(c, 'mm')) ? `${cutterLabel(c, 'mm')}, 2` : cutterLabel(c, 'mm'),
    );
    expect(hasLabel(c)).toBe(true);
    expect(hasLabel({ ...c, name: 'Mine' })).toBe(false);
    expect(newCutter(shape, 'mm', [...library, c], 'next').name).not.toBe(c.name);
    const inch = newCutter(shape, 'in', library, 'fresh');
    expect(cutterSchema.safeParse(inch).success).toBe(true);
    expect(roundInches(inch.values.diameter)).toBeCloseTo(inch.values.diameter, 9);
    // Pointed ones have edges as long as their cone is.
    if (shape === 'v')
      expect(cuttingLength(c)).toBeCloseTo(
        c.values.diameter / 2 / Math.tan((c.values.includedAngle * Math.PI) / 360),
        1,
      );
    expect(c.id).toBe('fresh');
    const kin = library.filter((q) => q.shape === shape);
    if (kin.length) expect(kin.map((q) => q.group)).toContain(c.group);
    expect(c.presets.brass).toEqual(presetFor(shape, c.values, c.teeth, 'brass'));
    expect(cutterSchema.safeParse(c).success).toBe(true);
  }
});

test('a step-over in per cent is one of the tip where there is one', () => {
  const of = (shape: string, values: Record<string, number>) =>
    stepShareOf({ ...newCutter(shape, 'mm', [], 'x'), values });
  expect(of('flat', { diameter: 6 })).toEqual({ mm: 6, of: 'cutter' });
  expect(of('taperedBall', { diameter: 6, tipRadius: 0.25, halfAngle: 5 })).toEqual({ mm: 0.5, of: 'tip' });
  expect(of('v', { diameter: 12, includedAngle: 60, tipDiameter: 0 })).toEqual({ mm: 12, of: 'cutter' });
  expect(of('cone', { diameter: 3.175, halfAngle: 20, tipDiameter: 0.1 })).toEqual({ mm: 0.1, of: 'tip' });
});

describe('the cutter that goes on where another is too wide', () => {
  const ball = (diameter: number, fluteLength = 5, id = `b${diameter}`) => ({
    ...{ ...newCutter('ball', 'mm', [], id), fluteLength },
    values: { diameter },
  });
  const tapered = (tipRadius: number, fluteLength: number) => ({
    ...{ ...newCutter('taperedBall', 'mm', [], `t${tipRadius}`), fluteLength },
    values: { diameter: 6, tipRadius, halfAngle: 5 },
  });
  it('is the widest that is clearly finer than the finest, else the finest there is; of two alike the longer', () => {
    const balls = [1, 2, 3, 4, 6].map((d) => ball(d));
    expect(finerThan([ball(6)], balls)?.id).toBe('b3');
    expect(finerThan([ball(6), ball(2)], balls)?.id).toBe('b1');
    // Of a ball of 3 mm six tenths are 1.8.
    expect(finerThan([ball(3)], balls)?.id).toBe('b1');
    expect(finerThan([ball(2)], [ball(1.8), ball(1.6), ball(3)])?.id).toBe('b1.6');
    expect(finerThan([ball(2)], [ball(1, 4), tapered(0.5, 12)])?.id).toBe('t0.5');
    expect(finerThan([ball(1)], balls)).toBeNull();
    expect(finerThan([ball(1)], [])).toBeNull();
  });
  it('is never one that is as wide, and none that is clearly finer is wider', () => {
    const some = fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(some, some, (had, among) => {
        const least = Math.min(...had);
        const found = finerThan(
          had.map((d) => ball(d / 10)),
          among.map((d) => ball(d / 10)),
        );
        const clear = among.filter((d) => d <= 0.6 * least + 1e-9);
        const any = among.filter((d) => d < least);
        const best = clear.length ? Math.max(...clear) : any.length ? Math.min(...any) : null;
        expect(found && Math.round(10 * found.values.diameter)).toBe(best);
      }),
    );
  });
});
