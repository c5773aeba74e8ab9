import { crc32, deflateSync } from 'node:zlib';

/** A chunk of a PNG: length, type, data, checksum. */
export function pngChunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body) >>> 0, out.length - 4);
  return out;
}

export interface PngParts {
  readonly width: number;
  readonly height: number;
  readonly depth: number;
  /** 0 grey, 2 colours, 3 palette, 4 grey and alpha, 6 colours and alpha. */
  readonly colour: number;
  /** Rows as they lie in the file, each with its filter byte. */
  readonly rows: Uint8Array;
  readonly before?: readonly Buffer[];
  readonly interlaced?: boolean;
}

/** A PNG file put together for itself. */
export function pngOf({ width, height, depth, colour, rows, before = [], interlaced = false }: PngParts): Uint8Array {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([depth, colour, 0, 0, interlaced ? 1 : 0], 8);
  return new Uint8Array(
    Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      pngChunk('IHDR', head),
      ...before,
      pngChunk('IDAT', deflateSync(rows)),
      pngChunk('IEND', Buffer.alloc(0)),
    ]),
  );
}

/** A grey picture of 8 or 16 bits with unfiltered rows; values 0 to 1, row 0 on top. */
export function greyPng(
  width: number,
  height: number,
  depth: 8 | 16,
  at: (x: number, y: number) => number,
): Uint8Array {
  const each = depth / 8;
  const rows = Buffer.alloc(height * (1 + width * each));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const v = Math.round(at(x, y) * (2 ** depth - 1));
      const to = y * (1 + width * each) + 1 + x * each;
      if (depth === 16) rows.writeUInt16BE(v, to);
      else rows[to] = v;
    }
  return pngOf({ width, height, depth, colour: 0, rows });
}
