import type { CutPlan } from '@/core/cuts/kind';
import { placementOf, type PlacedItem } from '@/core/artwork/item';
import type { HeightField } from '@/core/relief/field';
import { reliefPicture, type Seen } from './shaded';
import { materials } from '@/core/cutters/materials';
import type { OneSetup } from '@/core/job/job';
import { formatLength } from '@/core/units/length';
import { factsOf, isLarge, type Batch, type MovedPicture } from './artworkCache';
import type { PathLook } from './pathPicture';
import type { SlicedPicture } from './slicedPicture';
import { pathOf } from './outlinePath';
import { bitmapOf } from './pictures';
import { niceStep, type Viewport } from './viewport';

export const RULER = 22;

export interface PlanColours {
  ground: string;
  grid: string;
  ink: string;
  quiet: string;
  paper: string;
  accent: string;
  danger: string;
  dark: boolean;
}

/** Pictures of artwork (what is picked, and the rest) and of tool paths. */
export interface Caches {
  readonly rest: SlicedPicture<readonly Batch[]>;
  readonly top: MovedPicture;
  readonly paths: SlicedPicture<readonly PathLook[]>;
}

/** Up to so many picked things have frames. */
const MOST_FRAMES = 300;
/** Lines of what is picked are so wide, in pixels, and it is filled so strongly. */
const PICKED = 1.8;
const PICKED_FILL = 0.08;
/** Up to so many picked things are drawn each by itself. */
const FEW = 30;

/** How strongly the part of the k-th cutter of a list is tinted. */
export const reachTint = (k: number): number => Math.min(0.75, 0.16 + 0.2 * k);

/** What of a set-up is drawn in its plan, beside its paths and its relief. */
export type DrawnJob = Pick<OneSetup, 'blank' | 'unit' | 'clamps' | 'items' | 'layers' | 'assets'>;

export interface PlanScene {
  job: DrawnJob;
  placed: ReadonlyMap<string, PlacedItem>;
  /** The plans whose paths are shown. */
  plans: readonly { plan: CutPlan; colour: string; selected: boolean }[];
  picked: readonly string[];
  /** Whether each of several picked things has its frame. */
  framed: boolean;
  gauged: readonly { x: number; y: number; width: number }[];
  /** How far what is picked is drawn aside, while many things are dragged. */
  shift: { dx: number; dy: number } | null;
  tool: { x: number; y: number; r: number } | null;
  /** The relief that is shown under the artwork. */
  relief: HeightField | null;
  seen: Seen;
  /** From where the rulers count. */
  origin: { readonly x: number; readonly y: number };
}

