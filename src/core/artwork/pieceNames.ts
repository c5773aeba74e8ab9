import { boundsOfPaths, type Path } from '../geometry/path';
import { formatLength, type Unit } from '../units/length';

/** Names for the pieces of a drawing by their size and by where they lie in it: "Heron 12 × 8.5, top left". */
export function pieceNames(base: string, pieces: readonly (readonly Path[])[], unit: Unit): string[] {
  const all = boundsOfPaths(pieces.flat());
  const seen = new Map<string, number>();
  return pieces.map((paths) => {
    const b = boundsOfPaths(paths);
    if (!b || !all) return base;
    const third = (v: number, from: number, to: number) =>
      to - from < 1e-9 ? 1 : Math.min(2, Math.floor((3 * (v - from)) / (to - from)));
    const column = ['left', '', 'right'][third((b.x0 + b.x1) / 2, all.x0, all.x1)];
    const row = ['bottom', '', 'top'][third((b.y0 + b.y1) / 2, all.y0, all.y1)];
    const size = (mm: number) => formatLength(mm, unit, unit === 'mm' ? 1 : 2);
    const name = `${base} ${size(b.x1 - b.x0)} × ${size(b.y1 - b.y0)}, ${[row, column].filter(Boolean).join(' ') || 'middle'}`;
    const n = (seen.get(name) ?? 0) + 1;
    seen.set(name, n);
    return n > 1 ? `${name} ${n}` : name;
  });
}
