import type { MaterialId } from '@/core/cutters/materials';
import { Body } from './Section';

const [SIZE, AT] = [120, { x: 84, y: 36 }];
/** The cutter of the pocket is drawn this large, and clearance as wide at most. */
const [RADIUS, WIDEST] = [24, 10];

/** A corner of a straight inlay from above: the plug in its pocket, both as round as the larger cutter, or the pocket relieved. */
export function CornerDrawing(p: {
  readonly relieved: boolean;
  /** Clearance as a part of the radius of the pocket's corner. */
  readonly clearance: number;
  readonly pocket: MaterialId;
  readonly plug: MaterialId;
}) {
  const gap = Math.min(WIDEST, 10 * p.clearance * RADIUS);
  const corner = (by: number, round: string) => `M0 ${AT.y + by}${round}V${SIZE}H0Z`;
  const arc = (r: number, x: number, y: number) => `H${AT.x - x}A${r} ${r} 0 0 1 ${AT.x} ${AT.y + y}`;
  const inner = Math.max(0, RADIUS - gap);
  const sharp = `H${AT.x - gap}`;
  const reach = Math.SQRT2 * RADIUS;
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE + 16}`}
      width={130}
      role="img"
      aria-label={`A corner from above: ${p.relieved ? 'the plug is sharp, the pocket relieved' : 'pocket and plug are as round as the larger cutter'}`}
      style={{ display: 'block', flexShrink: 0 }}
    >
      <Body material={p.pocket} d={`M0 0H${SIZE}V${SIZE}H0Z`} />
      <path
        d={corner(0, p.relieved ? arc(RADIUS, reach, reach) : arc(RADIUS, RADIUS, RADIUS))}
        fill="var(--mui-palette-background-default)"
        stroke="var(--mui-palette-text-primary)"
      />
      <Body
        material={p.plug}
        d={corner(
          gap,
          p.relieved ? sharp : `H${AT.x - gap - inner}A${inner} ${inner} 0 0 1 ${AT.x - gap} ${AT.y + gap + inner}`,
        )}
      />
      <text x={SIZE / 2} y={SIZE + 12} textAnchor="middle" fontSize="10.5" fill="var(--mui-palette-text-secondary)">
        A corner, from above
      </text>
    </svg>
  );
}
