/**
 * Proves the cuts on whole grids of 0.02 mm: `npm run truth`. Programs are read and cut by the tests' own machine and
 * held against surfaces worked out from the outlines in closed form. Prints one row per shape and kind of cut; takes
 * some minutes, which is why the tests look at part of it only.
 */
import { flatten, placement, transformPath } from '../src/core/geometry/path';
import { normalise, type Loop, type Region } from '../src/core/geometry/region';
import { layOut } from '../src/core/lettering/layout';
import { cutGrid, gridDistances, gridOver, gridReach } from '../src/core/testing/grid';
import { readMoves, testCone, testFlat } from '../src/core/testing/independent';
import { planOn, programOf } from '../src/core/testing/job';
import { combLoop, provingShapes } from '../src/core/testing/shapes';
import { fontsFromPackages } from '../src/cli/fonts';

const CELL = 0.02;
const TAN = Math.tan(Math.PI / 6);
const art = fontsFromPackages();

function letters(font: string, tolerance: number): Loop[] {
  const { paths } = layOut({ text: 'Quay & Sluice 1794', capHeight: 12, tracking: 30, kerning: true, leading: 1.6, align: 'centre', stretch: 100 }, art.font(font)!);
  return normalise(paths.map((p) => flatten(transformPath(p, placement(100, 20, 2)), tolerance)));
}

/** The outline as it is planned from, and as it is judged by. */
const shapes: Record<string, { planned: Loop[]; truth: Loop[] }> = {};
for (const [name, { loops, fill }] of Object.entries(provingShapes)) shapes[name] = { planned: normalise(loops, fill), truth: normalise(loops, fill) };
const comb = normalise([combLoop(200, 0.8, 3)]);
shapes['a comb of 200 slots'] = { planned: comb, truth: comb };
for (const font of ['cinzel', 'libre-baskerville', 'unifrakturmaguntia']) shapes[`"Quay & Sluice 1794", ${font}`] = { planned: letters(font, 0.0018 * TAN), truth: letters(font, 0.00005) };

const mm = (v: number) => v.toFixed(4);
console.log('| shape | nodes | V-carve gouge | uncut | clearance gouge | out of reach of none, uncut | profile gouge |\n| --- | --- | --- | --- | --- | --- | --- |');

function vcarve(planned: Region, truth: Loop[]): [number, number, number] {
  const { plan, job } = planOn('vcarve', { cutter: 'v-12-60-0', limit: null }, planned, { width: 260, height: 60 });
  const g = gridOver(truth, CELL, 0.3);
  cutGrid(g, readMoves(programOf(plan, job).text), { 1: testCone(60, 0, 12) });
  const d = gridDistances(g, truth, 6);
  let gouge = 0;
  let uncut = 0;
  for (let i = 0; i < d.length; i++) {
    const want = d[i] > 0 ? -d[i] / TAN : 0;
    gouge = Math.max(gouge, want - g.z[i]);
    uncut = Math.max(uncut, g.z[i] - want);
  }
  return [gouge, uncut, d.length];
}

/** Gouge: how far from where it may be, in mm across or down; then the share of what is in reach and uncut. */
function area(planned: Region, truth: Loop[]): [number, string] {
  const { plan, job } = planOn('area', { cutters: ['flat-1'], depth: 1, stepOver: 0.9, stepDown: 1, allowance: 0 }, planned, { width: 260, height: 60 });
  if (!plan.toolpaths.length) return [0, 'does not fit'];
  const g = gridOver(truth, CELL, 0.3);
  cutGrid(g, readMoves(programOf(plan, job).text), { 1: testFlat(1) });
  const d = gridDistances(g, truth, 1);
  const reach = gridReach(g, d, 0.5, 0.03);
  let gouge = 0;
  let want = 0;
  let missed = 0;
  for (let i = 0; i < d.length; i++) {
    if (g.z[i] < -1e-9) gouge = Math.max(gouge, -d[i], -1 - g.z[i]);
    if (!reach[i]) continue;
    want++;
    if (g.z[i] > -1 + 1e-4) missed++;
  }
  return [gouge, `${((100 * missed) / Math.max(1, want)).toFixed(4)} %`];
}

function profile(planned: Region, truth: Loop[]): number {
  const { plan, job } = planOn('profile', { cutter: 'flat-1', side: 'outside', tabs: { shape: 'rectangular', by: 'count', count: 0, spacing: 80, length: 1, height: 1, at: [] } }, planned, { width: 260, height: 60, thickness: 3 });
  const g = gridOver(truth, CELL, 1.3);
  cutGrid(g, readMoves(programOf(plan, job).text), { 1: testFlat(1) });
  const d = gridDistances(g, truth, 1);
  let gouge = 0;
  for (let i = 0; i < d.length; i++) if (g.z[i] < -1e-9) gouge = Math.max(gouge, d[i]);
  return gouge;
}

// `npm run truth -- cinzel comb`: only shapes whose names hold one of the words.
const wanted = process.argv.slice(2);
for (const [name, { planned, truth }] of Object.entries(shapes)) {
  if (wanted.length && !wanted.some((w) => name.includes(w))) continue;
  const [gouge, uncut, nodes] = vcarve(planned, truth);
  const [over, missed] = area(planned, truth);
  console.log(`| ${name} | ${(nodes / 1e6).toFixed(1)} million | ${mm(gouge)} | ${mm(uncut)} | ${mm(over)} | ${missed} | ${mm(profile(planned, truth))} |`);
}
