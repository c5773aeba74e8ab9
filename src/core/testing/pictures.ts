import type { Picture } from '../artwork/trace/colours';

/**
 * A picture of shapes with soft edges, waves and noise, as scans and photographs bring them: discs, rings, bars, waves and
 * stars, dark on light, 40 to 160 pixels wide. The same numbers give the same picture.
 */
export function softPicture(r: () => number): Picture {
  const width = 40 + Math.floor(120 * r());
  const height = 40 + Math.floor(120 * r());
  const noise = r() < 0.5 ? 0 : 0.3 * r();
  // 0.3 px: a crisp edge; 6 px: out of focus.
  const soft = 0.3 + 6 * r() * r();
  const shapes = Array.from({ length: 1 + Math.floor(5 * r()) }, () => ({
    kind: Math.floor(5 * r()),
    x: width * r(),
    y: height * r(),
    size: 4 + 0.35 * Math.min(width, height) * r(),
    turn: r() < 0.3 ? (Math.PI / 4) * Math.floor(8 * r()) : 2 * Math.PI * r(),
    n: 2 + Math.floor(9 * r()),
    paper: r() < 0.25,
  }));
  // Signed distance, roughly: positive inside.
  const inside = (s: (typeof shapes)[number], px: number, py: number): number => {
    const c = Math.cos(s.turn);
    const q = Math.sin(s.turn);
    const x = (px - s.x) * c + (py - s.y) * q;
    const y = (py - s.y) * c - (px - s.x) * q;
    const d = Math.hypot(x, y);
    if (s.kind === 0) return s.size - d;
    if (s.kind === 1) return 0.2 * s.size - Math.abs(d - 0.8 * s.size);
    if (s.kind === 2) return Math.min(s.size - Math.abs(x), 0.25 * s.size - Math.abs(y));
    if (s.kind === 3) return 0.22 * s.size - Math.abs(y - 0.25 * s.size * Math.sin((x * s.n) / s.size));
    return s.size * (0.7 + 0.3 * Math.cos(s.n * Math.atan2(y, x))) - d;
  };
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let py = 0; py < height; py++)
    for (let px = 0; px < width; px++) {
      let dark = 0;
      for (const s of shapes) {
        const v = Math.min(1, Math.max(0, 0.5 + inside(s, px + 0.5, py + 0.5) / (2 * soft)));
        dark = s.paper ? Math.min(dark, 1 - v) : Math.max(dark, v);
      }
      const v = 255 * (1 - dark + noise * (r() - 0.5));
      rgba.set([v, v, v, 255], 4 * (py * width + px));
    }
  return { width, height, rgba };
}
