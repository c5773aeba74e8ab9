import { fitLoop } from '../../geometry/fit';
import { transformPath, type Path } from '../../geometry/path';
import { loopArea } from '../../geometry/region';
import { belonging, darkness, groundOf, palette, type Picture } from './colours';
import { centreLines } from './centre';
import { contours } from '../../geometry/levels/contours';
import { findCorners } from '../../geometry/levels/corners';
import { withoutRipple } from '../../geometry/levels/ripple';
import type { TraceOptions } from './options';

/** One colour of a traced picture: closed paths in pixels, Y up, the picture's lower left corner at 0, 0. */
export interface TracedLayer {
  readonly colour: string;
  readonly paths: Path[];
  /** Points of the raw contour, for comparison. */
  readonly points: number;
}

/**
 * Traces a picture: level lines between the pixels, corners where straight lines beside them cross, and lines, arcs and
 * cubics through the rest. Colours that leave no outline are left out. `progress` is told the share that is done and may
 * throw to stop.
 */
export function trace(p: Picture, o: TraceOptions, progress: (done: number) => void = () => {}): TracedLayer[] {
  if (!(p.width > 0 && p.height > 0) || p.rgba.length !== 4 * p.width * p.height)
    throw new RangeError('The picture has no pixels.');
  const fields: { colour: string; field: Float32Array; level: number }[] = [];
  if (o.mode !== 'colours') {
    const dark = darkness(p);
    if (o.invert) for (let i = 0; i < dark.length; i++) dark[i] = 1 - dark[i];
    fields.push({ colour: '#1e2a2f', field: dark, level: Math.min(0.999, Math.max(0.001, 1 - o.threshold)) });
  } else {
    const colours = palette(p, Math.max(2, o.colours));
    const ground = o.skipGround ? groundOf(p, colours) : -1;
    for (let k = 0; k < colours.length / 3; k++) {
      if (k === ground) continue;
      fields.push({
        colour: `#${[0, 1, 2]
          .map((c) =>
            Math.round(colours[3 * k + c])
              .toString(16)
              .padStart(2, '0'),
          )
          .join('')}`,
        field: belonging(p, colours, k),
        level: 0.5,
      });
      progress((0.3 * (k + 1)) / (colours.length / 3));
    }
  }
  const up = { a: 1, b: 0, c: 0, d: -1, e: 0, f: p.height };
  return fields
    .map(({ colour, field, level }, k) => {
      const base = 0.3 + (0.7 * k) / fields.length;
      progress(base);
      const loops = contours(field, p.width, p.height, level).filter((l) => Math.abs(loopArea(l)) >= o.speckle);
      if (o.mode === 'centre') {
        const lines = centreLines(loops, { twig: 0.6, accuracy: Math.max(0.35, o.accuracy), corner: o.corner }, (d) =>
          progress(base + 0.7 * d),
        );
        return {
          colour,
          paths: lines.map((q) => transformPath(q, up)),
          points: loops.reduce((n, l) => n + l.length / 2, 0),
        };
      }
      let points = 0;
      const paths: Path[] = [];
      loops.forEach((l, i) => {
        if ((i & 15) === 0) progress(base + (0.7 / fields.length) * (i / loops.length));
        points += l.length / 2;
        const { points: q, corners } = findCorners(l, o.corner);
        const path = fitLoop(withoutRipple(q, corners), { tolerance: o.accuracy, corners, window: 3 });
        if (path) paths.push(transformPath(path, up));
      });
      return { colour, paths, points };
    })
    .filter((l) => o.mode !== 'colours' || l.paths.length);
}
