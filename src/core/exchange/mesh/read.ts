import { ExchangeError } from '../drawn';
import { boxOfMesh, trianglesOf, type Mesh } from '../../relief/mesh';
import { readObj } from './obj';
import { readStl } from './stl';

/** Endings of the mesh files that are read. */
export const meshEndings = ['.stl', '.obj', '.3mf', '.glb', '.gltf'] as const;
const ends = (name: string, ...endings: readonly string[]) => endings.some((e) => name.toLowerCase().endsWith(e));
export const isMeshName = (name: string): boolean => ends(name, ...meshEndings);

/** Reads an STL or OBJ file by the ending of its name. Throws ExchangeError that names the file, the place and what to do. */
export function readMesh(name: string, bytes: Uint8Array): Mesh {
  if (!bytes.length) throw new ExchangeError(name, 'it is empty.');
  return sound(name, ends(name, '.obj') ? readObj(name, bytes) : readStl(name, bytes));
}

/**
 * Reads any mesh file that is taken; those of which a unit is known in mm. Readers that bring packages along are loaded when there is
 * something to read. Throws ExchangeError.
 */
export async function readAnyMesh(name: string, bytes: Uint8Array): Promise<Mesh> {
  if (!bytes.length) throw new ExchangeError(name, 'it is empty.');
  if (ends(name, '.3mf')) {
    const { readThreeMf } = await import('./threeMf');
    return sound(name, readThreeMf(name, bytes));
  }
  if (ends(name, '.glb', '.gltf')) {
    const { readGltf } = await import('./gltf');
    return sound(name, await readGltf(name, bytes));
  }
  return readMesh(name, bytes);
}

/** Whether a job keeps a mesh file as it was brought; what is not is kept as STL (`./writeStl.ts`). */
export const isKeptMesh = (name: string): boolean => ends(name, '.stl', '.obj');

function sound(name: string, mesh: Mesh): Mesh {
  if (!trianglesOf(mesh)) throw new ExchangeError(name, 'it has no faces. Export the shape as a mesh of triangles.');
  const { low, high } = boxOfMesh(mesh);
  if (high[0] - low[0] + high[1] - low[1] + high[2] - low[2] <= 0)
    throw new ExchangeError(name, 'all its corners lie in one point. Export the shape anew.');
  return mesh;
}
