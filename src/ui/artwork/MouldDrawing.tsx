import { coneOf, type Cutter } from '@/core/cutters/cutter';
import type { MaterialId } from '@/core/cutters/materials';
import type { MouldValues, Part } from '@/core/job/mould';
import type { Unit } from '@/core/units/length';
import { Body, LEFT, RIGHT, scaleOf, Section, TakenOff } from './Section';

/** So many steps of level floors are drawn. */
const STEPS = 3;

/** A mould in section, to scale: its face as it is left, floor with leaning walls, and of what goes on from there what it has. */
export function MouldDrawing({
  values: v,
  parts,
  floors,
  wall,
  bit,
  material,
  unit,
}: {
  readonly values: MouldValues;
  readonly parts: ReadonlyMap<string, Part>;
  /** Level floors of the relief, mm below the face as it is left, the highest first. */
  readonly floors: readonly number[];
  readonly wall: Cutter;
  readonly bit: Cutter | undefined;
  readonly material: MaterialId;
  readonly unit: Unit;
}) {
  const has = (p: Part) => [...parts.values()].includes(p);
  const [raised, words] = [has('raised') ? v.raised : 0, has('words') && bit ? v.words : 0];
  const channel = has('channel') ? v.channel : 0;
  // Without a floor of its own the mould goes down by the relief's, as many as can be told apart.
  const shown = floors.slice(-STEPS);
  const steps = has('body') ? [v.depth] : shown;
  const foot = steps.at(-1);
  if (!foot) return null;
  const deepest = Math.max(foot + Math.max(raised, words), channel, ...shown);
  const [above, below] = [v.skim + 0.1 * deepest, 1.35 * deepest];
  const scale = scaleOf(above, below, 9 * deepest);
  const { k, y } = scale;
  const tan = coneOf(wall).tan;
  /** Ninths of how wide the drawing is, from its left end, and mm from there. */
  const x = (share: number, mm = 0) => LEFT + ((RIGHT - LEFT) * share) / 9 + mm * k;
  const [floor, up] = [y(-foot), y(0)];
  const vent = channel ? `H${x(0.6)}V${y(-channel)}H${x(0.6, Math.min(channel, 0.6 * deepest))}V${up}` : '';
  const hollow = (from: number, to: number, deep: number) =>
    `H${x(from)}L${x(from, deep * tan)} ${y(-foot - deep)}H${x(to, -deep * tan)}L${x(to)} ${floor}`;
  const pocket = raised ? hollow(3, 4.2, raised) : '';
  const level = has('body') && shown.length ? hollow(4.5, 5.3, shown.at(-1)! - foot) : '';
  const stairs = steps.map((d, k) => {
    const at = 1.8 + (3 * k) / steps.length;
    return `H${x(at)}L${x(at, (d - (steps[k - 1] ?? 0)) * tan)} ${y(-d)}`;
  });
  const half = bit ? words * coneOf(bit).tan : 0;
  const letter = words ? `H${x(6, -half)}L${x(6)} ${y(-foot - words)}L${x(6, half)} ${floor}` : '';
  return (
    <Section
      scale={scale}
      bottom={-below}
      unit={unit}
      levels={[
        { name: 'Face as it is left', z: 0 },
        ...(channel ? [{ name: 'Gates and vents', z: -channel }] : []),
        ...(has('body') ? [{ name: 'Floor', z: -foot }] : []),
        ...(words ? [{ name: 'Lettering', z: -foot - words }] : []),
        ...(raised ? [{ name: 'Raised parts', z: -foot - raised }] : []),
        ...(has('body') ? shown.slice(-1) : shown).map((d) => ({ name: 'Level floor', z: -d })),
      ].sort((a, b) => b.z - a.z)}
    >
      <Body
        material={material}
        d={`M${LEFT} ${up}${vent}${stairs.join('')}${pocket}${level}${letter}H${x(7.6, -foot * tan)}L${x(7.6)} ${up}H${RIGHT}V${y(-below)}H${LEFT}Z`}
      />
      {v.skim > 0 && <TakenOff d={`M${LEFT} ${y(v.skim)}H${RIGHT}`} />}
    </Section>
  );
}
