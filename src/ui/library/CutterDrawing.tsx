import { cuttingLength, profileOf, radiusOf, type Cutter } from '@/core/cutters/cutter';
import { formatLength, type Unit } from '@/core/units/length';

/** A cutter to scale, from the same profile function that the proof cuts with. */
export function CutterDrawing({ cutter, unit, size = 170 }: { cutter: Cutter; unit: Unit; size?: number }) {
  const r = radiusOf(cutter);
  const profile = profileOf(cutter);
  const edges = cuttingLength(cutter);
  const shank = cutter.shankDiameter / 2;
  const total = Math.max(edges * 1.5, r * 3, edges + 3);
  const k = Math.min((size - 12) / total, 62 / Math.max(r, shank));
  const cx = 100;
  const y = (h: number) => size - 6 - h * k;
  const half: string[] = [];
  const n = 60;
  for (let i = 0; i <= n; i++) {
    const rho = (r * i) / n;
    const h = Math.min(profile(Math.min(rho, r - 1e-9)), edges);
    half.push(`${cx + rho * k} ${y(h)}`);
  }
  const other = half
    .map((p) => {
      const [px, py] = p.split(' ').map(Number);
      return `${2 * cx - px} ${py}`;
    })
    .reverse();
  const top = Math.max(edges, profile(r - 1e-9));
  const angle =
    cutter.shape === 'v' || cutter.shape === 'drill' || cutter.shape === 'drag'
      ? cutter.values.includedAngle
      : cutter.shape === 'cone' || cutter.shape === 'taperedBall'
        ? 2 * cutter.values.halfAngle
        : null;
  return (
    <svg
      viewBox={`0 0 300 ${size}`}
      width="100%"
      height={size}
      role="img"
      aria-label={`${cutter.name}, drawn to scale`}
      style={{ display: 'block' }}
    >
      <path d={`M${cx - shank * k} 0V${y(top)}H${cx + shank * k}V0Z`} fill="var(--mui-palette-line)" />
      <path
        d={`M${half.join('L')}L${cx + r * k} ${y(top)}H${cx - r * k}L${other.join('L')}Z`}
        fill="var(--mui-palette-wash)"
        stroke="var(--mui-palette-primary-main)"
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
      <line
        x1={cx}
        x2={cx}
        y1="0"
        y2={size}
        stroke="var(--mui-palette-text-secondary)"
        strokeDasharray="8 3 2 3"
        strokeWidth="0.8"
      />
      <g fontSize="12" fill="var(--mui-palette-text-primary)">
        <text x="184" y="24">
          {'\u2300'} {formatLength(2 * r, unit)} {unit}
        </text>
        <text x="184" y="44">
          cuts {formatLength(edges, unit)} {unit} deep
        </text>
        {angle !== null && (
          <>
            <text x="184" y="64">
              {+angle.toFixed(2)}° included
            </text>
            <text x="184" y="84">
              {+(angle / 2).toFixed(2)}° half
            </text>
          </>
        )}
        <text x="184" y={size - 10} fill="var(--mui-palette-text-secondary)" fontSize="11">
          shank {formatLength(cutter.shankDiameter, unit)}
        </text>
      </g>
    </svg>
  );
}
