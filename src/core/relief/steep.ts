import type { HeightField } from './field';

/**
 * How steep a field is at a node: the larger rise, for each mm across, to the nodes beside it, along X and along Y together.
 * Beside empty places and at the rim the nodes that are there count. NaN where it is empty.
 */
export function slopeAt(f: HeightField, c: number, r: number): number {
  const { z, cols } = f;
  const i = r * cols + c;
  const h = z[i];
  if (h !== h) return NaN;
  const x = rise(c > 0 ? z[i - 1] : NaN, c < cols - 1 ? z[i + 1] : NaN, h);
  const y = rise(r > 0 ? z[i - cols] : NaN, r < f.rows - 1 ? z[i + cols] : NaN, h);
  return Math.sqrt(x * x + y * y) / f.cell;
}

/** The larger of what two heights differ from a third; what is empty does not differ. */
function rise(a: number, b: number, h: number): number {
  const p = Math.abs(a - h);
  const q = Math.abs(b - h);
  const most = p > 0 ? p : 0;
  return q > most ? q : most;
}

/** Rise for each mm across of a wall with so much draft: degrees that it leans from upright. */
export const slopeOfDraft = (degrees: number): number => 1 / Math.tan((Math.max(1e-3, degrees) * Math.PI) / 180);

/** More nodes than so many are not looked at for a share. */
const LOOKS = 1e6;

/** Which share of a field, 0 to 1, has less draft than so many degrees: it would hold on to what is cast in it. */
export function undraftedShare(f: HeightField, draft: number): number {
  const most = slopeOfDraft(draft);
  const step = Math.max(1, Math.ceil(Math.sqrt((f.cols * f.rows) / LOOKS)));
  let [all, steep] = [0, 0];
  for (let r = 0; r < f.rows; r += step)
    for (let c = 0; c < f.cols; c += step) {
      const s = slopeAt(f, c, r);
      if (s !== s) continue;
      all++;
      if (s > most) steep++;
    }
  return all ? steep / all : 0;
}

/** For each of `cols` x `rows` points seen from above, row 0 at the top: 1 where there is less draft than so many degrees. */
export function undrafted(f: HeightField, cols: number, rows: number, draft: number): Uint8Array {
  const most = slopeOfDraft(draft);
  const out = new Uint8Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const u = Math.round(((c + 0.5) / cols) * (f.cols - 1));
      const v = Math.round((1 - (r + 0.5) / rows) * (f.rows - 1));
      if (slopeAt(f, u, v) > most) out[r * cols + c] = 1;
    }
  return out;
}
