import { ARC_CCW, DWELL, isArc, RAPID, sweepOf, withoutArcs, type Motion } from '../motion/motion';
import { holeAt } from './cycles';
import type { Dialect } from './dialect';
import { contentKey, derived } from '../geometry/hash';
import { toAscii } from './ascii';
import { ByteText, textOf, type Chunks } from './text';

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
  const plain = toAscii(text).replace(/[();]/g, ' ').slice(0, 120);
  return d.comments === 'brackets' ? `(${plain})` : `; ${plain}`;
}

/** How arcs are to be read, where there are any. */
const arcLines = (parts: readonly ProgramPart[], d: Dialect): string[] => {
  if (!d.arcs || !parts.some((p) => p.motion.kind.some((k) => isArc(k)))) return [];
  return [...(d.arcCentres ? ['G91.1'] : []), remark('I and J of arcs count from where the arc begins', d)];
};

/** What all lines of a program have in common. */
interface Sheet {
  readonly d: Dialect;
  readonly datum: Datum;
  /** Steps of the last decimal in a millimetre, and in a unit of the program. */
  readonly perMm: number;
  readonly factor: number;
  /** Units of the program in a millimetre. */
  readonly scale: number;
  /** The safe height, in steps. */
  readonly safe: number;
}

/** Where the program has come to: the last written place in steps (NaN where it is to be said again), motion word and feed, and line number. */
interface Pen {
  gx: number;
  gy: number;
  gz: number;
  mode: number;
  feed: number;
  numbered: number;
}

/** Bytes that a line of one move may take: six words and spaces. */
const LINE = 192;
const X = 88;
const Y = 89;
const Z = 90;
const I = 73;
const J = 74;

const feedText = (v: number, d: Dialect) => String(+v.toFixed(d.unit === 'in' ? 2 : 1));

/** Lines of a program, written from where the pen stands. */
class Lines {
  readonly out = new ByteText();
  private begun = false;

  constructor(
    private readonly sheet: Sheet,
    readonly pen: Pen,
  ) {}

