import { itemsById, itemSchema, linesOf, regionOf } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { contentKey, derived, hashText, sizedMemo } from '../geometry/hash';
import type { Region } from '../geometry/region';
import type { OneSetup } from '../job/job';
import { beyondBlank, extentOf } from '../relief/beyond';
import { distances } from '../relief/distance';
import { heightFacts, type HeightFacts } from '../relief/facts';
import { gridOf, type Grid, type HeightField } from '../relief/field';
import type { FormContext, FormHeights, FormKind, Prepared } from '../relief/form';
import type { Mesh } from '../relief/mesh';
import type { GreyPicture } from '../relief/picture';
import { arranged, counting, membersOf, standing } from '../relief/groups';
import { formKindOf } from '../relief/registry';
import { smallPicture, type SmallPicture } from '../relief/small';
import { layAll, type Layer } from '../relief/laying';
import { adjust, maskWeights, type Form, enlarged } from '../relief/stack';

/** What shaping a relief needs beyond the job. */
export interface ShapeContext {
  readonly art: ArtworkContext;
  /** A mesh or a picture of the job; null when its file is not here. */
  mesh(id: string): Mesh | null;
  picture(id: string): GreyPicture | null;
  /** Makes rows of forms with others; alone where there are none. */
  readonly hands?: FormHands;
  /** Called now and then with 0..1; throws when the result is no longer wanted. */
  progress(done: number): void;
}

/** Those who make rows of forms together. */
export interface FormHands {
  /** Fewer nodes are shaped by one. */
  readonly worth: number;
  /** Room for heights that all of them see. */
  memory(nodes: number): Float32Array;
  /** Heights of a form, as `rows` of its kind gives them for the whole grid; `under` lies in that memory. */
  rows(kind: FormKind, form: Prepared, grid: Grid, under: Float32Array): Float32Array;
}

export interface ShapedRelief {
  /** Heights from the top face, mm; NaN where the relief is empty. */
  readonly field: HeightField;
  readonly facts: HeightFacts;
  /** What is to be known of each form, by id; those of which nothing is to be said are left out. */
  readonly remarks: Readonly<Record<string, string>>;
  /** What is good to know of them, and no fault. */
  readonly notes: Readonly<Record<string, string>>;
  /** How wide the pixels are of which a form is made, mm, by id: finer detail it does not have. */
  readonly pixels: Readonly<Record<string, number>>;
  /** How each visible form looks by itself, by id. */
  readonly looks: Readonly<Record<string, SmallPicture>>;
}

/** Nodes of a relief, where the job does not say how far apart they lie. */
const PROPOSED = 2e6;
/** Nodes nearer than so are not proposed, mm. */
export const FINEST_CELL = 0.02;
/** More nodes than so many are not asked of a browser. */
export const MOST_NODES = 25e6;

/** How far apart the nodes of a set-up's relief lie, mm: as the job says, or as is proposed; never more than fit. */
export function reliefCell(job: Pick<OneSetup, 'blank' | 'relief'>): number {
  const area = job.blank.width * job.blank.height;
  const asked = job.relief.cell ?? Math.max(FINEST_CELL, Math.sqrt(area / PROPOSED));
  return Math.max(asked, Math.sqrt(area / MOST_NODES));
}

/** A form's heights: its rows made by several, where that can be. */
export function shapedBy(hands: FormHands | undefined, kind: FormKind, v: unknown, c: FormContext): FormHeights {
  const form = hands && kind.prepare?.(v, c);
  if (!form || form.data === null || form.whole) return kind.evaluate(v, c);
  const { remark, note, pixel } = form;
  return { z: hands.rows(kind, form, c.grid, c.under), remark, note, pixel };
}

/** Outlines are flattened to this for a relief, mm: a share of the 0.005 mm that are promised. */
const FLATTEN = 0.001;

type Outlined = Pick<OneSetup, 'items' | 'blank' | 'relief'>;
const drawnOf = (job: Outlined, ids: readonly string[]) => {
  const all = itemsById(job.items);
  return ids
    .map((id) => all.get(id))
    .map((i) => i && { kind: i.kind, x: i.x, y: i.y, angle: i.angle, mirror: i.mirror, values: i.values });
};
const shapeInputs = (job: Outlined, f: Form) => [
  f.kind,
  f.values,
  drawnOf(job, f.items),
  drawnOf(job, f.profile.items),
];
/** What a form makes of what lies under it depends on this. */
const formInputs = (job: Outlined, f: Form) => [
  shapeInputs(job, f),
  f.meets,
  f.strength,
  f.base,
  f.mask && [f.mask.side, f.mask.edge, drawnOf(job, f.mask.items)],
];

/** Which of the files that forms name are here. */
const filesHere = (forms: readonly Form[], c: ShapeContext): boolean[] =>
  forms
    .flatMap((f) => formKindOf(f.kind).assets?.(f.values) ?? [])
    .map((id) => c.mesh(id) !== null || c.picture(id) !== null);

/** Gives the relief of a set-up as it is cut; null where there is none. */
export type GiveRelief = () => HeightField | null;
export const noRelief: GiveRelief = () => null;

/** The relief of a set-up, shaped when it is asked for first. */
export function shapedWhenAsked(job: Outlined, c: ShapeContext): GiveRelief {
  let made: HeightField | null | undefined;
  return () => (made ??= counting(job.relief.forms).length ? shapeRelief(job, reliefCell(job), c).field : null);
}

/** Content key of a set-up's relief: equal keys mean equal heights. */
export const reliefKey = (job: Outlined): string =>
  hashText(
    contentKey([
      job.blank.width,
      job.blank.height,
      reliefCell(job),
      job.relief.baseDepth,
      job.relief.shrinks ?? 0,
      arranged(counting(job.relief.forms)).map((f) => [f.id, f.group, formInputs(job, f)]),
    ]),
  );

