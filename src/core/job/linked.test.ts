import fc from 'fast-check';
import { real } from '../testing/real';
import { newItem, placeItem, type Item } from '../artwork/item';
import { flatten } from '../geometry/path';
import { cutKey, planCut } from '../pipeline/planning';
import { freshCut } from '../cuts/fresh';
import { testArt } from '../testing/fonts';
import { library } from '../testing/job';
import { withCopy, withNewSetup, withoutSetup, withPlace } from './allSetups';
import { demoJobs } from './demo';
import { jobSchema, type Job } from './job';
import { canBeLinked, facing, hasSource, lostLinks, ownItem, withLinks } from './linked';
import { eachSetup, jobOf, newJob, oneSetup, setupWith, withSetup } from './oneSetup';

let ids = 0;
const freshId = () => `f${++ids}`;
/** A shape without any symmetry, so that a flip or a turn the wrong way is seen. */
const flag = (at: Partial<Item> = {}): Item =>
  newItem({
    id: 'flag',
    name: 'Flag',
    kind: 'drawing',
    values: {
      fill: 'nonzero',
      paths: [
        {
          x: 1,
          y: -2,
          closed: true,
          segments: [
            { k: 'line', x: 9, y: -2 },
            { k: 'line', x: 4, y: 7 },
          ],
        },
      ],
    },
    ...at,
  });
const W = 120;
const H = 70;
/** A front with a flag, and its other face. */
function twoFaces(
  turned: 'x' | 'y' | 'none' | 'blank',
  at: Partial<Item> = {},
): { job: Job; front: string; back: string } {
  const start = newJob('Lock 7');
  const front = start.setups[0].id;
  const one = oneSetup(start);
  const drawn = withSetup(start, { ...one, blank: { ...one.blank, width: W, height: H }, items: [flag(at)] });
  const { job, id } = withNewSetup(drawn, front, turned, freshId);
  return { job, front, back: id };
}
const linked = (job: Job, into: string) => withLinks(job, into, oneSetup(job).items, freshId).job;
const cornersOf = (i: Item): number[][] => {
  const l = flatten(placeItem(i, testArt).paths[0], 0.01);
  return Array.from({ length: l.length / 2 }, (_, k) => [l[2 * k], l[2 * k + 1]]);
};
const close = (a: number[][], b: number[][]) => {
  expect(a.length).toBe(b.length);
  a.forEach((p, k) => p.forEach((v, n) => expect(v).toBeCloseTo(b[k][n], 8)));
};
const mm = real(-200, 200);
const place = fc.record({ x: mm, y: mm, angle: fc.constantFrom(0, 30, 45, 90, 137.5, 180, -90), mirror: fc.boolean() });
const turns = fc.constantFrom('x' as const, 'y' as const, 'none' as const, 'blank' as const);

