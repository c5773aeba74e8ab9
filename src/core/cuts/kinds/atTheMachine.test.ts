import { flatField } from '../../relief/field';
import { checks } from '../../proof/checks';
import { placeProgram } from '../../proof/placed';
import { datumOf } from '../../job/job';
import { PLUNGE, RAPID, type Motion } from '../../motion/motion';
import { circlePath, flatten } from '../../geometry/path';
import { normalise } from '../../geometry/region';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop } from '../../testing/shapes';

const downAlong = (m: Motion): number[] =>
  Array.from({ length: m.count }, (_, i) => i).filter(
    (i) =>
      i > 0 && m.kind[i] !== RAPID && m.z[i] < m.z[i - 1] - 1e-9 && (m.x[i] !== m.x[i - 1] || m.y[i] !== m.y[i - 1]),
  );

describe('at the machine', () => {
  const free = {
    cutter: 'flat-3',
    side: 'outside',
    through: true,
    tabs: { shape: 'rectangular', by: 'count', count: 4, spacing: 50, length: 6, height: 2, at: [] },
  };
  it('a profile goes down behind its tabs by a ramp, never straight into what stands, and no faster than twice the plunge', () => {
    const m = planOn(
      'profile',
      free,
      [box(10, 10, 70, 50)],
      { width: 80, height: 60, thickness: 6 },
      { stepDown: 1.5, feed: 2000, plunge: 300 },
    ).plan.toolpaths[0].motion;
    // Straight down only through the air, to the face.
    for (let i = 1; i < m.count; i++) if (m.kind[i] === PLUNGE) expect(m.z[i]).toBeGreaterThanOrEqual(0);
    const ramps = downAlong(m);
    // Four passes, and behind each tab of those that meet one.
    expect(ramps.length).toBeGreaterThan(8);
    for (const i of ramps) expect(m.feed[i]).toBeLessThanOrEqual(600);
    expect(Math.min(...m.z)).toBeCloseTo(-6, 9);
  });
  it('a V-carve much wider than its bit is roughed above its last level, says what its floor takes, and proposes an end mill', () => {
    const wide = normalise([box(5, 5, 75, 55)]);
    const { plan } = planOn(
      'vcarve',
      { cutter: 'v-6-60-0', limit: null },
      wide,
      { width: 80, height: 60, thickness: 12 },
      { stepDown: 1, stepOver: 0.1, feed: 1000 },
    );
    expect(plan.remarks.map((r) => r.text).join('\n')).toMatch(
      /takes about .* to clear the floor. Enter a depth limit and add an end mill/,
    );
    const m = plan.toolpaths[0].motion;
    const floors = new Map<string, number>();
    for (let i = 1; i < m.count; i++)
      if (m.kind[i] !== RAPID && m.z[i] === m.z[i - 1])
        floors.set(
          m.z[i].toFixed(3),
          (floors.get(m.z[i].toFixed(3)) ?? 0) + Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]),
        );
    const ways = [...floors].sort((a, b) => Number(a[0]) - Number(b[0])).map(([, way]) => way);
    expect(ways.length).toBeGreaterThan(3);
    for (const way of ways.slice(1)) expect(way).toBeLessThan(ways[0] / 2);
    expect(m.count).toBeLessThan(60000);
    // A floor without end is refused, and why.
    const endless = planOn(
      'vcarve',
      { cutter: 'v-6-60-0', limit: 1 },
      wide,
      { width: 80, height: 60, thickness: 12 },
      { stepOver: 0.001 },
    );
    expect(endless.plan.remarks).toContainEqual(
      expect.objectContaining({ level: 'problem', text: expect.stringMatching(/km to and fro/) }),
    );
  });
  it('a clamp is held against the cutter as wide as it is at the clamp’s height', () => {
    const { plan, job } = planOn(
      'vcarve',
      { cutter: 'v-12-60-0', limit: null },
      (tolerance) => normalise([flatten(circlePath(40, 30, 1.5), tolerance)]),
      { width: 80, height: 60, thickness: 12 },
    );
    const { text } = programOf(plan, job);
    job.cuts = [{ id: 'c', name: 'Dot', kind: 'vcarve', enabled: true, items: [], values: {}, overrides: {} }];
    const programs = [placeProgram('a.nc', text, datumOf(job.blank), ['c'])];
    const found = (gap: number, height: number) => {
      job.clamps = [{ x0: 40 + gap, y0: 25, x1: 50 + gap, y1: 35, height }];
      return checks
        .find((q) => q.id === 'clamps')!
        .run({
          job,
          programs,
          tools: new Map([[1, cutterOf('v-12-60-0')]]),
          plans: new Map([['c', plan]]),
          collisions: [],
          field: flatField(1, 1, 1),
        }).length;
    };
    // 2.6 mm deep at most beside a clamp of 4 mm: 6.6 mm up the bit is 3.8 mm thick to each side.
    expect(found(4.2, 4)).toBe(0);
    expect(found(3.5, 4)).toBe(1);
    // Where the clamp is higher than the bit is long, what holds it counts.
    expect(found(5.5, 9.5)).toBe(1);
  });
  it('the header says how arcs are meant, and calls the work offset where the dialect has one', () => {
    const { plan, job } = planOn('profile', { ...free, side: 'inside' }, [circleLoop(200, 15, 40, 30)], {
      width: 80,
      height: 60,
      thickness: 6,
    });
    expect(programOf(plan, job).text).toMatch(/\(I and J of arcs count from where the arc begins\)/);
    expect(programOf(plan, job, 'metric-length').text).toMatch(/G54[\s\S]*G91\.1/);
    expect(programOf(plan, job, 'metric').text).not.toMatch(/G91/);
  });
});
