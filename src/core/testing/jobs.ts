/**
 * Random small jobs, each with one cut, and a judge that shares nothing with the product: its program is cut by the tests'
 * own machine and held against surfaces worked out here from distances on a grid. What the judge sees must be a finding of the
 * product, and what the product finds must be seen by the judge. Some programs are spoilt on purpose, or nothing could be seen.
 */
import { checks } from '../proof/checks';
import { compare } from '../proof/compare';
import { placeProgram } from '../proof/placed';
import { createSimulation } from '../proof/simulate';
import { datumOf } from '../job/job';
import { normalise, type Region } from '../geometry/region';
import { cutGrid, gridDistances, gridReach, type TestGrid } from './grid';
import { readMoves, testShape } from './independent';
import { cutterOf, planOn, programOf } from './job';
import { seeded } from './seeded';
import { box, circleLoop, starLoop } from './shapes';

const CELL = 0.18;
const SIZE = 30;

type Values = Record<string, unknown>;
interface Judged {
  /** Height that a node may keep at most, and that it may be cut to at least; infinite where the judge has no opinion. */
  readonly most: Float64Array;
  readonly least: Float64Array;
}
export interface Verdict {
  readonly kind: string;
  readonly values: Values;
  readonly region: Region;
  readonly spoilt: string;
  /** mm2 that the judge sees too high and too low. */
  readonly high: number;
  readonly low: number;
  /** What the product says of the same, and of nothing having been cut. */
  readonly found: readonly string[];
  readonly foundHigh: number;
  readonly foundLow: number;
  /** What is wrong between the two; empty when they agree. */
  readonly wrong: string;
}

const grid = (): TestGrid => {
  const n = Math.floor(SIZE / CELL + 1e-9) + 1;
  return { cols: n, rows: n, cell: CELL, x0: 0, y0: 0, z: new Float64Array(n * n) };
};

/** A region of some of the shapes that makers use, round values and snapped places among them. */
function regionOf(r: () => number): Region {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)];
  const place = () => (r() < 0.4 ? Math.round(10 + 10 * r()) : 10 + 10 * r());
  const one = () => {
    const [x, y] = [place(), place()];
    switch (Math.floor(r() * 4)) {
      case 0:
        return circleLoop(pick([24, 90, 180]), r() < 0.4 ? pick([1, 2, 3, 4.5, 6]) : 0.6 + 6 * r(), x, y);
      case 1:
        return starLoop(3 + Math.floor(6 * r()), 2 + 7 * r(), 1 + 2 * r(), x, y);
      case 2: {
        const [w, h] = r() < 0.4 ? [pick([1, 2, 3, 6, 8]), pick([1, 2, 3, 6])] : [0.6 + 9 * r(), 0.6 + 7 * r()];
        return box(x - w / 2, y - h / 2, x + w / 2, y + h / 2);
      }
      default: {
        // A square on its corner: everything at 45 degrees.
        const s = 1 + 5 * r();
        return Float64Array.of(x - s, y, x, y - s, x + s, y, x, y + s);
      }
    }
  };
  return normalise(Array.from({ length: 1 + Math.floor(3 * r()) }, one), r() < 0.5 ? 'evenodd' : 'nonzero');
}

