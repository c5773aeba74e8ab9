import type { Job, OneSetup } from '@/core/job/job';
import { eachSetup, oneSetup } from '@/core/job/oneSetup';

/** What a set-up starts from, the first of all first, and itself. */
export function chainOf(whole: Job, id: string): OneSetup[] {
  const chain: OneSetup[] = [];
  for (let s: OneSetup | null = oneSetup(whole, id); s; s = s.at.after ? oneSetup(whole, s.at.after.setup) : null)
    chain.unshift(s);
  return chain;
}

/** Set-ups in the order in which they are worked out: what the shown one starts from, that one, all others as they are run. */
export function inOrder({ whole, shown }: { readonly whole: Job; readonly shown: string }): OneSetup[] {
  const chain = chainOf(whole, shown);
  return [...chain, ...eachSetup(whole).filter((s) => !chain.includes(s))];
}
