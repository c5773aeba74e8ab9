'use client';
import { useMemo } from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import { pathData } from '@/core/geometry/path';
import { datumOf, type OneSetup } from '@/core/job/job';
import { useView } from '@/ui/view';
import { RULER } from './drawPlan';
import type { Snap } from './snapping';
import type { Gesture } from './usePlanGestures';
import { toScreen, type Viewport } from './viewport';

interface Props {
  readonly job: OneSetup;
  readonly placed: ReadonlyMap<string, PlacedItem>;
  readonly view: Viewport;
  readonly gesture: Gesture | null;
  readonly snap: Snap | null;
}

/** What lies over the plan under all that can be taken hold of: the datum, what the pointer is over, what a gesture shows. */
export function MarksBelow({ job, placed, view, gesture, snap }: Props) {
  const hovered = useView((v) => (v.hovered && !v.picked.includes(v.hovered) ? v.hovered : null));
  const datum = datumOf(job.blank);
  return (
    <>
      {hovered && !gesture && placed.get(hovered) && <Hovered placed={placed.get(hovered)!} view={view} />}
      <Datum {...toScreen(view, datum.x, datum.y)} colour="var(--mui-palette-primary-main)" />
      {snap?.xs.map((x) => (
        <line
          key={`x${x}`}
          x1={toScreen(view, x, 0).x}
          x2={toScreen(view, x, 0).x}
          y1={RULER}
          y2="100%"
          stroke="var(--mui-palette-brass)"
          strokeDasharray="4 3"
        />
      ))}
      {snap?.ys.map((y) => (
        <line
          key={`y${y}`}
          y1={toScreen(view, 0, y).y}
          y2={toScreen(view, 0, y).y}
          x1={RULER}
          x2="100%"
          stroke="var(--mui-palette-brass)"
          strokeDasharray="4 3"
        />
      ))}
      {gesture?.kind === 'box' && <PickingBox {...gesture} view={view} />}
    </>
  );
}

/** A finding that is shown, and the move of a line of program text: over everything else. */
export function MarksAbove({ view }: { view: Viewport }) {
  const marked = useView((v) => v.marked);
  const lit = useView((v) => (v.stage === 'run' ? v.lit : null));
  return (
    <>
      {lit && (
        <polyline
          points={Array.from({ length: lit.points.length / 2 }, (_, i) =>
            toScreen(view, lit.points[2 * i], lit.points[2 * i + 1]),
          )
            .map((p) => `${p.x},${p.y}`)
            .join(' ')}
          fill="none"
          stroke="var(--mui-palette-brass)"
          strokeWidth="5"
          strokeLinecap="round"
          strokeLinejoin="round"
          role="img"
          aria-label={`Line ${lit.line}`}
        />
      )}
      {marked && (
        <g>
          <circle
            cx={toScreen(view, marked.x, marked.y).x}
            cy={toScreen(view, marked.x, marked.y).y}
            r="13"
            fill="none"
            stroke="var(--mui-palette-error-main)"
            strokeWidth="3"
          />
          <circle
            cx={toScreen(view, marked.x, marked.y).x}
            cy={toScreen(view, marked.x, marked.y).y}
            r="3"
            fill="var(--mui-palette-error-main)"
          />
        </g>
      )}
    </>
  );
}

function PickingBox({ x0, y0, x1, y1, view }: Extract<Gesture, { kind: 'box' }> & { view: Viewport }) {
  const a = toScreen(view, Math.min(x0, x1), Math.max(y0, y1));
  const b = toScreen(view, Math.max(x0, x1), Math.min(y0, y1));
  return (
    <rect
      x={a.x}
      y={a.y}
      width={b.x - a.x}
      height={b.y - a.y}
      fill="var(--mui-palette-primary-main)"
      fillOpacity="0.1"
      stroke="var(--mui-palette-primary-main)"
      strokeDasharray={x1 < x0 ? '5 4' : undefined}
    />
  );
}

/** The datum: a ring with its two axes. */
function Datum({ x, y, colour }: { x: number; y: number; colour: string }) {
  return (
    <g stroke={colour} strokeWidth="2" fill="none" role="img" aria-label="Datum">
      <path d={`M${x} ${y}h30M${x} ${y}v-30`} />
      <circle cx={x} cy={y} r="5.5" fill="var(--mui-palette-background-paper)" />
    </g>
  );
}

/** What the pointer is over, here or in the list. */
function Hovered({ placed, view }: { placed: PlacedItem; view: Viewport }) {
  const d = useMemo(() => pathData(placed.paths, 3), [placed]);
  const { k, ox, oy } = view;
  return (
    <path
      d={d}
      transform={`matrix(${k} 0 0 ${-k} ${ox} ${oy})`}
      fill="none"
      stroke="var(--mui-palette-primary-main)"
      strokeOpacity="0.65"
      strokeWidth="2.5"
      vectorEffect="non-scaling-stroke"
    />
  );
}
