import { heightOf, widthOf, type CutterForm } from '../../cutters/form';
import { derived, memo } from '../../geometry/hash';
import type { HeightField } from '../../relief/field';
import { refined } from '../../relief/refine';
import { column } from '../../units/columns';
import { SharedRoom, type WasmMemory } from '../../units/webAssembly';

/*
 * What locators go by (see `locator.ts`), in numbers alone: made once for a surface and a way of asking it, and shared by threads.
 */

/** Nodes to a side of a block whose greatest height is known. */
export const SIDE = 8;
/** More nodes than so many are not made of a surface. */
const MOST_NODES = 25e6;
/** Nodes nearer than so are not put in, mm. */
const NEAREST = 0.005;
/** Fine tips go through the nodes round a place one by one, where so many at most can be met; else a cutter climbs to where it is met. */
const SCANNED = 1500;
/** A tip is fine where half so many nodes lie in the square about it, so high (mm) above its lowest point. */
const TIP_HIGH = 0.5;
/** Narrower tips count as so wide, mm: what stands beside them is met by what lies under them, which is asked exactly. */
const TIP = 0.1;

/** Least radius with which a cutter is round where it meets what is not level, mm; Infinity for one with upright sides. */
export function roundness(form: CutterForm): number {
  if (form.ball > 0) return form.ball;
  // Along a ridge past its axis the side of a cone is a hyperbola, sharpest at the rim of the tip; a ridge runs along nodes.
  if (form.rise < Infinity) return (2 * Math.max(TIP, form.core)) / form.rise;
  return Infinity;
}

/** How close nodes must lie for a cutter, mm. */
const closeness = (form: CutterForm, tolerance: number): number =>
  Math.max(NEAREST, Math.sqrt(4 * roundness(form) * tolerance));

/** The surface as it is asked, and the greatest heights of its blocks: numbers alone, which pass between threads. */
export interface Blocks {
  readonly f: HeightField;
  readonly across: number;
  readonly up: number;
  readonly tops: Float32Array;
  readonly top: number;
  readonly lowest: number;
  /** For each node: in which ways the surface falls steeply from it: 1 to the next column, 2 to the one before, 4 to the next row, 8 to the one before. */
  readonly falls: Uint8Array;
  /** For each block: nodes from which a wall falls, from `firsts` of it to that of the next. */
  readonly firsts: Int32Array;
  readonly wallNodes: Int32Array;
  /** For each block: itself if it has walls, else the next of all blocks that has. */
  readonly nextWalls: Int32Array;
}

/** Locations over all of the nodes, row by row as they are asked for first by anybody. */
export interface Located {
  readonly z: Float32Array;
  /** 1 for each row that is there. */
  readonly have: Int32Array;
}

/**
 * For each node of a block (8 y + x): blocks beside its own, by how many across and up, and the least height of the outline over
 * each, lowest first; a place lies in the square of nodes beyond the node.
 */
export interface Besides {
  /** Room of each list, in entries, and how many entries it has. */
  readonly room: number;
  readonly counts: Int32Array;
  /** Two whole numbers and a double for each entry. */
  readonly entries: Uint8Array;
}

/** All that a locator goes by, in memory that threads share where there is any. */
export interface LocatorData {
  /** The one memory that all of it lies in, where the compiled locator can ask it; else null. */
  readonly memory: WasmMemory | null;
  readonly besides: Besides;
  /** Which rooms are taken (1), and then the rooms. */
  readonly own: Int32Array;
  readonly blocks: Blocks;
  /** So many blocks to each side of its own a cutter can be met. */
  readonly reach: number;
  /** For each block: the greatest height of those within that reach of it. */
  readonly near: Float32Array;
  /** Where no more nodes than so many can be met, all of them are gone through. */
  readonly scanned: number;
  readonly located: Located;
  readonly form: CutterForm;
  readonly tolerance: number;
  /** See `Locator`. */
  readonly step: number;
  readonly error: number;
}

/**
 * Nodes that lie so many times as far apart in height stand on a wall. Of what is less steep the line between two of them is no
 * matter but where the cutter is met, and there it is asked.
 */
const WALL = 4;

type Column = Float32Array | Int32Array | Uint8Array;
type Room = <T extends Column>(
  of: { new (b: ArrayBufferLike, at?: number, n?: number): T; readonly BYTES_PER_ELEMENT: number },
  n: number,
) => T;

/** Columns in one memory, as long as there is room in it; who has had none there has all of them elsewhere. */
function roomIn(shared: SharedRoom | null): { readonly room: Room; whole(): boolean } {
  let whole = shared !== null;
  return {
    whole: () => whole,
    room(of, n) {
      const at = whole ? shared!.take(n * of.BYTES_PER_ELEMENT) : null;
      if (at !== null) return new of(shared!.memory.buffer, at, n);
      whole = false;
      return column(of as never, n);
    },
  };
}

