import type { Caught } from '@/core/artwork/snap';
import { toScreen, type Viewport } from '../viewport';

/** What the pointer has caught: a ring and a word. */
export function CaughtMark({ caught, view }: { caught: Caught | null; view: Viewport }) {
  if (!caught || caught.what === 'grid') return null;
  const p = toScreen(view, caught.x, caught.y);
  return (
    <g pointerEvents="none">
      <circle cx={p.x} cy={p.y} r="6" fill="none" stroke="var(--mui-palette-brass)" strokeWidth="2" />
      <text
        x={p.x + 10}
        y={p.y - 8}
        fontSize="11"
        fill="var(--mui-palette-text-primary)"
        stroke="var(--mui-palette-background-paper)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {caught.what}
      </text>
    </g>
  );
}
