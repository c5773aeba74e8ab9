'use client';
import { motifPaths, motifs } from '@/core/artwork/motifs/motifs';
import { boundsOfPaths, pathData } from '@/core/geometry/path';
import { Gallery } from './Gallery';

const pictures = new Map<string, { d: string; box: string }>();
function pictureOf(id: string): { d: string; box: string } {
  let p = pictures.get(id);
  if (!p) {
    const paths = motifPaths(id);
    const b = boundsOfPaths(paths) ?? { x0: -50, y0: -50, x1: 50, y1: 50 };
    const pad = 3;
    pictures.set(
      id,
      (p = {
        d: pathData(paths, 2),
        box: `${b.x0 - pad} ${-b.y1 - pad} ${b.x1 - b.x0 + 2 * pad} ${b.y1 - b.y0 + 2 * pad}`,
      }),
    );
  }
  return p;
}

function Picture({ id, size }: { id: string; size: number }) {
  const { d, box } = pictureOf(id);
  return (
    <svg viewBox={box} width={size} height={size} aria-hidden="true">
      <g transform="scale(1,-1)">
        <path d={d} fill="currentColor" />
      </g>
    </svg>
  );
}

/** Shows the chosen motif, of one group where one is named; a press opens all of them. */
export function MotifField({
  label,
  value,
  group,
  none,
  onChange,
}: {
  label: string;
  value: string;
  group?: string;
  none?: string;
  onChange: (id: string) => void;
}) {
  return (
    <Gallery
      words={{
        label,
        title: 'Motifs',
        search: 'Search the motifs',
        choose: 'Choose a motif',
        nothing: 'No motif is called that. Try another word, such as water, leaf or frame.',
      }}
      things={motifs.filter((m) => !group || m.group === group)}
      value={value}
      none={none}
      picture={(id, size) => <Picture id={id} size={size} />}
      onChange={onChange}
    />
  );
}
