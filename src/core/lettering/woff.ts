import { unzlibSync } from 'fflate';

/** Length of the header and of an entry of the table directory, in WOFF and in SFNT, bytes. */
const WOFF_HEAD = 44;
const WOFF_ENTRY = 20;
const SFNT_HEAD = 12;
const SFNT_ENTRY = 16;

/** To the next multiple of four; lengths reach beyond what bitwise numbers hold. */
const padded = (n: number): number => 4 * Math.ceil(n / 4);

/**
 * The font in a WOFF file (W3C, WOFF File Format 1.0) as an SFNT file, of `most` bytes at the most; null where its tables do not
 * lie where it says, do not open out to what it says, or are damaged.
 *
 *     WOFF   | head 44 | tag from packed length sum | ... | packed tables
 *     SFNT   | head 12 | tag sum from length | ...        | tables
 */
export function openWoff(bytes: Uint8Array, most: number): Uint8Array | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < WOFF_HEAD) return null;
  const count = view.getUint16(12);
  if (bytes.length < WOFF_HEAD + WOFF_ENTRY * count) return null;
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF_HEAD + WOFF_ENTRY * i;
    return {
      tag: view.getUint32(at),
      from: view.getUint32(at + 4),
      packed: view.getUint32(at + 8),
      length: view.getUint32(at + 12),
      sum: view.getUint32(at + 16),
    };
  });
  const whole = tables.reduce((n, t) => n + padded(t.length), SFNT_HEAD + SFNT_ENTRY * count);
  if (whole > most || tables.some((t) => t.from + t.packed > bytes.length || t.packed > t.length)) return null;
  const out = new Uint8Array(whole);
  const to = new DataView(out.buffer);
  to.setUint32(0, view.getUint32(4));
  to.setUint16(4, count);
  // What readers use to search the directory: the largest power of two of entries, its exponent, and the rest.
  const exponent = Math.floor(Math.log2(Math.max(1, count)));
  to.setUint16(6, SFNT_ENTRY * 2 ** exponent);
  to.setUint16(8, exponent);
  to.setUint16(10, SFNT_ENTRY * (count - 2 ** exponent));
  let at = SFNT_HEAD + SFNT_ENTRY * count;
  for (const [i, t] of tables.entries()) {
    const entry = SFNT_HEAD + SFNT_ENTRY * i;
    to.setUint32(entry, t.tag);
    to.setUint32(entry + 4, t.sum);
    to.setUint32(entry + 8, at);
    to.setUint32(entry + 12, t.length);
    const table = opened(bytes.subarray(t.from, t.from + t.packed), t.length);
    if (!table) return null;
    out.set(table, at);
    at += padded(t.length);
  }
  return out;
}

/** A table as it is when it is not packed: one that would not get smaller is not. */
function opened(packed: Uint8Array, length: number): Uint8Array | null {
  if (packed.length === length) return packed;
  try {
    const table = unzlibSync(packed, { out: new Uint8Array(length) });
    return table.length === length ? table : null;
  } catch {
    return null;
  }
}
