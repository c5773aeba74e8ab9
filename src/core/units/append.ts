/**
 * Puts a list behind another. `to.push(...from)` hands every element over as an argument of its own, and some hundred thousand of
 * them are more than a call can take.
 */
export function append<T>(to: T[], from: Iterable<T>): void {
  for (const v of from) to.push(v);
}
