import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Item } from '@/core/artwork/item';
import { ownPicked, showOriginal, sourceOf } from '@/ui/actions/links';

/** What a linked item follows, and what can be done about it. */
export function FollowsIt({ item }: { item: Item }) {
  const source = sourceOf(item);
  if (!source) return null;
  const quiet = { variant: 'outlined', size: 'small', color: 'inherit' } as const;
  return (
    <Box role="group" aria-label="What it follows" sx={{ display: 'grid', gap: 0.75 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Follows &ldquo;{source.item.name}&rdquo; of &ldquo;{source.setup.name}&rdquo;: what is changed there changes
        here. Moved here, it keeps its distance.
      </Typography>
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
        <Button {...quiet} onClick={() => showOriginal(source)}>
          Show the original
        </Button>
        <Button {...quiet} onClick={ownPicked}>
          Make it its own
        </Button>
      </Box>
    </Box>
  );
}
