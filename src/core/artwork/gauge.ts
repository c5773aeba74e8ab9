import { axisFor } from '../geometry/insets';
import { traceable } from '../geometry/traceable';
import { boundsOf, components, offset, regionArea, subtract, type Region } from '../geometry/region';

/** A stretch of a stroke or gap: how wide it is, how long, and where. mm. */
export interface GaugePiece {
  readonly width: number;
  readonly length: number;
  readonly x: number;
  readonly y: number;
}

/** Clearance changes faster than this along the axis only into corners, which are no strokes. */
const CORNER_RATE = 0.4;
/** Half of the narrowest gap that is looked for, mm. */
const HAIR = 0.03;

/**
 * Widths along a region, read off its exact medial axis: at each piece of the axis the region is twice the clearance
 * wide. Pieces that run into corners are left out. Pass a region for the widths of its strokes, or what lies
 * between (see `gapsOf`) for those of its gaps.
 */
export function widths(region: Region): GaugePiece[] {
  const out: GaugePiece[] = [];
  // What has no axis has no widths; the V-carve of it says so by place.
  for (const part of components(traceable(region).region)) {
    const { sites, trace: t } = axisFor(part);
    for (let p = 0; p < t.pieces; p++) {
      const length = Math.hypot(t.x1[p] - t.x0[p], t.y1[p] - t.y0[p]);
      if (!(length > 1e-6) || Math.abs(t.r1[p] - t.r0[p]) > CORNER_RATE * length) continue;
      out.push({
        width: t.r0[p] + t.r1[p],
        length,
        x: sites.originX + (t.x0[p] + t.x1[p]) / 2,
        y: sites.originY + (t.y0[p] + t.y1[p]) / 2,
      });
    }
  }
  return out;
}

/** What lies between the pieces of a region and in its holes, within `reach` mm of it. */
export function gapsOf(region: Region, reach: number): Region {
  const b = boundsOf(region);
  if (!b) return [];
  // Only what is enclosed or bridged: the hull that a disc of `reach` cannot enter from outside.
  const closed = offset(offset(region, reach, 0.01), -reach, 0.01);
  const filled = closed.filter((l) => regionArea([l]) > 0);
  // The chords of the two offsets leave slivers along curved outlines: what a hair does not enter is no gap.
  return offset(offset(subtract(filled, region), -HAIR, 0.005), HAIR, 0.005);
}

/** The narrowest piece, or null when there is none. */
export const narrowest = (pieces: readonly GaugePiece[]): GaugePiece | null =>
  pieces.reduce<GaugePiece | null>((m, p) => (!m || p.width < m.width ? p : m), null);

/** Length of the axis by width: `bins` even steps from 0, the last of which holds what is wider still. */
export function histogram(
  pieces: readonly GaugePiece[],
  bins: number,
): { readonly step: number; readonly length: number[] } {
  // The widest twentieth of the length goes into the last bin: one broad disc does not squeeze all the rest together.
  const order = [...pieces].sort((a, b) => a.width - b.width);
  const all = order.reduce((s, p) => s + p.length, 0);
  let sum = 0;
  const widest = order.find((p) => (sum += p.length) >= 0.95 * all)?.width ?? 0;
  const step = widest / bins || 1;
  const length = new Array<number>(bins).fill(0);
  for (const p of pieces) length[Math.min(bins - 1, Math.floor(p.width / step))] += p.length;
  return { step, length };
}

/** Share (0..1) of a region's area that a disc of `radius` mm can cover from inside. */
export function enterable(region: Region, radius: number): number {
  const whole = regionArea(region);
  if (!(whole > 0)) return 0;
  const centres = offset(region, -radius, 0.005);
  return centres.length ? Math.min(1, regionArea(offset(centres, radius, 0.005)) / whole) : 0;
}
