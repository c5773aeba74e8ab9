import {
  engaged,
  gouge,
  grounds,
  lean,
  made,
  over,
  placeOf,
  HEIGHT,
  WIDTH,
  type Ground,
  type Made,
} from '../../testing/reliefCuts';
import { heightAt } from '../../relief/field';

describe('a relief is roughed', () => {
  const presets = { 'flat-2': { stepDown: 0.45 }, 'flat-1': { stepDown: 0.3 }, 'bull-6-1': { stepDown: 0.5 } };
  it.each([
    ['flat-2', 'contours', 'hemisphere'],
    ['flat-2', 'hatch', 'cosine'],
    ['ball-2', 'contours', 'pyramid'],
    ['flat-1', 'contours', 'step'],
  ] as const)(
    'by %s in %s over a %s: the allowance stays, and nothing is taken deeper at once than the step-down',
    (id, pattern, name) => {
      const values = { cutters: [id], pattern, allowance: 0.15, stepOver: 0.6 };
      const down = (presets as Record<string, { stepDown: number }>)[id]?.stepDown ?? 0.4;
      const m = made('reliefRough', values, grounds[name], { presets: { [id]: { stepDown: down } } });
      expect(gouge(m, 0.15)).toBeLessThan(0.15 + 0.01);
      expect(over(m)).toBeLessThan(0.02);
      expect(engaged(m)).toBeLessThan(down + 0.01);
      expect(m.moves[m.moves.length - 1].b[2]).toBeGreaterThan(1);
    },
  );

  it('goes along the slopes after its levels: less of stairs is left, and no more is taken at once than the step-down', () => {
    const values = { cutters: ['ball-2', 'ball-1'], allowance: 0.2, stepDown: 0.5, stepOver: 0.2 };
    const [stairs, smooth] = [false, true].map((slopes) => made('reliefRough', { ...values, slopes }, grounds.cosine));
    expect(gouge(smooth, 0.2)).toBeLessThan(0.01);
    expect(engaged(smooth)).toBeLessThan(0.5 + 0.01);
    expect(smooth.remarks).toEqual(stairs.remarks);
    /** Mean of what stands above the allowance, away from the edge of the blank. */
    const above = ({ grid, field }: Made) => {
      const all = [...grid.z.keys()].flatMap((i) => {
        const [x, y] = placeOf(grid, i);
        const inside = x > 1 && x < WIDTH - 1 && y > 1 && y < HEIGHT - 1;
        return inside ? [Math.min(0, grid.z[i]) - heightAt(field, x, y) - 0.2 * lean(field, x, y)] : [];
      });
      return all.reduce((a, b) => a + b) / all.length;
    };
    expect(above(smooth)).toBeLessThan(0.8 * above(stairs));
  });

  it('gives a level floor a level of its own', () => {
    const m = made(
      'reliefRough',
      { cutters: ['flat-2'], allowance: 0.1, stepOver: 0.6 },
      (x) => (x > 3 ? -0.5 : -1.9),
      {
        presets: { 'flat-2': { stepDown: 0.8 } },
      },
    );
    const floor = m.grid.z.filter((_, i) => {
      const [x, y] = placeOf(m.grid, i);
      return x > 4.2 && x < 5.8 && y > 0.2 && y < 4.8;
    });
    expect(Math.max(...floor)).toBeCloseTo(-0.4, 2);
  });

  it('with a smaller cutter takes what the larger one left, and says when that finds nothing', () => {
    const slots: Ground = (x) => (x % 2 < 1.3 ? -1.5 : -0.2);
    const values = { cutters: ['flat-2', 'flat-1'], allowance: 0.05, stepOver: 0.5 };
    const m = made('reliefRough', values, slots, { presets });
    expect(m.moves.some((q) => q.tool === 2 && !q.rapid)).toBe(true);
    expect(gouge(m, 0.05)).toBeLessThan(0.06);
    expect(engaged(m)).toBeLessThan(0.46);
    const none = made('reliefRough', values, () => -1, { presets });
    expect(none.remarks.join()).toMatch(/finds nothing to do/);
  });

  it('begins at its start depth: nothing above that is gone through, and no more is taken at once than the step-down', () => {
    const values = { cutters: ['flat-1'], allowance: 0.1, stepOver: 0.4, startDepth: 0.6 };
    const options = { presets: { 'flat-1': { stepDown: 0.3 } }, top: -0.6 };
    for (const slopes of [false, true]) {
      const m = made('reliefRough', { ...values, slopes }, grounds.cosine, options);
      expect(m.remarks).toEqual([]);
      expect(engaged(m)).toBeLessThan(0.31);
      expect(gouge(m, 0.1)).toBeLessThan(0.11);
      expect(over(m)).toBeLessThan(0.02);
      // Along the slopes it goes on over what stands higher; its levels all lie lower.
      if (!slopes) expect(m.moves.filter((q) => !q.rapid && q.b[2] > -0.6 + 1e-6)).toEqual([]);
    }
    const low = made('reliefRough', { ...values, startDepth: 1.9 }, grounds.cosine, options);
    expect(low.moves.filter((q) => !q.rapid)).toEqual([]);
    expect(low.remarks.join()).toMatch(/nothing to take away below a start depth of 1.9 mm/);
  });
});
