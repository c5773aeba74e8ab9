import { coneOf, type Cutter } from '@/core/cutters/cutter';
import type { MaterialId } from '@/core/cutters/materials';
import type { MouldValues, Part } from '@/core/job/mould';
import type { Unit } from '@/core/units/length';
import { Body, LEFT, RIGHT, scaleOf, Section, TakenOff } from './Section';

/** A mould in section, to scale: its face as it is left, floor with leaning walls, and of what goes on from there what it has. */
export function MouldDrawing({
  values: v,
  parts,
  wall,
  bit,
  material,
  unit,
}: {
  readonly values: MouldValues;
  readonly parts: ReadonlyMap<string, Part>;
  readonly wall: Cutter;
  readonly bit: Cutter | undefined;
  readonly material: MaterialId;
  readonly unit: Unit;
}) {
  const has = (p: Part) => [...parts.values()].includes(p);
  const [raised, words] = [has('raised') ? v.raised : 0, has('words') && bit ? v.words : 0];
  const channel = has('channel') ? v.channel : 0;
  const deepest = Math.max(v.depth + Math.max(raised, words), channel);
  const [above, below] = [v.skim + 0.1 * deepest, 1.35 * deepest];
  const scale = scaleOf(above, below, 9 * deepest);
  const { k, y } = scale;
  const tan = coneOf(wall).tan;
  /** Ninths of how wide the drawing is, from its left end, and mm from there. */
  const x = (share: number, mm = 0) => LEFT + ((RIGHT - LEFT) * share) / 9 + mm * k;
  const [floor, up] = [y(-v.depth), y(0)];
  const vent = channel ? `H${x(0.6)}V${y(-channel)}H${x(0.6, Math.min(channel, 0.6 * deepest))}V${up}` : '';
  const pocket = raised
    ? `H${x(3)}L${x(3, raised * tan)} ${y(-v.depth - raised)}H${x(4.4, -raised * tan)}L${x(4.4)} ${floor}`
    : '';
  const half = bit ? words * coneOf(bit).tan : 0;
  const letter = words ? `H${x(6, -half)}L${x(6)} ${y(-v.depth - words)}L${x(6, half)} ${floor}` : '';
  return (
    <Section
      scale={scale}
      bottom={-below}
      unit={unit}
      levels={[
        { name: 'Face as it is left', z: 0 },
        ...(channel ? [{ name: 'Gates and vents', z: -channel }] : []),
        { name: 'Floor', z: -v.depth },
        ...(words ? [{ name: 'Lettering', z: -v.depth - words }] : []),
        ...(raised ? [{ name: 'Raised parts', z: -v.depth - raised }] : []),
      ].sort((a, b) => b.z - a.z)}
    >
      <Body
        material={material}
        d={`M${LEFT} ${up}${vent}H${x(1.8)}L${x(1.8, v.depth * tan)} ${floor}${pocket}${letter}H${x(7.6, -v.depth * tan)}L${x(7.6)} ${up}H${RIGHT}V${y(-below)}H${LEFT}Z`}
      />
      {v.skim > 0 && <TakenOff d={`M${LEFT} ${y(v.skim)}H${RIGHT}`} />}
    </Section>
  );
}
