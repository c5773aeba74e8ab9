import { rgb } from 'd3-color';
import { lookOf, type BodyMaterial } from '@/core/cutters/castMaterials';
import { paintedShare, paints, type PaintId } from '@/core/cutters/paints';
import { filled, type HeightField } from '@/core/relief/field';
import { lightFrom, shade, type Light } from '@/core/relief/shade';
import { undrafted } from '@/core/relief/steep';
import { tintedPicture, type Tint } from '@/core/relief/tint';
import type { SmallPicture } from '@/core/relief/small';

/** The colour of what has too little draft. */
const TINT = [214, 54, 84];

/** Paints a field from straight above, lit, on a canvas of so many pixels. */
export function paintShaded(
  canvas: HTMLCanvasElement,
  field: HeightField,
  width: number,
  height: number,
  thickness: number,
  material: BodyMaterial,
  from?: Light,
  /** What is tinted: 1 for each pixel that is. */
  tinted?: Uint8Array,
  /** Its colours, three numbers for each pixel; those of the material where they are not given. */
  colours?: Uint8Array,
  /** At what height its empty nodes are seen. */
  empty?: number,
): void {
  [canvas.width, canvas.height] = [width, height];
  const light = shade(field, width, height, thickness, from, empty);
  const { r, g, b } = rgb(lookOf(material).face);
  const ctx = canvas.getContext('2d')!;
  const image = ctx.createImageData(width, height);
  const { data } = image;
  if (colours) colourBy(data, light, colours);
  else colour(data, light, r, g, b);
  if (tinted) for (let i = 0; i < light.length; i++) if (tinted[i]) data.set(TINT, 4 * i);
  ctx.putImageData(image, 0, 0);
}

function colour(data: Uint8ClampedArray, light: Float32Array, r: number, g: number, b: number): void {
  for (let i = 0; i < light.length; i++) {
    const l = light[i];
    data[4 * i] = r * l;
    data[4 * i + 1] = g * l;
    data[4 * i + 2] = b * l;
    data[4 * i + 3] = 255;
  }
}
function colourBy(data: Uint8ClampedArray, light: Float32Array, colours: Uint8Array): void {
  for (let i = 0; i < light.length; i++) {
    const l = light[i];
    data[4 * i] = colours[3 * i] * l;
    data[4 * i + 1] = colours[3 * i + 1] * l;
    data[4 * i + 2] = colours[3 * i + 2] * l;
    data[4 * i + 3] = 255;
  }
}

/** Colours of a field as it is painted and sanded, for `paintShaded`; none where it is not painted. */
export function paintedPicture(
  f: HeightField,
  cols: number,
  rows: number,
  material: BodyMaterial,
  paint: PaintId,
): Uint8Array | undefined {
  const { colour } = paints[paint];
  if (colour === null) return undefined;
  const [face, left] = [rgb(lookOf(material).face), rgb(colour)];
  const out = new Uint8Array(3 * cols * rows);
  const node = (i: number, of: number, nodes: number) => Math.round((i / of) * (nodes - 1));
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const [c0, c1] = [node(c, cols, f.cols), node(c + 1, cols, f.cols)];
      const [r0, r1] = [node(rows - 1 - r, rows, f.rows), node(rows - r, rows, f.rows)];
      const s = paintedShare(f, c0, c1, r0, r1);
      out.set(
        [face.r + (left.r - face.r) * s, face.g + (left.g - face.g) * s, face.b + (left.b - face.b) * s],
        3 * (r * cols + c),
      );
    }
  return out;
}

/** Paints the small picture of a form; clear where it is empty. */
export function paintLook(
  canvas: HTMLCanvasElement,
  { cols, rows, light }: SmallPicture,
  material: BodyMaterial,
): void {
  [canvas.width, canvas.height] = [cols, rows];
  const face = rgb(lookOf(material).face);
  const ctx = canvas.getContext('2d')!;
  const image = ctx.createImageData(cols, rows);
  light.forEach((l, i) =>
    image.data.set([(face.r * l) / 255, (face.g * l) / 255, (face.b * l) / 255, l && 255], 4 * i),
  );
  ctx.putImageData(image, 0, 0);
}

/** Pixels on the longer side of a relief's picture in the plan, at most: no more than its field has nodes. */
const PIXELS = 800;
const pictures = new WeakMap<HeightField, { readonly as: string; readonly canvas: HTMLCanvasElement }>();

/** How a relief is looked at: its light, the draft below which it is tinted, degrees, and what it is coloured by. */
export interface Seen {
  readonly from: number;
  readonly high: number;
  readonly draft: number | null;
  readonly tint: Tint;
}

/** A relief as it lies under the artwork: the blank's face where it is empty. Painted once for each field and way of looking. */
export function reliefPicture(
  field: HeightField,
  thickness: number,
  material: BodyMaterial,
  seen: Seen,
): HTMLCanvasElement {
  const as = [thickness, material, seen.from, seen.high, seen.draft, seen.tint].join(' ');
  const known = pictures.get(field);
  if (known?.as === as) return known.canvas;
  const canvas = known?.canvas ?? document.createElement('canvas');
  const [w, h] = [(field.cols - 1) * field.cell, (field.rows - 1) * field.cell];
  const k = Math.min(PIXELS / Math.max(w, h), 1 / field.cell);
  const [cols, rows] = [w, h].map((v) => Math.max(1, Math.round(v * k)));
  const tinted = seen.draft === null ? undefined : undrafted(field, cols, rows, seen.draft);
  const colours = seen.tint === 'material' ? undefined : tintedPicture(filled(field), cols, rows, seen.tint);
  // What is coloured by its height is not darkened by its depth as well.
  const deep = seen.tint === 'material' ? thickness : 0;
  paintShaded(canvas, field, cols, rows, deep, material, lightFrom(seen.from, seen.high), tinted, colours, 0);
  pictures.set(field, { as, canvas });
  return canvas;
}
