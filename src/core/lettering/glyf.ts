import { Bytes } from './bytes';

/** Flags of a part of a composite glyph (OpenType, `glyf`). */
const WORDS = 0x01;
const SCALE = 0x08;
const MORE = 0x20;
const TWO_SCALES = 0x40;
const TWO_BY_TWO = 0x80;
const INSTRUCTIONS = 0x100;
/** Of a point of a simple glyph: it lies on the outline, and outlines of the glyph may lie over each other. */
const ON = 0x01;
const OVERLAP = 0x40;
/** Contours of a glyph that is put together from others. */
const COMPOSITE = -1;

const signed = (flag: number, n: number): number => (flag & 1 ? n : -n);

/** How a point lies from the one before: one flag and one to four bytes (W3C, WOFF File Format 2.0, 5.2). */
function step(flag: number, from: Bytes): [number, number] {
  if (flag < 10) return [0, signed(flag, ((flag & 14) << 7) + from.u8())];
  if (flag < 20) return [signed(flag, (((flag - 10) & 14) << 7) + from.u8()), 0];
  if (flag < 84) {
    const [a, b] = [flag - 20, from.u8()];
    return [signed(flag, 1 + (a & 0x30) + (b >> 4)), signed(flag >> 1, 1 + ((a & 0x0c) << 2) + (b & 0x0f))];
  }
  if (flag < 120) {
    const a = flag - 84;
    return [
      signed(flag, 1 + (Math.floor(a / 12) << 8) + from.u8()),
      signed(flag >> 1, 1 + (((a % 12) >> 2) << 8) + from.u8()),
    ];
  }
  if (flag < 124) {
    const [a, b, c] = [from.u8(), from.u8(), from.u8()];
    return [signed(flag, (a << 4) + (b >> 4)), signed(flag >> 1, ((b & 0x0f) << 8) + c)];
  }
  return [signed(flag, from.u16()), signed(flag >> 1, from.u16())];
}

/** Bytes written one after the other into room that grows. */
class Written {
  private bytes = new Uint8Array(1 << 16);
  private view = new DataView(this.bytes.buffer);
  at = 0;
  constructor(private readonly most: number) {}
  private room(count: number): number {
    const from = this.at;
    this.at += count;
    if (this.at > this.most) throw new RangeError('more outlines than a font holds');
    if (this.at > this.bytes.length) {
      const wider = new Uint8Array(2 * this.at);
      wider.set(this.bytes);
      this.bytes = wider;
      this.view = new DataView(wider.buffer);
    }
    return from;
  }
  // Room is made first: it may be another buffer afterwards.
  u8(v: number): void {
    const at = this.room(1);
    this.view.setUint8(at, v);
  }
  i16(v: number): void {
    const at = this.room(2);
    this.view.setInt16(at, v);
  }
  put(bytes: Uint8Array): void {
    const at = this.room(bytes.length);
    this.bytes.set(bytes, at);
  }
  done = (): Uint8Array => this.bytes.slice(0, this.at);
}

/**
 * Outlines that a WOFF2 file keeps in streams of like numbers (W3C, WOFF File Format 2.0, 5.1), as the tables `glyf` and `loca`
 * of a font, `loca` with four bytes a place; and where each outline begins from the left.
 */
export function outlinesOf(bytes: Uint8Array, most: number): { glyf: Uint8Array; loca: Uint8Array; left: Int16Array } {
  const head = new Bytes(bytes);
  head.skip(2);
  const options = head.u16();
  const count = head.u16();
  head.skip(2);
  const sizes = Array.from({ length: 7 }, () => head.u32());
  const [contours, points, flags, glyphs, composites, boxes, instructions] = sizes.map((n) => new Bytes(head.take(n)));
  const overlaps = options & 1 ? head.take((count + 7) >> 3) : null;
  // A bit for each glyph whose box is kept, in whole words of four bytes.
  const boxed = boxes.take(4 * ((count + 31) >> 5));
  const has = (bits: Uint8Array | null, i: number) => !!bits && (bits[i >> 3] & (0x80 >> (i & 7))) !== 0;
  const out = new Written(most);
  const left = new Int16Array(count);
  const loca = new DataView(new ArrayBuffer(4 * (count + 1)));
  for (let i = 0; i < count; i++) {
    const n = contours.i16();
    if (n < COMPOSITE) throw new RangeError('a glyph of no kind');
    const box = has(boxed, i) ? Array.from({ length: 4 }, () => boxes.i16()) : null;
    if (n !== 0) {
      out.i16(n);
      if (n === COMPOSITE) {
        if (!box) throw new RangeError('a composite glyph without its box');
        for (const v of box) out.i16(v);
        left[i] = box[0];
        if (parts(composites, out)) put(glyphs.short255());
      } else left[i] = simple(n, box, has(overlaps, i));
    } else if (box) throw new RangeError('a box about nothing');
    while (out.at % 4) out.u8(0);
    loca.setUint32(4 * (i + 1), out.at);
  }
  return { glyf: out.done(), loca: new Uint8Array(loca.buffer), left };

  function put(length: number): void {
    out.i16(length);
    out.put(instructions.take(length));
  }

  /** A glyph of its own outlines. Where it begins from the left. */
  function simple(n: number, box: number[] | null, overlap: boolean): number {
    const ends: number[] = [];
    let total = 0;
    for (let k = 0; k < n; k++) ends.push((total += points.short255()) - 1);
    // No more points than there are flags left to read: a damaged count asks for no memory.
    const own = flags.take(total);
    const dx = new Int32Array(total);
    const dy = new Int32Array(total);
    let [x, y] = [0, 0];
    const about = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = 0; k < total; k++) {
      [dx[k], dy[k]] = step(own[k] & 127, glyphs);
      x += dx[k];
      y += dy[k];
      about[0] = Math.min(about[0], x);
      about[1] = Math.min(about[1], y);
      about[2] = Math.max(about[2], x);
      about[3] = Math.max(about[3], y);
    }
    const seen = box ?? (total ? about : [0, 0, 0, 0]);
    for (const v of seen) out.i16(v);
    for (const e of ends) out.i16(e);
    put(glyphs.short255());
    for (let k = 0; k < total; k++) out.u8((own[k] & 128 ? 0 : ON) | (overlap && k === 0 ? OVERLAP : 0));
    for (const v of dx) out.i16(v);
    for (const v of dy) out.i16(v);
    return seen[0];
  }
}

/** Copies the parts of a composite glyph; whether instructions follow. */
function parts(from: Bytes, out: Written): boolean {
  let instructed = false;
  for (let flags = MORE; flags & MORE;) {
    flags = from.u16();
    instructed ||= (flags & INSTRUCTIONS) !== 0;
    out.i16(flags);
    const numbers = flags & TWO_BY_TWO ? 8 : flags & TWO_SCALES ? 4 : flags & SCALE ? 2 : 0;
    out.put(from.take(2 + (flags & WORDS ? 4 : 2) + numbers));
  }
  return instructed;
}
