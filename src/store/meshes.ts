import { bringMeshes } from '@/compute/meshes';
import { assetsOf, type Asset } from '@/core/job/assets';
import { describe, filesOf } from './files';

/** What a job says of a mesh file that was found to be sound. */
export const describeMesh = (name: string, bytes: Uint8Array): Promise<Asset> =>
  describe('mesh', name, /\.[a-z]+$/i.exec(name)?.[0].toLowerCase() ?? '', bytes);

/** Brings the meshes of a job to those who shape reliefs; those that are not on this device are left out. */
export async function bringMeshesOf(job: { readonly assets: readonly Asset[] }): Promise<void> {
  const meshes = assetsOf(job, 'mesh');
  const bytes = await filesOf(meshes);
  bringMeshes(
    Object.fromEntries(
      meshes.flatMap((m) => (bytes[m.id] ? [[m.id, { name: m.name, bytes: bytes[m.id] }] as const] : [])),
    ),
  );
}
