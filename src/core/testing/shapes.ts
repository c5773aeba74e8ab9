import type { Loop } from '../geometry/region';

/** Outlines for tests, each known in closed form. mm. */
export const loop = (...p: number[]): Loop => Float64Array.from(p);
export const box = (x0: number, y0: number, x1: number, y1: number): Loop => loop(x0, y0, x1, y0, x1, y1, x0, y1);
export const hole = (l: Loop): Loop => {
  const out: number[] = [];
  for (let i = l.length - 2; i >= 0; i -= 2) out.push(l[i], l[i + 1]);
  return Float64Array.from(out);
};
export function circleLoop(n: number, r: number, cx = 0, cy = 0): Loop {
  return Float64Array.from({ length: 2 * n }, (_, i) =>
    i % 2 ? cy + r * Math.sin((Math.PI * (i - 1)) / n) : cx + r * Math.cos((Math.PI * i) / n),
  );
}
export function starLoop(points: number, outer: number, inner: number, cx = 0, cy = 0): Loop {
  const out: number[] = [];
  for (let i = 0; i < 2 * points; i++) {
    const r = i % 2 ? inner : outer;
    out.push(cx + r * Math.cos((Math.PI * i) / points), cy + r * Math.sin((Math.PI * i) / points));
  }
  return Float64Array.from(out);
}
/** A back with `n` slots of width 0.5 between teeth 0.5 wide, `pitch` apart. */
export function combLoop(n: number, pitch = 1, tooth = 6): Loop {
  const out = [0, 0, n * pitch, 0];
  for (let i = n - 1; i >= 0; i--)
    out.push((i + 0.75) * pitch, 1, (i + 0.75) * pitch, tooth, (i + 0.25) * pitch, tooth, (i + 0.25) * pitch, 1);
  return Float64Array.from([...out, 0, 1]);
}
export const turned = (loops: readonly Loop[], degrees: number): Loop[] => {
  const c = Math.cos((degrees * Math.PI) / 180);
  const s = Math.sin((degrees * Math.PI) / 180);
  return loops.map((l) => l.map((_, i) => (i % 2 ? s * l[i - 1] + c * l[i] : c * l[i] - s * l[i + 1])));
};

/** The shapes that V-carves are proven on. */
export const provingShapes: Record<string, { loops: Loop[]; fill: 'evenodd' | 'nonzero' }> = {
  'a 7-point star': { loops: [starLoop(7, 12, 5, 14, 14)], fill: 'nonzero' },
  'a square ring': { loops: [box(2, 2, 22, 22), box(7, 7, 17, 17)], fill: 'evenodd' },
  'two squares 0.01 mm apart in a frame': {
    loops: [box(1, 1, 19, 11), box(4, 4, 9, 8), box(9.01, 4, 14, 8)],
    fill: 'evenodd',
  },
  'duplicate and collinear points': {
    loops: [loop(2, 2, 6, 2, 6, 2, 6, 2, 9, 2, 12, 2, 12, 2, 12, 7, 12, 12, 7, 12, 2, 12, 2, 12, 2, 5)],
    fill: 'nonzero',
  },
  'loops that touch': {
    loops: [box(1, 1, 19, 11), box(4, 4, 9, 8), loop(9, 8, 14, 8, 14, 10, 9, 10)],
    fill: 'evenodd',
  },
};
