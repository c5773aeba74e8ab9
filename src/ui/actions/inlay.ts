import type { Cutter } from '@/core/cutters/cutter';
import type { MaterialId } from '@/core/cutters/materials';
import { withEmbossing, withSheet, type EmbossingValues } from '@/core/job/embossing';
import { withInlay, type InlayValues } from '@/core/job/inlay';
import type { Job } from '@/core/job/job';
import type { MadePair, Pair } from '@/core/job/pairs';
import { withPacket, type PacketLayer } from '@/core/job/packet';
import { withStraightInlay, type StraightInlayValues } from '@/core/job/straightInlay';
import { freshId } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import { tell } from './tell';

/** Makes both of two pieces that fit in the set-up that is shown, as one step, with the cutters that it needs, and shows its pocket. */
function makePair(
  name: string,
  used: readonly string[],
  library: readonly Cutter[],
  make: (job: Job, into: string) => MadePair,
  says = { made: 'Pocket and plug are made. How they fit is told in the Proof stage.', show: 'Show the plug' },
): void {
  const { whole, shownId, show, editWhole } = useOpenJob.getState();
  if (!whole || !shownId) return;
  const brought = library.filter((c) => used.includes(c.id) && !whole.cutters.some((q) => q.id === c.id));
  const cutters = [...whole.cutters, ...structuredClone(brought)];
  const made = make({ ...whole, cutters }, shownId);
  editWhole(name, (job) => void Object.assign(job, made.job));
  setView({ cutId: made.pocket, stage: 'cuts' });
  tell('success', says.made, {
    words: says.show,
    run: () => (show(made.setup), setView({ cutId: made.plug, stage: 'cuts' })),
  });
}

export const makeInlay = (items: readonly string[], values: InlayValues, library: readonly Cutter[]): void =>
  makePair('Make a V-inlay', [values.cutter, ...values.endMills], library, (job, into) =>
    withInlay(job, into, items, values, freshId),
  );

export const makeStraightInlay = (
  items: readonly string[],
  values: StraightInlayValues,
  library: readonly Cutter[],
): void =>
  makePair('Make a straight inlay', [values.plugCutter, ...values.cutters], library, (job, into) =>
    withStraightInlay(job, into, items, values, (id) => job.cutters.find((c) => c.id === id), freshId),
  );

export const makePacket = (
  layers: readonly PacketLayer[],
  values: StraightInlayValues,
  materials: ReadonlyMap<string, MaterialId>,
  library: readonly Cutter[],
): void =>
  makePair(
    'Make a packet of straight inlays',
    [values.plugCutter, ...values.cutters],
    library,
    (job, into) =>
      withPacket(job, into, layers, values, materials, (id) => job.cutters.find((c) => c.id === id), freshId),
    {
      made: `Pockets and plugs of ${layers.length} layers are made. How they fit is told in the Proof stage.`,
      show: 'Show the first plug',
    },
  );

export const makeDies = (items: readonly string[], values: EmbossingValues, library: readonly Cutter[]): void =>
  makePair(
    'Make embossing dies',
    [...(values.walls === 'leaning' ? [values.cutter] : []), ...values.endMills],
    library,
    (job, into) => withEmbossing(job, into, items, values, (id) => job.cutters.find((c) => c.id === id), freshId),
    {
      made: 'Both dies are made. How they close on the sheet is told in the Proof stage.',
      show: 'Show the raised die',
    },
  );

/** Dies for a sheet of another thickness; values that are typed on are one step back. */
export const changeSheet = (pair: Pair, sheet: number): void =>
  useOpenJob.getState().editWhole('Change the sheet', (job) => void Object.assign(job, withSheet(job, pair, sheet)));
