import { rgb } from 'd3-color';
import { materials, type MaterialId } from '@/core/cutters/materials';
import { filled, type HeightField } from '@/core/relief/field';
import { shade } from '@/core/relief/shade';
import type { SmallPicture } from '@/core/relief/small';

/** Paints a field from straight above, lit, on a canvas of so many pixels. */
export function paintShaded(
  canvas: HTMLCanvasElement,
  field: HeightField,
  width: number,
  height: number,
  thickness: number,
  material: MaterialId,
): void {
  [canvas.width, canvas.height] = [width, height];
  const light = shade(field, width, height, thickness);
  const face = rgb(materials[material].face);
  const ctx = canvas.getContext('2d')!;
  const image = ctx.createImageData(width, height);
  for (let i = 0; i < light.length; i++) {
    image.data[4 * i] = face.r * light[i];
    image.data[4 * i + 1] = face.g * light[i];
    image.data[4 * i + 2] = face.b * light[i];
    image.data[4 * i + 3] = 255;
  }
  ctx.putImageData(image, 0, 0);
}

/** Paints the small picture of a form; clear where it is empty. */
export function paintLook(canvas: HTMLCanvasElement, { cols, rows, light }: SmallPicture, material: MaterialId): void {
  [canvas.width, canvas.height] = [cols, rows];
  const face = rgb(materials[material].face);
  const ctx = canvas.getContext('2d')!;
  const image = ctx.createImageData(cols, rows);
  light.forEach((l, i) =>
    image.data.set([(face.r * l) / 255, (face.g * l) / 255, (face.b * l) / 255, l && 255], 4 * i),
  );
  ctx.putImageData(image, 0, 0);
}

/** Pixels on the longer side of a relief's picture in the plan. */
const PIXELS = 800;
const pictures = new WeakMap<HeightField, HTMLCanvasElement>();

/** A relief as it lies under the artwork: the blank's face where it is empty. Painted once for each field. */
export function reliefPicture(field: HeightField, thickness: number, material: MaterialId): HTMLCanvasElement {
  let canvas = pictures.get(field);
  if (!canvas) {
    canvas = document.createElement('canvas');
    const [w, h] = [(field.cols - 1) * field.cell, (field.rows - 1) * field.cell];
    const k = PIXELS / Math.max(w, h);
    const [cols, rows] = [w, h].map((v) => Math.max(1, Math.round(v * k)));
    paintShaded(canvas, filled(field), cols, rows, thickness, material);
    pictures.set(field, canvas);
  }
  return canvas;
}
