import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Item } from '@/core/artwork/item';
import { changeItem } from '@/ui/actions/edits';
import { layUnder, pictureBehind } from '@/ui/actions/tracing';
import { useOpenJobLater } from '@/ui/following';
import { setView } from '@/ui/view';

/** What can be done with the picture that an item is, or was traced from. */
export function BehindIt({ item }: { item: Item }) {
  const picture = useOpenJobLater((s) => pictureBehind(s.job!, item));
  if (!picture) return null;
  const quiet = { variant: 'outlined', size: 'small', color: 'inherit' } as const;
  return (
    <Box role="group" aria-label="The picture behind it" sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
      <Button {...quiet} onClick={() => setView({ tracing: { again: picture.id } })}>
        Trace again
      </Button>
      <Button {...quiet} onClick={() => layUnder(picture.id)}>
        Lay the picture under
      </Button>
      <Button
        {...quiet}
        onClick={() =>
          changeItem(
            picture.id,
            picture.visible ? 'Hide picture' : 'Show picture',
            (p) => void (p.visible = !p.visible),
          )
        }
      >
        {picture.visible ? 'Hide the picture' : 'Show the picture'}
      </Button>
    </Box>
  );
}
