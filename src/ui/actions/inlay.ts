import type { Cutter } from '@/core/cutters/cutter';
import { withInlay, type InlayValues } from '@/core/job/inlay';
import { freshId } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import { tell } from './tell';

/** Makes an inlay of items of the set-up that is shown, as one step, and shows its pocket. */
export function makeInlay(items: readonly string[], values: InlayValues, library: readonly Cutter[]): void {
  const { whole, shownId, show, editWhole } = useOpenJob.getState();
  if (!whole || !shownId) return;
  const made = withInlay(whole, shownId, items, values, freshId);
  const used = [values.cutter, ...values.endMills];
  const brought = library.filter((c) => used.includes(c.id) && !whole.cutters.some((q) => q.id === c.id));
  const cutters = [...whole.cutters, ...structuredClone(brought)];
  editWhole('Make an inlay', (job) => void Object.assign(job, { ...made.job, cutters }));
  setView({ cutId: made.pocket, stage: 'cuts' });
  tell('success', 'Pocket and plug are made. How they fit is told in the Proof stage.', {
    words: 'Show the plug',
    run: () => (show(made.setup), setView({ cutId: made.plug, stage: 'cuts' })),
  });
}
