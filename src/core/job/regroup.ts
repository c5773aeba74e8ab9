import type { Item } from '../artwork/item';
import type { Group } from './job';

/** What has groups and items: a job, or the draft of one. */
export interface Grouped {
  groups: Group[];
  items: Item[];
}

/** Where things are moved in the list: into a group (null for none) on a layer, below an item when one is named. */
export interface Place {
  readonly group: string | null;
  readonly layer: string;
  readonly below?: string;
}

/** Whether a group is another one or lies in it, however deep. */
export function liesIn(groups: readonly Group[], group: string | null, other: string): boolean {
  for (let g = group, n = 0; g !== null && n <= groups.length; n++) {
    if (g === other) return true;
    g = groups.find((q) => q.id === g)?.parent ?? null;
  }
  return false;
}

/** Groups that hold nothing any more go, and with them those that held only such groups. */
export function dropEmptyGroups(job: Grouped): void {
  for (;;) {
    const used = new Set([...job.items.map((i) => i.group), ...job.groups.map((g) => g.parent)]);
    const kept = job.groups.filter((g) => used.has(g.id));
    if (kept.length === job.groups.length) return;
    job.groups = kept;
  }
}

/**
 * Moves items, or a whole group with what is in it, to another place of the list. Changes the job in place; false, and nothing
 * changed, when a group would come to lie in itself.
 */
export function regroup(
  job: Grouped,
  what: { readonly items: readonly string[] } | { readonly group: string },
  to: Place,
): boolean {
  let moved: Set<string>;
  if ('group' in what) {
    const group = job.groups.find((g) => g.id === what.group);
    if (!group || liesIn(job.groups, to.group, group.id)) return false;
    moved = new Set(job.items.filter((i) => liesIn(job.groups, i.group, group.id)).map((i) => i.id));
    if (to.below !== undefined && moved.has(to.below)) return false;
    group.parent = to.group;
  } else {
    moved = new Set(what.items.filter((id) => id !== to.below));
    for (const i of job.items) if (moved.has(i.id)) i.group = to.group;
  }
  for (const i of job.items) if (moved.has(i.id)) i.layer = to.layer;
  if (to.below !== undefined) {
    const carried = job.items.filter((i) => moved.has(i.id));
    const rest = job.items.filter((i) => !moved.has(i.id));
    rest.splice(rest.findIndex((i) => i.id === to.below) + 1, 0, ...carried);
    job.items = rest;
  }
  dropEmptyGroups(job);
  return true;
}
