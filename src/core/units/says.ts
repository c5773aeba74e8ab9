/** Names of the errors whose messages are words for a maker: each says what, where, and what to do. */
const OURS = new Set([
  'JobError',
  'ExchangeError',
  'GivenUp',
  'FontError',
  'RangeError',
  'AxisError',
  'ProgramError',
  'PictureError',
  'MissingCutter',
  'MissingPart',
]);
/** What an error says to a maker, or, where it says nothing of use, what is said instead. Errors keep their names across threads. */
export function saysOf(e: unknown, otherwise: string): string {
  const { name, message } = (e ?? {}) as { name?: string; message?: string };
  // What the language itself says under such a name is no sentence: it does not end as one.
  return name && message && OURS.has(name) && message.endsWith('.') ? message : otherwise;
}
