import { create } from 'zustand';
import type { CastId } from '@/core/cutters/castMaterials';
import type { MaterialId } from '@/core/cutters/materials';
import type { Casting } from '@/core/proof/casting';
import type { Joined } from '@/core/proof/joined';
import type { PressedSheet } from '@/core/proof/pressedSheet';
import type { SeamPlace } from '@/core/proof/seam';

/** What comes out of a mould, and of which set-up it is. */
export interface CastPiece {
  readonly setup: string;
  readonly casting: Casting;
  readonly material: CastId;
}
/** Two pieces put together, and the seam along them, on the blank of the pocket; or dies, and the sheet between them. */
export interface InlayPiece {
  readonly pocket: string;
  readonly plug: string;
  /** By which its plug is made. */
  readonly cut: string;
  readonly turned: 'x' | 'y';
  readonly joined: Joined | null;
  readonly sheet: PressedSheet | null;
  readonly material: MaterialId;
  readonly seam: readonly SeamPlace[];
  readonly wanted: number;
}

export interface Pieces {
  readonly cast: CastPiece | null;
  readonly inlays: readonly InlayPiece[];
}

/** What was made of the proofs to be seen on the table; kept no longer than what makes it is shown. */
export const usePieces = create<Pieces>(() => ({ cast: null, inlays: [] }));

/** Shows what is put together of the cut of a plug, or nothing (null) any more. */
export const showInlay = (cut: string, piece: InlayPiece | null): void =>
  usePieces.setState(({ inlays }) => ({
    inlays: [...inlays.filter((i) => i.cut !== cut), ...(piece ? [piece] : [])],
  }));
