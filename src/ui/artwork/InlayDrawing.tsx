import { coneOf, type Cutter } from '@/core/cutters/cutter';
import type { MaterialId } from '@/core/cutters/materials';
import type { EmbossingValues } from '@/core/job/embossing';
import type { InlayValues } from '@/core/job/inlay';
import type { StraightInlayValues } from '@/core/job/straightInlay';
import type { Unit } from '@/core/units/length';
import { Body, LEFT, MIDDLE, RIGHT, scaleOf, Section, TakenOff } from './Section';

/** Of the blanks so much is drawn above and below what is cut, mm as a share of that. */
const BEYOND = 0.3;

interface Props<V> {
  readonly values: V;
  readonly pocket: MaterialId;
  readonly unit: Unit;
}

/** Both halves put together: the plug stands in its pocket, before it is sawn off at the dashed line. */
export function InlayDrawing({ values: v, cutter, pocket, unit }: Props<InlayValues> & { readonly cutter: Cutter }) {
  const { tan } = coneOf(cutter);
  const deepest = Math.max(v.depth, v.goesIn);
  const above = v.clear + BEYOND * (deepest + v.clear);
  const below = deepest * (1 + BEYOND);
  const scale = scaleOf(above, below, 2 * (deepest + v.clear) * tan * 1.5 + 4);
  const { k, y } = scale;
  const face = y(0);
  /** Half of how wide the outline is here: as much as keeps a floor in the pocket. */
  const half = deepest * tan + 0.4 * (deepest + v.clear) * tan + 1;
  const wall = (z: number, side: 1 | -1) => MIDDLE + side * (half + z * tan) * k;
  return (
    <Section
      scale={scale}
      bottom={-below}
      unit={unit}
      levels={[
        { name: 'Floor of the plug', z: v.clear },
        { name: 'Face: sawn off', z: 0 },
        { name: 'Plug ends', z: -v.goesIn },
        { name: 'Floor of the pocket', z: -v.depth },
      ]}
    >
      <Body
        material={pocket}
        d={`M${LEFT} ${face}H${wall(0, -1)}L${wall(-v.depth, -1)} ${y(-v.depth)}H${wall(-v.depth, 1)}L${wall(0, 1)} ${face}H${RIGHT}V${y(-below)}H${LEFT}Z`}
      />
      <Body
        material={v.material}
        d={`M${LEFT} ${y(above)}H${RIGHT}V${y(v.clear)}H${wall(v.clear, 1)}L${wall(-v.goesIn, 1)} ${y(-v.goesIn)}H${wall(-v.goesIn, -1)}L${wall(v.clear, -1)} ${y(v.clear)}H${LEFT}Z`}
      />
      <TakenOff d={`M${LEFT} ${face}H${RIGHT}`} />
    </Section>
  );
}

/** The plug on the floor of its pocket; its skin is still on it, and what stands proud is sanded off. Clearance is drawn ten times as wide. */
export function StraightInlayDrawing({ values: v, pocket, unit }: Props<StraightInlayValues>) {
  const [above, below] = [v.proud + 0.25 * (v.depth + v.proud), v.depth * (1 + BEYOND)];
  const half = 2.2 * (v.depth + v.proud);
  const gap = Math.min(10 * v.clearance, 0.2 * half);
  const skinned = half + 2 * gap + 0.15 * half;
  const scale = scaleOf(above, below, 2.2 * skinned);
  const { k, y } = scale;
  const at = (mm: number, side: 1 | -1) => MIDDLE + side * mm * k;
  const [top, skin] = [y(v.proud), y(v.proud - v.skin)];
  return (
    <Section
      scale={scale}
      bottom={-below}
      unit={unit}
      levels={[
        { name: 'Top of the plug', z: v.proud },
        { name: 'Its skin', z: v.proud - v.skin },
        { name: 'Face', z: 0 },
        { name: 'Floor of the pocket', z: -v.depth },
      ]}
    >
      <Body
        material={pocket}
        d={`M${LEFT} ${y(0)}H${at(half + gap, -1)}V${y(-v.depth)}H${at(half + gap, 1)}V${y(0)}H${RIGHT}V${y(-below)}H${LEFT}Z`}
      />
      <Body
        material={v.material}
        d={`M${at(skinned, -1)} ${top}H${at(skinned, 1)}V${skin}H${at(half, 1)}V${y(-v.depth)}H${at(half, -1)}V${skin}H${at(skinned, -1)}Z`}
      />
      <TakenOff d={`M${LEFT} ${y(0)}H${RIGHT}`} />
    </Section>
  );
}

/** Both dies closed on the sheet; what is raised on the upper one is pressed into the lower. Walls lean as the cone cuts them. */
export function EmbossingDrawing({
  values: v,
  cutter,
  pocket,
  unit,
}: Props<EmbossingValues> & { readonly cutter: Cutter | undefined }) {
  const tan = cutter ? coneOf(cutter).tan : 0;
  /** Across a wall the sheet is as wide as this, level. */
  const across = v.sheet * Math.hypot(1, tan);
  const [above, below] = [v.sheet + 0.5 * (v.depth + v.sheet), v.depth + 0.5 * (v.depth + v.sheet)];
  const half = v.depth * tan + 2.2 * (v.depth + v.sheet);
  const scale = scaleOf(above, below, 2.8 * half);
  const { k, y } = scale;
  /** Walls of the lower die; the upper one's stand a sheet off them. */
  const lower = (z: number, side: 1 | -1) => MIDDLE + side * (half + z * tan) * k;
  const upper = (z: number, side: 1 | -1) => lower(z, side) - side * across * k;
  const floor = v.sheet - v.depth;
  const sunk = `H${lower(0, -1)}L${lower(-v.depth, -1)} ${y(-v.depth)}H${lower(-v.depth, 1)}L${lower(0, 1)} ${y(0)}H${RIGHT}`;
  const raised = `H${upper(v.sheet, 1)}L${upper(floor, 1)} ${y(floor)}H${upper(floor, -1)}L${upper(v.sheet, -1)} ${y(v.sheet)}H${LEFT}`;
  return (
    <Section
      scale={scale}
      bottom={-below}
      unit={unit}
      levels={[
        { name: 'Floor, raised die', z: v.sheet },
        { name: 'Face, sunk die', z: 0 },
        { name: 'Top, raised die', z: floor },
        { name: 'Floor, sunk die', z: -v.depth },
      ]}
    >
      <path
        d={`M${LEFT} ${y(0)}${sunk}V${y(v.sheet)}${raised}Z`}
        fill="var(--mui-palette-primary-main)"
        fillOpacity="0.35"
      />
      <Body material={pocket} d={`M${LEFT} ${y(0)}${sunk}V${y(-below)}H${LEFT}Z`} />
      <Body material={v.material} d={`M${LEFT} ${y(above)}H${RIGHT}V${y(v.sheet)}${raised}Z`} />
    </Section>
  );
}
