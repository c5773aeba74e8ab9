'use client';
import ChevronRightRounded from '@mui/icons-material/ChevronRightRounded';
import ContentCopyRounded from '@mui/icons-material/ContentCopyRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import ExpandMoreRounded from '@mui/icons-material/ExpandMoreRounded';
import LockOpenRounded from '@mui/icons-material/LockOpenRounded';
import LockRounded from '@mui/icons-material/LockRounded';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import {
  useEffect,
  useRef,
  useState,
  type DragEvent,
  type HTMLAttributes,
  type KeyboardEvent,
  type MouseEvent,
  type Ref,
} from 'react';
import type { Item, PlacedItem } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import type { Group, Layer } from '@/core/job/job';
import { changeLayer, copiesToLayer, deleteLayer, moveLayer, pickedToLayer } from '@/ui/actions/layers';
import { changeItem, moveRows } from '@/ui/actions/edits';
import { openMenu, setView, useView } from '@/ui/view';
import { Thumbnail } from './Thumbnail';

/** Height of a row: enough for a finger where one points with it. */
export const ROW = typeof matchMedia !== 'undefined' && matchMedia('(pointer: coarse)').matches ? 44 : 34;

/** What the tree says of a row: its role, place and level, and whether Tab comes to it. */
export type RowProps = HTMLAttributes<HTMLElement> & { ref?: Ref<HTMLElement> };

const rowStyle = (on: boolean) => ({
  display: 'flex',
  alignItems: 'center',
  height: ROW,
  borderRadius: 2,
  cursor: 'pointer',
  bgcolor: on ? 'var(--mui-palette-wash)' : undefined,
  '&:hover': { bgcolor: on ? undefined : 'background.paper' },
  '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: -2 },
});
const nameStyle = { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' } as const;

const ROWS = 'text/mirvak-rows';

/** Makes a row one that is dragged (items, or a group) and on which others are dropped: `to` says where they come to lie. */
function useRowDrag(
  what: () => Parameters<typeof moveRows>[0],
  to: Parameters<typeof moveRows>[1],
): { over: boolean; drag: HTMLAttributes<HTMLElement> & { draggable: boolean } } {
  const [over, setOver] = useState(false);
  const take = (e: DragEvent) => {
    if (!e.dataTransfer.types.includes(ROWS)) return;
    e.preventDefault();
    setOver(true);
  };
  return {
    over,
    drag: {
      draggable: true,
      onDragStart: (e) => e.dataTransfer.setData(ROWS, JSON.stringify(what())),
      onDragEnter: take,
      onDragOver: take,
      // Passing from the row to what lies in it is no leaving.
      onDragLeave: (e) => !e.currentTarget.contains(e.relatedTarget as Node | null) && setOver(false),
      onDrop: (e) => {
        setOver(false);
        const data = e.dataTransfer.getData(ROWS);
        if (!data) return;
        e.preventDefault();
        moveRows(JSON.parse(data), to);
      },
    },
  };
}

/** Whether an event was meant for the row itself, not for a button or field in it. */
const onRow = (e: { target: EventTarget }): boolean => !(e.target as HTMLElement).closest('button, input');

/** A row that picks when it is pressed, or entered by key; F2 changes its name. */
const picking = (on: boolean, pick: (add: boolean) => void, rename?: () => void): HTMLAttributes<HTMLElement> => {
  const meant = (e: MouseEvent | KeyboardEvent) => e.shiftKey || e.ctrlKey || e.metaKey;
  return {
    'aria-selected': on,
    onClick: (e) => onRow(e) && pick(meant(e)),
    onKeyDown: (e) => {
      if (!onRow(e) || !['Enter', ' ', 'F2'].includes(e.key)) return;
      e.preventDefault();
      if (e.key === 'F2') rename?.();
      else pick(meant(e));
    },
  };
};

const dropMark = { boxShadow: 'inset 0 -2px 0 var(--mui-palette-primary-main)' };

export function ItemRow({
  item: i,
  placed,
  on,
  row,
  pick,
}: {
  item: Item;
  placed: PlacedItem | undefined;
  on: boolean;
  row: RowProps;
  pick: (add: boolean) => void;
}) {
  const { over, drag } = useRowDrag(() => ({ items: on ? useView.getState().picked : [i.id] }), {
    group: i.group,
    layer: i.layer,
    below: i.id,
  });
  const [name, setName] = useState<string | null>(null);
  const lit = useView((v) => v.hovered === i.id);
  // After a name was typed one goes on where one was.
  const back = useRef(false);
  useEffect(() => {
    if (name !== null || !back.current) return;
    back.current = false;
    document.querySelector<HTMLElement>(`[data-row="${CSS.escape(i.id)}"]`)?.focus();
  }, [name, i.id]);
  const take = () => {
    const to = name?.trim();
    if (to && to !== i.name) changeItem(i.id, 'Rename item', (q) => void (q.name = to));
    setName(null);
  };
  if (name !== null)
    return (
      <Box sx={rowStyle(on)}>
        <InputBase
          autoFocus
          value={name}
          inputProps={{ 'aria-label': `Name of ${i.name}`, maxLength: 200 }}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setName(e.target.value)}
          onBlur={take}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' && e.key !== 'Escape') return;
            e.stopPropagation();
            if (e.key === 'Enter') take();
            else setName(null);
            back.current = true;
          }}
          sx={{ flex: 1, px: 1, fontSize: 13 }}
        />
      </Box>
    );
  return (
    <Box
      {...row}
      {...drag}
      data-row={i.id}
      {...picking(on, pick, () => setName(i.name))}
      onDoubleClick={(e) => onRow(e) && setName(i.name)}
      onContextMenu={(e) => {
        if (!on) pick(false);
        openMenu(e, 'items');
      }}
      onPointerEnter={() => setView({ hovered: i.id })}
      onPointerLeave={() => setView({ hovered: null })}
      sx={{ ...rowStyle(on), ...(lit && !on && { bgcolor: 'background.paper' }), ...(over && dropMark) }}
    >
      <Box
        sx={{
          flex: 1,
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          px: 1,
          height: ROW,
          minWidth: 0,
          borderRadius: 2,
          fontSize: 13,
          color: i.visible ? undefined : 'text.secondary',
          fontWeight: on ? 600 : 450,
        }}
      >
        <Box sx={{ display: 'contents', '& > *': i.visible ? undefined : { opacity: 0.5 } }}>
          <Thumbnail placed={placed} picture={i.kind === 'picture'} />
        </Box>
        <Box component="span" sx={nameStyle} title={i.name}>
          {i.name}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400, whiteSpace: 'nowrap' }}>
          {itemKindOf(i.kind).name.toLowerCase()}
        </Box>
      </Box>
      <IconButton
        size="small"
        title={i.visible ? 'Hide' : 'Show'}
        aria-label={`${i.visible ? 'Hide' : 'Show'} ${i.name}`}
        onClick={() => changeItem(i.id, i.visible ? 'Hide item' : 'Show item', (q) => void (q.visible = !q.visible))}
      >
        {i.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
      </IconButton>
    </Box>
  );
}

