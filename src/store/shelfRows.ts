import type { Transaction } from 'dexie';
import { z } from 'zod';

/** Shelves of this device beside jobs and cutters. */
export const shelfNames = ['machines', 'dialects', 'recipes', 'reliefs'] as const;
export type ShelfName = (typeof shelfNames)[number];

/** The key of an entry's row, or the beginning of the keys of all. */
export const shelfKey = (name: ShelfName, id = ''): string => `shelf-${name}/${id}`;

/** Gives every entry a row of its own, where one row held a whole shelf (up to the database's third version). */
export async function partShelves(tx: Transaction): Promise<void> {
  const settings = tx.table('settings');
  for (const name of shelfNames) {
    const key = `shelf-${name}`;
    const list = z.array(z.unknown()).safeParse(((await settings.get(key)) as { value?: unknown } | undefined)?.value);
    for (const [at, v] of (list.data ?? []).entries()) {
      const entry = z.looseObject({ id: z.string() }).safeParse(v).data;
      if (entry) await settings.put({ key: shelfKey(name, entry.id), value: { at, entry } });
    }
    await settings.delete(key);
  }
}
