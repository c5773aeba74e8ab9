'use client';
import { isUpToDate } from '@/compute/useWork';
import { lengthText } from '@/core/units/length';
import { useOpenJob } from '@/store/openJob';
import { isLeft, waitingWords } from '@/ui/common/Waiting';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { useSolidDrawing } from './solid/drawing';

/** What is seen in the round, and whether it is what was worked out last. */
export function SolidLabel() {
  const job = useOpenJobLater((s) => s.job)!;
  const ofRelief = useViewLater((v) => v.stage === 'relief') && job.relief.forms.length > 0;
  const relief = useWorkLater((w) => w.relief);
  const proof = useWorkLater((w) => w.proof);
  const waiting = useWorkLater(waitingWords);
  const behind = useWorkLater((w) => {
    if (ofRelief) return w.shaping !== null ? 'Shaping again\u2026 ' : '';
    if (w.proving !== null) return 'Proving again\u2026 ';
    const { whole, shownId } = useOpenJob.getState();
    if (!whole || !shownId || isUpToDate(whole, shownId, w)) return '';
    return isLeft(w) ? 'Not of the last change: ' : 'Working again\u2026 ';
  });
  const drawing = useSolidDrawing((d) => d.drawing);
  const size = (cell: number) => lengthText(cell, job.unit, job.unit === 'mm' ? 2 : 4);
  const shown = ofRelief
    ? relief && `Relief \u00b7 ${size(relief.shaped.field.cell)}`
    : proof?.files.length
      ? `Proof of ${proof.files.length} ${proof.files.length === 1 ? 'program' : 'programs'} \u00b7 ${size(proof.field.cell)}`
      : null;
  if (shown) return `${behind || (drawing ? 'Being drawn\u2026 ' : '')}${shown}`;
  return ofRelief || job.cuts.some((c) => c.enabled) ? waiting : 'The blank, uncut';
}
