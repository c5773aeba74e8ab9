import fc from 'fast-check';
import { cutGrid, type TestGrid } from '../../testing/grid';
import { readMoves, testShape, type TestMove } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop } from '../../testing/shapes';
import { flatField, heightAt, type HeightField } from '../../relief/field';
import { contains, type Region } from '../../geometry/region';
import { FEED } from '../../motion/motion';

const [WIDTH, HEIGHT, CELL] = [6, 5, 0.05];
const blank = { width: WIDTH, height: HEIGHT, thickness: 10 };
type Ground = (x: number, y: number) => number;

/** Grounds by their closed forms, mm from the top face. */
const grounds = {
  hemisphere: (x, y) => Math.max(-1.8, Math.sqrt(Math.max(0, 4 - (x - 3) ** 2 - (y - 2.5) ** 2)) - 2.1),
  wedge: (x) => -0.2 - 0.5 * Math.abs(x - 2.3),
  cosine: (x, y) => -1.2 + Math.cos(1.7 * x) * Math.cos(1.3 * y) * 0.7,
  pyramid: (x, y) => -Math.max(0.2, 0.8 * Math.max(Math.abs(x - 3), Math.abs(y - 2.5))),
  step: (x, y) => (x > 3.02 && y > 1.27 ? -0.3 : -1.6),
} satisfies Record<string, Ground>;
type GroundId = keyof typeof grounds;

function fieldOf(ground: Ground): HeightField {
  const f = flatField(WIDTH, HEIGHT, CELL);
  for (let r = 0, i = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++, i++) f.z[i] = ground(c * CELL, r * CELL);
  return f;
}
/** How steep a relief is about a place: what lies up and down is so many times as far as across. */
function lean(f: HeightField, x: number, y: number): number {
  const e = CELL / 2;
  const gx = (heightAt(f, x + e, y) - heightAt(f, x - e, y)) / (2 * e) || 0;
  const gy = (heightAt(f, x, y + e) - heightAt(f, x, y - e)) / (2 * e) || 0;
  return Math.sqrt(1 + gx * gx + gy * gy);
}

interface Made {
  readonly field: HeightField;
  readonly grid: TestGrid;
  readonly moves: readonly TestMove[];
  readonly tools: Record<number, ReturnType<typeof testShape>>;
  readonly remarks: readonly string[];
  readonly stays: (x: number, y: number) => number;
}

const emptyGrid = (cell: number): TestGrid => {
  const [cols, rows] = [Math.floor((WIDTH - 0.02) / cell), Math.floor((HEIGHT - 0.02) / cell)];
  // Nodes lie off those of the relief.
  return { cols, rows, cell, x0: 0.01, y0: 0.013, z: new Float64Array(cols * rows) };
};

/** What the tests' own machine makes of the program of a cut. */
function made(
  kind: string,
  values: Record<string, unknown>,
  ground: Ground,
  { region = [] as Region, cell = 0.067, presets = {} as Record<string, object> } = {},
): Made {
  const field = fieldOf(ground);
  const { plan, job, wanted } = planOn(kind, values, region, blank, (id) => presets[id] ?? {}, undefined, field);
  const { text, tools } = programOf(plan, job);
  const grid = emptyGrid(cell);
  const moves = readMoves(text);
  const shapes = Object.fromEntries(
    Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)]),
  );
  cutGrid(grid, moves, shapes);
  const w = wanted();
  return {
    field,
    grid,
    moves,
    tools: shapes,
    remarks: plan.remarks.map((r) => r.text),
    stays: (x, y) => (w.stays ?? w.surface)(x, y),
  };
}
const placeOf = (g: TestGrid, i: number): [x: number, y: number] => [
  g.x0 + (i % g.cols) * g.cell,
  g.y0 + Math.floor(i / g.cols) * g.cell,
];
/** Most that is cut into the relief, and its allowance, across its surface. */
function gouge({ field, grid }: Made, allowance = 0): number {
  let most = 0;
  grid.z.forEach((z, i) => {
    const [x, y] = placeOf(grid, i);
    const s = Math.min(0, heightAt(field, x, y));
    most = Math.max(most, (s - z) / lean(field, x, y) + (z < 0 ? allowance : 0));
  });
  return most;
}
/** Most that stands above what a cut says that it leaves; a little beside the place counts as the place. */
function over({ grid, stays }: Made): number {
  let most = 0;
  grid.z.forEach((z, i) => {
    const [x, y] = placeOf(grid, i);
    if (z - stays(x, y) <= most) return;
    const beside = Math.max(stays(x + 0.006, y), stays(x - 0.006, y), stays(x, y + 0.006), stays(x, y - 0.006));
    most = Math.max(most, z - Math.max(stays(x, y), beside));
  });
  return most;
}