const values = (
  kind: string,
  r: () => number,
): { values: Values; cutters: string[]; preset: { stepOver: number; stepDown: number } } => {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)];
  const some = (list: readonly string[], most: number) => [
    ...new Set(Array.from({ length: 1 + Math.floor(most * r()) }, () => pick(list))),
  ];
  const flats = ['flat-1', 'flat-1.5', 'flat-2', 'flat-3', 'flat-5', 'flat-8'];
  const stepDown = pick([0.5, 1, 50]);
  switch (kind) {
    case 'area': {
      const cutters = some(r() < 0.25 ? [...flats, 'bull-6-1'] : flats, 3);
      return {
        values: {
          cutters,
          depth: pick([0.5, 1, 2]),
          pattern: pick(['contours', 'hatch', 'trochoidal']),
          angle: pick([0, 45, 90, 180 * r()]),
          allowance: pick([0, 0, 0.3]),
        },
        cutters,
        preset: { stepOver: 0.3 + 1.4 * r(), stepDown },
      };
    }
    case 'vcarve': {
      const mills = r() < 0.4 ? some(['flat-1', 'flat-1.5', 'flat-3'], 2) : [];
      const cutter = pick(['v-12-60-0', 'v-12-90-0', 'v-6-30-0']);
      return {
        values: { cutter, limit: mills.length || r() < 0.5 ? pick([0.6, 1, 1.5]) : null, endMills: mills },
        cutters: [cutter],
        preset: { stepOver: 0.1 + 0.3 * r(), stepDown },
      };
    }
    case 'profile': {
      const cutter = pick(flats.slice(0, 4));
      return {
        values: {
          cutter,
          side: pick(['outside', 'inside', 'on']),
          through: false,
          depth: pick([0.5, 1, 3]),
          lead: pick(['none', 'arc', 'line']),
          leadSize: 1,
          ramp: 10,
          tabs: { shape: 'rectangular', by: 'count', count: 0, spacing: 50, length: 3, height: 1, at: [] },
        },
        cutters: [cutter],
        preset: { stepOver: 1, stepDown },
      };
    }
    case 'line': {
      const cutter = pick(['cone-3.175-20-0.1', 'v-6-60-0', 'ball-1', 'taperedBall-6-0.5-5']);
      return {
        values: { cutter, depth: pick([0.1, 0.3, 0.5]), edge: 'on', fill: 'none' },
        cutters: [cutter],
        preset: { stepOver: 1, stepDown },
      };
    }
    case 'drag': {
      const cutter = pick(['drag-3-90-0.02', 'drag-3-120-0.02']);
      return {
        values: { cutter, depth: pick([0.15, 0.3, 0.5]), edge: 'on', fill: 'none', press: 'depth' },
        cutters: [cutter],
        preset: { stepOver: 1, stepDown },
      };
    }
    case 'drilling': {
      const cutter = pick(['drill-2-118', 'drill-3-118', 'flat-2', 'ball-3', 'v-6-60-0']);
      return {
        values: { cutter, places: 'centres', through: false, depth: pick([0.5, 1, 3]), peck: pick([null, 0.4, 1]) },
        cutters: [cutter],
        preset: { stepOver: 1, stepDown },
      };
    }
    default: {
      const cutter = pick(['flat-3', 'flat-5', 'bull-6-1']);
      return {
        values: {
          cutter,
          where: 'picked',
          depth: pick([0.3, 0.5]),
          angle: pick([0, 45, 30]),
          overlap: pick([0, 0.5, 1]),
        },
        cutters: [cutter],
        preset: { stepOver: 0.5 + 1.5 * r(), stepDown },
      };
    }
  }
};

