import { z } from 'zod';
import { formKindByRows } from '../form';
import { carvedOf, heightsOn } from '../ornaments/carve';
import { ornaments } from '../ornaments/ornaments';

const schema = z.object({
  ornament: z.string(),
  /** Its width before it is turned, and the height of its highest point above the form's base, mm. */
  width: z.number().min(0.5).max(5000),
  rise: z.number().min(0).max(300),
  /** Its middle in the blank's frame, mm, and its turn, degrees. */
  x: z.number().min(-1e4).max(1e4),
  y: z.number().min(-1e4).max(1e4),
  turn: z.number().min(-360).max(360),
  mirror: z.boolean(),
});

/** A carved ornament of our own; what lies beside it is empty. */
export const ornament = formKindByRows({
  id: 'ornament',
  name: 'Ornament',
  summary: 'A carved piece of our own: heron, lily, shell, rope, rosette, shield and others.',
  schema,
  ofLibrary: true,
  fields: [
    { kind: 'ornament', key: 'ornament', label: 'Piece' },
    { kind: 'length', key: 'width', label: 'Width (X)' },
    { kind: 'length', key: 'rise', label: 'Rise' },
    { kind: 'length', key: 'x', label: 'Middle X' },
    { kind: 'length', key: 'y', label: 'Middle Y' },
    { kind: 'number', key: 'turn', label: 'Turned by', unit: '\u00b0' },
    { kind: 'flag', key: 'mirror', label: 'Mirrored' },
  ],
  defaults: { ornament: 'heron', width: 40, rise: 4, x: 0, y: 0, turn: 0, mirror: false },
  // As large as three fifths of the blank let it be, and in its middle.
  fresh(v, { width, height, thickness }) {
    return { ...fitted(v, 0.6 * width, 0.6 * height, Math.min(5, thickness / 3)), x: width / 2, y: height / 2 };
  },
  // Another one fills the room that the one before had, and rises as high.
  changed(v, was) {
    if (v.ornament === was.ornament) return v;
    const [wide, tall] = sizeOf(was.ornament, was.width);
    return { ...fitted(v, wide, tall, Infinity), rise: v.rise };
  },
  called: (v) => (Object.hasOwn(ornaments, v.ornament) ? ornaments[v.ornament].name : 'Ornament'),
  frame({ ornament, x, y, width, turn }) {
    const [w, h] = sizeOf(ornament, width);
    return { x, y, width: w, height: h, turn };
  },
  pulled: (v, sx, sy) => ({ ...v, width: Math.min(5000, Math.max(0.5, v.width * (sx === 1 ? sy : sx))) }),
  prepare: (v) =>
    carvedOf(v.ornament)
      ? { data: v, remark: '' }
      : { data: null, remark: 'There is no ornament of that name here. Choose another one.' },
  rows(v, g) {
    const carved = carvedOf(v.ornament)!;
    const [x0, y0, x1, y1] = carved.box;
    const scale = v.width / (x1 - x0);
    const a = (v.turn * Math.PI) / 180;
    // The middle of its box comes to lie at the middle that was typed.
    const [mx, my] = [((v.mirror ? -1 : 1) * scale * (x0 + x1)) / 2, (scale * (y0 + y1)) / 2];
    const laid = {
      x: v.x - mx * Math.cos(a) + my * Math.sin(a),
      y: v.y - mx * Math.sin(a) - my * Math.cos(a),
      scale,
      turn: v.turn,
      mirror: v.mirror,
    };
    const z = heightsOn(carved.strokes, g, laid);
    const by = v.rise / carved.deep;
    // Its height was found at places beside these nodes: no node stands above what was typed.
    for (let i = 0; i < z.length; i++) if (z[i] === z[i]) z[i] = Math.min(v.rise, by * z[i]);
    return z;
  },
});

type Values = z.infer<typeof schema>;

/** Width and height of an ornament that is so wide, mm. */
function sizeOf(id: string, width: number): [number, number] {
  const c = carvedOf(id);
  return c ? [width, (width * (c.box[3] - c.box[1])) / (c.box[2] - c.box[0])] : [width, width];
}

/** As large as fits into a box, and as high as it is by nature at that size, at most so high; mm. */
function fitted(v: Values, wide: number, tall: number, most: number): Values {
  const c = carvedOf(v.ornament);
  if (!c) return v;
  const [w, h] = sizeOf(v.ornament, 1);
  const width = Math.min(wide / w, tall / h);
  // By nature: shallow, as reliefs are.
  const rise = Math.min(most, (0.6 * c.deep * width) / (c.box[2] - c.box[0]));
  const round = (n: number) => Math.max(0.1, Number(n.toPrecision(3)));
  return { ...v, width: Math.max(0.5, round(width)), rise: round(rise) };
}
