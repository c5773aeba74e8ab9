import type { Cutter } from '../cutters/cutter';
import type { CutPlan } from '../cuts/kind';
import type { OneSetup } from '../job/job';
import type { Buried } from './buried';
import type { PlacedProgram } from './placed';
import type { Comparison } from './compare';
import type { Found } from './faces';
import type { HeightField } from '../relief/field';
import type { Collision } from './simulate';

/** Something found, with where to look. mm, blank's frame. */
export interface Finding {
  readonly check: string;
  readonly text: string;
  readonly cutId: string | null;
  readonly x: number | null;
  readonly y: number | null;
  /** All places that it speaks of, the worst first, where there are several. */
  readonly places?: readonly { readonly x: number; readonly y: number }[];
  /** Name of what can be done about it at once (`./mends.ts`). */
  readonly mend?: string;
}

export interface CheckInput {
  readonly job: OneSetup;
  readonly programs: readonly PlacedProgram[];
  readonly tools: ReadonlyMap<number, Cutter>;
  readonly plans: ReadonlyMap<string, CutPlan>;
  readonly collisions: readonly Collision[];
  /** What is left of the upper face. */
  readonly field: HeightField;
  /** The blank as another set-up, of this name, has left it, where this one starts from that. */
  readonly found?: Found | null;
  /** The proof held against what is wanted, where that has been worked out. */
  readonly compared?: Comparison;
  /** What cutters go through that take all they find in one go, where that has been looked at. */
  readonly buried?: readonly Buried[];
}

/** One question asked of the programs. A new one is one file in checks/ and one line in the registry. */
export interface Check {
  readonly id: string;
  readonly name: string;
  /** Whether it knows all only once the proof has been looked at longer: until then that it finds nothing says nothing. */
  readonly late?: true;
  readonly run: (input: CheckInput) => Finding[];
}
