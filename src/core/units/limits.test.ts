import fc from 'fast-check';
import { real } from '../testing/real';
import { z } from 'zod';
import { itemKinds } from '../artwork/registry';
import { cutKinds } from '../cuts/registry';
import { cutterShapes } from '../cutters/registry';
import { getAt, setAt } from './fields';
import { heldWithin, limitsOf } from './limits';

describe('limits', () => {
  const schema = z.object({
    plain: z.number(),
    share: z.number().min(2).max(9).optional(),
    whole: z.number().int().min(1).max(4).default(2),
    tabs: z.object({ height: z.number().min(0.5).max(3).nullable() }),
    name: z.string(),
  });
  it('are those of the schema, however deep it stands and whatever else may stand there', () => {
    expect(limitsOf(schema, 'plain')).toEqual({});
    expect(limitsOf(schema, 'share')).toEqual({ min: 2, max: 9 });
    expect(limitsOf(schema, 'whole')).toEqual({ min: 1, max: 4 });
    expect(limitsOf(schema, 'tabs.height')).toEqual({ min: 0.5, max: 3 });
    expect(() => limitsOf(schema, 'name')).toThrow('no number "name"');
    expect(() => limitsOf(schema, 'tabs.width')).toThrow('no number "tabs.width"');
  });
  it('are held: numbers are brought within them however deep they stand, the rest stays', () => {
    const was = { tabs: { height: 7, other: 1 }, share: 5, name: 'Sluice', more: -9 };
    expect(heldWithin(schema, was)).toEqual({ tabs: { height: 3, other: 1 }, share: 5, name: 'Sluice', more: -9 });
    expect(heldWithin(schema, { share: -1, whole: 9, tabs: { height: null } })).toEqual({
      share: 2,
      whole: 4,
      tabs: { height: null },
    });
    expect(was.tabs.height).toBe(7);
  });
});

const kinds = [...cutKinds, ...itemKinds, ...cutterShapes].map((k) => ({
  id: k.id,
  schema: k.schema,
  fields: k.fields,
  values: (typeof k.defaults === 'function'
    ? k.defaults(
        { width: 100, height: 60, thickness: 12, material: 'brass', safeHeight: 5, clearance: 1, approach: 0.5 },
        [],
      )
    : k.defaults) as Record<string, unknown>,
}));

describe.each(kinds)('the fields of $id', ({ schema, fields, values }) => {
  it('have limits on both sides, take both, and nothing beyond', () => {
    for (const f of fields) {
      if (f.kind !== 'length' && f.kind !== 'number') continue;
      const says = (v: number) =>
        schema.safeParse(setAt(values, f.key, v)).error?.issues.some((i) => i.path.join('.') === f.key) ?? false;
      expect([f.key, f.min, f.max]).toEqual([f.key, expect.any(Number), expect.any(Number)]);
      fc.assert(
        fc.property(real(1e-6, 1e3), (by) => {
          const step = f.kind === 'number' && f.whole ? Math.ceil(by) : by;
          expect([says(f.min!), says(f.max!), says(f.min! - step), says(f.max! + step)]).toEqual([
            false,
            false,
            true,
            true,
          ]);
        }),
        { numRuns: 5 },
      );
      expect(getAt(values, f.key) ?? f.min).toBeGreaterThanOrEqual(f.min!);
    }
  });
});
