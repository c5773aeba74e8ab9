import fc from 'fast-check';
import { newOneSetup, type TurnedOver } from '../job/job';
import { placePrograms, prove, type Proof } from '../pipeline/proving';
import { writePrograms } from '../pipeline/programs';
import { flatField, heightAt } from '../relief/field';
import { cutterOf, planOn } from '../testing/job';
import { box } from '../testing/shapes';
import { foundBy, websOf, type Faces, type Found } from './faces';

const size = { width: 40, height: 30, thickness: 10 };
const CELL = 0.5;
/** A face that is cut by a function of the place. */
const face = (z: (x: number, y: number) => number) => {
  const f = flatField(size.width, size.height, CELL);
  for (let r = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = z(c * CELL, r * CELL);
  return f;
};
const inside = (x0: number, y0: number, x1: number, y1: number, depth: number) => (x: number, y: number) =>
  x >= x0 && x <= x1 && y >= y0 && y <= y1 ? -depth : 0;

describe('a blank that is turned over', () => {
  it('has its other face up, mirrored about the axis; turned back it is as it was', () => {
    const z = (x: number, y: number) => -0.1 * x - 0.01 * y;
    fc.assert(
      fc.property(fc.constantFrom('x' as const, 'y' as const), fc.boolean(), (axis, both) => {
        const left: Faces = { up: face(z), down: both ? face((x, y) => -0.02 * y - 0.001 * x) : null };
        const over = foundBy(left, axis, size, CELL);
        for (const [x, y] of [
          [0, 0],
          [40, 30],
          [13, 7.5],
        ]) {
          const [mx, my] = axis === 'x' ? [x, 30 - y] : [40 - x, y];
          expect(heightAt(over.down!, x, y)).toBeCloseTo(z(mx, my), 5);
          expect(heightAt(over.up, x, y)).toBeCloseTo(both ? -0.02 * my - 0.001 * mx : 0, 5);
        }
        const back = foundBy(over, axis, size, CELL);
        expect(back.up.z.reduce((most, v, i) => Math.max(most, Math.abs(v - left.up.z[i])), 0)).toBeLessThan(1e-5);
      }),
    );
  });
  it('is open from both faces where one was cut through, or where both together leave nothing', () => {
    const up = face((x, y) => Math.min(inside(5, 5, 10, 10, 10.2)(x, y), inside(20, 5, 30, 10, 6)(x, y)));
    const over = foundBy({ up, down: face(inside(25, 5, 35, 10, 4)) }, 'y', size, CELL);
    // Cut through: as deep as the blank is thick, from above too.
    expect(heightAt(over.up, 40 - 7, 7)).toBe(-10);
    // 6 and 4 of 10: nothing is left.
    expect(heightAt(over.up, 40 - 27, 7)).toBe(-10);
    expect(heightAt(over.up, 40 - 22, 7)).toBe(0);
    expect(heightAt(over.up, 40 - 33, 7)).toBe(-4);
  });
  it('is read between nodes where the next proof is finer or its blank is no whole number of cells', () => {
    const odd = { width: 40.3, height: 29.9, thickness: 10 };
    const f = flatField(odd.width, odd.height, CELL);
    for (let r = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = -0.1 * c * CELL;
    const over = foundBy({ up: f, down: null }, 'y', odd, 0.2);
    expect(heightAt(over.down!, 10, 3)).toBeCloseTo(-0.1 * 30.3, 4);
    expect(over.up.cols).toBe(Math.floor(40.3 / 0.2) + 1);
  });
});

describe('webs between the faces', () => {
  const found = (depth: number): Faces => ({ up: face(() => 0), down: face(inside(10, 10, 20, 20, depth)) });
  it('are as thick as the cuts leave them, and met where these overlap', () => {
    const above = face(inside(15, 5, 30, 15, 4));
    expect(websOf(found(5), above, 10)).toMatchObject({ thinnest: 1, met: 0 });
    const met = websOf(found(7), above, 10)!;
    expect(met.thinnest).toBeCloseTo(-1, 6);
    // 15..20 by 10..15: each node stands for its cell.
    expect(met.met).toBeCloseTo(11 * 11 * CELL * CELL, 6);
    expect([met.x >= 15 && met.x <= 20, met.y >= 10 && met.y <= 15]).toEqual([true, true]);
  });
  it('are none where only one face is cut, where it was open before, or where this set-up cuts through it all', () => {
    expect(websOf({ up: face(() => 0), down: null }, face(inside(0, 0, 40, 30, 9)), 10)).toBeNull();
    expect(websOf(found(5), face(inside(25, 22, 30, 28, 9.9)), 10)).toBeNull();
    expect(websOf(found(10), face(inside(15, 5, 30, 15, 4)), 10)).toBeNull();
    expect(websOf(found(5), face(inside(15, 5, 30, 15, 10)), 10)).toBeNull();
    // What lay there already was not cut here.
    expect(
      websOf({ up: face(inside(15, 5, 30, 15, 4)), down: found(5).down }, face(inside(15, 5, 30, 15, 4)), 10),
    ).toBeNull();
  });
});

describe('two pockets, one from each face', () => {
  const pocket = (depth: number, found: Found | null): Proof => {
    const { plan, job } = planOn(
      'area',
      { cutters: ['flat-3'], depth, stepDown: 2, stepOver: 1.2 },
      [box(5, 5, 20, 25)],
      {
        width: 40,
        height: 30,
        thickness: 10,
      },
    );
    const one = {
      ...newOneSetup('Plate'),
      blank: job.blank,
      cutters: [cutterOf('flat-3')],
      cuts: [{ id: 'c', name: 'Pocket', kind: 'area', enabled: true, items: [], values: {}, overrides: {} }],
    };
    const plans = new Map([['c', plan]]);
    const programs = writePrograms(one, plans);
    return prove(one, placePrograms(one, programs), programs.tools, plans, CELL, () => {}, undefined, found);
  };
  const texts = (p: Proof) => p.findings.filter((f) => f.check === 'faces').map((f) => f.text);
  const front = pocket(5, null);
  const after = (turned: TurnedOver, from: string): Found => ({ faces: foundBy(front.left, turned, size, CELL), from });
  it('over each other leave a web, or meet, or leave too thin a one', () => {
    const before = after('x', 'Front');
    expect(texts(pocket(4, before))).toEqual([]);
    expect(texts(pocket(4.9, before))).toEqual([
      expect.stringMatching(/^Only 0\.1 mm stays between what is cut here and what "Front"/),
    ]);
    expect(texts(pocket(5.2, before))).toEqual([
      expect.stringMatching(/meets what "Front" has cut from the other face/),
    ]);
  });
  it('beside each other do not ask for one', () => {
    // Turned about Y the pocket of 5..20 lies at 20..35: they touch at a line, and that is all.
    const r = websOf(foundBy(front.left, 'y', size, CELL), pocket(4, null).field, 10);
    expect(r === null || r.thinnest > 0).toBe(true);
    expect(texts(pocket(8, after('y', 'Front'))).length).toBeLessThanOrEqual(1);
  });
  it('on the same face: the second goes on where the first has ended', () => {
    const second = pocket(7, after('none', 'First'));
    expect(heightAt(second.field, 12, 15)).toBeCloseTo(-7, 3);
    expect(heightAt(second.found!.faces.up, 12, 15)).toBeCloseTo(-5, 3);
    const none = pocket(2, after('none', 'First'));
    expect(heightAt(none.field, 12, 15)).toBeCloseTo(-5, 3);
  });
});
