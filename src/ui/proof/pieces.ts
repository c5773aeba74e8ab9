import { create } from 'zustand';
import type { CastId } from '@/core/cutters/castMaterials';
import type { Casting } from '@/core/proof/casting';

/** What was made of the proofs to be seen in the round. */
export interface Pieces {
  /** What comes out of a mould, and of which set-up it is. */
  readonly cast: { readonly setup: string; readonly casting: Casting; readonly material: CastId } | null;
}
export const usePieces = create<Pieces>(() => ({ cast: null }));

/** Shows pieces; what is the same stays as it is. */
export function showPieces({ cast }: Pieces): void {
  const was = usePieces.getState().cast;
  if (was?.casting !== cast?.casting || was?.material !== cast?.material || was?.setup !== cast?.setup)
    usePieces.setState({ cast });
}
