import { column, used } from '../units/columns';
import { MotionBuilder, type Motion } from '../motion/motion';

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

/** Moves of one chunk of the text with one tool and one cut. Its first move is where it begins: where what went before has ended. */
export interface Run {
  readonly tool: number;
  /** N of the last `(Cut N: ...)` comment; 0 before there was one. */
  readonly cut: number;
  readonly motion: Motion;
  /** Line of each move, from 0 at the chunk's first. */
  readonly line: Int32Array;
  readonly rpm: Float64Array;
  /** Whether it is the first with its tool since the tool was changed, and whether a comment stands before it. */
  readonly opens: boolean;
  readonly marked: boolean;
}

/** What a controller keeps from line to line. */
export interface Controller {
  /** Millimetres in a unit of the program. */
  scale: number;
  absolute: boolean;
  motionMode: number;
  x: number;
  y: number;
  z: number;
  feed: number;
  rpm: number;
  spinning: boolean;
  tool: number;
  selected: number;
  /** Whether it is known where the tool stands. */
  placed: boolean;
  /** Whether anything has moved since the tool was changed. */
  moved: boolean;
  ended: boolean;
  /** What a canned cycle keeps from hole to hole, and whether it comes back to where it began (G98) or to R (G99). */
  backToStart: boolean;
  cycleR: number;
  cycleZ: number;
  cycleQ: number;
  cycleP: number;
  cut: number;
  /** Whether the cut was named after the last move. */
  marked: boolean;
}

/** As it is switched on. */
export const switchedOn = (): Controller => ({
  scale: 1,
  absolute: true,
  motionMode: -1,
  x: 0,
  y: 0,
  z: 0,
  feed: 0,
  rpm: 0,
  spinning: false,
  tool: 0,
  selected: 0,
  placed: false,
  moved: false,
  ended: false,
  backToStart: true,
  cycleR: NaN,
  cycleZ: NaN,
  cycleQ: NaN,
  cycleP: 0,
  cut: 0,
  marked: false,
});

/** The words of one line; NaN (or -1, false) for what it does not say. */
interface Words {
  g: number;
  m: number;
  /** Further M words. */
  others: number[] | null;
  x: number;
  y: number;
  z: number;
  i: number;
  j: number;
  centre: boolean;
  waits: boolean;
  p: number;
  r: number;
  q: number;
}

/** Lines of a program are hardly shorter than this, bytes. */
const SHORT_LINE = 16;
/** No machine goes so far, mm. */
const FARTHEST = 1e6;

/** Reads one chunk, line by line. */
export class ChunkReader {
  readonly runs: Run[] = [];
  toolChanges = 0;
  dwell = 0;
  line = 0;
  private at = 0;
  private b!: MotionBuilder;
  private lines!: Int32Array;
  private speeds!: Float64Array;
  private opens = false;
  private marked = false;
  private readonly w: Words = {
    g: -1,
    m: -1,
    others: null,
    x: NaN,
    y: NaN,
    z: NaN,
    i: 0,
    j: 0,
    centre: false,
    waits: false,
    p: NaN,
    r: NaN,
    q: NaN,
  };

  /** `first`: the line at which the chunk begins, from 1, for messages. */
  constructor(
    private readonly bytes: Uint8Array,
    readonly c: Controller,
    private readonly first: number,
  ) {
    this.begin();
  }

  /** Room for the moves of what is left, so that millions of them are not copied from one room to a larger one again and again. */
  private begin(): void {
    const room = Math.max(256, Math.ceil((this.bytes.length - this.at) / SHORT_LINE));
    this.b = new MotionBuilder(room);
    this.lines = column(Int32Array, room);
    this.speeds = column(Float64Array, room);
  }

  read(): void {
    const { bytes, c } = this;
    for (; this.at < bytes.length && !c.ended; this.line++) {
      this.words();
      this.obey();
    }
    this.close();
  }

  private fail(why: string): never {
    throw new ProgramError(this.first + this.line, why);
  }

