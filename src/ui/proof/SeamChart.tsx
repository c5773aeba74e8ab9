'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { WIDE } from '@/core/proof/fit';
import type { SeamPlace } from '@/core/proof/seam';
import { formatLength, lengthText, MM, type Unit } from '@/core/units/length';

const [W, H] = [320, 104];
const pad = { l: 38, r: 6, t: 8, b: 20 };
const text = { fontSize: 11, fill: 'var(--mui-palette-text-secondary)' };

/** The seam along all outlines; the place under the pointer, or the one that arrows go to, is shown on the plan. */
export function SeamChart(p: {
  /** What it is between the two pieces. */
  readonly name: 'Seam' | 'Room';
  readonly seam: readonly SeamPlace[];
  readonly wanted: number;
  readonly unit: Unit;
  readonly show: (at: SeamPlace, text: string) => void;
}) {
  const { name, seam, wanted, unit } = p;
  const [at, setAt] = useState<number | null>(null);
  const met = seam.filter((s) => s.wide === s.wide);
  if (met.length < 2) return null;
  const end = seam[seam.length - 1].along;
  const [low, high] = met.reduce(([a, b], s) => [Math.min(a, s.wide), Math.max(b, s.wide)], [0, wanted + 1.5 * WIDE]);
  const x = scaleLinear()
    .domain([0, end])
    .range([pad.l, W - pad.r]);
  const y = scaleLinear()
    .domain([low, high])
    .range([H - pad.b, pad.t]);
  const path = line<SeamPlace>(
    (s) => x(s.along),
    (s) => y(s.wide),
  ).defined((s) => s.wide === s.wide)(seam)!;
  const says = (s: SeamPlace) =>
    s.wide === s.wide ? `${name} ${lengthText(s.wide, unit, unit === 'mm' ? 3 : 5)}` : 'No walls meet here';
  const goTo = (k: number) => {
    const to = Math.min(seam.length - 1, Math.max(0, k));
    setAt(to);
    p.show(seam[to], says(seam[to]));
  };
  const point = (e: PointerEvent<SVGSVGElement>) => {
    const b = e.currentTarget.getBoundingClientRect();
    const along = x.invert(((e.clientX - b.left) / b.width) * W);
    goTo(seam.reduce((best, s, k) => (Math.abs(s.along - along) < Math.abs(seam[best].along - along) ? k : best), 0));
  };
  const press = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -25, PageDown: 25 }[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    goTo((at ?? -1) + by);
  };
  const here = at === null ? null : seam[at];
  const mm = MM[unit];
  return (
    <Box sx={{ mt: 1 }}>
      <Box
        component="svg"
        viewBox={`0 0 ${W} ${H}`}
        role="slider"
        tabIndex={0}
        aria-label={`${name} along the outlines`}
        aria-valuemin={0}
        aria-valuemax={seam.length - 1}
        aria-valuenow={at ?? 0}
        aria-valuetext={here ? says(here) : 'Arrows go along it'}
        onPointerDown={(e: PointerEvent<SVGSVGElement>) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          point(e);
        }}
        onPointerMove={(e: PointerEvent<SVGSVGElement>) => e.buttons && point(e)}
        onKeyDown={press}
        sx={{
          width: '100%',
          display: 'block',
          cursor: 'crosshair',
          touchAction: 'none',
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
        }}
      >
        {y
          .copy()
          .domain([low / mm, high / mm])
          .ticks(3)
          .map((t) => (
            <g key={t}>
              <line x1={pad.l} x2={W - pad.r} y1={y(t * mm)} y2={y(t * mm)} stroke="var(--mui-palette-divider)" />
              <text x={pad.l - 5} y={y(t * mm) + 4} textAnchor="end" {...text}>
                {+t.toFixed(4)}
              </text>
            </g>
          ))}
        <line
          x1={pad.l}
          x2={W - pad.r}
          y1={y(wanted + WIDE)}
          y2={y(wanted + WIDE)}
          stroke="var(--mui-palette-error-main)"
          strokeDasharray="5 4"
        />
        <path d={path} fill="none" stroke="var(--mui-palette-primary-main)" strokeWidth="1.6" />
        {here && here.wide === here.wide && (
          <circle cx={x(here.along)} cy={y(here.wide)} r="4" fill="var(--mui-palette-brass)" />
        )}
        <text x={pad.l} y={H - 5} {...text}>
          {name}, {unit}
        </text>
        <text x={W - pad.r} y={H - 5} textAnchor="end" {...text}>
          along {formatLength(end, unit, 1)} {unit}
        </text>
      </Box>
      <Box role="status" sx={{ fontSize: 12.5, color: 'text.secondary', minHeight: 18 }}>
        {here ? says(here) : 'Press the chart to see a place of it on the plan.'}
      </Box>
    </Box>
  );
}
