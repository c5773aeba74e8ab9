import { castMaterials } from '../cutters/castMaterials';
import type { CastingValues } from '../job/job';
import { castOf, cutClosely, heldBy, volumeOf, type Casting } from '../proof/casting';
import { percentOf } from '../units/count';
import { lengthText } from '../units/length';
import { holesIn, inHoles, withoutHoles } from '../proof/drilled';
import type { Trouble } from './trouble';
import type { Proof } from './proving';

/** What comes out of a mould, and what may keep it from coming out. */
export interface Cast {
  /** Null where there is nothing to cast. */
  readonly casting: Casting | null;
  /** How much the mould holds, mm3, and what that weighs once it has set, g. */
  readonly volume: number;
  readonly mass: number;
  /** As part of its size in the mould: what it measures when it is cold. */
  readonly cold: number;
  /** Drilled holes that stand alone: for bolts and dowels, and not filled. */
  readonly unfilled: number;
  readonly troubles: readonly Trouble[];
}

/** A share of walls so small is a corner or two of them. */
const FEW = 5e-4;
/** Filled higher by less than this it holds by itself, mm. */
const OVER = 0.02;

/** Casts in what a proof has cut. `tell` 0..1. Throws Cancelled. */
export function castIn(proof: Proof, v: CastingValues, tell: (done: number) => void = () => {}): Cast {
  const { blank, unit, cuts } = proof.input.job;
  const { programs, tools } = proof.input;
  const drills = new Set(cuts.filter((c) => c.kind === 'drilling').map((c) => c.id));
  const { mould, holes } = withoutHoles(
    proof.field,
    holesIn(programs, tools, (id) => drills.has(id)),
    v.below === null ? null : -v.below,
  );
  const casting = castOf(mould, blank.thickness, v.below === null ? null : -v.below);
  const cold = 1 - v.shrinks / 100;
  const troubles: Trouble[] = [];
  if (!casting) {
    troubles.push({
      text: 'There is nothing to cast: nothing is cut below what the mould is filled up to.',
      at: null,
    });
    return { casting, volume: 0, mass: 0, cold, unfilled: holes.length, troubles };
  }
  if (casting.through)
    troubles.push({
      text: 'The mould is cut through here: what is poured runs out.',
      at: { mm: 0, ...casting.through },
    });
  const found = proof.found?.faces.up ?? null;
  const closely = cutClosely(casting, programs, tools, blank.thickness, found, tell, inHoles(holes, proof.field.cell));
  const held = heldBy(closely, casting.level, v.draft, programs, tools, found);
  if (held.at && held.share > FEW)
    troubles.push({
      text: `${percentOf(held.share, 1)} % of the casting leans by less than ${v.draft}\u00b0 from upright, this place among it: the mould may hold on to it. Finish these walls by a cone, or carve them by a V-bit.`,
      at: { mm: 0, ...held.at },
    });
  const over = casting.level - casting.highest;
  if (over > OVER)
    troubles.push({
      text: `The mould is filled ${lengthText(over, unit)} higher than anything that is left of it: what is poured runs over. Fill it less.`,
      at: null,
    });
  const volume = volumeOf(closely, casting.level);
  const { density } = castMaterials[v.material];
  return { casting, volume, mass: (volume / 1000) * density, cold, unfilled: holes.length, troubles };
}
