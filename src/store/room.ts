/** What this device gives Mirvak, bytes, and whether the browser has promised not to clear it. */
export interface Room {
  readonly used: number;
  readonly left: number;
  readonly lasting: boolean;
}

/** Null where the browser does not say. */
export async function roomHere(): Promise<Room | null> {
  const s = globalThis.navigator?.storage;
  if (!s?.estimate) return null;
  const { usage = 0, quota = 0 } = await s.estimate();
  return { used: usage, left: Math.max(0, quota - usage), lasting: (await s.persisted?.()) ?? false };
}

/** Asks the browser never to clear by itself what Mirvak keeps. */
export const askToLast = async (): Promise<boolean> => (await globalThis.navigator?.storage?.persist?.()) ?? false;

/** Bytes as a maker reads them. */
export function bytesText(bytes: number): string {
  const units = ['kB', 'MB', 'GB', 'TB'];
  let v = bytes / 1000;
  let k = 0;
  while (v >= 1000 && k < units.length - 1) {
    v /= 1000;
    k++;
  }
  return `${v >= 100 || k === 0 ? Math.ceil(v) : v.toFixed(1)} ${units[k]}`;
}
