import { ExchangeError } from '../drawn';
import type { Mesh } from '../../relief/mesh';
import { MOST_TRIANGLES, tooManyTriangles, WordReader } from './words';

/**
 * Reads the corners and faces of an OBJ file; faces of more than three corners are fanned out from their first. Materials,
 * normals, textures, curves and groups say nothing about heights and are passed over. Throws ExchangeError with the line.
 */
export function readObj(name: string, bytes: Uint8Array): Mesh {
  const words = new WordReader(name, bytes);
  const points: number[] = [];
  const corners: number[] = [];
  const face: number[] = [];
  for (let w = words.next(); w !== null; w = words.next()) {
    if (w === 'v') for (let k = 0; k < 3; k++) points.push(words.number(true));
    else if (w === 'f') {
      face.length = 0;
      for (let q = words.next(true); q !== null; q = words.next(true)) face.push(cornerOf(name, q, points, words.line));
      if (face.length < 3)
        throw new ExchangeError(name, `the face in line ${words.line} has fewer than three corners. Repair it.`);
      for (let k = 2; k < face.length; k++)
        for (const p of [face[0], face[k - 1], face[k]]) corners.push(points[p], points[p + 1], points[p + 2]);
      if (corners.length > 9 * MOST_TRIANGLES) throw tooManyTriangles(name, corners.length / 9);
      continue;
    }
    words.skipLine();
  }
  return { corners: Float32Array.from(corners) };
}

/** Where the coordinates of a face's corner begin: "7", "7/1/3", or "-1" for the last point so far. */
function cornerOf(name: string, word: string, points: readonly number[], line: number): number {
  const n = Number(word.split('/')[0]);
  const at = n < 0 ? points.length / 3 + n : n - 1;
  if (!Number.isInteger(n) || n === 0 || at < 0 || at >= points.length / 3)
    throw new ExchangeError(
      name,
      `"${word.slice(0, 30)}" in line ${line} names no point. Repair it where it was made.`,
    );
  return 3 * at;
}
