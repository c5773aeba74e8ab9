'use client';
import { useRef } from 'react';
import { itemKindOf } from '@/core/artwork/registry';
import type { Item, PlacedItem } from '@/core/artwork/item';
import { useOpenJob } from '@/store/openJob';
import { useView } from '@/ui/view';
import { Grips, middleOf, type Pulled } from './Grips';
import type { LayerProps } from './tools/usePointer';
import type { Viewport, Local } from './viewport';

/** Grips around one picked item. */
export function Handles({ view, local, placed, job: { items } }: LayerProps) {
  const picked = useView((v) => v.picked);
  const item = picked.length === 1 ? items.find((i) => i.id === picked[0]) : undefined;
  const frame = item && placed.get(item.id);
  return frame ? <One item={item} corners={frame.corners} view={view} local={local} /> : null;
}

function One({
  item,
  corners,
  view,
  local,
}: {
  item: Item;
  corners: PlacedItem['corners'];
  view: Viewport;
  local: Local;
}) {
  // It is scaled from what it was when it was taken hold of.
  const held = useRef<{ key: symbol; item: Item } | null>(null);
  const change = (name: string, recipe: (i: Item) => void, key: symbol) =>
    useOpenJob.getState().edit(name, (j) => recipe(j.items.find((i) => i.id === item.id)!), key);
  const pull = (by: Pulled, key: symbol) => {
    if (held.current?.key !== key) held.current = { key, item };
    const was = held.current.item;
    change(
      'Scale',
      (i) => {
        i.values = itemKindOf(i.kind).scaled(was.values, by.sx, by.sy) as Item['values'];
        Object.assign(i, middleOf(by, by.w * by.sx, by.h * by.sy, was.angle));
      },
      key,
    );
  };
  return (
    <Grips
      corners={corners}
      angle={item.angle}
      middle={item}
      view={view}
      local={local}
      turn={(angle, key) => change('Turn', (i) => void (i.angle = angle), key)}
      pull={pull}
    />
  );
}
