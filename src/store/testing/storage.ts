/** A browser's storage over a map, for tests. */
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
