import { artworkHelper } from '@/compute/artworkHelper';
import { kindOf } from '@/core/cuts/registry';
import { castMaterials } from '@/core/cutters/castMaterials';
import type { Cutter } from '@/core/cutters/cutter';
import type { CastingValues } from '@/core/job/job';
import { withMould, type FromRelief, type MouldValues, type Part } from '@/core/job/mould';
import { slug } from '@/core/pipeline/programs';
import type { Casting } from '@/core/proof/casting';
import { lengthText } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { busyWith } from '@/ui/common/busy';
import { freshId } from '@/store/jobs';
import { setView } from '@/ui/view';
import { edit, jobNow } from './edits';
import { download } from './files';
import { tell } from './tell';

/** What is cast in the set-up that is shown; null where it is no mould. Values that are typed on are one step back. */
export function changeCasting(casting: CastingValues | null): void {
  edit(casting ? 'Change the casting' : 'No mould', (job) => void (job.casting = casting));
  if (!casting) setView({ piece: 'blank' });
}

/** Makes the set-up that is shown a mould, and shows what comes out of it beside it. */
export function castAnew(): void {
  const material = 'castTin';
  edit(
    'Make it a mould',
    (job) => void (job.casting = { material, below: null, shrinks: castMaterials[material].shrinks, draft: 3 }),
  );
  setView((v) => ({ stage: 'proof', piece: 'beside', table: v.table === 'plan' ? 'both' : v.table }));
}

/** Makes a mould in the set-up that is shown, as one step, with the cutters that it needs. */
export function makeMould(
  values: MouldValues,
  parts: ReadonlyMap<string, Part>,
  library: readonly Cutter[],
  from: FromRelief,
): void {
  const job = jobNow();
  if (!job) return;
  const { one, cut } = withMould(job, values, parts, library, freshId, from);
  const used = new Set(one.cuts.flatMap((c) => [...kindOf(c.kind).cutters(c.values)]));
  const brought = library.filter((c) => used.has(c.id) && !job.cutters.some((q) => q.id === c.id));
  edit('Make a mould', (j) => {
    const { items, layers, relief, cuts, casting } = one;
    Object.assign(j, { items, layers, relief, cuts, casting, cutters: [...job.cutters, ...structuredClone(brought)] });
  });
  setView({ cutId: cut, stage: 'cuts' });
  tell('success', 'The cuts of the mould are made. What comes out of it is told in the Proof stage.', {
    words: 'Show the casting',
    run: () => setView((v) => ({ stage: 'proof', piece: 'beside', table: v.table === 'plan' ? 'both' : v.table })),
  });
}

/** Saves a casting as a closed body, as large as it is when it is cold. */
export async function saveCasting(casting: Casting, cold: number): Promise<void> {
  const job = jobNow();
  if (!job) return;
  const name = `${slug(job.name)}-casting.stl`;
  const helper = artworkHelper();
  try {
    const body = await busyWith(
      `Writing ${name}\u2026`,
      () => helper.dismiss(),
      () => helper.ask((api) => api.castBody(casting, cold, `${job.name}, casting, mm`)),
    );
    download(name, body.bytes, 'model/stl');
    const fine = lengthText(body.cell, job.unit, job.unit === 'mm' ? 2 : 4);
    tell('success', `"${name}" is saved, as large as it is cold, with corners ${fine} apart.`);
  } catch (e) {
    tell('error', saysOf(e, `"${name}" could not be saved: this device may have too little memory.`));
  }
}
