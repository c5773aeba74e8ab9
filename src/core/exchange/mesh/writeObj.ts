import { joined } from '../../units/joined';
import type { ClosedMesh } from './body';

/** Lines are joined so many at a time: one text of millions of lines is slow to make. */
const PORTION = 20_000;

/** A closed mesh as an OBJ file: its corners to a tenth of a micrometre, mm, and its triangles. */
export function writeObj({ points, triangles }: ClosedMesh, title: string): Uint8Array<ArrayBuffer> {
  const encoder = new TextEncoder();
  const parts: Uint8Array[] = [encoder.encode(`# ${title.replace(/[\r\n]+/g, ' ')}\no relief\n`)];
  const write = (count: number, line: (i: number) => string) => {
    for (let from = 0; from < count; from += PORTION) {
      let text = '';
      for (let i = from; i < Math.min(count, from + PORTION); i++) text += line(i);
      parts.push(encoder.encode(text));
    }
  };
  const of = (v: number) => String(Math.round(v * 1e4) / 1e4);
  write(points.length / 3, (i) => `v ${of(points[3 * i])} ${of(points[3 * i + 1])} ${of(points[3 * i + 2])}\n`);
  // Corners are counted from one.
  write(
    triangles.length / 3,
    (i) => `f ${triangles[3 * i] + 1} ${triangles[3 * i + 1] + 1} ${triangles[3 * i + 2] + 1}\n`,
  );
  return joined(parts);
}