/** The judge's surfaces. A node that lies within a hair of where they jump is nobody's. */
function judged(
  kind: string,
  v: Values,
  cutters: readonly string[],
  step: number,
  g: TestGrid,
  d: Float64Array,
  region: Region,
): Judged {
  const most = new Float64Array(d.length).fill(Infinity);
  const least = new Float64Array(d.length).fill(-Infinity);
  const radius = (id: string) => cutterOf(id).values.diameter / 2;
  const flatOf = (id: string) => radius(id) - (cutterOf(id).values.cornerRadius ?? 0);
  const depth = Number(v.depth);
  const EDGE = 0.02;
  if (kind === 'area' || kind === 'skim') {
    const in_ = kind === 'area' ? d.map((q) => q - Number(v.allowance)) : d.map((q) => q + Number(v.overlap));
    for (const id of cutters) {
      const reach = gridReach(g, in_, radius(id), 0.03, flatOf(id));
      for (let i = 0; i < d.length; i++) if (reach[i]) most[i] = -depth;
    }
    for (let i = 0; i < d.length; i++) least[i] = in_[i] < -EDGE ? 0 : -depth;
  } else if (kind === 'vcarve') {
    const cutter = cutterOf(cutters[0]);
    const tan = Math.tan((cutter.values.includedAngle * Math.PI) / 360);
    const limit = Math.min(v.limit === null ? Infinity : Number(v.limit), radius(cutters[0]) / tan);
    const ridge = step / 2 / tan;
    const floors = (v.endMills as string[]).map((id) =>
      gridReach(
        g,
        d.map((q) => q - limit * tan - 0.01),
        radius(id),
        0.04,
      ),
    );
    for (let i = 0; i < d.length; i++) {
      const want = d[i] > 0 ? -Math.min(d[i] / tan, limit) : 0;
      least[i] = want;
      if (d[i] > 0) most[i] = want + (d[i] > limit * tan - EDGE && !floors.some((f) => f[i]) ? ridge : 0);
    }
  } else if (kind === 'profile') {
    const r = radius(cutters[0]);
    const side = v.side as string;
    // Distance of the axis' way from the outline, and which side of it is waste.
    const out = side === 'outside' ? d.map((q) => -q) : d.slice();
    for (let i = 0; i < d.length; i++)
      least[i] = side === 'on' ? (Math.abs(d[i]) > r + EDGE ? 0 : -depth) : out[i] < -EDGE ? 0 : -depth;
    if (side === 'on') for (let i = 0; i < d.length; i++) if (Math.abs(d[i]) < r - EDGE) most[i] = -depth;
    if (side !== 'on') {
      // Discs on nodes that lie just beyond the axis' way, smaller by as much as those nodes may be off it.
      const at = out.map((q) => (q >= r && q < r + CELL ? 1 : -1));
      const reach = gridReach(g, at, 0.5, 0, Math.max(0, r - 1.5 * CELL));
      for (let i = 0; i < d.length; i++) if (reach[i]) most[i] = -depth;
    }
  } else {
    const c = cutterOf(cutters[0]);
    const cutter = testShape(c.shape, c.values);
    const middles = kind === 'drilling' ? region.map(middleOf) : [];
    for (let i = 0; i < d.length; i++) {
      const [x, y] = [g.x0 + (i % g.cols) * g.cell, g.y0 + Math.floor(i / g.cols) * g.cell];
      // From the middle of the nearest hole, or from the nearest line.
      const q = kind === 'drilling' ? Math.min(...middles.map((m) => Math.hypot(m.x - x, m.y - y))) : Math.abs(d[i]);
      const z = q > cutter.radius ? 0 : Math.min(0, -depth + cutter.profile(q));
      least[i] = q > cutter.radius ? 0 : Math.min(0, -depth + cutter.profile(Math.max(0, q - 0.003)));
      if (z < 0) most[i] = Math.min(0, -depth + cutter.profile(Math.min(cutter.radius, q + 0.003)));
    }
  }
  return { most, least };
}

