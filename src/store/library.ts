import { z } from 'zod';
import { cutterSchema, type Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { alike } from '@/core/merge/alike';
import { withChange } from '@/core/merge/list';
import { tellOthers } from './channel';
import { db, type CutterRow } from './db';

/** Puts the shipped cutters on a device that has none yet, once; within a transaction. */
async function seed(): Promise<void> {
  if (await db().settings.get('library')) return;
  await db().cutters.bulkPut(shippedLibrary().map((c, order) => ({ ...c, order })));
  await db().settings.put({ key: 'library', value: 1 });
}

/** The tool library of this device in its own order; the shipped one at first. */
export async function loadLibrary(): Promise<Cutter[]> {
  const rows = await db().transaction('rw', db().cutters, db().settings, async () => {
    await seed();
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

const plain = (row: CutterRow): Cutter => {
  const { order: _order, ...c } = row;
  return c;
};

/**
 * Makes a change (from one version of the library to another) to the library as it lies there: what other windows have done
 * meanwhile stays. Only rows that differ are written. `empty`: the groups that hold no cutter, where they are not as they were.
 */
export async function changeLibrary(
  from: readonly Cutter[],
  to: readonly Cutter[],
  empty?: readonly string[],
): Promise<void> {
  await db().transaction('rw', db().cutters, db().settings, async () => {
    await seed();
    if (empty) await db().settings.put({ key: EMPTY, value: [...empty] });
    const rows = await db().cutters.orderBy('order').toArray();
    const next = withChange(rows.map(plain), from, to);
    const old = new Map(rows.map((r) => [r.id, r]));
    const kept = new Set(next.map((c) => c.id));
    await db().cutters.bulkDelete(rows.filter((r) => !kept.has(r.id)).map((r) => r.id));
    await db().cutters.bulkPut(
      next.flatMap((c, order) =>
        old.get(c.id)?.order === order && alike(plain(old.get(c.id)!), c) ? [] : [{ ...c, order }],
      ),
    );
  });
  tellOthers({ of: 'library' });
}
