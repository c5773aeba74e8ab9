'use client';
import { useRef, useState, type PointerEvent } from 'react';
import { useOpenJob } from '@/store/openJob';
import { brushedForm, brushNow, brushStroke } from '@/ui/actions/sculpt';
import { holdSheets } from '@/ui/later';
import { setView, useView } from '@/ui/view';
import { PointerSurface } from './tools/PointerSurface';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

/** A hand that has gone this share of the brush's radius has told another place. */
const STEP = 0.1;

interface Drawing {
  readonly key: symbol;
  readonly radius: number;
  x: number;
  y: number;
  readonly letGo: () => void;
}

/** The brush over the plan, while a form that is sculpted is open: a press begins a stroke, which is one step to undo. */
export function BrushLayer({ view, local }: { view: Viewport; local: Local }) {
  const formId = useView((v) => v.formId);
  const brush = useView((v) => v.brush);
  const job = useOpenJob((s) => s.job)!;
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const drawing = useRef<Drawing | null>(null);
  const form = brushedForm(job, formId);
  if (!form) return null;
  const { radius } = brushNow(job);
  const placeOf = (e: PointerEvent | globalThis.PointerEvent) => {
    const p = local(e);
    return toWorld(view, p.x, p.y);
  };
  const pressed = (e: PointerEvent | globalThis.PointerEvent) => (e.pointerType === 'pen' ? e.pressure : 1);
  const rounded = (v: number) => Math.round(v * 1000) / 1000;
  const told = (w: { x: number; y: number }, pressure: number) => [rounded(w.x), rounded(w.y), rounded(pressure)];
  const end = () => {
    drawing.current?.letGo();
    drawing.current = null;
  };
  const circle = (x: number, y: number) => {
    const s = toScreen(view, x, y);
    return (
      <circle
        key={`${x} ${y}`}
        cx={s.x}
        cy={s.y}
        r={radius * view.k}
        fill="none"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="1.5"
        strokeDasharray={brush.tool === 'lower' ? '4 3' : undefined}
      />
    );
  };
  const { width, height } = job.blank;
  return (
    <g role="group" aria-label="Brush">
      <PointerSurface
        onPress={(e) => {
          const w = placeOf(e);
          const key = Symbol('stroke');
          if (brushStroke(form.id, brushNow(job), told(w, pressed(e)), key, false))
            drawing.current = { key, radius, ...w, letGo: holdSheets() };
        }}
        onMove={(e) => {
          const w = placeOf(e);
          setAt(w);
          setView({ cursor: w });
          const d = drawing.current;
          if (!d) return;
          // A quick hand tells more places than the page asks for pictures.
          const events = e.nativeEvent.getCoalescedEvents?.() ?? [];
          const points: number[] = [];
          for (const one of events.length ? events : [e.nativeEvent]) {
            const p = placeOf(one);
            if (Math.hypot(p.x - d.x, p.y - d.y) < STEP * d.radius) continue;
            points.push(...told(p, pressed(one)));
            [d.x, d.y] = [p.x, p.y];
          }
          if (points.length && !brushStroke(form.id, brushNow(job), points, d.key, true)) end();
        }}
        onRelease={end}
        onLeave={() => setAt(null)}
        onCancel={end}
      />
      {at && (
        <g pointerEvents="none">
          {circle(at.x, at.y)}
          {brush.mirror === 'across' && circle(width - at.x, at.y)}
          {brush.mirror === 'along' && circle(at.x, height - at.y)}
        </g>
      )}
    </g>
  );
}
