import { formContext, heightsOf } from '../testing/forms';
import { gridOf } from './field';
import { formKindOf } from './registry';
import { reduced, withoutSteps, type GreyPicture } from './picture';

const greys = (width: number, height: number, at: (x: number, y: number) => number, of = 65536): GreyPicture => ({
  width,
  height,
  greys: of,
  light: Float32Array.from({ length: width * height }, (_, i) => {
    const l = at((i % width) + 0.5, Math.floor(i / width) + 0.5);
    return Math.round(l * (of - 1)) / (of - 1);
  }),
});
const grid = gridOf(40, 30, 0.5);
const laid = (p: GreyPicture, values: object) => heightsOf('picture', values, formContext(grid, { picture: () => p }));
const at = (z: Float32Array, x: number, y: number) => z[Math.round(y / 0.5) * grid.cols + Math.round(x / 0.5)];
/** A ramp to the right and upward, 0 to 1. */
const ramp = greys(40, 20, (x, y) => (x / 40 + (20 - y) / 20) / 2);
const place = { x: 20, y: 15, width: 20, height: 10, rise: 4 };

describe('a picture that is laid out', () => {
  const k = formKindOf('picture');
  const whole = { ...(k.defaults as object), ...place };
  it('without its margins has the rest where it was, of the same size', () => {
    for (const turn of [0, 30]) {
      const was = { ...whole, turn } as never;
      const crop = { left: 25, right: 0, top: 10, bottom: 40 };
      const v = k.changed!({ ...(was as object), crop } as never, was) as typeof place;
      expect([v.width, v.height]).toEqual([expect.closeTo(15, 9), expect.closeTo(5, 9)]);
      const [before, after] = [laid(ramp, was), laid(ramp, v)];
      let kept = 0;
      after.forEach((h, i) => {
        if (h !== h) return;
        kept++;
        // Half a pixel at the new edges is as its nearest.
        expect(Math.abs(h - before[i])).toBeLessThan(0.076);
      });
      expect(kept).toBeGreaterThan(250);
    }
  });
  it('never loses all of itself to its margins', () => {
    const v = { ...whole, crop: { left: 0, right: 60, top: 0, bottom: 0 } } as never;
    const next = k.changed!({ ...(v as object), crop: { left: 90, right: 60, top: 0, bottom: 0 } } as never, v);
    expect(k.schema.safeParse(next).success).toBe(true);
    expect(next).toMatchObject({ crop: { left: 90, right: 8 } });
  });
  it('covers everything when it is repeated, and follows a line', () => {
    const over = laid(ramp, { ...place, laid: 'mirrored' });
    expect(over.every((h) => h === h)).toBe(true);
    // One tile on it is mirrored.
    expect(at(over, 35, 15)).toBeCloseTo(at(over, 25, 15), 5);
    const line = { points: Float64Array.from([10, 15, 30, 15]), closed: false };
    const straight = heightsOf(
      'picture',
      { ...place, laid: 'repeated', follows: true },
      formContext(grid, { picture: () => ramp, lines: [line] }),
    );
    // Along X from its beginning: as a tile whose middle stands there.
    const beside = laid(ramp, { ...place, x: 10, laid: 'repeated' });
    for (const [x, y] of [
      [12, 15.5],
      [25, 12],
      [28, 19],
      [36, 16],
      [4, 14],
    ])
      expect(at(straight, x, y)).toBeCloseTo(at(beside, x, y), 4);
    expect(laid(ramp, { ...place, laid: 'repeated', follows: true }).every((h) => h !== h)).toBe(true);
  });
  it('has its greys taken for what the curve says', () => {
    const curve = [
      [0, 1],
      [1, 0],
    ];
    const [turned, inverted] = [laid(ramp, { ...place, curve }), laid(ramp, { ...place, invert: true })];
    let met = 0;
    turned.forEach((h, i) => {
      if (h !== h) return;
      met++;
      expect(h).toBeCloseTo(inverted[i], 4);
    });
    expect(met).toBeGreaterThan(700);
  });
});