/** The middle of a loop's box. */
function middleOf(l: Float64Array): { x: number; y: number } {
  const [xs, ys] = [0, 1].map((k) => l.filter((_, i) => i % 2 === k));
  return { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
}

/** Makes program text wrong in one of the ways that a planner could. */
function spoil(text: string, way: string, r: () => number): string {
  const lines = text.split('\n');
  if (way === 'deeper') return text.replace(/Z(-\d+\.\d+)/g, (_, z) => `Z${(Number(z) - 0.15).toFixed(4)}`);
  if (way === 'shallower') return text.replace(/Z(-\d+\.\d+)/g, (_, z) => `Z${(Number(z) * 0.7).toFixed(4)}`);
  if (way === 'aside' && !/^G[23]/m.test(text))
    return text.replace(/X(-?\d+\.\d+)/g, (_, x) => `X${(Number(x) + 0.4).toFixed(4)}`);
  // Everything low in the second half of the program is left out: what remains goes at safe height.
  const from = Math.floor((lines.length * (0.3 + 0.4 * r())) | 0);
  return lines.map((l, i) => (i > from ? l.replace(/Z-\d+\.\d+/g, 'Z2.0000') : l)).join('\n');
}

const area = (mask: (i: number) => boolean, n: number): number => {
  let count = 0;
  for (let i = 0; i < n; i++) if (mask(i)) count++;
  return count * CELL * CELL;
};

/** Makes a job from a seed, plans it, writes it, perhaps spoils it, proves it, and has both sides look at it. */
export function tryJob(seed: number): Verdict {
  const r = seeded(seed);
  const kind = ['area', 'vcarve', 'profile', 'line', 'skim', 'drag', 'drilling'][Math.floor(7 * r())];
  const region = regionOf(r);
  const { values: v, cutters, preset } = values(kind, r);
  const spoilt = ['', '', 'deeper', 'shallower', 'aside', 'cut short'][Math.floor(6 * r())];
  const { plan, job, wanted } = planOn(kind, { ...v, ...preset }, region, {
    width: SIZE,
    height: SIZE,
    thickness: 12,
    datum: 'lb',
  });
  job.cuts = [{ id: 'c', name: 'The cut', kind, enabled: true, items: [], values: v, overrides: {} }];
  const { text: whole, tools } = programOf(plan, job);
  const text = spoilt ? spoil(whole, spoilt, r) : whole;
  const byNumber = new Map(Object.entries(tools).map(([n, id]) => [Number(n), cutterOf(id)]));
  const placed = [placeProgram('a.nc', text, datumOf(job.blank), ['c'])];
  const { field, collisions: clashes } = createSimulation().run({ width: SIZE, height: SIZE }, CELL, placed, byNumber);
  const compared = compare(field, new Map([['c', wanted()]]));
  const findings = checks.flatMap((c) =>
    c.run({
      job,
      programs: placed,
      tools: byNumber,
      plans: new Map([['c', plan]]),
      collisions: clashes,
      field,
      compared,
    }),
  );

  const g = grid();
  cutGrid(
    g,
    readMoves(text),
    Object.fromEntries(Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)])),
  );
  const d = region.length ? gridDistances(g, region, 16) : new Float64Array(g.z.length).fill(-16);
  const j = judged(kind, v, cutters, preset.stepOver, g, d, region);
  const high = area((i) => g.z[i] > j.most[i] + 0.04, g.z.length);
  const low = area((i) => g.z[i] < j.least[i] - 0.04, g.z.length);
  const sum = (list: readonly { area: number }[]) => list.reduce((s, p) => s + p.area, 0);
  const foundHigh = sum(compared.cuts.flatMap((c) => c.left));
  const foundLow = sum(compared.below);
  const said = findings.map((f) => `${f.check}: ${f.text}`);
  const wantedSaid = findings.some((f) => f.check === 'wanted');
  const told = findings.some((f) => f.check === 'wanted' || f.check === 'planned');
  const wrong = [
    high > 0.4 && !told ? `${high.toFixed(2)} mm2 too high, nothing said` : '',
    low > 0.4 && !told ? `${low.toFixed(2)} mm2 too low, nothing said` : '',
    region.length && !plan.toolpaths.length && !told ? 'nothing cut, nothing said' : '',
    !spoilt && wantedSaid && plan.toolpaths.length && high === 0 && low === 0 ? 'said, but not seen' : '',
    !spoilt && plan.toolpaths.length && (high > 0.4 || low > 0.4)
      ? `the plan leaves ${high.toFixed(2)} and takes ${low.toFixed(2)} mm2`
      : '',
  ].filter((w) => w);
  return {
    kind,
    values: { ...v, ...preset },
    region,
    spoilt,
    high,
    low,
    found: said,
    foundHigh,
    foundLow,
    wrong: wrong.join('; '),
  };
}
