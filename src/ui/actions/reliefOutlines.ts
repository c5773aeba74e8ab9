import { artworkHelper } from '@/compute/artworkHelper';
import { useWork } from '@/compute/useWork';
import { drawnItem } from '@/core/artwork/drawn';
import type { OneSetup } from '@/core/job/job';
import type { OutlinesAsked, ReliefOutline } from '@/core/relief/outlined';
import { areaText, lengthText } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { freshId } from '@/store/jobs';
import { busyWith } from '@/ui/common/busy';
import { setView } from '@/ui/view';
import { edit, freeName, jobNow } from './edits';
import { tell } from './tell';

/** The layer on which outlines of reliefs come. */
const LAYER = { name: 'Level lines', colour: '#7a5c2e' };
/** Curves lie no further from the relief's lines than this, mm. */
export const OUTLINE_TOLERANCE = 0.01;

/** Outlines of the relief that is shown; null, and said, where there are none to be had now. */
export async function findReliefOutlines(asked: OutlinesAsked, smallest: number): Promise<ReliefOutline[] | null> {
  const relief = useWork.getState().relief;
  if (!relief?.shaped.facts.covered) return (tell('info', 'There is no relief to outline yet.'), null);
  if (!relief.fine) return (tell('info', 'The relief is still being shaped. Outline it when it is done.'), null);
  const helper = artworkHelper();
  try {
    return await busyWith(
      'Outlining the relief\u2026',
      () => helper.dismiss(),
      () =>
        helper.ask((api) => api.reliefOutlines(relief.shaped.field, asked, { tolerance: OUTLINE_TOLERANCE, smallest })),
    );
  } catch (e) {
    tell('error', saysOf(e, 'The relief could not be outlined: this device may have too little memory.'));
    return null;
  }
}

const depthText = (height: number, { unit }: OneSetup): string =>
  height > 0 ? `${lengthText(height, unit)} above the face` : `${lengthText(-height, unit)} deep`;
const nameOf = (o: ReliefOutline, job: OneSetup): string =>
  o.height === null ? 'Border of the relief' : `${o.area === null ? 'Level' : 'Flat'} ${depthText(o.height, job)}`;

/** Puts outlines of the relief into the artwork, on a layer of their own, and picks them. */
export function placeReliefOutlines(found: readonly ReliefOutline[]): void {
  const job = jobNow();
  if (!job) return;
  const here = found.filter((o) => o.paths.length);
  const missed = found.filter((o) => !o.paths.length && o.height !== null);
  const left = found.reduce((n, o) => n + o.left, 0);
  const facts = useWork.getState().relief?.shaped.facts;
  const lies = facts
    ? ` The relief lies between ${depthText(facts.highest, job)} and ${depthText(facts.lowest, job)}.`
    : '';
  const says = [
    ...(missed.length
      ? [`Nothing is outlined at ${missed.map((o) => depthText(o.height!, job)).join(', ')}.${lies}`]
      : []),
    ...(left
      ? [`${left} ${left === 1 ? 'island' : 'islands'} smaller than asked for ${left === 1 ? 'is' : 'are'} left out.`]
      : []),
  ].join(' ');
  if (!here.length) return tell('info', says || 'Nothing is found to outline.');
  const ids = here.map(() => freshId());
  edit(here.length === 1 ? 'Outline the relief' : `Outline the relief ${here.length} times`, (j) => {
    let layer = j.layers.find((l) => l.name === LAYER.name && !l.locked)?.id;
    if (!layer)
      j.layers.push({
        id: (layer = freshId()),
        ...LAYER,
        name: freeName(LAYER.name, j.layers),
        visible: true,
        locked: false,
      });
    here.forEach((o, k) =>
      j.items.push(
        drawnItem({ id: ids[k], name: freeName(nameOf(o, job), j.items), layer: layer!, group: null }, o.paths),
      ),
    );
  });
  setView({ picked: ids });
  tell(
    missed.length ? 'info' : 'success',
    `${here.length === 1 ? `"${nameOf(here[0], job)}" is` : `${here.length} outlines are`} picked, on the layer "${LAYER.name}". ${says}`.trim(),
  );
}

/** A flat place in words. */
export const flatText = (o: ReliefOutline, job: OneSetup): string =>
  `${depthText(o.height!, job)}, ${areaText(o.area!, job.unit)}`;
