import { newItem, type Item } from '../artwork/item';
import { kindOf } from '../cuts/registry';
import { shippedLibrary } from '../cutters/library';
import { newOneSetup, type OneSetup } from '../job/job';
import { testArt } from '../testing/fonts';
import { runJob } from './run';

const text = {
  font: 'cinzel-bold',
  capHeight: 12,
  tracking: 0,
  kerning: true,
  leading: 1.6,
  align: 'centre',
  stretch: 100,
  baseline: 'straight',
  radius: 50,
  at: 90,
};
const wave = newItem({
  id: 'wave',
  name: 'Wave',
  kind: 'drawing',
  values: {
    fill: 'nonzero',
    paths: [{ x: 20, y: 30, closed: false, segments: [{ k: 'cubic', x1: 30, y1: 50, x2: 40, y2: 10, x: 60, y: 30 }] }],
  },
});
const circle = (id: string, x: number, r: number): Item =>
  newItem({ id, name: `Circle ${id}`, kind: 'ellipse', x, y: 30, values: { width: 2 * r, height: 2 * r } });
const lettering = (name: string, values: object): Item =>
  newItem({ id: name, name, kind: 'lettering', x: 50, y: 30, values: { ...text, text: name, ...values } });

function run(kind: string, items: Item[], values: object = {}, change: (j: OneSetup) => void = () => {}) {
  const job = newOneSetup('left out');
  job.blank = { ...job.blank, width: 100, height: 60, thickness: 6 };
  job.cutters = shippedLibrary();
  job.items = items;
  job.cuts = [
    {
      id: 'c',
      name: 'The cut',
      kind,
      enabled: true,
      items: items.map((i) => i.id),
      values: { ...(kindOf(kind).defaults(job.blank, job.cutters) as object), ...values },
      overrides: {},
    },
  ];
  change(job);
  return runJob(job, testArt, 0.4);
}
const said = (r: ReturnType<typeof run>) => r.proof.findings.map((f) => f.text).join('\n');
const planned = (r: ReturnType<typeof run>) => r.plans.get('c')!;

describe('what cannot be cut is said by name and place', () => {
  it.each(['vcarve', 'area', 'profile', 'skim'])('open lines given to %s', (kind) => {
    const r = run(kind, [wave], kind === 'skim' ? { where: 'picked' } : {});
    expect(said(r)).toMatch(/"Wave" has no closed outline/);
    expect(planned(r).toolpaths).toEqual([]);
    // With a circle beside it the rest is cut, and the line is still named.
    const both = run(kind, [wave, circle('a', 80, 8)], kind === 'skim' ? { where: 'picked' } : {});
    expect(said(both)).toMatch(/"Wave" has no closed outline/);
    expect(planned(both).toolpaths.length).toBeGreaterThan(0);
    expect(both.proof.findings.find((f) => /Wave/.test(f.text))).toMatchObject({ cutId: 'c', x: wave.x, y: wave.y });
  });
  it.each(['vcarve', 'area', 'profile', 'line', 'drag'])('empty text given to %s', (kind) => {
    expect(said(run(kind, [lettering('Nothing', { text: '   ' })]))).toMatch(
      /"Nothing" draws nothing|nothing to cut|no line here/,
    );
  });
  it('single-line letters given to a V-carve', () => {
    expect(said(run('vcarve', [lettering('LOCK', { font: 'line-upright' })]))).toMatch(
      /"LOCK" has no closed outline, and v-carve needs one/,
    );
  });
  it('letters that the font lacks, among others that it has', () => {
    const r = run('vcarve', [lettering('Lock \u6c34', {})]);
    expect(said(r)).toMatch(/"Lock \u6c34": The font has no "\u6c34"/);
    expect(planned(r).toolpaths).toHaveLength(1);
  });
  it('one of several outlines that is too narrow for a profile, and where it lies', () => {
    const r = run('profile', [circle('a', 20, 8), circle('b', 50, 2), circle('c', 80, 8)], {
      side: 'inside',
      through: false,
      depth: 2,
    });
    const [f] = r.proof.findings.filter((q) => /too wide/.test(q.text));
    expect(f.x).toBeCloseTo(50, 3);
    expect(f.y).toBeCloseTo(30, 3);
    expect(r.proof.findings.filter((q) => /too wide/.test(q.text))).toHaveLength(1);
  });
  it('two outlines that cancel each other out', () => {
    expect(said(run('area', [circle('a', 50, 8), { ...circle('a', 50, 8), id: 'b' }]))).toMatch(
      /cancel each other out/,
    );
  });
  it('an outline that is too short for its tabs, and a cut on the line that frees its part', () => {
    const free = {
      side: 'outside',
      through: true,
      tabs: { shape: 'rectangular', by: 'count', count: 3, spacing: 80, length: 40, height: 2, at: [] },
    };
    expect(said(run('profile', [circle('a', 50, 5)], free))).toMatch(
      /too short for a holding tab: the part is cut free without one/,
    );
    const on = run('profile', [circle('a', 50, 15)], { ...free, side: 'on', tabs: { ...free.tabs, length: 6 } });
    expect(planned(on)).toMatchObject({ cutsFree: true });
    expect(planned(on).tabs).toHaveLength(3);
  });
  it('cuts that others have done already, and cuts that do nothing', () => {
    const area = (id: string, depth: number) => ({
      id,
      name: id,
      kind: 'area',
      enabled: true,
      items: ['a'],
      values: { ...(kindOf('area').defaults(newOneSetup('x').blank, shippedLibrary()) as object), depth },
      overrides: {},
    });
    const twice = run('area', [circle('a', 50, 8)], {}, (j) => void (j.cuts = [area('Deep', 2), area('Shallow', 1)]));
    expect(said(twice)).toMatch(/"Shallow" removes nothing/);
    expect(said(twice)).not.toMatch(/"Deep" removes nothing/);
  });
  it('moves wholly off the blank plan and are told by the check of the edge', () => {
    const r = run('profile', [circle('a', 300, 15)], { side: 'outside', through: true, depth: 20 });
    expect(r.proof.findings.map((f) => f.check)).toContain('edges');
    expect(planned(r).toolpaths).toHaveLength(1);
  });
  it('a start depth over which nothing has been cleared', () => {
    const r = run('area', [circle('a', 50, 8)], { startDepth: 3, depth: 4 });
    expect(r.proof.findings.map((f) => f.check)).not.toContain('rapids');
  });
});