/** Raises the tops of the blocks that a row of nodes lies in; its lowest, mm. */
function topsOfRow(z: Float32Array, cols: number, r: number, tops: Float32Array, first: number): number {
  let lowest = Infinity;
  const from = r * cols;
  for (let c = 0; c < cols; c++) {
    const h = z[from + c];
    const b = first + (c >> 3);
    if (h > tops[b]) tops[b] = h;
    if (h < lowest) lowest = h;
  }
  return lowest;
}

/** Notes where the surface falls steeply from one node of a row to the next. */
function fallsAlong(z: Float32Array, cols: number, r: number, far: number, falls: Uint8Array, walls: number[]): void {
  const from = r * cols;
  for (let i = from + 1; i < from + cols; i++) {
    const west = z[i] - z[i - 1];
    if (west > far) {
      falls[i] |= 2;
      if (west > WALL * far) walls.push(i);
    } else if (west < -far) {
      falls[i - 1] |= 1;
      if (west < -WALL * far) walls.push(i - 1);
    }
  }
}

/** Notes where it falls steeply from a row to that before, or back. */
function fallsAcross(z: Float32Array, cols: number, r: number, far: number, falls: Uint8Array, walls: number[]): void {
  const from = r * cols;
  for (let i = from; i < from + cols; i++) {
    const south = z[i] - z[i - cols];
    if (south > far) {
      falls[i] |= 8;
      if (south > WALL * far) walls.push(i);
    } else if (south < -far) {
      falls[i - cols] |= 4;
      if (south < -WALL * far) walls.push(i - cols);
    }
  }
}

/** `far`: nodes that lie further apart in height are told to be steep, mm. */
function blocksOf(f: HeightField, far: number, room: Room): Blocks {
  const { cols, rows, z } = f;
  const [across, up] = [Math.ceil(cols / SIDE), Math.ceil(rows / SIDE)];
  const tops = room(Float32Array, across * up).fill(-Infinity);
  const falls = room(Uint8Array, cols * rows);
  const walls: number[] = [];
  const firsts = room(Int32Array, across * up + 1);
  let lowest = Infinity;
  for (let r = 0; r < rows; r++) {
    lowest = Math.min(lowest, topsOfRow(z, cols, r, tops, (r >> 3) * across));
    fallsAlong(z, cols, r, far, falls, walls);
    if (r) fallsAcross(z, cols, r, far, falls, walls);
  }
  const blockOf = (i: number) => (Math.floor(i / cols) >> 3) * across + ((i % cols) >> 3);
  for (const i of walls) firsts[blockOf(i) + 1]++;
  for (let b = 0; b < across * up; b++) firsts[b + 1] += firsts[b];
  const wallNodes = room(Int32Array, walls.length);
  const next = firsts.slice();
  for (const i of walls) wallNodes[next[blockOf(i)]++] = i;
  const nextWalls = room(Int32Array, across * up + 1);
  nextWalls[across * up] = across * up;
  for (let b = across * up - 1; b >= 0; b--) nextWalls[b] = firsts[b + 1] > firsts[b] ? b : nextWalls[b + 1];
  let top = -Infinity;
  for (const t of tops) if (t > top) top = t;
  return { f, across, up, tops, top, lowest, falls, firsts, wallNodes, nextWalls };
}

/**
 * The same cutter as far out as it can be met: over the surface none stands lower than it is there, so what of it is higher than all of
 * the surface is not met.
 */
export const metForm = (form: CutterForm, { f, top, lowest }: Blocks): CutterForm => ({
  ...form,
  radius: Math.min(form.radius, widthOf(form, top - lowest) + f.cell),
});

/** Greatest heights within so many blocks of each. */
function highestNear({ tops, across, up }: Blocks, reach: number, near: Float32Array): Float32Array {
  const along = new Float32Array(across * up).fill(-Infinity);
  for (let y = 0; y < up; y++)
    for (let x = 0; x < across; x++)
      for (let k = Math.max(0, x - reach); k <= Math.min(across - 1, x + reach); k++)
        along[y * across + x] = Math.max(along[y * across + x], tops[y * across + k]);
  near.fill(-Infinity);
  for (let y = 0; y < up; y++)
    for (let k = Math.max(0, y - reach); k <= Math.min(up - 1, y + reach); k++)
      for (let x = 0; x < across; x++) near[y * across + x] = Math.max(near[y * across + x], along[k * across + x]);
  return near;
}

/** Surfaces are held ready for so many ways in which cutters ask them, and located for so many cutters. */
const HELD = 2;

const besides = memo<Besides>(HELD);

