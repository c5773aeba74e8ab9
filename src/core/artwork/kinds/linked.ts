import { z } from 'zod';
import { compose, placement, transformPath, type Affine } from '../../geometry/path';
import { itemKind, type Drawn } from '../kind';

/**
 * What a linked item shows, as its set-up sees it. It is put in while a set-up is looked at (see job/linked.ts) and lies in no
 * file: there the link names its source alone.
 */
export interface LinkedSource {
  readonly item: Drawn & { readonly id: string; readonly name: string };
  readonly setup: { readonly id: string; readonly name: string };
  /** -1 for an axis along which the other face runs the other way. */
  readonly flip: { readonly x: 1 | -1; readonly y: 1 | -1 };
}

const [LEAST, MOST] = [0.1, 10_000];
const share = z.number().min(LEAST).max(MOST);
const held = (v: number): number => Math.min(MOST, Math.max(LEAST, v));
const schema = z.object({
  /** Id of the item that it follows, in another set-up of the job. */
  item: z.string().min(1),
  /** Whether it lies where its source lies on the blank, seen from this face; else it lies as its source is drawn. */
  through: z.boolean(),
  /** Its size in that of its source, per cent. */
  wide: share,
  high: share,
});
export type LinkedValues = z.infer<typeof schema> & { readonly source?: LinkedSource };

/** Takes the source's own frame to that of the link: turned as the source, flipped with the face, scaled. */
const frameOf = ({ item, flip }: LinkedSource, v: LinkedValues): Affine =>
  compose(
    { a: (flip.x * v.wide) / 100, b: 0, c: 0, d: (flip.y * v.high) / 100, e: 0, f: 0 },
    placement(0, 0, item.angle, item.mirror ? -1 : 1, 1),
  );

/** Artwork of another set-up, which it follows: what is changed there changes here. */
export const linked = itemKind({
  id: 'linked',
  name: 'Linked artwork',
  offered: false,
  schema,
  fields: [
    { kind: 'flag', key: 'through', label: 'Where it lies on the blank, seen from this face' },
    { kind: 'number', key: 'wide', label: 'Width (of original)', unit: '%' },
    { kind: 'number', key: 'high', label: 'Height (of original)', unit: '%' },
  ],
  defaults: { item: 'none', through: true, wide: 100, high: 100 },
  shape(v: LinkedValues, _, drawn) {
    if (!v.source) {
      const lost =
        'What this follows is no longer in the job, so it draws nothing. Undo what took it away, or delete this.';
      return { paths: [], fill: 'nonzero', remarks: [lost], box: { x0: 0, y0: 0, x1: 0, y1: 0 } };
    }
    const of = drawn(v.source.item);
    const m = frameOf(v.source, v);
    const { x0, y0, x1, y1 } = of.box;
    const corners = [x0, x1].flatMap((x) => [y0, y1].map((y) => [m.a * x + m.c * y, m.b * x + m.d * y]));
    const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
    const box = { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
    const size = Math.max(v.wide, v.high) / 100;
    return {
      ...of,
      paths: of.paths.map((p) => transformPath(p, m)),
      box,
      meantWithin: of.meantWithin && of.meantWithin * size,
    };
  },
  scaled: (v, sx, sy) => ({ ...v, wide: held(v.wide * sx), high: held(v.high * sy) }),
  title: () => 'Linked artwork',
});
