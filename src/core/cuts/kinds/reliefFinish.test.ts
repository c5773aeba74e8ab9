import {
  emptyGrid,
  engaged,
  gouge,
  grounds,
  lean,
  made,
  over,
  placeOf,
  type Ground,
  type GroundId,
  finishPatterns,
} from '../../testing/reliefCuts';
import { cutGrid } from '../../testing/grid';
import { heightAt } from '../../relief/field';
import { thickness } from '../../relief/thickness';

const finishers = ['ball-1', 'taperedBall-6-0.25-5', 'bull-6-1', 'cone-3.175-15-0.2', 'v-6-60-0', 'flat-2'];
/** Across a wall as steep as that of the step a node stands for more than itself. */
const STEEP: Partial<Record<GroundId, number>> = { step: 0.02, hemisphere: 0.02 };

function finishes(id: string, pattern: string, name: GroundId): void {
  const m = made('reliefFinish', { cutters: [id], stepOver: 0.2, pattern, angle: 30 }, grounds[name]);
  const what = `${id}, ${pattern}, ${name}`;
  if (gouge(m) > 0.005) throw new Error(`${what}: cut ${gouge(m)} too deep`);
  if (over(m) > (STEEP[name] ?? 0.01)) throw new Error(`${what}: ${over(m)} stands too high`);
  expect(m.remarks).toEqual([]);
}

