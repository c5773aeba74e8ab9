'use client';
import SearchRounded from '@mui/icons-material/SearchRounded';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import InputAdornment from '@mui/material/InputAdornment';
import OutlinedInput from '@mui/material/OutlinedInput';
import Typography from '@mui/material/Typography';
import { useId, useState } from 'react';
import { motifOf, motifPaths, motifs, type Motif } from '@/core/artwork/motifs/motifs';
import { boundsOfPaths, pathData } from '@/core/geometry/path';
import { Labelled } from './fields';

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

/** Shows the chosen motif; a press opens the library of all, with a search. */
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
  const id = useId();
  const [open, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = motifs.filter(
    (m) =>
      (!group || m.group === group) && words.every((w) => `${m.name} ${m.group} ${m.words}`.toLowerCase().includes(w)),
  );
  const groups = [...new Set(found.map((m) => m.group))];
  const take = (v: string) => {
    onChange(v);
    setOpen(false);
  };
  const tile = {
    width: 104,
    height: 104,
    borderRadius: 2.5,
    flexDirection: 'column',
    gap: 0.75,
    fontSize: 12,
    p: 0.5,
    border: '1px solid',
    borderColor: 'divider',
    color: 'text.primary',
    '&:hover': { borderColor: 'primary.main', bgcolor: 'var(--mui-palette-wash)' },
  } as const;
  const card = (m: Motif) => (
    <ButtonBase
      key={m.id}
      aria-label={m.name}
      aria-pressed={m.id === value}
      onClick={() => take(m.id)}
      sx={{ ...tile, ...(m.id === value ? { borderColor: 'primary.main', bgcolor: 'var(--mui-palette-wash)' } : {}) }}
    >
      <Picture id={m.id} size={62} />
      <span>{m.name}</span>
    </ButtonBase>
  );
  return (
    <Labelled id={id} label={label}>
      <ButtonBase
        id={id}
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        sx={{
          width: '100%',
          justifyContent: 'flex-start',
          gap: 1.25,
          px: 1.25,
          height: 46,
          borderRadius: 1.5,
          border: '1px solid',
          borderColor: 'var(--mui-palette-line)',
          fontSize: 13.5,
        }}
      >
        {motifOf(value) && <Picture id={value} size={32} />}
        {motifOf(value)?.name ?? none ?? 'Choose a motif'}
      </ButtonBase>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        maxWidth="md"
        slotProps={{ paper: { 'aria-label': 'Motifs', sx: { width: 780, height: 600 } } }}
      >
        <Box sx={{ p: 2, pb: 1, display: 'flex', alignItems: 'center', gap: 2 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            Motifs
          </Typography>
          <OutlinedInput
            autoFocus
            size="small"
            placeholder="Search"
            inputProps={{ 'aria-label': 'Search the motifs' }}
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            startAdornment={
              <InputAdornment position="start">
                <SearchRounded fontSize="small" />
              </InputAdornment>
            }
            sx={{ width: 240 }}
          />
        </Box>
        <Box sx={{ px: 2, pb: 2, overflow: 'auto' }}>
          {none && !words.length && (
            <ButtonBase onClick={() => take('none')} sx={{ ...tile, height: 40, width: 'auto', px: 2, mt: 1 }}>
              {none}
            </ButtonBase>
          )}
          {groups.map((g) => (
            <Box key={g} sx={{ mt: 1.5 }}>
              <Typography variant="caption" sx={{ color: 'text.secondary', fontWeight: 600 }}>
                {g}
              </Typography>
              <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
                {found.filter((m) => m.group === g).map(card)}
              </Box>
            </Box>
          ))}
          {!found.length && (
            <Typography sx={{ mt: 3, color: 'text.secondary' }}>
              No motif is called that. Try another word, such as water, leaf or frame.
            </Typography>
          )}
        </Box>
      </Dialog>
    </Labelled>
  );
}
