import Dexie, { type EntityTable } from 'dexie';
import type { CutPlan } from '@/core/cuts/kind';
import type { ProofResult } from './protocol';
import { inShared } from './shared';

/** What was worked out for a set-up. */
export interface Derived {
  readonly plans: readonly { readonly cut: string; readonly key: string; readonly plan: CutPlan }[];
  readonly proof: ProofResult;
}

interface ResultRow {
  key: string;
  value: Derived;
}
/** Beside the results, so that looking for the oldest reads none of them. */
interface UseRow {
  key: string;
  size: number;
  at: number;
}

/**
 * Results on this device, under the content key of what they are made of: whatever it took to work them out, they are there at
 * once when the job is opened again. A database of its own: it may be emptied at any time, and never stands in the way of work.
 */
class Results extends Dexie {
  results!: EntityTable<ResultRow, 'key'>;
  uses!: EntityTable<UseRow, 'key'>;

  constructor() {
    super('mirvak-derived', { chromeTransactionDurability: 'relaxed' });
    this.version(1).stores({ results: 'key', uses: 'key, at' });
  }
}
let instance: Results | null = null;
const db = (): Results => (instance ??= new Results());

type View = Float64Array | Float32Array | Int32Array | Uint8Array;
/** A plain value without shared memory, which databases do not take; and how much it holds, bytes. */
function apart(v: unknown): { readonly value: unknown; readonly size: number } {
  if (typeof v === 'string') return { value: v, size: 2 * v.length };
  if (typeof v !== 'object' || v === null) return { value: v, size: 8 };
  if (ArrayBuffer.isView(v)) return { value: (v as View).slice(), size: v.byteLength };
  let size = 16;
  const own = (part: unknown): unknown => {
    const a = apart(part);
    size += a.size;
    return a.value;
  };
  const value = Array.isArray(v) ? v.map(own) : Object.fromEntries(Object.entries(v).map(([k, part]) => [k, own(part)]));
  return { value, size };
}

/** So much is kept at the most, bytes; and of what the browser allows Mirvak, such a share. */
const MOST = 400e6;
const SHARE = 0.1;
async function room(): Promise<number> {
  const { quota = MOST / SHARE } = (await globalThis.navigator?.storage?.estimate?.().catch(() => null)) ?? {};
  return Math.min(MOST, SHARE * quota);
}

/** Keeps results; what was not used for longest goes when there is no room. One that fits nowhere is not kept. Never throws: without it, things are worked out again. */
export async function keepDerived(key: string, derived: Derived, most?: number, now = Date.now()): Promise<void> {
  try {
    const { value, size } = apart(derived);
    const limit = most ?? (await room());
    if (size > limit) return;
    await db().transaction('rw', db().results, db().uses, async () => {
      let left = limit - size;
      const others = (await db().uses.orderBy('at').reverse().toArray()).filter((u) => u.key !== key);
      const out = others.filter((u) => (left -= u.size) < 0).map((u) => u.key);
      await Promise.all([
        db().results.bulkDelete(out),
        db().uses.bulkDelete(out),
        db().results.put({ key, value: value as Derived }),
        db().uses.put({ key, size, at: now }),
      ]);
    });
  } catch (e) {
    console.warn('Results were not kept:', e);
  }
}

/** Kept results, in shared memory; null where there are none. Never throws. */
export async function recallDerived(key: string, now = Date.now()): Promise<Derived | null> {
  try {
    const row = await db().results.get(key);
    if (!row) return null;
    await db().uses.update(key, { at: now });
    return inShared(row.value);
  } catch (e) {
    console.warn('Results were not read:', e);
    return null;
  }
}

/** Bytes that kept results take, and how many there are. */
export async function derivedHere(): Promise<{ readonly size: number; readonly count: number }> {
  try {
    const uses = await db().uses.toArray();
    return { size: uses.reduce((n, u) => n + u.size, 0), count: uses.length };
  } catch {
    return { size: 0, count: 0 };
  }
}

/** Gives all kept results up. Throws what the database throws. */
export async function emptyDerived(): Promise<void> {
  await db().transaction('rw', db().results, db().uses, async () => {
    await db().results.clear();
    await db().uses.clear();
  });
}
