import type { Reason } from '../cuts/wanted';
import { areaText, lengthText } from '../units/length';
import type { CheckInput, Finding } from './check';
import { nameOf } from './checks/worst';
import type { Place } from './places';

/** So many places are told of each reason; their sum tells of the others. */
const PLACES = 12;
/** Less than so much of a reason (mm2) is the rounding of a corner here and there. */
const LEAST_AREA = 0.05;

/** Why it stays, and what can be done. */
const words: Readonly<Record<Reason, (name: string, rest: string) => string>> = {
  shape: (name, rest) =>
    `where the cutter of "${name}" is too wide to enter. Add a finer one to it: that goes only where it takes more than ${rest}.`,
  boundary: (name) =>
    `beside the boundary of "${name}". Let that lie further out, or let the cutter go further beyond it.`,
  rows: (name) =>
    `between the rows of "${name}". Lessen its step-over, cross its rows, or let it go along level lines where it is steep.`,
  allowance: (name) => `as "${name}" is told by its allowance, and nothing takes that away.`,
  levels: (name) =>
    `by the levels and the allowance of "${name}", and nothing smooths it. Add a relief finishing that goes there.`,
};
/** What can be done about it at once (`./mends.ts`). */
const mends: Partial<Record<Reason, string>> = { shape: 'finer', levels: 'smooth' };

/**
 * What cuts leave of a relief though all goes as it is meant to: more than their maker minds, and why. Nothing is wrong with it: a
 * round cutter leaves a round in every corner. `check` of each is "stays". Nothing where it has not been compared.
 */
export const stays = (input: CheckInput): Finding[] =>
  (input.compared?.cuts ?? []).flatMap(({ cutId, kept }) =>
    (Object.keys(words) as Reason[]).flatMap((reason) => tell(input, cutId, reason, kept[reason])),
  );

function tell(input: CheckInput, cutId: string, reason: Reason, places: readonly Place[]): Finding[] {
  const { unit, cuts } = input.job;
  const area = places.reduce((sum, p) => sum + p.area, 0);
  if (area < LEAST_AREA) return [];
  const worst = [...places].sort((a, b) => b.height - a.height);
  const long = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 2 : 3);
  const rest = long(Number(cuts.find((c) => c.id === cutId)!.values.rest ?? 0));
  const at = `${places.length} ${places.length === 1 ? 'place' : 'places'}`;
  return [
    {
      check: 'stays',
      text: `Up to ${long(worst[0].height)} (${areaText(area, unit)}, ${at}) ${words[reason](nameOf(input, cutId), rest)}`,
      cutId,
      mend: mends[reason],
      x: worst[0].x,
      y: worst[0].y,
      places: worst.slice(0, PLACES).map(({ x, y }) => ({ x, y })),
    },
  ];
}
