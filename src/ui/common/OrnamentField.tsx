'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState } from 'react';
import { artworkHelper } from '@/compute/artworkHelper';
import type { MaterialId } from '@/core/cutters/materials';
import { ornaments } from '@/core/relief/ornaments/ornaments';
import type { SmallPicture } from '@/core/relief/small';
import { useOpenJob } from '@/store/openJob';
import { useLater } from '@/ui/later';
import { paintLook } from '@/ui/table/shaded';
import { Gallery } from './Gallery';

const things = Object.entries(ornaments).map(([id, { name, group, words }]) => ({ id, name, group, words }));

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

function Picture({ id, size, material }: { id: string; size: number; material: MaterialId }) {
  const [made, setMade] = useState<{ readonly id: string; readonly look: SmallPicture } | null>(null);
  const look = made?.id === id ? made.look : null;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let here = true;
    lookOf(id).then(
      (l) => here && setMade({ id, look: l }),
      () => {},
    );
    return () => void (here = false);
  }, [id]);
  useEffect(() => {
    if (look?.cols && canvas.current) paintLook(canvas.current, look, material);
  }, [look, material]);
  return (
    <Box sx={{ width: size, height: size, display: 'grid', placeItems: 'center' }}>
      {!!look?.cols && (
        <Box
          component="canvas"
          ref={canvas}
          aria-hidden
          sx={{
            width: (size * look.cols) / Math.max(look.cols, look.rows),
            height: (size * look.rows) / Math.max(look.cols, look.rows),
          }}
        />
      )}
    </Box>
  );
}

/** Shows the chosen ornament in the colour of the blank; a press opens all of them. */
export function OrnamentField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (id: string) => void;
}) {
  const material = useLater(useOpenJob, (s) => s.job?.blank.material ?? 'oak');
  return (
    <Gallery
      words={{
        label,
        title: 'Ornaments',
        search: 'Search the ornaments',
        choose: 'Choose an ornament',
        nothing: 'No ornament is called that. Try another word, such as water, bird or border.',
      }}
      things={things}
      value={value}
      picture={(id, size) => <Picture id={id} size={size} material={material} />}
      onChange={onChange}
    />
  );
}
