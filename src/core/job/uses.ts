import type { Setup } from './job';

/** What of a set-up names items: its cuts, its forms and their masks. */
type Using = Pick<Setup, 'cuts' | 'relief'>;

/** Every list of items by which a set-up's cuts, forms and masks name them; lists of a draft can be changed in place. */
export const usesOf = (s: Using): { items: string[] }[] => [
  ...s.cuts,
  ...s.relief.forms,
  ...s.relief.forms.flatMap((f) => (f.mask ? [f.profile, f.mask] : [f.profile])),
];

/** Takes items out of all that names them, in a draft; what names none of them stays the same object. */
export function dropUses(s: Using, gone: (id: string) => boolean): void {
  for (const u of usesOf(s)) if (u.items.some(gone)) u.items = u.items.filter((id) => !gone(id));
}
