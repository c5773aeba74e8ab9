import { transformPath, type Path } from '../geometry/path';
import { isMissing, type Feature, type Pen, type ShapedGlyph, type Shaper, type ShaperFace } from './harfbuzz';
import { runsOf, type Run } from './runs';
import { openWoff } from './woff';

/** A letter as it stands in a line: a character, or several that are drawn as one. Font units, y up. */
export interface Letter {
  /** Which character of the line is its first, and how many it stands for. */
  readonly at: number;
  readonly count: number;
  /** About where it begins on the baseline. */
  readonly paths: readonly Path[];
  readonly width: number;
  /** By how much the next letter is nearer (below zero) or farther than the width: kerning. */
  readonly kern: number;
}

/** How a line is set. */
export interface Setting {
  readonly kerning: boolean;
  /** Whether letters join and change with their neighbours where the font has forms for it. What a script cannot do without, it has. */
  readonly ligatures: boolean;
  /** Characters that keep their distance from the next one: they are never drawn as one with it. */
  readonly apart?: (at: number) => boolean;
}

export interface SetText {
  /** From left to right. */
  readonly letters: readonly Letter[];
  /** Characters that the font lacks. They are left out. */
  readonly missing: readonly string[];
}

/** A loaded font: outlines in font units, y up. */
export interface LoadedFont {
  readonly unitsPerEm: number;
  readonly capHeight: number;
  /** Its glyphs are lines for the cutter to follow, not outlines. */
  readonly strokes?: boolean;
  /** Sets a line of text. */
  set(line: string, how: Setting): SetText;
}

/** Raised when a file is no font that can be used; names the file. */
export class FontError extends Error {
  constructor(
    name: string,
    readonly why: string,
  ) {
    super(`The font "${name}" cannot be used: ${why}.`);
    this.name = 'FontError';
  }
}

/** Larger files than this are no fonts for lettering, bytes. */
export const LARGEST = 40 * 1024 * 1024;
/** A character by itself, to see what it is. */
const ALONE = { rightToLeft: false, script: null };
/** A font whose first glyphs draw nothing holds pictures, or is empty. */
const TRIED = 500;
/** Where a WOFF2 file says what it holds, bytes. */
const FLAVOUR = 4;
/** Of the table of names (OpenType, `name`): the whole name of the font, and its family. */
const FULL_NAME = 4;
const FAMILY = 1;

const kindOf = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 4));

/** Whether a file is packed so that opening it takes its time (WOFF2). */
export const isTight = (bytes: Uint8Array): boolean => kindOf(bytes) === 'wOF2';

export const isCollection = (bytes: Uint8Array): boolean =>
  kindOf(isTight(bytes) ? bytes.subarray(FLAVOUR) : bytes) === 'ttcf';

/** How the name of a font file ends, by what it holds. */
export const endingOf = (bytes: Uint8Array): string =>
  ({ wOFF: '.woff', wOF2: '.woff2', OTTO: '.otf' })[kindOf(bytes)] ?? '.ttf';

/** What opens the file of a font. Throws FontError. */
export type OpenFont = (bytes: Uint8Array, name: string) => Uint8Array;

/** The font in a file that is not packed tightly: of those `openedFont` opens any. */
export const sfntIn: OpenFont = (bytes, name) => {
  if (isCollection(bytes))
    throw new FontError(name, 'it is a collection of several fonts; take one of them as a TTF or OTF file');
  if (isTight(bytes)) throw new FontError(name, 'it is still packed as WOFF2; take the TTF, OTF or WOFF file of it');
  const sfnt = unpacked(bytes);
  if (!sfnt) throw damaged(name);
  return sfnt;
};

/** What is said of a file whose packing does not hold what it says. */
export const damaged = (name: string): FontError =>
  new FontError(name, 'it is damaged: its tables are not what it says of them');

/** The font without its packing; null where it cannot be opened. */
const unpacked = (bytes: Uint8Array): Uint8Array | null =>
  kindOf(bytes) === 'wOFF' ? openWoff(bytes, LARGEST) : isTight(bytes) ? null : bytes;

/** The name that a font file gives itself; its file's name when it gives none. */
export function fontName(bytes: Uint8Array, file: string, shaper: Shaper): string {
  const sfnt = unpacked(bytes);
  const face = sfnt && shaper.face(sfnt);
  const name = (face?.name(FULL_NAME) || face?.name(FAMILY) || '').trim();
  return (name || file.replace(/\.[a-z0-9]+$/i, '')).slice(0, 200) || 'Font';
}

/** Reads a font: TrueType or OpenType, or either packed as `open` can open it, which is WOFF when not said. Throws FontError. */
export function loadFont(bytes: Uint8Array, name: string, shaper: Shaper, open: OpenFont = sfntIn): LoadedFont {
  if (bytes.length > LARGEST) throw new FontError(name, 'its file is larger than 40 MB');
  const face = shaper.face(open(bytes, name));
  if (face.empty) throw new FontError(name, 'it is damaged, or no font; take the TTF or OTF file of it');
  const drawn = outlines(face);
  let first = 1;
  while (first < TRIED && !drawn(first).paths.length) first++;
  if (first === TRIED) throw new FontError(name, 'it has no letters that can be cut');
  const { unitsPerEm } = face;
  let { capHeight } = face;
  if (!(capHeight > 0)) {
    const [h] = face.shape('H', ALONE, []);
    const ys = isMissing(h) ? [] : drawn(h.glyph).paths.flatMap((p) => [p.y, ...p.segments.map((s) => s.y)]);
    capHeight = ys.length ? Math.max(...ys) : 0.7 * unitsPerEm;
  }
  return {
    unitsPerEm,
    capHeight,
    set(line, how) {
      const starts = startsOf(line);
      const missing = new Set<string>();
      const letters = runsOf(line).flatMap((run) => setRun(face, drawn, line, run, starts, how, missing));
      return { letters, missing: [...missing] };
    },
  };
}