const finishers = ['ball-1', 'taperedBall-6-0.25-5', 'bull-6-1', 'cone-3.175-15-0.2', 'v-6-60-0', 'flat-2'];
const patterns = ['rows', 'crossed', 'spiral', 'rings', 'slopes'];
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

  it.each(patterns.flatMap((p) => finishers.map((id) => [id, p] as const)))(
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
    const ridge = (pattern: string): number => {
      const m = made('reliefFinish', { ...values, pattern }, roof);
      expect(m.remarks).toEqual([]);
      expect(gouge(m)).toBeLessThan(0.005);
      expect(over(m)).toBeLessThan(0.01);
      let most = 0;
      m.grid.z.forEach((z, i) => {
        const [x, y] = placeOf(m.grid, i);
        const h = roof(x, y);
        if (h > -2.6 && h < -0.8 && y > 0.5 && y < 4.5) most = Math.max(most, (z - h) / Math.sqrt(10));
      });
      return most;
    };
    expect(ridge('slopes')).toBeLessThan(scallop + 0.003);
    // Rows lie sqrt(10) times as far apart there.
    expect(ridge('rows')).toBeGreaterThan(4 * scallop);
  });

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

  it('goes down no faster than it may where it is eased, and is as fast as ever where it is not', () => {
    const planned = (ease: string) => {
      const values = { cutters: ['ball-1'], stepOver: 0.3, ease };
      const { plan } = planOn('reliefFinish', values, [], blank, {}, undefined, fieldOf(grounds.step));
      const m = plan.toolpaths[0].motion;
      const ways: { down: number; feed: number; z: number }[] = [];
      for (let i = 1; i < m.count; i++) {
        const long = Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
        if (m.kind[i] === FEED && long > 1e-6)
          ways.push({ down: (m.z[i - 1] - m.z[i]) / long, feed: m.feed[i], z: m.z[i] });
      }
      return { ways, points: [...m.z.subarray(0, m.count)] };
    };
    const [off, gentle, strong] = ['off', 'gentle', 'strong'].map(planned);
    // The preset of the tests: along at 1000, down at 400.
    expect(off.ways.every((w) => w.feed === 1000)).toBe(true);
    for (const [{ ways, points }, most] of [
      [gentle, 600],
      [strong, 400],
    ] as const) {
      expect(points).toEqual(off.points);
      for (const w of ways) {
        expect(w.down * w.feed).toBeLessThanOrEqual(most + 1e-6);
        // No slower than it need be, but for the steps of the feed.
        if (w.feed < 1000) expect(w.down * (w.feed + 1000 / 8)).toBeGreaterThan(most - 1e-6);
      }
    }
    expect(gentle.ways.filter((w) => w.feed < 1000).length).toBeGreaterThan(5);
    expect(strong.ways.filter((w) => w.feed < 1000).length).toBeGreaterThan(20);
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
  });

  it('with a finer cutter goes over what the one before has left, and not over the rest', () => {
    const values = { cutters: ['ball-3', 'ball-1'], stepOver: 0.1, rest: 0.03 };
    const m = made('reliefFinish', values, grounds.step);
    const way = (tool: number) =>
      m.moves
        .filter((q) => q.tool === tool && !q.rapid && Math.min(q.a[2], q.b[2]) < 0)
        .reduce((sum, q) => sum + Math.hypot(q.b[0] - q.a[0], q.b[1] - q.a[1]), 0);
    expect(way(2)).toBeGreaterThan(5);
    expect(way(2)).toBeLessThan(0.7 * way(1));
    expect(gouge(m)).toBeLessThan(0.005);
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

/** Deepest that a cutter goes into what stands there, at once, mm. */
function engaged({ moves, tools }: Made): number {
  const grid = emptyGrid(0.1);
  let most = 0;
  for (const m of moves) {
    const before = grid.z.slice();
    cutGrid(grid, [m], tools);
    if (m.rapid) {
      if (before.some((z, i) => z - grid.z[i] > 1e-6)) throw new Error(`By rapid into material at ${m.b.join(' ')}`);
      continue;
    }
    // Straight down counts as any other way: what was there and is not now.
    before.forEach((z, i) => (most = Math.max(most, z - grid.z[i])));
  }
  return most;
}

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
});

