import { isArc, RAPID, type Motion } from '@/core/motion/motion';
import { BOX, findSheaves, SHEAF, type Sheaves } from '@/core/motion/sheaves';
import { SlicedPicture, type Ctx } from './slicedPicture';
import type { Viewport } from './viewport';

/** Paths of one cut, in one look. */
export interface PathLook {
  readonly motions: readonly Motion[];
  readonly colour: string;
  readonly selected: boolean;
}

/** Up to so many moves are simply drawn; of more a picture is kept. */
const SMALL = 12000;
/** Points nearer to each other than this on the screen are drawn as one, in pixels. */
const NEAR = 0.5;

/** Adds an arc move to a path. */
function arcTo(path: CanvasPath, m: Motion, i: number): void {
  const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const a1 = Math.atan2(m.y[i] - m.cy[i], m.x[i] - m.cx[i]);
  path.arc(
    m.cx[i],
    m.cy[i],
    Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]),
    a0,
    Math.abs(a1 - a0) < 1e-9 ? a0 + (m.kind[i] === 4 ? 2 : -2) * Math.PI : a1,
    m.kind[i] !== 4,
  );
}

/**
 * Adds the moves from .. to - 1 that are cut, or those by rapid, to a path; points that lie within `near` mm of the one
 * before are left out.
 */
function trace(path: CanvasPath, m: Motion, from: number, to: number, rapid: boolean, near: number): void {
  let drawing = false;
  let [x, y] = [0, 0];
  for (let i = Math.max(1, from); i < to; i++) {
    if ((m.kind[i] === RAPID) !== rapid) {
      drawing = false;
      continue;
    }
    if (!drawing) path.moveTo((x = m.x[i - 1]), (y = m.y[i - 1]));
    drawing = true;
    const last = i + 1 === to || (m.kind[i + 1] === RAPID) !== rapid;
    if (isArc(m.kind[i])) arcTo(path, m, i);
    else if (!last && Math.abs(m.x[i] - x) < near && Math.abs(m.y[i] - y) < near && !isArc(m.kind[i + 1])) continue;
    else path.lineTo(m.x[i], m.y[i]);
    [x, y] = [m.x[i], m.y[i]];
  }
}

/**
 * How strongly each of `k` strokes that lie over each other is drawn, so that together they look as strong as one is to:
 * what shines through them all is (1 - a)^k.
 */
const shareOf = (alpha: number, k: number): number => 1 - (1 - alpha) ** (1 / Math.max(1, k));

/** How long the way is for the area it lies in: the inverse of how far passes lie from each other, 1/mm. */
function densityOf({ boxes, count, length }: Sheaves): number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let b = 0; b < BOX * count; b += BOX)
    [x0, y0, x1, y1] = [
      Math.min(x0, boxes[b]),
      Math.min(y0, boxes[b + 1]),
      Math.max(x1, boxes[b + 2]),
      Math.max(y1, boxes[b + 3]),
    ];
  return length / Math.max(1, (x1 - x0) * (y1 - y0));
}

function* steps(ctx: Ctx, width: number, height: number, v: Viewport, looks: readonly PathLook[]): Generator<void> {
  const px = 1 / v.k;
  const seen = [-v.ox * px, (v.oy - height) * px, (width - v.ox) * px, v.oy * px];
  for (const look of looks)
    for (const m of look.motions) {
      const sheaves = yield* findSheaves(m);
      const { boxes, count } = sheaves;
      const wide = (look.selected ? 1.3 : 1) * px;
      const over = count > 1 ? wide * densityOf(sheaves) : 1;
      for (let b = 0; b < count; b++) {
        const [x0, y0, x1, y1] = boxes.subarray(BOX * b, BOX * (b + 1));
        if (x1 < seen[0] || x0 > seen[2] || y1 < seen[1] || y0 > seen[3]) continue;
        const [from, to] = [b * SHEAF, Math.min(m.count, (b + 1) * SHEAF)];
        ctx.strokeStyle = look.colour;
        ctx.lineJoin = 'round';
        ctx.lineWidth = wide;
        ctx.globalAlpha = shareOf(look.selected ? 0.95 : 0.55, over);
        ctx.beginPath();
        trace(ctx, m, from, to, false, NEAR * px);
        ctx.stroke();
        if (look.selected) {
          ctx.globalAlpha = 0.35;
          ctx.lineWidth = 0.7 * px;
          ctx.setLineDash([3 * px, 4 * px]);
          ctx.beginPath();
          trace(ctx, m, from, to, true, NEAR * px);
          ctx.stroke();
          ctx.setLineDash([]);
        }
        ctx.globalAlpha = 1;
        yield;
      }
    }
}

const movesOf = (looks: readonly PathLook[]): number =>
  looks.reduce((n, l) => n + l.motions.reduce((s, m) => s + m.count, 0), 0);
const sameLooks = (a: readonly PathLook[], b: readonly PathLook[]): boolean =>
  a.length === b.length &&
  a.every(
    (l, i) =>
      l.colour === b[i].colour &&
      l.selected === b[i].selected &&
      l.motions.length === b[i].motions.length &&
      l.motions.every((m, k) => m === b[i].motions[k]),
  );

/** A picture of tool paths. */
export const pathPicture = (): SlicedPicture<readonly PathLook[]> =>
  new SlicedPicture({ small: (l) => movesOf(l) < SMALL, same: sameLooks, steps });