/** Draws the plan: grid, blank, clamps, artwork, paths, what is out of reach, rulers. */
export function drawPlan(
  ctx: CanvasRenderingContext2D,
  width: number,
  height: number,
  dpr: number,
  v: Viewport,
  scene: PlanScene,
  c: PlanColours,
  cache: Caches,
  again: () => void,
): void {
  const { job } = scene;
  const screen = () => ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  const world = () => ctx.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
  const px = 1 / v.k;
  screen();
  ctx.fillStyle = c.ground;
  ctx.fillRect(0, 0, width, height);
  const unit = job.unit === 'mm' ? 1 : 25.4;
  const step = niceStep(v.k, 18, unit);
  const grid = (s: number, alpha: number) => {
    ctx.globalAlpha = alpha;
    ctx.strokeStyle = c.grid;
    ctx.lineWidth = 1;
    ctx.beginPath();
    for (let x = Math.floor(-v.ox / v.k / s) * s; x * v.k + v.ox < width; x += s) {
      const q = Math.round(v.ox + x * v.k) + 0.5;
      ctx.moveTo(q, 0);
      ctx.lineTo(q, height);
    }
    for (let y = Math.floor((v.oy - height) / v.k / s) * s; v.oy - y * v.k > 0; y += s) {
      const q = Math.round(v.oy - y * v.k) + 0.5;
      ctx.moveTo(0, q);
      ctx.lineTo(width, q);
    }
    ctx.stroke();
    ctx.globalAlpha = 1;
  };
  grid(step, 0.35);
  grid(step * 5, 0.8);

  world();
  const { blank } = job;
  if (scene.relief) drawRelief(ctx, scene.relief, blank, scene.seen);
  ctx.fillStyle = materials[blank.material].face;
  ctx.globalAlpha = scene.relief ? 0 : c.dark ? 0.42 : 0.3;
  ctx.fillRect(0, 0, blank.width, blank.height);
  ctx.globalAlpha = 1;
  ctx.lineWidth = 1.4 * px;
  ctx.strokeStyle = c.quiet;
  ctx.strokeRect(0, 0, blank.width, blank.height);
  for (const k of job.clamps) {
    ctx.fillStyle = c.quiet;
    ctx.globalAlpha = 0.4;
    ctx.fillRect(k.x0, k.y0, k.x1 - k.x0, k.y1 - k.y0);
    ctx.globalAlpha = 1;
  }
  drawPictures(ctx, scene, c, px, again);
  drawItems(ctx, width, height, dpr, v, scene, c, cache, again);
  if (scene.plans.length) {
    const looks = scene.plans.map(({ plan, colour, selected }): PathLook => ({
      motions: plan.toolpaths.map((t) => t.motion),
      colour,
      selected,
    }));
    for (const { plan, colour, selected } of scene.plans) {
      // What each cutter of a list reaches, darker the finer it is.
      if (selected && plan.reach && plan.reach.length > 1)
        plan.reach.forEach((r, i) => {
          ctx.globalAlpha = reachTint(i);
          ctx.fillStyle = colour;
          ctx.beginPath();
          for (const loop of r.region) {
            for (let k = 0; k < loop.length; k += 2)
              if (k) ctx.lineTo(loop[k], loop[k + 1]);
              else ctx.moveTo(loop[k], loop[k + 1]);
            ctx.closePath();
          }
          ctx.fill('nonzero');
        });
    }
    ctx.globalAlpha = 1;
    cache.paths.draw(ctx, width, height, dpr, v, looks, again);
    for (const { plan } of scene.plans) {
      ctx.globalAlpha = 0.85;
      ctx.fillStyle = c.danger;
      for (const loop of plan.unreached.region) {
        ctx.beginPath();
        for (let i = 0; i < loop.length; i += 2) ctx.lineTo(loop[i], loop[i + 1]);
        ctx.fill();
      }
    }
    ctx.globalAlpha = 1;
  }
  if (scene.tool) {
    ctx.beginPath();
    ctx.arc(scene.tool.x, scene.tool.y, Math.max(scene.tool.r, 3 * px), 0, 2 * Math.PI);
    ctx.globalAlpha = 0.35;
    ctx.fillStyle = c.accent;
    ctx.fill();
    ctx.globalAlpha = 1;
    ctx.lineWidth = 1.5 * px;
    ctx.strokeStyle = c.accent;
    ctx.stroke();
  }
  rulers(ctx, width, height, dpr, v, job, c, unit, scene.origin);
}

function drawRelief(ctx: CanvasRenderingContext2D, field: HeightField, blank: OneSetup['blank'], seen: Seen): void {
  const [w, h] = [(field.cols - 1) * field.cell, (field.rows - 1) * field.cell];
  ctx.save();
  // Pictures have their first row at the top.
  ctx.scale(1, -1);
  ctx.drawImage(reliefPicture(field, blank.thickness, blank.material, seen), field.x0, -field.y0 - h, w, h);
  ctx.restore();
}

/** Pictures lie under all artwork, each as strongly as it says; one whose file is not here shows as a crossed frame. */
function drawPictures(
  ctx: CanvasRenderingContext2D,
  { job, picked }: PlanScene,
  c: PlanColours,
  px: number,
  again: () => void,
): void {
  for (const i of job.items) {
    if (i.kind !== 'picture' || !i.visible || !job.layers.find((l) => l.id === i.layer)?.visible) continue;
    const { width: w, height: h, shade } = i.values as { width: number; height: number; shade: number };
    const bitmap = bitmapOf(i, job.assets, again);
    const m = placementOf(i);
    ctx.save();
    ctx.transform(m.a, m.b, m.c, m.d, m.e, m.f);
    if (bitmap instanceof ImageBitmap) {
      ctx.scale(1, -1);
      ctx.globalAlpha = shade / 100;
      ctx.drawImage(bitmap, -w / 2, -h / 2, w, h);
      ctx.globalAlpha = 1;
    }
    if (bitmap === 'missing' || picked.includes(i.id)) {
      ctx.strokeStyle = bitmap === 'missing' ? c.danger : c.accent;
      ctx.lineWidth = 1.4 * px;
      ctx.strokeRect(-w / 2, -h / 2, w, h);
      if (bitmap === 'missing') {
        ctx.beginPath();
        ctx.moveTo(-w / 2, -h / 2);
        ctx.lineTo(w / 2, h / 2);
        ctx.moveTo(-w / 2, h / 2);
        ctx.lineTo(w / 2, -h / 2);
        ctx.stroke();
      }
    }
    ctx.restore();
  }
}

