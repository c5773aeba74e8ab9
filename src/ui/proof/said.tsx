'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import type { Trouble } from '@/core/pipeline/trouble';
import type { FitPlace } from '@/core/proof/fit';
import { setView, type View } from '@/ui/view';
import { useViewLater } from '@/ui/following';

/** Names and values, a line each. */
export const Facts = ({ children }: { readonly children: ReactNode }) => (
  <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 0.75, m: 0, fontSize: 13 }}>
    {children}
  </Box>
);
export const Line = ({ name, value }: { readonly name: string; readonly value: string }) => (
  <>
    <Box component="dt" sx={{ color: 'text.secondary' }}>
      {name}
    </Box>
    <Box component="dd" sx={{ m: 0, fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
      {value}
    </Box>
  </>
);

/** What is said until there is an answer, or where there is none. */
export const NoAnswer = ({ failed, until }: { readonly failed: boolean; readonly until: string }) => (
  <Typography variant="body2" sx={{ mt: 1, color: failed ? 'error.main' : 'text.secondary' }}>
    {failed
      ? 'This could not be worked out: a fault of Mirvak, not of your job. Change a value of it, and it is tried again.'
      : until}
  </Typography>
);

/** What is amiss, each with its place. */
export const Troubles = (p: {
  readonly troubles: readonly Trouble[];
  readonly show: (at: FitPlace, text: string) => void;
}) =>
  p.troubles.map((t) => (
    <Box key={t.text} sx={{ mt: 1 }}>
      <Typography variant="body2" sx={{ color: 'error.main' }}>
        {t.text}
      </Typography>
      {t.at && (
        <Button size="small" sx={{ ml: -0.75, minHeight: 26 }} onClick={() => p.show(t.at!, t.text)}>
          Show me
        </Button>
      )}
    </Box>
  ));

/** What is seen in the round, of what the proof has made. */
export function PieceChoice({ names }: { readonly names: Readonly<Partial<Record<View['piece'], string>>> }) {
  const piece = useViewLater((v) => v.piece);
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={piece in names ? piece : 'blank'}
      aria-label="Seen in the round"
      onChange={(_, to: View['piece'] | null) =>
        to && setView((v) => ({ piece: to, table: v.table === 'plan' ? 'solid' : v.table }))
      }
    >
      {Object.entries(names).map(([value, name]) => (
        <ToggleButton key={value} value={value}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
