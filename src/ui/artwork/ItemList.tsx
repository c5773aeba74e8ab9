'use client';
import AddRounded from '@mui/icons-material/AddRounded';
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
import { useMemo, useRef, useState, type DragEvent, type HTMLAttributes, type KeyboardEvent } from 'react';
import type { Item, PlacedItem } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import type { Group, Job, Layer } from '@/core/job/job';
import { addLayer, changeLayer, copiesToLayer, deleteLayer, moveLayer, pickedToLayer } from '@/ui/actions/artwork';
import { changeItem, moveRows, pickItem } from '@/ui/actions/edits';
import { openMenu, setView, useView } from '@/ui/view';
import { Thumbnail } from './Thumbnail';

type Row = { key: string; depth: number } & ({ of: 'layer'; layer: Layer; count: number } | { of: 'group'; group: Group; items: string[] } | { of: 'item'; item: Item });

/** Height of a row: enough for a finger where one points with it. */
const ROW = typeof matchMedia !== 'undefined' && matchMedia('(pointer: coarse)').matches ? 44 : 34;
/** Rows that are made beyond what is seen. */
const SPARE = 6;

/** Layers (when there are several), groups that open and close, and items, as rows from top to bottom. */
function rowsOf(job: Job, open: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const groups = new Map(job.groups.map((g) => [g.id, g]));
  const chain = (id: string | null): Group[] => {
    const out: Group[] = [];
    for (let g = id ? groups.get(id) : undefined; g && out.length < 50; g = g.parent ? groups.get(g.parent) : undefined) out.unshift(g);
    return out;
  };
  const several = job.layers.length > 1;
  for (const layer of job.layers) {
    const items = job.items.filter((i) => i.layer === layer.id);
    if (several) rows.push({ key: layer.id, depth: 0, of: 'layer', layer, count: items.length });
    if (several && open.has(`shut ${layer.id}`)) continue;
    const members = new Map<string, string[]>();
    const shown = new Set<string>();
    const chains = new Map(items.map((i) => [i.id, chain(i.group)]));
    for (const i of items)
      for (const g of chains.get(i.id)!) {
        const list = members.get(g.id);
        if (list) list.push(i.id);
        else members.set(g.id, [i.id]);
      }
    for (const i of items) {
      const way = chains.get(i.id)!;
      let hidden = false;
      // A group of which only one thing lies on this layer says nothing here.
      const told = way.filter((g) => members.get(g.id)!.length > 1 || !several);
      told.forEach((g, k) => {
        if (!hidden && !shown.has(g.id)) {
          shown.add(g.id);
          rows.push({ key: `${layer.id} ${g.id}`, depth: k + (several ? 1 : 0), of: 'group', group: g, items: members.get(g.id)! });
        }
        if (!open.has(g.id)) hidden = true;
      });
      if (!hidden) rows.push({ key: i.id, depth: told.length + (several ? 1 : 0), of: 'item', item: i });
    }
  }
  return rows;
}

