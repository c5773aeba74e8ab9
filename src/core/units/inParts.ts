/**
 * Runs over so many things, some hundred at a time. Engines compile a function that is called again and again once and for all,
 * but a loop that runs long in a function that is called once anew at each call: what is done to each thing then stands in a
 * function of its own, which takes those from .. to - 1.
 */
export function inParts(count: number, part: (from: number, to: number) => void): void {
  for (let from = 0; from < count; from += PART) part(from, Math.min(count, from + PART));
}
const PART = 512;