/** Which character of a line begins at each of its UTF-16 units; the number of all of them at its end. */
function startsOf(line: string): Int32Array {
  const out = new Int32Array(line.length + 1);
  let at = 0;
  let n = 0;
  for (const char of line) {
    for (let k = 0; k < char.length; k++) out[at + k] = n;
    at += char.length;
    n++;
  }
  out[at] = n;
  return out;
}

/** What a part of a line is set with, beyond what its script cannot do without. */
function featuresOf(how: Setting, places: Int32Array): Feature[] {
  const off = (tag: string, from?: number, to?: number): Feature => ({ tag, on: false, from, to });
  const kern = how.kerning ? [] : [off('kern')];
  if (!how.ligatures) return [...kern, off('liga'), off('clig'), off('calt')];
  const { apart } = how;
  if (!apart) return kern;
  const alone = (at: number, i: number) => (apart(at) ? [off('liga', i, i + 2), off('clig', i, i + 2)] : []);
  return [...kern, ...[...places].flatMap(alone)];
}

/** A part of a line as it is set. `starts`: see `startsOf`; characters that the font lacks go to `missing`. */
function setRun(
  face: ShaperFace,
  drawn: (glyph: number) => Drawn,
  line: string,
  run: Run,
  starts: Int32Array,
  how: Setting,
  missing: Set<string>,
): Letter[] {
  const text = line.slice(run.from, run.to);
  const places = starts.subarray(run.from, run.to);
  const glyphs = face.shape(text, run, featuresOf(how, places));
  const out: Letter[] = [];
  for (let i = 0, end = 0; i < glyphs.length; i = end) {
    const { at } = glyphs[i];
    while (end < glyphs.length && glyphs[end].at === at) end++;
    // Glyphs come from left to right: what is read next stands before them where it runs the other way.
    const until = (run.rightToLeft ? glyphs[i - 1] : glyphs[end])?.at ?? text.length;
    const chars = text.slice(at, until);
    const letter = glyphs.slice(i, end);
    const there = letter.filter((g) => !isMissing(g));
    if (there.length < letter.length && chars.trim()) {
      const lacking = [...chars].filter((q) => q.trim() && face.shape(q, ALONE, []).some(isMissing));
      for (const q of lacking.length ? lacking : [chars]) missing.add(q);
      if (!there.length) continue;
    }
    const first = starts[run.from + at];
    // A blank that the font lacks keeps its room; the box that stands for it is not drawn.
    out.push({ at: first, count: starts[run.from + until] - first, ...together(there.length ? there : letter, drawn) });
  }
  return out;
}

/** One or several glyphs as a letter: marks lie over what they belong to. */
function together(glyphs: readonly ShapedGlyph[], drawn: (glyph: number) => Drawn): Omit<Letter, 'at' | 'count'> {
  const paths: Path[] = [];
  let x = 0;
  for (const g of glyphs) {
    const [e, f] = [x + g.dx, g.dy];
    if (!isMissing(g))
      for (const p of drawn(g.glyph).paths) paths.push(e || f ? transformPath(p, { a: 1, b: 0, c: 0, d: 1, e, f }) : p);
    x += g.advance;
  }
  // Only of a glyph by itself it is known how much of its advance is kerning.
  const width = glyphs.length === 1 ? drawn(glyphs[0].glyph).advance : x;
  return { paths, width, kern: x - width };
}

interface Drawn {
  readonly paths: readonly Path[];
  readonly advance: number;
}

/** Outlines of glyphs, each drawn once. */
function outlines(face: ShaperFace): (glyph: number) => Drawn {
  const kept = new Map<number, Drawn>();
  return (glyph) => {
    let d = kept.get(glyph);
    if (!d) kept.set(glyph, (d = { paths: draw(face, glyph), advance: face.advance(glyph) }));
    return d;
  };
}

/** A glyph as closed paths; quadratics become cubics exactly. */
function draw(face: ShaperFace, glyph: number): Path[] {
  const out: Path[] = [];
  let path: Path | null = null;
  let x = 0;
  let y = 0;
  const to = (px: number, py: number) => ([x, y] = [px, py]);
  const pen: Pen = {
    move(px, py) {
      pen.close();
      path = { x: px, y: py, segments: [], closed: true };
      to(px, py);
    },
    line(px, py) {
      path?.segments.push({ k: 'line', x: px, y: py });
      to(px, py);
    },
    quadratic(qx, qy, px, py) {
      path?.segments.push({
        k: 'cubic',
        x1: x + (2 / 3) * (qx - x),
        y1: y + (2 / 3) * (qy - y),
        x2: px + (2 / 3) * (qx - px),
        y2: py + (2 / 3) * (qy - py),
        x: px,
        y: py,
      });
      to(px, py);
    },
    cubic(x1, y1, x2, y2, px, py) {
      path?.segments.push({ k: 'cubic', x1, y1, x2, y2, x: px, y: py });
      to(px, py);
    },
    close() {
      if (path?.segments.length) {
        if (Math.abs(x - path.x) > 1e-9 || Math.abs(y - path.y) > 1e-9)
          path.segments.push({ k: 'line', x: path.x, y: path.y });
        out.push(path);
      }
      path = null;
    },
  };
  face.draw(glyph, pen);
  pen.close();
  return out;
}
