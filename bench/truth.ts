/**
 * Proves every kind of cut that follows outlines on whole grids of 0.02 mm: `npm run truth`. Programs are read and cut by
 * the tests' own machine and held against surfaces worked out from the outlines in closed form. The shapes are those of the
 * tests, words in three faces, and icons that nobody here drew (fetched into a temporary folder). One row per shape and
 * kind; takes tens of minutes in all, which is why the tests look at part of it only.
 * `npm run truth -- jobs 5000`: random jobs, held against what the product says of them.
 * `npm run truth -- comb drag`: only rows whose shape or kind holds one of the words; with several, shapes and kinds both.
 */
import { readSvg } from '../src/core/exchange/svg/read';
import { flatten, placement, transformPath, type Path } from '../src/core/geometry/path';
import { boundsOf, normalise, type Loop, type Region } from '../src/core/geometry/region';
import { layOut } from '../src/core/lettering/layout';
import { cutGrid, gridDistances, gridOver, gridReach, type TestGrid } from '../src/core/testing/grid';
import { readMoves, testCone, testFlat, testTapered, type TestCutter } from '../src/core/testing/independent';
import { planOn, programOf } from '../src/core/testing/job';
import { tryJob } from '../src/core/testing/jobs';
import { combLoop, provingShapes } from '../src/core/testing/shapes';
import { fontsFromPackages } from '../src/cli/fonts';
import { iconNames, iconText } from './iconPackage';

const CELL = 0.02;
const TAN = Math.tan(Math.PI / 6);
const art = fontsFromPackages();

/** The outline as it is planned from, and as it is judged by. */
interface Shape {
  planned(tolerance: number): Region;
  readonly truth: Loop[];
  /** No place lies deeper inside than this, mm. */
  readonly deepest: number;
}
const fromPaths = (paths: readonly Path[], deepest: number, fill: 'nonzero' | 'evenodd' = 'nonzero'): Shape => ({
  deepest,
  planned: (tolerance) =>
    normalise(
      paths.map((p) => flatten(p, tolerance)),
      fill,
    ),
  truth: normalise(
    paths.map((p) => flatten(p, 0.00005)),
    fill,
  ),
});

function letters(font: string): Shape {
  const { paths } = layOut(
    {
      text: 'Quay & Sluice 1794',
      capHeight: 12,
      tracking: 30,
      kerning: true,
      leading: 1.6,
      align: 'centre',
      stretch: 100,
    },
    art.font(font)!,
  );
  return fromPaths(
    paths.map((p) => transformPath(p, placement(100, 20, 2))),
    2,
  );
}

/** An icon, 25 mm large, a little way into the blank. */
function icon(file: string): Shape {
  const paths = readSvg(iconText(file), file).things.flatMap((t) => t.paths);
  const b = boundsOf(paths.map((p) => flatten(p, 0.05)))!;
  const k = 25 / Math.max(b.x1 - b.x0, b.y1 - b.y0);
  return fromPaths(
    paths.map((p) =>
      transformPath(transformPath(p, placement(-b.x0, -b.y0, 0)), { a: k, b: 0, c: 0, d: k, e: 5, f: 5 }),
    ),
    13,
  );
}

const shapes: Record<string, () => Shape> = {};
for (const [name, { loops, fill }] of Object.entries(provingShapes))
  shapes[name] = () => ({ deepest: 6, planned: () => normalise(loops, fill), truth: normalise(loops, fill) });
shapes['a comb of 200 slots'] = () => ({
  deepest: 1,
  planned: () => normalise([combLoop(200, 0.8, 3)]),
  truth: normalise([combLoop(200, 0.8, 3)]),
});
for (const font of ['cinzel', 'libre-baskerville', 'unifrakturmaguntia'])
  shapes[`"Quay & Sluice 1794", ${font}`] = () => letters(font);
const icons = iconNames();
for (let i = 0; i < 8; i++) {
  const file = icons[Math.floor(((i + 0.5) * icons.length) / 8)];
  shapes[`icon ${file}`] = () => icon(file);
}

const cutterFor = (id: string): TestCutter => {
  const [kind, a, b, c] = id.split('-');
  return kind === 'flat'
    ? testFlat(+a)
    : kind === 'v'
      ? testCone(+b, 0, +a)
      : kind === 'cone'
        ? testCone(2 * +b, +c, +a)
        : testTapered(+a, +c, +b / 2);
};

