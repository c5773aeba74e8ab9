import { useEffect, useState } from 'react';
import { useWork } from '@/compute/useWork';
import { isCancelled } from '@/compute/workerHandle';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';

/** How long it waits before it asks again for what is not proven yet, ms. */
const AGAIN = 800;

/**
 * Asks about the last proofs of set-ups as soon as all of them are fresh, and whenever they or `about` (a content key) have
 * changed since; null until that is answered.
 */
export function useAsked<T>(setups: readonly string[], about: string, question: () => Promise<T>): T | null {
  const whole = useLater(useOpenJob, (s) => s.whole);
  const proofs = useLater(useWork, (w) => w.setups);
  const said = useLater(useWork, (w) => w.said);
  const fresh = !!said && said.whole === whole && setups.every((id) => said.fresh[id]?.all);
  const of = setups.map((id) => proofs[id]?.proof ?? null);
  const proven = fresh && of.every(Boolean);
  const [known, setKnown] = useState<{ of: readonly unknown[]; about: string; answer: T } | null>(null);
  const isKnown = !!known && known.about === about && known.of.every((p, k) => p === of[k]);
  useEffect(() => {
    if (!proven || isKnown) return;
    let live = true;
    let timer: ReturnType<typeof setTimeout>;
    const ask = () =>
      void question()
        .then((answer) => live && setKnown({ of, about, answer }))
        .catch((e) => {
          if (!isCancelled(e)) throw e;
          // What was shown from before is proven again in its turn; what else came between is asked for anew.
          if (live) timer = setTimeout(ask, AGAIN);
        });
    ask();
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // What is asked is told by `about`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [proven, about, ...of]);
  return proven && isKnown ? known.answer : null;
}
