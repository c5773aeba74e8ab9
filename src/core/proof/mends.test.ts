import { newItem } from '../artwork/item';
import { nodeCount } from '../artwork/nodes';
import type { Path } from '../geometry/path';
import { kindOf } from '../cuts/registry';
import { demoSetups } from '../job/demo';
import { mends } from './mends';

let given = 0;
const freshId = () => `new ${given++}`;

/** A circle of many short lines about cx, cy. */
const fine = (cx: number, cy: number, n = 2000): Path => ({
  x: cx + 5,
  y: cy,
  segments: Array.from({ length: n }, (_, i) => ({
    k: 'line' as const,
    x: cx + 5 * Math.cos((2 * Math.PI * (i + 1)) / n),
    y: cy + 5 * Math.sin((2 * Math.PI * (i + 1)) / n),
  })),
  closed: true,
});

test('a floor that takes hours gets the end mill nearest to the usual one, from the job or the library, and a limit', () => {
  const job = demoSetups['lock-cottage-board']();
  const cut = { ...job.cuts.find((c) => c.kind === 'vcarve')!, id: 'v' };
  cut.values = { ...cut.values, limit: null, endMills: [] };
  const flats = job.cutters.filter((c) => c.shape === 'flat');
  const mill = (id: string, diameter: number) => ({ ...flats[0], id, values: { ...flats[0].values, diameter } });
  job.cuts = [cut];
  job.cutters = [...job.cutters.filter((c) => c.shape !== 'flat'), mill('six', 6)];
  mends['end-mill'].apply(job, 'v', { x: null, y: null }, [mill('one', 1), mill('three', 3)], freshId);
  expect(job.cuts[0].values).toMatchObject({ endMills: ['three'], limit: 3 });
  expect(job.cutters.map((c) => c.id)).toContain('three');
  job.cuts[0].values = { ...job.cuts[0].values, limit: 1.2, endMills: [] };
  mends['end-mill'].apply(job, 'v', { x: null, y: null }, [], freshId);
  expect(job.cuts[0].values).toMatchObject({ endMills: ['three'], limit: 1.2 });
});

test('an outline is made simpler where the finding is, within what is promised, and no other', () => {
  const job = demoSetups['lock-cottage-board']();
  // Turned and moved: the place is told in the blank's frame.
  job.items = [
    newItem({
      id: 'a',
      name: 'A',
      kind: 'drawing',
      x: 30,
      y: 20,
      angle: 90,
      values: { paths: [fine(0, 0), fine(40, 0)], fill: 'nonzero' },
    }),
    newItem({
      id: 'b',
      name: 'B',
      kind: 'drawing',
      x: 30,
      y: 20,
      angle: 90,
      values: { paths: [fine(0, 0)], fill: 'nonzero' },
    }),
  ];
  job.cuts = [{ ...job.cuts[0], id: 'cut', items: ['a'] }];
  // The second circle of A lies at 30, 60 after the turn; this is a point of its outline.
  mends.simplify.apply(job, 'cut', { x: 30, y: 65 }, [], freshId);
  const counts = job.items.flatMap((i) => (i.values as { paths: Path[] }).paths.map(nodeCount));
  expect(counts[0]).toBe(2000);
  expect(counts[1]).toBeLessThan(60);
  expect(counts[2]).toBe(2000);
  mends.simplify.apply(job, 'cut', { x: null, y: null }, [], freshId);
  expect(nodeCount((job.items[0].values as { paths: Path[] }).paths[0])).toBe(2000);
});

describe('what stays on a relief', () => {
  const medallion = () => {
    const job = demoSetups['heron-medallion']();
    const fine = job.cuts.find((c) => c.kind === 'reliefFinish')!;
    fine.id = 'fine';
    fine.values = { ...fine.values, cutters: ['six'] };
    const six = { ...job.cutters[0], id: 'six', shape: 'ball', values: { diameter: 6 } };
    job.cutters = [six];
    return { job, fine };
  };
  const library = (...diameters: number[]) =>
    diameters.map((d) => ({ ...medallion().job.cutters[0], id: `ball ${d}`, values: { diameter: d } }));
  const nowhere = { x: null, y: null };

  it('gets a finer cutter of the library, after those that it has, and the next one where that is pressed again', () => {
    const { job, fine } = medallion();
    const all = [...library(1, 3, 8), { ...library(2)[0], id: 'flat 2', shape: 'flat' }];
    expect(mends.finer.lacks!(job, 'fine', all)).toBeNull();
    mends.finer.apply(job, 'fine', nowhere, all, freshId);
    expect(fine.values.cutters).toEqual(['six', 'ball 3']);
    mends.finer.apply(job, 'fine', nowhere, all, freshId);
    expect(fine.values.cutters).toEqual(['six', 'ball 3', 'ball 1']);
    expect(job.cutters.map((c) => c.id)).toEqual(['six', 'ball 3', 'ball 1']);
    expect(mends.finer.lacks!(job, 'fine', all)).toMatch(/No ball nose.* is finer/);
    mends.finer.apply(job, 'fine', nowhere, all, freshId);
    expect(fine.values.cutters).toHaveLength(3);
    expect(mends.finer.lacks!(job, 'nobody', all)).toBeNull();
  });

  it('says so where the list is full, and takes a cutter of the job before one of the library', () => {
    const { job, fine } = medallion();
    job.cutters.push({ ...library(3)[0], id: 'own 3' });
    mends.finer.apply(job, 'fine', nowhere, library(3), freshId);
    expect(fine.values.cutters).toEqual(['six', 'own 3']);
    fine.values = { ...fine.values, cutters: Array.from({ length: 8 }, () => 'six') };
    expect(mends.finer.lacks!(job, 'fine', library(1))).toMatch(/as many cutters as it may/);
  });

  it('gets a finishing after its roughing, that goes where this goes', () => {
    const job = demoSetups['heron-medallion']();
    const rough = job.cuts.find((c) => c.kind === 'reliefRough')!;
    rough.values = { ...rough.values, where: 'outside', margin: -3, rim: 'edge', startDepth: 0.4 };
    rough.items = ['x'];
    job.cuts = [rough, ...job.cuts.filter((c) => c.kind === 'profile')];
    mends.smooth.apply(job, rough.id, nowhere, library(3), freshId);
    expect(job.cuts.map((c) => c.kind)).toEqual(['reliefRough', 'reliefFinish', 'profile']);
    const [, fine] = job.cuts;
    expect(fine).toMatchObject({
      enabled: true,
      items: ['x'],
      values: { where: 'outside', margin: -3, rim: 'edge', startDepth: 0.4 },
    });
    expect(kindOf(fine.kind).schema.safeParse(fine.values).success).toBe(true);
    const has = job.cutters.map((c) => c.id);
    for (const id of kindOf(fine.kind).cutters(fine.values)) expect(has).toContain(id);
    expect(new Set(job.cuts.map((c) => c.id)).size).toBe(3);
    mends.smooth.apply(job, rough.id, nowhere, [], freshId);
    expect(new Set(job.cuts.map((c) => c.name)).size).toBe(4);
    expect(mends.smooth.lacks!(job, rough.id, [])).toBeNull();
    const flat = { ...job, cutters: job.cutters.filter((c) => c.shape === 'flat') };
    expect(mends.smooth.lacks!(flat, rough.id, [])).toMatch(/Neither this job nor the library/);
    expect(mends.smooth.lacks!(flat, rough.id, library(3))).toBeNull();
    mends.smooth.apply(job, 'nobody', nowhere, [], freshId);
    expect(job.cuts).toHaveLength(4);
  });
});
