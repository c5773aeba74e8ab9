import { computePool } from './pool';
import type { ReportProgress } from './protocol';
import type { ComputeApiRemote } from './seat';

/** So many questions about proofs are being answered: each may take seconds. */
let asked = 0;
/** Asks the prover about what it has proven last; a change that makes that old calls it off. Rejects with "Cancelled" then. */
export async function askProver<T>(
  question: (api: ComputeApiRemote, ticket: number, progress: ReportProgress) => Promise<T>,
): Promise<T> {
  const { prover } = computePool();
  asked++;
  try {
    return await prover.ask((api) =>
      question(
        api,
        prover.next(),
        prover.hearing(() => {}),
      ),
    );
  } finally {
    asked--;
  }
}

export const isAsked = (): boolean => asked > 0;
