'use client';
import { useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { Reach } from './Reach';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

const held = (at: number) => Math.min(1, Math.max(0, at));

/** The line between the relief and what is shown beside it: dragged, or moved by arrows. */
export function SplitLine({ view, local }: { view: Viewport; local: Local }) {
  const split = useView((v) => v.split);
  const { width, height } = useOpenJob((s) => s.job!.blank);
  const to = (at: number) => setView((v) => (v.split ? { split: { ...v.split, at: held(at) } } : v));
  const drag = useDrag(local, { drag: (p) => to(toWorld(view, p.x, p.y).x / width) });
  if (!split) return null;
  const top = toScreen(view, split.at * width, height);
  const bottom = toScreen(view, split.at * width, 0);
  const middle = (top.y + bottom.y) / 2;
  return (
    <g
      cursor="ew-resize"
      tabIndex={0}
      role="slider"
      aria-label="Line between both"
      aria-orientation="horizontal"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * split.at)}
      {...drag}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        to(split.at + by * (e.shiftKey ? 0.1 : 0.01));
      }}
    >
      <line x1={top.x} y1={top.y} x2={bottom.x} y2={bottom.y} stroke="#fff" strokeWidth={4} opacity={0.8} />
      <line
        x1={top.x}
        y1={top.y}
        x2={bottom.x}
        y2={bottom.y}
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={2}
      />
      <Reach x={top.x} y={middle} />
      <circle
        cx={top.x}
        cy={middle}
        r={9}
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={2}
      />
      <path
        d={`M${top.x - 2} ${middle - 4}l-3.5 4l3.5 4M${top.x + 2} ${middle - 4}l3.5 4l-3.5 4`}
        fill="none"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={1.5}
      />
    </g>
  );
}
