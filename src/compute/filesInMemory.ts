import type { Files } from './privateFiles';

/** Files in memory, on a disk that may be full: for tests. */
export function filesInMemory(): Files & { full: boolean } {
  const all = new Map<string, Uint8Array<ArrayBuffer>>();
  return {
    full: false,
    read: (name) => Promise.resolve(all.get(name)?.slice() ?? null),
    write(name, bytes) {
      if (this.full) return Promise.reject(new Error('full'));
      all.set(name, bytes.slice());
      return Promise.resolve();
    },
    remove: (name) => Promise.resolve(void all.delete(name)),
    names: () => Promise.resolve([...all.keys()]),
    sizes: () => Promise.resolve(new Map([...all].map(([n, b]) => [n, b.length]))),
  };
}
