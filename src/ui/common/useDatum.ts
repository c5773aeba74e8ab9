import { datumOf, type OneSetup } from '@/core/job/job';
import { setView, useView } from '@/ui/view';

/** From where coordinates are counted in this window: the job's datum, as the machine will show them, or the blank's lower left corner on its top face. mm. */
export const originOf = (blank: OneSetup['blank'], fromCorner: boolean): { x: number; y: number; z: number } =>
  fromCorner ? { x: 0, y: 0, z: 0 } : datumOf(blank);

export function useDatum(job: Pick<OneSetup, 'blank'>): { x: number; y: number; z: number } {
  return originOf(
    job.blank,
    useView((v) => v.fromCorner),
  );
}

export const setFromCorner = (fromCorner: boolean): void => setView({ fromCorner });
