import type { Item } from '@/core/artwork/item';
import type { ArtworkContext } from '@/core/artwork/kind';
import { enterable, gapsOf, histogram, narrowest, widths, type GaugePiece } from '@/core/artwork/gauge';
import { regionOf } from '@/core/artwork/item';
import { apart, combine, offsetOutlines, widened, type Combination } from '@/core/artwork/shapeWork';
import { ExchangeError, type Drawn } from '@/core/exchange/drawn';
import type { Path } from '@/core/geometry/path';
import type { CornerStyle } from '@/core/geometry/region';

/** Work on shapes that a maker asks for by name. Each gives a list of drawings to put in place of the picked items, or beside them. */
export type ShapeTask =
  | { readonly kind: 'combine'; readonly how: Combination }
  | { readonly kind: 'offset'; readonly distance: number; readonly steps: number; readonly corners: CornerStyle }
  | { readonly kind: 'widen'; readonly width: number }
  | { readonly kind: 'apart' };

export function shapeWork(items: readonly Item[], task: ShapeTask, art: ArtworkContext): Path[][] {
  switch (task.kind) {
    case 'combine':
      return [combine(items, task.how, art)].filter((p) => p.length);
    case 'offset':
      return offsetOutlines(items, task.distance, task.steps, task.corners, art);
    case 'widen':
      return items.map((i) => widened(i, task.width, art)).filter((p) => p.length);
    case 'apart':
      return items.flatMap((i) => apart(i, art));
  }
}

export interface GaugeResult {
  readonly strokes: {
    readonly step: number;
    readonly length: number[];
    readonly narrowest: GaugePiece | null;
    readonly pieces: GaugePiece[];
  };
  readonly gaps: {
    readonly step: number;
    readonly length: number[];
    readonly narrowest: GaugePiece | null;
    readonly pieces: GaugePiece[];
  };
  /** For each radius asked for: the share of the artwork that a cutter of it can enter. */
  readonly entered: number[];
}

/** Chords of curves while gauging, mm. */
const GAUGE_TOLERANCE = 0.01;
const BINS = 24;

export function gauge(items: readonly Item[], radii: readonly number[], art: ArtworkContext): GaugeResult {
  const region = regionOf(items, art, GAUGE_TOLERANCE);
  const strokes = widths(region);
  const widest = strokes.reduce((m, p) => Math.max(m, p.width), 1);
  const gaps = widths(gapsOf(region, Math.min(20, widest * 1.5)));
  const side = (pieces: GaugePiece[]) => ({ ...histogram(pieces, BINS), narrowest: narrowest(pieces), pieces });
  return { strokes: side(strokes), gaps: side(gaps), entered: radii.map((r) => enterable(region, r)) };
}

/** Reads a drawing by what is in it; its reader is loaded when there is something to read. Throws ExchangeError. */
export async function readDrawing(name: string, bytes: Uint8Array): Promise<Drawn> {
  if (bytes.length > 200 * 1024 * 1024) throw new ExchangeError(name, 'it is larger than 200 MB.');
  const text = new TextDecoder().decode(bytes);
  if (/^\uFEFF?\s*</.test(text)) {
    const { readSvg } = await import('@/core/exchange/svg/read');
    return readSvg(text.replace(/^\uFEFF/, ''), name);
  }
  if (/^\s*(0|999)\s*[\r\n]/.test(text) || /\.dxf$/i.test(name)) {
    const { readDxf } = await import('@/core/exchange/dxf/read');
    return readDxf(text, name);
  }
  throw new ExchangeError(name, 'it is neither an SVG nor a DXF drawing.');
}
