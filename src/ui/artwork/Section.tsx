import type { ReactNode } from 'react';
import { materials, type MaterialId } from '@/core/cutters/materials';
import { formatLength, type Unit } from '@/core/units/length';
import { labelPlaces } from '@/ui/cuts/sideLevels';

const [WIDTH, HEIGHT] = [460, 190];
export const [LEFT, RIGHT, TOP] = [164, WIDTH - 4, 10];
export const MIDDLE = (LEFT + RIGHT) / 2;
const EDGE = 'var(--mui-palette-text-primary)';

/** Heights of a section as they are drawn: `z` mm from the face of the pocket. */
interface Scale {
  readonly k: number;
  readonly y: (z: number) => number;
}
export const scaleOf = (above: number, below: number, wide: number): Scale => {
  const k = Math.min(HEIGHT / (above + below), (RIGHT - LEFT) / wide);
  return { k, y: (z) => TOP + (above - z) * k };
};

/** A section of both halves, to scale, with the levels that count named at its left. */
export function Section(p: {
  readonly scale: Scale;
  readonly bottom: number;
  readonly levels: readonly { readonly name: string; readonly z: number }[];
  readonly unit: Unit;
  readonly children: ReactNode;
}) {
  const { y } = p.scale;
  const places = labelPlaces(
    p.levels.map((l) => y(l.z)),
    14,
    y(p.bottom) - TOP,
  );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${y(p.bottom) + TOP}`}
      width="100%"
      role="img"
      aria-label={`Section: ${p.levels.map((l) => `${l.name.toLowerCase()} ${formatLength(l.z, p.unit)}`).join(', ')} ${p.unit}`}
      style={{ display: 'block' }}
    >
      {p.children}
      {p.levels.map((l, i) => (
        <g key={i}>
          <path
            d={`M${LEFT - 20} ${places[i]}L${LEFT - 6} ${y(l.z)}H${LEFT}`}
            fill="none"
            stroke="var(--mui-palette-text-secondary)"
            strokeWidth="0.8"
          />
          <text
            x={LEFT - 68}
            y={places[i] + 4}
            textAnchor="end"
            fontSize="10.5"
            fill="var(--mui-palette-text-secondary)"
          >
            {l.name}
          </text>
          <text x={LEFT - 24} y={places[i] + 4} textAnchor="end" fontSize="11.5" fontWeight="600" fill={EDGE}>
            {formatLength(l.z, p.unit, p.unit === 'mm' ? 2 : 3)}
          </text>
        </g>
      ))}
    </svg>
  );
}

export const Body = ({ d, material }: { readonly d: string; readonly material: MaterialId }) => (
  <path d={d} fill={materials[material].face} stroke={EDGE} strokeWidth="1" strokeLinejoin="round" />
);
/** What is taken off along here. */
export const TakenOff = ({ d }: { readonly d: string }) => (
  <path d={d} stroke="var(--mui-palette-error-main)" strokeWidth="1.5" strokeDasharray="7 4" />
);
