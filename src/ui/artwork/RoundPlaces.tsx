'use client';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { itemKindOf } from '@/core/artwork/registry';
import type { Item } from '@/core/artwork/item';
import type { RoundPlace } from '@/core/lettering/round';
import { changeItem } from '@/ui/actions/edits';

/** Where letters stand that were set round a circle or ellipse: one press for each side and each end. */
export function RoundPlaces({ item }: { item: Item }) {
  const round = item.values.round as RoundPlace | undefined;
  if (!round || item.values.baseline === 'straight') return null;
  const to = (patch: Partial<RoundPlace>) =>
    changeItem(item.id, 'Set letters round', (q) => {
      const before = q.values;
      q.values = { ...before, round: { ...(before.round as RoundPlace), ...patch } };
      q.values = itemKindOf(q.kind).changed!(q.values, before) as typeof q.values;
    });
  const style = { px: 1.25, py: 0.4, fontSize: 13, textTransform: 'none' } as const;
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Side of the outline"
        value={round.side}
        onChange={(_, side) => side && to({ side })}
      >
        <ToggleButton value="outside" sx={style}>
          Outside
        </ToggleButton>
        <ToggleButton value="inside" sx={style}>
          Inside
        </ToggleButton>
      </ToggleButtonGroup>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Middle of the letters"
        value={round.at}
        onChange={(_, at) => at && to({ at })}
      >
        <ToggleButton value="top" sx={style}>
          At the top
        </ToggleButton>
        <ToggleButton value="bottom" sx={style}>
          At the bottom
        </ToggleButton>
      </ToggleButtonGroup>
    </Box>
  );
}
