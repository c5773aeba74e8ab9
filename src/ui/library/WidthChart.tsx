'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { cuttingLength, radiusAt, type Cutter } from '@/core/cutters/cutter';
import { MM, type Unit } from '@/core/units/length';

const W = 300;
const H = 150;
const ticksOf = (to: number, count: number): number[] => scaleLinear().domain([0, to]).ticks(count);
const pad = { l: 40, r: 12, t: 10, b: 30 };

/** Width of a groove against its depth, from the profile that the proof cuts with; a mark where the maker asks. */
export function WidthChart({ cutter, unit, depth }: { cutter: Cutter; unit: Unit; depth: number }) {
  const deep = cuttingLength(cutter);
  // Ticks are round in the cutter's own unit.
  const mm = MM[unit];
  const x = scaleLinear()
    .domain([0, deep])
    .range([pad.l, W - pad.r]);
  const widest = 2 * radiusAt(cutter, deep);
  const y = scaleLinear()
    .domain([0, widest * 1.05])
    .range([H - pad.b, pad.t]);
  // Closer together near the tip, where round ones bend.
  const points = Array.from({ length: 101 }, (_, i) => deep * (i / 100) ** 2).map((d) => ({
    d,
    w: 2 * radiusAt(cutter, d),
  }));
  const path = line<{ d: number; w: number }>(
    (p) => x(p.d),
    (p) => y(p.w),
  )(points)!;
  const at = { x: x(Math.min(depth, deep)), y: y(2 * radiusAt(cutter, Math.min(depth, deep))) };
  const text = { fontSize: 11, fill: 'var(--mui-palette-text-secondary)' };
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label="Width of the groove against its depth"
      sx={{ width: '100%', maxWidth: 400, display: 'block', mt: 1 }}
    >
      {ticksOf(deep / mm, 5).map((t) => (
        <g key={t}>
          <line x1={x(t * mm)} x2={x(t * mm)} y1={pad.t} y2={H - pad.b} stroke="var(--mui-palette-divider)" />
          <text x={x(t * mm)} y={H - pad.b + 14} textAnchor="middle" {...text}>
            {+t.toFixed(6)}
          </text>
        </g>
      ))}
      {ticksOf((widest * 1.05) / mm, 4).map((t) => (
        <g key={t}>
          <line x1={pad.l} x2={W - pad.r} y1={y(t * mm)} y2={y(t * mm)} stroke="var(--mui-palette-divider)" />
          <text x={pad.l - 6} y={y(t * mm) + 4} textAnchor="end" {...text}>
            {+t.toFixed(6)}
          </text>
        </g>
      ))}
      <text x={W - pad.r} y={H - 3} textAnchor="end" {...text}>
        depth, {unit}
      </text>
      <text x={pad.l + 6} y={pad.t + 9} {...text}>
        width, {unit}
      </text>
      <path d={path} fill="none" stroke="var(--mui-palette-primary-main)" strokeWidth="2" />
      <path
        d={`M${at.x} ${H - pad.b}V${at.y}H${pad.l}`}
        fill="none"
        stroke="var(--mui-palette-brass)"
        strokeDasharray="4 3"
      />
      <circle cx={at.x} cy={at.y} r="4" fill="var(--mui-palette-brass)" />
    </Box>
  );
}