/** The list of what is drawn. Only rows in sight are made, so that thousands of items cost nothing. */
export function ItemList({ job, picked, placed }: { job: Job; picked: readonly string[]; placed: ReadonlyMap<string, PlacedItem> }) {
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [top, setTop] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(job, open), [job, open]);
  const chosen = useMemo(() => new Set(picked), [picked]);
  const height = Math.min(rows.length * ROW, 10 * ROW);
  const from = Math.max(0, Math.floor(top / ROW) - SPARE);
  const to = Math.min(rows.length, Math.ceil((top + height) / ROW) + SPARE);
  const toggle = (key: string) => setOpen((o) => (o.has(key) ? new Set([...o].filter((k) => k !== key)) : new Set([...o, key])));
  /** Arrows go from row to row; Home and End to the first and the last. */
  const walk = (e: KeyboardEvent) => {
    if (!(e.target as HTMLElement).matches('[role="treeitem"]')) return;
    const at = rows.findIndex((r) => r.key === (e.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row);
    const here = rows[at];
    if (here?.of === 'group' && (e.key === 'ArrowRight' || e.key === 'ArrowLeft') && open.has(here.group.id) !== (e.key === 'ArrowRight')) {
      e.preventDefault();
      return toggle(here.group.id);
    }
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[e.key];
    if (next === undefined) return;
    e.preventDefault();
    const step = next < at ? -1 : 1;
    let k = Math.min(rows.length - 1, Math.max(0, next));
    while (rows[k]?.of === 'layer') k += e.key === 'Home' ? 1 : step;
    const row = rows[k];
    if (!row || row.of === 'layer') return;
    setView({ picked: row.of === 'group' ? row.items : [row.item.id] });
    const el = box.current!;
    if (k * ROW < el.scrollTop) el.scrollTop = k * ROW;
    if ((k + 1) * ROW > el.scrollTop + el.clientHeight) el.scrollTop = (k + 1) * ROW - el.clientHeight;
    setTop(el.scrollTop);
    requestAnimationFrame(() => el.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.key)}"] [role="treeitem"]`)?.focus());
  };
  return (
    <Box sx={{ mb: 1 }}>
      <Box ref={box} role="tree" aria-multiselectable="true" aria-label="Items" onKeyDown={walk} onMouseDown={(e) => e.shiftKey && e.preventDefault()} onScroll={(e) => setTop(e.currentTarget.scrollTop)} sx={{ px: 1, height, overflowY: 'auto', position: 'relative' }}>
        <Box sx={{ height: rows.length * ROW, position: 'relative' }}>
          {rows.slice(from, to).map((r, k) => (
            <Box key={r.key} data-row={r.key} sx={{ position: 'absolute', top: (from + k) * ROW, left: 0, right: 0, height: ROW, pl: r.depth * 1.5 }}>
              {r.of === 'layer' ? (
                <LayerRow layer={r.layer} count={r.count} shut={open.has(`shut ${r.layer.id}`)} toggle={() => toggle(`shut ${r.layer.id}`)} index={job.layers.indexOf(r.layer)} hasPick={picked.length > 0} />
              ) : r.of === 'group' ? (
                <GroupRow depth={r.depth} group={r.group} layer={job.items.find((i) => i.id === r.items[0])!.layer} items={r.items} open={open.has(r.group.id)} toggle={() => toggle(r.group.id)} on={r.items.every((i) => chosen.has(i))} />
              ) : (
                <ItemRow depth={r.depth} item={r.item} placed={placed.get(r.item.id)} on={chosen.has(r.item.id)} />
              )}
            </Box>
          ))}
        </Box>
      </Box>
      {job.items.length > 0 && (
        <Button size="small" color="inherit" startIcon={<AddRounded />} onClick={addLayer} sx={{ ml: 1.5, mt: 0.5, color: 'text.secondary', fontSize: 12 }}>
          Layer
        </Button>
      )}
    </Box>
  );
}

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
function useRowDrag(what: () => Parameters<typeof moveRows>[0], to: Parameters<typeof moveRows>[1]): { over: boolean; drag: HTMLAttributes<HTMLElement> & { draggable: boolean } } {
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

/** A row of the tree: pressed, or entered by key, it picks. */
const asRow = (depth: number, on: boolean, pick: (add: boolean) => void): HTMLAttributes<HTMLElement> => ({
  role: 'treeitem',
  tabIndex: 0,
  'aria-level': depth + 1,
  'aria-selected': on,
  onClick: (e) => onRow(e) && pick(e.shiftKey || e.ctrlKey || e.metaKey),
  onKeyDown: (e) => {
    if (!onRow(e) || (e.key !== 'Enter' && e.key !== ' ')) return;
    e.preventDefault();
    pick(e.shiftKey || e.ctrlKey || e.metaKey);
  },
});

const dropMark = { boxShadow: 'inset 0 -2px 0 var(--mui-palette-primary-main)' };

function ItemRow({ item: i, placed, on, depth }: { item: Item; placed: PlacedItem | undefined; on: boolean; depth: number }) {
  const { over, drag } = useRowDrag(() => ({ items: on ? useView.getState().picked : [i.id] }), { group: i.group, layer: i.layer, below: i.id });
  const [name, setName] = useState<string | null>(null);
  const lit = useView((v) => v.hovered === i.id);
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
            if (e.key === 'Enter') take();
            else if (e.key === 'Escape') {
              e.stopPropagation();
              setName(null);
            }
          }}
          sx={{ flex: 1, px: 1, fontSize: 13 }}
        />
      </Box>
    );
  return (
    <Box
      {...drag}
      {...asRow(depth, on, (add) => pickItem(i.id, add))}
      onDoubleClick={(e) => onRow(e) && setName(i.name)}
      onContextMenu={(e) => {
        if (!on) pickItem(i.id, false);
        openMenu(e, 'items');
      }}
      onPointerEnter={() => setView({ hovered: i.id })}
      onPointerLeave={() => setView({ hovered: null })}
      sx={{ ...rowStyle(on), ...(lit && !on && { bgcolor: 'background.paper' }), ...(over && dropMark) }}
    >
      <Box sx={{ flex: 1, display: 'flex', alignItems: 'center', gap: 1, px: 1, height: ROW, minWidth: 0, borderRadius: 2, fontSize: 13, opacity: i.visible ? 1 : 0.5, fontWeight: on ? 600 : 450 }}>
        <Thumbnail placed={placed} picture={i.kind === 'picture'} />
        <Box component="span" sx={nameStyle} title={i.name}>
          {i.name}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, fontWeight: 400, whiteSpace: 'nowrap' }}>
          {itemKindOf(i.kind).name.toLowerCase()}
        </Box>
      </Box>
      <IconButton size="small" title={i.visible ? 'Hide' : 'Show'} aria-label={`${i.visible ? 'Hide' : 'Show'} ${i.name}`} onClick={() => changeItem(i.id, i.visible ? 'Hide item' : 'Show item', (q) => void (q.visible = !q.visible))}>
        {i.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
      </IconButton>
    </Box>
  );
}