  /** Ends the run that is being read. */
  private close(): void {
    const { b, c } = this;
    if (!b.count) return;
    this.runs.push({
      tool: c.tool,
      cut: c.cut,
      motion: b.build(),
      line: used(this.lines, b.count),
      rpm: used(this.speeds, b.count),
      opens: this.opens,
      marked: this.marked,
    });
    this.begin();
  }

  /** Begins a run where the tool stands, if none is being read. Where a section begins is not known to the program: its first move only places the tool. */
  private open(x: number, y: number, z: number): void {
    const { b, c } = this;
    if (b.count) return;
    this.opens = !c.moved;
    this.marked = c.marked;
    c.marked = false;
    c.moved = true;
    if (c.placed) b.rapid(c.x, c.y, c.z);
    else b.rapid(x, y, z);
    this.lines[0] = this.line;
  }

  /** Notes for the moves from `before` on which line they come from. */
  private stamp(before: number): void {
    const { b, c } = this;
    for (let k = before; k < b.count; k++) {
      if (k === this.lines.length) {
        this.lines = widened(this.lines, column(Int32Array, 2 * k));
        this.speeds = widened(this.speeds, column(Float64Array, 2 * k));
      }
      this.lines[k] = this.line;
      this.speeds[k] = c.spinning ? c.rpm : 0;
    }
  }

  private comment(from: number, to: number): void {
    // What names a cut is short.
    const named = /^\s*Cut (\d+):/.exec(String.fromCharCode(...this.bytes.subarray(from, Math.min(to, from + 24))));
    if (!named) return;
    this.close();
    this.c.cut = Number(named[1]);
    this.c.marked = true;
  }

  /** Reads a comment, in brackets or from a semicolon to the end of the line; the place after it. */
  private afterComment(at: number): number {
    const { bytes } = this;
    const bracket = bytes[at] === 40;
    let stop = at + 1;
    while (stop < bytes.length && bytes[stop] !== 10 && !(bracket && bytes[stop] === 41)) stop++;
    if (bracket && bytes[stop] !== 41) this.fail('a comment is not closed');
    this.comment(at + 1, stop);
    return bracket ? stop + 1 : stop;
  }

  /** Reads the words of a line and goes past its end. */
  private words(): void {
    const { bytes, c, w } = this;
    const n = bytes.length;
    w.g = w.m = -1;
    w.others = null;
    w.x = w.y = w.z = w.p = w.r = w.q = NaN;
    w.i = w.j = 0;
    w.centre = w.waits = false;
    let { at } = this;
    while (at < n) {
      let ch = bytes[at];
      if (ch === 10) break;
      if (ch <= 32 || ch === 37) {
        at++;
        continue;
      }
      if (ch === 40 || ch === 59) {
        at = this.afterComment(at);
        continue;
      }
      if (ch >= 97) ch -= 32;
      at++;
      // Number, read by hand: this loop sees every character of files of a million lines.
      let d = at < n ? bytes[at] : 0;
      while (d === 32) d = ++at < n ? bytes[at] : 0;
      const negative = d === 45;
      if (negative || d === 43) d = ++at < n ? bytes[at] : 0;
      const begin = at;
      let mantissa = 0;
      while (d >= 48 && d <= 57) {
        mantissa = mantissa * 10 + (d - 48);
        d = ++at < n ? bytes[at] : 0;
      }
      let digits = at - begin;
      let places = 0;
      if (d === 46) {
        const point = at;
        d = ++at < n ? bytes[at] : 0;
        while (d >= 48 && d <= 57) {
          mantissa = mantissa * 10 + (d - 48);
          d = ++at < n ? bytes[at] : 0;
        }
        places = at - point - 1;
        digits += places;
      }
      if (!digits) this.fail(`"${String.fromCharCode(ch)}" lacks its number`);
      const v = (negative ? -mantissa : mantissa) / POWERS[places];
      switch (ch) {
        case 88:
          w.x = v;
          break;
        case 89:
          w.y = v;
          break;
        case 90:
          w.z = v;
          break;
        case 73:
          w.i = v;
          w.centre = true;
          break;
        case 74:
          w.j = v;
          w.centre = true;
          break;
        case 70: // F
          c.feed = v * c.scale;
          break;
        default:
          this.rare(ch, v);
      }
    }
    this.at = at + 1;
  }

