import { profileOf, radiusAt, radiusOf, type Cutter } from '@/core/cutters/cutter';
import { materials } from '@/core/cutters/materials';
import type { Blank } from '@/core/job/job';
import { formatLength, type Unit } from '@/core/units/length';
import { labelPlaces, sideScale, type Level } from './sideLevels';

const WIDTH = 316;
const HEIGHT = 132;
const TOP = 12;
const LEFT = 118;
const RIGHT = WIDTH - 6;
const MIDDLE = (LEFT + RIGHT) / 2;
/** How much floor is drawn beside the cutter where an area is cleared. */
const FLOOR = 14;

interface Props {
  readonly side: { readonly start: number; readonly floor: number; readonly draftAngle: number };
  readonly blank: Blank;
  readonly unit: Unit;
  readonly colour: string;
  readonly cutter: Cutter | null;
  /** What the lowest level is: a depth, a limit that a V-carve may stay above, or none (drawn as an example, without a number). */
  readonly lowest: 'Depth' | 'Limit' | 'No limit';
  /** Whether it clears an area, not a groove of its cutter's width. */
  readonly clears: boolean;
  /** Where heights count from, mm above the top face. */
  readonly zero: number;
}

/** A cut from the side: its heights and depths to scale and numbered, how its walls lean, and its cutter in its true shape at the floor. */
export function DepthDrawing({ side, blank, unit, colour, cutter, lowest, clears, zero }: Props) {
  const deepest = Math.max(side.floor, Math.min(blank.thickness, side.floor * 1.25), 0.1);
  const r = cutter ? radiusOf(cutter) : 1;
  const tan = Math.tan((side.draftAngle * Math.PI) / 180);
  // Leaning walls keep their angle: where they are wider than deep, they decide the scale.
  const room = (RIGHT - LEFT) / 2 - 14;
  const tip = cutter && tan > 0 ? Math.min(r, radiusAt(cutter, 0)) : r;
  const wide = tan * (side.floor - side.start) + (tan > 0 ? tip : 0);
  const { y, k, above } = sideScale(
    blank.safeHeight,
    deepest,
    HEIGHT,
    wide > 0 ? (room - (clears ? FLOOR : 0)) / wide : Infinity,
  );
  const levels: Level[] = [
    { name: 'Safe', z: blank.safeHeight },
    { name: 'Clearance', z: blank.clearance },
    { name: 'Approach', z: blank.approach },
    { name: 'Top face', z: 0 },
    ...(side.start > 0 ? [{ name: 'Start', z: -side.start }] : []),
    { name: lowest, z: -side.floor },
    ...(blank.thickness <= deepest && Math.abs(blank.thickness - side.floor) > 1e-9
      ? [{ name: 'Underside', z: -blank.thickness }]
      : []),
  ].sort((a, b) => b.z - a.z);
  const places = labelPlaces(
    levels.map((l) => y(l.z)),
    13,
    HEIGHT,
  );
  const run = tan * (side.floor - side.start) * k;
  // A groove is as wide as its cutter; what clears an area has a floor beside it.
  const foot = Math.min(room - run, tip * k + (clears ? FLOOR : 0));
  const half = foot + run;
  const [face, start, floor, bed] = [0, -side.start, -side.floor, -Math.min(blank.thickness, deepest)].map(
    (z) => TOP + y(z),
  );
  const through = floor > bed - 1e-6;
  // A cut that goes through parts the blank; what it goes into below is the spoilboard.
  const material = through
    ? `M${LEFT} ${face}H${MIDDLE - half}V${bed}H${LEFT}ZM${RIGHT} ${face}H${MIDDLE + half}V${bed}H${RIGHT}Z`
    : `M${LEFT} ${face}H${MIDDLE - half}V${start}L${MIDDLE - foot} ${floor}H${MIDDLE + foot}L${MIDDLE + half} ${start}V${face}H${RIGHT}V${bed}H${LEFT}Z`;
  const profile = cutter ? profileOf(cutter) : null;
  const outline = profile
    ? Array.from({ length: 33 }, (_, i) => -r + (2 * r * i) / 32).map((rho) => ({
        x: MIDDLE + rho * k,
        y: floor - Math.min(profile(Math.min(Math.abs(rho), r - 1e-9)), 1e3) * k,
      }))
    : [];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT + TOP + 26}`}
      width="100%"
      role="img"
      aria-label={`Side view: ${levels.map((l) => (l.name === 'No limit' ? 'no limit' : `${l.name.toLowerCase()} ${formatLength(l.z - zero, unit)}`)).join(', ')} ${unit}`}
      style={{ display: 'block', marginBottom: 6 }}
    >
      <clipPath id="side-view">
        <rect x={LEFT} y="0" width={RIGHT - LEFT} height={HEIGHT + TOP + 2} />
      </clipPath>
      <g clipPath="url(#side-view)">
        {through && (
          <rect
            x={LEFT}
            y={bed}
            width={RIGHT - LEFT}
            height={floor - bed + 4}
            fill="var(--mui-palette-text-secondary)"
            fillOpacity="0.3"
          />
        )}
        <path d={material} fill={materials[blank.material].face} opacity="0.55" />
        {outline.length > 0 && (
          <path
            d={`M${outline.map((p) => `${p.x} ${p.y}`).join('L')}V-20H${outline[0].x}Z`}
            fill="var(--mui-palette-text-secondary)"
            fillOpacity="0.16"
            stroke="var(--mui-palette-text-secondary)"
            strokeWidth="1"
            strokeLinejoin="round"
          />
        )}
        <path
          d={`M${MIDDLE - half} ${start}L${MIDDLE - foot} ${floor}H${MIDDLE + foot}L${MIDDLE + half} ${start}`}
          fill="none"
          stroke={colour}
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <path
          d={`M${LEFT} ${face}H${MIDDLE - half}M${MIDDLE + half} ${face}H${RIGHT}`}
          stroke="var(--mui-palette-text-primary)"
          strokeWidth="1.4"
        />
      </g>
      {levels.map((l, i) => (
        <g key={l.name}>
          <path
            d={`M${LEFT - 22} ${TOP + places[i]}L${LEFT - 8} ${TOP + y(l.z)}H${l.z > 0 ? RIGHT : LEFT}`}
            fill="none"
            stroke="var(--mui-palette-text-secondary)"
            strokeWidth="0.8"
            strokeDasharray={l.z > 0 ? '2 4' : undefined}
            opacity="0.7"
          />
          <text
            x={LEFT - (unit === 'mm' ? 62 : 68)}
            y={TOP + places[i] + 4}
            textAnchor="end"
            fontSize="11"
            fill="var(--mui-palette-text-secondary)"
          >
            {l.name}
          </text>
          <text
            x={LEFT - 26}
            y={TOP + places[i] + 4}
            textAnchor="end"
            fontSize="11.5"
            fontWeight="600"
            fill="var(--mui-palette-text-primary)"
          >
            {l.name === 'No limit' ? '' : formatLength(l.z - zero, unit, unit === 'mm' ? 2 : 3)}
          </text>
        </g>
      ))}
      {side.draftAngle > 0 && (
        <text x={RIGHT} y={HEIGHT + TOP + 20} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-primary)">
          {+(2 * side.draftAngle).toFixed(1)}° included, {+side.draftAngle.toFixed(1)}° half
        </text>
      )}
      {above < 0.999 && (
        <text x="0" y={HEIGHT + TOP + 20} fontSize="10.5" fill="var(--mui-palette-text-secondary)">
          heights {(1 / above).toFixed(above < 0.1 ? 0 : 1)} times smaller
        </text>
      )}
    </svg>
  );
}
