'use client';
import { useRef, useState } from 'react';
import { useOpenJob } from '@/store/openJob';
import { brushNow, brushStroke, brushedForm, holdStroke, isInHand, letStroke } from '@/ui/actions/sculpt';
import { setView, useView } from '@/ui/view';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

/** A hand that has gone this share of the brush's radius has told another place. */
const STEP = 0.1;

/** Where a brush went, and how hard it was pressed: a hand without a pen presses wholly. */
function told(w: { x: number; y: number }, e: { readonly pointerType: string; readonly pressure: number }): number[] {
  const rounded = (v: number) => Math.round(v * 1000) / 1000;
  return [rounded(w.x), rounded(w.y), rounded(e.pointerType === 'pen' ? e.pressure : 1)];
}

/** The brush over the plan, while a form that is sculpted is open: a press begins a stroke, which is one step to undo. */
export function BrushLayer({ view, local }: { view: Viewport; local: Local }) {
  const formId = useView((v) => v.formId);
  const brush = useView((v) => v.brush);
  const job = useOpenJob((s) => s.job)!;
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  /** The stroke that is being drawn, and where it was last. */
  const drawing = useRef<{ readonly key: symbol; readonly radius: number; x: number; y: number } | null>(null);
  const form = brushedForm(job, formId);
  const { radius } = brushNow(job, brush);
  const draw = useDrag(local, {
    begin: (p, e) => {
      const w = toWorld(view, p.x, p.y);
      const key = Symbol('stroke');
      const taken = form && brushStroke(form.id, brushNow(job), told(w, e), key, false);
      drawing.current = taken ? { key, radius, ...w } : null;
      if (form && taken) holdStroke(form.id, key);
    },
    drag: (_, e) => {
      const d = drawing.current;
      // A second finger has come: both move the plan.
      if (!form || !d || !isInHand(d.key)) return;
      // A quick hand tells more places than the page asks for pictures.
      const events = e.nativeEvent.getCoalescedEvents?.() ?? [];
      const points: number[] = [];
      for (const one of events.length ? events : [e.nativeEvent]) {
        const p = local(one);
        const w = toWorld(view, p.x, p.y);
        if (Math.hypot(w.x - d.x, w.y - d.y) < STEP * d.radius) continue;
        points.push(...told(w, one));
        [d.x, d.y] = [w.x, w.y];
      }
      if (points.length && !brushStroke(form.id, brushNow(job), points, d.key, true)) drawing.current = null;
    },
    end: letStroke,
  });
  if (!form) return null;
  const circle = (x: number, y: number) => {
    const s = toScreen(view, x, y);
    return (
      <circle
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
      <rect
        width="100%"
        height="100%"
        fill="transparent"
        cursor="crosshair"
        {...draw}
        onPointerMove={(e) => {
          const p = local(e);
          const w = toWorld(view, p.x, p.y);
          setAt(w);
          setView({ cursor: w });
          draw.onPointerMove(e);
        }}
        onPointerLeave={() => setAt(null)}
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