/** Blocks beside each node of a block, made once for a cutter and a distance of nodes. */
const besidesFor = (form: CutterForm, cell: number): Besides =>
  besides(`${JSON.stringify(form)} ${cell}`, () => {
    const reach = Math.ceil(form.radius / cell / SIDE) + 1;
    /** Nodes between the square and a block, along one axis. */
    const away = (b: number, p: number) => Math.max(0, b * SIDE - p - 1, p - (b * SIDE + SIDE - 1));
    const lists: { readonly bx: number; readonly by: number; readonly least: number }[][] = [];
    for (let py = 0; py < SIDE; py++)
      for (let px = 0; px < SIDE; px++) {
        const list = [];
        for (let by = -reach; by <= reach; by++)
          for (let bx = -reach; bx <= reach; bx++) {
            const rho = cell * Math.sqrt(away(bx, px) ** 2 + away(by, py) ** 2);
            // From a node that lies no more than the diagonal of a cell beyond the cutter the surface comes down into it.
            if (rho <= form.radius + Math.SQRT2 * cell)
              list.push({ bx, by, least: heightOf(form, Math.min(rho, form.radius)) });
          }
        lists.push(list.sort((a, b) => a.least - b.least));
      }
    const room = Math.max(...lists.map((l) => l.length));
    const entries = new Uint8Array(16 * room * lists.length);
    const view = new DataView(entries.buffer);
    lists.forEach((list, k) =>
      list.forEach(({ bx, by, least }, n) => {
        const at = 16 * (k * room + n);
        view.setInt32(at, bx, true);
        view.setInt32(at + 4, by, true);
        view.setFloat64(at + 8, least, true);
      }),
    );
    return { room, counts: Int32Array.from(lists, (l) => l.length), entries };
  });

/** The same in memory of one's own. */
function besidesIn(room: Room, of: Besides): Besides {
  const counts = room(Int32Array, of.counts.length);
  const entries = room(Uint8Array, of.entries.length);
  counts.set(of.counts);
  entries.set(of.entries);
  return { ...of, counts, entries };
}

/** Rooms for numbers that are kept while a place is asked for: more than there are threads; and how many numbers each holds. */
export const ROOMS = 64;
export const ROOM_NUMBERS = 768;

/** How many times as close nodes are put in for a cutter: as many as it needs, or as there is room for. */
function finer(surface: HeightField, form: CutterForm, tolerance: number): number {
  const wanted = Math.ceil(surface.cell / closeness(form, tolerance) - 1e-9);
  const most = Math.max(1, Math.floor(Math.sqrt(MOST_NODES / surface.z.length)));
  return Math.max(1, Math.min(wanted, most));
}

/** How closely a cutter over a surface is to be asked, and by how much it may cut into it, mm: see `Locator`. */
export function asked(
  surface: HeightField,
  form: CutterForm,
  tolerance: number,
): { readonly step: number; readonly error: number } {
  const cell = surface.cell / finer(surface, form, tolerance);
  const round = roundness(form);
  return {
    step: Math.max(0.01, Math.min(surface.cell, Math.sqrt(8 * Math.min(round, 100) * tolerance))),
    error: Math.max(tolerance, (cell * cell) / (4 * round)),
  };
}

/** What locators of several cutters over one surface go by; what two of them have in common is made once. */
function dataOver(surface: HeightField): (form: CutterForm, tolerance: number) => LocatorData {
  const blocks = memo<{ readonly b: Blocks; readonly shared: SharedRoom | null }>(HELD);
  const located = memo<LocatorData>(HELD);
  return (form, tolerance) => {
    const times = finer(surface, form, tolerance);
    // A line of nodes is asked where its ends lie further apart than a round tells from them.
    const cell = surface.cell / times;
    const far = Math.sqrt(Math.max(cell * cell, 8 * Math.min(1e3, roundness(form)) * tolerance - cell * cell));
    const key = `${times} ${far}`;
    const { b, shared } = blocks(key, () => {
      const shared = SharedRoom.begun();
      const { room, whole } = roomIn(shared);
      const f = refined(surface, times, (n) => room(Float32Array, n));
      // What is asked as it is lies there as well.
      const z = f === surface ? room(Float32Array, f.z.length) : f.z;
      if (f === surface) z.set(f.z);
      return { b: blocksOf({ ...f, z }, far, room), shared: whole() ? shared : null };
    });
    return located(`${key} ${JSON.stringify(form)} ${tolerance}`, () => {
      const { room, whole } = roomIn(shared);
      const reach = Math.ceil(metForm(form, b).radius / b.f.cell / SIDE) + 1;
      const data = {
        blocks: b,
        reach,
        near: highestNear(b, reach, room(Float32Array, b.tops.length)),
        scanned: (2 * (widthOf(form, TIP_HIGH) / b.f.cell) + 3) ** 2 <= SCANNED / 2 ? SCANNED : 0,
        located: { z: room(Float32Array, b.f.z.length), have: room(Int32Array, b.f.rows) },
        besides: besidesIn(room, besidesFor(form, b.f.cell)),
        own: room(Int32Array, ROOMS + 2 * ROOM_NUMBERS * ROOMS),
        form,
        tolerance,
        ...asked(surface, form, tolerance),
      };
      return { ...data, memory: whole() ? shared!.memory : null };
    });
  };
}
const datas = derived<HeightField, ReturnType<typeof dataOver>>();
export const locatorData = (surface: HeightField, form: CutterForm, tolerance: number): LocatorData =>
  datas(surface, '', () => dataOver(surface))(form, tolerance);