export function GroupRow({
  group,
  layer,
  items,
  open,
  toggle,
  on,
  row,
  pick,
}: {
  group: Group;
  layer: string;
  items: readonly string[];
  open: boolean;
  toggle: () => void;
  on: boolean;
  row: RowProps;
  pick: () => void;
}) {
  const { over, drag } = useRowDrag(() => ({ group: group.id }), { group: group.id, layer });
  return (
    <Box
      {...row}
      {...drag}
      {...picking(on, pick)}
      onContextMenu={(e) => {
        if (!on) pick();
        openMenu(e, 'items');
      }}
      title="Drag things here to put them into this group"
      sx={{ ...rowStyle(on), ...(over && { boxShadow: 'inset 0 0 0 2px var(--mui-palette-primary-main)' }) }}
    >
      <IconButton size="small" aria-label={`${open ? 'Close' : 'Open'} the group ${group.name}`} onClick={toggle}>
        {open ? <ExpandMoreRounded fontSize="small" /> : <ChevronRightRounded fontSize="small" />}
      </IconButton>
      <Box
        sx={{
          flex: 1,
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          pr: 1,
          height: ROW,
          minWidth: 0,
          borderRadius: 2,
          fontSize: 13,
          fontWeight: on ? 600 : 450,
        }}
      >
        <Box component="span" sx={nameStyle}>
          {group.name}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400 }}>
          {items.length}
        </Box>
      </Box>
    </Box>
  );
}

