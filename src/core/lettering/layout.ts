import { transformPath, type Path } from '../geometry/path';
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
}

export interface LaidOut {
  readonly paths: Path[];
  /** Extent of the setting: widest line, and first cap line to last baseline. mm. */
  readonly width: number;
  readonly height: number;
  /** Characters that the font lacks. */
  readonly missing: string[];
}

/** Sets lines of text about the origin: centred on the middle between first cap line and last baseline. */
export function layOut(l: Lettering, font: LoadedFont): LaidOut {
  const scale = l.capHeight / font.capHeight;
  const sx = (scale * l.stretch) / 100;
  const track = (l.tracking / 1000) * font.unitsPerEm;
  const missing = new Set<string>();
  const lines = l.text.split('\n').map((line) => {
    let x = 0;
    const set: { x: number; paths: readonly Path[] }[] = [];
    const chars = [...line];
    chars.forEach((char, i) => {
      if (!font.has(char)) {
        if (char.trim()) missing.add(char);
        if (char.trim()) return;
      }
      if (i > 0 && l.kerning) x += font.kern(chars[i - 1], char);
      const g = font.glyph(char);
      set.push({ x, paths: g.paths });
      x += g.advance + (i + 1 < chars.length ? track : 0);
    });
    return { set, width: x * sx };
  });
  const width = Math.max(0, ...lines.map((q) => q.width));
  const height = l.capHeight + (lines.length - 1) * l.leading * l.capHeight;
  const paths: Path[] = [];
  lines.forEach((line, i) => {
    const left = l.align === 'left' ? -width / 2 : l.align === 'right' ? width / 2 - line.width : -line.width / 2;
    const base = height / 2 - l.capHeight - i * l.leading * l.capHeight;
    for (const g of line.set) for (const p of g.paths) paths.push(transformPath(p, { a: sx, b: 0, c: 0, d: scale, e: left + g.x * sx, f: base }));
  });
  return { paths, width, height, missing: [...missing] };
}
