import { readMesh } from '@/core/exchange/mesh/read';
import type { Mesh } from '@/core/relief/mesh';
import { Brought } from './brought';
import { sharedCopy } from './shared';

/** The file of a mesh, as a job names it. */
export interface MeshFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const meshes = new Brought<MeshFile>();
/** Tells of the mesh files of this thread, and of every later one. */
export const onMeshes: typeof meshes.on = (tell) => meshes.on(tell);

/** Brings mesh files to whoever shapes reliefs; their bytes pass between threads without being copied again. */
export function bringMeshes(files: Readonly<Record<string, MeshFile>>): void {
  meshes.bring(
    Object.fromEntries(
      Object.entries(files)
        .filter(([id]) => !meshes.has(id))
        .map(([id, f]) => [id, { ...f, bytes: f.bytes.buffer instanceof ArrayBuffer ? sharedCopy(f.bytes) : f.bytes }]),
    ),
  );
}

/** Meshes of a worker: each file is read when it is needed first. */
export class MeshShelf {
  private readonly files = new Map<string, MeshFile>();
  private readonly read = new Map<string, Mesh>();

  put(id: string, file: MeshFile): void {
    if (!this.files.has(id)) this.files.set(id, file);
  }

  /** Null where the file is not here. Throws ExchangeError. */
  mesh(id: string): Mesh | null {
    let m = this.read.get(id);
    const file = this.files.get(id);
    if (!m && file) this.read.set(id, (m = readMesh(file.name, file.bytes)));
    return m ?? null;
  }
}
