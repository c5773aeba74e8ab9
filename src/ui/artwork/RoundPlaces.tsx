'use client';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { Item } from '@/core/artwork/item';
import type { RoundPlace } from '@/core/lettering/round';
import { placeRound } from '@/ui/actions/lettering';

/** Where letters stand that were set round a circle or ellipse: one press for each end, the middle, and each side. */
export function RoundPlaces({ item }: { item: Item }) {
  const round = item.values.round as RoundPlace | undefined;
  if (!round) return null;
  const straight = item.values.baseline === 'straight';
  const style = { px: 1.25, py: 0.4, fontSize: 13, textTransform: 'none' } as const;
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Place of the letters"
        value={straight ? 'middle' : round.at}
        onChange={(_, at: RoundPlace['at'] | 'middle' | null) =>
          at && placeRound(item.id, at === 'middle' ? at : { at })
        }
      >
        <ToggleButton value="top" sx={style}>
          At the top
        </ToggleButton>
        <ToggleButton value="middle" sx={style}>
          In the middle
        </ToggleButton>
        <ToggleButton value="bottom" sx={style}>
          At the bottom
        </ToggleButton>
      </ToggleButtonGroup>
      {!straight && (
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Side of the outline"
          value={round.side}
          onChange={(_, side: RoundPlace['side'] | null) => side && placeRound(item.id, { side })}
        >
          <ToggleButton value="outside" sx={style}>
            Outside
          </ToggleButton>
          <ToggleButton value="inside" sx={style}>
            Inside
          </ToggleButton>
        </ToggleButtonGroup>
      )}
    </Box>
  );
}
