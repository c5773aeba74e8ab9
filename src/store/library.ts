import type { Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { db } from './db';

/** The tool library of this device; the shipped one at first. */
export async function loadLibrary(): Promise<Cutter[]> {
  return db().transaction('rw', db().cutters, db().settings, async () => {
    if (!(await db().settings.get('library'))) {
      await db().cutters.bulkPut(shippedLibrary().map((c, order) => ({ ...c, order })));
      await db().settings.put({ key: 'library', value: 1 });
    }
    return db().cutters.orderBy('order').toArray();
  });
}

export async function saveCutter(cutter: Cutter): Promise<void> {
  const old = await db().cutters.get(cutter.id);
  await db().cutters.put({ ...cutter, order: old?.order ?? (await db().cutters.count()) });
}

export const deleteCutter = (id: string): Promise<void> => db().cutters.delete(id);
