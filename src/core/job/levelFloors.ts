import { drawnItem } from '../artwork/drawn';
import type { Item } from '../artwork/item';
import { flatten, transformPath, type Path } from '../geometry/path';
import { loopArea } from '../geometry/region';
import { lengthText } from '../units/length';
import type { OneSetup } from './job';

/** A level floor that was found in a relief: its height from the top face, mm, its area, mm2, and the outlines round it. */
export interface LevelFloor {
  readonly height: number;
  readonly area: number;
  readonly paths: readonly Path[];
  /** Round all that is cleared down to it; the same list for floors that are cleared at once. */
  readonly below: readonly Path[];
}

/** Floors that differ by less are one, and less below the face nothing is cleared, mm. */
const ALIKE = 0.005;

/** Of floors those that lie below a depth, mm from the top face, as lists of one depth each, the highest first. */
export function floorsBelow(floors: readonly LevelFloor[], top: number): { depth: number; floors: LevelFloor[] }[] {
  const out: { depth: number; floors: LevelFloor[] }[] = [];
  for (const f of [...floors].sort((a, b) => b.height - a.height)) {
    if (-f.height <= top + ALIKE) continue;
    const last = out.at(-1);
    if (last && -f.height - last.depth < ALIKE) last.floors.push(f);
    else out.push({ depth: -f.height, floors: [f] });
  }
  return out;
}

/** Floors as much larger about the middle of a blank, and as much deeper. */
export function enlargedFloors(
  floors: readonly LevelFloor[],
  times: number,
  { width, height }: OneSetup['blank'],
): LevelFloor[] {
  const by = { a: times, b: 0, c: 0, d: times, e: ((1 - times) * width) / 2, f: ((1 - times) * height) / 2 };
  // Those that are shared stay so.
  const known = new Map<readonly Path[], readonly Path[]>();
  const larger = (paths: readonly Path[]): readonly Path[] => {
    const there = known.get(paths) ?? paths.map((p) => transformPath(p, by));
    known.set(paths, there);
    return there;
  };
  return floors.map((f) => ({
    ...{ height: f.height * times, area: f.area * times * times },
    paths: larger(f.paths),
    below: larger(f.below),
  }));
}

/** The layer on which outlines of level floors come. */
const LAYER = { name: 'Level floors', colour: '#7a5c2e' };

/** What was drawn of level floors. */
export interface DrawnFloors {
  /** Round what is cleared, list by list as they are given. */
  readonly cleared: readonly (readonly Item[])[];
  /** Round the level parts of it; the same where nothing deeper lies in them. */
  readonly level: readonly Item[];
  readonly items: readonly Item[];
  readonly layers: OneSetup['layers'];
}

/** Outlines of lists of floors as artwork of a set-up, and its layers with theirs. */
export function drawnFloors(
  one: OneSetup,
  lists: readonly { readonly depth: number; readonly floors: readonly LevelFloor[] }[],
  freshId: () => string,
): DrawnFloors {
  const kept = one.layers.find((l) => l.name === LAYER.name && !l.locked);
  const layer = kept ?? { ...LAYER, id: freshId(), visible: true, locked: false };
  const drawn = (name: string, paths: readonly Path[]): Item =>
    drawnItem({ id: freshId(), layer: layer.id, group: null, name }, paths);
  const level: Item[] = [];
  const cleared = lists.map(({ depth, floors }) => {
    const deep = lengthText(depth, one.unit);
    const all = new Map<readonly Path[], Item>();
    for (const f of floors) {
      const item = all.get(f.below) ?? drawn(`Floor, ${deep} deep`, f.below);
      all.set(f.below, item);
      level.push(isAllLevel(f) ? item : drawn(`Level part, ${deep} deep`, f.paths));
    }
    return [...all.values()];
  });
  const items = [...new Set([...cleared.flat(), ...level])];
  return { cleared, level, items, layers: kept || !items.length ? one.layers : [...one.layers, layer] };
}

/** Whether what is cleared is the level floor alone, but for what its edges are known less well by. */
function isAllLevel({ area, paths, below }: LevelFloor): boolean {
  const cleared = below.reduce((s, p) => s + loopArea(flatten(p, 0.01)), 0);
  return below.length === paths.length && cleared < 1.1 * area;
}
