/**
 * Plain values in shared memory that grows as it is written: for whoever waits, and can be sent no message meanwhile.
 *
 *     where the words are ── how long ── columns of numbers, one after the other ── words: what the value is, columns by their places
 */
export type Room = SharedArrayBuffer;

type Column = Float64Array | Float32Array | Int32Array | Uint8Array;
const COLUMNS = [Float64Array, Float32Array, Int32Array, Uint8Array] as const;

/** No plain value has such a key: it holds which of `COLUMNS`, where it begins, and how many numbers. */
const COLUMN = '\u0000column';
/** Two numbers of eight bytes. */
const HEAD = 16;
/** Only what is written takes memory, but all of it has an address. */
const MOST_ROOM = 64e6;

interface Growing {
  readonly growable: boolean;
  readonly maxByteLength: number;
  grow(bytes: number): void;
}

/** Room for a value of at most so many bytes; null where the browser has none, or none that grows. */
export function makeRoom(most = MOST_ROOM): Room | null {
  if (typeof SharedArrayBuffer === 'undefined') return null;
  const Growable = SharedArrayBuffer as new (n: number, o: object) => Room & Partial<Growing>;
  try {
    const room = new Growable(HEAD, { maxByteLength: Math.max(HEAD, most) });
    return room.growable ? room : null;
  } catch (e) {
    if (!(e instanceof RangeError)) throw e;
    return null;
  }
}

const columnIn = (room: Room, kind: number, at: number, count: number): Column =>
  new (COLUMNS[kind] as new (b: Room, at: number, count: number) => Column)(room, at, count);

const aligned = (bytes: number): number => 8 * Math.ceil(bytes / 8);

/** Writes a value; false where there is not room for it. A column that it holds twice is written once. Throws for what is not plain. */
export function writeRoom(room: Room, value: unknown): boolean {
  const places = new Map<Column, readonly [kind: number, at: number, count: number]>();
  let end = HEAD;
  const wordsFor = (v: unknown): unknown => {
    if (typeof v === 'number' && !Number.isFinite(v)) throw new TypeError(`${v} has no word in shared memory.`);
    if (typeof v !== 'object' || v === null) return v;
    if (Array.isArray(v)) return v.map(wordsFor);
    if (!ArrayBuffer.isView(v))
      return Object.fromEntries(Object.entries(v).map(([key, part]) => [key, wordsFor(part)]));
    const column = v as Column;
    let place = places.get(column);
    if (!place) {
      const kind = COLUMNS.findIndex((c) => column instanceof c);
      if (kind < 0) throw new TypeError('Such a column is not known in shared memory.');
      places.set(column, (place = [kind, end, column.length]));
      end = aligned(end + column.byteLength);
    }
    return { [COLUMN]: place };
  };
  const words = new TextEncoder().encode(JSON.stringify(wordsFor(value)));
  const growing = room as Room & Growing;
  if (end + words.length > growing.maxByteLength) return false;
  growing.grow(end + words.length);
  for (const [column, [kind, at, count]] of places) columnIn(room, kind, at, count).set(column);
  new Uint8Array(room, end, words.length).set(words);
  new Float64Array(room, 0, 2).set([end, words.length]);
  return true;
}

/** What was written, in memory of its own; null where nothing was. */
export function readRoom<T>(room: Room): T | null {
  const [at, length] = new Float64Array(room, 0, 2);
  if (!at) return null;
  const columns = new Map<number, Column>();
  // What is shared cannot be decoded.
  const words = new TextDecoder().decode(new Uint8Array(room, at, length).slice());
  return JSON.parse(words, (_key, v) => {
    const place = v?.[COLUMN] as readonly [number, number, number] | undefined;
    if (!place) return v;
    const [kind, from, count] = place;
    let column = columns.get(from);
    // One that holds nothing begins where the next one does.
    if (!column || !count) {
      column = columnIn(room, kind, from, count).slice();
      if (count) columns.set(from, column);
    }
    return column;
  }) as T;
}
