import { coneOf, type Cutter } from '@/core/cutters/cutter';
import { materials, type MaterialId } from '@/core/cutters/materials';
import type { InlayValues } from '@/core/job/inlay';
import { formatLength, type Unit } from '@/core/units/length';
import { labelPlaces } from '@/ui/cuts/sideLevels';

const [WIDTH, HEIGHT] = [460, 190];
const [LEFT, RIGHT, TOP] = [164, WIDTH - 4, 10];
/** Of the blanks so much is drawn above and below what is cut, mm as a share of that. */
const BEYOND = 0.3;

interface Props {
  readonly values: InlayValues;
  readonly cutter: Cutter;
  readonly pocket: MaterialId;
  readonly unit: Unit;
}

/** Both halves in section, put together and to scale: the plug stands in its pocket, before it is sawn off at the dashed line. */
export function InlayDrawing({ values: v, cutter, pocket, unit }: Props) {
  const { tan } = coneOf(cutter);
  const deepest = Math.max(v.depth, v.goesIn);
  const above = v.clear + BEYOND * (deepest + v.clear);
  const below = deepest * (1 + BEYOND);
  const k = Math.min(HEIGHT / (above + below), (RIGHT - LEFT) / (2 * (deepest + v.clear) * tan * 1.5 + 4));
  const middle = (LEFT + RIGHT) / 2;
  const face = TOP + above * k;
  const y = (z: number) => face - z * k;
  /** Half of how wide the outline is here: as much as keeps a floor in the pocket. */
  const half = deepest * tan + 0.4 * (deepest + v.clear) * tan + 1;
  const wall = (z: number, side: 1 | -1) => middle + side * (half + z * tan) * k;
  const into = `M${LEFT} ${face}H${wall(0, -1)}L${wall(-v.depth, -1)} ${y(-v.depth)}H${wall(-v.depth, 1)}L${wall(0, 1)} ${face}H${RIGHT}V${y(-below)}H${LEFT}Z`;
  const goes = `M${LEFT} ${y(above)}H${RIGHT}V${y(v.clear)}H${wall(v.clear, 1)}L${wall(-v.goesIn, 1)} ${y(-v.goesIn)}H${wall(-v.goesIn, -1)}L${wall(v.clear, -1)} ${y(v.clear)}H${LEFT}Z`;
  const levels = [
    { name: 'Floor of the plug', z: v.clear },
    { name: 'Face: sawn off', z: 0 },
    { name: 'Plug ends', z: -v.goesIn },
    { name: 'Floor of the pocket', z: -v.depth },
  ];
  const places = labelPlaces(
    levels.map((l) => y(l.z)),
    14,
    (above + below) * k + TOP,
  );
  const edge = 'var(--mui-palette-text-primary)';
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${(above + below) * k + 2 * TOP}`}
      width="100%"
      role="img"
      aria-label={`Section: ${levels.map((l) => `${l.name.toLowerCase()} ${formatLength(l.z, unit)}`).join(', ')} ${unit}`}
      style={{ display: 'block' }}
    >
      <path d={into} fill={materials[pocket].face} stroke={edge} strokeWidth="1" strokeLinejoin="round" />
      <path d={goes} fill={materials[v.material].face} stroke={edge} strokeWidth="1" strokeLinejoin="round" />
      <path
        d={`M${LEFT} ${face}H${RIGHT}`}
        stroke="var(--mui-palette-error-main)"
        strokeWidth="1.5"
        strokeDasharray="7 4"
      />
      {levels.map((l, i) => (
        <g key={l.name}>
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
          <text x={LEFT - 24} y={places[i] + 4} textAnchor="end" fontSize="11.5" fontWeight="600" fill={edge}>
            {formatLength(l.z, unit, unit === 'mm' ? 2 : 3)}
          </text>
        </g>
      ))}
    </svg>
  );
}
