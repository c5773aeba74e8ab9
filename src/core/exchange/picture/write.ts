import { encode } from 'fast-png';
import { heightFacts } from '../../relief/facts';
import type { HeightField } from '../../relief/field';

/** Greys of sixteen bits. */
const MOST = 65535;

/**
 * Heights as a PNG of sixteen bits, a pixel for each node, the highest Y on top: black is the lowest, white the highest. Empty
 * places are transparent.
 */
export function writeHeights(f: HeightField): {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly lowest: number;
  readonly highest: number;
} {
  const { lowest, highest, covered } = heightFacts(f.z);
  const channels = covered < 1 ? 2 : 1;
  const data = new Uint16Array(channels * f.z.length);
  const by = highest > lowest ? MOST / (highest - lowest) : 0;
  for (let r = 0; r < f.rows; r++)
    for (let c = 0; c < f.cols; c++) {
      const h = f.z[(f.rows - 1 - r) * f.cols + c];
      const to = channels * (r * f.cols + c);
      if (h !== h) continue;
      data[to] = Math.round((h - lowest) * by);
      if (channels === 2) data[to + 1] = MOST;
    }
  const bytes = encode({ width: f.cols, height: f.rows, data, depth: 16, channels });
  return { bytes: bytes as Uint8Array<ArrayBuffer>, lowest, highest };
}
