/** Feeds that are eased where a cutter has harder work than the preset was chosen for. */
export const easings = { off: 'No', gentle: 'Gently', strong: 'Strongly' } as const;
export type Easing = keyof typeof easings;

/** Feeds are eased by no more steps than so: each line of a program that says another feed is longer. */
const STEPS = 8;
/** No feed is eased to less than so much of it. */
const LEAST = 2;

/** So much of a feed in steps, none of it more than is asked for but for the least. */
export const inSteps = (share: number, least = LEAST): number =>
  share >= 1 ? 1 : Math.max(least, Math.floor(STEPS * share + 1e-9)) / STEPS;

/** So much more material than it was chosen for is not hard yet, times. */
const HARD = 1.2;

/**
 * Share of a feed where a cutter meets so many times as much material as beside what it has cut before: strongly eased it takes no
 * more in a minute than there, gently a mean of that and of going on as fast.
 */
export function easedShare(e: Easing, times: number): number {
  if (e === 'off' || times < HARD) return 1;
  return inSteps(e === 'strong' ? 1 / times : 1 / Math.sqrt(times));
}

const DOWN: Readonly<Record<Easing, number>> = { off: Infinity, gentle: 1.5, strong: 1 };

/** How fast a cutter may go down along a way, mm/min, by its plunge feed. */
export const sinkOf = (e: Easing, plunge: number): number => DOWN[e] * plunge;

/** The feed along a way that goes down by so much of its length (mm): no faster down than `sink`. */
export function easedDown(feed: number, sink: number, long: number, down: number): number {
  return !(down > 0) || feed * down <= sink * long ? feed : feed * inSteps((sink * long) / (down * feed), 1);
}
