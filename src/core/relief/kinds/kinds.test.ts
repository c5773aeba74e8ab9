import { bruteDistance, bruteInside } from '../../testing/independent';
import { formContext, heightsOf } from '../../testing/forms';
import { box, loop, starLoop } from '../../testing/shapes';
import type { Region } from '../../geometry/region';
import { edgeHeight } from '../edges';
import { gridOf } from '../field';
import { formKindOf } from '../registry';

const grid = gridOf(24, 20, 0.25);
const shaped = (kind: string, values: object, region: Region = []) => {
  const k = formKindOf(kind);
  return k.evaluate({ ...(k.defaults as object), ...values }, formContext(grid, { region }));
};
const at = (z: Float32Array, x: number, y: number) =>
  z[Math.round(y / grid.cell) * grid.cols + Math.round(x / grid.cell)];

describe('forms from outlines', () => {
  const square = [box(2, 2, 18, 18)];
  it('with a bevel are pyramids whose mitres are sharp', () => {
    const { z } = shaped('outline', { edge: 'bevel', angle: 30 }, square);
    const slope = 1 / Math.sqrt(3);
    for (let r = 0; r < grid.rows; r++)
      for (let c = 0; c < grid.cols; c++) {
        const [x, y] = [c * grid.cell, r * grid.cell];
        const d = Math.min(x - 2, 18 - x, y - 2, 18 - y);
        if (d > 1e-9) expect(Math.abs(z[r * grid.cols + c] - d * slope)).toBeLessThan(1e-5);
        if (d < -1e-9) expect(z[r * grid.cols + c]).toBeNaN();
      }
    expect(at(z, 10, 10)).toBeCloseTo(8 * slope, 5);
  });
  it('are capped where they would rise higher, and fitted to a height at their deepest place', () => {
    const capped = shaped('outline', { edge: 'bevel', angle: 45, top: 'capped', height: 3 }, square).z;
    expect(at(capped, 10, 10)).toBeCloseTo(3, 6);
    expect(at(capped, 4, 10)).toBeCloseTo(2, 6);
    const fitted = shaped('outline', { edge: 'bevel', angle: 45, top: 'fitted', height: 2 }, square).z;
    expect(at(fitted, 10, 10)).toBeCloseTo(2, 3);
    expect(at(fitted, 6, 10)).toBeCloseTo(1, 3);
    // The deepest place counts, not the deepest node.
    const between = shaped('outline', { edge: 'bevel', angle: 45, top: 'fitted', height: 2 }, [
      box(2.1, 2.1, 4.0, 18),
    ]).z;
    expect(at(between, 3, 10)).toBeCloseTo((2 * 0.9) / 0.95, 3);
  });
  it('sink where the angle is below zero', () => {
    const { z } = shaped('outline', { edge: 'bevel', angle: -45 }, square);
    expect(at(z, 5, 10)).toBeCloseTo(-3, 5);
  });
  it('of a star follow the distance to its segments, within 0.002 mm at every node', () => {
    const star = [starLoop(5, 9, 4, 11, 10)];
    for (const edge of ['bevel', 'round', 'cove', 'ogee'] as const) {
      const { z } = shaped('outline', { edge, angle: 40, over: 3 }, star);
      let [worst, within] = [0, 0];
      z.forEach((h, i) => {
        const [x, y] = [(i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell];
        const d = bruteDistance(star, x, y);
        if (d < 1e-9) return;
        if (!bruteInside(star, x, y)) {
          if (h === h) worst = Infinity;
          return;
        }
        within++;
        const t = Math.min(d, 3);
        const arc = (r: number, u: number) => Math.sqrt(Math.max(0, r * r - u * u));
        const want = {
          bevel: d * Math.tan((40 * Math.PI) / 180),
          round: arc(3, 3 - t),
          cove: 3 - arc(3, t),
          ogee: t < 1.5 ? 1.5 - arc(1.5, t) : 1.5 + arc(1.5, 3 - t),
        }[edge];
        // Where an edge stands upright a rounding of the distance shows most.
        if (t > 0.001 && !(edge === 'cove' && t > 2.999))
          worst = Math.max(worst, h === h ? Math.abs(h - want) : Infinity);
      });
      expect(within).toBeGreaterThan(1000);
      expect(worst).toBeLessThan(0.002);
    }
  });
  it('that are flat may have walls that lean inwards, and say where they are too narrow for it', () => {
    const { z, remark } = shaped('outline', { edge: 'flat', height: 3, draft: 20 }, [...square, box(8, 8, 12, 12)]);
    const lean = Math.tan((20 * Math.PI) / 180);
    let walls = 0;
    z.forEach((h, i) => {
      const [x, y] = [(i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell];
      const d = bruteDistance([...square, box(8, 8, 12, 12)], x, y);
      if (h !== h) return;
      if (d < 3 * lean) walls++;
      expect(Math.abs(h - Math.min(3, d / lean))).toBeLessThan(1e-4);
    });
    expect(walls).toBeGreaterThan(100);
    expect(remark).toBe('');
    const narrow = shaped('outline', { edge: 'flat', height: 3, draft: 45 }, [box(2, 2, 6, 18)]);
    expect(narrow.remark).toMatch(/reaches 2 mm, not 3/);
    expect(at(narrow.z, 4, 10)).toBeCloseTo(2, 5);
  });
  it('have the edge that is drawn: as it was drawn, made wider, capped, or fitted to its highest place', () => {
    const line = { points: Float64Array.from([100, 50, 101, 52, 103, 51]), closed: false };
    const k = formKindOf('outline');
    const edge = (values: object) =>
      k.evaluate(
        { ...(k.defaults as object), edge: 'drawn', ...values },
        formContext(grid, { region: square, profile: [line] }),
      ).z;
    // Up by 2 over the first millimetre, down by 1 over two more, level from there.
    const asDrawn = edge({});
    for (const [x, h] of [
      [2.5, 1],
      [3, 2],
      [4, 1.5],
      [5, 1],
      [9, 1],
    ])
      expect(at(asDrawn, x, 10)).toBeCloseTo(h, 5);
    expect(at(edge({ over: 6 }), 4, 10)).toBeCloseTo(2, 5);
    expect(at(edge({ top: 'capped', height: 1.25 }), 3, 10)).toBeCloseTo(1.25, 5);
    const fitted = edge({ top: 'fitted', height: 0.5 });
    expect([at(fitted, 3, 10), at(fitted, 9, 10)]).toEqual([expect.closeTo(0.5, 5), expect.closeTo(0.25, 5)]);
    expect(shaped('outline', { edge: 'drawn' }, square).remark).toMatch(/No line is picked for its edge/);
  });
  it('say when there is nothing to be made of', () => {
    const { z, remark } = shaped('outline', {}, []);
    expect(remark).toMatch(/No closed outline/);
    expect(z.every(Number.isNaN)).toBe(true);
  });
  it('rise round a dome to the middle of the widest place', () => {
    const { z } = shaped('outline', { edge: 'round', over: null }, [loop(2, 2, 22, 2, 22, 12, 2, 12)]);
    expect(at(z, 12, 7)).toBeCloseTo(5, 3);
    expect(at(z, 12, 4)).toBeCloseTo(Math.sqrt(25 - 9), 3);
  });
});

describe('profiles of an edge', () => {
  it('begin at nothing, rise by their width, never fall, and are level beyond', () => {
    for (const edge of ['round', 'cove', 'ogee'] as const) {
      let last = 0;
      for (let d = 0; d <= 5; d += 0.01) {
        const h = edgeHeight(edge, d, 0, 4);
        expect(h).toBeGreaterThanOrEqual(last - 1e-12);
        last = h;
      }
      expect(edgeHeight(edge, 0, 0, 4)).toBe(0);
      expect(last).toBeCloseTo(4, 12);
    }
  });
});

describe('ground', () => {
  it('is a plane about the middle of the blank', () => {
    const { z } = shaped('ground', { height: 3, alongX: 10, alongY: -5 });
    const tan = (a: number) => Math.tan((a * Math.PI) / 180);
    expect(at(z, 12, 10)).toBeCloseTo(3, 6);
    expect(at(z, 24, 0)).toBeCloseTo(3 + 12 * tan(10) - 10 * tan(-5), 5);
  });
});

describe('domed ground', () => {
  it.each([1.5, -1.5])('is part of a sphere, %d mm from the corners to the middle', (dome) => {
    const { z } = shaped('ground', { dome, height: 1 });
    const c = Math.hypot(12, 10);
    const r = (c * c + 1.5 * 1.5) / 3;
    for (const [x, y] of [
      [0, 0],
      [12, 10],
      [5, 17],
      [24, 10],
    ]) {
      const d = Math.hypot(x - 12, y - 10);
      expect(at(z, x, y)).toBeCloseTo(1 + Math.sign(dome) * (Math.sqrt(r * r - d * d) - (r - 1.5)), 5);
    }
    expect(at(z, 0, 20)).toBeCloseTo(1, 5);
    expect(at(z, 12, 10)).toBeCloseTo(1 + dome, 5);
  });
});

describe('a mesh', () => {
  it('whose file is not here is nowhere, and says so', () => {
    const { z, remark } = shaped('mesh', { mesh: 'gone' });
    expect(z.every(Number.isNaN)).toBe(true);
    expect(remark).toMatch(/not on this device/);
  });
  it('takes the other sizes along where they are linked; the rise goes alone', () => {
    const k = formKindOf('mesh');
    const v = { ...(k.defaults as object), width: 20, height: 10, rise: 4, linked: true };
    const changed = (c: object) => k.changed!({ ...v, ...c } as never, v as never);
    expect(changed({ width: 37 })).toMatchObject({ width: 37, height: 18.5, rise: 7.4 });
    expect(changed({ height: 5 })).toMatchObject({ width: 10, height: 5, rise: 2 });
    expect(changed({ rise: 3 })).toMatchObject({ width: 20, height: 10, rise: 3 });
    expect(changed({ width: 37, linked: false })).toMatchObject({ width: 37, height: 10, rise: 4 });
  });
});

describe('what works on what lies under it', () => {
  const under = Float32Array.from({ length: grid.cols * grid.rows }, (_, i) => {
    const [x, y] = [(i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell];
    return x > 20 ? NaN : x + y / 4;
  });
  const worked = (kind: string, values: object) => heightsOf(kind, values, formContext(grid, { under }));
  it('is capped and filled up, each where it is said', () => {
    const z = worked('limit', { cap: 12, floor: 3 });
    under.forEach((h, i) => expect(z[i]).toBe(h !== h ? NaN : Math.min(12, Math.max(3, h))));
    expect([...worked('limit', { cap: null, floor: null })]).toEqual([...under]);
  });
  it('is turned over about half of its height or a height, mirrored, and back by the same', () => {
    const z = worked('turned', { about: 'middle', mirror: 'none' });
    // From 0 to 25: what was lowest is highest.
    expect(at(z, 0, 0)).toBe(25);
    expect(at(z, 20, 20)).toBe(0);
    expect(at(z, 22, 10)).toBeNaN();
    const mirrored = worked('turned', { about: 'height', height: 2, mirror: 'x' });
    expect(at(mirrored, 24, 0)).toBe(4);
    expect(at(mirrored, 1, 0)).toBeNaN();
    for (const mirror of ['none', 'x', 'y']) {
      const once = worked('turned', { about: 'height', height: 1.5, mirror });
      const back = heightsOf('turned', { about: 'height', height: 1.5, mirror }, formContext(grid, { under: once }));
      expect([...back]).toEqual([...under]);
    }
  });
});
