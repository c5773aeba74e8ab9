'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { setView } from '@/ui/view';
import { useOpenJobLater, useViewLater } from '@/ui/following';

/** Which items a cut, a form or a mask is made of, with the way to change them. `needless`: what is said where it needs none. */
export function UsedItems({
  ids,
  words,
  none,
  needless,
  use,
}: {
  ids: readonly string[];
  words: string;
  none: string;
  needless?: string;
  use: (picked: string[]) => void;
}) {
  const job = useOpenJobLater((s) => s.job)!;
  const picked = useViewLater((v) => v.picked);
  const there = ids.filter((id) => job.items.some((i) => i.id === id));
  const same = picked.length === ids.length && picked.every((p) => ids.includes(p));
  const said = there.length ? `${words} ${there.length} ${there.length === 1 ? 'item' : 'items'}` : none;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1.25, minHeight: 34 }}>
      <Typography variant="body2" sx={{ flex: 1, color: there.length || needless ? 'text.secondary' : 'error.main' }}>
        {needless ?? said}
      </Typography>
      {same || !picked.length ? (
        <Button size="small" color="inherit" disabled={!there.length} onClick={() => setView({ picked: [...ids] })}>
          Show them
        </Button>
      ) : (
        <Button size="small" variant="outlined" onClick={() => use([...picked])}>
          Use the {picked.length} picked
        </Button>
      )}
    </Box>
  );
}