/**
 * Plans on the shape with the chords that the kind of cut asks for, cuts with the tests' machine, and gives the grid with signed distances to the outline (inside above 0).
 */
function cut(
  kind: string,
  values: Record<string, unknown>,
  { planned, truth }: Shape,
  margin: number,
  band: number,
): { g: TestGrid; d: Float64Array } | null {
  const { plan, job } = planOn(kind, values, planned, { width: 260, height: 60, thickness: 3 });
  if (!plan.toolpaths.length) return null;
  const { text, tools } = programOf(plan, job);
  const g = gridOver(truth, CELL, margin);
  cutGrid(g, readMoves(text, 0.00005), Object.fromEntries(Object.entries(tools).map(([n, id]) => [n, cutterFor(id)])));
  return { g, d: gridDistances(g, truth, band) };
}

/** What is too deep and what is left against a surface, mm; `left` only where `judged` says so. */
function against(
  r: { g: TestGrid; d: Float64Array },
  want: (d: number) => number,
  judged: (d: number) => boolean = () => true,
): Result {
  let gouge = 0;
  let left = 0;
  for (let i = 0; i < r.d.length; i++) {
    const z = want(r.d[i]);
    gouge = Math.max(gouge, z - r.g.z[i]);
    if (judged(r.d[i])) left = Math.max(left, r.g.z[i] - z);
  }
  return { gouge, left: mm(left) };
}

/** Of a floor with upright walls: how far from where it may be, across or down; and the share of what a disc reaches and is not cut. */
function floor(r: { g: TestGrid; d: Float64Array }, depth: number, radius: number): Result {
  const reach = gridReach(r.g, r.d, radius, 0.03);
  let gouge = 0;
  let want = 0;
  let missed = 0;
  for (let i = 0; i < r.d.length; i++) {
    if (r.g.z[i] < -1e-9) gouge = Math.max(gouge, -r.d[i], -depth - r.g.z[i]);
    if (!reach[i]) continue;
    want++;
    if (r.g.z[i] > -depth + 1e-4) missed++;
  }
  return { gouge, left: `${((100 * missed) / Math.max(1, want)).toFixed(4)} %` };
}

interface Result {
  readonly gouge: number;
  readonly left: string;
}
const mm = (v: number) => `${v.toFixed(4)} mm`;
const noTabs = { shape: 'rectangular', by: 'count', count: 0, spacing: 80, length: 1, height: 1, at: [] };
/** Cut where nothing may be cut, by how far. */
const trespass = (r: { g: TestGrid; d: Float64Array }, forbidden: (d: number) => number): Result => {
  let gouge = 0;
  for (let i = 0; i < r.d.length; i++) if (r.g.z[i] < -1e-9) gouge = Math.max(gouge, forbidden(r.d[i]));
  return { gouge, left: '' };
};

