'use client';
import { useRef } from 'react';
import { useWork } from '@/compute/useWork';
import { useOpenJob } from '@/store/openJob';
import { moveTab, removeTab } from '@/ui/actions/edits';
import { cutColour } from '@/ui/theme/theme';
import { useView } from '@/ui/view';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Viewport, type Local } from './viewport';
import type { Merge } from '@/store/steps';

/** Holding tabs of the cut that is being edited; each can be dragged along its outline, or taken away by Delete. */
export function TabMarks({ view, local }: { view: Viewport; local: Local }) {
  const cutId = useView((v) => v.cutId);
  const index = useOpenJob((s) => s.job!.cuts.findIndex((c) => c.id === cutId));
  const tabs = useWork((w) => (cutId ? w.cuts[cutId]?.plan.tabs : undefined));
  if (!cutId || index < 0 || !tabs?.length) return null;
  return (
    <g>
      {tabs.map((t, i) => (
        <TabMark
          key={i}
          index={i}
          cutId={cutId}
          colour={cutColour(index)}
          view={view}
          local={local}
          tabs={tabs}
          length={t.length}
        />
      ))}
    </g>
  );
}

function TabMark({
  index,
  cutId,
  colour,
  view,
  local,
  tabs,
  length,
}: {
  index: number;
  cutId: string;
  colour: string;
  view: Viewport;
  local: Local;
  tabs: readonly { x: number; y: number; dx: number; dy: number }[];
  length: number;
}) {
  const t = tabs[index];
  const key = useRef<symbol>(undefined);
  // While it is dragged, the other tabs stay where they are: the first move gives all of them their places.
  const places = useRef<{ x: number; y: number }[]>([]);
  const put = (x: number, y: number, merge?: Merge) => moveTab(cutId, index, places.current, x, y, merge);
  const take = () => (places.current = tabs.map(({ x, y }) => ({ x, y })));
  const drag = useDrag(local, {
    begin: () => {
      key.current = Symbol('tab');
      take();
    },
    drag: (p) => {
      const w = toWorld(view, p.x, p.y);
      put(w.x, w.y, key.current);
    },
  });
  const p = toScreen(view, t.x, t.y);
  const w = Math.max(12, length * view.k);
  const turn = (-Math.atan2(t.dy, t.dx) * 180) / Math.PI;
  return (
    <rect
      x={p.x - w / 2}
      y={p.y - 5.5}
      width={w}
      height={11}
      rx={3}
      transform={`rotate(${turn} ${p.x} ${p.y})`}
      fill={colour}
      stroke="var(--mui-palette-background-paper)"
      strokeWidth="1.5"
      cursor="grab"
      tabIndex={0}
      role="button"
      aria-label={`Holding tab ${index + 1}`}
      {...drag}
      onDoubleClick={(e) => e.stopPropagation()}
      onKeyDown={(e) => {
        if (e.key === 'Delete' || e.key === 'Backspace') {
          e.preventDefault();
          e.stopPropagation();
          return removeTab(cutId, index);
        }
        const step = e.shiftKey ? 10 : 2;
        const d = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
        if (!d) return;
        e.preventDefault();
        e.stopPropagation();
        take();
        put(t.x + d[0], t.y + d[1], `tab-key-${index}`);
      }}
    />
  );
}
