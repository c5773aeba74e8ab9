/** A memory of WebAssembly; when it grows, its buffer is another one. */
export interface WasmMemory {
  readonly buffer: ArrayBuffer;
  grow(pages: number): number;
}

/** The part of WebAssembly that the core uses. */
export interface Wasm {
  validate(bytes: Uint8Array): boolean;
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { readonly exports: unknown };
  Memory: new (pages: { initial: number; maximum: number; shared?: boolean }) => WasmMemory;
}

/** WebAssembly of this machine, which the language's own types do not name; null where there is none. */
export const webAssembly = (): Wasm | null => (globalThis as unknown as { WebAssembly?: Wasm }).WebAssembly ?? null;

/** A page of its memory, bytes. */
export const WASM_PAGE = 65536;
const MOST_PAGES = 65536;
/** The compiler keeps the first KiB of a memory for itself; what modules hold by themselves comes after it, less than another. */
export const WASM_START = 2048;

const machine = globalThis as unknown as { atob(text: string): string };

/**
 * A module of bytes in base64, compiled at the first call; null where this machine cannot (no WebAssembly, no four floats at once, or
 * a policy against it).
 */
export function compiledOnce(base64: string): () => object | null {
  let compiled: object | null | undefined;
  return () => {
    if (compiled !== undefined) return compiled;
    compiled = null;
    const wasm = webAssembly();
    if (!wasm) return null;
    try {
      const bytes = Uint8Array.from(machine.atob(base64), (c) => c.charCodeAt(0));
      if (wasm.validate(bytes)) compiled = new wasm.Module(bytes);
    } catch {
      // It is done in TypeScript then, which needs no leave.
    }
    return compiled;
  };
}

/** So many bytes of memory, and no more; null where there is no room for them. */
export function wasmMemory(bytes: number): WasmMemory | null {
  const pages = Math.ceil(bytes / WASM_PAGE);
  if (pages > MOST_PAGES) return null;
  try {
    return new (webAssembly()!.Memory)({ initial: pages, maximum: pages });
  } catch (e) {
    if (e instanceof RangeError) return null;
    throw e;
  }
}

/**
 * Columns of numbers in a memory that threads share and that grows as they are asked for; null where this machine has no such memory.
 * They are views of it, so they pass between threads like any other.
 */
export class SharedRoom {
  private end = WASM_START;
  private constructor(readonly memory: WasmMemory) {}

  static begun(): SharedRoom | null {
    if (typeof SharedArrayBuffer === 'undefined' || !webAssembly()) return null;
    try {
      return new SharedRoom(new (webAssembly()!.Memory)({ initial: 1, maximum: MOST_PAGES / 2, shared: true }));
    } catch (e) {
      if (e instanceof RangeError) return null;
      throw e;
    }
  }

  /** Room for so many bytes, by sixteens: where it begins; null where there is none. */
  take(bytes: number): number | null {
    const at = this.end;
    const end = (at + bytes + 15) & ~15;
    const more = Math.ceil(end / WASM_PAGE) - this.memory.buffer.byteLength / WASM_PAGE;
    try {
      if (more > 0) this.memory.grow(more);
    } catch (e) {
      if (e instanceof RangeError) return null;
      throw e;
    }
    this.end = end;
    return at;
  }
}
