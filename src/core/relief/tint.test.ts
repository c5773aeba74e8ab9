import { gridOf, type HeightField } from './field';
import { colourAt, tintedPicture, tinting } from './tint';

const g = gridOf(10, 4, 0.5);
const ramp = (slope: number): HeightField => ({
  ...g,
  z: Float32Array.from({ length: g.cols * g.rows }, (_, i) => -3 + slope * (i % g.cols) * 0.5),
});

describe('tints of a relief', () => {
  it('are by height from the lowest to the highest', () => {
    const of = tinting(ramp(0.2), 'height');
    expect(of(0, 0)).toBe(0);
    expect(of(g.cols - 1, 3)).toBe(1);
    expect(of(10, 5)).toBeCloseTo(0.5, 6);
    const level = { ...g, z: new Float32Array(g.cols * g.rows) };
    expect(tinting(level, 'height')(3, 3)).toBe(1);
  });
  it('are by the angle from level to upright', () => {
    expect(tinting(ramp(0), 'slope')(5, 2)).toBe(0);
    expect(tinting(ramp(1), 'slope')(5, 2)).toBeCloseTo(0.5, 6);
    expect(tinting(ramp(1e6), 'slope')(5, 2)).toBeCloseTo(1, 4);
  });
  it('go lighter with height and darker with slope, all the way', () => {
    const light = ([r, gr, b]: readonly number[]) => 0.2126 * r + 0.7152 * gr + 0.0722 * b;
    for (let t = 0; t < 1; t += 0.02) {
      expect(light(colourAt('height', t + 0.02))).toBeGreaterThan(light(colourAt('height', t)));
      expect(light(colourAt('slope', t + 0.02))).toBeLessThan(light(colourAt('slope', t)));
    }
    expect(colourAt('height', 2)).toEqual(colourAt('height', 1));
    expect(colourAt('slope', NaN)).toEqual(colourAt('slope', 0));
  });
  it('are pictures with the highest Y on top', () => {
    const f = { ...g, z: Float32Array.from({ length: g.cols * g.rows }, (_, i) => Math.floor(i / g.cols)) };
    const p = tintedPicture(f, 4, 90, 'height');
    expect([...p.slice(0, 3)]).toEqual([250, 236, 190]);
    expect([...p.slice(-3)]).toEqual([16, 52, 66]);
  });
});
