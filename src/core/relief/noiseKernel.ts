import { compiledOnce, WASM_START, wasmMemory, webAssembly } from '../units/webAssembly';
import { MODULE } from './noiseModule';
import type { NoiseRows } from './noiseRows';

/** What the module does: see `wasm/noise.as.ts`. Addresses, places, and what they are asked for. */
interface Exports {
  rough(
    u: number,
    v: number,
    n: number,
    su: number,
    sv: number,
    seed: number,
    octaves: number,
    to: number,
    x: number,
    y: number,
  ): void;
  nearest(
    u: number,
    v: number,
    n: number,
    seed: number,
    spread: number,
    wanted: number,
    first: number,
    second: number,
  ): void;
}

const compile = compiledOnce(MODULE);

/** Room for rows of so many places, and the kernel that reaches it. */
function roomFor(places: number) {
  const code = compile();
  if (!code) return null;
  const n = 4 * Math.ceil(places / 4);
  const [u, v, x, y, first, second, end] = [0, 8, 16, 24, 32, 36, 40].map((k) => WASM_START + k * n);
  const memory = wasmMemory(end);
  if (!memory) return null;
  const { exports } = new (webAssembly()!.Instance)(code, { env: { memory } });
  const singles = (at: number) => new Float32Array(memory.buffer, at, n);
  const doubles = (at: number) => new Float64Array(memory.buffer, at, n);
  return {
    places: n,
    run: exports as Exports,
    at: { u, v, x, y, first, second },
    u: doubles(u),
    v: doubles(v),
    first: singles(first),
    second: singles(second),
  };
}

let room: ReturnType<typeof roomFor> = null;

/** The compiled kernel for rows of so many places, held to `noiseRows` in doubles by tests; null where this machine has none. */
export function noiseKernel(places: number): NoiseRows | null {
  if (!room || room.places < places) room = roomFor(places);
  if (!room) return null;
  const { at, run } = room;
  const mine = room;
  const { first, second } = room;
  /** Puts places in; there are always four at once, so the last of them is repeated. */
  const put = (u: Float64Array, v: Float64Array): number => {
    const n = 4 * Math.ceil(u.length / 4);
    mine.u.set(u);
    mine.v.set(v);
    mine.u.fill(u[u.length - 1], u.length, n);
    mine.v.fill(v[v.length - 1], v.length, n);
    return n;
  };
  const taken = (from: Float32Array, n: number) => from.slice(0, n);
  return {
    roughs({ u, v }, su, sv, seed, octaves) {
      const n = put(u, v);
      run.rough(at.u, at.v, n, su, sv, seed, octaves, at.first, at.x, at.y);
      return taken(first, u.length);
    },
    toPoints({ u, v }, seed, spread) {
      run.nearest(at.u, at.v, put(u, v), seed, spread, 1, at.first, at.second);
      return taken(first, u.length);
    },
    toBorders({ u, v }, seed, spread) {
      run.nearest(at.u, at.v, put(u, v), seed, spread, 2, at.first, at.second);
      const gaps = taken(second, u.length);
      for (let k = 0; k < gaps.length; k++) gaps[k] -= first[k];
      return gaps;
    },
  };
}