interface Sorted {
  readonly of: readonly unknown[];
  readonly looks: readonly Batch[];
  readonly top: readonly PlacedItem[];
  /** What is picked by looks, where it is much. */
  readonly looksOfTop: readonly Batch[] | null;
}
let sorted: Sorted | null = null;

/** Visible artwork by looks, and what is picked of it. Kept while nothing of it changes: a view that moves asks for it every frame. */
function sortItems(scene: PlanScene, c: PlanColours): Sorted {
  const { job, placed, picked } = scene;
  const of = [job.items, job.layers, placed, picked, c];
  if (sorted?.of.every((v, i) => v === of[i])) return sorted;
  const layers = new Map(job.layers.map((l) => [l.id, l]));
  const chosen = new Set(picked);
  const batches = new Map<string, PlacedItem[]>();
  const top: PlacedItem[] = [];
  for (const item of job.items) {
    const p = placed.get(item.id);
    const layer = layers.get(item.layer);
    if (!p || !item.visible || !layer?.visible) continue;
    if (chosen.has(item.id)) {
      top.push(p);
      continue;
    }
    const filled = FILLED.has(item.kind) && factsOf(p).closed;
    const key = `${layer.colour} ${filled ? p.fill : ''}`;
    const list = batches.get(key);
    if (list) list.push(p);
    else batches.set(key, [p]);
  }
  const looks = [...batches].map(([key, items]): Batch => {
    const [colour, fill] = key.split(' ');
    // The first layer's ink is the theme's own; other colours are lifted in the dark, so that they are seen.
    return {
      ink: colour === '#1e2a2f' ? c.ink : c.dark ? `color-mix(in srgb, ${colour} 50%, white)` : colour,
      wide: 1,
      fill: fill ? { rule: fill as CanvasFillRule, alpha: 0.1 } : null,
      items,
    };
  });
  const looksOfTop = top.length > FEW || isLarge(top) ? pickedLooks(top, c) : null;
  return (sorted = { of, looks, top, looksOfTop });
}

/** What is picked, in the order in which it lies, by how it is filled; hundreds of things are stroked finely. */
function pickedLooks(top: readonly PlacedItem[], c: PlanColours): Batch[] {
  const looks: { rule: CanvasFillRule | null; items: PlacedItem[] }[] = [];
  for (const p of top) {
    const rule = factsOf(p).closed ? p.fill : null;
    const last = looks.at(-1);
    if (last?.rule === rule) last.items.push(p);
    else looks.push({ rule, items: [p] });
  }
  return looks.map(({ rule, items }) => ({
    ink: c.accent,
    wide: top.length > FEW ? 1 : PICKED,
    fill: rule && { rule, alpha: PICKED_FILL },
    items,
  }));
}

/** Kinds whose closed outlines are shown filled. */
const FILLED = new Set(['lettering', 'drawing', 'motif', 'border']);

