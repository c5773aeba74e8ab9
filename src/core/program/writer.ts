import { ARC_CCW, isArc, RAPID, sweepOf, withoutArcs, type Motion } from '../motion/motion';
import type { Dialect } from './dialect';

/** Where program zero lies in the blank's frame (mm): subtracted from every coordinate. */
export interface Datum {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** One stretch of work with one cutter. */
export interface ProgramPart {
  readonly tool: number;
  readonly toolName: string;
  /** Place of the cut in the plan, from 1: how the reader finds it again. */
  readonly cutNumber: number;
  readonly cutName: string;
  readonly rpm: number;
  /** False for cutters that are drawn through the material. */
  readonly turns: boolean;
  readonly motion: Motion;
}

export interface ProgramInfo {
  readonly title: string;
  readonly datum: Datum;
  /** Height of the first and last moves above the top face, and where the spindle goes at the end. mm, blank's frame. */
  readonly safeHeight: number;
  readonly park: { readonly x: number; readonly y: number };
  readonly remarks: readonly string[];
}

/** Comments may hold no brackets and only printable ASCII. */
const comment = (text: string) =>
  `(${text
    .normalize('NFKD')
    .replace(/[\u2013\u2014]/g, '-')
    .replace(/[^\x20-\x7e]/g, '')
    .replace(/[()]/g, ' ')
    .slice(0, 120)})`;

/** Writes parts, in order, as one program. The spindle is on only while a turning cutter works. */
export function writeProgram(parts: readonly ProgramPart[], info: ProgramInfo, d: Dialect): string {
  const out: string[] = [];
  const scale = d.unit === 'in' ? 1 / 25.4 : 1;
  const factor = 10 ** d.decimals;
  // The same rounding decides what is written and what counts as unchanged.
  const grid = (v: number) => Math.round(v * scale * factor);
  const text = decimalText(d.decimals);
  const { x: ox, y: oy, z: oz } = info.datum;
  const safe = grid(info.safeHeight - oz);
  out.push(comment(info.title), ...info.remarks.map(comment), 'G17 G90 G94', d.unit === 'mm' ? 'G21' : 'G20', 'G40 G49 G80');
  let gx = NaN;
  let gy = NaN;
  let gz = NaN;
  let tool = -1;
  let spinning = false;
  let mode = '';
  let lastFeed = NaN;
  const word = (m: string) => {
    if (m === mode) return '';
    mode = m;
    return m;
  };
  for (const part of parts) {
    out.push(comment(`Cut ${part.cutNumber}: ${part.cutName}`));
    if (part.tool !== tool) {
      if (tool !== -1) {
        if (gz !== safe) out.push(`G0 Z${text(safe)}`);
        gz = safe;
        if (spinning) out.push('M5');
        spinning = false;
      }
      out.push(comment(`Tool ${part.tool}: ${part.toolName}`), `T${part.tool} M6`);
      tool = part.tool;
      // After a change the spindle may be anywhere: say every coordinate again.
      gx = gy = gz = NaN;
      mode = '';
      lastFeed = NaN;
    }
    if (part.turns) {
      out.push(`S${Math.round(part.rpm)} M3`);
      spinning = true;
    } else if (spinning) {
      out.push('M5');
      spinning = false;
    }
    const m = d.arcs ? part.motion : withoutArcs(part.motion, 0.0005);
    if (Number.isNaN(gz)) {
      mode = '';
      out.push(`${word('G0')} Z${text(safe)}`);
      gz = safe;
    }
    for (let i = 0; i < m.count; i++) {
      const nx = grid(m.x[i] - ox);
      const ny = grid(m.y[i] - oy);
      const nz = grid(m.z[i] - oz);
      const kind = m.kind[i];
      if (isArc(kind)) {
        const full = sweepOf(m, i) > Math.PI;
        const r = Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]);
        // An arc whose chord vanishes in the rounding would be read as a full turn.
        if (nx === gx && ny === gy && !full) {
          if (nz === gz) continue;
        } else {
          // The centre is kept exact to the grid and relative to the written start.
          const ci = grid(m.cx[i] - ox) - gx;
          const cj = grid(m.cy[i] - oy) - gy;
          const r0 = Math.hypot(ci, cj);
          const r1 = Math.hypot(grid(m.cx[i] - ox) - nx, grid(m.cy[i] - oy) - ny);
          if (Math.abs(r0 - r1) <= 2.5 && r > 0.01) {
            let line = word(kind === ARC_CCW ? 'G3' : 'G2');
            if (nx !== gx || full) line += `${line ? ' ' : ''}X${text(nx)}`;
            if (ny !== gy || full) line += `${line ? ' ' : ''}Y${text(ny)}`;
            if (nz !== gz) line += `${line ? ' ' : ''}Z${text(nz)}`;
            line += `${line ? ' ' : ''}I${text(ci)} J${text(cj)}`;
            if (m.feed[i] !== lastFeed) line += ` F${feedText(m.feed[i] * scale, d)}`;
            lastFeed = m.feed[i];
            gx = nx;
            gy = ny;
            gz = nz;
            out.push(line);
            continue;
          }
        }
      }
      if (nx === gx && ny === gy && nz === gz) continue;
      let line = word(kind === RAPID ? 'G0' : 'G1');
      if (nx !== gx) line += `${line ? ' ' : ''}X${text(nx)}`;
      if (ny !== gy) line += `${line ? ' ' : ''}Y${text(ny)}`;
      if (nz !== gz) line += `${line ? ' ' : ''}Z${text(nz)}`;
      if (kind !== RAPID && m.feed[i] !== lastFeed) {
        line += ` F${feedText(m.feed[i] * scale, d)}`;
        lastFeed = m.feed[i];
      }
      gx = nx;
      gy = ny;
      gz = nz;
      out.push(line);
    }
  }
  if (gz !== safe) out.push(`G0 Z${text(safe)}`);
  out.push('M5', `G0 X${text(grid(info.park.x - ox))} Y${text(grid(info.park.y - oy))}`, 'M30');
  return out.join('\n') + '\n';
}

/**
 * Whole numbers of grid steps to decimal text without trailing zeros. The fractions' texts are made once:
 * writing a number is then two short look-ups instead of the search for the shortest decimal.
 */
function decimalText(decimals: number): (grid: number) => string {
  const factor = 10 ** decimals;
  const fractions = fractionTexts(decimals);
  return (g) => {
    const a = g < 0 ? -g : g;
    const whole = Math.floor(a / factor);
    const text = whole + fractions[a - whole * factor];
    return g < 0 ? '-' + text : text;
  };
}

const madeFractions = new Map<number, string[]>();

function fractionTexts(decimals: number): string[] {
  let made = madeFractions.get(decimals);
  if (!made) {
    made = Array.from({ length: 10 ** decimals }, (_, i) => (i === 0 ? '' : `.${String(i).padStart(decimals, '0').replace(/0+$/, '')}`));
    madeFractions.set(decimals, made);
  }
  return made;
}

const feedText = (v: number, d: Dialect) => String(+v.toFixed(d.unit === 'in' ? 2 : 1));

