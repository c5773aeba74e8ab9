import { useEffect, useState } from 'react';
import { useWork } from '@/compute/useWork';
import type { LevelFloor } from '@/core/job/levelFloors';
import type { HeightField } from '@/core/relief/field';
import { findReliefOutlines } from '@/ui/actions/reliefOutlines';

/** Level places smaller than this are left to what is sculpted, mm2. */
const SMALLEST = 10;
/** So many of them are looked at, the largest. */
const MOST = 12;
/** Where more than this part of a relief is not level it is sculpted there. */
const SCULPTED = 0.15;

interface Found {
  readonly of: HeightField;
  readonly floors: readonly LevelFloor[];
  /** How many more there are. */
  readonly more: number;
  readonly sculpted: boolean;
  /** Why nothing can be told of them; empty where it can. */
  readonly why: string;
}

/** Level floors of the relief that is shown; null while it is shaped, or they are looked for. */
export function useLevelFloors(wanted: boolean): Found | null {
  const relief = useWork((w) => w.relief);
  const [found, setFound] = useState<Found | null>(null);
  const field = wanted && relief?.fine ? relief.shaped.field : null;
  const isEmpty = !relief?.shaped.facts.covered;
  useEffect(() => {
    if (!field) return;
    let gone = false;
    const nothing = (why: string) => setFound({ of: field, floors: [], more: 0, sculpted: !isEmpty, why });
    if (isEmpty) return nothing('The relief is empty everywhere.');
    void findReliefOutlines({ of: 'floors', most: MOST }, SMALLEST).then((flats) => {
      if (gone) return;
      if (!flats) return nothing('Level floors of the relief were not looked for.');
      const floors = flats.flatMap(({ height, area, paths, below }) =>
        below ? { height: height!, area: area!, paths, below } : [],
      );
      const covered = field.z.reduce((n, h) => n + Number(h === h), 0) * field.cell ** 2;
      const level = flats.reduce((s, f) => s + f.area!, 0);
      setFound({
        ...{ of: field, floors, more: flats.length - floors.length },
        sculpted: covered - level > SCULPTED * covered,
        why: '',
      });
    });
    return () => void (gone = true);
  }, [field, isEmpty]);
  return found && found.of === field ? found : null;
}
