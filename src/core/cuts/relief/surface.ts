import { makeInside, makeStretches } from '../../geometry/inside';
import { heightAt, heightsAlong } from '../../relief/field';
import type { CutterForm } from '../../cutters/form';
import { EMPTY, type Wanted } from '../wanted';
import { boxOfPlaces, type Bounded, type Place, type ReliefGround } from './place';

/**
 * What a cut over the relief wants: its surface and an allowance, within its boundary and below its start depth; `left`: what must stay
 * of that, mm.
 */
export function reliefWanted(
  v: Place,
  g: ReliefGround,
  allowance: number,
  startDepth: number,
  cutters: readonly { readonly form: CutterForm; readonly place: Bounded }[],
  left: (x: number, y: number) => number,
): Wanted {
  const inside = makeInside(cutters[0].place.boundary);
  const stretches = makeStretches(cutters[0].place.boundary);
  const height = (x: number, y: number): number => {
    const h = heightAt(g.field, x, y);
    return h === h ? Math.min(0, h + allowance) : NaN;
  };
  const surface = (x: number, y: number): number => {
    const h = inside(x, y) ? height(x, y) : NaN;
    return h < -startDepth ? h : 0;
  };
  return {
    box: boxOfPlaces(cutters) ?? EMPTY.box,
    surface,
    surfaceAlong(y, places, out) {
      out.fill(0);
      for (const [from, to] of stretches(y, places, out.length)) {
        heightsAlong(g.field, y, places, from, to, out);
        for (let k = from; k < to; k++) {
          const h = Math.min(0, out[k] + allowance);
          out[k] = h < -startDepth ? h : 0;
        }
      }
    },
    stays: (x, y) => (inside(x, y) ? Math.max(surface(x, y), Math.min(0, left(x, y))) : 0),
    // Beyond the boundary the cutter goes on over the relief; beside that it goes as deep as all of it.
    least(x, y) {
      if (v.rim === 'edge' && !inside(x, y)) return 0;
      const h = height(x, y);
      return h === h ? h : g.facts.lowest + allowance;
    },
  };
}
