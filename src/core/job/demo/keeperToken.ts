import { newItem } from '../../artwork/item';
import { shippedLibrary } from '../../cutters/library';
import { freshForm } from '../../relief/freshForm';
import { withNewSetup } from '../allSetups';
import { withDowels } from '../dowels';
import { newOneSetup, type Job, type OneSetup } from '../job';
import { withLinks } from '../linked';
import { jobOf, oneSetup, withSetup } from '../oneSetup';
import { finishing, roughing } from './reliefCuts';

const [BALL, ROUGH] = ['taperedBall-6-0.25-5', 'flat-1.5'];
const [WIDTH, HEIGHT] = [50, 78];
const [X, Y] = [WIDTH / 2, HEIGHT / 2];
/** How far the ground of each face lies below the plate's. */
const DEEP = 0.9;

const text = {
  ...{ tracking: 60, kerning: true, leading: 1.6, align: 'centre', stretch: 100, font: 'cinzel-bold', capHeight: 2.6 },
};
const around = (id: string, words: string, baseline: 'outwards' | 'inwards') =>
  newItem({
    ...{ id, name: words, kind: 'lettering', x: X, y: Y },
    values: {
      ...text,
      text: words,
      baseline,
      ...(baseline === 'outwards' ? { radius: 12.2, at: 90 } : { radius: 14.4, at: 270 }),
    },
  });

/** A face of the token: a ring, an ornament and words stand on a sunk ground. */
function face(one: OneSetup, edge: string, words: string[], ornament: string, width: number): OneSetup {
  const relief = {
    baseDepth: DEEP,
    cell: null,
    forms: [
      freshForm('f-field', 'Ground', 'ground', { height: 0 }, { mask: { items: [edge], side: 'inside', edge: 0 } }),
      freshForm(
        ...(['f-picture', 'Picture', 'ornament'] as const),
        { ornament, x: X, y: Y, width, rise: 0.75 },
        { meets: 'higher', base: 0.02 },
      ),
      freshForm(
        ...(['f-words', 'Lettering', 'outline'] as const),
        { edge: 'bevel', angle: 60, top: 'capped', height: 0.45 },
        { items: words, meets: 'higher', base: 0 },
      ),
    ],
  };
  const [rough, finish] = [roughing([ROUGH], 0.1, { [ROUGH]: { stepDown: 0.25 } }), finishing(BALL, 'spiral', 0, 0.12)];
  // The ring round the ground stays as it is.
  const own = (c: typeof rough) => ({ ...c, id: `${c.id}-${one.at.id}`, values: { ...c.values, rim: 'edge' } });
  return { ...one, relief, cuts: [...one.cuts, own(rough), own(finish)] };
}

/**
 * A token of brass with two faces: its first is cut, two dowel holes are drilled through plate and spoilboard, the plate is turned
 * over on its dowels, the other face is cut, and the token cut free from there.
 */
export function keeperToken(): Job {
  const fresh = newOneSetup('Keeper\u2019s token');
  const front: OneSetup = { ...fresh, at: { ...fresh.at, name: 'Front' } };
  front.notes =
    'Fenwater Lock: token of the night keepers, with two faces. Turned over left to right on two 4 mm dowels.';
  front.blank = { ...front.blank, width: WIDTH, height: HEIGHT, thickness: 4, material: 'brass', intoBed: 0.2 };
  const circle = (id: string, name: string, d: number) =>
    newItem({ id, name, kind: 'ellipse', x: X, y: Y, values: { width: d, height: d } });
  front.items = [
    circle('i-edge', 'Edge', 36),
    circle('i-field', 'Field', 33),
    around('i-upper', 'NIGHT KEEPER', 'outwards'),
    around('i-lower', 'FENWATER', 'inwards'),
  ];
  const library = shippedLibrary();
  const cutter = (id: string) => library.find((c) => c.id === id)!;
  front.cutters = ['flat-3', ROUGH, BALL].map(cutter);
  let n = 0;
  const freshId = () => `token-${++n}`;
  const turned = withNewSetup(jobOf(front), front.at.id, 'y', freshId);
  const back = turned.id;
  const linked = withLinks(turned.job, back, front.items.slice(0, 2), freshId);
  const [edge, field] = linked.ids;
  const drilled = withDowels(linked.job, back, cutter('drill-4-118'), freshId).job;
  const first = withSetup(
    drilled,
    face(oneSetup(drilled, front.at.id), 'i-field', ['i-upper', 'i-lower'], 'lantern', 9),
  );
  const second = oneSetup(first, back);
  const words = [around('i-number', 'NUMBER TWELVE', 'outwards'), around('i-watch', 'FROM DUSK', 'inwards')];
  const shaped = face(
    { ...second, items: [...second.items, ...words] },
    field,
    words.map((w) => w.id),
    'knot',
    13,
  );
  return withSetup(first, {
    ...shaped,
    cuts: [
      ...shaped.cuts,
      {
        ...{ id: 'c-free', name: 'Cut free', kind: 'profile', enabled: true, items: [edge], overrides: {} },
        values: {
          ...{ cutter: 'flat-3', side: 'outside', startDepth: 0, through: true, depth: 4, beyond: 0.1, skin: 0 },
          ...{ allowance: 0, finish: 0, ramp: 5, direction: 'climb', lead: 'none', leadSize: 3 },
          tabs: { shape: 'triangular', by: 'count', count: 3, spacing: 60, length: 5, height: 1.2, at: [] },
        },
      },
    ],
  });
}
