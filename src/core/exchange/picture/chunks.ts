import { Unzlib } from 'fflate';
import { joined } from '../../units/joined';
import { ExchangeError } from '../drawn';

/** What the head of a PNG says of its picture (PNG specification, third edition, 11.2.1). */
export interface PngHead {
  readonly width: number;
  readonly height: number;
  readonly depth: number;
  readonly channels: number;
}

/** More pixels than so many are not taken in: they would not fit into the memory of a page. */
const MOST_PIXELS = 50_000_000;

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Chunks that the picture itself is made of; what else a file brings along is left out. */
const KEPT = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND']);

export const isPng = (bytes: Uint8Array): boolean => SIGNATURE.every((b, i) => bytes[i] === b);

/**
 * Looks a PNG through before anything is unpacked: whether its chunks are whole, how large it says it is, and whether what is packed
 * is that large, no more and no less. Gives its head and a file of only the chunks that make the picture. Throws ExchangeError.
 */
export function lookThroughPng(
  name: string,
  bytes: Uint8Array,
): { readonly head: PngHead; readonly plain: Uint8Array } {
  const torn = (at: number) =>
    new ExchangeError(name, `it ends in the middle, after ${at} bytes. Copy it again from where it comes from.`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parts: Uint8Array[] = [bytes.subarray(0, 8)];
  const packed: Uint8Array[] = [];
  let head: PngHead | null = null;
  let interlaced = false;
  for (let at = 8, ended = false; !ended;) {
    if (at + 12 > bytes.length) throw torn(bytes.length);
    const length = view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    const next = at + 12 + length;
    if (next > bytes.length) throw torn(bytes.length);
    const data = bytes.subarray(at + 8, at + 8 + length);
    if (!head && (type !== 'IHDR' || length !== 13))
      throw new ExchangeError(name, 'it does not begin with the head of a PNG. Save it anew as PNG.');
    if (type === 'IHDR') {
      [head, interlaced] = headOf(name, data);
    }
    if (type === 'IDAT') packed.push(data);
    if (KEPT.has(type)) parts.push(bytes.subarray(at, next));
    ended = type === 'IEND';
    at = next;
  }
  if (!head || !packed.length) throw new ExchangeError(name, 'it holds no picture. Save it anew as PNG.');
  checkPacked(name, packed, sizeOf(head, interlaced));
  return { head, plain: joined(parts) };
}

function headOf(name: string, data: Uint8Array): [PngHead, boolean] {
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const [width, height] = [view.getUint32(0), view.getUint32(4)];
  const channels = CHANNELS[data[9]];
  if (!width || !height || !channels)
    throw new ExchangeError(name, 'its head says nothing that makes sense. Save it anew as PNG.');
  if (width * height > MOST_PIXELS)
    throw new ExchangeError(
      name,
      `it says that it is ${width} × ${height} pixels large; at most ${MOST_PIXELS / 1e6} million fit. Make it smaller.`,
    );
  return [{ width, height, depth: data[8], channels }, data[12] === 1];
}

/** Bytes of the unpacked rows, each with its filter. */
function sizeOf({ width, height, depth, channels }: PngHead, interlaced: boolean): number {
  const rows = (w: number, h: number) => (w && h ? h * (1 + Math.ceil((w * channels * depth) / 8)) : 0);
  if (!interlaced) return rows(width, height);
  // The seven passes of Adam7: first column and row, steps.
  const passes = [
    [0, 0, 8, 8],
    [4, 0, 8, 8],
    [0, 4, 4, 8],
    [2, 0, 4, 4],
    [0, 2, 2, 4],
    [1, 0, 2, 2],
    [0, 1, 1, 2],
  ];
  return passes.reduce(
    (sum, [x, y, dx, dy]) =>
      sum + rows(Math.max(0, Math.ceil((width - x) / dx)), Math.max(0, Math.ceil((height - y) / dy))),
    0,
  );
}

/** Bytes that are given to the unpacking at a time: what comes of one portion is at most a thousand times as much. */
const PORTION = 16_384;

/** Unpacks without keeping anything. Throws where it comes out longer or shorter than it has to be. */
function checkPacked(name: string, packed: readonly Uint8Array[], size: number): void {
  let unpacked = 0;
  const unzip = new Unzlib((part) => (unpacked += part.length));
  const all = joined(packed);
  const broken = (why: string) => new ExchangeError(name, `${why}. Save it anew as PNG.`);
  try {
    for (let at = 0; at < all.length && unpacked <= size; at += PORTION)
      unzip.push(all.subarray(at, at + PORTION), at + PORTION >= all.length);
  } catch {
    throw broken(`what it packs is broken after ${unpacked} of ${size} bytes`);
  }
  if (unpacked > size) throw broken('it packs more than the picture that it says it holds');
  if (unpacked < size) throw broken(`it packs only ${unpacked} of the ${size} bytes of its picture`);
}
