import fc from 'fast-check';
import { real } from '../testing/real';
import { radiusAt } from './cutter';
import { shippedLibrary } from './library';
import { depthUnder, loadAt, programmedDepth, tipDepth } from './sprung';
import { materialIds, materials } from './materials';

const rigid = shippedLibrary().find((c) => c.id === 'drag-3-120-0.02')!;
const sprung = (rate: number) => ({ ...rigid, values: { ...rigid.values, springRate: rate } });
const depths = real(0.001, 0.4);
const rates = real(0.1, 200);
const material = fc.constantFrom(...materialIds);

describe('a sprung diamond', () => {
  it('makes the groove whose width has the scratch hardness of the material under its load (ASTM G171)', () => {
    fc.assert(
      fc.property(material, real(0.1, 60), (m, load) => {
        const width =
          2 * radiusAt({ ...rigid, values: { ...rigid.values, diameter: 1000 } }, depthUnder(rigid, m, load));
        expect((8 * load) / (Math.PI * width ** 2)).toBeCloseTo(materials[m].scratchHardness, 6);
      }),
    );
  });
  it('needs the load for a depth that makes this depth', () => {
    fc.assert(
      fc.property(material, depths, (m, d) => expect(depthUnder(rigid, m, loadAt(rigid, m, d))).toBeCloseTo(d, 9)),
    );
  });
  it('is programmed deeper by what the spring gives, and its tip stays behind by as much', () => {
    fc.assert(
      fc.property(material, depths, rates, (m, d, rate) => {
        const c = sprung(rate);
        const p = programmedDepth(c, m, d);
        expect((p - d) * rate).toBeCloseTo(loadAt(c, m, d), 6);
        expect(tipDepth(c, m, p)).toBeCloseTo(d, 6);
      }),
    );
  });
  it('goes where the program says when it is held firmly', () => {
    expect(programmedDepth(rigid, 'brass', 0.1)).toBe(0.1);
    expect(tipDepth(rigid, 'brass', 0.1)).toBe(0.1);
    expect(tipDepth(sprung(5), 'brass', -2)).toBe(-2);
  });
});