  /** The same rounding decides what is written and what counts as unchanged. */
  grid(v: number): number {
    return Math.round(v * this.sheet.perMm);
  }
  comment(text: string): void {
    this.say(remark(text, this.sheet.d));
  }
  /** A whole line. */
  say(line: string): void {
    this.out.room(LINE + 2 * line.length);
    if (!/^[(;]/.test(line)) this.number();
    this.out.line(line);
  }
  /** Up to the safe height. */
  lift(): void {
    this.begin(0);
    this.word(Z, this.sheet.safe);
    this.out.byte(10);
    this.pen.gz = this.sheet.safe;
  }
  /** By rapid to a place, said whole. */
  goTo(x: number, y: number): void {
    this.begin(0);
    this.word(X, this.grid(x));
    this.word(Y, this.grid(y));
    this.out.byte(10);
  }
  /** Line of a canned cycle and its end. */
  hole(hole: NonNullable<ReturnType<typeof holeAt>>): void {
    const { d, datum, factor, scale } = this.sheet;
    const { pen } = this;
    const from = this.grid(hole.from - datum.z);
    const places = [
      ['X', pen.gx],
      ['Y', pen.gy],
      ['Z', this.grid(hole.floor - datum.z)],
      ['R', from],
    ] as const;
    const words = [
      `G99 G${hole.code}`,
      ...places.map(([letter, steps]) => letter + (steps / factor).toFixed(d.decimals)),
      hole.peck > 0 ? `Q${(hole.peck * scale).toFixed(d.decimals)}` : '',
      hole.wait > 0 ? `P${hole.wait}` : '',
      `F${feedText(hole.feed * scale, d)}`,
    ];
    this.say(words.filter((w) => w).join(' '));
    this.say('G80');
    pen.gz = from;
    pen.mode = -1;
    pen.feed = hole.feed;
  }
  /** All moves of a motion. */
  moves(m: Motion): void {
    const { d, datum, perMm } = this.sheet;
    const { pen, out } = this;
    if (Number.isNaN(pen.gz)) this.lift();
    for (let i = 0; i < m.count; i++) {
      if (m.kind[i] === DWELL) {
        this.say(`G4 P${+m.feed[i].toFixed(3)}`);
        continue;
      }
      const hole = d.cycles ? holeAt(m, i) : null;
      if (hole) {
        this.hole(hole);
        i = hole.last;
        continue;
      }
      const nx = this.grid(m.x[i] - datum.x);
      const ny = this.grid(m.y[i] - datum.y);
      const nz = this.grid(m.z[i] - datum.z);
      const kind = m.kind[i];
      let centre = false;
      let ci = 0;
      let cj = 0;
      let full = false;
      if (isArc(kind)) {
        full = sweepOf(m, i) > Math.PI;
        // An arc whose chord vanishes in the rounding would be read as a full turn: it becomes a line, or nothing.
        if (nx !== pen.gx || ny !== pen.gy || full) {
          const cx = this.grid(m.cx[i] - datum.x);
          const cy = this.grid(m.cy[i] - datum.y);
          ci = cx - pen.gx;
          cj = cy - pen.gy;
          const r0 = Math.sqrt(ci * ci + cj * cj);
          const r1 = Math.sqrt((cx - nx) ** 2 + (cy - ny) ** 2);
          // Radii that the grid makes uneven would be refused; such small arcs are lines within the grid.
          centre = Math.abs(r0 - r1) <= 2.5 && r0 > 0.01 * perMm;
        }
      }
      if (!centre && nx === pen.gx && ny === pen.gy && nz === pen.gz) continue;
      this.begin(centre ? (kind === ARC_CCW ? 3 : 2) : kind === RAPID ? 0 : 1);
      if (nx !== pen.gx || (centre && full)) this.word(X, nx);
      if (ny !== pen.gy || (centre && full)) this.word(Y, ny);
      if (nz !== pen.gz) this.word(Z, nz);
      if (centre) {
        this.word(I, ci);
        this.word(J, cj);
      }
      if (kind !== RAPID) this.feed(m.feed[i]);
      out.byte(10);
      pen.gx = nx;
      pen.gy = ny;
      pen.gz = nz;
    }
  }
  /** Begins a line: its number, where they are wanted, and the motion word only when it changes. */
  private begin(mode: number): void {
    this.out.room(LINE);
    this.number();
    this.begun = false;
    if (mode === this.pen.mode) return;
    this.pen.mode = mode;
    this.begun = true;
    this.out.byte(71);
    this.out.byte(48 + mode);
  }
  private number(): void {
    if (this.sheet.d.numbers) this.out.ascii(`N${(this.pen.numbered += 10)} `);
  }
  /** Words of a line have a space between. */
  private space(): void {
    if (this.begun) this.out.byte(32);
    this.begun = true;
  }
  private word(letter: number, steps: number): void {
    this.space();
    this.out.word(letter, steps, this.sheet.d.decimals);
  }
  private feed(feed: number): void {
    if (feed === this.pen.feed) return;
    this.pen.feed = feed;
    const { d, scale } = this.sheet;
    const text = feedText(feed * scale, d);
    if (!(Number(text) > 0))
      throw new RangeError(
        `A feed of ${+feed.toPrecision(3)} mm/min is too slow for this format, which writes ${d.unit === 'in' ? 'hundredths of an inch' : 'tenths of a millimetre'}. Enter a faster one.`,
      );
    this.space();
    this.out.ascii(`F${text}`);
  }
}

const written = derived<Motion, { readonly bytes: Uint8Array; readonly pen: Pen }>();

/**
 * The text of a motion, as it reads from where the pen stands; and where the pen stands after it. A motion that was written
 * from there before is the same bytes again.
 */
function textOfMotion(motion: Motion, sheet: Sheet, pen: Pen): { readonly bytes: Uint8Array; readonly pen: Pen } {
  // The pen goes on: its key is that of what it is now.
  return written(motion, contentKey([sheet, { ...pen }]), () => {
    const lines = new Lines(sheet, { ...pen });
    lines.moves(sheet.d.arcs ? motion : withoutArcs(motion, 0.0003));
    return { bytes: lines.out.take(), pen: lines.pen };
  });
}

/** Writes parts, in order, as one program. The spindle is on only while a turning cutter works. ASCII; the moves of each part are a chunk of their own. */
export function programChunks(parts: readonly ProgramPart[], info: ProgramInfo, d: Dialect): Chunks {
  const scale = d.unit === 'in' ? 1 / 25.4 : 1;
  const factor = 10 ** d.decimals;
  const perMm = scale * factor;
  const { datum } = info;
  const sheet: Sheet = { d, datum, perMm, factor, scale, safe: Math.round((info.safeHeight - datum.z) * perMm) };
  const lines = new Lines(sheet, { gx: NaN, gy: NaN, gz: NaN, mode: -1, feed: NaN, numbered: 0 });
  const { pen } = lines;
  const chunks: Uint8Array[] = [];
  const setting = ['G17 G90 G94', d.unit === 'mm' ? 'G21' : 'G20', 'G40 G49 G80'];
  lines.comment(`Job: ${info.title}`);
  info.remarks.forEach((r) => lines.comment(r));
  for (const line of [
    ...setting,
    ...(d.workOffset === 'none' ? [] : [d.workOffset]),
    ...arcLines(parts, d),
    ...d.header.map(toAscii),
  ])
    lines.say(line);
  let tool = -1;
  // A line of the maker's own may have started it: it stands again before the first cutter is taken.
  let spinning = d.header.some((l) => /\bM0*[34]\b/i.test(l));
  const stop = () => {
    if (spinning) lines.say('M5');
    spinning = false;
  };
  for (const part of parts) {
    lines.comment(`Cut ${part.cutNumber}: ${part.cutName}`);
    if (part.tool !== tool) {
      if (tool !== -1) {
        if (pen.gz !== sheet.safe) lines.lift();
        stop();
        if (info.parkAtChange && d.change === 'pause') lines.goTo(info.park.x - datum.x, info.park.y - datum.y);
      }
      stop();
      lines.comment(`Tool ${part.tool}: ${part.toolName}`);
      for (const line of d.change === 'command' ? [`T${part.tool} M6`] : [`T${part.tool}`, 'M0']) lines.say(line);
      if (d.toolLength) lines.say(`G43 H${part.tool}`);
      tool = part.tool;
      // After a change the spindle may be anywhere: say every coordinate again.
      Object.assign(pen, { gx: NaN, gy: NaN, gz: NaN, mode: -1, feed: NaN });
    }
    if (part.turns) {
      lines.say(`S${Math.round(part.rpm)} M3`);
      if (d.spindleWait > 0 && !spinning) lines.say(`G4 P${d.spindleWait}`);
      spinning = true;
    } else stop();
    const moves = textOfMotion(part.motion, sheet, pen);
    Object.assign(pen, moves.pen);
    chunks.push(lines.out.take(), moves.bytes);
  }
  if (pen.gz !== sheet.safe) lines.lift();
  lines.say('M5');
  pen.mode = -1;
  lines.goTo(info.park.x - datum.x, info.park.y - datum.y);
  for (const line of [...d.footer.map(toAscii), d.end]) lines.say(line);
  return [...chunks, lines.out.take()];
}

/** The same as text. */
export const writeProgram = (parts: readonly ProgramPart[], info: ProgramInfo, d: Dialect): string =>
  textOf(programChunks(parts, info, d));
