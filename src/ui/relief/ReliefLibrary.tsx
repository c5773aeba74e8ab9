'use client';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import IconButton from '@mui/material/IconButton';
import { useMemo } from 'react';
import { lookOfKept } from '@/core/relief/keptRelief';
import { addPiece, dropPiece, PIECE } from '@/ui/actions/reliefLibrary';
import { GalleryDialog } from '@/ui/common/Gallery';
import { Look } from '@/ui/common/Look';
import { OrnamentPicture, ornamentsShown } from '@/ui/common/OrnamentPicture';
import { useShelf } from '@/ui/common/useShelf';
import { setView, useView } from '@/ui/view';
import { useOpenJobLater } from '@/ui/following';

const OWN = 'Your own';
const words = {
  label: 'Library of reliefs',
  title: 'Library of reliefs',
  search: 'Search the reliefs',
  choose: 'Choose a relief',
  nothing: 'No relief is called that. Try another word, such as water, bird or border.',
};

/** Ornaments and reliefs of the maker's own: pressed, they come to lie in the middle; dragged, where they are dropped. */
export function ReliefLibrary() {
  const open = useView((v) => v.reliefLibrary);
  const material = useOpenJobLater((s) => s.job?.blank.material ?? 'oak');
  const { kept } = useShelf('reliefs');
  const looks = useMemo(() => new Map(kept.map((k) => [k.id, lookOfKept(k)])), [kept]);
  const things = useMemo(
    () => [...kept.map(({ id, name }) => ({ id, name, group: OWN, words: '' })), ...ornamentsShown],
    [kept],
  );
  return (
    <GalleryDialog
      open={open}
      close={() => setView({ reliefLibrary: false })}
      words={words}
      things={things}
      value=""
      picture={(id, size) =>
        looks.has(id) ? (
          <Look look={looks.get(id)!} size={size} material={material} />
        ) : (
          <OrnamentPicture id={id} size={size} material={material} />
        )
      }
      onChange={(id) => void addPiece(id)}
      dragged={PIECE}
      beside={(thing) =>
        thing.group === OWN && (
          <IconButton
            size="small"
            aria-label={`Delete ${thing.name} from the library`}
            onClick={() => {
              // The way back is in a notice, which cannot be reached behind a dialog.
              setView({ reliefLibrary: false });
              void dropPiece(kept.find((k) => k.id === thing.id)!);
            }}
            sx={{ position: 'absolute', top: 0, right: 0 }}
          >
            <DeleteOutlineRounded fontSize="small" />
          </IconButton>
        )
      }
    />
  );
}