/** Heights of forms and weights of masks are kept by what they are made of, up to so many bytes. */
const MOST_BYTES = 400e6;
export interface ShapeMemory {
  form(key: string, make: () => FormHeights): FormHeights;
  weights(key: string, make: () => Float32Array): Float32Array;
}
export const shapeMemory = (): ShapeMemory => ({
  form: sizedMemo<FormHeights>(MOST_BYTES, (h) => h.z.byteLength),
  weights: sizedMemo<Float32Array>(MOST_BYTES / 4, (w) => w.byteLength),
});

/** The heights that a form keeps look as they did, and are cut off where they were. */
const pictureOf = derived<FormHeights, SmallPicture>();
const cutOff = derived<FormHeights, string | null>();

/**
 * Shapes the relief of a set-up at a resolution, mm: each form by itself, laid on each other from below. Pure; `memory` gives
 * back what has not changed since. Throws what `progress` throws.
 */
export function shapeRelief(
  job: Outlined,
  cell: number,
  c: ShapeContext,
  memory: ShapeMemory = shapeMemory(),
): ShapedRelief {
  const given = gridOf(job.blank.width, job.blank.height, cell);
  const times = enlarged(job.relief);
  /** Where of the relief as it is drawn the nodes lie that are made so many times as large. */
  const drawnAt = (middle: number) => middle - middle / times;
  const grid: Grid =
    times === 1
      ? given
      : { ...given, cell: cell / times, x0: drawnAt(job.blank.width / 2), y0: drawnAt(job.blank.height / 2) };
  const all = itemsById(job.items);
  const itemsOf = (ids: readonly string[]) => ids.flatMap((id) => all.get(id) ?? []).map((i) => itemSchema.parse(i));
  const region = (ids: readonly string[]): Region => regionOf(itemsOf(ids), c.art, FLATTEN);
  const lines = (ids: readonly string[]) => linesOf(itemsOf(ids), c.art, FLATTEN);
  const remarks: Record<string, string> = {};
  const notes: Record<string, string> = {};
  const pixels: Record<string, number> = {};
  const looks: Record<string, SmallPicture> = {};
  const forms = counting(job.relief.forms);
  const at = [grid.cols, grid.rows, grid.cell, grid.x0, grid.y0];
  const hands = c.hands && grid.cols * grid.rows >= c.hands.worth ? c.hands : undefined;
  const emptyField = () => (hands?.memory(grid.cols * grid.rows) ?? new Float32Array(grid.cols * grid.rows)).fill(NaN);
  let done = 0;

  /** Lays forms on each other, which count everywhere or only `within` outlines; `pixel` is that of the coarsest picture among them. */
  function laid(stack: readonly Form[], within = false): { readonly z: Float32Array; readonly pixel: number } {
    const z = emptyField();
    /** All that lies under a form, by what it is made of. */
    let below = '';
    let pixel = 0;
    /** What is to be laid on `z`: all at once, as late as can be. */
    let waiting: Layer[] = [];
    const settle = () => {
      layAll(z, waiting);
      waiting = [];
    };
    for (const f of stack) {
      c.progress(done++ / forms.length);
      const kind = formKindOf(f.kind);
      const own = kind.holds ? membersOf(forms, f.id) : [];
      const held = own.length ? laid(own, within || f.mask?.side === 'inside') : null;
      // A file that comes later makes another form of the same values.
      const files = filesHere([f, ...own], c);
      const make = () => {
        settle();
        return shapedBy(hands, kind, f.values, {
          ...c,
          grid,
          region: region(f.items),
          lines: lines(f.items),
          profile: lines(f.profile.items),
          under: z,
          members: held?.z ?? null,
          pixel,
        });
      };
      // What a group holds is kept form by form.
      const made = kind.holds
        ? make()
        : memory.form(hashText(contentKey([at, shapeInputs(job, f), files, kind.adjusts && below])), make);
      below = hashText(contentKey([below, files, formInputs(job, f), own.map((m) => formInputs(job, m))]));
      if (made.pixel) pixels[f.id] = made.pixel;
      pixel = Math.max(pixel, made.pixel ?? 0, held?.pixel ?? 0);
      looks[f.id] = pictureOf(made, '', () => smallPicture(made.z, grid));
      const bounded = within || f.mask?.side === 'inside';
      const drawn = () => (kind.alongLines ? lines(f.items).map((l) => l.points) : region(f.items));
      const remark =
        made.remark ||
        cutOff(made, String(bounded), () => beyondBlank(extentOf(kind, f.values, drawn), made.z, grid, bounded));
      if (remark) remarks[f.id] = remark;
      if (made.note) notes[f.id] = made.note;
      const { mask } = f;
      const weights =
        mask &&
        memory.weights(hashText(contentKey([at, mask.side, mask.edge, drawnOf(job, mask.items)])), () => {
          const within = region(mask.items);
          return within.length
            ? maskWeights(distances(within, grid, mask.edge), mask.side, mask.edge)
            : new Float32Array();
        });
      if (weights && !weights.length) {
        remarks[f.id] =
          'Where it counts has no closed outline, so it is left out. Pick outlines for it, or let it count everywhere.';
        continue;
      }
      if (kind.adjusts) {
        settle();
        adjust(z, made.z, f.strength, weights);
      } else waiting.push({ z: made.z, weights, meets: f.meets, strength: f.strength, base: f.base });
    }
    settle();
    return { z, pixel };
  }
  const { z } = laid(standing(forms));
  for (let i = 0; i < z.length; i++) z[i] = times * (z[i] - job.relief.baseDepth);
  c.progress(1);
  return { field: { ...given, z }, facts: heightFacts(z), remarks, notes, pixels, looks };
}
