import { formKindOf } from './registry';
import type { Form } from './stack';

/*
 * A group is a form that is made of others: laid on each other by themselves, they meet what lies under them as one. Groups do not
 * hold groups. What names a group that is not there belongs to none.
 */

const isGroup = (f: Form): boolean => !!formKindOf(f.kind).holds;

/** The group that a form belongs to; null where it stands by itself. */
export function groupOf(forms: readonly Form[], f: Form): Form | null {
  if (f.group === null || isGroup(f)) return null;
  return forms.find((g) => g.id === f.group && isGroup(g)) ?? null;
}
/** The forms of a group, the lowest first. */
export const membersOf = (forms: readonly Form[], group: string): Form[] =>
  forms.filter((f) => f.group === group && groupOf(forms, f));

/** Forms that stand by themselves, groups among them, the lowest first. */
export const standing = (forms: readonly Form[]): Form[] => forms.filter((f) => !groupOf(forms, f));

/** All forms, the lowest first, each group right above those that it holds. */
export const arranged = (forms: readonly Form[]): Form[] =>
  standing(forms).flatMap((f) => (isGroup(f) ? [...membersOf(forms, f.id), f] : [f]));

/** Forms that count: visible ones, and of groups that are. */
export const counting = (forms: readonly Form[]): Form[] =>
  forms.filter((f) => f.visible && (groupOf(forms, f)?.visible ?? true));

/**
 * Forms with one of them put into the place of another, as rows of a list whose uppermost comes first. A group takes along what it
 * holds, and goes between groups, never into one. A form belongs to a group when it comes to stand under its row or among its forms;
 * under the last of them it stays what it was.
 */
export function movedForm(forms: readonly Form[], id: string, over: string): Form[] {
  const all = arranged(forms);
  const at = (q: string) => all.findIndex((f) => f.id === q);
  const form = all[at(id)];
  const target = all[at(over)];
  if (!form || !target || id === over) return all;
  const up = at(over) > at(id);
  if (isGroup(form)) {
    const block = [...membersOf(all, id), form];
    const rest = all.filter((f) => !block.includes(f));
    const beside = groupOf(all, target) ?? target;
    if (beside.id === id) return all;
    const place = rest.indexOf(beside);
    const low = isGroup(beside) ? place - membersOf(all, beside.id).length : place;
    return rest.toSpliced(up ? place + 1 : low, 0, ...block);
  }
  const rest = all.filter((f) => f.id !== id);
  const place = rest.findIndex((f) => f.id === over) + (up ? 1 : 0);
  const [above, below] = [rest[place], rest[place - 1]];
  return rest.toSpliced(place, 0, { ...form, group: between(rest, above, below, form.group) });
}

/** The group of what stands between two rows. */
function between(
  forms: readonly Form[],
  above: Form | undefined,
  below: Form | undefined,
  was: string | null,
): string | null {
  if (!above) return null;
  if (isGroup(above)) return above.id;
  const group = groupOf(forms, above)?.id ?? null;
  const last = !below || (groupOf(forms, below)?.id ?? null) !== group;
  return group !== null && last && was !== group ? null : group;
}

/** Forms with one of them in a group, on top of those that it holds, or in none: right above the group that it was in. */
export function regrouped(forms: readonly Form[], id: string, group: string | null): Form[] {
  const form = forms.find((f) => f.id === id);
  if (!form || isGroup(form)) return [...forms];
  const was = groupOf(forms, form)?.id ?? null;
  if (group === was) return arranged(forms);
  const rest = arranged(forms).filter((f) => f.id !== id);
  const to = rest.findIndex((f) => f.id === (group ?? was));
  const place = to < 0 ? rest.length : group === null ? to + 1 : to;
  return rest.toSpliced(place, 0, { ...form, group });
}