  /** Words that few lines have. */
  private rare(letter: number, v: number): void {
    const { c, w } = this;
    switch (letter) {
      case 71: // G
        this.g(v);
        break;
      case 77: // M
        if (w.m < 0) w.m = v;
        else (w.others ??= []).push(v);
        break;
      case 83: // S
        c.rpm = v;
        break;
      case 80: // P
        w.p = v;
        break;
      case 82: // R
        w.r = v;
        break;
      case 81: // Q
        w.q = v;
        break;
      case 84: // T
        c.selected = v;
        break;
      case 78: // N
      case 79: // O
      case 72: // H
        break;
      default:
        this.fail(`the word "${String.fromCharCode(letter)}" is not known`);
    }
  }

  private g(v: number): void {
    const { c, w } = this;
    if (v === 0 || v === 1 || v === 2 || v === 3 || v === 81 || v === 82 || v === 83) w.g = v;
    else if (v === 80) c.motionMode = -1;
    else if (v === 98) c.backToStart = true;
    else if (v === 99) c.backToStart = false;
    else if (v === 4) w.waits = true;
    else if (v === 20) c.scale = 25.4;
    else if (v === 21) c.scale = 1;
    else if (v === 90) c.absolute = true;
    else if (v === 91) c.absolute = false;
    else if (v === 18 || v === 19) this.fail('only the XY plane (G17) is read');
    else if (!(
      v === 17 ||
      v === 40 ||
      v === 43 ||
      v === 49 ||
      (v >= 54 && v <= 59) ||
      v === 64 ||
      v === 91.1 ||
      v === 94
    ))
      this.fail(`G${v} is not known`);
  }

  /** Does what the words of a line say. */
  private obey(): void {
    const { c, w } = this;
    if (w.waits) {
      if (!(w.p >= 0)) this.fail('a wait (G4) without its seconds (P)');
      // Before the first move of a section it is waiting for the spindle; later it is part of the motion.
      if (c.moved) {
        this.open(c.x, c.y, c.z);
        this.b.dwell(w.p);
        this.stamp(this.b.count - 1);
      } else this.dwell += w.p;
    }
    if (w.m >= 0) for (const m of [w.m, ...(w.others ?? [])]) this.m(m);
    if (w.g >= 0) {
      // A cycle that is called anew says everything anew.
      if (w.g > 3 && w.g !== c.motionMode) {
        c.cycleR = c.cycleZ = c.cycleQ = NaN;
        c.cycleP = 0;
      }
      c.motionMode = w.g;
    }
    if (w.x === w.x || w.y === w.y || w.z === w.z || w.centre) this.move();
  }

  /** A line may give several: each is obeyed. */
  private m(m: number): void {
    const { c } = this;
    // A pause with another tool called before it is a change by hand.
    if (m === 6 || (m === 0 && c.selected !== c.tool)) {
      this.close();
      c.tool = c.selected;
      c.moved = false;
      this.toolChanges++;
      c.spinning = false;
    } else if (m === 3 || m === 4) c.spinning = true;
    else if (m === 5) c.spinning = false;
    else if (m === 2 || m === 30) c.ended = true;
    else if (m > 0 && m !== 1 && m !== 7 && m !== 8 && m !== 9) this.fail(`M${m} is not known`);
  }

  /** Refuses places where no machine goes: they come of a line that is broken. */
  private near(x: number, y: number, z: number): void {
    if (!(Math.abs(x) < FARTHEST && Math.abs(y) < FARTHEST && Math.abs(z) < FARTHEST))
      this.fail('it goes more than a kilometre away');
  }

