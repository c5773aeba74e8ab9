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

/** What was given stays as it is until so many more have been asked for: nothing is made anew for each of thousands of rows. */
const GIVEN = 4;

/** Room for rows of so many places, and the kernel that reaches it. */
function roomFor(places: number) {
  const code = compile();
  if (!code) return null;
  const n = 4 * Math.ceil(places / 4);
  const [u, v, x, y, second, given] = [0, 8, 16, 24, 32, 36].map((k) => WASM_START + k * n);
  const memory = wasmMemory(given + 4 * GIVEN * n);
  if (!memory) return null;
  const { exports } = new (webAssembly()!.Instance)(code, { env: { memory } });
  const singles = (at: number) => new Float32Array(memory.buffer, at, n);
  const doubles = (at: number) => new Float64Array(memory.buffer, at, n);
  return {
    places: n,
    run: exports as Exports,
    at: { u, v, x, y, second },
    u: doubles(u),
    v: doubles(v),
    second: singles(second),
    given: Array.from({ length: GIVEN }, (_, k) => ({ at: given + 4 * k * n, heights: singles(given + 4 * k * n) })),
    next: 0,
  };
}

let room: ReturnType<typeof roomFor> = null;

/** The compiled kernel for rows of so many places, held to `noiseRows` in doubles by tests; null where this machine has none. */
export function noiseKernel(places: number): NoiseRows | null {
  if (!room || room.places < places) room = roomFor(places);
  if (!room) return null;
  const mine = room;
  const { at, run, second } = mine;
  const give = () => mine.given[(mine.next = (mine.next + 1) % GIVEN)];
  /** Puts places in; there are always four at once, so the last of them is repeated. */
  const put = (u: Float64Array, v: Float64Array): number => {
    const n = 4 * Math.ceil(u.length / 4);
    mine.u.set(u);
    mine.v.set(v);
    mine.u.fill(u[u.length - 1], u.length, n);
    mine.v.fill(v[v.length - 1], v.length, n);
    return n;
  };
  return {
    roughs({ u, v }, su, sv, seed, octaves) {
      const to = give();
      run.rough(at.u, at.v, put(u, v), su, sv, seed, octaves, to.at, at.x, at.y);
      return to.heights.subarray(0, u.length);
    },
    toPoints({ u, v }, seed, spread) {
      const to = give();
      run.nearest(at.u, at.v, put(u, v), seed, spread, 1, to.at, at.second);
      return to.heights.subarray(0, u.length);
    },
    toBorders({ u, v }, seed, spread) {
      const to = give();
      run.nearest(at.u, at.v, put(u, v), seed, spread, 2, to.at, at.second);
      const gaps = to.heights.subarray(0, u.length);
      for (let k = 0; k < gaps.length; k++) gaps[k] = second[k] - gaps[k];
      return gaps;
    },
  };
}
