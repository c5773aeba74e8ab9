import { pathData, transformPath, type Path } from '../../geometry/path';
import type { Fill } from '../../geometry/region';

export interface WrittenThing {
  readonly name: string;
  readonly layer: string;
  readonly colour: string;
  readonly fill: Fill;
  readonly paths: readonly Path[];
}

const escape = (s: string) =>
  s.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/**
 * Writes SVG in mm: one group a layer, closed outlines filled, open lines stroked, arcs and cubics as such.
 * Things lie in a frame with Y up over a page of `width` x `height` mm.
 */
export function writeSvg(things: readonly WrittenThing[], width: number, height: number, title: string): string {
  const flip = { a: 1, b: 0, c: 0, d: -1, e: 0, f: height };
  const layers = [...new Set(things.map((t) => t.layer))];
  const out = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">`,
    `<title>${escape(title)}</title>`,
  ];
  for (const layer of layers) {
    out.push(`<g><title>${escape(layer)}</title>`);
    for (const t of things) {
      if (t.layer !== layer) continue;
      const closed = t.paths.filter((p) => p.closed).map((p) => transformPath(p, flip));
      const open = t.paths.filter((p) => !p.closed).map((p) => transformPath(p, flip));
      if (closed.length) out.push(`<path fill="${t.colour}" fill-rule="${t.fill}" d="${pathData(closed, 6)}"/>`);
      if (open.length) out.push(`<path fill="none" stroke="${t.colour}" stroke-width="0.2" d="${pathData(open, 6)}"/>`);
    }
    out.push('</g>');
  }
  out.push('</svg>');
  return `${out.join('\n')}\n`;
}
