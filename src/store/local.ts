/** A browser's storage over a map. */
export const storageOver = (held: Map<string, string>): Storage => ({
  get length() {
    return held.size;
  },
  key: (i) => [...held.keys()][i] ?? null,
  getItem: (k) => held.get(k) ?? null,
  setItem: (k, v) => void held.set(k, String(v)),
  removeItem: (k) => void held.delete(k),
  clear: () => held.clear(),
});

const inWindow = storageOver(new Map());

/** The browser's synchronous storage; where it has none or lets no one at it, one that lasts as long as the window. Writing throws where there is no room. */
export function local(): Storage {
  try {
    // Where storage is switched off, asking for it throws.
    return globalThis.localStorage ?? inWindow;
  } catch {
    return inWindow;
  }
}

/** Whether what is written there outlives the window. */
export const localLasts = (): boolean => local() !== inWindow;
