import fc from 'fast-check';
import { heightFacts } from './facts';
import { fitOf } from './fit';
import type { Meeting } from './form';
import { freshForm } from './freshForm';
import { formContext } from '../testing/forms';
import { formKindOf } from './registry';
import { gridOf } from './field';
import { adjust, lay, maskWeights, scaledForm, type Form } from './stack';

const E = NaN;
const on = (
  under: number[],
  form: number[],
  meets: Meeting,
  more: { strength?: number; base?: number } = {},
  w?: number[],
) => {
  const u = Float32Array.from(under);
  lay(u, Float32Array.from(form), { meets, strength: 1, base: 0, ...more }, w ? Float32Array.from(w) : null);
  return [...u];
};

describe('forms on each other', () => {
  it('meet what lies under them as they say; what is empty stays empty', () => {
    const [u, f] = [
      [1, 5, E, E, 2],
      [3, 2, 4, E, E],
    ];
    expect(on(u, f, 'add')).toEqual([4, 7, 4, E, 2]);
    expect(on(u, f, 'sink')).toEqual([-2, 3, -4, E, 2]);
    expect(on(u, f, 'higher')).toEqual([3, 5, 4, E, 2]);
    expect(on(u, f, 'lower')).toEqual([1, 2, 4, E, 2]);
    expect(on(u, f, 'replace')).toEqual([3, 2, 4, E, 2]);
    expect(on(u, f, 'add', { strength: 0.5, base: 10 })).toEqual([12.5, 16, 12, E, 2]);
  });
  it('count by their mask, and run out to the base over empty places', () => {
    expect(on([1, 1, 1, E, E], [4, 4, 4, 4, 4], 'replace', {}, [0, 0.5, 1, 0.5, 0])).toEqual([1, 2.5, 4, 2, E]);
  });
  it('are as many times as high when all of them are, whatever they do', () => {
    const h = fc.oneof(fc.constant(NaN), fc.integer({ min: -20, max: 20 }));
    const list = fc.array(h, { minLength: 6, maxLength: 6 });
    const form = fc.record({
      z: list,
      meets: fc.constantFrom<Meeting>('add', 'sink', 'higher', 'lower', 'replace'),
      strength: fc.integer({ min: 0, max: 4 }),
      base: fc.integer({ min: -5, max: 5 }),
      weights: fc.option(fc.array(fc.constantFrom(0, 0.25, 0.5, 1), { minLength: 6, maxLength: 6 })),
    });
    fc.assert(
      fc.property(fc.array(form, { minLength: 1, maxLength: 5 }), (forms) => {
        const stack = (by: number) => {
          const u = new Float32Array(6).fill(NaN);
          for (const f of forms)
            lay(
              u,
              Float32Array.from(f.z),
              { ...f, strength: by * f.strength, base: by * f.base },
              f.weights && Float32Array.from(f.weights),
            );
          return [...u];
        };
        // Twice is exact in floating point.
        expect(stack(2)).toEqual(stack(1).map((v) => 2 * v));
      }),
    );
  });
});

describe('a mask', () => {
  it('lets through what is inside, or outside, with an edge that is soft over its width', () => {
    const d = Float32Array.from([-3, -1, 0, 1, 2, 5]);
    expect([...maskWeights(d, 'inside', 0)]).toEqual([0, 0, 1, 1, 1, 1]);
    expect([...maskWeights(d, 'outside', 0)]).toEqual([1, 1, 1, 0, 0, 0]);
    const soft = [...maskWeights(d, 'inside', 2)];
    expect(soft.slice(0, 3)).toEqual([0, 0, 0]);
    expect(soft[3]).toBeCloseTo(0.5, 6);
    expect(soft.slice(4)).toEqual([1, 1]);
  });
});

describe('what is said of heights', () => {
  it('is right for a ramp, with empty places left out', () => {
    const z = Float32Array.from({ length: 2000 }, (_, i) => (i < 1000 ? NaN : (i - 1000) / 100 - 8));
    const f = heightFacts(z);
    expect(f.lowest).toBe(-8);
    expect(f.highest).toBeCloseTo(1.99, 5);
    expect(f.median).toBeCloseTo(-3.005, 1);
    expect(f.covered).toBe(0.5);
    expect(f.bands.reduce((a, b) => a + b)).toBe(1000);
    // Mostly level ground with one hill.
    expect(heightFacts(Float32Array.from([-5, -5, -5, -5, -4.999, 20])).median).toBeCloseTo(-5, 3);
    expect(heightFacts(new Float32Array(5).fill(NaN))).toMatchObject({ lowest: 0, highest: 0, covered: 0 });
    expect(heightFacts(new Float32Array(5).fill(-2))).toMatchObject({ lowest: -2, highest: -2, median: -2 });
  });
  it('tells how a relief lies in the thickness', () => {
    expect(fitOf({ lowest: -6, highest: -1 }, 10)).toMatchObject({ height: 5, above: 1, below: 4, trouble: null });
    expect(fitOf({ lowest: -6, highest: 0.5 }, 10).trouble).toBe('above');
    expect(fitOf({ lowest: -11, highest: -2 }, 10).trouble).toBe('below');
    expect(fitOf({ lowest: -11, highest: 2 }, 10).trouble).toBe('height');
    // A float's rounding is no trouble.
    expect(fitOf({ lowest: -10.00001, highest: 0.00001 }, 10).trouble).toBeNull();
  });
});

describe('what works on what is under it', () => {
  const put = (under: number[], to: number[], share: number, w: number[] | null = null) => {
    const u = Float32Array.from(under);
    adjust(u, Float32Array.from(to), share, w && Float32Array.from(w));
    return [...u];
  };
  it('counts by its strength and weights, and never for more than all', () => {
    expect(put([0, 8, E, 4], [4, 4, 4, E], 1)).toEqual([4, 4, 4, E]);
    expect(put([0, 8, E, 4], [4, 4, 4, E], 0.25)).toEqual([1, 7, E, 4]);
    expect(put([0, 8, E, 4], [4, 4, 4, E], 7)).toEqual([4, 4, 4, E]);
    expect(put([0, 0, 0, E, E, 6], [4, 4, 4, 4, 4, E], 1, [0, 0.5, 1, 0.4, 0.6, 0.5])).toEqual([0, 2, 4, E, 4, E]);
    expect(put([1, 2], [5, 6], 0)).toEqual([1, 2]);
  });
  it('is of a stack that is twice as high when all of it is', () => {
    const form = (kind: string, values: object) => freshForm(kind, kind, kind, values);
    const grid = gridOf(8, 8, 0.5);
    const at = (forms: Form[]) => {
      const u = new Float32Array(grid.cols * grid.rows).fill(NaN);
      for (const f of forms) {
        const kind = formKindOf(f.kind);
        const { z } = kind.evaluate(f.values, formContext(grid, { under: u }));
        if (kind.adjusts) adjust(u, z, f.strength, null);
        else lay(u, z, f, null);
      }
      return u;
    };
    const forms = [
      form('texture', { texture: 'stone', size: 3, depth: 2 }),
      form('denoise', { grain: 0.25, detail: 1 }),
      form('limit', { cap: -0.5, floor: -1.5 }),
      form('turned', { about: 'height', height: 0.25, mirror: 'y' }),
    ];
    for (let k = 1; k <= forms.length; k++) {
      const once = at(forms.slice(0, k));
      const twice = at(forms.slice(0, k).map((f) => scaledForm(f, 2)));
      twice.forEach((h, i) => expect(Math.abs(h - 2 * once[i])).toBeLessThan(1e-5));
    }
  });
});
