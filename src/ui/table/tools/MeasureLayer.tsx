'use client';
import { useEffect, useState } from 'react';
import { angleAt, radiusAt } from '@/core/artwork/measure';
import { formatLength } from '@/core/units/length';
import { setView } from '@/ui/view';
import { toScreen } from '../viewport';
import { CaughtMark } from './CaughtMark';
import { PointerSurface } from './PointerSurface';
import { useCatching, type LayerProps } from './usePointer';

interface Point {
  x: number;
  y: number;
}

/** From one pressed point to the next: distance, across, up, and direction; a third gives the angle at the second. Over a round outline, its radius. */
export function MeasureLayer({ job: { unit }, ...on }: LayerProps) {
  const { view } = on;
  const { caught, read, forget } = useCatching(on, false);
  const [from, setFrom] = useState<Point | null>(null);
  const [to, setTo] = useState<Point | null>(null);
  const [at, setAt] = useState<Point | null>(null);
  const [third, setThird] = useState<Point | null>(null);
  const round = at && !from ? radiusAt(on.index.near(at.x, at.y, 9 / view.k), at.x, at.y, 9 / view.k) : null;
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (e.key !== 'Escape') return;
      e.stopImmediatePropagation();
      if (from) {
        setFrom(null);
        setTo(null);
        setThird(null);
      } else setView({ tool: 'pick' });
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  }, [from]);
  const end = to ?? at;
  const a = from && toScreen(view, from.x, from.y);
  const b = from && end && toScreen(view, end.x, end.y);
  const far = third ?? (to ? at : null);
  const c = far && toScreen(view, far.x, far.y);
  const f = (v: number) => `${formatLength(v, unit, unit === 'mm' ? 3 : 5)} ${unit}`;
  return (
    <g>
      <PointerSurface
        onPress={(e) => {
          const p = read(e);
          if (!from || third) {
            setFrom(p);
            setTo(null);
            setThird(null);
          } else if (!to) setTo(p);
          else setThird(p);
        }}
        onMove={(e) => setAt(read(e))}
        onLeave={forget}
      />
      {a && b && from && end && (
        <g pointerEvents="none" fontSize="12">
          <path
            d={`M${a.x} ${a.y}L${b.x} ${a.y}L${b.x} ${b.y}`}
            fill="none"
            stroke="var(--mui-palette-brass)"
            strokeDasharray="3 3"
          />
          <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--mui-palette-primary-main)" strokeWidth="2" />
          {[a, b].map((p, i) => (
            <circle
              key={i}
              cx={p.x}
              cy={p.y}
              r="4"
              fill="var(--mui-palette-background-paper)"
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="2"
            />
          ))}
          <g role="status" aria-label="Measured">
            {[
              `${f(Math.hypot(end.x - from.x, end.y - from.y))}`,
              `across ${f(end.x - from.x)}, up ${f(end.y - from.y)}`,
              `${((Math.atan2(end.y - from.y, end.x - from.x) * 180) / Math.PI).toFixed(2)}\u00b0`,
            ].map((line, i) => (
              <text
                key={i}
                x={b.x + 12}
                y={b.y + 4 + 15 * i}
                fontWeight={i ? 400 : 650}
                fill="var(--mui-palette-text-primary)"
                stroke="var(--mui-palette-background-paper)"
                strokeWidth="3"
                paintOrder="stroke"
              >
                {line}
              </text>
            ))}
          </g>
        </g>
      )}
      {to && from && far && b && c && Math.hypot(c.x - b.x, c.y - b.y) > 6 && (
        <g pointerEvents="none" fontSize="12">
          <line
            x1={b.x}
            y1={b.y}
            x2={c.x}
            y2={c.y}
            stroke="var(--mui-palette-primary-main)"
            strokeWidth="2"
            strokeDasharray={third ? undefined : '5 4'}
          />
          <text
            role="status"
            aria-label="Measured angle"
            x={c.x + 12}
            y={c.y + 4}
            fontWeight="650"
            fill="var(--mui-palette-text-primary)"
            stroke="var(--mui-palette-background-paper)"
            strokeWidth="3"
            paintOrder="stroke"
          >
            angle {angleAt(from, to, far).toFixed(2)}
            {'\u00b0'}
          </text>
        </g>
      )}
      {round && at && (
        <text
          role="status"
          aria-label="Measured radius"
          x={toScreen(view, at.x, at.y).x + 14}
          y={toScreen(view, at.x, at.y).y - 10}
          fontSize="12"
          fontWeight="650"
          fill="var(--mui-palette-text-primary)"
          stroke="var(--mui-palette-background-paper)"
          strokeWidth="3"
          paintOrder="stroke"
          pointerEvents="none"
        >
          {round.exact ? 'radius' : 'radius here'} {f(round.radius)}
        </text>
      )}
      <CaughtMark caught={caught} view={view} />
    </g>
  );
}
