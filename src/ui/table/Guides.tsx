'use client';
import { useRef, useState } from 'react';
import type { GuideLine } from '@/core/artwork/snap';
import { formatLength } from '@/core/units/length';
import { useOpenJob } from '@/store/openJob';
import { edit, jobNow } from '@/ui/actions/edits';
import { RULER } from './drawPlan';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Viewport, type Local } from './viewport';

/** Guides, and the rulers that they are drawn out of: dragged back over the ruler, one is gone. */
export function Guides({
  guides,
  view,
  local,
  width,
  height,
}: {
  guides: readonly GuideLine[];
  view: Viewport;
  local: Local;
  width: number;
  height: number;
}) {
  return (
    <g>
      <Ruler axis="y" view={view} local={local} width={width} height={REACH} />
      <Ruler axis="x" view={view} local={local} width={REACH} height={height} />
      {guides.map((g, i) => (
        <Line key={i} guide={g} place={i} view={view} local={local} />
      ))}
    </g>
  );
}

/** How wide the strip is that a guide is drawn out of: a finger needs more than the ruler has. */
const REACH = typeof matchMedia !== 'undefined' && matchMedia('(pointer: coarse)').matches ? 44 : RULER;

const cursorOf = (axis: 'x' | 'y') => (axis === 'x' ? 'ew-resize' : 'ns-resize');

/** Half a millimetre steps, so that guides stand at plain numbers. */
const rounded = (v: number): number => Math.round(v * 2) / 2;

function Ruler({
  axis,
  view,
  local,
  width,
  height,
}: {
  axis: 'x' | 'y';
  view: Viewport;
  local: Local;
  width: number;
  height: number;
}) {
  const key = useRef<symbol>(undefined);
  const place = useRef(-1);
  const drag = useDrag(local, {
    begin: () => {
      key.current = Symbol('guide');
      place.current = jobNow()?.guides.length ?? 0;
    },
    drag: (p) => {
      if ((axis === 'x' ? p.x : p.y) < RULER) return;
      const w = toWorld(view, p.x, p.y);
      const at = rounded(axis === 'x' ? w.x : w.y);
      edit('Add guide', (j) => void (j.guides[place.current] = { axis, at }), key.current);
    },
  });
  return (
    <rect
      width={width}
      height={height}
      fill="transparent"
      role="button"
      aria-label={axis === 'x' ? 'Ruler: drag to the right for an upright guide' : 'Ruler: drag down for a level guide'}
      {...drag}
      style={{ pointerEvents: 'auto', cursor: cursorOf(axis) }}
    />
  );
}

function Line({ guide, place, view, local }: { guide: GuideLine; place: number; view: Viewport; local: Local }) {
  const unit = useOpenJob((s) => s.job?.unit ?? 'mm');
  const [held, setHeld] = useState(false);
  const key = useRef<symbol>(undefined);
  const drag = useDrag(local, {
    begin: () => {
      key.current = Symbol('guide');
      setHeld(true);
    },
    drag: (p) => {
      const w = toWorld(view, p.x, p.y);
      const at = rounded(guide.axis === 'x' ? w.x : w.y);
      edit('Move guide', (j) => void (j.guides[place] && (j.guides[place].at = at)), key.current);
    },
    end: (p) => {
      setHeld(false);
      if ((guide.axis === 'x' ? p.x : p.y) < RULER)
        edit('Remove guide', (j) => void j.guides.splice(place, 1), key.current);
    },
  });
  const s = toScreen(view, guide.at, guide.at);
  const line =
    guide.axis === 'x' ? { x1: s.x, x2: s.x, y1: RULER, y2: '100%' } : { x1: RULER, x2: '100%', y1: s.y, y2: s.y };
  return (
    <g>
      <line
        {...line}
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="1"
        strokeDasharray="8 3 2 3"
        opacity="0.8"
      />
      <line
        {...line}
        stroke="transparent"
        strokeWidth="7"
        role="button"
        aria-label={`Guide at ${guide.axis.toUpperCase()} ${formatLength(guide.at, unit)}`}
        {...drag}
        style={{ pointerEvents: 'stroke', cursor: cursorOf(guide.axis) }}
      />
      {held && (
        <text
          x={guide.axis === 'x' ? s.x + 6 : RULER + 6}
          y={guide.axis === 'x' ? RULER + 16 : s.y - 6}
          fontSize="11.5"
          fill="var(--mui-palette-text-primary)"
        >
          {formatLength(guide.at, unit)} {unit}
        </text>
      )}
    </g>
  );
}