export function LayerRow({
  layer,
  count,
  shut,
  toggle,
  index,
  hasPick,
  row,
}: {
  layer: Layer;
  count: number;
  shut: boolean;
  toggle: () => void;
  index: number;
  hasPick: boolean;
  row: RowProps;
}) {
  const drop = (e: DragEvent) => {
    e.preventDefault();
    const id = e.dataTransfer.getData('text/mirvak-layer');
    if (id && id !== layer.id) moveLayer(id, index);
    // Rows dropped on a layer leave their groups.
    const rows = e.dataTransfer.getData(ROWS);
    if (rows) moveRows(JSON.parse(rows), { group: null, layer: layer.id });
  };
  const accept = (e: DragEvent) =>
    (e.dataTransfer.types.includes('text/mirvak-layer') || e.dataTransfer.types.includes(ROWS)) && e.preventDefault();
  return (
    <Box
      {...row}
      aria-label={`Layer ${layer.name}`}
      sx={{
        ...rowStyle(false),
        cursor: 'default',
        display: 'flex',
        alignItems: 'center',
        height: ROW,
        color: layer.visible ? undefined : 'text.secondary',
      }}
      draggable
      onDragStart={(e) => e.dataTransfer.setData('text/mirvak-layer', layer.id)}
      onDragEnter={accept}
      onDragOver={accept}
      onDrop={drop}
    >
      <IconButton size="small" aria-label={`${shut ? 'Open' : 'Fold'} the layer ${layer.name}`} onClick={toggle}>
        {shut ? <ChevronRightRounded fontSize="small" /> : <ExpandMoreRounded fontSize="small" />}
      </IconButton>
      <Box
        component="input"
        type="color"
        aria-label={`Colour of the layer ${layer.name}`}
        value={layer.colour}
        onChange={(e: React.ChangeEvent<HTMLInputElement>) =>
          changeLayer(layer.id, 'Change layer colour', (l) => void (l.colour = e.target.value), `colour-${layer.id}`)
        }
        sx={{
          width: 16,
          height: 16,
          p: 0,
          border: 0,
          borderRadius: '50%',
          flex: 'none',
          cursor: 'pointer',
          bgcolor: 'transparent',
          '&::-webkit-color-swatch-wrapper': { p: 0 },
          '&::-webkit-color-swatch': { border: '1px solid', borderColor: 'divider', borderRadius: '50%' },
        }}
      />
      <LayerName layer={layer} />
      <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, mr: 0.5 }}>
        {count}
      </Box>
      {hasPick && (
        <Button
          size="small"
          color="inherit"
          title="Move what is picked to this layer"
          onClick={() => pickedToLayer(layer.id)}
          sx={{ minWidth: 0, px: 0.75, fontSize: 11.5 }}
        >
          Move here
        </Button>
      )}
      {hasPick && (
        <IconButton
          size="small"
          title="Copy what is picked to this layer"
          aria-label={`Copy what is picked to the layer ${layer.name}`}
          onClick={() => copiesToLayer(layer.id)}
        >
          <ContentCopyRounded sx={{ fontSize: 16 }} />
        </IconButton>
      )}
      <IconButton
        size="small"
        title={layer.locked ? 'Unlock' : 'Lock'}
        aria-label={`${layer.locked ? 'Unlock' : 'Lock'} the layer ${layer.name}`}
        onClick={() =>
          changeLayer(layer.id, layer.locked ? 'Unlock layer' : 'Lock layer', (l) => void (l.locked = !l.locked))
        }
      >
        {layer.locked ? <LockRounded fontSize="small" /> : <LockOpenRounded fontSize="small" />}
      </IconButton>
      <IconButton
        size="small"
        title={layer.visible ? 'Hide' : 'Show'}
        aria-label={`${layer.visible ? 'Hide' : 'Show'} the layer ${layer.name}`}
        onClick={() =>
          changeLayer(layer.id, layer.visible ? 'Hide layer' : 'Show layer', (l) => void (l.visible = !l.visible))
        }
      >
        {layer.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
      </IconButton>
      {count === 0 && (
        <IconButton
          size="small"
          title="Delete"
          aria-label={`Delete the layer ${layer.name}`}
          onClick={() => deleteLayer(layer.id)}
        >
          <DeleteOutlineRounded fontSize="small" />
        </IconButton>
      )}
    </Box>
  );
}

function LayerName({ layer }: { layer: Layer }) {
  const [draft, setDraft] = useState<string | null>(null);
  const take = () => {
    const name = draft?.trim();
    if (name && name !== layer.name) changeLayer(layer.id, 'Rename layer', (l) => void (l.name = name));
    setDraft(null);
  };
  return (
    <InputBase
      value={draft ?? layer.name}
      inputProps={{ 'aria-label': `Name of the layer ${layer.name}`, maxLength: 200 }}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()}
      sx={{ flex: 1, minWidth: 0, fontSize: 12.5, fontWeight: 600, px: 0.75, color: 'text.secondary' }}
    />
  );
}
