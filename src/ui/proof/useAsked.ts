import { useEffect, useState } from 'react';
import { isCancelled } from '@/compute/workerHandle';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

export interface Asked<T> {
  readonly answer: T | null;
  readonly failed: boolean;
}

/** How long it waits before it asks again for what is not proven yet, ms. */
const AGAIN = 800;

/**
 * Asks about the last proofs of set-ups as soon as all of them are fresh, and whenever they or `about` (a content key) have
 * changed since; null until that is answered. `failed`: it cannot be.
 */
export function useAsked<T>(setups: readonly string[], about: string, question: () => Promise<T>): Asked<T> {
  const whole = useOpenJobLater((s) => s.whole);
  const proofs = useWorkLater((w) => w.setups);
  const said = useWorkLater((w) => w.said);
  const fresh = !!said && said.whole === whole && setups.every((id) => said.fresh[id]?.all);
  const of = setups.map((id) => proofs[id]?.proof ?? null);
  const proven = fresh && of.every(Boolean);
  const [known, setKnown] = useState<{ of: readonly unknown[]; about: string; answer: T | null } | null>(null);
  const isKnown = !!known && known.about === about && known.of.every((p, k) => p === of[k]);
  useEffect(() => {
    if (!proven || isKnown) return;
    let live = true;
    let timer: ReturnType<typeof setTimeout>;
    const ask = () =>
      void question()
        .then((answer) => live && setKnown({ of, about, answer }))
        .catch((e) => {
          if (!live) return;
          // What was shown from before is proven again in its turn; what else came between is asked for anew.
          if (isCancelled(e)) timer = setTimeout(ask, AGAIN);
          else {
            console.error(e);
            setKnown({ of, about, answer: null });
          }
        });
    ask();
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // What is asked is told by `about`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [proven, about, ...of]);
  const now = proven && isKnown ? known : null;
  return { answer: now?.answer ?? null, failed: !!now && now.answer === null };
}
