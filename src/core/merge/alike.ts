export const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);
/** Whether two plain values say the same. Parts that are one object cost nothing. */
export function alike(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((v, i) => alike(v, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  return Object.keys({ ...a, ...b }).every((k) => alike(a[k], b[k]));
}
