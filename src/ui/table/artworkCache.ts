import type { PlacedItem } from '@/core/artwork/item';
import { pathOf } from './outlinePath';
import type { Viewport } from './viewport';

/** Artwork of one look: ink, and a fill rule when it is filled. */
export interface Batch {
  readonly ink: string;
  readonly fill: CanvasFillRule | null;
  readonly items: readonly PlacedItem[];
}

/** Items of one look that are stroked in one go. */
const SHEAF = 96;
/** Below so many segments artwork is simply drawn; above, a picture of it is kept. */
const SMALL = 6000;
/** Milliseconds of drawing into the picture at a time, and of rest before a view that moves is drawn sharply. */
const SLICE = 9;
const REST = 110;

interface Sheaf {
  readonly items: readonly PlacedItem[];
  readonly path: Path2D;
  readonly box: readonly [number, number, number, number];
}
const sheaves = new WeakMap<PlacedItem, Sheaf>();

/** The outlines of some items as one path, kept until one of them changes. */
function sheafOf(items: readonly PlacedItem[]): Sheaf {
  const kept = sheaves.get(items[0]);
  if (kept && kept.items.length === items.length && kept.items.every((p, i) => p === items[i])) return kept;
  const path = new Path2D();
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of items) {
    path.addPath(pathOf(p));
    for (const c of p.corners) {
      x0 = Math.min(x0, c.x);
      y0 = Math.min(y0, c.y);
      x1 = Math.max(x1, c.x);
      y1 = Math.max(y1, c.y);
    }
  }
  const made: Sheaf = { items, path, box: [x0, y0, x1, y1] };
  sheaves.set(items[0], made);
  return made;
}

const facts = new WeakMap<PlacedItem, { closed: boolean; segments: number }>();
/** Whether all outlines of an item are closed, and how many segments they have: counted once. */
export function factsOf(p: PlacedItem): { closed: boolean; segments: number } {
  let f = facts.get(p);
  if (!f) facts.set(p, (f = { closed: p.paths.every((q) => q.closed), segments: p.paths.reduce((n, q) => n + q.segments.length, 0) }));
  return f;
}

type Ctx = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

function* steps(ctx: Ctx, width: number, height: number, v: Viewport, batches: readonly Batch[]): Generator<void> {
  const px = 1 / v.k;
  const seen = [-v.ox * px, (v.oy - height) * px, (width - v.ox) * px, v.oy * px];
  for (const b of batches)
    for (let i = 0; i < b.items.length; i += SHEAF) {
      const s = sheafOf(b.items.slice(i, i + SHEAF));
      if (s.box[2] < seen[0] || s.box[0] > seen[2] || s.box[3] < seen[1] || s.box[1] > seen[3]) continue;
      ctx.fillStyle = ctx.strokeStyle = b.ink;
      ctx.lineWidth = px;
      if (b.fill) {
        ctx.globalAlpha = 0.1;
        ctx.fill(s.path, b.fill);
        ctx.globalAlpha = 1;
      }
      ctx.stroke(s.path);
      yield;
    }
}

interface Picture {
  readonly canvas: OffscreenCanvas;
  readonly view: Viewport;
  readonly batches: readonly Batch[];
}

const sameBatches = (a: readonly Batch[], b: readonly Batch[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x.ink === b[i].ink && x.fill === b[i].fill && x.items.length === b[i].items.length && x.items.every((p, k) => p === b[i].items[k])));
const sameView = (a: Viewport, b: Viewport): boolean => a.k === b.k && a.ox === b.ox && a.oy === b.oy;

const counted = new WeakMap<readonly Batch[], number>();
function segmentsOf(batches: readonly Batch[]): number {
  let n = counted.get(batches);
  if (n === undefined) counted.set(batches, (n = batches.reduce((s, b) => s + b.items.reduce((m, p) => m + factsOf(p).segments, 0), 0)));
  return n;
}

/**
 * Keeps a picture of large artwork. While the view moves, the picture is moved and scaled with it; a sharp one is made in
 * slices when it rests, so that a sheet of thousands of outlines moves as lightly as an empty one.
 */
export class ArtworkCache {
  private shown: Picture | null = null;
  private making: { picture: Picture; work: Generator<void> } | null = null;
  private next: (() => { picture: Picture; work: Generator<void> }) | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;

  /** @param again is called when there is something newer to draw. */
  draw(ctx: CanvasRenderingContext2D, width: number, height: number, dpr: number, v: Viewport, batches: readonly Batch[], again: () => void): void {
    if (segmentsOf(batches) < SMALL) {
      this.drop();
      for (const _ of steps(ctx, width, height, v, batches)) void _;
      return;
    }
    const fits = (p: Picture | null | undefined): boolean => !!p && sameView(p.view, v) && p.canvas.width === Math.round(width * dpr) && p.canvas.height === Math.round(height * dpr) && sameBatches(p.batches, batches);
    if (this.shown) {
      const f = v.k / this.shown.view.k;
      ctx.setTransform(f, 0, 0, f, dpr * (v.ox - this.shown.view.ox * f), dpr * (v.oy - this.shown.view.oy * f));
      ctx.drawImage(this.shown.canvas, 0, 0);
      ctx.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
    }
    if (fits(this.shown)) return;
    if (!fits(this.making?.picture)) {
      // Begun when the view rests: until then every frame would begin another.
      this.making = null;
      this.next = () => {
        const canvas = new OffscreenCanvas(Math.round(width * dpr), Math.round(height * dpr));
        const c = canvas.getContext('2d', { willReadFrequently: true })!;
        c.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
        return { picture: { canvas, view: v, batches }, work: steps(c, width, height, v, batches) };
      };
    }
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.slice(again), this.shown ? REST : 0);
  }

  private slice(again: () => void): void {
    this.timer = null;
    this.making ??= this.next?.() ?? null;
    this.next = null;
    if (!this.making) return;
    const end = performance.now() + SLICE;
    const paint = this.making.picture.canvas.getContext('2d')!;
    while (performance.now() < end) {
      const { done } = this.making.work.next();
      // A canvas only notes what is to be drawn; asked for a pixel, it draws: now, in this slice, not all at once later.
      paint.getImageData(0, 0, 1, 1);
      if (!done) continue;
      this.shown = this.making.picture;
      this.making = null;
      again();
      return;
    }
    this.timer = setTimeout(() => this.slice(again), 0);
  }

  drop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.next = null;
    this.making = null;
    this.shown = null;
  }
}
