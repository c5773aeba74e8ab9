import { materials } from '@/core/cutters/materials';
import type { Blank } from '@/core/job/job';
import { formatLength, type Unit } from '@/core/units/length';

/** The blank from the front with its heights: face, clearance, safe height, underside, and where Z 0 is. */
export function BlankDrawing({ blank, unit }: { blank: Blank; unit: Unit }) {
  const left = 92;
  const right = 312;
  const total = blank.thickness + blank.safeHeight + blank.intoBed;
  // Thin blanks still show: heights are to scale, but never closer than a line of text.
  const k = 104 / total;
  const top = 18 + Math.max(30, blank.safeHeight * k);
  const clear = top - Math.max(14, Math.min((top - 18) / 2, blank.clearance * k));
  const bed = Math.max(top + 34, top + blank.thickness * k);
  const zero = blank.zZero === 'top' ? top : bed;
  const len = (v: number) => `${formatLength(v, unit)} ${unit}`;
  const line = (y: number, text: string, dash?: string) => (
    <g>
      <line
        x1={left}
        x2={right}
        y1={y}
        y2={y}
        stroke="var(--mui-palette-text-secondary)"
        strokeDasharray={dash}
        strokeWidth="1"
      />
      <text x={left - 8} y={y + 4} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-secondary)">
        {text}
      </text>
    </g>
  );
  return (
    <svg
      viewBox={`0 0 320 ${bed + 26}`}
      width="100%"
      role="img"
      aria-label={`Heights: safe ${len(blank.safeHeight)}, clearance ${len(blank.clearance)}, thickness ${len(blank.thickness)}`}
      style={{ display: 'block', marginBottom: 10 }}
    >
      <rect x={left} y={bed} width={right - left} height={12} fill="var(--mui-palette-divider)" />
      <rect x={left + 24} y={top} width={right - left - 48} height={bed - top} fill={materials[blank.material].face} />
      <text
        x={(left + right) / 2}
        y={(top + bed) / 2 + 4}
        textAnchor="middle"
        fontSize="12"
        fontWeight="600"
        fill={
          blank.material === 'walnut' ||
          blank.material === 'paintedBoard' ||
          blank.material === 'anodisedAluminium' ||
          blank.material === 'laminate'
            ? '#fff'
            : '#1e2a2f'
        }
      >
        {len(blank.thickness)}
      </text>
      {line(18, `safe ${formatLength(blank.safeHeight, unit)}`, '5 3')}
      {line(clear, `clear ${formatLength(blank.clearance, unit)}`, '2 3')}
      {line(top, 'face')}
      {line(bed, 'underside')}
      <g stroke="var(--mui-palette-primary-main)" strokeWidth="2" fill="none">
        <circle cx={right - 12} cy={zero} r="5" />
        <path d={`M${right - 12} ${zero - 9}v18M${right - 21} ${zero}h18`} />
      </g>
      <text
        x={right - 26}
        y={zero - 6}
        textAnchor="end"
        fontSize="11"
        fontWeight="600"
        fill="var(--mui-palette-primary-main)"
      >
        Z 0
      </text>
    </svg>
  );
}