describe('a relief is finished', () => {
  it.each([
    ['ball-1', 'rows', 'hemisphere'],
    ['taperedBall-6-0.25-5', 'spiral', 'cosine'],
    ['cone-3.175-15-0.2', 'rings', 'pyramid'],
    ['flat-2', 'crossed', 'wedge'],
    ['bull-6-1', 'rows', 'step'],
    ['taperedBall-6-0.25-5', 'slopes', 'step'],
  ] as const)('by %s in %s over a %s: nothing is cut too deep, and no more left than it says', finishes);

  it.each(finishPatterns.flatMap((p) => finishers.map((id) => [id, p] as const)))(
    '(long) by %s in %s over every ground',
    (id, pattern) => {
      for (const name of Object.keys(grounds) as GroundId[]) finishes(id, pattern, name);
    },
    300_000,
  );

  it('says what a groove keeps of a ball: what a round leaves in a corner, and no more than its ridges', () => {
    // A groove whose sides rise by 0.5: a ball stands sqrt(1.25) - 1 of its radius above the bottom.
    const m = made(
      'reliefFinish',
      { cutters: ['ball-2'], stepOver: 0.05, angle: 90 },
      (x) => -2 + 0.5 * Math.abs(x - 3),
    );
    const meant = -2 + Math.sqrt(1.25) - 1;
    expect(m.stays(3, 2.5)).toBeGreaterThan(meant - 0.002);
    expect(m.stays(3, 2.5)).toBeLessThan(meant + 0.03);
    // On its sides nothing stays but ridges.
    expect(m.stays(1.5, 2.5)).toBeLessThan(-1.25 + 0.03);
  });

  it.each(['rows', 'spiral', 'rings'])(
    'in %s that wander is cut nowhere too deep, and no more left than it says',
    (pattern) => {
      const wander = { wander: true, wave: 3, swing: 0.1, lift: 0.05, chance: 50, seed: 4 };
      const m = made('reliefFinish', { cutters: ['ball-2'], stepOver: 0.2, pattern, ...wander }, grounds.cosine);
      expect(gouge(m)).toBeLessThan(0.005);
      expect(over(m)).toBeLessThan(0.01);
      expect(m.remarks).toEqual([]);
      // It does wander: without it the same places stand at other heights.
      const straight = made('reliefFinish', { cutters: ['ball-2'], stepOver: 0.2, pattern }, grounds.cosine);
      expect(m.grid.z.filter((z, i) => Math.abs(z - straight.grid.z[i]) > 0.01).length).toBeGreaterThan(500);
    },
  );

  it('on steep ground goes round at heights: it leaves no more there than rows leave on the level', () => {
    // A roof of 71 degrees with a level verge, and rows along its ridge.
    const roof: Ground = (x) => Math.min(-0.4, Math.max(-3.5, 1.2 - 3 * Math.abs(x - 3)));
    const step = 0.2;
    const values = { cutters: ['ball-1'], stepOver: step, angle: 90, rim: 'over' };
    const round = 0.5;
    const scallop = round - Math.sqrt(round ** 2 - (step / 2) ** 2);
    /** Highest ridge on the slope, across it, away from its ends. */
    const ridge = (pattern: string): { is: number; said: number } => {
      const m = made('reliefFinish', { ...values, pattern }, roof);
      expect(m.remarks).toEqual([]);
      expect(gouge(m)).toBeLessThan(0.005);
      expect(over(m)).toBeLessThan(0.01);
      const most = { is: 0, said: 0 };
      m.grid.z.forEach((z, i) => {
        const [x, y] = placeOf(m.grid, i);
        const h = roof(x, y);
        if (h > -2.6 && h < -0.8 && y > 0.5 && y < 4.5) {
          most.is = Math.max(most.is, (z - h) / Math.sqrt(10));
          most.said = Math.max(most.said, (m.stays(x, y) - h) / Math.sqrt(10));
        }
      });
      return most;
    };
    const levels = ridge('slopes');
    expect(levels.is).toBeLessThan(scallop + 0.003);
    // Two rounds one of which stands so much higher, on a slope of 3: as far apart as that is long.
    const long = (step / Math.SQRT2) * Math.hypot(1, 1 / 3);
    expect(levels.said).toBeCloseTo(round - Math.sqrt(round ** 2 - (long / 2) ** 2), 3);
    // Rows lie sqrt(10) times as far apart there.
    expect(ridge('rows').is).toBeGreaterThan(4 * scallop);
    expect(ridge('rows').said).toBeGreaterThan(4 * scallop);
  });

  it.each(['a valley', '(long) a valley with a floor', 'a narrow terrace', '(long) a terrace'])(
    'on steep ground rows cross the bottom of %s, however they run: no more is left there than between rows',
    (what) => {
      const steep = 2.7;
      const half = what.includes('floor') ? 0.15 : what.includes('narrow') ? 0.05 : what.includes('terrace') ? 0.25 : 0;
      const aside = (x: number) => Math.max(0, Math.abs(x - 3.02) - half);
      const ground: Ground = what.includes('valley')
        ? (x) => Math.min(-0.5, -2.9 + steep * aside(x))
        : (x) => Math.max(-3, Math.min(-0.3, -1.5 - Math.sign(x - 3.02) * steep * aside(x)));
      const step = 0.2;
      const values = { cutters: ['ball-1'], rim: 'over' };
      const fine = made('reliefFinish', { ...values, stepOver: 0.04, pattern: 'crossed', angle: 45 }, ground);
      for (const angle of [0, 90, 30]) {
        const turn = (angle * Math.PI) / 180;
        const apart = step / Math.max(Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn)));
        const scallop = 0.5 - Math.sqrt(0.25 - (apart / 2) ** 2);
        const m = made('reliefFinish', { ...values, stepOver: step, pattern: 'slopes', angle }, ground);
        expect(gouge(m)).toBeLessThan(0.005);
        expect(over(m)).toBeLessThan(0.01);
        let most = 0;
        m.grid.z.forEach((z, i) => {
          const [x, y] = placeOf(m.grid, i);
          if (Math.abs(x - 3) < 0.6 && y > 0.6 && y < 4.4) most = Math.max(most, z - fine.grid.z[i]);
        });
        expect(most).toBeLessThan(scallop * Math.sqrt(1 + steep * steep) + 0.003);
      }
    },
  );

  it('comes down along the surface, at 45 degrees at first and less and less, or straight where it is asked to', () => {
    const ground: Ground = (x) => -1.5 + 0.1 * x;
    const above = ([x, y, z]: readonly number[]) => z - ground(x, y) - 0.0025;
    /** Moves after the cutter has come straight down, until the surface is met. */
    const entries = (lead: number) => {
      const values = { cutters: ['ball-1'], stepOver: 0.5, direction: 'one', ease: 'off', lead };
      const m = made('reliefFinish', values, ground);
      expect(gouge(m)).toBeLessThan(0.005);
      expect(over(m)).toBeLessThan(0.01);
      return m.moves.flatMap(({ rapid, a, b }, i) => {
        if (rapid || b[2] >= a[2] || Math.hypot(b[0] - a[0], b[1] - a[1]) > 1e-6) return [];
        const way = m.moves.slice(i + 1);
        return [way.slice(0, way.findIndex((q) => above(q.b) < 0.005) + 1)];
      });
    };
    const lead = 0.8;
    const led = entries(lead);
    expect(led.length).toBeGreaterThan(5);
    for (const way of led) {
      expect(above(way[0].a)).toBeCloseTo(lead / 2, 2);
      const long = way.reduce((s, { a, b }) => s + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);
      expect(long).toBeGreaterThan(0.85 * lead);
      expect(long).toBeLessThan(1.001 * lead);
      const falls = way.map(({ a, b }) => (above(a) - above(b)) / Math.hypot(b[0] - a[0], b[1] - a[1]));
      expect(falls[0]).toBeGreaterThan(0.8);
      expect(falls[0]).toBeLessThan(1.001);
      for (let i = 1; i < falls.length; i++) expect(falls[i]).toBeLessThan(falls[i - 1] + 1e-3);
    }
    const straight = entries(0);
    expect(straight).toHaveLength(led.length);
    for (const way of straight) expect(above(way[0].a)).toBeLessThan(0.005);
  });

  it('keeps an allowance across the surface', () => {
    const m = made('reliefFinish', { cutters: ['ball-2'], stepOver: 0.1, allowance: 0.2 }, grounds.cosine);
    // The nearest place of the cut surface to the relief: across a slope, not above it.
    let nearest = Infinity;
    m.grid.z.forEach((z, i) => {
      const [x, y] = placeOf(m.grid, i);
      const away = Math.min(0, z) - heightAt(m.field, x, y);
      nearest = Math.min(nearest, away / lean(m.field, x, y));
    });
    expect(nearest).toBeGreaterThan(0.18);
    expect(nearest).toBeLessThan(0.205);
  });

  it('in layers takes no more at once than the step-down, and ends as it does without', () => {
    const values = { cutters: ['ball-2'], stepOver: 0.3, layers: true };
    const m = made('reliefFinish', values, grounds.pyramid, { presets: { 'ball-2': { stepDown: 0.6 } } });
    expect(engaged(m)).toBeLessThan(0.6 + 0.01);
    expect(gouge(m)).toBeLessThan(0.005);
    expect(over(m)).toBeLessThan(0.01);
    // What another cut has taken needs no layers: they begin below it.
    const begun = made('reliefFinish', { ...values, startDepth: 1 }, grounds.pyramid, {
      presets: { 'ball-2': { stepDown: 0.6 } },
      top: -1,
    });
    expect(engaged(begun)).toBeLessThan(0.6 + 0.01);
    expect(gouge(begun)).toBeLessThan(0.005);
    expect(over(begun)).toBeLessThan(0.01);
    expect(begun.moves.length).toBeLessThan(0.8 * m.moves.length);
  });

  it.each([0, 0.2])(
    'with a finer cutter goes over what the one before has left, and not over the rest; allowance %d',
    (allowance) => {
      const values = { cutters: ['ball-3', 'ball-1'], stepOver: 0.1, rest: 0.03, allowance };
      const m = made('reliefFinish', values, grounds.step);
      const way = (tool: number) =>
        m.moves
          .filter((q) => q.tool === tool && !q.rapid && Math.min(q.a[2], q.b[2]) < 0)
          .reduce((sum, q) => sum + Math.hypot(q.b[0] - q.a[0], q.b[1] - q.a[1]), 0);
      expect(way(2)).toBeGreaterThan(5);
      expect(way(2)).toBeLessThan(0.7 * way(1));
      expect(gouge(m)).toBeLessThan(0.005);
      expect(over(m)).toBeLessThan(0.02);
    },
  );

  it.each([
    ['step', 'ball-3', 'ball-1', 0.03],
    // It stands further from the wall than what is left there is wide.
    ['step', 'ball-6', 'flat-3', 0.3],
    ['pyramid', 'flat-3', 'cone-3.175-15-0.2', 0.05],
    ['step', 'taperedBall-6-1-7', 'taperedBall-6-0.25-5', 0.05],
  ] as const)(
    'over a %s, by %s and a finer %s, is left as by that alone, short of %d mm across',
    (name, wide, fine, rest) => {
      const by = (...cutters: string[]) =>
        made('reliefFinish', { cutters, stepOver: 0.1, rest }, grounds[name], { cell: 0.1 });
      const [two, alone] = [by(wide, fine), by(fine)];
      expect(gouge(two)).toBeLessThan(0.005);
      expect(over(two)).toBeLessThan(0.02);
      const f = { ...alone.grid, z: Float32Array.from(alone.grid.z) };
      const meant = (x: number, y: number) => heightAt(f, x, y);
      let most = 0;
      two.grid.z.forEach((z, i) => {
        const more = z - alone.grid.z[i];
        if (more > rest) most = Math.max(most, thickness(meant, ...placeOf(two.grid, i), z, more, 0.01));
      });
      expect(most).toBeLessThan(1.05 * rest);
    },
  );

  it('with a finer cutter goes nowhere where that would take next to nothing, however high what stays there is', () => {
    // Two wedges of one angle leave the same beside a wall: as thick at its foot as high times tan 30 degrees.
    const values = { cutters: ['v-12-60-0', 'v-6-60-0'], stepOver: 0.1, rest: 0.05 };
    const m = made('reliefFinish', values, grounds.step);
    expect(m.remarks).toEqual([
      'V-bit 60\u00b0 6 mm finds nothing to do: nowhere would it take more than 0.05 mm of what the one before leaves.',
    ]);
    expect(m.moves.filter((q) => q.tool === 2)).toEqual([]);
    expect(over(m)).toBeLessThan(0.02);
  });

  it('is said to leave what it leaves when a band of it is missing', () => {
    const m = made('reliefFinish', { cutters: ['ball-1'], stepOver: 0.2 }, grounds.cosine);
    const grid = emptyGrid(0.067);
    cutGrid(
      grid,
      m.moves.filter((q) => q.a[1] < 2 || q.a[1] > 2.9),
      m.tools,
    );
    expect(over({ ...m, grid })).toBeGreaterThan(0.05);
  });
});
