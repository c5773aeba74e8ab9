import { hashText } from '@/core/geometry/hash';
import { fromBytes, privateFiles, toBytes, type Files } from './privateFiles';
import type { ProofResult } from './protocol';
import { inShared } from './shared';
import type { CutState } from './work';

/** What was worked out for a set-up. */
export interface Derived {
  readonly plans: readonly ({ readonly cut: string } & CutState)[];
  readonly proof: ProofResult;
}

/** Under which name results are kept; null where they are not, for they may be of another make. */
export const keptAs = (key: string): string | null =>
  process.env.NODE_ENV === 'production' && process.env.MIRVAK_STAMP ? `${process.env.MIRVAK_STAMP} ${key}` : null;

/**
 * Results on this device, in files named by the content key of what they are made of: whatever it took to work them out, they
 * are there at once when the job is opened again. They may be emptied at any time, and lie apart from all work.
 */
let files: Promise<Files> | null = null;
const here = (): Promise<Files> => (files ??= privateFiles('derived'));
/** Keeps them elsewhere: for tests. */
export const keepIn = (other: Files): void => void (files = Promise.resolve(other));

/** When each was used last: which goes first when there is no room. */
const USES = 'uses.json';
const nameOf = (key: string): string => `${hashText(key)}.bin`;
async function usesOf(f: Files): Promise<Record<string, number>> {
  const bytes = await f.read(USES);
  try {
    return bytes ? (fromBytes(bytes) as Record<string, number>) : {};
  } catch {
    return {};
  }
}

/** One after the other: each reads and writes the list of uses. */
let turn: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = turn.then(work, work);
  turn = mine.catch(() => {});
  return mine;
}

/** So much is kept at the most, bytes; and of what the browser allows Mirvak, such a share. */
const MOST = 400e6;
const SHARE = 0.1;
async function room(): Promise<number> {
  const { quota = MOST / SHARE } = (await globalThis.navigator?.storage?.estimate?.().catch(() => null)) ?? {};
  return Math.min(MOST, SHARE * quota);
}

/** Bytes of all arrays of numbers in a plain value. */
function numbersIn(v: unknown): number {
  if (typeof v !== 'object' || v === null) return 0;
  if (ArrayBuffer.isView(v)) return v.byteLength;
  return Object.values(v).reduce((n: number, part) => n + numbersIn(part), 0);
}

/**
 * Keeps results; what was not used for longest goes when there is no room. One that fits nowhere is not kept. Never throws:
 * without it, things are worked out again.
 */
export const keepDerived = (key: string, derived: Derived, most?: number, now = Date.now()): Promise<void> =>
  inTurn(async () => {
    try {
      const f = await here();
      const all = most ?? (await room());
      // What cannot have room is not even written down: that would take as much memory once more.
      if (numbersIn(derived) > all) return;
      const bytes = toBytes({ key, derived });
      let left = all - bytes.length;
      if (left < 0) return;
      const [uses, sizes] = [await usesOf(f), await f.sizes()];
      const mine = nameOf(key);
      const others = [...sizes.keys()]
        .filter((n) => n !== mine && n !== USES)
        .sort((a, b) => (uses[b] ?? 0) - (uses[a] ?? 0));
      const kept: Record<string, number> = { [mine]: now };
      for (const n of others) {
        if ((left -= sizes.get(n)!) < 0) await f.remove(n);
        else kept[n] = uses[n] ?? 0;
      }
      await f.write(mine, bytes);
      await f.write(USES, toBytes(kept));
    } catch (e) {
      console.warn('Results were not kept:', e);
    }
  });

/** Kept results, in shared memory; null where there are none. Never throws. That they were used is written down behind them. */
export async function recallDerived(key: string, now = Date.now()): Promise<Derived | null> {
  const found = await inTurn(() => readDerived(key));
  if (found)
    void inTurn(async () => {
      const f = await here();
      await f.write(USES, toBytes({ ...(await usesOf(f)), [nameOf(key)]: now }));
    }).catch(() => {});
  return found;
}
async function readDerived(key: string): Promise<Derived | null> {
  try {
    const bytes = await (await here()).read(nameOf(key));
    const found = bytes && (fromBytes(bytes) as { key: string; derived: Derived });
    return found?.key === key ? inShared(found.derived) : null;
  } catch (e) {
    console.warn('Results were not read:', e);
    return null;
  }
}

/** Bytes that kept results take, and how many there are. */
export const derivedHere = (): Promise<{ readonly size: number; readonly count: number }> =>
  inTurn(async () => {
    try {
      const sizes = await (await here()).sizes();
      sizes.delete(USES);
      return { size: [...sizes.values()].reduce((n, s) => n + s, 0), count: sizes.size };
    } catch {
      return { size: 0, count: 0 };
    }
  });

/** Gives all kept results up. Throws what the browser throws. */
export const emptyDerived = (): Promise<void> =>
  inTurn(async () => {
    const f = await here();
    for (const name of (await f.sizes()).keys()) await f.remove(name);
  });
