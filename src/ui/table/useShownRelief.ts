import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import { shapedAside } from '@/compute/engineHandle';
import { useWork } from '@/compute/useWork';
import { isCancelled } from '@/compute/workerHandle';
import { reliefKey } from '@/core/pipeline/shaping';
import { filled, type HeightField } from '@/core/relief/field';
import { besideEachOther } from '@/core/relief/split';
import { tell } from '@/ui/actions/tell';
import { useView } from '@/ui/view';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';

/** The relief without one of its forms, as it was shaped last, and of what. */
const useWithout = create<{ readonly key: string; readonly field: HeightField } | { readonly key: null }>(() => ({
  key: null,
}));

/** Has the relief shaped without the form that is looked at, as long as it is; used once, where the table is. */
export function useBesideShaped(): void {
  const split = useViewLater((v) => v.split);
  const job = useOpenJobLater((s) => s.job);
  const fine = useWorkLater((w) => !!w.relief?.fine);
  const without = split && split.of !== 'proof' ? split.of.without : null;
  const forms = job?.relief.forms;
  const less = useMemo(
    () =>
      job && forms && without !== null
        ? {
            ...job,
            relief: { ...job.relief, forms: forms.map((f) => (f.id === without ? { ...f, visible: false } : f)) },
          }
        : null,
    [job, forms, without],
  );
  const key = less && reliefKey(less);
  const at = job?.at.id;
  // What was shown beside another relief is not shown beside this one.
  useEffect(() => () => useWithout.setState({ key: null }, true), [without, at]);
  useEffect(() => {
    if (!less || !key || !fine || useWithout.getState().key === key) return;
    let live = true;
    shapedAside(less).then(
      ({ field }) => live && useWithout.setState({ key, field }, true),
      // Called off by a change, it is asked for again with that.
      (e) => {
        if (isCancelled(e)) return;
        console.error(e);
        tell('error', 'The relief without that form could not be shaped, so nothing is shown beside it.');
      },
    );
    return () => void (live = false);
  }, [less, key, fine]);
}

/** The relief as it is shown: right of a line, where something else is shown left of it. Null where there is none. */
export function useShownRelief(): HeightField | null {
  // Under the hand, and not later: as it is dragged.
  const shaped = useWork((w) => w.relief?.shaped.field ?? null);
  const proof = useWorkLater((w) => w.proof?.field ?? null);
  const split = useView((v) => v.split);
  const width = useOpenJobLater((s) => s.job?.blank.width ?? 0);
  const known = useWithout();
  const left = split?.of === 'proof' ? proof : split && known.key !== null ? known.field : null;
  const at = split ? split.at * width : 0;
  return useMemo(() => {
    if (!shaped || !left) return shaped;
    // Beside what is cut, an empty place is the face that is left there.
    return besideEachOther(left, left === proof ? filled(shaped) : shaped, at);
  }, [shaped, left, proof, at]);
}
