import { boundsOfPaths, placement, transformPath, type Path } from '../geometry/path';
import type { LoadedFont } from './font';

export interface Lettering {
  readonly text: string;
  /** Height of capitals, mm. */
  readonly capHeight: number;
  /** Extra space between letters, in thousandths of the em. */
  readonly tracking: number;
  readonly kerning: boolean;
  /** Distance of baselines as a multiple of the cap height. */
  readonly leading: number;
  readonly align: 'left' | 'centre' | 'right';
  /** Width of the letters in per cent. */
  readonly stretch: number;
  /** A straight baseline, or one round a circle about the origin; straight when not said. */
  readonly bend?: Bend | null;
}

/** The circle that a baseline runs along. */
export interface Bend {
  /** Radius of the first baseline, mm. */
  readonly radius: number;
  /** Letters stand outwards and read clockwise, or stand inwards and read counter-clockwise. */
  readonly side: 'outwards' | 'inwards';
  /** Where the middle of the lines lies: degrees counter-clockwise from the right. */
  readonly at: number;
}

export interface LaidOut {
  readonly paths: Path[];
  /** Extent of the setting: widest line, and first cap line to last baseline. mm. */
  readonly width: number;
  readonly height: number;
  /** Characters that the font lacks. */
  readonly missing: string[];
}

interface SetGlyph {
  /** Where the letter begins on its line, and how wide it is. mm. */
  readonly x: number;
  readonly width: number;
  readonly paths: readonly Path[];
}

/** Letters of each line at their places along it. */
function setLines(l: Lettering, font: LoadedFont): { lines: { glyphs: SetGlyph[]; width: number }[]; sx: number; scale: number; missing: string[] } {
  const scale = l.capHeight / font.capHeight;
  const sx = (scale * l.stretch) / 100;
  const track = (l.tracking / 1000) * font.unitsPerEm;
  const missing = new Set<string>();
  const lines = l.text.split('\n').map((line) => {
    let x = 0;
    const glyphs: SetGlyph[] = [];
    const chars = [...line];
    chars.forEach((char, i) => {
      if (!font.has(char)) {
        if (char.trim()) missing.add(char);
        if (char.trim()) return;
      }
      if (i > 0 && l.kerning) x += font.kern(chars[i - 1], char);
      const g = font.glyph(char);
      glyphs.push({ x: x * sx, width: g.advance * sx, paths: g.paths });
      x += g.advance + (i + 1 < chars.length ? track : 0);
    });
    return { glyphs, width: x * sx };
  });
  return { lines, sx, scale, missing: [...missing] };
}

/** Sets lines of text about the origin: centred on the middle between first cap line and last baseline, or round a circle. */
export function layOut(l: Lettering, font: LoadedFont): LaidOut {
  return l.bend ? layRound(l, l.bend, font) : layStraight(l, font);
}

function layStraight(l: Lettering, font: LoadedFont): LaidOut {
  const { lines, sx, scale, missing } = setLines(l, font);
  const width = Math.max(0, ...lines.map((q) => q.width));
  const height = l.capHeight + (lines.length - 1) * l.leading * l.capHeight;
  const paths: Path[] = [];
  lines.forEach((line, i) => {
    const left = l.align === 'left' ? -width / 2 : l.align === 'right' ? width / 2 - line.width : -line.width / 2;
    const base = height / 2 - l.capHeight - i * l.leading * l.capHeight;
    for (const g of line.glyphs) for (const p of g.paths) paths.push(transformPath(p, { a: sx, b: 0, c: 0, d: scale, e: left + g.x, f: base }));
  });
  return { paths, width, height, missing };
}

/**
 * Each letter is turned about the middle of its foot, so that it stands square on the circle. Further lines lie below
 * the first as it is read: towards the centre when letters stand outwards, away from it when they stand
 * inwards.
 */
function layRound(l: Lettering, bend: Bend, font: LoadedFont): LaidOut {
  const { lines, sx, scale, missing } = setLines(l, font);
  const out = bend.side === 'outwards';
  const paths: Path[] = [];
  lines.forEach((line, i) => {
    const radius = bend.radius + (out ? -1 : 1) * i * l.leading * l.capHeight;
    if (!(radius > 1e-6)) return;
    for (const g of line.glyphs) {
      const along = g.x + g.width / 2 - (l.align === 'left' ? 0 : l.align === 'right' ? line.width : line.width / 2);
      const turn = ((out ? -along : along) / radius) * (180 / Math.PI) + bend.at;
      const rad = (turn * Math.PI) / 180;
      const stand = placement(radius * Math.cos(rad), radius * Math.sin(rad), turn + (out ? -90 : 90));
      for (const p of g.paths) paths.push(transformPath(transformPath(p, { a: sx, b: 0, c: 0, d: scale, e: -g.width / 2, f: 0 }), stand));
    }
  });
  const box = boundsOfPaths(paths);
  const reach = box ? Math.max(-box.x0, box.x1, -box.y0, box.y1) : bend.radius;
  return { paths, width: 2 * reach, height: 2 * reach, missing };
}
