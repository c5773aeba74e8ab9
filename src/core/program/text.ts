import { column, taken, used } from '../units/columns';

// Of the Encoding Standard, and so in browsers, workers and Node.js alike; the core's types know no platform.
const { TextDecoder: Decoder, TextEncoder: Encoder } = globalThis as unknown as {
  TextDecoder: new (label: string) => { decode(bytes: Uint8Array, more?: { stream: boolean }): string };
  TextEncoder: new () => { encode(text: string): Uint8Array };
};

/** Text as bytes, in pieces that follow each other: a program of which one cut changes shares the pieces of the others. */
export type Chunks = readonly Uint8Array[];

/** The whole text of chunks. */
export function textOf(chunks: Chunks): string {
  const decoder = new Decoder('latin1');
  // Decoders take no shared memory.
  return chunks.map((c) => decoder.decode(c.buffer instanceof ArrayBuffer ? c : c.slice(), { stream: true })).join('');
}

export const lengthOf = (chunks: Chunks): number => chunks.reduce((n, c) => n + c.length, 0);

/** Chunks as one run of bytes, in memory that is not shared: for files. */
export function bytesOf(chunks: Chunks): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(lengthOf(chunks));
  let at = 0;
  for (const c of chunks) {
    all.set(c, at);
    at += c.length;
  }
  return all;
}

/** Text of one-byte letters as one chunk; a question mark for any other. */
export function chunkOf(text: string): Uint8Array {
  // As long as its letters: ASCII alone, as programs are, and already right.
  const encoded = new Encoder().encode(text);
  if (encoded.length === text.length) return encoded;
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < bytes.length; i++) {
    const letter = text.charCodeAt(i);
    bytes[i] = letter < 256 ? letter : 63;
  }
  return bytes;
}

const SHORT = 1 << 12;
const LONG = 1 << 16;

/**
 * Text that grows byte by byte: programs of a million lines are written without a string for every word.
 * ASCII only.
 */
export class ByteText {
  private bytes: Uint8Array = column(Uint8Array, SHORT);
  private length = 0;

  /** Makes sure of `n` more bytes: what `byte` and `word` need is asked for once a line. */
  room(n: number): void {
    if (this.length + n <= this.bytes.length) return;
    const wider = column(Uint8Array, 2 * this.bytes.length + n);
    wider.set(this.bytes.subarray(0, this.length));
    this.bytes = wider;
  }

  ascii(s: string): void {
    this.room(s.length);
    for (let i = 0; i < s.length; i++) {
      const c = s.charCodeAt(i);
      // What is no ASCII would lose its upper half, and could become the end of a line.
      this.bytes[this.length++] = c < 128 ? c : 63;
    }
  }

  line(s: string): void {
    this.room(s.length + 1);
    this.ascii(s);
    this.byte(10);
  }

  /** One byte, where room was made. */
  byte(b: number): void {
    this.bytes[this.length++] = b;
  }

  /** A letter and a number given in whole steps of 10^-decimals, without trailing zeros, where room was made. */
  word(letter: number, steps: number, decimals: number): void {
    const out = this.bytes;
    let n = this.length;
    out[n++] = letter;
    let a = steps;
    if (a < 0) {
      out[n++] = 45;
      a = -a;
    }
    // Both parts are far below 2^31: 32-bit arithmetic, last digit first.
    const factor = POWERS[decimals];
    let whole = Math.floor(a / factor) | 0;
    let rest = (a - whole * factor) | 0;
    let digits = whole < 10 ? 1 : whole < 100 ? 2 : whole < 1000 ? 3 : 4;
    while (digits >= 4 && POWERS[digits] <= whole) digits++;
    for (let k = n + digits - 1; k >= n; k--) {
      const q = (whole / 10) | 0;
      out[k] = 48 + whole - 10 * q;
      whole = q;
    }
    n += digits;
    if (rest > 0) {
      let places = decimals;
      for (let q = (rest / 10) | 0; 10 * q === rest; q = (rest / 10) | 0) {
        rest = q;
        places--;
      }
      out[n] = 46;
      for (let k = n + places; k > n; k--) {
        const q = (rest / 10) | 0;
        out[k] = 48 + rest - 10 * q;
        rest = q;
      }
      n += places + 1;
    }
    this.length = n;
  }

  /** What has been written since it was taken last. */
  take(): Uint8Array {
    const { bytes, length } = this;
    this.length = 0;
    if (length < LONG) return taken(bytes, length);
    // A long text keeps the memory that it was written in.
    this.bytes = column(Uint8Array, SHORT);
    return used(bytes, length);
  }
}

const POWERS = Array.from({ length: 16 }, (_, i) => 10 ** i);
