import type { Asset } from './assets';

/** Lists of files as jobs had them up to version 8. Files were named by their content before too, only shorter: their ids stay. */
export interface OldLists {
  readonly fonts?: readonly Omit<Asset, 'type'>[];
  readonly pictures?: readonly Omit<Asset, 'type'>[];
}

/** What a job of whichever version, or its row on the shelf, says of its files. */
export function assetsIn(job: { readonly assets?: readonly Asset[] } | OldLists): readonly Asset[] {
  if ('assets' in job && job.assets) return job.assets;
  const { fonts = [], pictures = [] } = job as OldLists;
  return [
    ...fonts.map((f) => ({ ...f, type: 'font' as const })),
    ...pictures.map((p) => ({ ...p, type: 'picture' as const })),
  ];
}