/** Artwork: what is not picked by layer, by way of the cache; what is picked on top. */
function drawItems(
  ctx: CanvasRenderingContext2D,
  width: number,
  height: number,
  dpr: number,
  v: Viewport,
  scene: PlanScene,
  c: PlanColours,
  cache: Caches,
  again: () => void,
): void {
  const px = 1 / v.k;
  const { looks, top, looksOfTop } = sortItems(scene, c);
  cache.rest.draw(ctx, width, height, dpr, v, looks, again);
  ctx.lineWidth = PICKED * px;
  ctx.strokeStyle = c.accent;
  ctx.fillStyle = c.accent;
  const { shift } = scene;
  if (looksOfTop) {
    // Much that is picked is drawn by a cache of its own; a drag only moves where it is looked at from.
    const from = shift ? { ...v, ox: v.ox + shift.dx * v.k, oy: v.oy - shift.dy * v.k } : v;
    cache.top.draw(ctx, width, height, dpr, from, looksOfTop, again);
    ctx.setTransform(dpr * v.k, 0, 0, -dpr * v.k, dpr * v.ox, dpr * v.oy);
  } else {
    ctx.save();
    if (shift) ctx.translate(shift.dx, shift.dy);
    for (const p of top) {
      if (factsOf(p).closed) {
        ctx.globalAlpha = PICKED_FILL;
        ctx.fill(pathOf(p), p.fill);
        ctx.globalAlpha = 1;
      }
      ctx.stroke(pathOf(p));
    }
    ctx.restore();
  }
  // The boxes of hundreds of things would be a carpet, not frames. Here, because dashes in an overlay are costly to drag.
  if (scene.framed && top.length > 1 && top.length <= MOST_FRAMES) {
    ctx.save();
    if (shift) ctx.translate(shift.dx, shift.dy);
    ctx.lineWidth = px;
    ctx.setLineDash([3 * px, 3 * px]);
    ctx.beginPath();
    for (const { corners } of top) {
      corners.forEach((c, i) => (i ? ctx.lineTo(c.x, c.y) : ctx.moveTo(c.x, c.y)));
      ctx.closePath();
    }
    ctx.stroke();
    ctx.restore();
  }
  if (scene.gauged.length) {
    ctx.fillStyle = c.danger;
    ctx.globalAlpha = 0.5;
    for (const g of scene.gauged) {
      ctx.beginPath();
      ctx.arc(g.x, g.y, Math.max(g.width / 2, 2 * px), 0, 2 * Math.PI);
      ctx.fill();
    }
    ctx.globalAlpha = 1;
  }
}

function rulers(
  ctx: CanvasRenderingContext2D,
  width: number,
  height: number,
  dpr: number,
  v: Viewport,
  job: DrawnJob,
  c: PlanColours,
  unit: number,
  origin: { readonly x: number; readonly y: number },
): void {
  ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
  ctx.fillStyle = c.paper;
  ctx.fillRect(0, 0, width, RULER);
  ctx.fillRect(0, 0, RULER, height);
  ctx.strokeStyle = c.grid;
  ctx.fillStyle = c.quiet;
  ctx.lineWidth = 1;
  ctx.font = '10px "IBM Plex Sans", sans-serif';
  ctx.beginPath();
  ctx.moveTo(0, RULER + 0.5);
  ctx.lineTo(width, RULER + 0.5);
  ctx.moveTo(RULER + 0.5, 0);
  ctx.lineTo(RULER + 0.5, height);
  const big = niceStep(v.k, 60, unit);
  const text = (mm: number) => formatLength(mm, job.unit, 3);
  // Ticks are round as they are counted: from the datum, or from the blank's corner.
  for (let x = Math.ceil(((RULER - v.ox) / v.k - origin.x) / big) * big + origin.x; x * v.k + v.ox < width; x += big) {
    const q = Math.round(v.ox + x * v.k) + 0.5;
    ctx.moveTo(q, RULER - 6);
    ctx.lineTo(q, RULER);
    ctx.fillText(text(x - origin.x), q + 3, 12);
  }
  for (let y = Math.ceil(((v.oy - height) / v.k - origin.y) / big) * big + origin.y; v.oy - y * v.k > RULER; y += big) {
    const q = Math.round(v.oy - y * v.k) + 0.5;
    ctx.moveTo(RULER - 6, q);
    ctx.lineTo(RULER, q);
    ctx.save();
    ctx.translate(12, q - 3);
    ctx.rotate(-Math.PI / 2);
    ctx.fillText(text(y - origin.y), 0, 0);
    ctx.restore();
  }
  ctx.stroke();
  ctx.fillStyle = c.paper;
  ctx.fillRect(0, 0, RULER, RULER);
}
