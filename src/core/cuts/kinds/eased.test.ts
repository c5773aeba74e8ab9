import { FEED } from '../../motion/motion';
import { blank, fieldOf, HEIGHT, WIDTH, type Ground } from '../../testing/reliefCuts';
import { planOn } from '../../testing/job';

/** A stretch of a way by feed. mm, mm/min. */
interface Stretch {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly long: number;
  /** How much of its length it goes down. */
  readonly down: number;
  readonly feed: number;
}

/** The stretches of a cut over a ground, with the preset of the tests: along at 1000, down at 400. */
function stretchesOf(kind: string, values: Record<string, unknown>, ground: Ground): Stretch[] {
  const { plan } = planOn(kind, values, [], blank, {}, undefined, fieldOf(ground));
  const out: Stretch[] = [];
  for (const { motion: m } of plan.toolpaths)
    for (let i = 1; i < m.count; i++) {
      if (m.kind[i] !== FEED) continue;
      const long = Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]);
      const [x, y, z] = [m.x, m.y, m.z].map((a) => (a[i] + a[i - 1]) / 2);
      if (long > 1e-6) out.push({ x, y, z, long, down: (m.z[i - 1] - m.z[i]) / long, feed: m.feed[i] });
    }
  return out;
}
const total = (of: readonly Stretch[]) => of.reduce((sum, s) => sum + s.long, 0);
const finish = { cutters: ['ball-1'], stepOver: 0.2, lead: 0 };

describe('feeds of a finish are eased', () => {
  it('where it goes down faster than it may, and no further than need be', () => {
    const ground: Ground = (x) => -1.4 + 1.2 * Math.cos(0.8 * x);
    const planned = (ease: string) => stretchesOf('reliefFinish', { ...finish, ease }, ground);
    const [off, gentle, strong] = ['off', 'gentle', 'strong'].map(planned);
    expect(off.every((s) => s.feed === 1000)).toBe(true);
    for (const [ways, most] of [
      [gentle, 600],
      [strong, 400],
    ] as const) {
      expect(total(ways)).toBeCloseTo(total(off), 6);
      for (const s of ways) expect(s.down * s.feed).toBeLessThanOrEqual(most + 1e-6);
      // Beside a line that was cut no slower than it need be, but for the steps of the feed.
      const beside = ways.filter((s) => s.y > 0.3 && s.feed < 1000);
      for (const s of beside) expect(s.down * (s.feed + 1000 / 8)).toBeGreaterThan(most - 1e-6);
      expect(beside.length).toBeGreaterThan(20);
    }
  });

  it.each([
    ['gentle', 1000 * (5 / 8)],
    ['strong', 500],
  ])('%s in the first row, where nothing beside it has been cut, of each layer', (ease, slow) => {
    const values = { ...finish, ease, angle: 90 };
    const once = stretchesOf('reliefFinish', values, () => -1);
    const end = once.findIndex((s) => Math.abs(s.x - once[0].x) > 1e-6);
    const first = once.slice(0, end);
    expect(total(first)).toBeGreaterThan(HEIGHT - 0.1);
    for (const s of first) expect(s.feed).toBe(slow);
    const others = once.filter((s) => !first.includes(s));
    expect(total(others)).toBeGreaterThan(20 * HEIGHT);
    for (const s of others) expect(s.feed).toBe(1000);
    const { plan } = planOn(
      'reliefFinish',
      { ...values, layers: true },
      [],
      blank,
      () => ({ stepDown: 0.5 }),
      undefined,
      fieldOf(() => -1),
    );
    const m = plan.toolpaths[0].motion;
    const slowIn = new Set<number>();
    for (let i = 1; i < m.count; i++) if (m.kind[i] === FEED && m.feed[i] === slow) slowIn.add(m.z[i]);
    expect(slowIn.size).toBe(2);
  });

  it.each(['rows', 'spiral', 'rings', 'crossed'])('in %s only the first line is slow on the level', (pattern) => {
    const ways = stretchesOf('reliefFinish', { ...finish, ease: 'strong', pattern, angle: 30 }, () => -1);
    const slow = ways.filter((s) => s.feed < 1000);
    expect(total(slow)).toBeGreaterThan(0.03);
    // As long as a row, or the first turns.
    expect(total(slow)).toBeLessThan(1.5 * (WIDTH + HEIGHT));
    expect(total(slow)).toBeLessThan(0.08 * total(ways));
  });

  it('in a crease, and nowhere else on its walls', () => {
    const ground: Ground = (x) => -2 + 0.9 * Math.abs(x - 3);
    for (const angle of [0, 90]) {
      const ways = stretchesOf('reliefFinish', { ...finish, ease: 'strong', angle }, ground);
      const inside = ways.filter((s) => s.y > 0.5 && s.x > 0.5 && s.x < 4.9);
      // Walls of 42 degrees stand at 84 to each other: each is met by itself.
      // Along it, or a stretch across it.
      const near = angle ? 0.03 : 0.1;
      const creased = inside.filter((s) => Math.abs(s.x - 3) < near && (angle > 0 || s.long < 0.3));
      for (const s of creased) expect(s.feed).toBeLessThanOrEqual(625);
      expect(creased.length).toBeGreaterThan(0);
      const aside = inside.filter((s) => Math.abs(s.x - 3) > 0.45 && s.down < 0.4);
      expect(total(aside)).toBeGreaterThan(20);
      expect(aside.filter((s) => s.feed !== 1000)).toEqual([]);
    }
  });
});

describe('feeds of a roughing are eased', () => {
  it('in the first line of each level and in corners; the way is the same', () => {
    const values = { cutters: ['flat-2'], stepOver: 0.4, entry: 'plunge', allowance: 0.1 };
    const pit: Ground = (x, y) => (Math.max(Math.abs(x - 3) / 2.6, Math.abs(y - 2.5) / 2.1) < 1 ? -1.4 : 0);
    const planned = (ease: string) => stretchesOf('reliefRough', { ...values, ease }, pit);
    const [off, gentle, strong] = ['off', 'gentle', 'strong'].map(planned);
    expect(off.every((s) => s.feed === 1000)).toBe(true);
    for (const ways of [gentle, strong]) expect(total(ways)).toBeCloseTo(total(off), 6);
    // Beside a line 0.4 away a disc of radius 1 has 53 of 180 degrees in material.
    const usual = Math.acos(0.6) / Math.PI;
    for (const z of new Set(strong.map((s) => s.z))) {
      const [is, was] = [strong, gentle].map((ways) => ways.filter((s) => s.z === z));
      expect(is[0].feed).toBe(1000 * Math.max(0.25, Math.floor(8 * usual) / 8));
      expect(was[0].feed).toBe(1000 * (Math.floor(8 * Math.sqrt(usual)) / 8));
      // Along the middle of the sides of the last line nothing is hard.
      const sides = is.filter((s) => Math.abs(s.x - 3) < 0.5 && Math.abs(s.y - 2.5) > 0.8);
      expect(sides.length).toBeGreaterThan(0);
      for (const s of sides) expect(s.feed).toBe(1000);
    }
  });
});
