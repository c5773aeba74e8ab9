'use client';
import { hotkeysCoreFeature, syncDataLoaderFeature, type ItemInstance } from '@headless-tree/core';
import { useTree } from '@headless-tree/react';
import AddRounded from '@mui/icons-material/AddRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import type { OneSetup } from '@/core/job/job';
import { addLayer } from '@/ui/actions/layers';
import { pickItem } from '@/ui/actions/edits';
import { setView } from '@/ui/view';
import { GroupRow, ItemRow, LayerRow, ROW, type RowProps } from './ItemRows';
import { itemTree, ROOT, type Entry } from './itemTree';

/** Rows that are made beyond what is seen. */
const SPARE = 6;

/** The list of what is drawn: a tree that is walked by arrows. Only rows in sight are made, so that thousands of items cost nothing. */
export function ItemList({
  job,
  picked,
  placed,
}: {
  job: OneSetup;
  picked: readonly string[];
  placed: ReadonlyMap<string, PlacedItem>;
}) {
  // The tree is the same object whatever it holds: what is read from it is read each time.
  'use no memo';
  /** Groups that were opened and layers that were shut: the others are as they come. */
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const [focused, setFocused] = useState<string | null>(null);
  const [top, setTop] = useState(0);
  const box = useRef<HTMLElement>(null);
  const chosen = useMemo(() => new Set(picked), [picked]);
  const { entries, children } = useMemo(() => itemTree(job), [job]);
  const isLayer = (id: string) => entries.get(id)?.of === 'layer';
  const open = useMemo(
    () => [...children.keys()].filter((id) => (entries.get(id)?.of === 'layer') !== turned.has(id)),
    [children, entries, turned],
  );

  const tree = useTree<Entry | null>({
    rootItemId: ROOT,
    state: { expandedItems: open, focusedItem: focused },
    setExpandedItems: (next) => {
      const now = new Set(typeof next === 'function' ? next(open) : next);
      setTurned(new Set([...children.keys()].filter((id) => now.has(id) !== isLayer(id))));
    },
    // Arrows take what they come to.
    setFocusedItem: (next) => {
      const id = typeof next === 'function' ? next(focused) : next;
      setFocused(id);
      const entry = id ? entries.get(id) : undefined;
      if (entry?.of === 'item') pickItem(entry.item.id, false);
      else if (entry?.of === 'group') setView({ picked: [...entry.items] });
    },
    getItemName: (i) => nameOf(i.getItemData()),
    isItemFolder: (i) => children.has(i.getId()),
    dataLoader: { getItem: (id) => entries.get(id) ?? null, getChildren: (id) => children.get(id) ?? [] },
    scrollToItem: (i) => {
      const el = box.current!;
      const at = i.getItemMeta().index * ROW;
      if (at < el.scrollTop) el.scrollTop = at;
      if (at + ROW > el.scrollTop + el.clientHeight) el.scrollTop = at + ROW - el.clientHeight;
      setTop(el.scrollTop);
    },
    features: [syncDataLoaderFeature, hotkeysCoreFeature],
  });
  useLayoutEffect(() => tree.rebuildTree(), [tree, entries]);

  // Between a change and the tree made anew, rows of what is gone are passed over.
  const rows = tree.getItems().filter((i) => entries.has(i.getId()));
  const height = Math.min(rows.length * ROW, 10 * ROW);
  const from = Math.max(0, Math.floor(top / ROW) - SPARE);
  const shown = rows.slice(from, Math.ceil((top + height) / ROW) + SPARE);
  // Tab comes to the row where one was, else to what is picked, else to the first.
  const entry = [focused, picked[0]].find((id) => id && rows.some((r) => r.getId() === id)) ?? rows[0]?.getId();
  const { ref: _ref, ...container } = tree.getContainerProps('Items');
  const hold = useCallback(
    (e: HTMLElement | null) => {
      tree.registerElement(e);
      box.current = e;
    },
    [tree],
  );
  const row = (i: ItemInstance<Entry | null>): RowProps => {
    // What is written on a row is its name; pressing it is this list's own matter.
    const { onClick: _press, 'aria-label': _name, ...props } = i.getProps() as RowProps;
    return { ...props, 'aria-level': i.getItemMeta().level + 1, tabIndex: i.getId() === entry ? 0 : -1 };
  };
  const toggle = (i: ItemInstance<Entry | null>) => () => (i.isExpanded() ? i.collapse() : i.expand());
  return (
    <Box sx={{ mb: 1 }}>
      <Box
        {...container}
        ref={hold}
        aria-multiselectable="true"
        onMouseDown={(e) => e.shiftKey && e.preventDefault()}
        onScroll={(e) => setTop(e.currentTarget.scrollTop)}
        sx={{ px: 1, height, overflowY: 'auto', position: 'relative' }}
      >
        <Box sx={{ height: rows.length * ROW, position: 'relative' }}>
          {shown.map((i, k) => {
            const e = entries.get(i.getId())!;
            return (
              <Box
                key={i.getId()}
                sx={{
                  position: 'absolute',
                  top: (from + k) * ROW,
                  left: 0,
                  right: 0,
                  height: ROW,
                  pl: i.getItemMeta().level * 1.5,
                }}
              >
                {e.of === 'layer' ? (
                  <LayerRow
                    layer={e.layer}
                    count={e.count}
                    shut={!i.isExpanded()}
                    toggle={toggle(i)}
                    index={job.layers.indexOf(e.layer)}
                    hasPick={picked.length > 0}
                    row={row(i)}
                  />
                ) : e.of === 'group' ? (
                  <GroupRow
                    group={e.group}
                    layer={e.layer}
                    items={e.items}
                    open={i.isExpanded()}
                    toggle={toggle(i)}
                    on={e.items.every((q) => chosen.has(q))}
                    row={row(i)}
                    pick={() => {
                      setFocused(i.getId());
                      setView({ picked: [...e.items] });
                    }}
                  />
                ) : (
                  <ItemRow
                    item={e.item}
                    placed={placed.get(e.item.id)}
                    on={chosen.has(e.item.id)}
                    row={row(i)}
                    pick={(add) => {
                      setFocused(i.getId());
                      pickItem(e.item.id, add);
                    }}
                  />
                )}
              </Box>
            );
          })}
        </Box>
      </Box>
      {job.items.length > 0 && (
        <Button
          size="small"
          color="inherit"
          startIcon={<AddRounded />}
          onClick={addLayer}
          sx={{ ml: 1.5, mt: 0.5, color: 'text.secondary', fontSize: 12 }}
        >
          Layer
        </Button>
      )}
    </Box>
  );
}

const nameOf = (e: Entry | null): string =>
  e === null ? '' : e.of === 'layer' ? e.layer.name : e.of === 'group' ? e.group.name : e.item.name;
