import { formOf, type Cutter, type Preset } from '../cutters/cutter';
import { widthOf } from '../cutters/form';
import { fillFrom, flatField } from '../relief/field';
import type { CheckInput } from './check';
import type { PlacedSection } from './placed';
import { createSimulation } from './simulate';

/** What a cutter goes through at once, mm. */
export interface Buried {
  readonly cutId: string;
  readonly cutter: Cutter;
  /** What it is set to take. */
  readonly preset: Preset;
  /** Over half of what it takes, it takes more than so much. */
  readonly mostly: number;
  /** Over a fiftieth of that, more than so much. */
  readonly inPlaces: number;
  /** The most, and where. */
  readonly most: number;
  readonly x: number;
  readonly y: number;
}

/** Heights are exact at each node: few of them tell how much is taken. */
const NODES = 5e4;
/** Less than this is the roundness of what was cut before, mm. */
const LEAST = 1e-3;
/** What it takes over less than this share of all is a corner or an edge. */
const PLACES = 0.02;

/**
 * How much the cutters of those sections go through that take all they find in one go: for them `atOnce` says what they are set to.
 * Programs are cut again, at few nodes: what stands before each of those, and what stands after it.
 */
export function buriedIn(
  { job, programs, tools, found }: CheckInput,
  atOnce: (s: PlacedSection, cutter: Cutter) => Preset | null,
): Buried[] {
  const { width, height } = job.blank;
  const cell = Math.sqrt((width * height) / NODES);
  const out: Buried[] = [];
  let before = flatField(width, height, cell);
  if (found?.faces.up) fillFrom(found.faces.up, before);
  let since: PlacedSection[] = [];
  const cut = () => {
    const of = [{ ...programs[0], sections: since }];
    since = [];
    return createSimulation().run(job.blank, cell, of, tools, undefined, before).field;
  };
  for (const s of programs.flatMap((p) => p.sections)) {
    const cutter = tools.get(s.tool);
    const preset = s.cutId && cutter ? atOnce(s, cutter) : null;
    if (!s.cutId || !cutter || !preset) {
      since.push(s);
      continue;
    }
    before = cut();
    since.push(s);
    const after = cut();
    const taken: number[] = [];
    let most = { z: 0, i: 0 };
    before.z.forEach((h, i) => {
      const z = h - Math.max(after.z[i], -job.blank.thickness);
      if (z > LEAST) taken.push(z);
      if (z > most.z) most = { z, i };
    });
    before = after;
    if (!taken.length) continue;
    taken.sort((a, b) => a - b);
    out.push({
      cutId: s.cutId,
      cutter,
      preset,
      mostly: taken[taken.length >> 1],
      inPlaces: taken[Math.floor((1 - PLACES) * taken.length)],
      most: most.z,
      x: after.x0 + (most.i % after.cols) * after.cell,
      y: after.y0 + Math.floor(most.i / after.cols) * after.cell,
    });
  }
  return out;
}

/**
 * How deep a cutter may go in rows so far apart that the chip has no more section than that of a slot as deep as its step-down: rows
 * take less of its width, and so may be deeper.
 */
export function deepestInRows(cutter: Cutter, stepDown: number, stepOver: number): number {
  const slot = 2 * widthOf(formOf(cutter), stepDown);
  return stepDown * Math.max(1, slot / stepOver);
}
