import { newItem } from '../artwork/item';
import { radiusOf, type Cutter } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import { lengthText, type Unit } from '../units/length';
import { freeName } from './allSetups';
import type { Cut, Setup, Job } from './job';
import { withLinks } from './linked';

/** Dowels stand so deep in the spoilboard, mm. */
const DEEP = 8;

/**
 * Holes for two dowels that hold a blank where it is while it is turned over: they are drilled in the set-up before, through the
 * blank and into the spoilboard, on the line about which it turns, so that each comes back to where it was. They lie unevenly: a
 * blank that is put down the wrong way round goes on one of them only.
 *
 *        _____________
 *       |      o      |        turned over about Y
 *       |      :      |
 *       |      :      |
 *       |      o      |
 *       |______:______|
 *
 * Why they cannot be drilled, and what to do; null where they can.
 */
export function whyNoDowels(job: Job, second: string): string | null {
  const setup = job.setups.find((s) => s.id === second);
  if (!setup?.after || setup.after.turned === 'none')
    return 'Dowels are for a set-up that starts from another one, turned over.';
  const first = job.setups.find((s) => s.id === setup.after!.setup)!;
  const drilled = drillsDeep(first)[0];
  return drilled
    ? `"${first.name}" drills into the spoilboard already: "${drilled.name}". Take that out first for other holes.`
    : null;
}

/** Cuts of a set-up that drill deep enough into the spoilboard for dowels. */
const drillsDeep = (setup: Setup): Cut[] =>
  setup.cuts.filter(
    (c) => c.enabled && c.kind === 'drilling' && c.values.through === true && Number(c.values.beyond) >= DEEP,
  );

/** Holes that are so near to where they have to be take their dowels, mm. */
const PLAY = 0.05;

/**
 * Why a blank that is turned over does not go back on its dowels: a hole comes to lie where there is none. Holes on the line about
 * which it turns come back to where they were, pairs that face each other across it change places; null where all do, and where
 * nothing is drilled for dowels.
 */
export function dowelsAmiss(job: Job, second: string, unit: Unit): string | null {
  const after = job.setups.find((s) => s.id === second)?.after;
  if (!after || after.turned === 'none') return null;
  const first = job.setups.find((s) => s.id === after.setup)!;
  const { width, height } = job.blanks.find((b) => b.id === first.blank)!;
  const used = new Set(drillsDeep(first).flatMap((c) => c.items));
  const holes = first.items.filter((i) => used.has(i.id));
  for (const h of holes) {
    const [x, y] = after.turned === 'y' ? [width - h.x, h.y] : [h.x, height - h.y];
    if (holes.some((q) => Math.hypot(q.x - x, q.y - y) <= PLAY)) continue;
    const off = Math.hypot(h.x - x, h.y - y) / 2;
    return `"${h.name}" lies ${lengthText(off, unit)} off the line about which the blank is turned over: it does not go back on its dowels. Move the hole onto that line, or drill holes anew.`;
  }
  return null;
}

/** Where the middles of dowels lie, mm, for a blank of a size. */
export function dowelPlaces(
  { width, height }: { readonly width: number; readonly height: number },
  turned: 'x' | 'y',
  diameter: number,
): readonly { readonly x: number; readonly y: number }[] {
  const near = Math.max(1.25 * diameter, diameter / 2 + 2);
  const far = near + 1.5 * diameter;
  return turned === 'y'
    ? [
        { x: width / 2, y: far },
        { x: width / 2, y: height - near },
      ]
    : [
        { x: far, y: height / 2 },
        { x: width - near, y: height / 2 },
      ];
}

/** Adds them: circles and a cut, run first, in the set-up before, and the circles, linked, in the one that is turned over. */
export function withDowels(job: Job, second: string, drill: Cutter, freshId: () => string): { job: Job; cut: string } {
  const setup = job.setups.find((s) => s.id === second)!;
  const { turned } = setup.after!;
  const first = job.setups.find((s) => s.id === setup.after!.setup)!;
  const piece = job.blanks.find((b) => b.id === first.blank)!;
  const diameter = 2 * radiusOf(drill);
  const group = { id: freshId(), name: freeName('Dowels', first.groups), parent: null };
  const layer = (first.layers.find((l) => l.visible && !l.locked) ?? first.layers[0]).id;
  const circles = dowelPlaces(piece, turned as 'x' | 'y', diameter).map((at, k) =>
    newItem({
      ...{ id: freshId(), name: freeName(`Dowel ${k + 1}`, first.items), kind: 'ellipse', layer, group: group.id },
      ...{ ...at, values: { width: diameter, height: diameter } },
    }),
  );
  const cut: Cut = {
    ...{ id: freshId(), name: freeName('Dowel holes', first.cuts), kind: 'drilling', enabled: true },
    ...{ items: circles.map((i) => i.id), overrides: {} },
    values: {
      ...(kindOf('drilling').defaults({ ...first, ...piece }, [drill]) as object),
      ...{ cutter: drill.id, places: 'circles', through: true, beyond: DEEP, peck: 2 * diameter },
    },
  };
  const drilled: Setup = {
    ...first,
    intoBed: Math.max(first.intoBed, DEEP),
    groups: [...first.groups, group],
    items: [...first.items, ...circles],
    cuts: [cut, ...first.cuts],
  };
  const cutters = job.cutters.some((c) => c.id === drill.id) ? job.cutters : [...job.cutters, drill];
  const made = { ...job, cutters, setups: job.setups.map((s) => (s === first ? drilled : s)) };
  return { job: withLinks(made, second, circles, freshId).job, cut: cut.id };
}
