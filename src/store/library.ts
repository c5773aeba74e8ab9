import { z } from 'zod';
import { cutterSchema, type Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { db } from './db';

/** The tool library of this device in its own order; the shipped one at first. */
export async function loadLibrary(): Promise<Cutter[]> {
  const rows = await db().transaction('rw', db().cutters, db().settings, async () => {
    if (!(await db().settings.get('library'))) {
      await db().cutters.bulkPut(shippedLibrary().map((c, order) => ({ ...c, order })));
      await db().settings.put({ key: 'library', value: 1 });
    }
    return db().cutters.orderBy('order').toArray();
  });
  // Rows of an older make lack what was added since.
  return rows.flatMap((r) => {
    const c = cutterSchema.safeParse(r);
    return c.success ? [c.data] : [];
  });
}

const EMPTY = 'library-groups';

/** Names of groups of the library that hold no cutter. */
export async function loadEmptyGroups(): Promise<string[]> {
  const names = z.array(z.string()).safeParse((await db().settings.get(EMPTY))?.value);
  return names.success ? names.data : [];
}

export const keepEmptyGroups = async (names: readonly string[]): Promise<void> => void (await db().settings.put({ key: EMPTY, value: [...names] }));

/** Keeps cutters, each in its old place or at the end. */
export async function saveCutters(cutters: readonly Cutter[]): Promise<void> {
  await db().transaction('rw', db().cutters, async () => {
    const old = new Map((await db().cutters.toArray()).map((r) => [r.id, r.order]));
    let next = Math.max(-1, ...old.values()) + 1;
    await db().cutters.bulkPut(cutters.map((c) => ({ ...c, order: old.get(c.id) ?? next++ })));
  });
}

/** Puts the whole library as it is given, in this order: what is not there any more is gone. */
export async function replaceLibrary(cutters: readonly Cutter[]): Promise<void> {
  await db().transaction('rw', db().cutters, async () => {
    await db().cutters.clear();
    await db().cutters.bulkPut(cutters.map((c, order) => ({ ...c, order })));
  });
}
