import type { Dialect } from './dialect';

/** A line of the maker's own in a dialect that does what only the program itself may do, or what the proof cannot follow. */
export interface OwnLineTrouble {
  readonly line: string;
  readonly where: 'header' | 'footer';
  readonly text: string;
}

/** What words on lines of one's own must not do: the program says all of that itself, at its time. Method: RS-274 words by their letters. */
const rules: readonly [RegExp, string][] = [
  [
    /^(G4[3-9](\.\d)?|H\d*)$/,
    'calls a length or radius of a tool, which the proof does not know. Choose a dialect with a length call instead',
  ],
  [/^M0*(2|30)$/, 'ends the program before its end'],
  [/^G(10|52|92)(\.\d)?$/, 'moves the zero, which the proof does not know. Set it at the machine'],
  [/^G0*(20|21|90|91|93|95|18|19)(\.\d)?$/, 'changes how numbers are read; the dialect\u2019s own values do that'],
];

/** Moves before the first cut: nothing is known yet of where the tool stands. Behind the last one they are proven like the rest. */
const moves: readonly [RegExp, string] = [
  /^([XYZABCUVWIJKR].*|G0*([0-3]|8[1-9]|73|28|30|38(\.\d)?))$/,
  'moves the machine, which only the cuts may do',
];

/** Words of a line without its comments. */
const wordsOf = (line: string): string[] =>
  [
    ...line
      .replace(/\([^)]*\)/g, ' ')
      .replace(/;.*$/, '')
      .toUpperCase()
      .matchAll(/([A-Z])\s*([-+]?\d*\.?\d*)/g),
  ].map((m) => m[1] + m[2]);

/** Every line of the maker's own that gives trouble, and why. */
export function ownLineTroubles(d: Pick<Dialect, 'header' | 'footer'>): OwnLineTrouble[] {
  return (['header', 'footer'] as const).flatMap((where) =>
    d[where].flatMap((line) => {
      const rule = (where === 'header' ? [moves, ...rules] : rules).find(([of]) =>
        wordsOf(line).some((w) => of.test(w)),
      );
      return rule ? [{ line, where, text: `The line "${line}" in the ${where} ${rule[1]}.` }] : [];
    }),
  );
}
