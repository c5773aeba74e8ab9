'use client';
import { useRef } from 'react';
import { setView, useView, type SectionLine } from '@/ui/view';
import { Reach } from './Reach';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Viewport, type Local } from './viewport';

/** The section's line on the plan: drag an end to turn it, its middle to move it. */
export function SectionLineMark({ view, local }: { view: Viewport; local: Local }) {
  const s = useView((v) => v.section);
  const at = useView((v) => v.sectionAt);
  const grab = useRef<{ line: SectionLine; x: number; y: number } | null>(null);
  const end = (k: 0 | 1) => (p: { x: number; y: number }, e: { shiftKey: boolean }) => {
    const w = toWorld(view, p.x, p.y);
    setView((v) => {
      if (!v.section) return v;
      const other = k ? { x: v.section.x0, y: v.section.y0 } : { x: v.section.x1, y: v.section.y1 };
      // Shift keeps the line level or upright.
      if (e.shiftKey) {
        if (Math.abs(w.x - other.x) > Math.abs(w.y - other.y)) w.y = other.y;
        else w.x = other.x;
      }
      return { section: k ? { ...v.section, x1: w.x, y1: w.y } : { ...v.section, x0: w.x, y0: w.y } };
    });
  };
  const first = useDrag(local, { drag: end(0) });
  const second = useDrag(local, { drag: end(1) });
  const middle = useDrag(local, {
    begin: () => (grab.current = null),
    drag: (p) => {
      const w = toWorld(view, p.x, p.y);
      if (!grab.current) grab.current = { line: useView.getState().section!, ...w };
      const g = grab.current;
      const dx = w.x - g.x;
      const dy = w.y - g.y;
      setView({ section: { x0: g.line.x0 + dx, y0: g.line.y0 + dy, x1: g.line.x1 + dx, y1: g.line.y1 + dy } });
    },
  });
  if (!s) return null;
  const a = toScreen(view, s.x0, s.y0);
  const b = toScreen(view, s.x1, s.y1);
  const grip = (p: { x: number; y: number }, drag: ReturnType<typeof useDrag>, name: string, dx: -1 | 1) => (
    <g
      cursor="grab"
      tabIndex={0}
      role="button"
      aria-label={name}
      {...drag}
      onKeyDown={(e) => {
        const step = e.shiftKey ? 10 : 1;
        const d = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
        if (!d) return;
        e.preventDefault();
        e.stopPropagation();
        setView((v) =>
          v.section
            ? {
                section:
                  dx < 0
                    ? { ...v.section, x0: v.section.x0 + d[0], y0: v.section.y0 + d[1] }
                    : { ...v.section, x1: v.section.x1 + d[0], y1: v.section.y1 + d[1] },
              }
            : v,
        );
      }}
    >
      <Reach x={p.x} y={p.y} />
      <circle
        cx={p.x}
        cy={p.y}
        r="6"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-brass)"
        strokeWidth="2"
      />
    </g>
  );
  return (
    <g>
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        stroke="transparent"
        strokeWidth="10"
        cursor="move"
        {...middle}
        style={{ pointerEvents: 'stroke' }}
      />
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        stroke="var(--mui-palette-brass)"
        strokeWidth="1.5"
        strokeDasharray="9 4 2 4"
        pointerEvents="none"
      />
      {at !== null && (
        <circle cx={a.x + (b.x - a.x) * at} cy={a.y + (b.y - a.y) * at} r="4" fill="var(--mui-palette-brass)" />
      )}
      {grip(a, first, 'Start of the section line', -1)}
      {grip(b, second, 'End of the section line', 1)}
    </g>
  );
}
