import { jointOf, type CutterForm } from '../cutters/form';
import type { HeightField } from '../relief/field';
import type { ChainSweep } from './chainSweep';
import { TOP } from './envelope';
import type { Rows } from './removal';
import { compiledOnce, WASM_START as START, wasmMemory, webAssembly, type WasmMemory } from '../units/webAssembly';
import { MODULE } from './sweepModule';

/** What the module does: see there. */
interface Exports {
  setField(z: number, cols: number, cell: number, x0: number, y0: number, top: number): void;
  setRoom(points: number, rows: number): void;
  setCutter(kind: number, radius: number, core: number, ball: number, rise: number, rim: number, high: number): void;
  cut(n: number, joined: boolean, ends: boolean, from: number, to: number): void;
}

/** Outlines that it knows, by the number it has for them; a round about a core is cut in TypeScript. */
function kindOf(f: CutterForm): number | null {
  const upright = f.rise === Infinity;
  if (f.ball === 0) return upright ? 0 : 1;
  if (f.core > 0) return null;
  return upright ? 2 : 3;
}

/** Moves that are longer (mm) are cut in parts. */
const LONG = 4;
/** Moves that fall or rise by more (mm a mm) are not for single floats: what those are off sideways is so much more in height. */
const STEEPEST = 20;
/** Points of a chain that are cut at once. */
const POINTS = 1024;
const compile = compiledOnce(MODULE);

/**
 * The compiled sweep (`wasm/sweep.as.ts`), four nodes at a time. It reaches its own memory alone, so a field is made where it cuts:
 *
 *     memory   │ points of a chain │ rows of a move │ heights of the field ...
 *
 * `makeRemover` finds out by itself whether a field lies so, and leaves the same surface either way, to 2e-5 mm: single floats
 * against doubles. The same chains of moves give the same bits on every machine and in every band of rows.
 */
export class SweepKernel {
  /** Of the chain that has been begun, x, y, z interleaved. */
  readonly points: Float64Array;
  private readonly run: Exports;
  /** Whose chain has been begun and not yet flushed. */
  owner: ChainSweep | null = null;

  private constructor(
    readonly field: HeightField,
    code: object,
    memory: WasmMemory,
    heights: number,
  ) {
    this.run = new (webAssembly()!.Instance)(code, { env: { memory } }).exports as unknown as Exports;
    this.run.setRoom(START, START + 24 * POINTS);
    this.run.setField(heights, field.cols, field.cell, field.x0, field.y0, TOP);
    this.points = new Float64Array(memory.buffer, START, 3 * POINTS);
  }

  /** A level field like this one where a kernel cuts it; null where there is none, or no room. */
  static at({ cols, rows, cell, x0, y0 }: Omit<HeightField, 'z'>): HeightField | null {
    const code = compile();
    // Four nodes of a row at once.
    if (!code || cols < 4) return null;
    // What is known of rows takes 16 bytes for each, in fours.
    const heights = (START + 24 * POINTS + 16 * (rows + 8) + 15) & ~15;
    const memory = wasmMemory(heights + 4 * cols * rows);
    if (!memory) return null;
    const field = { cols, rows, cell, x0, y0, z: new Float32Array(memory.buffer, heights, cols * rows) };
    kernels.set(memory.buffer, new SweepKernel(field, code, memory, heights));
    return field;
  }

  /** The kernel of the memory that a field lies in. */
  static of(field: HeightField): SweepKernel | null {
    return kernels.get(field.z.buffer) ?? null;
  }

  /** Cuts chains by a cutter of this form; null when its outline is none that the kernel knows. */
  sweep(form: CutterForm, only: Rows): ChainSweep | null {
    const kind = kindOf(form);
    if (kind === null) return null;
    return new Chain(this, kind, form, only);
  }

  /** Cuts the first n points that were put. */
  cut(kind: number, form: CutterForm, only: Rows, n: number, joined: boolean, ends: boolean): void {
    const { radius, core, ball, rise } = form;
    const { out, high } = jointOf(form);
    this.run.setCutter(kind, radius, core, ball, rise === Infinity ? 0 : rise, core + out, high);
    this.run.cut(n, joined, ends, only.from, only.to);
  }
}

/** Puts the moves of one cutter into the kernel's room, and has them cut when that is full. */
class Chain implements ChainSweep {
  readonly steepest = STEEPEST * STEEPEST;
  private count = 0;
  private joined = false;

  constructor(
    private readonly kernel: SweepKernel,
    private readonly kind: number,
    private readonly form: CutterForm,
    private readonly only: Rows,
  ) {}

  private run(n: number, ends: boolean): void {
    this.kernel.cut(this.kind, this.form, this.only, n, this.joined, ends);
    this.joined = true;
  }

  flush(): void {
    if (this.count) this.run(this.count, true);
    this.count = 0;
    this.joined = false;
    if (this.kernel.owner === this) this.kernel.owner = null;
  }

  /** What another cutter has begun is cut first. */
  private own(): void {
    if (this.kernel.owner !== this) this.kernel.owner?.flush();
    this.kernel.owner = this;
  }

  private put(x: number, y: number, z: number): void {
    const { points } = this.kernel;
    if (this.count === POINTS) {
      // The last move waits: whether another follows is not known yet.
      this.run(this.count - 1, false);
      points.copyWithin(0, 3 * (this.count - 2), 3 * this.count);
      this.count = 2;
    }
    const k = 3 * this.count;
    points[k] = x;
    points[k + 1] = y;
    points[k + 2] = z;
    this.count++;
  }

  cut(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void {
    if (z0 >= TOP && z1 >= TOP) return;
    this.own();
    const { points } = this.kernel;
    const long = Math.sqrt((x1 - x0) * (x1 - x0) + (y1 - y0) * (y1 - y0));
    const standing = long < 1e-9;
    const k = 3 * this.count - 3;
    if (this.count && (standing || points[k] !== x0 || points[k + 1] !== y0 || points[k + 2] !== z0)) this.flush();
    if (!this.count) {
      this.own();
      this.put(x0, y0, z0);
    }
    // Single floats reach so far and no further.
    const parts = long > LONG ? Math.ceil(long / LONG) : 1;
    for (let i = 1; i < parts; i++)
      this.put(x0 + ((x1 - x0) * i) / parts, y0 + ((y1 - y0) * i) / parts, z0 + ((z1 - z0) * i) / parts);
    this.put(x1, y1, z1);
    if (standing) this.flush();
  }

  follow(x: Float64Array, y: Float64Array, z: Float64Array, from: number, to: number, steep: number): number {
    for (let i = from; i < to; i++) {
      const dx = x[i] - x[i - 1];
      const dy = y[i] - y[i - 1];
      const dz = z[i] - z[i - 1];
      const l2 = dx * dx + dy * dy;
      if (dz * dz >= steep * l2 && l2 > 0) return i;
      this.cut(x[i - 1], y[i - 1], z[i - 1], x[i], y[i], z[i]);
    }
    return to;
  }
}

const kernels = new WeakMap<ArrayBufferLike, SweepKernel>();
