import type { Cutter } from './cutter';

/**
 * Groups of the tool library. A group is its name; one that lies in another says so: "Engraving / Cones". The order of the
 * groups is that of their first cutters.
 */
export const groupsOf = (cutters: readonly Cutter[]): string[] => [...new Set(cutters.map((c) => c.group))];

/** Cutters with those of a group together, otherwise in their order; of two with the same id the first. */
export const byGroup = (cutters: readonly Cutter[]): Cutter[] =>
  groupsOf(cutters).flatMap((g) => cutters.filter((c) => c.group === g && cutters.find((q) => q.id === c.id) === c));

/** Whether a group is another one, or lies in it. */
export const within = (group: string, other: string): boolean => group === other || group.startsWith(`${other} /`);

/** What a group is called when it, or the group that it lies in, gets another name. */
export const renamed = (group: string, from: string, to: string): string =>
  within(group, from) ? to + group.slice(from.length) : group;

/** The cutters with a group, and all that lie in it, under another name. */
export const groupInto = (cutters: readonly Cutter[], from: string, to: string): Cutter[] =>
  cutters.map((c) => (within(c.group, from) ? { ...c, group: renamed(c.group, from, to) } : c));

/** Names of groups that hold no cutter after a change: those that held none before, and those that lost their last. */
export function emptyAfter(empty: readonly string[], before: readonly Cutter[], after: readonly Cutter[]): string[] {
  const held = groupsOf(after);
  return [...new Set([...empty, ...groupsOf(before)])].filter((g) => !held.some((h) => within(h, g)));
}

/** The cutters with a group's block where another group's is: before it when it comes from below, behind it when from above. */
export function moveGroup(cutters: readonly Cutter[], group: string, over: string): Cutter[] {
  if (within(over, group)) return [...cutters];
  const groups = groupsOf(cutters);
  const down = groups.indexOf(group) < groups.indexOf(over);
  const carried = cutters.filter((c) => within(c.group, group));
  const rest = cutters.filter((c) => !within(c.group, group));
  const places = rest.flatMap((c, i) => (within(c.group, over) ? [i] : []));
  if (!places.length) return [...cutters];
  rest.splice(down ? places[places.length - 1] + 1 : places[0], 0, ...carried);
  return rest;
}

/** The cutters with one of them at the place of another, in its group, or first in a group (which may be empty). */
export function placeCutter(
  cutters: readonly Cutter[],
  id: string,
  to: { readonly over: string } | { readonly group: string },
): Cutter[] {
  const moved = cutters.find((c) => c.id === id);
  const target = cutters.find((c) => ('over' in to ? c.id === to.over : c.group === to.group && c.id !== id));
  if (moved && !target && 'group' in to) return [...cutters.filter((c) => c !== moved), { ...moved, group: to.group }];
  if (!moved || !target || moved === target) return [...cutters];
  const rest = cutters.filter((c) => c !== moved);
  const behind = 'over' in to && cutters.indexOf(moved) < cutters.indexOf(target);
  rest.splice(rest.indexOf(target) + (behind ? 1 : 0), 0, { ...moved, group: target.group });
  return rest;
}
