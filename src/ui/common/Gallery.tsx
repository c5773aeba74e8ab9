'use client';
import SearchRounded from '@mui/icons-material/SearchRounded';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import InputAdornment from '@mui/material/InputAdornment';
import OutlinedInput from '@mui/material/OutlinedInput';
import Typography from '@mui/material/Typography';
import { useId, useState, type ReactNode } from 'react';
import { Labelled } from './fields';

/** One of the things of a gallery. */
export interface Shown {
  readonly id: string;
  readonly name: string;
  readonly group: string;
  /** Other words by which it is found. */
  readonly words: string;
}

/** What a gallery is called: the field, its whole, one of it, and how it is looked for. */
export interface GalleryWords {
  readonly label: string;
  readonly title: string;
  readonly search: string;
  readonly choose: string;
  /** Said when nothing is called so. */
  readonly nothing: string;
}

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

interface GalleryProps {
  words: GalleryWords;
  things: readonly Shown[];
  value: string;
  /** Names the empty choice, if there is one. */
  none?: string;
  picture: (id: string, size: number) => ReactNode;
  onChange: (id: string) => void;
}

/** Shows the chosen one of many pictured things; a press opens the whole of them, with a search. */
export function Gallery(props: GalleryProps) {
  const { words, things, value, none, picture } = props;
  const id = useId();
  const [open, setOpen] = useState(false);
  const chosen = things.find((m) => m.id === value);
  return (
    <Labelled id={id} label={words.label}>
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
        {chosen && picture(value, 32)}
        {chosen?.name ?? none ?? words.choose}
      </ButtonBase>
      <GalleryDialog {...props} open={open} close={() => setOpen(false)} />
    </Labelled>
  );
}

/** The whole of a gallery. A press takes one; where `dragged` says as what, one can also be dragged out of it. */
export function GalleryDialog({
  words,
  things,
  value,
  none,
  picture,
  onChange,
  open,
  close,
  dragged,
  beside,
}: GalleryProps & {
  open: boolean;
  close: () => void;
  /** The type under which the id of what is dragged is told to where it is dropped. */
  dragged?: string;
  /** What more can be done with one, in its corner. */
  beside?: (thing: Shown) => ReactNode;
}) {
  const [search, setSearch] = useState('');
  /** While one is dragged the dialog is out of its way; it stays, since what is dragged would go with it. */
  const [away, setAway] = useState(false);
  const wanted = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = things.filter((m) => wanted.every((w) => `${m.name} ${m.group} ${m.words}`.toLowerCase().includes(w)));
  const groups = [...new Set(found.map((m) => m.group))];
  const take = (v: string) => {
    onChange(v);
    close();
  };
  return (
    <Dialog
      open={open}
      onClose={close}
      maxWidth="md"
      sx={away ? { opacity: 0, pointerEvents: 'none' } : undefined}
      slotProps={{ paper: { 'aria-label': words.title, sx: { width: 780, height: 600 } } }}
    >
      <Box sx={{ p: 2, pb: 1, display: 'flex', alignItems: 'center', gap: 2 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {words.title}
        </Typography>
        <OutlinedInput
          autoFocus
          size="small"
          placeholder="Search"
          inputProps={{ 'aria-label': words.search }}
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
        {none && !wanted.length && (
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
              {found
                .filter((m) => m.group === g)
                .map((m) => (
                  <Box key={m.id} sx={{ position: 'relative' }}>
                    <ButtonBase
                      aria-label={m.name}
                      aria-pressed={m.id === value}
                      draggable={!!dragged}
                      onDragStart={(e) => {
                        e.dataTransfer.setData(dragged!, m.id);
                        e.dataTransfer.effectAllowed = 'copy';
                        // In the same moment the drag would be given up.
                        setTimeout(() => setAway(true));
                      }}
                      onDragEnd={(e) => {
                        setAway(false);
                        if (e.dataTransfer.dropEffect !== 'none') close();
                      }}
                      onClick={() => take(m.id)}
                      sx={{
                        ...tile,
                        ...(m.id === value ? { borderColor: 'primary.main', bgcolor: 'var(--mui-palette-wash)' } : {}),
                      }}
                    >
                      {picture(m.id, 62)}
                      <Box
                        component="span"
                        sx={{ maxWidth: 94, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                      >
                        {m.name}
                      </Box>
                    </ButtonBase>
                    {beside?.(m)}
                  </Box>
                ))}
            </Box>
          </Box>
        ))}
        {!found.length && <Typography sx={{ mt: 3, color: 'text.secondary' }}>{words.nothing}</Typography>}
      </Box>
    </Dialog>
  );
}
