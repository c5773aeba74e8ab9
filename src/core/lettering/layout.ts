import { transformPath, type Path } from '../geometry/path';
import { UNITS_PER_MM } from '../geometry/places';
import { warpPath } from '../geometry/warp';
import type { LoadedFont } from './font';
import { setAlong, type Along } from './along';

export interface Lettering {
  readonly text: string;
  /** Height of capitals, mm. */
  readonly capHeight: number;
  /** Extra space between letters, in thousandths of the em. */
  readonly tracking: number;
  readonly kerning: boolean;
  /** Whether letters join and change with their neighbours where the font has forms for it; they do when not said. */
  readonly ligatures?: boolean;
  /** Distance of baselines as a multiple of the cap height. */
  readonly leading: number;
  readonly align: 'left' | 'centre' | 'right';
  /** Width of the letters in per cent. */
  readonly stretch: number;
  /** Space after single letters, by their place in the text: thousandths of the em, on top of tracking and kerning. */
  readonly spaces?: Readonly<Record<string, number>>;
  /** A baseline along a circle or curve; straight when not said. */
  readonly along?: Along | null;
  /** A box that a straight setting is brought to, mm: inside it, or filling it. */
  readonly fit?: { readonly how: 'inside' | 'fill'; readonly width: number; readonly height: number } | null;
  /** A straight setting bent as a whole: into an arch, or with a crowned top. `by` is the rise in per cent of its height. */
  readonly warp?: { readonly how: 'arch' | 'crown'; readonly by: number } | null;
}

export interface LaidOut {
  readonly paths: Path[];
  /** Extent of the setting: widest line, and first cap line to last baseline. mm. */
  readonly width: number;
  readonly height: number;
  /** Characters that the font lacks. */
  readonly missing: string[];
}

export interface SetGlyph {
  /** Where the letter begins on its line, and how wide it is. mm. */
  readonly x: number;
  readonly width: number;
  readonly paths: readonly Path[];
}

export interface SetLine {
  readonly glyphs: SetGlyph[];
  readonly width: number;
}

/** Letters of each line at their places along it. */
function setLines(l: Lettering, font: LoadedFont): { lines: SetLine[]; sx: number; scale: number; missing: string[] } {
  const scale = l.capHeight / font.capHeight;
  const sx = (scale * l.stretch) / 100;
  const em = font.unitsPerEm / 1000;
  const missing = new Set<string>();
  let place = 0;
  const lines = l.text.split('\n').map((line) => {
    let x = 0;
    const glyphs: SetGlyph[] = [];
    const first = place;
    const own = (at: number) => l.tracking + (l.spaces?.[first + at] ?? 0);
    const set = font.set(line, {
      kerning: l.kerning,
      ligatures: l.ligatures ?? true,
      // Letters that are moved apart or together by hand are no longer drawn as one.
      apart: (at) => own(at) !== 0,
    });
    for (const m of set.missing) missing.add(m);
    set.letters.forEach((g, i) => {
      glyphs.push({ x: x * sx, width: g.width * sx, paths: g.paths });
      const next = set.letters[i + 1];
      // The space between two letters is that of the one which is read first: of letters from right to left, the right one.
      const before = next && next.at < g.at ? next : g;
      x += g.width + (next ? g.kern + own(before.at + before.count - 1) * em : 0);
    });
    // The line's end is a place of its own.
    place += [...line].length + 1;
    return { glyphs, width: x * sx };
  });
  return { lines, sx, scale, missing: [...missing] };
}

/** A length on the grid of outlines: a letter that moves keeps its shape on it to the last corner, and is known again. */
const onGrid = (mm: number): number => Math.round(mm * UNITS_PER_MM) / UNITS_PER_MM;

/** Sets lines of text about the origin: centred on the middle between first cap line and last baseline, or along a curve. */
export function layOut(l: Lettering, font: LoadedFont): LaidOut {
  const { lines, sx, scale, missing } = setLines(l, font);
  if (l.along)
    return {
      ...setAlong(lines, l.along, { sx, sy: scale, capHeight: l.capHeight, leading: l.leading, align: l.align }),
      missing,
    };
  const width = Math.max(0, ...lines.map((q) => q.width));
  const height = l.capHeight + (lines.length - 1) * l.leading * l.capHeight;
  let paths: Path[] = [];
  lines.forEach((line, i) => {
    const left = l.align === 'left' ? -width / 2 : l.align === 'right' ? width / 2 - line.width : -line.width / 2;
    const base = onGrid(height / 2 - l.capHeight - i * l.leading * l.capHeight);
    for (const g of line.glyphs)
      for (const p of g.paths)
        paths.push(transformPath(p, { a: sx, b: 0, c: 0, d: scale, e: onGrid(left + g.x), f: base }));
  });
  let [w, h] = [width, height];
  if (l.warp && l.warp.by !== 0 && w > 0) {
    const rise = (h * l.warp.by) / 100;
    const crown = l.warp.how === 'crown';
    const lift = (x: number) => 1 - ((2 * x) / w) ** 2;
    // An arch shifts everything by the rise; a crown stretches what stands above the last baseline.
    paths = paths.map((p) =>
      warpPath(p, (x, y) => ({ x, y: y + rise * (lift(x) - 0.5) * (crown ? (y + h / 2) / h : 1) }), l.capHeight / 4),
    );
    h += Math.abs(rise) * (crown ? 0.5 : 1);
  }
  if (l.fit && w > 0) {
    const fx = l.fit.width / w;
    const fy = l.fit.height / h;
    const [a, d] = l.fit.how === 'fill' ? [fx, fy] : [Math.min(fx, fy), Math.min(fx, fy)];
    paths = paths.map((p) => transformPath(p, { a, b: 0, c: 0, d, e: 0, f: 0 }));
    [w, h] = [w * a, h * d];
  }
  return { paths, width: w, height: h, missing };
}

/** Hand-set spaces after a change of the text: those before and behind what changed keep their letters. */
export function carrySpaces(
  spaces: Readonly<Record<string, number>>,
  before: string,
  after: string,
): Record<string, number> {
  const a = [...before];
  const b = [...after];
  let head = 0;
  while (head < a.length && head < b.length && a[head] === b[head]) head++;
  let tail = 0;
  while (tail < a.length - head && tail < b.length - head && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail++;
  const out: Record<string, number> = {};
  for (const [key, v] of Object.entries(spaces)) {
    const i = Number(key);
    if (i < head) out[i] = v;
    else if (i >= a.length - tail) out[i + b.length - a.length] = v;
  }
  return out;
}
