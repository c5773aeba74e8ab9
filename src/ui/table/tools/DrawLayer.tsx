'use client';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import {
  back,
  begin,
  finish,
  move,
  onRadius,
  polar,
  press,
  preview,
  release,
  steady,
  type Drawing,
  type DrawTool,
} from '@/core/artwork/draw';
import { pathData, type Path } from '@/core/geometry/path';
import { formatLength } from '@/core/units/length';
import { addDrawn } from '@/ui/actions/artwork';
import { tell } from '@/ui/actions/tell';
import { setView } from '@/ui/view';
import { toScreen } from '../viewport';
import { CaughtMark } from './CaughtMark';
import { PointerSurface } from './PointerSurface';
import { TypedPoint, TypedRadius } from './TypedPoint';
import { useCatching, type LayerProps } from './usePointer';

const names: Record<DrawTool, string> = {
  line: 'Draw a line',
  curve: 'Draw a curve',
  arc: 'Draw an arc',
  'centred-arc': 'Draw an arc',
};

/** Drawing by pressing on the plan. Enter ends, Escape takes back, pressing the first point closes. */
export function DrawLayer({ tool, job: { unit }, ...on }: LayerProps & { tool: DrawTool }) {
  const { view } = on;
  const [d, setDrawing] = useState<Drawing>(() => begin(tool));
  const now = useRef(d);
  const { caught, read, forget } = useCatching(on, true, () => now.current.points[now.current.points.length - 1]);
  const set = (next: Drawing) => {
    now.current = next;
    setDrawing(next);
  };
  const done = (p: Path | null) => {
    if (p) addDrawn(p, names[tool]);
  };
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if ((e.target as HTMLElement).closest('input, textarea')) return;
      if (e.key === 'Enter') {
        done(finish(now.current));
        set(begin(tool));
      } else if (e.key === 'Escape' || e.key === 'Backspace') {
        const before = back(now.current);
        if (before) set(before);
        else setView({ tool: 'pick' });
      } else return;
      e.preventDefault();
      e.stopImmediatePropagation();
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  });
  const place = (x: number, y: number) => {
    const r = press(now.current, x, y, 8 / view.k);
    set(r.done ? begin(tool) : r.drawing);
    done(r.done);
  };
  const where = (e: PointerEvent) => {
    const p = read(e);
    return e.shiftKey && !now.current.dragging ? steady(now.current, p.x, p.y) : p;
  };
  const shown = preview(d);
  const last = d.points[d.points.length - 1];
  const end = d.at && last ? toScreen(view, d.at.x, d.at.y) : null;
  return (
    <g>
      <PointerSurface
        onPress={(e) => {
          const p = where(e);
          place(p.x, p.y);
        }}
        onMove={(e) => {
          const p = where(e);
          set(move(now.current, p.x, p.y));
        }}
        onRelease={() => set(release(now.current))}
        onLeave={forget}
      />
      {shown && (
        <path
          d={pathData([shown])}
          transform={`matrix(${view.k} 0 0 ${-view.k} ${view.ox} ${view.oy})`}
          fill="none"
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
        />
      )}
      {d.points.map((p, i) => {
        const s = toScreen(view, p.x, p.y);
        const h = toScreen(view, p.x + p.hx, p.y + p.hy);
        return (
          <g key={i} pointerEvents="none">
            {(p.hx !== 0 || p.hy !== 0) && (
              <line x1={2 * s.x - h.x} y1={2 * s.y - h.y} x2={h.x} y2={h.y} stroke="var(--mui-palette-brass)" />
            )}
            <rect
              x={s.x - 4}
              y={s.y - 4}
              width="8"
              height="8"
              rx="1.5"
              fill="var(--mui-palette-background-paper)"
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="2"
            />
          </g>
        );
      })}
      {end && !d.dragging && (
        <text
          x={end.x + 12}
          y={end.y + 18}
          fontSize="11.5"
          fill="var(--mui-palette-text-primary)"
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="3"
          paintOrder="stroke"
          pointerEvents="none"
        >
          {formatLength(Math.hypot(d.at!.x - last.x, d.at!.y - last.y), unit)} {unit} {'\u00b7'}{' '}
          {((Math.atan2(d.at!.y - last.y, d.at!.x - last.x) * 180) / Math.PI).toFixed(1)}
          {'\u00b0'}
        </text>
      )}
      <CaughtMark caught={caught} view={view} />
      {tool === 'arc' && d.points.length === 2 && (
        <TypedRadius
          unit={unit}
          onRadius={(radius) => {
            const p = onRadius(now.current, radius);
            if (!p) return tell('info', 'The ends of the arc are further apart than a circle of this radius is wide.');
            place(p.x, p.y);
          }}
        />
      )}
      {last && !(tool === 'arc' && d.points.length > 1) && !(tool === 'centred-arc' && d.points.length > 2) && (
        <TypedPoint
          unit={unit}
          onPoint={(length, angle) => {
            const p = polar(now.current, length, angle);
            if (p) place(p.x, p.y);
            set(release(now.current));
          }}
        />
      )}
    </g>
  );
}
