import type { CutterForm } from '../cutters/form';
import type { HeightField } from '../relief/field';
import { compiledOnce, WASM_START, wasmMemory, webAssembly } from '../units/webAssembly';
import type { Locations } from './location';
import { MODULE } from './locationModule';
import { outlineOver, type Outline } from './outline';

/** What the module does: see there. */
interface Exports {
  setSurface(planes: number, pitch: number, pad: number, step: number, rows: number, runs: number): void;
  setCutter(table: number, reach: number, k: number, room: number): void;
  locate(out: number, row: number, points: number): void;
}

const compile = compiledOnce(MODULE);
/** Places that are located at once, and those of a run whose greatest height is known. */
const AT_ONCE = 16;
const RUN = 8;
/** Lower than everything: beyond the surface, and where it is empty. */
const NOTHING = -1e9;
const upTo = (n: number, of: number): number => Math.ceil(n / of) * of;

/** A surface as the kernel has it, with room beside it for a cutter that reaches so many columns. */
function layOut(surface: HeightField, step: number, k: number) {
  const { cols, rows, z } = surface;
  const count = Math.ceil(cols / step);
  const pad = upTo(Math.ceil(k / step) + AT_ONCE, RUN);
  const pitch = upTo(2 * pad + upTo(count, AT_ONCE), RUN);
  const planes = WASM_START;
  const runs = planes + 4 * step * rows * pitch;
  const table = runs + 4 * rows * (pitch / RUN);
  const reach = table + 4 * (k + 1) * (k + 1);
  const room = upTo(reach + 4 * (k + 1), 16);
  const out = room + 4 * step * pitch;
  const memory = wasmMemory(out + 4 * upTo(count, AT_ONCE));
  if (!memory) return null;
  const heights = new Float32Array(memory.buffer, planes, step * rows * pitch).fill(NOTHING);
  const greatest = new Float32Array(memory.buffer, runs, rows * (pitch / RUN)).fill(NOTHING);
  for (let r = 0; r < rows; r++)
    for (let plane = 0; plane < step; plane++) {
      const to = (plane * rows + r) * pitch + pad;
      for (let c = plane, i = 0; c < cols; c += step, i++) {
        const h = z[r * cols + c];
        if (h !== h) continue;
        heights[to + i] = h;
        const run = r * (pitch / RUN) + ((pad + i) >> 3);
        if (h > greatest[run]) greatest[run] = h;
      }
    }
  return { memory, count, pad, pitch, planes, runs, table, reach, room, out, k };
}

/** A cutter that reaches so far (mm) has room beside the surface: the surface is laid out anew for one that reaches further. */
const WIDE = 8;

/**
 * Locations by the compiled kernel (`wasm/location.as.ts`); null where this machine cannot, or has no room for the surface, or for so
 * wide a cutter.
 */
export function locationKernel(surface: HeightField, step: number): ((form: CutterForm) => Locations | null) | null {
  const code = compile();
  if (!code) return null;
  const roomy = (k: number) => {
    const at = layOut(surface, step, k);
    if (!at) return null;
    const { exports } = new (webAssembly()!.Instance)(code, { env: { memory: at.memory } });
    return { at, run: exports as Exports, cutter: null as Outline | null };
  };
  let held = roomy(Math.ceil(WIDE / surface.cell));
  if (!held) return null;
  return (form) => {
    const outline = outlineOver(form, surface.cell);
    const { k, reach, heights } = outline;
    if (k > held!.at.k) {
      const wider = roomy(k);
      if (!wider) return null;
      held = wider;
    }
    const mine = held!;
    const { at, run } = mine;
    const { buffer } = at.memory;
    const out = new Float32Array(buffer, at.out, at.count);
    return {
      count: at.count,
      row(r) {
        if (mine.cutter !== outline) {
          new Float32Array(buffer, at.table, heights.length).set(heights);
          new Int32Array(buffer, at.reach, reach.length).set(reach);
          run.setSurface(at.planes, at.pitch, at.pad, step, surface.rows, at.runs);
          run.setCutter(at.table, at.reach, k, at.room);
          mine.cutter = outline;
        }
        run.locate(at.out, r, at.count);
        return out;
      },
    };
  };
}
