/**
 * Content keys. Two 32-bit FNV-1a style lanes with different multipliers over the bytes: short,
 * fast, and enough to tell results of one session apart (not meant against an adversary).
 */
/** One step of the first lane. */
export const mix = (h: number, v: number): number => {
  const a = Math.imul(h ^ v, 0x01000193);
  return a ^ (a >>> 15);
};
/** One step of the second. */
export const mixOther = (h: number, v: number): number => {
  const a = Math.imul(h ^ v, 0x85ebca6b);
  return a ^ (a >>> 13);
};

export function hashFloats(arrays: readonly Float64Array[]): string {
  let a = 0x811c9dc5;
  let b = 0x9747b28c;
  for (const f of arrays) {
    const w = new Int32Array(f.buffer, f.byteOffset, f.length * 2);
    for (let i = 0; i < w.length; i++) {
      a = mix(a, w[i]);
      b = mixOther(b, w[i]);
    }
    a = Math.imul(a ^ f.length, 0x01000193);
    b = Math.imul(b ^ f.length, 0xc2b2ae35);
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36);
}

export function hashText(text: string): string {
  let a = 0x811c9dc5;
  let b = 0x9747b28c;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ c, 0x85ebca6b);
    b ^= b >>> 13;
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36) + text.length.toString(36);
}

/** Content keys of values that were asked for before, and are long enough to be worth it. */
const known = new WeakMap<object, string>();
/** Longer than this, letters, and a value is named by its hash. */
const LONG = 160;

/**
 * A text that is equal for plain values with equal content. What is large is looked through once as long as it lives, so that
 * versions that share most of what they hold (and never change it) cost what differs; fields that are undefined count as none.
 */
export function contentKey(v: unknown): string {
  if (typeof v !== 'object' || v === null)
    return typeof v === 'number' && !Number.isFinite(v) ? String(v) : (JSON.stringify(v) ?? 'none');
  const before = known.get(v);
  if (before !== undefined) return before;
  const text = Array.isArray(v)
    ? `[${v.map(contentKey).join()}]`
    : `{${Object.entries(v)
        .flatMap(([k, part]) => (part === undefined ? [] : `${JSON.stringify(k)}:${contentKey(part)}`))
        .join()}}`;
  if (text.length <= LONG) return text;
  const key = `#${hashText(text)}`;
  known.set(v, key);
  return key;
}

/** Keeps what is derived from an object that never changes, with the object, for the last key that was asked for. */
export function derived<O extends object, T>(): (of: O, key: string, make: () => T) => T {
  const kept = new WeakMap<O, { readonly key: string; readonly value: T }>();
  return (of, key, make) => {
    const before = kept.get(of);
    if (before?.key === key) return before.value;
    const value = make();
    kept.set(of, { key, value });
    return value;
  };
}

/** Keeps the last `size` results of an expensive pure function under a content key. */
export function memo<T>(size: number): (key: string, make: () => T) => T {
  const kept = new Map<string, T>();
  return (key, make) => {
    let v = kept.get(key);
    if (v === undefined) v = make();
    else kept.delete(key);
    kept.set(key, v);
    if (kept.size > size) kept.delete(kept.keys().next().value!);
    return v;
  };
}

/**
 * Keeps results of an expensive pure function under a content key as long as all together are no larger than `most`; those asked
 * for longest ago go first.
 */
export function sizedMemo<T>(most: number, sizeOf: (value: T) => number): (key: string, make: () => T) => T {
  const kept = new Map<string, { readonly value: T; readonly size: number }>();
  let total = 0;
  return (key, make) => {
    const before = kept.get(key);
    if (before) {
      kept.delete(key);
      kept.set(key, before);
      return before.value;
    }
    const value = make();
    const size = sizeOf(value);
    kept.set(key, { value, size });
    total += size;
    for (const [k, old] of kept) {
      if (total <= most || k === key) break;
      kept.delete(k);
      total -= old.size;
    }
    return value;
  };
}
