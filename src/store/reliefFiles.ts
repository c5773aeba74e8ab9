import { bringReliefFiles, isReliefFileHere } from '@/compute/reliefFiles';
import type { ReliefFile } from '@/core/pipeline/reliefShelf';
import type { Asset } from '@/core/job/assets';
import { assetsOfForms, type Form } from '@/core/relief/stack';
import { describe, filesOf } from './files';

/** What a job says of a file of its relief that was found to be sound. */
export const describeReliefFile = (type: ReliefFile['type'], name: string, bytes: Uint8Array): Promise<Asset> =>
  describe(type, name, /\.[a-z]+$/i.exec(name)?.[0].toLowerCase() ?? '', bytes);

/** Brings the files that forms name to those who shape reliefs; those that are not on this device are left out. */
export async function bringFilesOf(assets: readonly Asset[], forms: readonly Form[]): Promise<void> {
  const named = new Set(assetsOfForms(forms));
  const needed = assets.filter((a) => named.has(a.id) && !isReliefFileHere(a.id));
  const bytes = await filesOf(needed);
  bringReliefFiles(
    Object.fromEntries(
      needed.flatMap(({ id, type, name }) =>
        bytes[id] && type !== 'font' ? [[id, { type, name, bytes: bytes[id] }] as const] : [],
      ),
    ),
  );
}
