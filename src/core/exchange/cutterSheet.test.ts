import fc from 'fast-check';
import { real } from '../testing/real';
import { cutterSchema, stepForScallop, scallopOf, chipLoad, removalRate, type Cutter } from '../cutters/cutter';
import { shippedLibrary } from '../cutters/library';
import { compareCutters, cuttersToCsv, cuttersToJson, readCutters } from './cutterSheet';

const library = shippedLibrary();
const words = fc.string({ maxLength: 30 }).filter((s) => s === s.trim());
const changed = fc
  .tuple(fc.constantFrom(...library), words, words, words, fc.integer({ min: 0, max: 99 }))
  .map(([c, notes, supplier, group, slot]): Cutter => ({ ...c, notes, supplier, group: group || c.group, slot }));

describe('a library as a file', () => {
  it.each([
    ['CSV', cuttersToCsv],
    ['JSON', cuttersToJson],
  ])('comes back from %s as it was', (_name, write) => {
    fc.assert(
      fc.property(fc.uniqueArray(changed, { selector: (c) => c.id, minLength: 1, maxLength: 12 }), (cutters) => {
        const back = readCutters(write(cutters), 'x');
        expect(back.refused).toEqual([]);
        expect(back.cutters).toEqual(cutters);
      }),
      { numRuns: 60 },
    );
  });
  it('is told apart: new, changed, the same, refused', () => {
    const mine = library.slice(0, 3);
    const text =
      cuttersToCsv([mine[0], { ...mine[1], teeth: 4 }, { ...mine[2], id: 'another' }]).trimEnd() +
      '\nbad,Nothing,x,spoon\nworse,Tip too wide,x,v,mm,1,3,3';
    const { cutters, refused } = readCutters(text, 'list.csv');
    const c = compareCutters(library, cutters, refused);
    expect([c.fresh, c.changed, c.same].map((l) => l.map((q) => q.id))).toEqual([
      ['another'],
      [mine[1].id],
      [mine[0].id],
    ]);
    expect(c.refused.map((r) => r.where)).toEqual(['Line 5 (Nothing)', 'Line 6 (Tip too wide)']);
    expect(c.refused[0].why).toMatch(/no kind of cutter called "spoon"/);
  });
  it('of other makers needs a name, a shape and its sizes alone', () => {
    const { cutters, refused } = readCutters(
      'name,shape,diameter,includedAngle,tipDiameter\nGate V,v,12.7,60,0\n"1/8 ball",ball,3.175,,\n',
      'x.csv',
    );
    expect(refused).toEqual([]);
    expect(cutters.map((c) => [c.name, c.shape, c.values])).toEqual([
      ['Gate V', 'v', { diameter: 12.7, includedAngle: 60, tipDiameter: 0 }],
      ['1/8 ball', 'ball', { diameter: 3.175 }],
    ]);
  });
  it.each(['{', '[{"id":1}]', '{"a":1}', 'hello', '', 'name;shape\nx;v', '\u0000\u0001'])(
    'that is none (%j) is refused by name, whatever it is',
    (text) => {
      const r = readCutters(text, 'odd.csv');
      expect(r.cutters).toEqual([]);
      expect(r.refused.length).toBeGreaterThan(0);
    },
  );
  it('never throws on any text', () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (t) => void readCutters(t, 'any')));
  });
});

describe('derived values', () => {
  it('turn step-over into ridges and back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...library.filter((c) => c.shape === 'ball' || c.shape === 'v' || c.shape === 'taperedBall')),
        real(0.02, 0.3),
        (c, share) => {
          const step = share * 2 * c.values.diameter * 0.5;
          expect(stepForScallop(c, scallopOf(c, step))).toBeCloseTo(step, 6);
        },
      ),
    );
    // A ball's ridge: R - sqrt(R^2 - (s/2)^2).
    expect(
      scallopOf(
        library.find((c) => c.id === 'ball-6')!,
        1,
      ),
    ).toBeCloseTo(3 - Math.sqrt(9 - 0.25), 12);
  });
  it('are the trade\u2019s', () => {
    const c = library.find((q) => q.id === 'flat-6')!;
    expect(chipLoad(c, { feed: 1200, rpm: 12000 })).toBeCloseTo(0.05, 12);
    expect(removalRate({ rpm: 1, feed: 1000, plunge: 1, stepDown: 2, stepOver: 3 })).toBe(6000);
  });
  it('and what cannot be made of steel is refused', () => {
    expect(
      cutterSchema.safeParse({
        ...library.find((c) => c.shape === 'v')!,
        values: { diameter: 3, includedAngle: 60, tipDiameter: 4 },
      }).error!.issues[0].message,
    ).toMatch(/as wide as the cutter/);
  });
});
