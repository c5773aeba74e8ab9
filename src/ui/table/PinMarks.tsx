'use client';
import { setView, useView } from '@/ui/view';
import { PointerSurface } from './tools/PointerSurface';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

/** Presses on the plan while heights are pinned: a third begins anew. */
export function PinLayer({ view, local }: { view: Viewport; local: Local }) {
  const pinning = useView((v) => v.pinning);
  const at = (e: { clientX: number; clientY: number }) => {
    const p = local(e);
    return toWorld(view, p.x, p.y);
  };
  return pinning ? (
    <PointerSurface
      onPress={(e) => {
        const pin = at(e);
        setView(({ pins }) => ({ pins: pins.length < 2 ? [...pins, pin] : [pin] }));
      }}
      onMove={(e) => setView({ cursor: at(e) })}
      onLeave={() => {}}
    />
  ) : null;
}

/** Places of the relief whose heights are pinned, on the plan. */
export function PinMarks({ view }: { view: Viewport }) {
  const pins = useView((v) => v.pins);
  const at = pins.map((p) => toScreen(view, p.x, p.y));
  return (
    <g pointerEvents="none">
      {at.length === 2 && (
        <line
          x1={at[0].x}
          y1={at[0].y}
          x2={at[1].x}
          y2={at[1].y}
          stroke="var(--mui-palette-brass)"
          strokeWidth="1.5"
          strokeDasharray="4 3"
        />
      )}
      {at.map((p, k) => (
        <g key={k} role="img" aria-label={`Reading ${'AB'[k]}`}>
          <circle
            cx={p.x}
            cy={p.y}
            r="9"
            fill="var(--mui-palette-background-paper)"
            stroke="var(--mui-palette-brass)"
            strokeWidth="2"
          />
          <text
            x={p.x}
            y={p.y + 4}
            textAnchor="middle"
            fontSize="11.5"
            fontWeight="600"
            fill="var(--mui-palette-text-primary)"
          >
            {'AB'[k]}
          </text>
        </g>
      ))}
    </g>
  );
}
