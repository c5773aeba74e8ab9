import { cutterLabel, cuttingLength, formOf, type Cutter, type Preset } from './cutter';
import { widthOf } from './form';
import { materialIds, materials, type MaterialId } from './materials';
import { roundLengths } from '../units/round';
import { shapeOf } from './registry';

/** What a bench spindle turns at most, rpm. */
const TOP_SPEED = 18000;

/**
 * Speeds and feeds from the trade's formulas: rpm = 1000 vc / (pi d), feed = rpm * teeth * chip load
 * (Machinery's Handbook, "Speeds and Feeds"). For cones and balls the effective diameter is a third
 * of the nominal one, since little of the cutter is engaged; for tapered balls that of the tip.
 */
export function presetFor(
  shapeId: string,
  values: Record<string, number>,
  teeth: number,
  materialId: MaterialId,
): Preset {
  const m = materials[materialId];
  const d = 2 * shapeOf(shapeId).radius(values);
  const pointed = shapeId === 'v' || shapeId === 'cone' || shapeId === 'taperedBall';
  // What works of a tapered ball is its tip, however thick it grows above.
  const engaged =
    shapeId === 'taperedBall' ? 2 * values.tipRadius : pointed || shapeId === 'ball' ? Math.max(d / 3, 0.5) : d;
  if (shapeId === 'drag') return { rpm: 0, feed: 900, plunge: 200, stepDown: 0.1, stepOver: 0.1 };
  const rpm =
    Math.round(Math.min(TOP_SPEED, Math.max(3000, (1000 * m.surfaceSpeed) / (Math.PI * engaged))) / 100) * 100;
  const chip = Math.max(0.004, m.chip * Math.min(engaged, 8));
  const feed = Math.max(60, Math.round((rpm * teeth * chip) / 10) * 10);
  // Ridges that a pointed cutter leaves on a floor are 0.05 mm high at most.
  const ridge = Math.floor(2000 * widthOf(shapeOf(shapeId).form(values), 0.05)) / 1000;
  const tip = values.tipDiameter ?? (shapeId === 'taperedBall' ? values.tipRadius : 0);
  return {
    rpm,
    feed,
    plunge: Math.max(30, Math.round((feed * (shapeId === 'drill' ? 0.6 : 0.35)) / 10) * 10),
    stepDown: +(
      shapeId === 'taperedBall'
        ? Math.max(0.05, engaged * m.stepDown)
        : pointed
          ? Math.max(0.4, d * m.stepDown * 0.5)
          : Math.max(0.05, d * m.stepDown)
    ).toFixed(3),
    stepOver: +(
      shapeId === 'flat' || shapeId === 'bull'
        ? d * 0.4
        : pointed
          ? Math.min(ridge, Math.max(0.05, tip * 0.5 || d * 0.02))
          : d * 0.1
    ).toFixed(3),
  };
}

/**
 * A cutter with another shape or other values: presets that were worked out from the old ones are worked out anew, those that
 * the maker has entered stay. Another shape keeps none, nor a name and group that came with the old one.
 */
export function reshaped(c: Cutter, shape: string, values: Record<string, number>): Cutter {
  const presets = Object.fromEntries(
    Object.entries(c.presets).map(([m, p]) => {
      const material = m as MaterialId;
      const own =
        shape === c.shape && JSON.stringify(p) !== JSON.stringify(presetFor(c.shape, c.values, c.teeth, material));
      return [m, own ? p : presetFor(shape, values, c.teeth, material)];
    }),
  );
  return { ...c, shape, values, presets };
}

/** The label of a cutter, with a number where another one is called so already. */
export function freeLabel(c: Cutter, among: readonly Cutter[]): string {
  const label = cutterLabel(c, c.unit);
  const taken = new Set(among.filter((q) => q.id !== c.id).map((q) => q.name));
  for (let n = 1; ; n++) {
    const name = n > 1 ? `${label}, ${n}` : label;
    if (!taken.has(name)) return name;
  }
}

/** Whether a cutter's name was made from its shape and size. */
export const hasLabel = (c: Cutter): boolean => c.name.replace(/, \d+$/, '') === cutterLabel(c, c.unit);

