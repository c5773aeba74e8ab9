import { z } from 'zod';
import { machineSchema, type Machine } from '@/core/machine/profile';
import { recipeSchema, type Recipe } from '@/core/job/recipe';
import { keptReliefSchema, type KeptRelief } from '@/core/relief/keptRelief';
import { dialectSchema, type Dialect } from '@/core/program/dialect';
import { tellOthers } from './channel';
import { db } from './db';
import { shelfKey as keyOf } from './shelfRows';

/** What this device keeps beside jobs and cutters: machines, dialects, recipes and reliefs of the maker's own. */
export interface Shelves {
  machines: Machine;
  dialects: Dialect;
  recipes: Recipe;
  reliefs: KeptRelief;
}
const schemas = { machines: machineSchema, dialects: dialectSchema, recipes: recipeSchema, reliefs: keptReliefSchema };

/** When an entry was kept first, and the entry. */
const rowSchema = z.object({ at: z.number(), entry: z.unknown() });

/** What is kept under a name, the oldest first, each entry in a row of its own; entries that cannot be read (of an older make) are left out. */
export async function loadShelf<K extends keyof Shelves>(name: K): Promise<Shelves[K][]> {
  const rows = (await db().settings.where('key').startsWith(keyOf(name)).toArray()).flatMap(
    (r) => rowSchema.safeParse(r.value).data ?? [],
  );
  return rows
    .sort((a, b) => a.at - b.at)
    .flatMap((row) => {
      const r = schemas[name].safeParse(row.entry);
      return r.success ? [r.data as Shelves[K]] : [];
    });
}

/** Keeps an entry, in place of the one of the same id. */
export async function keepOnShelf<K extends keyof Shelves>(name: K, entry: Shelves[K]): Promise<Shelves[K][]> {
  const key = keyOf(name, entry.id);
  await db().transaction('rw', db().settings, async () => {
    const was = rowSchema.safeParse((await db().settings.get(key))?.value);
    await db().settings.put({ key, value: { at: was.data?.at ?? Date.now(), entry } });
  });
  tellOthers({ of: 'shelves', name });
  return loadShelf(name);
}

export async function takeOffShelf<K extends keyof Shelves>(name: K, id: string): Promise<Shelves[K][]> {
  await db().settings.delete(keyOf(name, id));
  tellOthers({ of: 'shelves', name });
  return loadShelf(name);
}
