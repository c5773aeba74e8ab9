/** Length of the head and of an entry of the table directory of an SFNT file (OpenType, "Organization of an OpenType font"), bytes. */
const HEAD = 12;
const ENTRY = 16;

/** To the next multiple of four; lengths reach beyond what bitwise numbers hold. */
export const padded = (n: number): number => 4 * Math.ceil(n / 4);

export interface Table {
  /** Its four letters, as one number. */
  readonly tag: number;
  readonly bytes: Uint8Array;
}

/** How long a file of tables of these lengths is, bytes. */
export const sfntLength = (lengths: readonly number[]): number =>
  lengths.reduce((n, l) => n + padded(l), HEAD + ENTRY * lengths.length);

/**
 * A font file of its tables, in the order of their tags.
 *
 *     | head 12 | tag sum from length | ... | tables, each from a multiple of four |
 *
 * @param flavour What kind of outlines it holds, as its first four bytes say it.
 */
export function sfntOf(flavour: number, list: readonly Table[]): Uint8Array {
  // Readers look for a table by halves.
  const tables = [...list].sort((a, b) => a.tag - b.tag);
  const count = tables.length;
  const out = new Uint8Array(sfntLength(tables.map((t) => t.bytes.length)));
  const to = new DataView(out.buffer);
  to.setUint32(0, flavour);
  to.setUint16(4, count);
  // What readers use to search the directory: the largest power of two of entries, its exponent, and the rest.
  const exponent = Math.floor(Math.log2(Math.max(1, count)));
  to.setUint16(6, ENTRY * 2 ** exponent);
  to.setUint16(8, exponent);
  to.setUint16(10, ENTRY * (count - 2 ** exponent));
  let at = HEAD + ENTRY * count;
  for (const [i, { tag, bytes }] of tables.entries()) {
    const entry = HEAD + ENTRY * i;
    out.set(bytes, at);
    let sum = 0;
    for (let k = 0; k < padded(bytes.length); k += 4) sum = (sum + to.getUint32(at + k)) >>> 0;
    to.setUint32(entry, tag);
    to.setUint32(entry + 4, sum);
    to.setUint32(entry + 8, at);
    to.setUint32(entry + 12, bytes.length);
    at += padded(bytes.length);
  }
  return out;
}
