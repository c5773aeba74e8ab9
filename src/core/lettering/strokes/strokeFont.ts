import { transformPath, type Path } from '../../geometry/path';
import type { Letter, LoadedFont } from '../font';
import { glyphs, marks, pairs } from './glyphs';

/** Space on either side of a glyph, and the height of capitals. */
const BEARING = 1.15;
/** How wide a blank is that is not drawn. */
const BLANK = 4;
const CAP = 10;
const SMALL = 7;

/** Strokes as written in glyphs.ts to open paths: a ring is a line that ends where it began. */
export function readStrokes(text: string): Path[] {
  const out: Path[] = [];
  let path: Path | null = null;
  let x = 0;
  let y = 0;
  const begin = (px: number, py: number) => {
    path = { x: px, y: py, segments: [], closed: false };
    out.push(path);
    [x, y] = [px, py];
  };
  const line = (px: number, py: number) => {
    if (!path) return begin(px, py);
    if (Math.hypot(px - x, py - y) > 1e-6) path.segments.push({ k: 'line', x: px, y: py });
    [x, y] = [px, py];
  };
  for (const [, op, rest] of text.matchAll(/([MLCE])([^MLCE]*)/g)) {
    const v = rest.trim().split(/\s+/).map(Number);
    if (op === 'M') begin(v[0], v[1]);
    else if (op === 'L') line(v[0], v[1]);
    else if (op === 'C') {
      path!.segments.push({ k: 'cubic', x1: v[0], y1: v[1], x2: v[2], y2: v[3], x: v[4], y: v[5] });
      [x, y] = [v[4], v[5]];
    } else {
      const [cx, cy, rx, ry, from, to] = v;
      const rad = Math.PI / 180;
      const at = (a: number) => ({ x: cx + rx * Math.cos(a * rad), y: cy + ry * Math.sin(a * rad) });
      const start = at(from);
      line(start.x, start.y);
      const n = Math.ceil(Math.abs(to - from) / 90);
      const step = ((to - from) / n) * rad;
      const k = (4 / 3) * Math.tan(step / 4);
      for (let i = 0; i < n; i++) {
        const a = from * rad + i * step;
        const b = a + step;
        const end = at(b / rad);
        path!.segments.push({
          k: 'cubic',
          x1: cx + rx * (Math.cos(a) - k * Math.sin(a)),
          y1: cy + ry * (Math.sin(a) + k * Math.cos(a)),
          x2: cx + rx * (Math.cos(b) + k * Math.sin(b)),
          y2: cy + ry * (Math.sin(b) - k * Math.cos(b)),
          ...end,
        });
        [x, y] = [end.x, end.y];
      }
    }
  }
  return out.filter((p) => p.segments.length > 0);
}

interface Drawn {
  readonly paths: readonly Path[];
  readonly width: number;
}

function draw(char: string): Drawn | null {
  const plain = glyphs[char];
  if (plain) return { width: plain[0], paths: readStrokes(plain[1]) };
  // Letters with marks are put together from their parts, as Unicode takes them apart.
  const [base, ...over] = char.normalize('NFD');
  if (!over.length || !over.every((m) => marks[m])) return null;
  const above = over.some((m) => marks[m][0] === 'above');
  const under = draw(above && base === 'i' ? '\u0131' : above && base === 'j' ? '\u0237' : base);
  if (!under) return null;
  const tall = /[A-Z0-9bdfhklt]/.test(base);
  const paths = [...under.paths];
  for (const m of over) {
    const [place, strokes] = marks[m];
    const dx = place === 'foot' ? under.width : base === 'j' ? under.width : under.width / 2;
    const dy = place === 'above' ? (tall ? CAP : SMALL) + 1.1 : 0;
    for (const p of readStrokes(strokes)) paths.push(transformPath(p, { a: 1, b: 0, c: 0, d: 1, e: dx, f: dy }));
  }
  return { width: under.width, paths };
}

/** The single-line alphabet as a font: open paths that a cutter follows. `slant` leans it by so many degrees. */
export function strokeFont(slant = 0): LoadedFont {
  const drawn = new Map<string, Drawn | null>();
  const get = (char: string): Drawn | null => {
    if (!drawn.has(char)) {
      const d = draw(char);
      const lean = Math.tan((slant * Math.PI) / 180);
      drawn.set(
        char,
        d && {
          width: d.width,
          paths: d.paths.map((p) => transformPath(p, { a: 1, b: 0, c: lean, d: 1, e: BEARING, f: 0 })),
        },
      );
    }
    return drawn.get(char)!;
  };
  return {
    unitsPerEm: 15,
    capHeight: CAP,
    strokes: true,
    set(line, { kerning }) {
      const letters: Letter[] = [];
      const missing = new Set<string>();
      const chars = [...line];
      chars.forEach((char, at) => {
        const d = get(char);
        if (!d && char.trim()) return void missing.add(char);
        const next = chars[at + 1];
        const kern = (kerning && next && pairs[char.normalize('NFD')[0] + next.normalize('NFD')[0]]) || 0;
        letters.push({ at, count: 1, kern, paths: d?.paths ?? [], width: d ? d.width + 2 * BEARING : BLANK });
      });
      return { letters, missing: [...missing] };
    },
  };
}