const area = (values: Record<string, unknown>, smallest: number) => (s: Shape) => {
  const r = cut('area', { depth: 1, stepDown: 1, allowance: 0, ...values }, s, 0.3, 1);
  return r && floor(r, 1, smallest / 2);
};
const kinds: Record<string, (s: Shape) => Result | null> = {
  'V-carve': (s) => {
    const r = cut('vcarve', { cutter: 'v-12-60-0', limit: null }, s, 0.3, s.deepest);
    return r && against(r, (d) => (d > 0 ? -d / TAN : 0));
  },
  // What is left is judged on the walls: where no end mill fits, a pointed V-bit leaves ridges on the floor.
  'V-carve with a floor, two end mills': (s) => {
    const r = cut(
      'vcarve',
      { cutter: 'v-12-60-0', limit: 0.8, endMills: ['flat-2', 'flat-1'], stepOver: 0.3 },
      s,
      0.3,
      1,
    );
    return (
      r &&
      against(
        r,
        (d) => (d > 0 ? -Math.min(d / TAN, 0.8) : 0),
        (d) => d < 0.8 * TAN - 0.02,
      )
    );
  },
  'clearance along the outline, step-over 90 %': area({ cutters: ['flat-1'], stepOver: 0.9 }, 1),
  'clearance in rows, step-over 90 %': area({ cutters: ['flat-1'], stepOver: 0.9, pattern: 'hatch', angle: 27 }, 1),
  'clearance with even engagement': area({ cutters: ['flat-1'], stepOver: 0.25, pattern: 'trochoidal' }, 1),
  'clearance with three cutters': area({ cutters: ['flat-3', 'flat-2', 'flat-1'], stepOver: 0.5 }, 1),
  'clearance with leaning walls': (s) => {
    const r = cut(
      'area',
      { depth: 0.8, stepDown: 0.4, cutters: ['flat-1'], stepOver: 0.4, wall: 'v-12-60-0' },
      s,
      0.3,
      1,
    );
    return r && { ...against(r, (d) => (d > 0 ? Math.max(-0.8, -d / TAN) : 0)), left: '' };
  },
  'profile outside, ways in and out by arcs': (s) => {
    const r = cut(
      'profile',
      { cutter: 'flat-1', side: 'outside', lead: 'arc', leadSize: 0.8, tabs: noTabs },
      s,
      1.9,
      1,
    );
    return r && trespass(r, (d) => d);
  },
  'profile inside, ways in and out by lines': (s) => {
    const r = cut(
      'profile',
      { cutter: 'flat-1', side: 'inside', lead: 'line', leadSize: 0.8, tabs: noTabs },
      s,
      0.3,
      1,
    );
    return r && trespass(r, (d) => -d);
  },
  'line engraving on the outline': (s) => {
    const r = cut('line', { cutter: 'cone-3.175-20-0.1', depth: 0.3 }, s, 0.5, 1);
    const t = Math.tan((20 * Math.PI) / 180);
    return r && against(r, (d) => Math.min(0, -0.3 + Math.max(0, (Math.abs(d) - 0.05) / t)));
  },
  'drag engraving, crossed hatch': (s) => {
    const r = cut(
      'drag',
      { cutter: 'drag-3-120-0.02', depth: 0.05, edge: 'inside', fill: 'crossed', spacing: 0.15 },
      s,
      0.3,
      1,
    );
    return r && trespass(r, (d) => -d);
  },
};

/** Random jobs, some spoilt on purpose: whether all that the tests' machine sees is a finding, and nothing else is. */
function jobs(count: number): void {
  const seen = new Map<string, number>();
  let wrong = 0;
  for (let seed = 1; seed <= count; seed++) {
    const v = tryJob(seed);
    const key = `${v.kind}, ${v.spoilt || 'as planned'} | ${v.high > 0.4 || v.low > 0.4 ? 'wrong' : 'right'} | ${v.found.length ? 'said' : 'nothing said'}`;
    seen.set(key, (seen.get(key) ?? 0) + 1);
    if (v.wrong) {
      wrong++;
      console.log(`job ${seed}, ${v.kind} ${v.spoilt}: ${v.wrong} ${JSON.stringify(v.values)}`);
    }
  }
  console.log('| kind | what the machine of the tests sees | what is said | jobs |\n| --- | --- | --- | --- |');
  for (const [key, n] of [...seen].sort()) console.log(`| ${key} | ${n} |`);
  console.log(`${count} jobs, ${wrong} in which the two disagree.`);
}

const words = process.argv.slice(2);
if (words[0] === 'jobs') {
  jobs(Number(words[1] ?? 300));
  process.exit(0);
}
const [shapeNames, kindNames] = [Object.keys(shapes), Object.keys(kinds)].map((names) => {
  const hit = names.filter((n) => words.some((w) => n.includes(w)));
  return hit.length ? hit : names;
});
console.log('| shape | kind of cut | nodes | gouge | left |\n| --- | --- | --- | --- | --- |');
const worst = new Map<string, number>();
for (const name of shapeNames) {
  const shape = shapes[name]();
  for (const kind of kindNames) {
    const r = kinds[kind](shape);
    if (r) worst.set(kind, Math.max(worst.get(kind) ?? 0, r.gouge));
    const g = gridOver(shape.truth, CELL, 0.3);
    console.log(
      r
        ? `| ${name} | ${kind} | ${((g.cols * g.rows) / 1e6).toFixed(1)} million | ${mm(r.gouge)} | ${r.left} |`
        : `| ${name} | ${kind} | | does not fit | |`,
    );
  }
}
for (const [kind, gouge] of worst) console.log(`| all of these | ${kind} | | ${mm(gouge)} | |`);
