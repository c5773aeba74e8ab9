'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { memo, useState, type KeyboardEvent } from 'react';
import type { Item } from '@/core/artwork/item';
import { setSpace } from '@/ui/actions/lettering';
import { NumberField } from '@/ui/common/fields';

/** More letters than this are spaced by tracking, not one by one. */
const MOST = 120;

/** A letter, and the gap to the next one where there is one. Others that are typed beside it leave it as it is. */
const Letter = memo(function Letter({
  id,
  at,
  letter,
  next,
  chosen,
  spaced,
  choose,
}: {
  id: string;
  at: number;
  letter: string;
  next: string | null;
  chosen: boolean;
  spaced: boolean;
  choose: (at: number) => void;
}) {
  const key = (e: KeyboardEvent) => {
    const step = (e.shiftKey ? 50 : 10) * (e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0);
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    setSpace(id, at, (now) => Math.max(-2000, Math.min(5000, now + step)));
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center' }}>
      <Box component="span" sx={{ fontSize: 14, minWidth: letter === ' ' ? 6 : 0 }}>
        {letter}
      </Box>
      {next !== null && (
        <ButtonBase
          aria-label={`Space between ${letter} and ${next}, letter ${at + 1}`}
          onClick={() => choose(at)}
          onFocus={() => choose(at)}
          onKeyDown={key}
          sx={{
            width: 12,
            height: 24,
            mx: 0.1,
            borderRadius: 1,
            '&::after': {
              content: '""',
              width: '2px',
              height: 14,
              borderRadius: 1,
              bgcolor: chosen ? 'primary.main' : spaced ? 'var(--mui-palette-brass)' : 'divider',
            },
            '&:hover::after': { bgcolor: 'primary.main' },
          }}
        />
      )}
    </Box>
  );
});

/** Spaces between single letters, by hand: press a gap, then the arrow keys or a number. */
export function LetterSpaces({ item }: { item: Item }) {
  const [at, setAt] = useState<number | null>(null);
  const chars = [...String(item.values.text ?? '')].slice(0, MOST);
  const spaces = (item.values.spaces ?? {}) as Record<string, number>;
  const gap = (i: number) => i + 1 < chars.length && chars[i] !== '\n' && chars[i + 1] !== '\n';
  return (
    <Box>
      <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mb: 0.5 }}>
        Spaces by hand: press between two letters, then Left or Right
      </Typography>
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          border: '1px solid',
          borderColor: 'var(--mui-palette-line)',
          borderRadius: 1.5,
          px: 1,
          py: 0.5,
        }}
      >
        {chars.map((c, i) =>
          c === '\n' ? (
            <Box key={i} sx={{ flexBasis: '100%', height: 2 }} />
          ) : (
            <Letter
              key={i}
              id={item.id}
              at={i}
              letter={c}
              next={gap(i) ? chars[i + 1] : null}
              chosen={at === i}
              spaced={!!spaces[i]}
              choose={setAt}
            />
          ),
        )}
      </Box>
      {at !== null && gap(at) && (
        <Box sx={{ mt: 1, maxWidth: 180 }}>
          <NumberField
            label={`After "${chars[at]}"`}
            value={spaces[at] ?? 0}
            unit="‰ em"
            min={-2000}
            max={5000}
            onChange={(v) => setSpace(item.id, at, () => v)}
          />
        </Box>
      )}
    </Box>
  );
}
