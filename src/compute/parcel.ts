/**
 * Plain values on their way to a worker, in pieces: what the worker has got before is named, not sent again. Versions of a job
 * share everything that did not change between them, so a changed letter sends the letter and the lists that hold it, and an
 * unchanged plan of a million moves sends a number. In the worker the same piece is the same object each time: what was worked
 * out for it is found by it.
 *
 *     page    { job, plans }  --pack-->  { root, fresh: [[7, letter], [8, [@3, @7]]], gone: [2] }  --unpack-->  { job, plans }   worker
 */
export interface Parcel<T> {
  readonly root: unknown;
  /** Pieces that the worker has not got yet, those inside others first; and whether there are names inside. */
  readonly fresh: readonly (readonly [id: number, piece: unknown, named: boolean])[];
  /** Names that nothing has any more. */
  readonly gone: readonly number[];
  /** Only says what it unpacks to. */
  readonly of?: T;
}

/** A piece by its name. No plain value of a job has such a key. */
const NAME = '\u0000piece';
const nameOf = (v: object): number | undefined => (v as Record<string, number | undefined>)[NAME];

/** Values with so many single values inside have a name of their own: naming every point of a drawing would cost more than it saves. */
const HEAVY = 12;

/** The sending end; one for each worker. What was packed must not be changed any more. */
export class Sender {
  private readonly names = new WeakMap<object, number>();
  private readonly left: FinalizationRegistry<number>;
  private gone: number[] = [];
  private last = 0;

  constructor() {
    this.left = new FinalizationRegistry((id) => this.gone.push(id));
  }

  pack<T>(value: T): Parcel<T> {
    const fresh: [number, unknown, boolean][] = [];
    const { packed } = this.put(value, fresh);
    const { gone } = this;
    this.gone = [];
    return { root: packed, fresh, gone };
  }

  /** What stands for a value in a parcel, how much of it is new, and whether there are names in it. */
  private put(v: unknown, fresh: [number, unknown, boolean][]): { packed: unknown; weight: number; named: boolean } {
    if (typeof v !== 'object' || v === null) return { packed: v, weight: 1, named: false };
    const known = this.names.get(v);
    if (known !== undefined) return { packed: { [NAME]: known }, weight: 1, named: true };
    let packed: unknown = v;
    let named = false;
    let weight = 1;
    if (ArrayBuffer.isView(v)) weight = HEAVY;
    else if (v instanceof Map) throw new TypeError('A map does not go into a parcel.');
    else {
      const parts = Object.entries(v);
      let copy: Record<string, unknown> | null = null;
      for (const [key, part] of parts) {
        if (typeof part !== 'object' || part === null) {
          weight++;
          continue;
        }
        const p = this.put(part, fresh);
        weight += p.weight;
        if (p.packed === part) continue;
        named = true;
        copy ??= (Array.isArray(v) ? [...(v as unknown[])] : { ...v }) as Record<string, unknown>;
        copy[key] = p.packed;
      }
      if (copy) packed = copy;
    }
    // What holds a named piece is named too: it is found again as a whole.
    if (weight < HEAVY && !named) return { packed, weight, named };
    const id = ++this.last;
    this.names.set(v, id);
    this.left.register(v, id);
    fresh.push([id, packed, named]);
    return { packed: { [NAME]: id }, weight: 1, named: true };
  }
}

/** The receiving end, in the worker. */
export class Receiver {
  private readonly pieces = new Map<number, unknown>();

  unpack<T>(parcel: Parcel<T>): T {
    for (const id of parcel.gone) this.pieces.delete(id);
    for (const [id, piece, named] of parcel.fresh) this.pieces.set(id, named ? this.filled(piece) : piece);
    return this.filled(parcel.root) as T;
  }

  /** Puts pieces where their names stand. What came is ours to change. */
  private filled(v: unknown): unknown {
    if (typeof v !== 'object' || v === null || ArrayBuffer.isView(v)) return v;
    const id = nameOf(v);
    if (id !== undefined) {
      if (!this.pieces.has(id)) throw new Error(`Piece ${id} has not come.`);
      return this.pieces.get(id);
    }
    const into = v as Record<string, unknown>;
    for (const key of Object.keys(into)) if (typeof into[key] === 'object') into[key] = this.filled(into[key]);
    return v;
  }
}
