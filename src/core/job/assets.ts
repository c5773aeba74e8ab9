import { z } from 'zod';
import type { Item } from '../artwork/item';
import { itemKindOf } from '../artwork/registry';
import { assetsOfForms, type Form } from '../relief/stack';

/** What files a job can bring along. */
export const assetTypes = ['font', 'picture', 'mesh'] as const;
export type AssetType = (typeof assetTypes)[number];

/** Many of a type: also the folder of their files. */
export const assetsCalled: Readonly<Record<AssetType, string>> = { font: 'fonts', picture: 'pictures', mesh: 'meshes' };

/**
 * A file that a job brings along. Its id is made of its content (the SHA-256 of its bytes, in hexadecimal; those of before have
 * shorter ones), so that the same file is the same asset in every job; the file lies beside job.json in the archive's assets.
 */
export const assetSchema = z.object({
  id: z.string().regex(/^[\w-]{1,80}$/),
  type: z.enum(assetTypes),
  name: z.string().min(1).max(200),
  file: z
    .string()
    .max(200)
    .regex(/^[\w-]+\/[\w-][\w.-]*$/),
});
export type Asset = z.infer<typeof assetSchema>;

const parted = new WeakMap<readonly Asset[], Record<AssetType, readonly Asset[]>>();
/** The assets of a job of one type: the same list as long as they are the same. */
export function assetsOf(job: { readonly assets: readonly Asset[] }, type: AssetType): readonly Asset[] {
  let by = parted.get(job.assets);
  if (!by) {
    const of = (t: AssetType) => job.assets.filter((a) => a.type === t);
    by = { font: of('font'), picture: of('picture'), mesh: of('mesh') };
    parted.set(job.assets, by);
  }
  return by[type];
}

/** Ids that items name: of assets, and of what ships with Mirvak. */
export const namedBy = (items: readonly Item[]): ReadonlySet<string> =>
  new Set(items.flatMap((i) => itemKindOf(i.kind).assets?.(i.values) ?? []));

/** The assets that items and forms need. */
export function neededBy(items: readonly Item[], assets: readonly Asset[], forms: readonly Form[] = []): Asset[] {
  const named = new Set([...namedBy(items), ...assetsOfForms(forms)]);
  return assets.filter((a) => named.has(a.id));
}