describe('a boundary', () => {
  const region: Region = [circleLoop(90, 1.6, 3, 2.5)];
  const inside = (x: number, y: number, by = 0) => Math.hypot(x - 3, y - 2.5) < 1.6 + by;
  it.each(['reliefFinish', 'reliefRough'])(
    'holds the edge, or the middle, of a cutter of %s, or lets it roll over',
    (kind) => {
      const values = {
        cutters: ['ball-1'],
        where: 'inside',
        allowance: kind === 'reliefRough' ? 0.1 : 0,
        stepOver: 0.3,
      };
      const presets = { 'ball-1': { stepDown: 0.5 } };
      const edge = made(kind, { ...values, rim: 'edge' }, grounds.cosine, { region, presets });
      edge.grid.z.forEach((z, i) => {
        if (!inside(...placeOf(edge.grid, i), 0.006)) expect(z).toBeGreaterThan(-0.003);
      });
      const middle = made(kind, { ...values, rim: 'middle' }, grounds.cosine, { region, presets });
      for (const q of middle.moves) if (!q.rapid && q.b[2] < 0) expect(inside(q.b[0], q.b[1], 0.01)).toBe(true);
      const past = made(kind, { ...values, rim: 'over' }, grounds.cosine, { region, presets });
      expect(past.moves.some((q) => !q.rapid && !inside(q.b[0], q.b[1], 0.2))).toBe(true);
      // Whatever it is that holds it: what is wanted inside is cut.
      for (const m of [edge, middle, past]) expect(over(m)).toBeLessThan(0.02);
    },
  );
  it('keeps out of outlines as well', () => {
    const m = made('reliefFinish', { cutters: ['ball-1'], where: 'outside', stepOver: 0.3 }, grounds.wedge, { region });
    for (const q of m.moves) if (!q.rapid && q.b[2] < 0) expect(inside(q.b[0], q.b[1], -0.01)).toBe(false);
    expect(m.moves.filter((q) => !q.rapid).length).toBeGreaterThan(20);
  });
});

it('never goes by rapid through material, nor leaves its boundary, and ends lifted, over any ground', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(grounds) as GroundId[])),
      fc.constantFrom(...patterns),
      fc.constantFrom('reliefFinish', 'reliefRough'),
      fc.double({ min: 1.2, max: 3, noNaN: true }),
      fc.double({ min: 0, max: 180, noNaN: true }),
      (name, pattern, kind, width, angle) => {
        const region: Region = [box(3 - width, 2.5 - width / 2, 3 + width, 2.5 + width / 2)];
        const rough = kind === 'reliefRough';
        const values = {
          cutters: [rough ? 'flat-1' : 'ball-1'],
          where: 'inside',
          stepOver: 0.4,
          angle,
          pattern: rough ? (pattern === 'rows' ? 'hatch' : 'contours') : pattern,
        };
        const m = made(kind, values, grounds[name], { region, presets: { 'flat-1': { stepDown: 0.5 } } });
        engaged(m);
        for (const q of m.moves) {
          if (q.rapid || q.b[2] >= 0) continue;
          const near = [-0.01, 0.01].some((dx) =>
            [-0.01, 0.01].some((dy) => contains(region, q.b[0] + dx, q.b[1] + dy)),
          );
          expect(near).toBe(true);
        }
        if (m.moves.length) expect(m.moves[m.moves.length - 1].b[2]).toBeGreaterThan(1);
        expect(gouge(m)).toBeLessThan(0.005);
      },
    ),
    { numRuns: 12 },
  );
});

it('says so when there is no relief, or nothing of it within the boundary', () => {
  const plan = (values: object, field: HeightField | null, region: Region) =>
    planOn('reliefFinish', { cutters: ['ball-1'], ...values }, region, blank, {}, undefined, field).plan.remarks[0]
      .text;
  expect(plan({}, null, [])).toMatch(/no relief here/i);
  expect(
    plan(
      { where: 'inside' },
      fieldOf(() => -1),
      [box(20, 20, 30, 30)],
    ),
  ).toMatch(/within this boundary/);
  const rough = planOn(
    'reliefRough',
    { cutters: ['flat-2'], allowance: 2 },
    [],
    blank,
    {},
    undefined,
    fieldOf(() => -1),
  );
  expect(rough.plan.remarks[0].text).toMatch(/nothing to take away/);
});