describe('linked artwork', () => {
  it('lies where its source lies on the blank, seen from the other face, wherever that is placed', () => {
    fc.assert(
      fc.property(turns, place, (turned, at) => {
        const { job, back } = twoFaces(turned, at);
        const there = cornersOf(flag(at));
        const [link] = oneSetup(linked(job, back), back).items;
        const through = { x: ([x, y]: number[]) => [x, H - y], y: ([x, y]: number[]) => [W - x, y] };
        close(cornersOf(link), turned === 'x' || turned === 'y' ? there.map(through[turned]) : there);
      }),
    );
  });
  it('follows what is changed at its source, and keeps the distance that it was moved by', () => {
    fc.assert(
      fc.property(fc.constantFrom('x' as const, 'y' as const), place, mm, mm, (turned, at, dx, dy) => {
        const { job, front, back } = twoFaces(turned, at);
        let j = linked(job, back);
        const before = oneSetup(j, back);
        const was = cornersOf(before.items[0]);
        j = withSetup(j, { ...before, items: before.items.map((i) => ({ ...i, x: i.x + dx, y: i.y + dy })) });
        close(
          cornersOf(oneSetup(j, back).items[0]),
          was.map(([x, y]) => [x + dx, y + dy]),
        );
        const source = oneSetup(j, front);
        j = withSetup(j, { ...source, items: source.items.map((i) => ({ ...i, x: i.x + 3, y: i.y - 4 })) });
        const [sx, sy] = turned === 'x' ? [3, 4] : [-3, -4];
        close(
          cornersOf(oneSetup(j, back).items[0]),
          was.map(([x, y]) => [x + dx + sx, y + dy + sy]),
        );
      }),
    );
  });
  it('is turned, mirrored and scaled about its own place', () => {
    const { job, back } = twoFaces('y', { x: 30, y: 20 });
    const j = linked(job, back);
    const one = oneSetup(j, back);
    const by = (change: Partial<Item>) =>
      cornersOf(oneSetup(withSetup(j, { ...one, items: [{ ...one.items[0], ...change }] }), back).items[0]);
    const [cx, cy] = [W - 30, 20];
    const flat = [
      [1, -2],
      [9, -2],
      [4, 7],
    ];
    close(
      by({}),
      flat.map(([x, y]) => [cx - x, cy + y]),
    );
    close(
      by({ angle: 90 }),
      flat.map(([x, y]) => [cx - y, cy - x]),
    );
    close(
      by({ mirror: true }),
      flat.map(([x, y]) => [cx + x, cy + y]),
    );
    close(
      by({ values: { ...one.items[0].values, wide: 200, high: 50 } }),
      flat.map(([x, y]) => [cx - 2 * x, cy + y / 2]),
    );
    close(
      by({ values: { ...one.items[0].values, through: false } }),
      flat.map(([x, y]) => [30 + x, 20 + y]),
    );
  });
  it('is kept without its source, and a job with links is sound in memory and in a file', () => {
    fc.assert(
      fc.property(turns, place, (turned, at) => {
        const { job, back } = twoFaces(turned, at);
        const j = linked(job, back);
        for (const one of eachSetup(j)) {
          expect(withSetup(j, one)).toBe(j);
          expect(jobOf(one).setups[0].items.every((i) => !('source' in i.values))).toBe(true);
        }
        const one = oneSetup(j, back);
        expect(withSetup(j, { ...one, items: [...one.items] })).toBe(j);
        const moved = withSetup(j, {
          ...one,
          items: [
            { ...one.items[0], x: one.items[0].x + 1 },
            { ...one.items[0], id: freshId() },
          ],
        });
        expect(setupWith(moved, back).items.every((i) => !('source' in i.values))).toBe(true);
        // A copy beside it lies where it lies.
        close(cornersOf(oneSetup(moved, back).items[1]), cornersOf(one.items[0]));
        expect(jobSchema.safeParse(JSON.parse(JSON.stringify(moved))).error).toBeUndefined();
      }),
    );
  });
  it('is the same object as long as nothing that it shows has changed, so that nothing is worked out anew', () => {
    const { job, front, back } = twoFaces('y');
    const j = linked(job, back);
    const source = oneSetup(j, front);
    const other = withSetup(j, { ...source, items: [...source.items, { ...flag(), id: 'another' }], notes: 'Oil it.' });
    expect(oneSetup(other, back).items).toBe(oneSetup(j, back).items);
    const wider = withSetup(j, { ...source, blank: { ...source.blank, width: W + 10 } });
    expect(oneSetup(wider, back).items[0].x).toBe(oneSetup(j, back).items[0].x + 10);
  });
  it('has its cuts planned anew when its source changes, and a problem by name when that is gone', () => {
    const { job, front, back } = twoFaces('y', { x: 30, y: 20 });
    let j = linked(job, back);
    const one = oneSetup(j, back);
    const values = freshCut('area', one.blank, 'mm', library);
    const cut = {
      id: 'c',
      name: 'Clear',
      kind: 'area',
      enabled: true,
      items: [one.items[0].id],
      values,
      overrides: {},
    };
    j = withSetup(j, { ...one, cuts: [cut], cutters: library });
    const key = () => cutKey(oneSetup(j, back), cut);
    const before = key();
    const source = oneSetup(j, front);
    j = withSetup(j, { ...source, items: [{ ...source.items[0], y: 25 }] });
    expect(key()).not.toBe(before);
    j = withSetup(j, { ...oneSetup(j, front), items: [] });
    expect(lostLinks(j).map((l) => l.item.id)).toEqual(cut.items);
    const plan = planCut(oneSetup(j, back), cut, testArt);
    expect(plan.remarks.map((r) => r.text).join()).toContain('"Flag": What this follows is no longer in the job');
  });
  it('made its own shows the same and follows nothing', () => {
    fc.assert(
      fc.property(turns, place, place, (turned, at, link) => {
        const { job, back } = twoFaces(turned, at);
        const j = linked(job, back);
        const one = oneSetup(j, back);
        const shown = { ...one.items[0], angle: link.angle, mirror: link.mirror };
        const own = ownItem(shown)!;
        close(cornersOf(own), cornersOf(shown));
        expect(own.kind).toBe('drawing');
        const alone = withSetup(j, { ...one, items: [own] });
        expect(lostLinks(withoutSetup(alone, alone.setups[0].id))).toEqual([]);
      }),
    );
  });
  it('follows its source over set-ups that are copied, moved and taken out', () => {
    const { job, front, back } = twoFaces('y', { x: 10, y: 10 });
    const j = linked(job, back);
    const copied = withCopy(j, back, freshId);
    const copy = setupWith(copied.job, copied.id).items[0];
    expect(hasSource(copied.job, copy)).toBe(true);
    expect(oneSetup(copied.job, copied.id).items[0].x).toBe(W - 10);
    expect(withPlace(j, back, 0)).toBe(j);
    expect(lostLinks(withoutSetup(j, front)).length).toBe(1);
    expect(lostLinks(withoutSetup(j, back)).length).toBe(0);
  });
  it('counts every turn between two set-ups, and none between blanks', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('x' as const, 'y' as const, 'none' as const), { maxLength: 6 }), (list) => {
        let { job, front } = twoFaces('blank');
        const first = front;
        for (const t of list) ({ job, id: front } = withNewSetup(job, front, t, freshId));
        const odd = (t: string) => (list.filter((q) => q === t).length % 2 ? -1 : 1);
        const [from, to] = [setupWith(job, first), setupWith(job, front)];
        expect(facing(job, from, to)).toEqual({ x: odd('y'), y: odd('x') });
        const elsewhere = job.setups.find((s) => s.blank !== from.blank)!;
        expect(facing(job, from, elsewhere)).toEqual({ x: 1, y: 1 });
      }),
    );
  });
  it('is made of what is cut and is no link itself', () => {
    expect(canBeLinked(flag())).toBe(true);
    const { job, back } = twoFaces('y');
    const [link] = oneSetup(linked(job, back), back).items;
    expect(canBeLinked(link)).toBe(false);
    expect(withLinks(job, back, [link], freshId).ids).toEqual([]);
  });
});

describe('the demo job with a back', () => {
  it('shows the edge of the plate on its back where it is parted from the front', () => {
    const job = demoJobs['keeper-plate']();
    const [back, front] = eachSetup(job);
    const edge = back.items.find((i) => i.kind === 'linked')!;
    const source = front.items.find((i) => i.id === 'i-edge')!;
    const { width } = front.blank;
    const seen = cornersOf(edge).map(([x]) => x);
    const there = cornersOf(source).map(([x]) => width - x);
    expect(Math.min(...seen)).toBeCloseTo(Math.min(...there), 8);
    expect(Math.max(...seen)).toBeCloseTo(Math.max(...there), 8);
  });
});
