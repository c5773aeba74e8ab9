import { compiledOnce, WASM_START, wasmMemory, webAssembly, type WasmMemory } from '../units/webAssembly';
import { MODULE } from './fieldsModule';

/** What the module does: see `wasm/fields.as.ts`. Addresses of heights, and what they are worked on with. */
interface Exports {
  lay(under: number, form: number, weights: number, n: number, meets: number, base: number, strength: number): void;
  ownLines(z: number, cols: number, rows: number, r: number, eps: number, a: number, b: number, room: number): void;
  lines(
    z: number,
    g: number,
    cols: number,
    rows: number,
    r: number,
    eps: number,
    a: number,
    b: number,
    room: number,
  ): void;
  means(
    z: number,
    g: number,
    cols: number,
    rows: number,
    r: number,
    a: number,
    b: number,
    out: number,
    room: number,
  ): void;
}

const compile = compiledOnce(MODULE);

export interface FieldsKernel {
  readonly run: Exports;
  readonly memory: WasmMemory;
  /** Where room for the `k`-th of some fields of `nodes` nodes begins. */
  at(k: number, nodes: number): number;
}

/** The compiled kernel with room for so many bytes; null where this machine has none, or no such room. */
export function fieldsKernel(bytes: number): FieldsKernel | null {
  const code = compile();
  const memory = code && wasmMemory(WASM_START + bytes);
  if (!memory) return null;
  const { exports } = new (webAssembly()!.Instance)(code, { env: { memory } });
  return { run: exports as Exports, memory, at: (k, nodes) => WASM_START + 4 * k * nodes };
}
