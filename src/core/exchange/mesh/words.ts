import { ExchangeError } from '../drawn';

/** More triangles are refused: what they need does not lie in a browser's memory. */
export const MOST_TRIANGLES = 20_000_000;
export const tooManyTriangles = (name: string, count: number): ExchangeError =>
  new ExchangeError(
    name,
    `it has ${Math.round(count)} triangles; ${MOST_TRIANGLES / 1e6} million are the most that fit into a browser. Reduce it where it was made.`,
  );

const SPACE = 32;
const LINE = 10;

/** Reads a text file word by word, and knows the line. Throws ExchangeError. */
export class WordReader {
  private at = 0;
  line = 1;
  constructor(
    private readonly name: string,
    private readonly bytes: Uint8Array,
  ) {}

  /** The next word; null at the end, or where `within` the line and it has ended. */
  next(within = false): string | null {
    const { bytes } = this;
    while (this.at < bytes.length && bytes[this.at] <= SPACE) {
      if (bytes[this.at] === LINE) {
        if (within) return null;
        this.line++;
      }
      this.at++;
    }
    if (this.at >= bytes.length) return null;
    const from = this.at;
    while (this.at < bytes.length && bytes[this.at] > SPACE) this.at++;
    let word = '';
    // Longer words are none that a mesh has.
    for (let i = from; i < Math.min(this.at, from + 80); i++) word += String.fromCharCode(bytes[i]);
    return word;
  }

  /** The next word as a number. */
  number(within = false): number {
    const w = this.next(within);
    const v = w === null ? NaN : Number(w);
    if (!Number.isFinite(Math.fround(v)))
      throw new ExchangeError(
        this.name,
        w === null
          ? `it ends where a number should stand (line ${this.line}). The file is cut off: save it again.`
          : `"${w.slice(0, 30)}" stands in line ${this.line} where a number should. Repair it where it was made.`,
      );
    return v;
  }

  skipLine(): void {
    while (this.at < this.bytes.length && this.bytes[this.at] !== LINE) this.at++;
  }
}