function GroupRow({ group, layer, items, open, toggle, on, depth }: { group: Group; layer: string; items: string[]; open: boolean; toggle: () => void; on: boolean; depth: number }) {
  const { over, drag } = useRowDrag(() => ({ group: group.id }), { group: group.id, layer });
  return (
    <Box
      {...drag}
      {...asRow(depth, on, () => setView({ picked: items }))}
      aria-expanded={open}
      onContextMenu={(e) => {
        if (!on) setView({ picked: items });
        openMenu(e, 'items');
      }}
      title="Drag things here to put them into this group"
      sx={{ ...rowStyle(on), ...(over && { boxShadow: 'inset 0 0 0 2px var(--mui-palette-primary-main)' }) }}
    >
      <IconButton size="small" aria-label={`${open ? 'Close' : 'Open'} the group ${group.name}`} onClick={toggle}>
        {open ? <ExpandMoreRounded fontSize="small" /> : <ChevronRightRounded fontSize="small" />}
      </IconButton>
      <Box sx={{ flex: 1, display: 'flex', alignItems: 'center', gap: 1, pr: 1, height: ROW, minWidth: 0, borderRadius: 2, fontSize: 13, fontWeight: on ? 600 : 450 }}>
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

function LayerRow({ layer, count, shut, toggle, index, hasPick }: { layer: Layer; count: number; shut: boolean; toggle: () => void; index: number; hasPick: boolean }) {
  const drop = (e: DragEvent) => {
    e.preventDefault();
    const id = e.dataTransfer.getData('text/mirvak-layer');
    if (id && id !== layer.id) moveLayer(id, index);
    // Rows dropped on a layer leave their groups.
    const rows = e.dataTransfer.getData(ROWS);
    if (rows) moveRows(JSON.parse(rows), { group: null, layer: layer.id });
  };
  const accept = (e: DragEvent) => (e.dataTransfer.types.includes('text/mirvak-layer') || e.dataTransfer.types.includes(ROWS)) && e.preventDefault();
  return (
    <Box role="treeitem" aria-level={1} aria-expanded={!shut} aria-selected={false} aria-label={`Layer ${layer.name}`} sx={{ display: 'flex', alignItems: 'center', height: ROW, opacity: layer.visible ? 1 : 0.55 }} draggable onDragStart={(e) => e.dataTransfer.setData('text/mirvak-layer', layer.id)} onDragEnter={accept} onDragOver={accept} onDrop={drop}>
      <IconButton size="small" aria-label={`${shut ? 'Open' : 'Fold'} the layer ${layer.name}`} onClick={toggle}>
        {shut ? <ChevronRightRounded fontSize="small" /> : <ExpandMoreRounded fontSize="small" />}
      </IconButton>
      <Box component="input" type="color" aria-label={`Colour of the layer ${layer.name}`} value={layer.colour} onChange={(e: React.ChangeEvent<HTMLInputElement>) => changeLayer(layer.id, 'Change layer colour', (l) => void (l.colour = e.target.value), `colour-${layer.id}`)} sx={{ width: 16, height: 16, p: 0, border: 0, borderRadius: '50%', flex: 'none', cursor: 'pointer', bgcolor: 'transparent', '&::-webkit-color-swatch-wrapper': { p: 0 }, '&::-webkit-color-swatch': { border: '1px solid', borderColor: 'divider', borderRadius: '50%' } }} />
      <LayerName layer={layer} />
      <Box component="span" sx={{ color: 'text.secondary', fontSize: 12, mr: 0.5 }}>
        {count}
      </Box>
      {hasPick && (
        <Button size="small" color="inherit" title="Move what is picked to this layer" onClick={() => pickedToLayer(layer.id)} sx={{ minWidth: 0, px: 0.75, fontSize: 11.5 }}>
          Move here
        </Button>
      )}
      {hasPick && (
        <IconButton size="small" title="Copy what is picked to this layer" aria-label={`Copy what is picked to the layer ${layer.name}`} onClick={() => copiesToLayer(layer.id)}>
          <ContentCopyRounded sx={{ fontSize: 16 }} />
        </IconButton>
      )}
      <IconButton size="small" title={layer.locked ? 'Unlock' : 'Lock'} aria-label={`${layer.locked ? 'Unlock' : 'Lock'} the layer ${layer.name}`} onClick={() => changeLayer(layer.id, layer.locked ? 'Unlock layer' : 'Lock layer', (l) => void (l.locked = !l.locked))}>
        {layer.locked ? <LockRounded fontSize="small" /> : <LockOpenRounded fontSize="small" />}
      </IconButton>
      <IconButton size="small" title={layer.visible ? 'Hide' : 'Show'} aria-label={`${layer.visible ? 'Hide' : 'Show'} the layer ${layer.name}`} onClick={() => changeLayer(layer.id, layer.visible ? 'Hide layer' : 'Show layer', (l) => void (l.visible = !l.visible))}>
        {layer.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
      </IconButton>
      {count === 0 && (
        <IconButton size="small" title="Delete" aria-label={`Delete the layer ${layer.name}`} onClick={() => deleteLayer(layer.id)}>
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
  return <InputBase value={draft ?? layer.name} inputProps={{ 'aria-label': `Name of the layer ${layer.name}`, maxLength: 200 }} onChange={(e) => setDraft(e.target.value)} onBlur={take} onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()} sx={{ flex: 1, minWidth: 0, fontSize: 12.5, fontWeight: 600, px: 0.75, color: 'text.secondary' }} />;
}

