import { ARC_CCW, DWELL, isArc, RAPID, sweepOf, withoutArcs, type Motion } from '../motion/motion';
import { holeAt } from './cycles';
import type { Dialect } from './dialect';
import { toAscii } from './ascii';
import { ByteText } from './text';

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
  /** Whether a cutter that is changed by hand is changed there. */
  readonly parkAtChange?: boolean;
  readonly remarks: readonly string[];
}

/** Comments may hold no brackets and only printable ASCII. Each begins with a word of ours: some controllers take a first word for a command. */
function remark(text: string, d: Dialect): string {
  const plain = toAscii(text)
    .replace(/[();]/g, ' ')
    .slice(0, 120);
  return d.comments === 'brackets' ? `(${plain})` : `; ${plain}`;
}

/** How arcs are to be read, where there are any. */
const arcLines = (parts: readonly ProgramPart[], d: Dialect): string[] => {
  if (!d.arcs || !parts.some((p) => p.motion.kind.some((k) => isArc(k)))) return [];
  return [...(d.arcCentres ? ['G91.1'] : []), remark('I and J of arcs count from where the arc begins', d)];
};

/** Writes parts, in order, as one program. The spindle is on only while a turning cutter works. */
export function writeProgram(parts: readonly ProgramPart[], info: ProgramInfo, d: Dialect): string {
  const out = new ByteText();
  const scale = d.unit === 'in' ? 1 / 25.4 : 1;
  const { decimals } = d;
  const factor = 10 ** decimals;
  // The same rounding decides what is written and what counts as unchanged.
  const perMm = scale * factor;
  const grid = (v: number) => Math.round(v * perMm);
  const { x: ox, y: oy, z: oz } = info.datum;
  const safe = grid(info.safeHeight - oz);
  const comment = (text: string) => remark(text, d);
  let numbered = 0;
  /** A line's number, where they are wanted. */
  const number = () => {
    if (d.numbers) out.ascii(`N${(numbered += 10)} `);
  };
  const say = (line: string) => {
    out.room(LINE + 2 * line.length);
    if (!/^[(;]/.test(line)) number();
    out.line(line);
  };
  for (const line of [comment(`Job: ${info.title}`), ...info.remarks.map(comment), 'G17 G90 G94', d.unit === 'mm' ? 'G21' : 'G20', 'G40 G49 G80', ...(d.workOffset === 'none' ? [] : [d.workOffset]), ...arcLines(parts, d), ...d.header.map(toAscii)]) say(line);
  let gx = NaN;
  let gy = NaN;
  let gz = NaN;
  let tool = -1;
  // A line of the maker's own may have started it: it stands again before the first cutter is taken.
  let spinning = d.header.some((l) => /\bM0*[34]\b/i.test(l));
  let mode = -1;
  let lastFeed = NaN;
  let begun = false;
  // One line: its words with a space between, the motion word only when it changes.
  const space = () => {
    if (begun) out.byte(32);
    begun = true;
  };
  const motion = (m: number) => {
    out.room(LINE);
    number();
    begun = false;
    if (m === mode) return;
    mode = m;
    begun = true;
    out.byte(71);
    out.byte(48 + m);
  };
  const word = (letter: number, steps: number) => {
    space();
    out.word(letter, steps, decimals);
  };
  const feedWord = (feed: number) => {
    if (feed === lastFeed) return;
    lastFeed = feed;
    const text = feedText(feed * scale, d);
    if (!(Number(text) > 0)) throw new RangeError(`A feed of ${+feed.toPrecision(3)} mm/min is too slow for this format, which writes ${d.unit === 'in' ? 'hundredths of an inch' : 'tenths of a millimetre'}. Enter a faster one.`);
    space();
    out.ascii(`F${text}`);
  };
  const lift = () => {
    motion(0);
    word(Z, safe);
    out.byte(10);
    gz = safe;
  };
  for (const part of parts) {
    say(comment(`Cut ${part.cutNumber}: ${part.cutName}`));
    if (part.tool !== tool) {
      if (tool !== -1) {
        if (gz !== safe) lift();
        if (spinning) say('M5');
        spinning = false;
        if (info.parkAtChange && d.change === 'pause') {
          motion(0);
          word(X, grid(info.park.x - ox));
          word(Y, grid(info.park.y - oy));
          out.byte(10);
        }
      }
      if (spinning) say('M5');
      spinning = false;
      say(comment(`Tool ${part.tool}: ${part.toolName}`));
      if (d.change === 'command') say(`T${part.tool} M6`);
      else {
        say(`T${part.tool}`);
        say('M0');
      }
      if (d.toolLength) say(`G43 H${part.tool}`);
      tool = part.tool;
      // After a change the spindle may be anywhere: say every coordinate again.
      gx = gy = gz = NaN;
      mode = -1;
      lastFeed = NaN;
    }
    if (part.turns) {
      say(`S${Math.round(part.rpm)} M3`);
      if (d.spindleWait > 0 && !spinning) say(`G4 P${d.spindleWait}`);
      spinning = true;
    } else if (spinning) {
      say('M5');
      spinning = false;
    }
    const m = d.arcs ? part.motion : withoutArcs(part.motion, 0.0003);
    if (Number.isNaN(gz)) lift();
    for (let i = 0; i < m.count; i++) {
      if (m.kind[i] === DWELL) {
        say(`G4 P${+m.feed[i].toFixed(3)}`);
        continue;
      }
      const hole = d.cycles ? holeAt(m, i) : null;
      if (hole) {
        const from = grid(hole.from - oz);
        say(
          [`G99 G${hole.code}`, ...([['X', gx], ['Y', gy], ['Z', grid(hole.floor - oz)], ['R', from]] as const).map(([letter, steps]) => letter + (steps / factor).toFixed(decimals)), hole.peck > 0 ? `Q${(hole.peck * scale).toFixed(decimals)}` : '', hole.wait > 0 ? `P${hole.wait}` : '', `F${feedText(hole.feed * scale, d)}`]
            .filter((w) => w)
            .join(' '),
        );
        say('G80');
        i = hole.last;
        gz = from;
        mode = -1;
        lastFeed = hole.feed;
        continue;
      }
      const nx = grid(m.x[i] - ox);
      const ny = grid(m.y[i] - oy);
      const nz = grid(m.z[i] - oz);
      const kind = m.kind[i];
      let centre = false;
      let ci = 0;
      let cj = 0;
      let full = false;
      if (isArc(kind)) {
        full = sweepOf(m, i) > Math.PI;
        // An arc whose chord vanishes in the rounding would be read as a full turn: it becomes a line, or nothing.
        if (nx !== gx || ny !== gy || full) {
          const cx = grid(m.cx[i] - ox);
          const cy = grid(m.cy[i] - oy);
          ci = cx - gx;
          cj = cy - gy;
          const r0 = Math.sqrt(ci * ci + cj * cj);
          const r1 = Math.sqrt((cx - nx) ** 2 + (cy - ny) ** 2);
          // Radii that the grid makes uneven would be refused; such small arcs are lines within the grid.
          centre = Math.abs(r0 - r1) <= 2.5 && r0 > 0.01 * perMm;
        }
      }
      if (!centre && nx === gx && ny === gy && nz === gz) continue;
      motion(centre ? (kind === ARC_CCW ? 3 : 2) : kind === RAPID ? 0 : 1);
      if (nx !== gx || (centre && full)) word(X, nx);
      if (ny !== gy || (centre && full)) word(Y, ny);
      if (nz !== gz) word(Z, nz);
      if (centre) {
        word(I, ci);
        word(J, cj);
      }
      if (kind !== RAPID) feedWord(m.feed[i]);
      out.byte(10);
      gx = nx;
      gy = ny;
      gz = nz;
    }
  }
  if (gz !== safe) lift();
  say('M5');
  mode = -1;
  motion(0);
  word(X, grid(info.park.x - ox));
  word(Y, grid(info.park.y - oy));
  out.byte(10);
  for (const line of d.footer.map(toAscii)) say(line);
  say(d.end);
  return out.toString();
}

/** Bytes that a line of one move may take: six words and spaces. */
const LINE = 192;
const X = 88;
const Y = 89;
const Z = 90;
const I = 73;
const J = 74;

const feedText = (v: number, d: Dialect) => String(+v.toFixed(d.unit === 'in' ? 2 : 1));

