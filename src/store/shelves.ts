import { z } from 'zod';
import { machineSchema, type Machine } from '@/core/machine/profile';
import { recipeSchema, type Recipe } from '@/core/job/recipe';
import { dialectSchema, type Dialect } from '@/core/program/dialect';
import { db } from './db';

/** What this device keeps beside jobs and cutters: machines, dialects and recipes of the maker's own. */
export interface Shelves {
  machines: Machine;
  dialects: Dialect;
  recipes: Recipe;
}
const schemas = { machines: machineSchema, dialects: dialectSchema, recipes: recipeSchema };

/** What is kept under a name; entries that cannot be read (of an older make) are left out. */
export async function loadShelf<K extends keyof Shelves>(name: K): Promise<Shelves[K][]> {
  const row = await db().settings.get(`shelf-${name}`);
  const list = z.array(z.unknown()).safeParse(row?.value);
  return (list.success ? list.data : []).flatMap((v) => {
    const r = schemas[name].safeParse(v);
    return r.success ? [r.data as Shelves[K]] : [];
  });
}

/** Keeps an entry, in place of the one of the same id. */
export async function keepOnShelf<K extends keyof Shelves>(name: K, entry: Shelves[K]): Promise<Shelves[K][]> {
  const others = (await loadShelf(name)).filter((e) => e.id !== entry.id);
  const list = [...others, entry];
  await db().settings.put({ key: `shelf-${name}`, value: list });
  return list;
}

export async function takeOffShelf<K extends keyof Shelves>(name: K, id: string): Promise<Shelves[K][]> {
  const list = (await loadShelf(name)).filter((e) => e.id !== id);
  await db().settings.put({ key: `shelf-${name}`, value: list });
  return list;
}
