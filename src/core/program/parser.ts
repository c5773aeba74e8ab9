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
 * G49 G54 G80 G90 G91 G94, M0 M2 M3 M4 M5 M6 M30, T S F N, comments in ( ) and after ;. It shares no
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
  let b = new MotionBuilder();
  let lines: number[] = [];
  let speeds: number[] = [];
  let cuts: { move: number; cut: number }[] = [];
  let note = 0;
  const close = () => {
    if (b.count) sections.push({ tool, motion: b.build(), line: Int32Array.from(lines), rpm: Float64Array.from(speeds), cuts });
    b = new MotionBuilder();
    lines = [];
    speeds = [];
    cuts = [];
  };
  const n = text.length;
  let at = 0;
  let lineNo = 0;
  while (at < n && !ended) {
    lineNo++;
    let end = text.indexOf('\n', at);
    if (end < 0) end = n;
    let g = -1;
    let m = -1;
    let nx = NaN;
    let ny = NaN;
    let nz = NaN;
    let ci = 0;
    let cj = 0;
    let centre = false;
    while (at < end) {
      let ch = text.charCodeAt(at);
      if (ch <= 32 || ch === 37) {
        at++;
        continue;
      }
      if (ch === 40) {
        const stop = text.indexOf(')', at);
        if (stop < 0 || stop >= end) throw new ProgramError(lineNo, 'a comment is not closed');
        const said = text.slice(at + 1, stop);
        const named = /^Cut (\d+):/.exec(said);
        if (named) note = Number(named[1]);
        at = stop + 1;
        continue;
      }
      if (ch === 59) break;
      if (ch >= 97) ch -= 32;
      at++;
      // Number, read by hand: this loop sees every character of files of a million lines.
      while (at < end && text.charCodeAt(at) === 32) at++;
      let sign = 1;
      let c = text.charCodeAt(at);
      if (c === 45 || c === 43) {
        if (c === 45) sign = -1;
        at++;
      }
      let mantissa = 0;
      let digits = 0;
      let places = 0;
      let seen = false;
      for (; at < end; at++) {
        c = text.charCodeAt(at);
        if (c >= 48 && c <= 57) {
          mantissa = mantissa * 10 + (c - 48);
          digits++;
          if (seen) places++;
        } else if (c === 46 && !seen) seen = true;
        else break;
      }
      if (!digits) throw new ProgramError(lineNo, `"${String.fromCharCode(ch)}" lacks its number`);
      const v = (sign * mantissa) / POWERS[places];
      switch (ch) {
        case 71: // G
          if (v === 0 || v === 1 || v === 2 || v === 3) g = v;
          else if (v === 20) scale = 25.4;
          else if (v === 21) scale = 1;
          else if (v === 90) absolute = true;
          else if (v === 91) absolute = false;
          else if (v === 18 || v === 19) throw new ProgramError(lineNo, 'only the XY plane (G17) is read');
          else if (!(v === 17 || v === 40 || v === 49 || v === 54 || v === 64 || v === 80 || v === 94)) throw new ProgramError(lineNo, `G${v} is not known`);
          break;
        case 77: // M
          m = v;
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
    at = end + 1;
    if (m === 6) {
      close();
      tool = selected;
      toolChanges++;
      spinning = false;
    } else if (m === 3 || m === 4) spinning = true;
    else if (m === 5) spinning = false;
    else if (m === 2 || m === 30) ended = true;
    else if (m > 0 && m !== 0 && m !== 1 && m !== 7 && m !== 8 && m !== 9) throw new ProgramError(lineNo, `M${m} is not known`);
    if (g >= 0) motionMode = g;
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
        lines.push(lineNo);
        speeds.push(0);
      }
      const before = b.count;
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
      for (let k = before; k < b.count; k++) {
        lines.push(lineNo);
        speeds.push(spinning ? rpm : 0);
      }
      x = tx;
      y = ty;
      z = tz;
      placed = true;
    }
  }
  close();
  return { sections, ended, toolChanges };
}

const POWERS = Array.from({ length: 30 }, (_, i) => 10 ** i);
