import { bringOwnFonts, opened } from '@/compute/fonts';
import { placementOf, shapeWith, type Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import {
  capRound,
  capWithin,
  circleOf,
  roomOutside,
  roundBaseline,
  type Oval,
  type RoundPlace,
} from '@/core/lettering/round';
import { inverse, transformPath } from '@/core/geometry/path';
import { FontError } from '@/core/lettering/font';
import { saysOf } from '@/core/units/says';
import { hashOf, putFile } from '@/store/files';
import { describeFont } from '@/store/ownFonts';
import { art, placedOf } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';
import { changeItem, edit, jobNow } from './edits';
import { askForFiles } from './files';
import { tell } from './tell';

/** Keeps a font file with the job, and sets the picked lettering in it. */
export async function addFontFile(file: File): Promise<void> {
  try {
    const bytes = await opened(file.name, new Uint8Array(await file.arrayBuffer()));
    const id = await hashOf(bytes);
    const wrong = (await bringOwnFonts({ [id]: bytes }))[id];
    if (wrong) throw new FontError(file.name, wrong);
    const own = await describeFont(file.name, bytes);
    await putFile(own, bytes);
    const { picked } = useView.getState();
    edit(`Add the font ${own.name}`, (j) => {
      if (!j.assets.some((a) => a.id === own.id)) j.assets.push(own);
      for (const i of j.items) if (picked.includes(i.id) && i.kind === 'lettering') i.values.font = own.id;
    });
    tell('success', `"${own.name}" is kept with this job and goes with its file.`);
  } catch (e) {
    tell(
      'error',
      saysOf(
        e,
        `The font "${file.name}" could not be kept: this device may have no room left. The job stays as it was.`,
      ),
    );
  }
}

export const chooseFont = (): void =>
  askForFiles('.ttf,.otf,.woff,.woff2', false, ([file]) => file && void addFontFile(file));

/** The lettering and the other thing, when just these two are picked and the other can be a baseline. */
export function letteringAndLine(items: readonly Item[]): { letters: Item; line: Item } | null {
  if (items.length !== 2) return null;
  const letters = items.find((i) => i.kind === 'lettering');
  const line = items.find((i) => i !== letters);
  return letters && line ? { letters, line } : null;
}

/** The oval that an item is, and how it lies; null for anything else. */
export function ovalOf(item: Item): (Oval & { x: number; y: number; angle: number }) | null {
  if (item.kind === 'ellipse') {
    const [rx, ry] = [Number(item.values.width) / 2, Number(item.values.height) / 2];
    return { x: item.x, y: item.y, rx, ry, angle: rx === ry ? 0 : item.angle };
  }
  if (item.kind === 'lettering') return null;
  const c = circleOf(placedOf(item).paths);
  return c && { x: c.x, y: c.y, rx: c.r, ry: c.r, angle: 0 };
}

/** The box of a lettering that is set straight, with caps of 1 mm. */
const unitBox = ({ values }: Item) =>
  shapeWith('lettering', { ...values, baseline: 'straight', capHeight: 1, fit: 'none', warp: 'none' }, art).box;

/** The lettering set round an oval: outside, at the top, in a size that fits between it and what is drawn around it, or the blank's edges. */
export function letteredRound(
  letters: Item,
  oval: NonNullable<ReturnType<typeof ovalOf>>,
  blank: { width: number; height: number },
  others: readonly Item[],
): Item {
  const straight = unitBox(letters);
  const home = inverse(placementOf({ ...oval, mirror: false }));
  const around = others
    .filter((i) => i.visible && i.id !== letters.id)
    .flatMap((i) => placedOf(i).paths.map((p) => transformPath(p, home)));
  const room = Math.min(
    roomOutside(oval, around),
    oval.x - oval.rx,
    blank.width - oval.x - oval.rx,
    oval.y - oval.ry,
    blank.height - oval.y - oval.ry,
  );
  const capHeight = capRound(oval, straight.x1 - straight.x0, room);
  const round = { rx: oval.rx, ry: oval.ry, side: 'outside', at: 'top' } as const;
  return {
    ...letters,
    x: oval.x,
    y: oval.y,
    angle: oval.angle,
    mirror: false,
    values: { ...letters.values, capHeight, round, ...roundBaseline(round, round, capHeight) },
  };
}

/** Puts letters that were set round an oval to another side or end of it, or straight into its middle. */
export function placeRound(id: string, to: Partial<RoundPlace> | 'middle'): void {
  const job = jobNow();
  const now = job?.items.find((i) => i.id === id);
  const round = now?.values.round as (Oval & RoundPlace) | undefined;
  if (!job || !now || !round) return;
  let values: Item['values'];
  if (to === 'middle') {
    const { x0, x1, y0, y1 } = unitBox(now);
    values = { ...now.values, baseline: 'straight', capHeight: capWithin(round, x1 - x0, y1 - y0) };
  } else {
    // Out of the middle they come in the size that they would have had there.
    const { x, y, angle } = now;
    const { values: before } =
      now.values.baseline === 'straight' ? letteredRound(now, { ...round, x, y, angle }, job.blank, job.items) : now;
    const changed = itemKindOf(now.kind).changed!;
    values = changed({ ...before, round: { ...round, ...to } }, before) as Item['values'];
  }
  changeItem(id, 'Set letters round', (q) => void (q.values = values));
}

/** Sets the picked lettering along the picked line: the lettering keeps a copy of it. Round a circle or ellipse it stands outside. */
export function setAlongPicked(): void {
  const job = jobNow();
  const { picked } = useView.getState();
  const pair = letteringAndLine(job?.items.filter((i) => picked.includes(i.id)) ?? []);
  if (!job || !pair) return tell('info', 'Pick one lettering and one line or outline to set it along.');
  const { letters, line } = pair;
  const oval = ovalOf(line);
  if (oval) {
    const set = letteredRound(letters, oval, job.blank, job.items);
    edit('Set letters round an outline', (j) => void (j.items[j.items.findIndex((q) => q.id === letters.id)] = set));
    return setView({ picked: [letters.id] });
  }
  const [path] = placedOf(line).paths;
  if (!path) return tell('info', `"${line.name}" draws nothing to set letters along.`);
  const curve = transformPath(path, inverse(placementOf(letters)));
  edit('Set letters along a line', (j) => {
    const i = j.items.find((q) => q.id === letters.id)!;
    i.values = { ...i.values, baseline: 'curve', curve };
  });
  setView({ picked: [letters.id] });
}

/** Sets the space after one letter by hand. Thousandths of the em; nothing for none. */
export function setSpace(id: string, place: number, next: (now: number) => number): void {
  edit(
    'Space letters',
    (j) => {
      const i = j.items.find((q) => q.id === id);
      if (!i) return;
      const spaces = { ...((i.values.spaces as Record<string, number> | undefined) ?? {}) };
      // From the space as it is in the job: keys may come faster than the sheet follows.
      const value = next(spaces[place] ?? 0);
      if (value) spaces[place] = value;
      else delete spaces[place];
      i.values = { ...i.values, spaces };
    },
    `space-${id}-${place}`,
  );
}
