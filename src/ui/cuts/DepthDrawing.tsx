import { profileOf, radiusOf, type Cutter } from '@/core/cutters/cutter';
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

interface Props {
  readonly side: { readonly start: number; readonly floor: number; readonly lean: number };
  readonly blank: Blank;
  readonly unit: Unit;
  readonly colour: string;
  readonly cutter: Cutter | null;
  /** Whether the floor is a limit that a V-carve may stay above. */
  readonly limited: boolean;
  /** Where heights count from, mm above the top face. */
  readonly zero: number;
}

/** A cut from the side: its heights and depths to scale and numbered, how its walls lean, and its cutter in its true shape at the floor. */
export function DepthDrawing({ side, blank, unit, colour, cutter, limited, zero }: Props) {
  const deepest = Math.max(side.floor, Math.min(blank.thickness, side.floor * 1.25), 0.1);
  const { y, k, above } = sideScale(blank.safeHeight, deepest, HEIGHT);
  const levels: Level[] = [
    { name: 'Safe', z: blank.safeHeight },
    { name: 'Clearance', z: blank.clearance },
    { name: 'Approach', z: blank.approach },
    { name: 'Top face', z: 0 },
    ...(side.start > 0 ? [{ name: 'Start', z: -side.start }] : []),
    { name: limited ? 'Limit' : 'Depth', z: -side.floor },
    ...(blank.thickness <= deepest && Math.abs(blank.thickness - side.floor) > 1e-9 ? [{ name: 'Bed', z: -blank.thickness }] : []),
  ].sort((a, b) => b.z - a.z);
  const places = labelPlaces(levels.map((l) => y(l.z)), 13, HEIGHT + 4);
  const r = cutter ? radiusOf(cutter) : 1;
  const run = Math.tan((side.lean * Math.PI) / 180) * (side.floor - side.start) * k;
  // The floor is as wide as the cutter's, or as there is room for.
  const half = Math.min((RIGHT - LEFT) / 2 - 14, side.lean > 0 ? run + 16 : Math.max(24, r * k + 10));
  const foot = Math.max(half - run, 4);
  const [face, start, floor, bed] = [0, -side.start, -side.floor, -Math.min(blank.thickness, deepest)].map((z) => TOP + y(z));
  const bottom = Math.max(bed, floor + 2);
  const profile = cutter ? profileOf(cutter) : null;
  const outline = profile
    ? Array.from({ length: 33 }, (_, i) => -r + (2 * r * i) / 32).map((rho) => ({
        x: MIDDLE + rho * k,
        y: floor - Math.min(profile(Math.min(Math.abs(rho), r - 1e-9)), 1e3) * k,
      }))
    : [];
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + TOP + 24}`} width="100%" role="img" aria-label={`Side view: ${levels.map((l) => `${l.name.toLowerCase()} ${formatLength(l.z - zero, unit)}`).join(', ')} ${unit}`} style={{ display: 'block', marginBottom: 6 }}>
      <clipPath id="side-view">
        <rect x={LEFT} y="0" width={RIGHT - LEFT} height={HEIGHT + TOP + 2} />
      </clipPath>
      <g clipPath="url(#side-view)">
        <path d={`M${LEFT} ${face}H${MIDDLE - half}V${start}L${MIDDLE - foot} ${floor}H${MIDDLE + foot}L${MIDDLE + half} ${start}V${face}H${RIGHT}V${bottom}H${LEFT}Z`} fill={materials[blank.material].face} opacity="0.55" />
        {outline.length > 0 && (
          <path d={`M${outline.map((p) => `${p.x} ${p.y}`).join('L')}V-20H${outline[0].x}Z`} fill="var(--mui-palette-text-secondary)" fillOpacity="0.16" stroke="var(--mui-palette-text-secondary)" strokeWidth="1" strokeLinejoin="round" />
        )}
        <path d={`M${MIDDLE - half} ${start}L${MIDDLE - foot} ${floor}H${MIDDLE + foot}L${MIDDLE + half} ${start}`} fill="none" stroke={colour} strokeWidth="2" strokeLinejoin="round" />
        <path d={`M${LEFT} ${face}H${MIDDLE - half}M${MIDDLE + half} ${face}H${RIGHT}`} stroke="var(--mui-palette-text-primary)" strokeWidth="1.4" />
      </g>
      {levels.map((l, i) => (
        <g key={l.name}>
          <path d={`M${LEFT - 22} ${TOP + places[i]}L${LEFT - 8} ${TOP + y(l.z)}H${l.z > 0 ? RIGHT : LEFT}`} fill="none" stroke="var(--mui-palette-text-secondary)" strokeWidth="0.8" strokeDasharray={l.z > 0 ? '2 4' : undefined} opacity="0.7" />
          <text x={LEFT - 62} y={TOP + places[i] + 4} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-secondary)">
            {l.name}
          </text>
          <text x={LEFT - 26} y={TOP + places[i] + 4} textAnchor="end" fontSize="11.5" fontWeight="600" fill="var(--mui-palette-text-primary)">
            {formatLength(l.z - zero, unit, unit === 'mm' ? 2 : 3)}
          </text>
        </g>
      ))}
      {side.lean > 0 && (
        <text x={RIGHT} y={HEIGHT + TOP + 18} textAnchor="end" fontSize="11" fill="var(--mui-palette-text-primary)">
          {+(2 * side.lean).toFixed(1)}° included, {+side.lean.toFixed(1)}° half
        </text>
      )}
      {above < 0.999 && (
        <text x="0" y={HEIGHT + TOP + 18} fontSize="10.5" fill="var(--mui-palette-text-secondary)">
          heights {(1 / above).toFixed(above < 0.1 ? 0 : 1)} times smaller
        </text>
      )}
    </svg>
  );
}
