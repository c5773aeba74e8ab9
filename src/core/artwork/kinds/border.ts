import { z } from 'zod';
import { reversePath, transformPath, type Path } from '../../geometry/path';
import { warpPath } from '../../geometry/warp';
import { choices } from '../../units/fields';
import { itemKind } from '../kind';
import { motifOf, motifPaths } from '../motifs/motifs';
import { flipped, turned } from '../motifs/pen';

/** Units of a border motif's height and of a corner's box. */
const HIGH = 50;
const CORNER = 100;

/** More repeats than this on one side are not drawn: the page could not hold them. */
const MOST_REPEATS = 1500;
/** So many repeats that their pitch comes nearest to its natural length. */
const natural = (length: number, pitch: number) => Math.max(1, Math.round(length / pitch));
const repeats = (length: number, pitch: number) => Math.min(MOST_REPEATS, natural(length, pitch));

const schema = z.object({
  motif: z.string(),
  corner: z.string(),
  around: z.enum(['rectangle', 'ring']),
  width: z.number().min(0.1).max(1e5),
  height: z.number().min(0.1).max(1e5),
  radius: z.number().min(0.1).max(1e5),
  size: z.number().min(0.1).max(1e4),
  cornerSize: z.number().min(0.1).max(1e4),
});
type Values = z.infer<typeof schema>;

/** A run of repeats from (x, y) in a direction, stretched along to fit the length; `size` mm high, up to its left. */
function side(
  unit: readonly Path[],
  pitch: number,
  length: number,
  size: number,
  x: number,
  y: number,
  degrees: number,
): Path[] {
  const k = size / HIGH;
  const n = repeats(length, pitch * k);
  const a = length / n / pitch;
  return Array.from({ length: n }, (_, i) =>
    turned(
      unit.map((p) => transformPath(p, { a, b: 0, c: 0, d: k, e: ((i + 0.5) * length) / n, f: 0 })),
      degrees,
      x,
      y,
    ),
  ).flat();
}

function round(unit: readonly Path[], pitch: number, radius: number, size: number): Path[] {
  const k = size / HIGH;
  const n = repeats(2 * Math.PI * radius, pitch * k);
  const a = (2 * Math.PI) / n / pitch;
  // Reading clockwise, the top of the motif outwards.
  return Array.from({ length: n }, (_, i) => {
    const middle = Math.PI / 2 - (2 * Math.PI * i) / n;
    return unit.map((p) =>
      warpPath(
        p,
        (x, y) => ({ x: (radius + y * k) * Math.cos(middle - x * a), y: (radius + y * k) * Math.sin(middle - x * a) }),
        pitch / 8,
      ),
    );
  }).flat();
}

function draw(v: Values): Path[] {
  const unit = motifPaths(v.motif);
  const pitch = motifOf(v.motif)?.pitch ?? CORNER;
  if (!unit.length) return [];
  if (v.around === 'ring') return round(unit, pitch, v.radius, v.size);
  const corner = v.corner === 'none' ? [] : motifPaths(v.corner);
  const c = v.cornerSize;
  const w = v.width / 2;
  const h = v.height / 2;
  const m = v.size / 2;
  const out = [
    ...(v.width > 2 * c
      ? [
          ...side(unit, pitch, v.width - 2 * c, v.size, -w + c, h - m, 0),
          ...side(unit, pitch, v.width - 2 * c, v.size, w - c, -h + m, 180),
        ]
      : []),
    ...(v.height > 2 * c
      ? [
          ...side(unit, pitch, v.height - 2 * c, v.size, w - m, h - c, -90),
          ...side(unit, pitch, v.height - 2 * c, v.size, -w + m, -h + c, 90),
        ]
      : []),
  ];
  const k = c / CORNER;
  const one = corner.map((p) => transformPath(p, { a: k, b: 0, c: 0, d: k, e: -w + c / 2, f: h - c / 2 }));
  const top = [...one, ...flipped(one)];
  const bottom = top.map((p) => reversePath(transformPath(p, { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 })));
  return [...out, ...top, ...bottom];
}

/** A border of repeated motifs along a rectangle, with corner pieces, or round a ring. */
export const border = itemKind({
  id: 'border',
  name: 'Border',
  schema,
  fields: [
    { kind: 'motif', key: 'motif', label: 'Motif', group: 'Borders' },
    {
      kind: 'choice',
      key: 'around',
      label: 'Runs along',
      options: choices({ rectangle: 'A rectangle', ring: 'A ring' }),
    },
    { kind: 'length', key: 'size', label: 'Height of the border' },
    { kind: 'length', key: 'width', label: 'Width outside', when: (v) => v.around === 'rectangle' },
    {
      kind: 'length',
      key: 'height',
      label: 'Height outside',
      when: (v) => v.around === 'rectangle',
    },
    {
      kind: 'length',
      key: 'radius',
      label: 'Radius of its middle',
      when: (v) => v.around === 'ring',
    },
    {
      kind: 'motif',
      key: 'corner',
      label: 'Corner pieces',
      group: 'Corners',
      none: 'No corner pieces',
      when: (v) => v.around === 'rectangle',
    },
    {
      kind: 'length',
      key: 'cornerSize',
      label: 'Size of the corners',
      when: (v) => v.around === 'rectangle',
    },
  ],
  defaults: {
    motif: 'border-leaf',
    corner: 'corner-rose',
    around: 'rectangle' as const,
    width: 200,
    height: 120,
    radius: 60,
    size: 10,
    cornerSize: 14,
  },
  shape(v) {
    const paths = draw(v);
    const [w, h] = v.around === 'ring' ? [v.radius + v.size / 2, v.radius + v.size / 2] : [v.width / 2, v.height / 2];
    const pitch = ((motifOf(v.motif)?.pitch ?? CORNER) * v.size) / HIGH;
    const longest = natural(
      v.around === 'ring' ? 2 * Math.PI * v.radius : Math.max(v.width, v.height) - 2 * v.cornerSize,
      pitch,
    );
    const remarks = !paths.length
      ? [`There is no motif "${v.motif}" here; choose another.`]
      : longest > MOST_REPEATS
        ? [
            `At this height its motif would be repeated ${longest} times; ${MOST_REPEATS} are drawn, longer than they should be. Make the border higher.`,
          ]
        : [];
    return { paths, fill: 'nonzero', remarks, box: { x0: -w, y0: -h, x1: w, y1: h } };
  },
  scaled(v, sx, sy) {
    const even = Math.sqrt(sx * sy);
    return v.around === 'ring'
      ? { ...v, radius: v.radius * even, size: v.size * even }
      : { ...v, width: v.width * sx, height: v.height * sy };
  },
  title: (v) => `${motifOf(v.motif)?.name ?? 'Border'}${v.around === 'ring' ? ' ring' : ''}`,
});
