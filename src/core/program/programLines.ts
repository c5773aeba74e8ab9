import { derived } from '../geometry/hash';
import { textOf, type Chunks } from './text';

const BREAK = 10;
/** Of every so-manieth line of a chunk it is known where it begins. */
const MARK = 256;

const counts = derived<Uint8Array, number>();
/** Ends of lines in a chunk; counted once. */
export const breaksIn = (chunk: Uint8Array): number =>
  counts(chunk, '', () => {
    let n = 0;
    for (let i = chunk.indexOf(BREAK); i >= 0; i = chunk.indexOf(BREAK, i + 1)) n++;
    return n;
  });

const marks = derived<Uint8Array, Uint32Array>();
/** Where ends of lines stand in a chunk: the first, and every MARK-th after it. */
const marksOf = (chunk: Uint8Array, breaks: number): Uint32Array =>
  marks(chunk, '', () => {
    const out = new Uint32Array(Math.ceil(breaks / MARK));
    let n = 0;
    for (let i = chunk.indexOf(BREAK); i >= 0; i = chunk.indexOf(BREAK, i + 1))
      if (n++ % MARK === 0) out[(n - 1) / MARK] = i;
    return out;
  });

/**
 * The lines of a program without the program as one text: of ten million lines those in view cost what one chunk costs.
 * `breaks`: the ends of lines in each chunk, as `breaksIn` counts them.
 */
export class ProgramLines {
  /** Ends of lines before each chunk, and in all. */
  private readonly before: Float64Array;
  readonly count: number;

  constructor(
    private readonly chunks: Chunks,
    private readonly breaks: readonly number[],
  ) {
    this.before = new Float64Array(chunks.length + 1);
    breaks.forEach((n, k) => (this.before[k + 1] = this.before[k] + n));
    const last = chunks.findLast((c) => c.length > 0);
    // What stands after the last end of a line is a line too, and a text without any has one.
    this.count = Math.max(1, this.before[chunks.length] + (last && last[last.length - 1] !== BREAK ? 1 : 0));
  }

  /** Where line i begins (from 0): the chunk, and the byte in it. */
  private startOf(i: number): { chunk: number; at: number } {
    if (i <= 0) return { chunk: 0, at: 0 };
    // The chunk that holds the i-th end of a line.
    let low = 0;
    let high = this.chunks.length - 1;
    while (low < high) {
      const mid = (low + high) >> 1;
      if (this.before[mid + 1] >= i) high = mid;
      else low = mid + 1;
    }
    const chunk = this.chunks[low];
    const k = i - this.before[low] - 1;
    let at = marksOf(chunk, this.breaks[low])[Math.floor(k / MARK)];
    for (let n = Math.floor(k / MARK) * MARK; n < k; n++) at = chunk.indexOf(BREAK, at + 1);
    return { chunk: low, at: at + 1 };
  }

  /** Lines from .. to - 1, from 0, without their ends. */
  slice(from: number, to: number): string[] {
    const out: string[] = [];
    let { chunk, at } = this.startOf(from);
    let open: Uint8Array[] = [];
    const last = Math.min(to, this.count);
    while (out.length < last - from) {
      const c = this.chunks[chunk];
      if (!c) {
        out.push(textOf(open));
        break;
      }
      const end = c.indexOf(BREAK, at);
      open.push(c.subarray(at, end < 0 ? c.length : end));
      if (end < 0) {
        chunk++;
        at = 0;
        continue;
      }
      out.push(textOf(open));
      open = [];
      at = end + 1;
    }
    return out;
  }
}