  private move(): void {
    const { c, w } = this;
    if (c.motionMode < 0) this.fail('coordinates before any G0 or G1');
    const x = w.x === w.x ? (c.absolute ? 0 : c.x) + w.x * c.scale : c.x;
    const y = w.y === w.y ? (c.absolute ? 0 : c.y) + w.y * c.scale : c.y;
    const z = w.z === w.z ? (c.absolute ? 0 : c.z) + w.z * c.scale : c.z;
    this.near(x, y, z);
    this.open(x, y, z);
    const { b } = this;
    const before = b.count;
    let up = z;
    if (c.motionMode > 3) up = this.cycle(x, y);
    else if (c.motionMode === 0) b.rapid(x, y, z);
    else if (!(c.feed > 0)) this.fail('a cut without a feed');
    else if (c.motionMode === 1) {
      if (x === c.x && y === c.y && z < c.z) b.plunge(z, c.feed);
      else b.line(x, y, z, c.feed);
    } else this.arc(x, y, z);
    this.stamp(before);
    c.x = x;
    c.y = y;
    c.z = up;
    c.placed = true;
  }

  private arc(x: number, y: number, z: number): void {
    const { c, w } = this;
    if (!w.centre) this.fail('an arc without I and J');
    const cx = c.x + w.i * c.scale;
    const cy = c.y + w.j * c.scale;
    const r0 = Math.hypot(w.i, w.j) * c.scale;
    const r1 = Math.hypot(x - cx, y - cy);
    if (Math.abs(r0 - r1) > 0.005 + 0.0005 * r0)
      this.fail(`the radii at the ends of the arc differ by ${Math.abs(r0 - r1).toFixed(4)} mm`);
    this.b.arc(c.motionMode === 3, x, y, z, cx, cy, c.feed);
  }

  /** One hole; gives the height at which the drill is after it. */
  private cycle(x: number, y: number): number {
    const { b, c, w } = this;
    if (!c.absolute) this.fail('a canned cycle in relative coordinates (G91) is not read');
    if (w.z === w.z) c.cycleZ = w.z * c.scale;
    if (w.r === w.r) c.cycleR = w.r * c.scale;
    if (w.q === w.q) c.cycleQ = w.q * c.scale;
    if (w.p === w.p) c.cycleP = w.p;
    if (!(c.cycleZ <= c.cycleR)) this.fail(`G${c.motionMode} needs R and a Z below it`);
    this.near(0, c.cycleR, c.cycleZ);
    if (c.motionMode === 83 && !(c.cycleQ > 0)) this.fail('G83 without Q');
    if (!(c.feed > 0)) this.fail('a cut without a feed');
    const start = Math.max(c.z, c.cycleR);
    const up = c.backToStart ? start : c.cycleR;
    if (c.z < c.cycleR) b.rapid(c.x, c.y, c.cycleR);
    b.rapid(x, y, start);
    b.rapid(x, y, c.cycleR);
    for (let at = c.cycleR; at > c.cycleZ;) {
      if (at < c.cycleR) {
        b.rapid(x, y, c.cycleR);
        b.rapid(x, y, Math.min(c.cycleR, at + A_BIT));
      }
      at = c.motionMode === 83 && at - c.cycleQ > c.cycleZ + 1e-9 ? at - c.cycleQ : c.cycleZ;
      b.plunge(at, c.feed);
    }
    if (c.motionMode === 82) b.dwell(c.cycleP);
    b.rapid(x, y, up);
    return up;
  }
}

/** How far above the last floor a peck drill comes back down by rapid before it drills on: controllers call it a bit. mm. */
const A_BIT = 0.3;

const POWERS = Array.from({ length: 30 }, (_, i) => 10 ** i);

function widened<T extends Int32Array | Float64Array>(old: T, wide: T): T {
  wide.set(old);
  return wide;
}
