import { unzlibSync } from 'fflate';
import { sfntLength, sfntOf } from './sfnt';

/** Length of the head and of an entry of the table directory, bytes. */
const HEAD = 44;
const ENTRY = 20;

/**
 * The font in a WOFF file (W3C, WOFF File Format 1.0) as an SFNT file, of `most` bytes at the most; null where its tables do not
 * lie where it says, do not open out to what it says, or are damaged.
 *
 *     | head 44 | tag from packed length sum | ... | packed tables |
 */
export function openWoff(bytes: Uint8Array, most: number): Uint8Array | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEAD) return null;
  const count = view.getUint16(12);
  if (bytes.length < HEAD + ENTRY * count) return null;
  const entries = Array.from({ length: count }, (_, i) => {
    const at = HEAD + ENTRY * i;
    return {
      tag: view.getUint32(at),
      from: view.getUint32(at + 4),
      packed: view.getUint32(at + 8),
      length: view.getUint32(at + 12),
    };
  });
  if (sfntLength(entries.map((e) => e.length)) > most) return null;
  if (entries.some((e) => e.from + e.packed > bytes.length || e.packed > e.length)) return null;
  const tables = [];
  for (const { tag, from, packed, length } of entries) {
    const table = opened(bytes.subarray(from, from + packed), length);
    if (!table) return null;
    tables.push({ tag, bytes: table });
  }
  return sfntOf(view.getUint32(4), tables);
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
