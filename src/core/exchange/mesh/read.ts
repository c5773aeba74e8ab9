import { ExchangeError } from '../drawn';
import { boxOfMesh, trianglesOf, type Mesh } from '../../relief/mesh';
import { readObj } from './obj';
import { readStl } from './stl';

/** Endings of the mesh files that are read. */
export const meshEndings = ['.stl', '.obj'] as const;
export const isMeshName = (name: string): boolean => meshEndings.some((e) => name.toLowerCase().endsWith(e));

/** Reads a mesh file by the ending of its name. Throws ExchangeError that names the file, the place and what to do. */
export function readMesh(name: string, bytes: Uint8Array): Mesh {
  if (!bytes.length) throw new ExchangeError(name, 'it is empty.');
  const mesh = name.toLowerCase().endsWith('.obj') ? readObj(name, bytes) : readStl(name, bytes);
  if (!trianglesOf(mesh)) throw new ExchangeError(name, 'it has no faces. Export the shape as a mesh of triangles.');
  const { low, high } = boxOfMesh(mesh);
  if (high[0] - low[0] + high[1] - low[1] + high[2] - low[2] <= 0)
    throw new ExchangeError(name, 'all its corners lie in one point. Export the shape anew.');
  return mesh;
}
