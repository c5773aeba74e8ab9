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
  Memory: new (pages: { initial: number; maximum: number }) => WasmMemory;
}

/** WebAssembly of this machine, which the language's own types do not name; null where there is none. */
export const webAssembly = (): Wasm | null => (globalThis as unknown as { WebAssembly?: Wasm }).WebAssembly ?? null;

/** A page of its memory, bytes. */
export const WASM_PAGE = 65536;
