import { decompress } from 'brotli/decompress.js';
import { Bytes } from './bytes';
import { outlinesOf } from './glyf';
import { sfntLength, sfntOf, type Table } from './sfnt';

const tagOf = (s: string): number => [...s].reduce((n, q) => n * 256 + q.charCodeAt(0), 0);
/** The tables that have a number of their own, in its order (W3C, WOFF File Format 2.0, 4.1). */
const known = [
  'cmap head hhea hmtx maxp name OS/2 post cvt  fpgm glyf loca prep CFF  VORG EBDT EBLC gasp hdmx kern LTSH PCLT ',
  'VDMX vhea vmtx BASE GDEF GPOS GSUB EBSC JSTF MATH CBDT CBLC COLR CPAL SVG  sbix acnt avar bdat bloc bsln cvar ',
  'fdsc feat fmtx fvar gvar hsty just lcar mort morx opbd prop trak Zapf Silf Glat Gloc Feat Sill',
]
  .join('')
  .match(/.{4} ?/g)!
  .map((t) => tagOf(t.slice(0, 4)));
const [GLYF, LOCA, HMTX, HHEA, HEAD, TTCF] = ['glyf', 'loca', 'hmtx', 'hhea', 'head', 'ttcf'].map(tagOf);
/** A table whose four letters follow. */
const OTHER = 63;
const HEAD_LENGTH = 48;
/** Of glyf and loca: as they are in a font. Of all others that is 0. */
const UNCHANGED = 3;

interface Entry {
  readonly tag: number;
  readonly changed: boolean;
  readonly length: number;
  readonly packed: number;
}

/**
 * The font in a WOFF2 file (W3C, WOFF File Format 2.0) as an SFNT file, of `most` bytes at the most; null where it is damaged, or
 * a collection of several.
 *
 *     | head 48 | flags [tag] length [length when changed] | ... | all tables in one Brotli stream |
 */
export function openWoff2(bytes: Uint8Array, most: number): Uint8Array | null {
  try {
    const read = new Bytes(bytes);
    read.skip(4);
    const flavour = read.u32();
    if (flavour === TTCF) return null;
    read.skip(4);
    const count = read.u16();
    read.skip(6);
    const packed = read.u32();
    read.at = HEAD_LENGTH;
    const entries = Array.from({ length: count }, (): Entry => {
      const flags = read.u8();
      const tag = (flags & 63) === OTHER ? read.u32() : known[flags & 63];
      const version = flags >> 6;
      const changed = version !== (tag === GLYF || tag === LOCA ? UNCHANGED : 0);
      const length = read.base128();
      return { tag, changed, length, packed: changed ? read.base128() : length };
    });
    const whole = entries.reduce((n, e) => n + e.packed, 0);
    if (whole > most || sfntLength(entries.map((e) => e.length)) > most) return null;
    const stream = decompress(read.take(packed), whole);
    if (stream.length !== whole) return null;
    const from = new Bytes(stream);
    const tables = new Map(entries.map((e) => [e.tag, { ...e, bytes: from.take(e.packed) }]));
    return sfntOf(flavour, restored(tables, most));
  } catch {
    return null;
  }
}

/** The tables as they are in a font: outlines, where they lie, and their widths are kept in other ways to be smaller. */
function restored(tables: ReadonlyMap<number, Entry & { readonly bytes: Uint8Array }>, most: number): Table[] {
  const out = new Map<number, Uint8Array>([...tables].map(([tag, { bytes }]) => [tag, bytes]));
  const need = (tag: number): Uint8Array => {
    const bytes = out.get(tag);
    if (!bytes) throw new RangeError('a table is missing');
    return bytes;
  };
  let lefts: Int16Array | null = null;
  if (tables.get(GLYF)?.changed) {
    const { glyf, loca, left } = outlinesOf(need(GLYF), most);
    out.set(GLYF, glyf);
    out.set(LOCA, loca);
    const head = need(HEAD).slice();
    // Places are written with four bytes each.
    new DataView(head.buffer).setInt16(50, 1);
    out.set(HEAD, head);
    lefts = left;
  }
  if (tables.get(HMTX)?.changed) {
    if (!lefts) throw new RangeError('widths without outlines');
    const wide = new Bytes(need(HHEA)).back(2).u16();
    out.set(HMTX, widthsOf(need(HMTX), wide, lefts));
  }
  return [...out].map(([tag, bytes]) => ({ tag, bytes }));
}

/** Widths and left bearings (5.4): bearings that are where the outline begins are not kept. */
function widthsOf(bytes: Uint8Array, wide: number, lefts: Int16Array): Uint8Array {
  const from = new Bytes(bytes);
  const flags = from.u8();
  const rest = lefts.length - wide;
  if (wide < 1 || rest < 0) throw new RangeError('more widths than glyphs');
  const widths = Array.from({ length: wide }, () => from.u16());
  const bearings = (count: number, at: number, kept: boolean) =>
    Array.from({ length: count }, (_, i) => (kept ? from.i16() : lefts[at + i]));
  const own = bearings(wide, 0, !(flags & 1));
  const others = bearings(rest, wide, !(flags & 2));
  const out = new DataView(new ArrayBuffer(4 * wide + 2 * rest));
  widths.forEach((w, i) => {
    out.setUint16(4 * i, w);
    out.setInt16(4 * i + 2, own[i]);
  });
  others.forEach((b, i) => out.setInt16(4 * wide + 2 * i, b));
  return new Uint8Array(out.buffer);
}
