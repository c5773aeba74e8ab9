'use client';
import { useRef } from 'react';
import { itemKindOf } from '@/core/artwork/registry';
import type { Item, PlacedItem } from '@/core/artwork/item';
import { useOpenJob } from '@/store/openJob';
import { useView } from '@/ui/view';
import { Reach } from './Reach';
import type { LayerProps } from './tools/usePointer';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Viewport, type Local } from './viewport';

const GRIPS = [
  [-1, -1, 'lower left corner'],
  [1, -1, 'lower right corner'],
  [1, 1, 'upper right corner'],
  [-1, 1, 'upper left corner'],
  [0, -1, 'lower edge'],
  [1, 0, 'right edge'],
  [0, 1, 'upper edge'],
  [-1, 0, 'left edge'],
] as const;

/** Grips around one picked item: corners keep the ratio (Shift frees it), edges stretch, the knob turns (by 15 degrees with Shift). */
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
  const s = corners.map((c) => toScreen(view, c.x, c.y));
  const mid = (a: number, b: number) => ({ x: (s[a].x + s[b].x) / 2, y: (s[a].y + s[b].y) / 2 });
  const at = [s[0], s[1], s[2], s[3], mid(0, 1), mid(1, 2), mid(2, 3), mid(3, 0)];
  const top = mid(2, 3);
  const centre = { x: (s[0].x + s[2].x) / 2, y: (s[0].y + s[2].y) / 2 };
  const l = Math.hypot(top.x - centre.x, top.y - centre.y) || 1;
  const knob = { x: top.x + ((top.x - centre.x) / l) * 26, y: top.y + ((top.y - centre.y) / l) * 26 };
  return (
    <g>
      <polygon
        points={s.map((c) => `${c.x},${c.y}`).join(' ')}
        fill="none"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="1"
      />
      <line x1={top.x} y1={top.y} x2={knob.x} y2={knob.y} stroke="var(--mui-palette-primary-main)" />
      <TurnGrip item={item} x={knob.x} y={knob.y} view={view} local={local} />
      {GRIPS.map(([gx, gy, name], i) => (
        <ScaleGrip
          key={name}
          item={item}
          gx={gx}
          gy={gy}
          name={name}
          x={at[i].x}
          y={at[i].y}
          corners={corners}
          view={view}
          local={local}
        />
      ))}
    </g>
  );
}

function TurnGrip({ item, x, y, view, local }: { item: Item; x: number; y: number; view: Viewport; local: Local }) {
  const key = useRef<symbol>(undefined);
  const drag = useDrag(local, {
    begin: () => (key.current = Symbol('turn')),
    drag: (p, e) => {
      const w = toWorld(view, p.x, p.y);
      let angle = (Math.atan2(w.y - item.y, w.x - item.x) * 180) / Math.PI - 90;
      angle = e.shiftKey
        ? Math.round(angle / 15) * 15
        : Math.abs(angle - Math.round(angle / 90) * 90) < 2
          ? Math.round(angle / 90) * 90
          : Math.round(angle * 10) / 10;
      useOpenJob
        .getState()
        .edit('Turn', (j) => void (j.items.find((i) => i.id === item.id)!.angle = angle), key.current);
    },
  });
  return (
    <g cursor="grab" role="button" aria-label="Turn" {...drag}>
      <Reach x={x} y={y} />
      <circle
        cx={x}
        cy={y}
        r="6"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="2"
      />
    </g>
  );
}

function ScaleGrip({
  item,
  gx,
  gy,
  name,
  x,
  y,
  corners,
  view,
  local,
}: {
  item: Item;
  gx: number;
  gy: number;
  name: string;
  x: number;
  y: number;
  corners: PlacedItem['corners'];
  view: Viewport;
  local: Local;
}) {
  const start = useRef<{ item: Item; w: number; h: number; fixed: { x: number; y: number }; key: symbol } | null>(null);
  const drag = useDrag(local, {
    begin: () => {
      const w = Math.hypot(corners[1].x - corners[0].x, corners[1].y - corners[0].y);
      const h = Math.hypot(corners[3].x - corners[0].x, corners[3].y - corners[0].y);
      // The opposite corner, or the middle of the opposite edge, stays where it is.
      const f = (sx: number, sy: number) => {
        const u = (1 - sx) / 2;
        const v = (1 - sy) / 2;
        return {
          x: corners[0].x + (corners[1].x - corners[0].x) * u + (corners[3].x - corners[0].x) * v,
          y: corners[0].y + (corners[1].y - corners[0].y) * u + (corners[3].y - corners[0].y) * v,
        };
      };
      start.current = { item, w, h, fixed: f(gx, gy), key: Symbol('scale') };
    },
    drag: (p, e) => {
      const s = start.current;
      if (!s) return;
      const w = toWorld(view, p.x, p.y);
      const t = (s.item.angle * Math.PI) / 180;
      const dx = w.x - s.fixed.x;
      const dy = w.y - s.fixed.y;
      const lx = (dx * Math.cos(t) + dy * Math.sin(t)) * gx;
      const ly = (-dx * Math.sin(t) + dy * Math.cos(t)) * gy;
      let sx = gx ? Math.max(0.02, lx / s.w) : 1;
      let sy = gy ? Math.max(0.02, ly / s.h) : 1;
      if (gx && gy && !e.shiftKey) sx = sy = Math.max(sx, sy);
      const ox = (gx * s.w * sx) / 2;
      const oy = (gy * s.h * sy) / 2;
      useOpenJob.getState().edit(
        'Scale',
        (j) => {
          const i = j.items.find((q) => q.id === s.item.id)!;
          i.values = itemKindOf(i.kind).scaled(s.item.values, sx, sy) as Item['values'];
          i.x = s.fixed.x + ox * Math.cos(t) - oy * Math.sin(t);
          i.y = s.fixed.y + ox * Math.sin(t) + oy * Math.cos(t);
        },
        s.key,
      );
    },
  });
  return (
    <g
      cursor={gx && gy ? (gx === gy ? 'nesw-resize' : 'nwse-resize') : gx ? 'ew-resize' : 'ns-resize'}
      role="button"
      aria-label={`Scale by the ${name}`}
      {...drag}
    >
      <Reach x={x} y={y} />
      <rect
        x={x - 5}
        y={y - 5}
        width="10"
        height="10"
        rx="2"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="2"
      />
    </g>
  );
}
