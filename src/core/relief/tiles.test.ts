import type { GreyPicture } from './picture';
import { sampled, tiled } from './tiles';

const picture = (width: number, height: number, at: (x: number, y: number) => number): GreyPicture => ({
  width,
  height,
  greys: 65536,
  light: Float32Array.from({ length: width * height }, (_, i) => at((i % width) + 0.5, Math.floor(i / width) + 0.5)),
});
/** Its left and right edges, and its upper and lower ones, differ by all that there is. */
const ramp = picture(50, 40, (x, y) => (x / 50 + y / 40) / 2);
/** The largest step between places so close to each other, over two tiles each way. */
function largestStep(at: (s: number, t: number) => number, step: number): number {
  let most = 0;
  for (let s = -1; s < 1; s += step)
    for (const t of [-0.7, -0.02, 0, 0.5, 0.97]) {
      most = Math.max(most, Math.abs(at(s + step, t) - at(s, t)), Math.abs(at(t, s + step) - at(t, s)));
    }
  return most;
}

describe('a picture', () => {
  it('is exact between the middles of its pixels where it is straight', () => {
    const at = sampled(ramp);
    for (let s = 0.01; s < 0.99; s += 0.013)
      for (const t of [0.02, 0.4, 0.91]) expect(at(s, t)).toBeCloseTo((s + t) / 2, 6);
    expect(at(0, 0)).toBeCloseTo((0.01 + 0.0125) / 2, 6);
  });
  it('is empty where its nearest pixel is, and draws nothing down beside it', () => {
    const p = picture(4, 1, (x) => (x < 2 ? NaN : 0.8));
    expect(sampled(p)(0.4, 0.5)).toBeNaN();
    expect(sampled(p)(0.55, 0.5)).toBeCloseTo(0.8, 6);
  });
});

describe('a picture laid again and again', () => {
  it('has a step where it is merely repeated, none where it is mirrored or its seams are blended', () => {
    const step = 1 / 400;
    // A pixel's worth between the last and the first.
    expect(largestStep(tiled(ramp, 'repeated'), step)).toBeGreaterThan(0.05);
    expect(largestStep(tiled(ramp, 'mirrored'), step)).toBeLessThan(0.003);
    // A fifth of the width, over which half of all greys is gone through, three halves as steep in the middle.
    expect(largestStep(tiled(ramp, 'blended'), step)).toBeLessThan(0.02);
  });
  it('is the same one tile further; mirrored, two', () => {
    const wavy = picture(30, 30, (x, y) => 0.5 + 0.3 * Math.sin(x / 3) + 0.2 * Math.cos(y / 5));
    for (const how of ['repeated', 'blended', 'mirrored'] as const) {
      const at = tiled(wavy, how);
      const on = how === 'mirrored' ? 2 : 1;
      for (const [s, t] of [
        [0.1, 0.3],
        [0.5, 0.5],
        [0.93, 0.02],
      ])
        for (const [i, j] of [
          [-1, 0],
          [1, 1],
          [3, -2],
        ])
          expect(at(s + on * i, t + on * j)).toBeCloseTo(at(s, t), 6);
    }
    const at = tiled(wavy, 'mirrored');
    expect(at(1.2, 0.5)).toBeCloseTo(at(0.8, 0.5), 6);
  });
  it('that meets itself is the same as when it is repeated without an edge', () => {
    const turn = 2 * Math.PI;
    const at = tiled(
      picture(64, 64, (x, y) => 0.5 + 0.25 * Math.sin((turn * x) / 64) + 0.25 * Math.cos((turn * y) / 64)),
      'repeated',
    );
    for (let s = -0.5; s < 1.5; s += 0.007)
      expect(at(s, 0.3)).toBeCloseTo(0.5 + 0.25 * Math.sin(turn * s) + 0.25 * Math.cos(turn * 0.3), 2);
  });
  it('is not empty where its neighbour reaches over it', () => {
    const holed = picture(100, 10, (x) => (x > 95 ? NaN : 0.5));
    const at = tiled(holed, 'blended');
    for (let s = 0; s < 1; s += 0.01) expect(at(s, 0.5)).toBeCloseTo(0.5, 6);
  });
});
