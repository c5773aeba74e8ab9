'use client';
import { useRef } from 'react';
import { formKindOf } from '@/core/relief/registry';
import type { Form } from '@/core/relief/stack';
import { useOpenJob } from '@/store/openJob';
import { changeForm } from '@/ui/actions/edits';
import { useView } from '@/ui/view';
import { Grips, middleOf } from './Grips';
import { Reach } from './Reach';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

/** A coordinate as a form holds it, mm: of a thousandth, and no further away than it may lie. */
const placed = (v: number) => Math.min(1e4, Math.max(-1e4, Math.round(v * 1000) / 1000));

/** The frame of the open form, where it has one: dragged by its middle or its edge, scaled and turned by its grips. */
export function FormFrame({ view, local }: { view: Viewport; local: Local }) {
  const id = useView((v) => v.formId);
  const form = useOpenJob((s) => s.job?.relief.forms.find((f) => f.id === id && f.visible));
  return form && formKindOf(form.kind).frame ? <One form={form} view={view} local={local} /> : null;
}

function One({ form, view, local }: { form: Form; view: Viewport; local: Local }) {
  const kind = formKindOf(form.kind);
  const { x, y, width, height, turn } = kind.frame!(form.values);
  const t = ((turn ?? 0) * Math.PI) / 180;
  const corner = (sx: number, sy: number) => ({
    x: x + ((sx * width) / 2) * Math.cos(t) - ((sy * height) / 2) * Math.sin(t),
    y: y + ((sx * width) / 2) * Math.sin(t) + ((sy * height) / 2) * Math.cos(t),
  });
  const at = toScreen(view, x, y);
  const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  // What it was when it was taken hold of: each step of a drag begins there.
  const held = useRef<{ key: symbol; values: Form['values'] } | null>(null);
  const from = (key: symbol) =>
    held.current?.key === key ? held.current : (held.current = { key, values: form.values });
  const change = (name: string, values: object, key: symbol) =>
    changeForm(form.id, name, (f) => void (f.values = { ...f.values, ...values }), key);
  const grab = useRef<{ x: number; y: number; key: symbol } | null>(null);
  const drag = useDrag(local, {
    begin: (p) => {
      const w = toWorld(view, p.x, p.y);
      grab.current = { x: x - w.x, y: y - w.y, key: Symbol('move') };
    },
    drag: (p) => {
      const w = toWorld(view, p.x, p.y);
      const g = grab.current;
      if (g) change('Move form', { x: placed(w.x + g.x), y: placed(w.y + g.y) }, g.key);
    },
  });
  return (
    <g role="group" aria-label={`Frame of ${form.name}`}>
      {/* Its inside is left to what lies there: outlines are picked for a form while its frame is shown. */}
      <polygon
        points={corners
          .map((c) => toScreen(view, c.x, c.y))
          .map((c) => `${c.x},${c.y}`)
          .join(' ')}
        fill="none"
        stroke="transparent"
        strokeWidth="14"
        cursor="move"
        {...drag}
      />
      <Grips
        corners={corners}
        angle={turn ?? 0}
        middle={{ x, y }}
        view={view}
        local={local}
        turn={turn === null ? undefined : (degrees, key) => change('Turn form', { turn: degrees }, key)}
        pull={(by, key) => {
          const values = kind.pulled!(from(key).values, by.sx, by.sy) as Form['values'];
          const now = kind.frame!(values);
          const middle = middleOf(by, now.width, now.height, turn ?? 0);
          change('Scale form', { ...values, x: placed(middle.x), y: placed(middle.y) }, key);
        }}
      />
      <g cursor="move" role="button" aria-label={`Move ${form.name}`} {...drag}>
        <Reach x={at.x} y={at.y} />
        <circle
          cx={at.x}
          cy={at.y}
          r="9"
          fill="var(--mui-palette-background-paper)"
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="2"
        />
        <path
          d={`M${at.x - 5} ${at.y}h10M${at.x} ${at.y - 5}v10`}
          stroke="var(--mui-palette-primary-main)"
          strokeWidth="2"
          strokeLinecap="round"
        />
      </g>
    </g>
  );
}
