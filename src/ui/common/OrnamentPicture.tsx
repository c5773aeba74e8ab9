'use client';
import { useEffect, useState } from 'react';
import { artworkHelper } from '@/compute/artworkHelper';
import type { MaterialId } from '@/core/cutters/materials';
import { ornaments } from '@/core/relief/ornaments/ornaments';
import type { SmallPicture } from '@/core/relief/small';
import { Look } from './Look';

/** All ornaments, for a gallery. */
export const ornamentsShown = Object.entries(ornaments).map(([id, { name, group, words }]) => ({
  id,
  name,
  group,
  words,
}));

/** Pixels along the longer side of a picture: enough for screens of two for each of the page's. */
const PIXELS = 124;
/** Pictures that were carved, or are being carved, one after the other. */
const looks = new Map<string, Promise<SmallPicture>>();
const lookOf = (id: string): Promise<SmallPicture> => {
  let look = looks.get(id);
  if (!look) {
    look = artworkHelper().ask((api) => api.ornamentLook(id, PIXELS));
    looks.set(id, look);
    // What was given up is asked for again when it is seen again.
    look.catch(() => looks.delete(id));
  }
  return look;
};

/** An ornament in the colour of a blank. */
export function OrnamentPicture({ id, size, material }: { id: string; size: number; material: MaterialId }) {
  const [made, setMade] = useState<{ readonly id: string; readonly look: SmallPicture } | null>(null);
  const look = made?.id === id ? made.look : null;
  useEffect(() => {
    let here = true;
    lookOf(id).then(
      (l) => here && setMade({ id, look: l }),
      () => {},
    );
    return () => void (here = false);
  }, [id]);
  return <Look look={look} size={size} material={material} />;
}
