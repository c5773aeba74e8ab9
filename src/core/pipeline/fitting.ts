import { regionOf } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { coneOf, type Cutter } from '../cutters/cutter';
import { PROMISED } from '../cuts/budget';
import type { InlayPair } from '../job/inlay';
import { lengthText } from '../units/length';
import { fitOf, WIDE, type Fit, type FitPlace } from '../proof/fit';
import type { Proof } from './proving';

/** Something that keeps two halves from going together, or that will be seen. */
export interface FitTrouble {
  readonly text: string;
  readonly at: FitPlace | null;
}
export interface Fitted {
  /** Null where there is nothing to put together. */
  readonly fit: Fit | null;
  readonly troubles: readonly FitTrouble[];
}

/** So much short of where it should be is no matter, mm. */
const SHORT = 0.02;

/** Puts the halves of an inlay together, as their proofs have read the programs back. */
export function fittedPair(
  pair: InlayPair,
  pocket: Proof,
  plug: Proof,
  art: ArtworkContext,
  tell: (done: number) => void = () => {},
): Fitted {
  const [into, goes] = [pocket.input.job, plug.input.job];
  const pocketCut = into.cuts.find((c) => c.id === pair.pocketCut)!;
  const plugCut = goes.cuts.find((c) => c.id === pair.plugCut)!;
  const cutterOf = (proof: Proof, id: unknown): Cutter => proof.input.job.cutters.find((c) => c.id === id)!;
  const [a, b] = [cutterOf(pocket, pocketCut.values.cutter), cutterOf(plug, plugCut.values.cutter)];
  const troubles: FitTrouble[] = [];
  const long = (mm: number) => lengthText(mm, into.unit, into.unit === 'mm' ? 2 : 4);
  if (Math.abs(Math.atan(coneOf(a).tan) - Math.atan(coneOf(b).tan)) > 1e-6)
    troubles.push({
      text: `The pocket is cut by ${a.name}, the plug by ${b.name}: walls that do not lean alike meet along one line only. Take the same angle for both.`,
      at: null,
    });
  const v = plugCut.values as { startDepth: number; margin: number };
  const used = new Set(pocketCut.items);
  const fit = fitOf(
    {
      pocket: { blank: into.blank, programs: pocket.input.programs, tools: pocket.input.tools },
      plug: { blank: goes.blank, programs: plug.input.programs, tools: plug.input.tools },
      turned: pair.turned,
      goesIn: v.startDepth,
      lean: Math.atan(coneOf(a).tan),
      outlines: regionOf(
        into.items.filter((i) => used.has(i.id)),
        art,
        PROMISED,
      ),
      margin: v.margin,
    },
    tell,
  );
  if (fit.missing)
    troubles.push({
      text: 'Part of the plug lies beyond its blank, from here on. Make the blank of the plug larger, or move the artwork.',
      at: { mm: 0, ...fit.missing },
    });
  if (fit.short.mm > SHORT)
    troubles.push({
      text: `The plug stops ${long(fit.short.mm)} short of where it is to go: it meets the pocket here.`,
      at: fit.short,
    });
  if (fit.seam && fit.seam.mm > WIDE)
    troubles.push({ text: `The seam is ${long(fit.seam.mm)} wide here.`, at: fit.seam });
  if (fit.glue && fit.glue.least < SHORT && fit.short.mm <= SHORT)
    troubles.push({
      text: 'There is no room for glue under the plug. Make the pocket deeper, or let it go in less.',
      at: null,
    });
  return { fit, troubles };
}
