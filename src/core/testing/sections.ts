import { readPathData } from '../exchange/svg/pathData';
import { flatten, placement, transformPath } from '../geometry/path';
import { normalise, type Region } from '../geometry/region';
import { layOut } from '../lettering/layout';
import { shippedFont } from './fonts';
import { cutOut, readMoves, testShape } from './independent';
import { cutterOf, planOn, programOf } from './job';

type OnBlank = Parameters<typeof planOn>[3];
type Presets = Parameters<typeof planOn>[4];

/** Heights that a cut leaves at places, by the tests' own machine; no cut that says of a problem, unless it may (`sound` is false). */
export function leftAt(
  cut: { readonly kind: string; readonly values: object },
  region: Region | ((tolerance: number) => Region),
  blank: OnBlank,
  presets: Presets,
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  sound = true,
): Float64Array {
  const { plan, job } = planOn(cut.kind, { ...cut.values }, region, blank, presets);
  if (sound) expect(plan.remarks.filter((r) => r.level === 'problem')).toEqual([]);
  const { text, tools } = programOf(plan, job);
  const shapes = Object.entries(tools).map(([k, id]) => [k, testShape(cutterOf(id).shape, cutterOf(id).values)]);
  const order = Array.from(x, (_, i) => i).sort((a, b) => x[a] - x[b]);
  const cloud = {
    x: Float64Array.from(order, (i) => x[i]),
    y: Float64Array.from(order, (i) => y[i]),
    z: new Float64Array(x.length),
  };
  cutOut(cloud, readMoves(text), Object.fromEntries(shapes));
  const z = new Float64Array(x.length);
  order.forEach((i, k) => (z[i] = cloud.z[k]));
  return z;
}

/** Sections straight across outlines: each has `count` places, `step` mm apart, the first so far outside of the outline, mm. */
export interface Sections {
  readonly many: number;
  readonly count: number;
  readonly step: number;
  readonly out: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** How far each is from the next corner of more than 20 degrees, along its outline, mm. */
  readonly corner: Float64Array;
}
export function sectionsOf(region: Region, many: number, out: number, within: number, step: number): Sections {
  const sides = region.flatMap((l) => {
    const n = l.length / 2;
    const at = (i: number) => [l[2 * (((i % n) + n) % n)], l[2 * (((i % n) + n) % n) + 1]];
    const way = (i: number) => Math.atan2(at(i + 1)[1] - at(i)[1], at(i + 1)[0] - at(i)[0]);
    const long = (i: number) => Math.hypot(at(i + 1)[0] - at(i)[0], at(i + 1)[1] - at(i)[1]);
    const turns = Array.from({ length: n }, (_, i) => {
      const t = way(i) - way(i - 1);
      return Math.abs(Math.atan2(Math.sin(t), Math.cos(t))) > 0.35;
    });
    /** From point i to the next sharp one, forwards or backwards. */
    const far = (i: number, by: 1 | -1): number => {
      let s = 0;
      for (let k = i, c = 0; c < n; c++, k += by) {
        if (turns[((k % n) + n) % n]) return s;
        s += long(by > 0 ? k : k - 1);
      }
      return Infinity;
    };
    return Array.from({ length: n }, (_, i) => ({
      ...{ a: at(i), b: at(i + 1), long: long(i), before: far(i, -1), after: far(i + 1, 1) },
    }));
  });
  const total = sides.reduce((s, e) => s + e.long, 0);
  const count = Math.round((out + within) / step) + 1;
  const [x, y] = [new Float64Array(many * count), new Float64Array(many * count)];
  const corner = new Float64Array(many);
  for (let k = 0; k < many; k++) {
    let s = ((k + 0.37) * total) / many;
    const e = sides.find((q) => (s <= q.long ? true : ((s -= q.long), false)))!;
    const [ux, uy] = [(e.b[0] - e.a[0]) / e.long, (e.b[1] - e.a[1]) / e.long];
    corner[k] = Math.min(e.before + s, e.after + e.long - s);
    // Inside lies left.
    for (let i = 0; i < count; i++) {
      x[k * count + i] = e.a[0] + ux * s - uy * (i * step - out);
      y[k * count + i] = e.a[1] + uy * s + ux * (i * step - out);
    }
  }
  return { many, count, step, out, x, y, corner };
}

export const mirroredAt = (width: number, region: Region): Region =>
  normalise(
    region.map((l) => l.map((v, i) => (i % 2 ? v : width - v))),
    'evenodd',
  );

/** Lettering as it is laid out by default, its middle at x. */
export function lettering(font: string, text: string, capHeight: number, x: number, y: number) {
  const options = { tracking: 30, kerning: true, leading: 1.6, align: 'centre', stretch: 100 } as const;
  const { paths } = layOut({ ...options, text, capHeight }, shippedFont(font));
  const placed = paths.map((p) => transformPath(p, placement(x, y, 0)));
  return (tolerance: number): Region => normalise(placed.map((p) => flatten(p, tolerance)));
}

/** An icon as it would be imported: a boat's anchor, with a ring, curves and sharp flukes, about 24 by 26 mm. */
export function icon(x: number, y: number) {
  const { paths } = readPathData(
    'M0 13 A4 4 0 1 1 0.01 13 Z M0 11 A2 2 0 1 0 0.01 11 Z M-1.5 4 L-1.5 3 L-6 3 L-6 0 L-1.5 0 L-1.5 -8 C-5 -7.5 -8 -5 -8.5 -2 L-6 -2 L-10.5 3 L-12 -3.5 L-10.8 -2.8 C-10 -8 -5 -11.5 0 -13 C5 -11.5 10 -8 10.8 -2.8 L12 -3.5 L10.5 3 L6 -2 L8.5 -2 C8 -5 5 -7.5 1.5 -8 L1.5 0 L6 0 L6 3 L1.5 3 L1.5 4 Z',
  );
  const placed = paths.map((p) => transformPath(p, placement(x, y, 0)));
  return (tolerance: number): Region =>
    normalise(
      placed.map((p) => flatten(p, tolerance)),
      'evenodd',
    );
}