describe('pictures as heights', () => {
  it('rise from black to white, upright, and are empty beside the picture', () => {
    const z = laid(ramp, place);
    for (let y = 0; y <= 30; y += 0.5)
      for (let x = 0; x <= 40; x += 0.5) {
        const [u, v] = [(x - 10) / 20, (y - 10) / 10];
        if (u < 0 || u > 1 || v < 0 || v > 1) expect(at(z, x, y)).toBeNaN();
        // Half a pixel at the edge is as its nearest.
        else if (Math.min(u, 1 - u) > 0.02 && Math.min(v, 1 - v) > 0.03)
          expect(Math.abs(at(z, x, y) - 2 * (u + v))).toBeLessThan(0.001);
        else expect(Math.abs(at(z, x, y) - 2 * (u + v))).toBeLessThan(0.2);
      }
  });
  it('are inverted, bent by gamma, turned and faded', () => {
    expect(at(laid(ramp, { ...place, invert: true }), 20, 15)).toBeCloseTo(2, 2);
    expect(at(laid(ramp, { ...place, invert: true }), 12, 12)).toBeCloseTo(4 - at(laid(ramp, place), 12, 12), 4);
    expect(at(laid(ramp, { ...place, gamma: 2 }), 20, 15)).toBeCloseTo(1, 2);
    // A quarter turn to the left: what was right is up.
    const turned = laid(ramp, { ...place, turn: 90 });
    expect(at(turned, 20, 23)).toBeCloseTo(at(laid(ramp, place), 28, 15), 3);
    expect(at(turned, 17, 15)).toBeCloseTo(at(laid(ramp, place), 20, 18), 3);
    expect(at(turned, 12, 15)).toBeNaN();
    const white = greys(10, 10, () => 1);
    const faded = laid(white, { ...place, fade: 2 });
    expect(at(faded, 20, 10)).toBeCloseTo(0, 6);
    expect(at(faded, 20, 11)).toBeCloseTo(2, 6);
    expect(at(faded, 20, 12)).toBeCloseTo(4, 6);
  });
  it('keep holes, and nothing is drawn down at their edges', () => {
    const hole = { ...ramp, light: ramp.light.map((l, i) => (i % 40 >= 20 ? NaN : 1 + 0 * l)) };
    const z = laid(hole, place);
    expect(at(z, 19.5, 15)).toBe(4);
    expect(at(z, 21, 15)).toBeNaN();
    for (let x = 10; x < 19.5; x += 0.5) expect(at(z, x, 15)).toBe(4);
  });
  it('with more pixels than nodes are shown by their means', () => {
    // Stripes of one pixel: half grey, wherever the nodes fall.
    const stripes = greys(400, 40, (x) => Math.floor(x) % 2);
    const z = laid(stripes, { ...place, smooth: false });
    for (let x = 11; x < 29; x += 0.5) expect(Math.abs(at(z, x, 15) - 2)).toBeLessThan(0.01);
    const mean = (p: GreyPicture) => p.light.reduce((s, l) => s + l, 0) / p.light.length;
    expect(mean(reduced(ramp, 5))).toBeCloseTo(mean(ramp), 5);
  });
  it('without their steps are nearer to the ground that was photographed, and off by no more than half a step', () => {
    const truth = greys(200, 60, (x, y) => 0.3 + 0.08 * (x / 200) + 0.02 * Math.sin(y / 15));
    const coarse = greys(200, 60, (x, y) => 0.3 + 0.08 * (x / 200) + 0.02 * Math.sin(y / 15), 64);
    const smooth = withoutSteps(coarse);
    const off = (p: GreyPicture) => Math.sqrt(p.light.reduce((s, l, i) => s + (l - truth.light[i]) ** 2, 0) / 12000);
    expect(off(smooth)).toBeLessThan(0.5 * off(coarse));
    smooth.light.forEach((l, i) => expect(Math.abs(l - coarse.light[i])).toBeLessThanOrEqual(0.5 / 63 + 1e-6));
    // An edge stays where it is, but for half a step.
    const edge = withoutSteps(greys(40, 10, (x) => (x < 20 ? 0 : 1), 256));
    expect(edge.light[19]).toBeLessThan(0.5 / 255 + 1e-6);
    expect(edge.light[20]).toBeGreaterThan(1 - 0.5 / 255 - 1e-6);
    expect(withoutSteps(ramp)).toBe(ramp);
  });
});
