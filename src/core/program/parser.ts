import { MotionBuilder, type Motion } from '../motion/motion';

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

/** Raised on text that is no RS-274 program or uses what this reader does not know; names the line. */
export class ProgramError extends Error {
  constructor(
    readonly line: number,
    why: string,
  ) {
    super(`Line ${line}: ${why}.`);
    this.name = 'ProgramError';
  }
}

/**
 * Reads RS-274 / ISO 6983: G0 G1 G2 G3 (I J relative to the start, XY plane, helical Z), G17 G20 G21 G40
 * G43 G49 G54 to G59 G80 G90 G91 G91.1 G94 G98 G99, G81 G82 G83 (R, Q, P kept from hole to hole), G4 P (seconds), M0 (a pause; with another T before it a change by hand) M2 M3 M4 M5 M6 M30,
 * T S F N H, comments in ( ) and after ;. It shares no
 * code with the writer: it is how Mirvak sees what the machine gets.
 */
export function parseProgram(text: string): ParsedProgram {
  const sections: ParsedSection[] = [];
  let scale = 1;
  let absolute = true;
  let motionMode = -1;
  let x = 0;
  let y = 0;
  let z = 0;
  let feed = 0;
  let rpm = 0;
  let spinning = false;
  let tool = 0;
  let selected = 0;
  let placed = false;
  let ended = false;
  let toolChanges = 0;
  let dwell = 0;
  // What a canned cycle keeps from hole to hole, and whether it comes back to where it began (G98) or to R (G99).
  let backToStart = true;
  let cycleR = NaN;
  let cycleZ = NaN;
  let cycleQ = NaN;
  let cycleP = 0;
  const n = text.length;
  let b = new MotionBuilder();
  let lines = new Int32Array(256);
  let speeds = new Float64Array(256);
  let cuts: { move: number; cut: number }[] = [];
  let note = 0;
  let at = 0;
  const close = () => {
    if (b.count) sections.push({ tool, motion: b.build(), line: lines.slice(0, b.count), rpm: speeds.slice(0, b.count), cuts });
    b = new MotionBuilder();
    lines = new Int32Array(256);
    speeds = new Float64Array(256);
    cuts = [];
  };
  let lineNo = 0;
  /** Notes for the moves from `before` on which line they come from. */
  const stamp = (before: number) => {
    for (let k = before; k < b.count; k++) {
      if (k === lines.length) {
        lines = widened(lines, new Int32Array(2 * k));
        speeds = widened(speeds, new Float64Array(2 * k));
      }
      lines[k] = lineNo;
      speeds[k] = spinning ? rpm : 0;
    }
  };
  while (at < n && !ended) {
    lineNo++;
    let g = -1;
    let m = -1;
    let others: number[] | null = null;
    let nx = NaN;
    let ny = NaN;
    let nz = NaN;
    let ci = 0;
    let cj = 0;
    let centre = false;
    let waits = false;
    let pause = NaN;
    let nr = NaN;
    let nq = NaN;
    while (at < n) {
      let ch = text.charCodeAt(at);
      if (ch === 10) break;
      if (ch <= 32 || ch === 37) {
        at++;
        continue;
      }
      if (ch === 40) {
        let stop = at + 1;
        while (stop < n && text.charCodeAt(stop) !== 41 && text.charCodeAt(stop) !== 10) stop++;
        if (text[stop] !== ')') throw new ProgramError(lineNo, 'a comment is not closed');
        const said = text.slice(at + 1, stop);
        const named = /^Cut (\d+):/.exec(said);
        if (named) note = Number(named[1]);
        at = stop + 1;
        continue;
      }
      if (ch === 59) {
        const from = at + 1;
        while (at < n && text.charCodeAt(at) !== 10) at++;
        const named = /^\s*Cut (\d+):/.exec(text.slice(from, at));
        if (named) note = Number(named[1]);
        break;
      }
      if (ch >= 97) ch -= 32;
      at++;
      // Number, read by hand: this loop sees every character of files of a million lines. Past the end of the
      // text charCodeAt gives NaN, which is no digit.
      let c = text.charCodeAt(at);
      while (c === 32) c = text.charCodeAt(++at);
      const negative = c === 45;
      if (negative || c === 43) c = text.charCodeAt(++at);
      const begin = at;
      let mantissa = 0;
      while (c >= 48 && c <= 57) {
        mantissa = mantissa * 10 + (c - 48);
        c = text.charCodeAt(++at);
      }
      let digits = at - begin;
      let places = 0;
      if (c === 46) {
        const point = at;
        c = text.charCodeAt(++at);
        while (c >= 48 && c <= 57) {
          mantissa = mantissa * 10 + (c - 48);
          c = text.charCodeAt(++at);
        }
        places = at - point - 1;
        digits += places;
      }
      if (!digits) throw new ProgramError(lineNo, `"${String.fromCharCode(ch)}" lacks its number`);
      const v = (negative ? -mantissa : mantissa) / POWERS[places];
      switch (ch) {
        case 71: // G
          if (v === 0 || v === 1 || v === 2 || v === 3 || v === 81 || v === 82 || v === 83) g = v;
          else if (v === 80) motionMode = -1;
          else if (v === 98) backToStart = true;
          else if (v === 99) backToStart = false;
          else if (v === 4) waits = true;
          else if (v === 20) scale = 25.4;
          else if (v === 21) scale = 1;
          else if (v === 90) absolute = true;
          else if (v === 91) absolute = false;
          else if (v === 18 || v === 19) throw new ProgramError(lineNo, 'only the XY plane (G17) is read');
          else if (!(v === 17 || v === 40 || v === 43 || v === 49 || (v >= 54 && v <= 59) || v === 64 || v === 91.1 || v === 94)) throw new ProgramError(lineNo, `G${v} is not known`);
          break;
        case 77: // M
          if (m < 0) m = v;
          else (others ??= []).push(v);
          break;
        case 88:
          nx = v;
          break;
        case 89:
          ny = v;
          break;
        case 90:
          nz = v;
          break;
        case 73:
          ci = v;
          centre = true;
          break;
        case 74:
          cj = v;
          centre = true;
          break;
        case 70: // F
          feed = v * scale;
          break;
        case 83: // S
          rpm = v;
          break;
        case 80: // P
          pause = v;
          break;
        case 82: // R
          nr = v;
          break;
        case 81: // Q
          nq = v;
          break;
        case 84: // T
          selected = v;
          break;
        case 78: // N
        case 79: // O
        case 72: // H
          break;
        default:
          throw new ProgramError(lineNo, `the word "${String.fromCharCode(ch)}" is not known`);
      }
    }
    at++;
    if (waits) {
      if (!(pause >= 0)) throw new ProgramError(lineNo, 'a wait (G4) without its seconds (P)');
      // Before the first move of a section it is waiting for the spindle; later it is part of the motion.
      if (b.count) {
        b.dwell(pause);
        stamp(b.count - 1);
      } else dwell += pause;
    }
    for (;;) {
      // A pause with another tool called before it is a change by hand.
      if (m === 6 || (m === 0 && selected !== tool)) {
        close();
        tool = selected;
        toolChanges++;
        spinning = false;
      } else if (m === 3 || m === 4) spinning = true;
      else if (m === 5) spinning = false;
      else if (m === 2 || m === 30) ended = true;
      else if (m > 0 && m !== 0 && m !== 1 && m !== 7 && m !== 8 && m !== 9) throw new ProgramError(lineNo, `M${m} is not known`);
      // A line may give several: each is obeyed.
      if (!others?.length) break;
      m = others.shift()!;
    }
    if (g >= 0) {
      // A cycle that is called anew says everything anew.
      if (g > 3 && g !== motionMode) {
        cycleR = cycleZ = cycleQ = NaN;
        cycleP = 0;
      }
      motionMode = g;
    }
    if (nx === nx || ny === ny || nz === nz || centre) {
      if (motionMode < 0) throw new ProgramError(lineNo, 'coordinates before any G0 or G1');
      const tx = nx === nx ? (absolute ? 0 : x) + nx * scale : x;
      const ty = ny === ny ? (absolute ? 0 : y) + ny * scale : y;
      const tz = nz === nz ? (absolute ? 0 : z) + nz * scale : z;
      if (note) {
        cuts.push({ move: b.count, cut: note });
        note = 0;
      }
      if (b.count === 0) {
        // Where a section begins is not known to the program: its first move only places the tool.
        b.rapid(placed ? x : tx, placed ? y : ty, placed ? z : tz);
        lines[0] = lineNo;
      }
      const before = b.count;
      if (motionMode > 3) {
        if (!absolute) throw new ProgramError(lineNo, 'a canned cycle in relative coordinates (G91) is not read');
        if (nz === nz) cycleZ = nz * scale;
        if (nr === nr) cycleR = nr * scale;
        if (nq === nq) cycleQ = nq * scale;
        if (pause === pause) cycleP = pause;
        if (!(cycleZ <= cycleR)) throw new ProgramError(lineNo, `G${motionMode} needs R and a Z below it`);
        if (motionMode === 83 && !(cycleQ > 0)) throw new ProgramError(lineNo, 'G83 without Q');
        if (!(feed > 0)) throw new ProgramError(lineNo, 'a cut without a feed');
        const start = Math.max(z, cycleR);
        const up = backToStart ? start : cycleR;
        if (z < cycleR) b.rapid(x, y, cycleR);
        b.rapid(tx, ty, start);
        b.rapid(tx, ty, cycleR);
        for (let at = cycleR; at > cycleZ; ) {
          if (at < cycleR) {
            b.rapid(tx, ty, cycleR);
            b.rapid(tx, ty, Math.min(cycleR, at + A_BIT));
          }
          at = motionMode === 83 && at - cycleQ > cycleZ + 1e-9 ? at - cycleQ : cycleZ;
          b.plunge(at, feed);
        }
        if (motionMode === 82) b.dwell(cycleP);
        b.rapid(tx, ty, up);
        stamp(before);
        x = tx;
        y = ty;
        z = up;
        placed = true;
        continue;
      }
      if (motionMode === 0) b.rapid(tx, ty, tz);
      else if (!(feed > 0)) throw new ProgramError(lineNo, 'a cut without a feed');
      else if (motionMode === 1) {
        if (tx === x && ty === y && tz < z) b.plunge(tz, feed);
        else b.line(tx, ty, tz, feed);
      } else {
        if (!centre) throw new ProgramError(lineNo, 'an arc without I and J');
        const cx = x + ci * scale;
        const cy = y + cj * scale;
        const r0 = Math.hypot(ci, cj) * scale;
        const r1 = Math.hypot(tx - cx, ty - cy);
        if (Math.abs(r0 - r1) > 0.005 + 0.0005 * r0) throw new ProgramError(lineNo, `the radii at the ends of the arc differ by ${Math.abs(r0 - r1).toFixed(4)} mm`);
        b.arc(motionMode === 3, tx, ty, tz, cx, cy, feed);
      }
      stamp(before);
      x = tx;
      y = ty;
      z = tz;
      placed = true;
    }
  }
  close();
  return { sections, ended, toolChanges, dwell };
}

/** How far above the last floor a peck drill comes back down by rapid before it drills on: controllers call it a bit. mm. */
const A_BIT = 0.3;

const POWERS = Array.from({ length: 30 }, (_, i) => 10 ** i);

function widened<T extends Int32Array | Float64Array>(old: T, wide: T): T {
  wide.set(old);
  return wide;
}
