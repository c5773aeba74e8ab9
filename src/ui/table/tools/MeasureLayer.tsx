'use client';
import { useEffect, useState } from 'react';
import { formatLength, type Unit } from '@/core/units/length';
import { setView } from '@/ui/view';
import { toScreen } from '../viewport';
import { CaughtMark } from './CaughtMark';
import { Surface } from './Surface';
import { useCatching, type ToolProps } from './usePointer';

interface Point {
  x: number;
  y: number;
}

/** From one pressed point to the next: distance, across, up, and angle. */
export function MeasureLayer({ unit, ...on }: ToolProps & { unit: Unit }) {
  const { view } = on;
  const { caught, read, forget } = useCatching(on, false);
  const [from, setFrom] = useState<Point | null>(null);
  const [to, setTo] = useState<Point | null>(null);
  const [at, setAt] = useState<Point | null>(null);
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (e.key !== 'Escape') return;
      e.stopImmediatePropagation();
      if (from) {
        setFrom(null);
        setTo(null);
      } else setView({ tool: 'pick' });
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  }, [from]);
  const end = to ?? at;
  const a = from && toScreen(view, from.x, from.y);
  const b = from && end && toScreen(view, end.x, end.y);
  const f = (v: number) => `${formatLength(v, unit, unit === 'mm' ? 3 : 5)} ${unit}`;
  return (
    <g>
      <Surface
        onPress={(e) => {
          const p = read(e);
          if (!from || to) {
            setFrom(p);
            setTo(null);
          } else setTo(p);
        }}
        onMove={(e) => setAt(read(e))}
        onLeave={forget}
      />
      {a && b && from && end && (
        <g pointerEvents="none" fontSize="12">
          <path d={`M${a.x} ${a.y}L${b.x} ${a.y}L${b.x} ${b.y}`} fill="none" stroke="var(--mui-palette-brass)" strokeDasharray="3 3" />
          <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--mui-palette-primary-main)" strokeWidth="2" />
          {[a, b].map((p, i) => (
            <circle key={i} cx={p.x} cy={p.y} r="4" fill="var(--mui-palette-background-paper)" stroke="var(--mui-palette-primary-main)" strokeWidth="2" />
          ))}
          <g role="status" aria-label="Measured">
            {[`${f(Math.hypot(end.x - from.x, end.y - from.y))}`, `across ${f(end.x - from.x)}, up ${f(end.y - from.y)}`, `${((Math.atan2(end.y - from.y, end.x - from.x) * 180) / Math.PI).toFixed(2)}\u00b0`].map((line, i) => (
              <text key={i} x={b.x + 12} y={b.y + 4 + 15 * i} fontWeight={i ? 400 : 650} fill="var(--mui-palette-text-primary)" stroke="var(--mui-palette-background-paper)" strokeWidth="3" paintOrder="stroke">
                {line}
              </text>
            ))}
          </g>
        </g>
      )}
      <CaughtMark caught={caught} view={view} />
    </g>
  );
}
