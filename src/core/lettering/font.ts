import { parse, type Command, type Font, type Glyph } from 'opentype.js/dist/opentype.mjs';
import type { Path, Segment } from '../geometry/path';
import { openWoff } from './woff';

/** A loaded font: outlines in font units, y up. */
export interface LoadedFont {
  readonly unitsPerEm: number;
  readonly capHeight: number;
  /** Its glyphs are lines for the cutter to follow, not outlines. */
  readonly strokes?: boolean;
  has(char: string): boolean;
  glyph(char: string): { paths: readonly Path[]; advance: number };
  /** Kerning between two characters in font units. */
  kern(left: string, right: string): number;
}

/** Raised when a file is no font that can be used; names the file. */
export class FontError extends Error {
  constructor(name: string, why: string) {
    super(`The font "${name}" cannot be used: ${why}.`);
    this.name = 'FontError';
  }
}

/** Larger files than this are no fonts for lettering, bytes. */
const LARGEST = 40 * 1024 * 1024;

const kindOf = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 4));

/** The parser wants a buffer of its own. Packed tables are opened before: a damaged one would keep it busy for ever. Null where they cannot be. */
function parseBytes(bytes: Uint8Array): Font | null {
  const sfnt = kindOf(bytes) === 'wOFF' ? openWoff(bytes, LARGEST) : bytes;
  if (!sfnt) return null;
  const copy = new ArrayBuffer(sfnt.byteLength);
  new Uint8Array(copy).set(sfnt);
  return parse(copy);
}

/** The name that a font file gives itself; its file's name when it gives none. */
export function fontName(bytes: Uint8Array, file: string): string {
  try {
    const font = parseBytes(bytes);
    const name = font?.getEnglishName('fullName') ?? font?.getEnglishName('fontFamily');
    if (name?.trim()) return name.trim().slice(0, 200);
  } catch {
    // Named by its file.
  }
  return file.replace(/\.[a-z0-9]+$/i, '').slice(0, 200) || 'Font';
}

export function loadFont(bytes: Uint8Array, name: string): LoadedFont {
  let font: Font | null;
  if (bytes.length > LARGEST) throw new FontError(name, 'its file is larger than 40 MB');
  const kind = kindOf(bytes);
  if (kind === 'wOF2') throw new FontError(name, 'it is a WOFF2 file; take the TTF, OTF or WOFF of the same font');
  if (kind === 'ttcf')
    throw new FontError(name, 'it is a collection of several fonts; take one of them as a TTF or OTF file');
  try {
    font = parseBytes(bytes);
  } catch {
    throw new FontError(name, 'it is damaged, or no font; take the TTF or OTF file of it');
  }
  if (!font) throw new FontError(name, 'it is damaged: its tables are not what it says of them');
  if (!font.glyphs?.length || !(font.unitsPerEm > 0)) throw new FontError(name, 'it has no glyphs');
  const glyphs = new Map<string, { glyph: Glyph; paths: Path[] }>();
  const get = (char: string) => {
    let g = glyphs.get(char);
    if (!g) {
      const glyph = font.charToGlyph(char);
      let paths: Path[] = [];
      try {
        paths = toPaths(glyph.getPath(0, 0, font.unitsPerEm).commands);
      } catch {
        // A glyph whose data is broken draws nothing; the others may be sound.
      }
      g = { glyph, paths };
      glyphs.set(char, g);
    }
    return g;
  };
  let tables: unknown = null;
  try {
    tables = font.position?.getKerningTables?.('latn') ?? null;
  } catch {
    // A font whose positioning tables the parser does not know is set without them; the older table may still serve.
    tables = null;
  }
  let capHeight = font.tables.os2?.sCapHeight ?? 0;
  if (!(capHeight > 0)) {
    const ys = get('H').paths.flatMap((p) => [p.y, ...p.segments.map((s) => s.y)]);
    capHeight = ys.length ? Math.max(...ys) : 0.7 * font.unitsPerEm;
  }
  return {
    unitsPerEm: font.unitsPerEm,
    capHeight,
    has: (char) => get(char).glyph.index !== 0,
    glyph: (char) => ({ paths: get(char).paths, advance: get(char).glyph.advanceWidth }),
    kern(left, right) {
      const a = get(left).glyph;
      const b = get(right).glyph;
      const v = tables ? (font.position!.getKerningValue!(tables, a.index, b.index) ?? 0) : font.getKerningValue(a, b);
      return Number.isFinite(v) ? v : 0;
    },
  };
}

/** Glyph commands (y down) to closed paths (y up); quadratics become cubics exactly. */
function toPaths(commands: readonly Command[]): Path[] {
  const out: Path[] = [];
  let path: Path | null = null;
  let x = 0;
  let y = 0;
  const finish = () => {
    if (!path || path.segments.length === 0) return;
    if (Math.abs(x - path.x) > 1e-9 || Math.abs(y - path.y) > 1e-9)
      path.segments.push({ k: 'line', x: path.x, y: path.y });
    out.push(path);
  };
  for (const c of commands) {
    if (c.type === 'Z') {
      finish();
      path = null;
      continue;
    }
    const ex = c.x;
    const ey = -c.y;
    if (c.type === 'M' || !path) {
      finish();
      path = { x: ex, y: ey, segments: [], closed: true };
    } else {
      let s: Segment;
      if (c.type === 'C') s = { k: 'cubic', x1: c.x1, y1: -c.y1, x2: c.x2, y2: -c.y2, x: ex, y: ey };
      else if (c.type === 'Q') {
        const qx = c.x1;
        const qy = -c.y1;
        s = {
          k: 'cubic',
          x1: x + (2 / 3) * (qx - x),
          y1: y + (2 / 3) * (qy - y),
          x2: ex + (2 / 3) * (qx - ex),
          y2: ey + (2 / 3) * (qy - ey),
          x: ex,
          y: ey,
        };
      } else s = { k: 'line', x: ex, y: ey };
      path.segments.push(s);
    }
    x = ex;
    y = ey;
  }
  finish();
  return out;
}
