import { derived } from '../geometry/hash';
import type { Motion } from '../motion/motion';
import { ChunkReader, ProgramError, switchedOn, type Controller, type Run } from './chunkReader';
import { chunkOf, type Chunks } from './text';

/** What a program does with one tool between two tool changes, in millimetres and program coordinates. */
export interface ParsedSection {
  readonly tool: number;
  readonly motion: Motion;
  /** Source line (from 1) of each move. */
  readonly line: Int32Array;
  /** Spindle speed at each move, 0 when it stands. */
  readonly rpm: Float64Array;
  /** Where `(Cut N: ...)` comments stand: first move, and N. */
  readonly cuts: readonly { readonly move: number; readonly cut: number }[];
}

export interface ParsedProgram {
  readonly sections: readonly ParsedSection[];
  readonly ended: boolean;
  readonly toolChanges: number;
  /** Seconds that the program waits by itself. */
  readonly dwell: number;
}

export { ProgramError, type Run };

interface ReadChunk {
  readonly runs: readonly Run[];
  readonly lines: number;
  readonly toolChanges: number;
  readonly dwell: number;
  /** How the next chunk finds the controller. */
  readonly after: Controller;
}

const read = derived<Uint8Array, ReadChunk>();

/** Reads a chunk as a controller does that has read what went before; one that it has read from the same state is not read again. */
function readChunk(bytes: Uint8Array, before: Controller, first: number): ReadChunk {
  return read(bytes, JSON.stringify(before), () => {
    const r = new ChunkReader(bytes, { ...before }, first);
    r.read();
    return { runs: r.runs, lines: r.line, toolChanges: r.toolChanges, dwell: r.dwell, after: r.c };
  });
}

/** A program in runs, each with the line (from 1) that its lines are counted from. */
export interface ReadProgram extends Pick<ParsedProgram, 'ended' | 'toolChanges' | 'dwell'> {
  readonly runs: readonly { readonly run: Run; readonly firstLine: number }[];
}

/**
 * Reads RS-274 / ISO 6983: G0 G1 G2 G3 (I J relative to the start, XY plane, helical Z), G17 G20 G21 G40
 * G43 G49 G54 to G59 G80 G90 G91 G91.1 G94 G98 G99, G81 G82 G83 (R, Q, P kept from hole to hole), G4 P (seconds), M0 (a pause; with another T before it a change by hand) M2 M3 M4 M5 M6 M30,
 * T S F N H, comments in ( ) and after ;. It shares no
 * code with the writer: it is how Mirvak sees what the machine gets. Chunks end where lines end. Throws ProgramError.
 */
export function readProgram(program: Chunks | string): ReadProgram {
  const chunks = typeof program === 'string' ? [chunkOf(program)] : program;
  const runs: ReadProgram['runs'][number][] = [];
  let c = switchedOn();
  let firstLine = 1;
  let toolChanges = 0;
  let dwell = 0;
  for (const bytes of chunks) {
    if (c.ended) break;
    const r = readChunk(bytes, c, firstLine);
    for (const run of r.runs) runs.push({ run, firstLine });
    firstLine += r.lines;
    toolChanges += r.toolChanges;
    dwell += r.dwell;
    c = r.after;
  }
  return { runs, ended: c.ended, toolChanges, dwell };
}

/** The same in sections: what is done between two tool changes. Throws ProgramError. */
export function parseProgram(program: Chunks | string): ParsedProgram {
  const { runs, ...rest } = readProgram(program);
  const sections: ParsedSection[] = [];
  for (let from = 0, to = 1; from < runs.length; from = to++) {
    while (to < runs.length && !runs[to].run.opens) to++;
    sections.push(sectionOf(runs.slice(from, to)));
  }
  return { sections, ...rest };
}

/** Runs with one tool as one section. Each but the first begins where the one before it has ended. */
function sectionOf(placed: ReadProgram['runs']): ParsedSection {
  const runs = placed.map((r) => r.run);
  const joined = <T extends Float64Array | Int32Array | Uint8Array>(of: (r: Run) => T): T => {
    const parts = runs.map((r, k) => of(r).subarray(k ? 1 : 0));
    const all = new (of(runs[0]).constructor as new (n: number) => T)(parts.reduce((n, p) => n + p.length, 0));
    let at = 0;
    for (const p of parts) {
      all.set(p as never, at);
      at += p.length;
    }
    return all;
  };
  const column = (k: 'x' | 'y' | 'z' | 'cx' | 'cy' | 'feed') => joined((r) => r.motion[k]);
  const kind = joined((r) => r.motion.kind);
  const cuts: { move: number; cut: number }[] = [];
  let move = 0;
  for (const r of runs) {
    if (r.marked) cuts.push({ move, cut: r.cut });
    move += r.motion.count - (move ? 1 : 0);
  }
  return {
    tool: runs[0].tool,
    motion: {
      count: kind.length,
      kind,
      x: column('x'),
      y: column('y'),
      z: column('z'),
      cx: column('cx'),
      cy: column('cy'),
      feed: column('feed'),
    },
    line: Int32Array.from(
      placed.flatMap(({ run, firstLine }, k) => Array.from(run.line.subarray(k ? 1 : 0), (l) => l + firstLine)),
    ),
    rpm: joined((r) => r.rpm),
    cuts,
  };
}
