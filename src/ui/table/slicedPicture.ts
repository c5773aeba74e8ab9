import type { Viewport } from './viewport';

/** Milliseconds of drawing into the picture at a time, and of rest before a view that moves is drawn sharply. */
const SLICE = 9;
const REST = 110;

export type Ctx = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** How something large is drawn: `steps` draws it into a context that is set to the view, a little between two yields. */
export interface Way<T> {
  /** Whether so little is to be drawn that no picture is kept of it. */
  small(what: T): boolean;
  same(a: T, b: T): boolean;
  steps(ctx: Ctx, width: number, height: number, v: Viewport, what: T): Generator<void>;
}

interface Picture<T> {
  readonly canvas: OffscreenCanvas;
  readonly view: Viewport;
  readonly what: T;
}

const sameView = (a: Viewport, b: Viewport): boolean => a.k === b.k && a.ox === b.ox && a.oy === b.oy;

/**
 * Keeps a picture of what is large. While the view moves, the picture is moved and scaled with it; a sharp one is made in
 * slices when it rests, so that a sheet of thousands of outlines moves as lightly as an empty one.
 */
export class SlicedPicture<T> {
  private shown: Picture<T> | null = null;
  private making: { picture: Picture<T>; work: Generator<void> } | null = null;
  private next: (() => { picture: Picture<T>; work: Generator<void> }) | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(private readonly way: Way<T>) {}

  /** Whether there is a picture to show. */
  get isThere(): boolean {
    return this.shown !== null;
  }

  /** @param again is called when there is something newer to draw. */
  draw(
    ctx: CanvasRenderingContext2D,
    width: number,
    height: number,
    dpr: number,
    v: Viewport,
    what: T,
    again: () => void,
  ): void {
    if (this.way.small(what)) {
      this.drop();
      for (const _ of this.way.steps(ctx, width, height, v, what)) void _;
      return;
    }
    const fits = (p: Picture<T> | null | undefined): boolean =>
      !!p &&
      sameView(p.view, v) &&
      p.canvas.width === Math.round(width * dpr) &&
      p.canvas.height === Math.round(height * dpr) &&
      this.way.same(p.what, what);
    if (this.shown) {
      const f = v.k / this.shown.view.k;
      ctx.setTransform(f, 0, 0, f, dpr * (v.ox - this.shown.view.ox * f), dpr * (v.oy - this.shown.view.oy * f));
      ctx.drawImage(this.shown.canvas, 0, 0);
      ctx.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
    }
    if (fits(this.shown)) return;
    const begun = this.making?.picture;
    // Where nothing is shown yet, what has been begun of the same is made to its end, wherever it is looked at from meanwhile.
    if (!this.shown && begun && this.way.same(begun.what, what)) return;
    if (!fits(begun)) {
      // Begun when the view rests: until then every frame would begin another.
      this.making = null;
      this.next = () => {
        const canvas = new OffscreenCanvas(Math.round(width * dpr), Math.round(height * dpr));
        const c = canvas.getContext('2d', { willReadFrequently: true })!;
        c.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
        return { picture: { canvas, view: v, what }, work: this.way.steps(c, width, height, v, what) };
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
