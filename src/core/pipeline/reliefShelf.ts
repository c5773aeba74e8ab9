import { readMesh } from '../exchange/mesh/read';
import { readPicture } from '../exchange/picture/read';
import type { Mesh } from '../relief/mesh';
import type { GreyPicture } from '../relief/picture';

/** The file of a mesh or a picture, as a job names it. */
export interface ReliefFile {
  readonly type: 'mesh' | 'picture';
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Files that reliefs are made of: each is read when it is needed first. Reading throws ExchangeError. */
export class ReliefShelf {
  private readonly files = new Map<string, ReliefFile>();
  private readonly meshes = new Map<string, Mesh>();
  private readonly pictures = new Map<string, GreyPicture>();

  put(id: string, file: ReliefFile): void {
    if (!this.files.has(id)) this.files.set(id, file);
  }

  /** Null where the file is not here. */
  readonly mesh = (id: string): Mesh | null => this.read(id, 'mesh', this.meshes, readMesh);
  readonly picture = (id: string): GreyPicture | null => this.read(id, 'picture', this.pictures, readPicture);

  private read<T>(
    id: string,
    type: ReliefFile['type'],
    known: Map<string, T>,
    how: (name: string, bytes: Uint8Array) => T,
  ): T | null {
    let made = known.get(id);
    const file = this.files.get(id);
    if (made === undefined && file?.type === type) known.set(id, (made = how(file.name, file.bytes)));
    return made ?? null;
  }
}
