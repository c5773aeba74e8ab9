'use client';
import { useRef } from 'react';
import { gripFrame, pulledBy } from './gripFrame';
import { Reach } from './Reach';
import { useDrag } from './useDrag';
import { toScreen, toWorld, type Local, type Viewport } from './viewport';

interface Point {
  readonly x: number;
  readonly y: number;
}

/** How far a frame was pulled: by which factors along its own sides, from which place that stays, and towards which side (-1, 0, 1). */
export interface Pulled {
  readonly sx: number;
  readonly sy: number;
  readonly fixed: Point;
  readonly gx: number;
  readonly gy: number;
  /** Width and height of the frame when it was taken hold of. */
  readonly w: number;
  readonly h: number;
}

/** The middle of a frame of a size that was pulled and is turned by so many degrees. */
export function middleOf({ fixed, gx, gy }: Pulled, width: number, height: number, degrees: number): Point {
  const t = (degrees * Math.PI) / 180;
  const [ox, oy] = [(gx * width) / 2, (gy * height) / 2];
  return { x: fixed.x + ox * Math.cos(t) - oy * Math.sin(t), y: fixed.y + ox * Math.sin(t) + oy * Math.cos(t) };
}

interface Props {
  /** The corners, from the lower left one on to the left, and how far the frame is turned, degrees. */
  readonly corners: readonly Point[];
  readonly angle: number;
  /** About where it is turned. */
  readonly middle: Point;
  readonly view: Viewport;
  readonly local: Local;
  /** Called with one key as long as one drag lasts. */
  readonly turn?: (degrees: number, key: symbol) => void;
  readonly pull: (by: Pulled, key: symbol) => void;
}

const GRIPS = [
  [-1, -1, 'lower left corner'],
  [1, -1, 'lower right corner'],
  [1, 1, 'upper right corner'],
  [-1, 1, 'upper left corner'],
  [0, -1, 'lower edge'],
  [1, 0, 'right edge'],
  [0, 1, 'upper edge'],
  [-1, 0, 'left edge'],
] as const;

/** Grips around a frame: corners keep the ratio (Shift frees it), edges stretch, the knob turns (by 15 degrees with Shift). */
export function Grips(props: Props) {
  const s = gripFrame(
    props.corners.map((c) => toScreen(props.view, c.x, c.y)),
    props.angle,
  );
  const mid = (a: number, b: number) => ({ x: (s[a].x + s[b].x) / 2, y: (s[a].y + s[b].y) / 2 });
  const at = [s[0], s[1], s[2], s[3], mid(0, 1), mid(1, 2), mid(2, 3), mid(3, 0)];
  const top = mid(2, 3);
  const centre = { x: (s[0].x + s[2].x) / 2, y: (s[0].y + s[2].y) / 2 };
  const l = Math.hypot(top.x - centre.x, top.y - centre.y) || 1;
  const knob = { x: top.x + ((top.x - centre.x) / l) * 26, y: top.y + ((top.y - centre.y) / l) * 26 };
  return (
    <g>
      <polygon
        points={s.map((c) => `${c.x},${c.y}`).join(' ')}
        fill="none"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="1"
      />
      {props.turn && (
        <>
          <line x1={top.x} y1={top.y} x2={knob.x} y2={knob.y} stroke="var(--mui-palette-primary-main)" />
          <TurnGrip {...props} turn={props.turn} x={knob.x} y={knob.y} />
        </>
      )}
      {GRIPS.map(([gx, gy, name], i) => (
        <ScaleGrip key={name} {...props} gx={gx} gy={gy} name={name} x={at[i].x} y={at[i].y} />
      ))}
    </g>
  );
}

function TurnGrip({ middle, turn, x, y, view, local }: Props & Point & { turn: NonNullable<Props['turn']> }) {
  const key = useRef<symbol>(undefined);
  const drag = useDrag(local, {
    begin: () => (key.current = Symbol('turn')),
    drag: (p, e) => {
      const w = toWorld(view, p.x, p.y);
      const angle = (Math.atan2(w.y - middle.y, w.x - middle.x) * 180) / Math.PI - 90;
      const near = Math.round(angle / 90) * 90;
      turn(
        e.shiftKey ? Math.round(angle / 15) * 15 : Math.abs(angle - near) < 2 ? near : Math.round(angle * 10) / 10,
        key.current!,
      );
    },
  });
  return (
    <g cursor="grab" role="button" aria-label="Turn" {...drag}>
      <Reach x={x} y={y} />
      <circle
        cx={x}
        cy={y}
        r="6"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="2"
      />
    </g>
  );
}

function ScaleGrip({
  corners,
  angle,
  pull,
  gx,
  gy,
  name,
  x,
  y,
  view,
  local,
}: Props & Point & { gx: number; gy: number; name: string }) {
  const start = useRef<{ w: number; h: number; angle: number; fixed: Point; off: Point; key: symbol } | null>(null);
  const drag = useDrag(local, {
    begin: (p) => {
      const w = Math.hypot(corners[1].x - corners[0].x, corners[1].y - corners[0].y);
      const h = Math.hypot(corners[3].x - corners[0].x, corners[3].y - corners[0].y);
      const [a, b, , d] = corners;
      const at = (u: number, v: number) => ({
        x: a.x + (b.x - a.x) * u + (d.x - a.x) * v,
        y: a.y + (b.y - a.y) * u + (d.y - a.y) * v,
      });
      // The opposite corner, or the middle of the opposite edge, stays where it is.
      const fixed = at((1 - gx) / 2, (1 - gy) / 2);
      // The grip may stand outside the frame, and is seldom taken by its middle.
      const own = at((1 + gx) / 2, (1 + gy) / 2);
      const from = toWorld(view, p.x, p.y);
      start.current = { w, h, angle, fixed, off: { x: from.x - own.x, y: from.y - own.y }, key: Symbol('scale') };
    },
    drag: (p, e) => {
      const s = start.current;
      if (!s) return;
      const w = toWorld(view, p.x, p.y);
      const t = (s.angle * Math.PI) / 180;
      const dx = w.x - s.off.x - s.fixed.x;
      const dy = w.y - s.off.y - s.fixed.y;
      const lx = (dx * Math.cos(t) + dy * Math.sin(t)) * gx;
      const ly = (-dx * Math.sin(t) + dy * Math.cos(t)) * gy;
      const { sx, sy } = pulledBy({ gx, gy, w: s.w, h: s.h }, lx, ly, e.shiftKey);
      pull({ sx, sy, fixed: s.fixed, gx, gy, w: s.w, h: s.h }, s.key);
    },
  });
  return (
    <g
      cursor={gx && gy ? (gx === gy ? 'nesw-resize' : 'nwse-resize') : gx ? 'ew-resize' : 'ns-resize'}
      role="button"
      aria-label={`Scale by the ${name}`}
      {...drag}
    >
      <Reach x={x} y={y} />
      <rect
        x={x - 5}
        y={y - 5}
        width="10"
        height="10"
        rx="2"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="2"
      />
    </g>
  );
}
