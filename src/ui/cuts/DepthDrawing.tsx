import { materials } from '@/core/cutters/materials';
import type { Blank } from '@/core/job/job';
import { formatLength, type Unit } from '@/core/units/length';

/** A side-on drawing of a cut's depths in the blank: start, floor, and how its walls lean. */
export function DepthDrawing({ side, blank, unit, colour }: { side: { start: number; floor: number; lean: number }; blank: Blank; unit: Unit; colour: string }) {
  const width = 316;
  const height = 74;
  const face = 16;
  const deep = Math.max(side.floor, blank.thickness * 0.35, 0.1);
  const k = (height - 14) / Math.max(deep, Math.min(blank.thickness, deep * 1.25));
  const bed = Math.min(face + blank.thickness * k, face + height - 8);
  const floor = Math.min(face + side.floor * k, face + height);
  const start = face + side.start * k;
  const run = Math.min(46, Math.tan((side.lean * Math.PI) / 180) * (floor - start));
  const left = 112;
  const right = 232;
  const wall = `M${left} ${start}L${left + run} ${floor}H${right - run}L${right} ${start}`;
  return (
    <svg viewBox={`0 0 ${width} ${face + height + 8}`} width="100%" role="img" aria-label={`Depth ${formatLength(side.floor, unit)} ${unit} from the top face`} style={{ display: 'block', marginBottom: 6 }}>
      <path d={`M58 ${face}H${left}V${start}L${left + run} ${floor}H${right - run}L${right} ${start}V${face}H${width - 6}V${Math.max(bed, face + 10)}H58Z`} fill={materials[blank.material].face} opacity="0.55" fillRule="evenodd" />
      <path d={wall} fill="none" stroke={colour} strokeWidth="2" strokeLinejoin="round" />
      <path d={`M58 ${face}H${left}M${right} ${face}H${width - 6}`} stroke="var(--mui-palette-text-primary)" strokeWidth="1.4" />
      <g stroke="var(--mui-palette-text-secondary)" strokeWidth="1">
        <path d={`M48 ${start}V${floor}M44 ${start}h8M44 ${floor}h8`} />
        <path d={`M52 ${floor}H${left + run}`} strokeDasharray="2 3" opacity="0.6" />
      </g>
      <text x="40" y={(start + floor) / 2 + 4} textAnchor="end" fontSize="12" fontWeight="600" fill="var(--mui-palette-text-primary)">
        {formatLength(side.floor - side.start, unit, unit === 'mm' ? 2 : 3)}
      </text>
      {side.lean > 0 && (
        <text x={width - 10} y={face + 18} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-primary)">
          <tspan>{+(2 * side.lean).toFixed(1)}° included</tspan>
          <tspan x={width - 10} dy="15">
            {+side.lean.toFixed(1)}° half
          </tspan>
        </text>
      )}
      {side.floor > blank.thickness + 1e-6 && (
        <text x={width - 8} y={face + height + 4} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-primary)">
          {formatLength(side.floor - blank.thickness, unit)} into the bed
        </text>
      )}
    </svg>
  );
}
