import { useWork, type SeenWork } from '@/compute/useWork';
import { useOpenJob, type OpenJob } from '@/store/openJob';
import { useLater } from './later';
import { usePieces, type Pieces } from './proof/pieces';
import { useView, type View } from './view';

/*
 * What sheets, cards and strips follow at the pace of the window (`./later.ts`). Each store has a hook of its own: a component that
 * hands a hook over as a value is passed over by the compiler, and all of it is drawn again whatever has changed.
 */
export const useOpenJobLater = <S>(select: (s: OpenJob) => S): S => useLater(useOpenJob, select);
export const useWorkLater = <S>(select: (w: SeenWork) => S): S => useLater(useWork, select);
export const useViewLater = <S>(select: (v: View) => S): S => useLater(useView, select);
export const usePiecesLater = <S>(select: (p: Pieces) => S): S => useLater(usePieces, select);
