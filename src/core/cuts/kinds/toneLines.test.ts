import { cutGrid, type TestGrid } from '../../testing/grid';
import { readMoves, testShape } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { toSegment } from '../../geometry/straight';
import { flatField } from '../../relief/field';

const [BAND, GREYS, HEIGHT, SPACING] = [2, 16, 10, 0.8];
const WIDTH = BAND * GREYS;
const blank = { width: WIDTH, height: HEIGHT, thickness: 8, material: 'brass' as const };
/** A step wedge: sixteen bands, each lower than the one before. */
const wedge = flatField(WIDTH, HEIGHT, 0.1);
for (let i = 0; i < wedge.z.length; i++)
  wedge.z[i] = -Math.min(GREYS - 1, Math.floor(((i % wedge.cols) * wedge.cell) / BAND + 1e-9)) / 10;

const values = { cutter: 'v-6-60-0', spacing: SPACING, lightest: 5, darkest: 90, angle: 0, limit: 3, land: 0.05 };
/** A line across the wedge that bends. */
const bent = Float64Array.from(
  Array.from({ length: 181 }, (_, k) => [0.2 * k - 2, HEIGHT / 2 + 0.5 * Math.sin(k / 25)]).flat(),
);
function drawn(more: object, field: typeof wedge | null = wedge, lines = [bent]) {
  const picked = lines.map((points) => ({ points, closed: false }));
  const { plan, job, wanted } = planOn('toneLines', { ...values, ...more }, [], blank, {}, picked, field);
  const remarks = plan.remarks.map((r) => r.text);
  if (!plan.toolpaths.length) return { remarks, share: () => NaN, off: () => NaN };
  const { text, tools } = programOf(plan, job);
  const cell = 0.04;
  const [cols, rows] = [Math.floor(WIDTH / cell), Math.floor(HEIGHT / cell)];
  const grid: TestGrid = { cols, rows, cell, x0: 0.013, y0: 0.017, z: new Float64Array(cols * rows) };
  cutGrid(
    grid,
    readMoves(text),
    Object.fromEntries(Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)])),
  );
  const each = (visit: (x: number, y: number, z: number) => void) =>
    grid.z.forEach((z, i) => visit(grid.x0 + (i % cols) * cell, grid.y0 + Math.floor(i / cols) * cell, z));
  /** Share of the area of a band that is cut, away from its neighbours, over whole lines. */
  const share = (band: number): number => {
    let [dark, all] = [0, 0];
    each((x, y, z) => {
      const u = x - band * BAND;
      if (u < 0.2 || u >= 0.2 + 2 * SPACING || y < 1 || y >= 1 + 10 * SPACING) return;
      all++;
      if (z < -1e-4) dark++;
    });
    return dark / all;
  };
  const off = (): number => {
    const w = wanted();
    let most = 0;
    each((x, y, z) => {
      if (x < 0.2 || y < 0.2 || x > WIDTH - 0.2 || y > HEIGHT - 0.2) return;
      most = Math.max(most, w.least!(x, y) - z, z - w.stays!(x, y));
    });
    return most;
  };
  return { remarks, share, off };
}

describe.each(['rows', 'waved', 'crossed', 'beside'])('tone lines that are %s', (pattern) => {
  const d = drawn({ pattern, wave: 8, swing: 0.5 });
  it('cut of each of sixteen greys the share of the area that it asks for', () => {
    const errors = Array.from({ length: GREYS }, (_, k) => Math.abs(d.share(k) - (0.05 + (0.85 * k) / (GREYS - 1))));
    expect(errors.reduce((a, b) => a + b) / GREYS).toBeLessThan(0.03);
    expect(Math.max(...errors)).toBeLessThan(0.06);
    expect(d.remarks).toEqual([]);
  });
  it('are what is wanted, within what one grey and the next differ by', () => {
    expect(d.off()).toBeLessThan(0.03);
  });
});

it('are the other way round where what is high is dark, and none where it is lighter than a tip', () => {
  const d = drawn({ dark: 'high' });
  expect(d.share(0)).toBeGreaterThan(0.8);
  expect(d.share(GREYS - 1)).toBeLessThan(0.1);
  const tip = drawn({ cutter: 'cone-3.175-30-0.2', lightest: 0, darkest: 60 });
  expect(tip.share(4)).toBe(0);
  expect(tip.share(0)).toBe(0);
  expect(tip.share(GREYS - 1)).toBeGreaterThan(0.5);
});

it('run as far from a picked line as they lie apart, and nowhere else', () => {
  const { plan } = planOn(
    'toneLines',
    { ...values, pattern: 'beside' },
    [],
    blank,
    {},
    [{ points: bent, closed: false }],
    wedge,
  );
  const { x, y, z, count } = plan.toolpaths[0].motion;
  let seen = 0;
  for (let i = 0; i < count; i++) {
    if (z[i] >= 0) continue;
    let near = Infinity;
    for (let k = 2; k < bent.length; k += 2)
      near = Math.min(near, toSegment(bent[k - 2], bent[k - 1], bent[k], bent[k + 1], x[i], y[i]));
    const lines = near / SPACING;
    expect(Math.abs(lines - Math.round(lines)) * SPACING).toBeLessThan(0.02);
    seen = Math.max(seen, Math.round(lines));
  }
  expect(seen).toBe(6);
  expect(drawn({ pattern: 'beside' }, wedge, []).remarks.join()).toMatch(/none is picked/);
});

it('say what they cannot: a dark that is too dark, lands that chip, a spacing without room, no relief', () => {
  expect(drawn({ darkest: 100, land: 0.3 }).remarks.join()).toMatch(/cut to 6[23] % instead of 100 %/);
  expect(drawn({ limit: 0.2, darkest: 90 }).remarks.join()).toMatch(/Go deeper/);
  const chips = planOn(
    'toneLines',
    { ...values, darkest: 90 },
    [],
    { ...blank, material: 'oak' },
    {},
    undefined,
    wedge,
  );
  expect(chips.plan.remarks.map((r) => r.text).join()).toMatch(/they chip/);
  expect(drawn({ cutter: 'cone-3.175-15-0.2', spacing: 0.2 }).remarks.join()).toMatch(/leave no room/);
  expect(drawn({}, null).remarks.join()).toMatch(/no relief here/i);
});
