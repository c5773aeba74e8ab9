import { ExchangeError } from '../drawn';
import type { Mesh } from '../../relief/mesh';
import { MOST_TRIANGLES, tooManyTriangles, WordReader } from './words';

/** A binary STL: 80 bytes of header, the number of triangles, then 50 bytes each (normal, three corners, attribute). Little-endian. */
const HEADER = 84;
const EACH = 50;

/**
 * Reads an STL file, binary or ASCII. A file of the length that its number of triangles asks for is binary, whatever its first
 * word: many binary files begin with "solid" too. Throws ExchangeError with the place.
 */
export function readStl(name: string, bytes: Uint8Array): Mesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= HEADER ? view.getUint32(80, true) : -1;
  const needs = HEADER + EACH * count;
  const ascii = /^\s*solid/i.test(String.fromCharCode(...bytes.subarray(0, 80)));
  if (count >= 0 && (bytes.length === needs || !ascii)) {
    if (count > MOST_TRIANGLES) throw tooManyTriangles(name, count);
    if (bytes.length < needs)
      throw new ExchangeError(
        name,
        `it says that it has ${count} triangles, but ends after ${Math.floor((bytes.length - HEADER) / EACH)}. Save it again: the file is cut off.`,
      );
    return binary(name, view, count);
  }
  if (!ascii) throw new ExchangeError(name, 'it is no STL file: it has neither the text nor the numbers of one.');
  return text(name, bytes);
}

function binary(name: string, view: DataView, count: number): Mesh {
  const corners = new Float32Array(9 * count);
  for (let t = 0; t < count; t++)
    for (let k = 0; k < 9; k++) {
      const v = view.getFloat32(HEADER + EACH * t + 12 + 4 * k, true);
      if (!Number.isFinite(v))
        throw new ExchangeError(name, `triangle ${t + 1} has a corner that is no number. Repair it where it was made.`);
      corners[9 * t + k] = v;
    }
  return { corners };
}

function text(name: string, bytes: Uint8Array): Mesh {
  const words = new WordReader(name, bytes);
  const corners: number[] = [];
  // Of all that is written there, only corners matter.
  for (let w = words.next(); w !== null; w = words.next()) {
    const word = w.toLowerCase();
    if (word === 'vertex') {
      for (let k = 0; k < 3; k++) corners.push(words.number());
      if (corners.length > 9 * MOST_TRIANGLES) throw tooManyTriangles(name, corners.length / 9);
    } else if (word === 'endloop' && corners.length % 9)
      throw new ExchangeError(
        name,
        `the face that ends at line ${words.line} has not three corners. Save it as triangles.`,
      );
  }
  if (corners.length % 9) throw new ExchangeError(name, 'it ends within a face: the file is cut off. Save it again.');
  return { corners: Float32Array.from(corners) };
}
