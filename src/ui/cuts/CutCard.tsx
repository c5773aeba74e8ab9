'use client';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import ContentCopyRounded from '@mui/icons-material/ContentCopyRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import MoreVertRounded from '@mui/icons-material/MoreVertRounded';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import PowerSettingsNewRounded from '@mui/icons-material/PowerSettingsNewRounded';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import ListItemIcon from '@mui/material/ListItemIcon';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { kindOf } from '@/core/cuts/registry';
import type { Cut } from '@/core/job/job';
import { durationText } from '@/core/units/duration';
import { changeCut, copyCut, deleteCut, moveCut, togglePaths } from '@/ui/actions/edits';
import { cutColour } from '@/ui/theme/theme';
import { setView, useView } from '@/ui/view';
import { readOut } from '@/ui/common/fields';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { useCutState } from './useCutState';

/** One cut of the plan: its place and colour, name, cutters, minutes and how they are spent, and its state. */
export function CutCard({ cut, index }: { cut: Cut; index: number }) {
  const job = useOpenJobLater((s) => s.job)!;
  const open = useViewLater((v) => v.cutId === cut.id);
  const also = useViewLater((v) => v.alsoCuts.includes(cut.id));
  const selected = open || also;
  /** Ctrl or Shift chooses further cuts beside the open one. */
  const choose = (e: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }) => {
    const { cutId, alsoCuts } = useView.getState();
    if (!(e.ctrlKey || e.metaKey || e.shiftKey) || !cutId || cutId === cut.id)
      return setView({ cutId: cut.id, alsoCuts: [], picked: cut.items });
    if (!e.shiftKey) return setView({ alsoCuts: also ? alsoCuts.filter((c) => c !== cut.id) : [...alsoCuts, cut.id] });
    const [a, b] = [job.cuts.findIndex((c) => c.id === cutId), index].sort((p, q) => p - q);
    setView({
      alsoCuts: job.cuts
        .slice(a, b + 1)
        .map((c) => c.id)
        .filter((c) => c !== cutId),
    });
  };
  const state = useCutState(cut);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: cut.id });
  const kind = kindOf(cut.kind);
  const colour = cutColour(index);
  const cutters = kind.cutters(cut.values).map((id) => job.cutters.find((c) => c.id === id)?.name ?? 'no cutter');
  const close = (run?: () => void) => () => {
    setMenu(null);
    run?.();
  };
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        position: 'relative',
        zIndex: isDragging ? 2 : undefined,
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: selected ? 'primary.main' : 'divider',
        boxShadow: selected ? '0 0 0 1px var(--mui-palette-primary-main)' : 'none',
        borderRadius: 2.5,
        color: cut.enabled ? undefined : 'text.secondary',
      }}
    >
      <Box
        {...attributes}
        {...listeners}
        role="button"
        aria-pressed={selected}
        onClick={choose}
        onContextMenu={(e) => {
          e.preventDefault();
          setMenu(e.currentTarget);
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') choose(e);
          else listeners?.onKeyDown?.(e);
        }}
        sx={{
          display: 'grid',
          gridTemplateColumns: '26px minmax(0, 1fr) auto',
          columnGap: 1.25,
          rowGap: 0.25,
          p: 1.25,
          pr: 4.5,
          cursor: 'pointer',
          borderRadius: 2.5,
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        }}
      >
        <Box
          sx={{
            gridRow: '1 / 3',
            width: 26,
            height: 26,
            borderRadius: 1.5,
            ...(cut.enabled ? { bgcolor: colour, color: '#fff' } : { border: '2px solid', borderColor: colour }),
            display: 'grid',
            placeItems: 'center',
            fontWeight: 600,
            fontSize: 13,
          }}
        >
          <Box component="span" sx={readOut}>
            Cut{' '}
          </Box>
          {index + 1}
          <Box component="span" sx={readOut}>
            :{' '}
          </Box>
        </Box>
        <Box
          sx={{ fontWeight: 600, fontSize: 13.5, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
        >
          {cut.name}
          {cut.hidden && (
            <VisibilityOffOutlined
              titleAccess="Its paths are hidden"
              sx={{ fontSize: 15, ml: 0.75, verticalAlign: '-2px', color: 'text.secondary' }}
            />
          )}
        </Box>
        <Box sx={{ fontWeight: 600, fontSize: 13.5 }}>{state.minutes !== null ? durationText(state.minutes) : ''}</Box>
        <Box sx={{ color: 'text.secondary', fontSize: 12, lineHeight: 1.35, minWidth: 0, gridColumn: '2 / 4' }}>
          {kind.name} {'\u00b7'} {cutters.join(', ')}
        </Box>
        <Box sx={{ gridColumn: '2 / 4', display: 'flex', alignItems: 'center', gap: 1, mt: 0.5 }}>
          <Box
            aria-hidden="true"
            sx={{
              flex: 1,
              height: 5,
              borderRadius: 3,
              overflow: 'hidden',
              bgcolor: 'var(--mui-palette-divider)',
              display: 'flex',
            }}
          >
            <Box sx={{ width: `${state.shares[0] * 100}%`, bgcolor: colour }} />
            <Box sx={{ width: `${state.shares[1] * 100}%`, bgcolor: colour, opacity: 0.55 }} />
          </Box>
          <Box
            role="status"
            sx={{
              fontSize: 12,
              color: state.state === 'problem' ? 'error.main' : 'text.secondary',
              minWidth: state.state === 'problem' ? undefined : 122,
              textAlign: state.state === 'problem' ? undefined : 'right',
              maxWidth: state.state === 'problem' ? '75%' : 176,
              whiteSpace: state.state === 'problem' ? 'normal' : 'nowrap',
              lineHeight: 1.3,
            }}
          >
            {state.words}
            {state.state === 'fresh' && state.minutes !== null
              ? ` \u00b7 ${Math.round(state.shares[2] * 100)} % air`
              : ''}
          </Box>
        </Box>
      </Box>
      <IconButton
        size="small"
        aria-label={`More for ${cut.name}`}
        onClick={(e) => setMenu(e.currentTarget)}
        sx={{ position: 'absolute', top: 8, right: 4 }}
      >
        <MoreVertRounded fontSize="small" />
      </IconButton>
      <Menu open={!!menu} anchorEl={menu} onClose={close()}>
        <MenuItem
          onClick={close(() =>
            changeCut(cut.id, cut.enabled ? 'Switch cut off' : 'Switch cut on', (c) => void (c.enabled = !c.enabled)),
          )}
        >
          <ListItemIcon>
            <PowerSettingsNewRounded fontSize="small" />
          </ListItemIcon>
          {cut.enabled ? 'Switch off' : 'Switch on'}
        </MenuItem>
        <MenuItem onClick={close(() => togglePaths([cut.id]))}>
          <ListItemIcon>
            {cut.hidden ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
          </ListItemIcon>
          {cut.hidden ? 'Show its paths' : 'Hide its paths'}
        </MenuItem>
        <MenuItem onClick={close(() => copyCut(cut.id))}>
          <ListItemIcon>
            <ContentCopyRounded fontSize="small" />
          </ListItemIcon>
          Copy
        </MenuItem>
        <MenuItem disabled={index === 0} onClick={close(() => moveCut(cut.id, index - 1))}>
          Move up
        </MenuItem>
        <MenuItem disabled={index === job.cuts.length - 1} onClick={close(() => moveCut(cut.id, index + 1))}>
          Move down
        </MenuItem>
        <MenuItem onClick={close(() => deleteCut(cut.id))} sx={{ color: 'error.main' }}>
          <ListItemIcon>
            <DeleteOutlineRounded fontSize="small" color="error" />
          </ListItemIcon>
          Delete
        </MenuItem>
      </Menu>
    </Box>
  );
}