/** A cutter of a shape as it comes to a library: round in its unit, named by its shape and size, in the group where most of its kind are, with presets for all materials. */
export function newCutter(shape: string, unit: Cutter['unit'], among: readonly Cutter[], id: string): Cutter {
  const { defaults, fields } = shapeOf(shape);
  const values = roundLengths({ ...(defaults as Record<string, number>) }, fields, unit);
  const count = new Map<string, number>();
  for (const c of among) if (c.shape === shape) count.set(c.group, (count.get(c.group) ?? 0) + 1);
  const group = [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? `${shapeOf(shape).name}s`;
  const made = { ...make(group, shape, values, '', { unit }), id };
  return { ...made, name: freeLabel(made, among) };
}

/** How long the edges of a cutter of a shape and size are, as such are sold, mm. */
function edgesOf(shape: string, v: Record<string, number>): number {
  const half = v.halfAngle ?? (v.includedAngle ?? 0) / 2;
  switch (shape) {
    case 'v':
    case 'cone':
      return +((v.diameter - (v.tipDiameter ?? 0)) / 2 / Math.tan((half * Math.PI) / 180)).toFixed(2);
    case 'drag':
      return 1;
    case 'taperedBall':
      return +((10 * v.diameter) / 3).toFixed(2);
    case 'drill':
      return +(12 * v.diameter).toFixed(2);
    default:
      return +Math.max(3, v.diameter * 3.6).toFixed(2);
  }
}

/** What a step-over in per cent is a share of: the tip of cones and tapered balls that have one, else the whole cutter. mm */
export function stepShareOf(c: Cutter): { readonly mm: number; readonly of: 'tip' | 'cutter' } {
  const tip =
    c.shape === 'taperedBall'
      ? 2 * c.values.tipRadius
      : c.shape === 'cone' || c.shape === 'v'
        ? (c.values.tipDiameter ?? 0)
        : 0;
  return tip > 0 ? { mm: tip, of: 'tip' } : { mm: 2 * shapeOf(c.shape).radius(c.values), of: 'cutter' };
}

function make(
  group: string,
  shape: string,
  values: Record<string, number>,
  name: string,
  extra: Partial<Cutter> = {},
): Cutter {
  const d = 2 * shapeOf(shape).radius(values);
  const teeth = extra.teeth ?? (shape === 'flat' || shape === 'ball' || shape === 'bull' || shape === 'drill' ? 2 : 1);
  const presets: Cutter['presets'] = {};
  for (const m of materialIds) presets[m] = presetFor(shape, values, teeth, m);
  return {
    id: `${shape}-${Object.values(values).join('-')}`,
    name,
    group,
    shape,
    values,
    teeth,
    fluteLength: edgesOf(shape, values),
    shankDiameter: Math.max(3.175, Math.min(d, 12)),
    unit: 'mm',
    notes: '',
    supplier: '',
    stockNumber: '',
    slot: 0,
    presets,
    ...extra,
  };
}

/** The library that ships with Mirvak. */
export function shippedLibrary(): Cutter[] {
  const flats = [1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12].map((d) =>
    make('End mills', 'flat', { diameter: d }, `End mill ${d} mm`),
  );
  const balls = [1, 2, 3, 4, 6, 8].map((d) => make('Ball noses', 'ball', { diameter: d }, `Ball nose ${d} mm`));
  const bulls = [{ diameter: 6, cornerRadius: 1 }].map((v) =>
    make('End mills', 'bull', v, `Bull nose ${v.diameter} mm R ${v.cornerRadius}`),
  );
  const vs = (
    [
      [6, 30],
      [6, 60],
      [12, 60],
      [12, 90],
      [20, 90],
      [25, 120],
    ] as const
  ).map(([d, a]) => make('V-bits', 'v', { diameter: d, includedAngle: a, tipDiameter: 0 }, `V-bit ${a}° ${d} mm`));
  const cones = (
    [
      [10, 0.1],
      [15, 0.2],
      [20, 0.1],
      [30, 0.2],
    ] as const
  ).map(([a, t]) =>
    make('Engraving cones', 'cone', { diameter: 3.175, halfAngle: a, tipDiameter: t }, `Cone ${a}° half, ${t} mm tip`),
  );
  const tapered = [
    [0.25, 5],
    [0.5, 5],
    [1, 7],
  ].map(([r, a]) =>
    make('Tapered balls', 'taperedBall', { diameter: 6, tipRadius: r, halfAngle: a }, `Tapered ball R ${r} mm`, {
      teeth: 2,
    }),
  );
  const drags = [90, 120].map((a) =>
    make('Drag diamonds', 'drag', { diameter: 3, includedAngle: a, tipRadius: 0.02 }, `Drag diamond ${a}°`),
  );
  const drills = [1, 2, 3, 4, 5, 6].map((d) =>
    make('Drills', 'drill', { diameter: d, includedAngle: 118 }, `Drill ${d} mm`),
  );
  const inches = (
    [
      ['1/16', 1 / 16],
      ['1/8', 1 / 8],
      ['1/4', 1 / 4],
      ['1/2', 1 / 2],
    ] as const
  ).flatMap(([name, size]) => {
    const d = 25.4 * size;
    return [
      make('End mills', 'flat', { diameter: d }, `End mill ${name} in`, { unit: 'in' }),
      ...(size === 1 / 8 || size === 1 / 4
        ? [make('Ball noses', 'ball', { diameter: d }, `Ball nose ${name} in`, { unit: 'in' })]
        : []),
      ...(size === 1 / 2
        ? [60, 90].map((a) =>
            make('V-bits', 'v', { diameter: d, includedAngle: a, tipDiameter: 0 }, `V-bit ${a}° ${name} in`, {
              unit: 'in',
            }),
          )
        : []),
      ...(size < 1 / 2
        ? [make('Drills', 'drill', { diameter: d, includedAngle: 118 }, `Drill ${name} in`, { unit: 'in' })]
        : []),
    ];
  });
  return [...flats, ...bulls, ...balls, ...vs, ...cones, ...tapered, ...drags, ...drills, ...inches].map((c, i) => ({
    ...c,
    slot: i + 1,
  }));
}

/** The cutter of a shape whose diameter is nearest to a wanted one, mm, and whose angle is, where one is wanted; none when there is no such shape. */
export function nearestCutter(cutters: readonly Cutter[], shape: string, diameter: number, angle = 0): string {
  const off = (c: Cutter) =>
    (angle ? 100 * Math.abs((c.values.includedAngle ?? 0) - angle) : 0) +
    Math.abs(2 * shapeOf(c.shape).radius(c.values) - diameter);
  const of = cutters.filter((c) => c.shape === shape);
  return of.length ? of.reduce((m, c) => (off(c) < off(m) ? c : m)).id : '';
}

/** The cutters that a job in a unit begins with: of each shape those that are sold in that unit, where there are any. */
export const cuttersIn = (cutters: readonly Cutter[], unit: Cutter['unit']): Cutter[] =>
  cutters.filter((c) => c.unit === unit || !cutters.some((q) => q.shape === c.shape && q.unit === unit));

/** How wide a tip is, mm: its level core and the round about that. What enters a crease is narrower. */
const tipOf = (c: Cutter): number => {
  const { core, ball } = formOf(c);
  return core + ball;
};
/** A finer cutter follows well that is at most so much of the one before: with less between them it leaves almost as much. */
const FINER = 0.6;

/**
 * The cutter that goes on where the finest of some is too wide: the widest that is clearly finer, else the finest there is; of two
 * alike that with the longer edges. Null where none of `among` is finer.
 */
export function finerThan(some: readonly Cutter[], among: readonly Cutter[]): Cutter | null {
  const finest = Math.min(...some.map(tipOf));
  const finer = among.filter((c) => tipOf(c) < finest - 1e-6);
  const clearly = finer.filter((c) => tipOf(c) <= FINER * finest);
  const better = (a: Cutter, b: Cutter) =>
    (clearly.length ? tipOf(b) - tipOf(a) : tipOf(a) - tipOf(b)) || cuttingLength(b) - cuttingLength(a);
  return [...(clearly.length ? clearly : finer)].sort(better)[0] ?? null;
}

/** Takes cutters of the library into a job that has none of their ids. */
export function bringCutters(
  job: { readonly cutters: Cutter[] },
  ids: readonly (string | null)[],
  library: readonly Cutter[],
): void {
  for (const id of ids) {
    if (!id || job.cutters.some((c) => c.id === id)) continue;
    const c = library.find((q) => q.id === id);
    if (c) job.cutters.push(structuredClone(c));
  }
}
