import { jointOf } from '../../cutters/form';
import { compiledOnce, webAssembly } from '../../units/webAssembly';
import type { Locator } from './locator';
import { ROOM_NUMBERS, ROOMS, type LocatorData } from './locatorData';
import { MODULE } from './locatorModule';
import type { LocatorParts } from './locatorParts';

/** What the module does: see `wasm/locator.as.ts`. */
interface Exports {
  setSurface(
    z: number,
    falls: number,
    tops: number,
    near: number,
    cols: number,
    rows: number,
    cell: number,
    x0: number,
    y0: number,
    top: number,
  ): void;
  setRoom(
    firsts: number,
    nodes: number,
    next: number,
    located: number,
    have: number,
    lists: number,
    counts: number,
    room: number,
    own: number,
    rooms: number,
    numbers: number,
  ): void;
  setCutter(
    radius: number,
    core: number,
    ball: number,
    rise: number,
    rim: number,
    high: number,
    bend: number,
    reach: number,
    scanned: number,
  ): void;
  addEdge(high: number, radius: number, count: number): void;
  restart(): void;
  at(x: number, y: number): number;
}

const compile = compiledOnce(MODULE);

/**
 * A locator by the compiled module, over the one memory that its data lie in; null where they do not, or this machine cannot. It
 * finds what `locatorScript` finds, within what both may be off.
 */
export function locatorKernel(
  { memory, blocks, reach, near, scanned, located, besides, own, form }: LocatorData,
  { edges, row, bend }: LocatorParts,
): Pick<Locator, 'at' | 'restart'> | null {
  const code = memory && compile();
  if (!memory || !code || edges.length > 2) return null;
  const { exports } = new (webAssembly()!.Instance)(code, {
    env: { memory },
    'locator.as': { needRow: row ?? (() => {}), cosine: Math.cos, sine: Math.sin },
  });
  const run = exports as Exports;
  const { f, tops, falls, firsts, wallNodes, nextWalls, top } = blocks;
  const { cols, rows, cell, x0, y0 } = f;
  run.setSurface(f.z.byteOffset, falls.byteOffset, tops.byteOffset, near.byteOffset, cols, rows, cell, x0, y0, top);
  run.setRoom(
    firsts.byteOffset,
    wallNodes.byteOffset,
    nextWalls.byteOffset,
    row ? located.z.byteOffset : 0,
    located.have.byteOffset,
    besides.entries.byteOffset,
    besides.counts.byteOffset,
    besides.room,
    own.byteOffset,
    ROOMS,
    ROOM_NUMBERS,
  );
  const { out, high } = jointOf(form);
  const { radius, core, ball, rise } = form;
  run.setCutter(radius, core, ball, rise === Infinity ? 0 : rise, core + out, high, bend, reach, scanned);
  for (const e of edges) run.addEdge(e.high, e.radius, e.count);
  return {
    restart: () => run.restart(),
    at(x, y) {
      const z = run.at(x, y);
      return z === -Number.MAX_VALUE ? -Infinity : z;
    },
  };
}
