import type { PlacedItem } from '@/core/artwork/item';
import type { Shape } from '@/core/artwork/kind';
import { boxesMeet, noBox, widen, type Bounds } from '@/core/geometry/box';
import { pathOf, piecesOf } from './outlinePath';
import { SlicedPicture, type Ctx } from './slicedPicture';
import type { Viewport } from './viewport';

/** Artwork of one look: ink, width of its lines in pixels, and how it is filled. */
export interface Batch {
  readonly ink: string;
  readonly wide: number;
  readonly fill: { readonly rule: CanvasFillRule; readonly alpha: number } | null;
  readonly items: readonly PlacedItem[];
}

/** Items of one look that are stroked in one go, and the segments from which on one is drawn by itself, piece by piece. */
const SHEAF = 96;
const LARGE = 2000;
/** Below so many segments artwork is simply drawn; above, a picture of it is kept. */
const SMALL = 6000;

interface Sheaf {
  readonly items: readonly PlacedItem[];
  readonly path: Path2D;
  readonly box: Readonly<Bounds>;
}
const sheaves = new WeakMap<PlacedItem, Sheaf>();

/** The outlines of some items as one path, kept until one of them changes. */
function sheafOf(items: readonly PlacedItem[]): Sheaf {
  const kept = sheaves.get(items[0]);
  if (kept && kept.items.length === items.length && kept.items.every((p, i) => p === items[i])) return kept;
  const path = new Path2D();
  const box = noBox();
  for (const p of items) {
    path.addPath(pathOf(p));
    for (const c of p.corners) widen(box, c.x, c.y);
  }
  const made: Sheaf = { items, path, box };
  sheaves.set(items[0], made);
  return made;
}

/** Items in sheaves; a large one is a sheaf of its own. */
function* inSheaves(items: readonly PlacedItem[]): Generator<Sheaf> {
  let from = 0;
  for (let i = 0; i < items.length; i++) {
    const alone = factsOf(items[i]).segments > LARGE;
    if (i > from && (alone || i - from === SHEAF)) {
      yield sheafOf(items.slice(from, i));
      from = i;
    }
    if (!alone) continue;
    yield sheafOf([items[i]]);
    from = i + 1;
  }
  if (from < items.length) yield sheafOf(items.slice(from));
}

const facts = new WeakMap<Shape, { closed: boolean; segments: number }>();
/** Whether all outlines of an item are closed, and how many segments they have: counted once. */
export function factsOf({ shape }: PlacedItem): { closed: boolean; segments: number } {
  let f = facts.get(shape);
  if (!f) {
    const { paths } = shape;
    f = { closed: paths.every((q) => q.closed), segments: paths.reduce((n, q) => n + q.segments.length, 0) };
    facts.set(shape, f);
  }
  return f;
}

function* steps(ctx: Ctx, width: number, height: number, v: Viewport, batches: readonly Batch[]): Generator<void> {
  const px = 1 / v.k;
  const seen = { x0: -v.ox * px, y0: (v.oy - height) * px, x1: (width - v.ox) * px, y1: v.oy * px };
  for (const b of batches)
    for (const { items, path, box } of inSheaves(b.items)) {
      if (!boxesMeet(box, seen)) continue;
      ctx.fillStyle = ctx.strokeStyle = b.ink;
      ctx.lineWidth = b.wide * px;
      if (b.fill) {
        ctx.globalAlpha = b.fill.alpha;
        ctx.fill(path, b.fill.rule);
        ctx.globalAlpha = 1;
      }
      const [first] = items;
      if (items.length > 1 || factsOf(first).segments <= LARGE) ctx.stroke(path);
      else
        for (const piece of piecesOf(first.shape)) {
          yield;
          ctx.save();
          ctx.transform(first.at.a, first.at.b, first.at.c, first.at.d, first.at.e, first.at.f);
          ctx.stroke(piece);
          ctx.restore();
        }
      yield;
    }
}

const sameBatches = (a: readonly Batch[], b: readonly Batch[]): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every(
      (x, i) =>
        x.ink === b[i].ink &&
        x.wide === b[i].wide &&
        x.fill?.rule === b[i].fill?.rule &&
        x.fill?.alpha === b[i].fill?.alpha &&
        x.items.length === b[i].items.length &&
        x.items.every((p, k) => p === b[i].items[k]),
    ));

const counted = new WeakMap<readonly Batch[], number>();
function segmentsOf(batches: readonly Batch[]): number {
  let n = counted.get(batches);
  if (n === undefined)
    counted.set(batches, (n = batches.reduce((s, b) => s + b.items.reduce((m, p) => m + factsOf(p).segments, 0), 0)));
  return n;
}

/** How far all of these have gone since they were those, mm, where that is all that has happened to them; null otherwise. */
export function goneSince(those: readonly Batch[], these: readonly Batch[]): { dx: number; dy: number } | null {
  let gone: { dx: number; dy: number } | null = null;
  if (those.length !== these.length) return null;
  for (const [k, then] of those.entries()) {
    const now = these[k];
    if (then.ink !== now.ink || then.wide !== now.wide || then.items.length !== now.items.length) return null;
    for (const [i, { shape, at, fill }] of then.items.entries()) {
      const p = now.items[i];
      const { a, b, c, d, e, f } = p.at;
      if (p.shape !== shape || p.fill !== fill || a !== at.a || b !== at.b || c !== at.c || d !== at.d) return null;
      gone ??= { dx: e - at.e, dy: f - at.f };
      if (Math.abs(e - at.e - gone.dx) > STILL || Math.abs(f - at.f - gone.dy) > STILL) return null;
    }
  }
  return gone;
}
/** Steps that differ by less are one, mm: nobody sees a millionth of a pixel. */
const STILL = 1e-6;

/** A picture of artwork that is moved about as a whole: it goes along at once, and is made anew where it comes to rest. */
export class MovedPicture {
  private readonly picture = artworkPicture();
  private of: readonly Batch[] = [];

  draw(
    ctx: CanvasRenderingContext2D,
    width: number,
    height: number,
    dpr: number,
    v: Viewport,
    batches: readonly Batch[],
    again: () => void,
  ): void {
    const since = goneSince(this.of, batches);
    // Another thing, or drawn anew: what is there is no picture of it.
    if (!since) this.picture.drop();
    const gone = since ?? { dx: 0, dy: 0 };
    if (!gone.dx && !gone.dy) this.of = batches;
    const from = { ...v, ox: v.ox + gone.dx * v.k, oy: v.oy - gone.dy * v.k };
    ctx.setTransform(dpr * from.k, 0, 0, -dpr * from.k, dpr * from.ox, dpr * from.oy);
    this.picture.draw(ctx, width, height, dpr, from, this.of, again);
    // Until its first picture is there it is drawn as it is: nothing goes out of sight when it is picked.
    if (!this.picture.isThere) for (const _ of steps(ctx, width, height, from, this.of)) void _;
    ctx.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
  }

  drop(): void {
    this.picture.drop();
  }
}

/** Whether so much is to be drawn that a picture of it is kept. */
export const isLarge = (items: readonly PlacedItem[]): boolean =>
  items.reduce((n, p) => n + factsOf(p).segments, 0) >= SMALL;

/** A picture of artwork. */
export const artworkPicture = (): SlicedPicture<readonly Batch[]> =>
  new SlicedPicture({ small: (b) => segmentsOf(b) < SMALL, same: sameBatches, steps });
