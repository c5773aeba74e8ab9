'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { curveThrough } from '@/core/relief/curve';

export type CurvePoint = [number, number];

const SIZE = 200;
const PAD = 12;
const x = scaleLinear()
  .domain([0, 1])
  .range([PAD, SIZE - PAD]);
const y = scaleLinear()
  .domain([0, 1])
  .range([SIZE - PAD, PAD]);
/** Points stay so far apart, and one that is pressed may lie so far from the finger. */
const APART = 0.02;
const NEAR = 0.08;
const STEP = 0.02;
const MOST = 16;
const held = (v: number, low: number, high: number) => Math.round(1000 * Math.min(high, Math.max(low, v))) / 1000;

/** A list with one of its points elsewhere: it does not pass its neighbours; the first and the last stay at the sides. */
function movedPoint(points: readonly CurvePoint[], k: number, to: CurvePoint): CurvePoint[] {
  const end = k === 0 || k === points.length - 1;
  const at = end ? points[k][0] : held(to[0], points[k - 1][0] + APART, points[k + 1][0] - APART);
  return points.map((p, i) => (i === k ? [at, held(to[1], 0, 1)] : p));
}

/**
 * A curve whose points are dragged, or moved by arrows: what is dark lies on the left, what stands high above. A press between them
 * adds one, Delete takes the chosen one away.
 */
export function CurveField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: readonly CurvePoint[];
  onChange: (v: CurvePoint[]) => void;
}) {
  /** What is dragged, until it is let go: one step of undo. */
  const [drag, setDrag] = useState<{ readonly k: number; readonly points: readonly CurvePoint[] } | null>(null);
  const points = drag?.points ?? value;
  const through = curveThrough(points);
  const path = line<number>(
    (v) => x(v),
    (v) => y(through(v)),
  )(Array.from({ length: 101 }, (_, i) => i / 100))!;
  const placeOf = (e: PointerEvent<SVGSVGElement>): CurvePoint => {
    const b = e.currentTarget.getBoundingClientRect();
    const [u, v] = [((e.clientX - b.x) / b.width) * SIZE, ((e.clientY - b.y) / b.height) * SIZE];
    return [held(x.invert(u), 0, 1), held(y.invert(v), 0, 1)];
  };
  const begin = (e: PointerEvent<SVGSVGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    const p = placeOf(e);
    const near = value.findIndex((q) => Math.hypot(q[0] - p[0], q[1] - p[1]) < NEAR);
    if (near >= 0) return setDrag({ k: near, points: value });
    const k = value.findIndex((q) => q[0] > p[0]);
    const room = k > 0 && p[0] - value[k - 1][0] >= APART && value[k][0] - p[0] >= APART;
    if (room && value.length < MOST) setDrag({ k, points: [...value.slice(0, k), p, ...value.slice(k)] });
  };
  const end = () => {
    if (drag && drag.points !== value) onChange([...drag.points]);
    setDrag(null);
  };
  const keys = (k: number) => (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] }[e.key];
    const inner = k > 0 && k < value.length - 1;
    if (by) onChange(movedPoint(value, k, [value[k][0] + by[0], value[k][1] + by[1]]));
    else if ((e.key === 'Delete' || e.key === 'Backspace') && inner) onChange(value.filter((_, i) => i !== k));
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const straight = value.length === 2 && value.every(([a, b]) => a === b);
  return (
    <Box role="group" aria-label={label}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', minHeight: 32 }}>
        <Box sx={{ fontSize: 13, fontWeight: 600 }}>{label}</Box>
        {!straight && (
          <Button
            size="small"
            color="inherit"
            onClick={() =>
              onChange([
                [0, 0],
                [1, 1],
              ])
            }
          >
            Straight again
          </Button>
        )}
      </Box>
      <Box
        component="svg"
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        onPointerDown={begin}
        onPointerMove={(e: PointerEvent<SVGSVGElement>) =>
          drag && setDrag({ k: drag.k, points: movedPoint(drag.points, drag.k, placeOf(e)) })
        }
        onPointerUp={end}
        onPointerCancel={() => setDrag(null)}
        sx={{
          width: '100%',
          maxWidth: 240,
          display: 'block',
          touchAction: 'none',
          cursor: 'crosshair',
          bgcolor: 'wash',
          borderRadius: 2,
          border: '1px solid',
          borderColor: 'divider',
          '& circle:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        }}
      >
        <defs>
          <linearGradient id="greys-of-curve">
            <stop offset="0" stopColor="#000" />
            <stop offset="1" stopColor="#fff" />
          </linearGradient>
        </defs>
        <line x1={x(0)} y1={y(0)} x2={x(1)} y2={y(1)} stroke="var(--mui-palette-divider)" strokeDasharray="3 4" />
        <rect x={x(0)} y={SIZE - PAD + 3} width={x(1) - x(0)} height={5} fill="url(#greys-of-curve)" />
        <path d={path} fill="none" stroke="var(--mui-palette-primary-main)" strokeWidth={2} />
        {points.map(([a, b], k) => (
          <circle
            key={k}
            cx={x(a)}
            cy={y(b)}
            r={6}
            tabIndex={0}
            role="slider"
            aria-label={`${label}, point ${k + 1}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(100 * b)}
            aria-valuetext={`${Math.round(100 * a)} % grey stands at ${Math.round(100 * b)} %`}
            fill="var(--mui-palette-background-paper)"
            stroke="var(--mui-palette-primary-main)"
            strokeWidth={2}
            onKeyDown={keys(k)}
          />
        ))}
      </Box>
    </Box>
  );
}
