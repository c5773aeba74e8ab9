import { shapeRelief, type ShapeContext } from '@/core/pipeline/shaping';
import { newOneSetup, type OneSetup } from '@/core/job/job';
import { newItem } from '@/core/artwork/item';
import { FontShelf } from '@/core/lettering/shelf';
import { freshForm } from '@/core/relief/freshForm';
import { chance } from '@/core/relief/noise';
import type { GreyPicture } from '@/core/relief/picture';
import { surfaceMesh } from '@/core/testing/meshes';
import { lend } from './board';
import { formHands, lendRows, type SharedForm } from './formHands';

const CELL = 0.7;
const art = new FontShelf();
const mesh = surfaceMesh(60, 40, (x, y) => 2 + Math.sin(x / 4) * Math.cos(y / 5));
const picture: GreyPicture = {
  width: 90,
  height: 60,
  greys: 65536,
  light: Float32Array.from({ length: 5400 }, (_, i) => chance(i % 90, Math.floor(i / 90), 3)),
};
const star = newItem({
  id: 'star',
  name: 'star',
  kind: 'rectangle',
  x: 38,
  y: 36,
  angle: 21,
  layer: 'layer-1',
  values: { width: 70, height: 30, corner: 'square', radius: 1 },
});
/** Every kind whose rows can be made apart, one on the other, grain and its removal among them. */
function board(): OneSetup {
  const one = newOneSetup('Heron medallion');
  const place = { x: 38, y: 36, width: 60, height: 40 };
  return {
    ...one,
    blank: { ...one.blank, width: 76, height: 72, thickness: 20 },
    items: [star],
    relief: {
      baseDepth: 5,
      cell: CELL,
      forms: [
        freshForm('g', 'Ground', 'ground', { height: 1, dome: 1 }),
        freshForm('o', 'Edge', 'outline', { edge: 'ogee', over: null, top: 'fitted', height: 2 }, { items: ['star'] }),
        freshForm('t', 'Water', 'texture', { texture: 'clay', size: 6 }),
        freshForm('f', 'Ripples', 'texture', { texture: 'ripples', follows: true }, { items: ['star'] }),
        freshForm('s', 'Rail', 'swept', { way: 'rail', width: 8, height: 1 }, { items: ['star'] }),
        freshForm('m', 'Mesh', 'mesh', { mesh: 'm', ...place, rise: 1 }),
        freshForm('p', 'Picture', 'picture', { picture: 'p', ...place, turn: 12, rise: 0.4 }),
        freshForm('h', 'Heron', 'ornament', { ornament: 'anchor', x: 38, y: 36, width: 40, rise: 2, turn: 9 }),
        freshForm('n', 'Noise', 'denoise'),
        freshForm('l', 'Limit', 'limit', { cap: 6, floor: null }),
      ],
    },
  };
}
const context: ShapeContext = { art, mesh: () => mesh, picture: () => picture, progress: () => {} };
const alone = () => shapeRelief(board(), CELL, context);
const by = (ports: readonly { postMessage(s: SharedForm): void }[], silence?: number) =>
  shapeRelief(board(), CELL, { ...context, hands: formHands(ports, { silence, worth: 0 }) });
const largest = (a: Float32Array, b: Float32Array): number =>
  a.reduce((most, h, i) => (h === b[i] || (h !== h && b[i] !== b[i]) ? most : Math.max(most, Math.abs(h - b[i]))), 0);

describe('shaping by several', () => {
  const want = alone();
  /** One who takes a band, writes some of it wrongly and dies. */
  const dying = {
    postMessage(s: SharedForm) {
      Atomics.add(s.board, 2, 1);
      const k = Atomics.add(s.board, 0, 1);
      if (k < s.bands.length) s.z.fill(77, s.bands[k][0] * s.grid.cols, (s.bands[k][0] + 1) * s.grid.cols);
    },
  };
  const taken: string[] = [];
  const willing = { postMessage: (s: SharedForm) => (taken.push(s.form), lendRows(s)) };
  const short = {
    postMessage: (s: SharedForm) => {
      lendRows({ ...s, bands: s.bands.slice(0, Atomics.load(s.board, 0) + 1) });
      Atomics.sub(s.board, 0, 1);
    },
  };
  it.each([
    ['nobody (long)', []],
    ['one who does all', [willing]],
    ['some who go, and one who comes late (long)', [short, { postMessage: () => {} }, short]],
    ['one who dies', [dying, short]],
  ])('leaves the same heights with %s', (_, ports) => {
    const made = by(ports, 40);
    // Running sums of a filter begin elsewhere in a band.
    expect(largest(made.field.z, want.field.z)).toBeLessThan(2e-6);
    expect(made.field.z.every((h) => h === h)).toBe(true);
    expect(made.remarks).toEqual(want.remarks);
    expect(made.pixels).toEqual(want.pixels);
  });
  it('is of every kind that can', () => {
    expect(taken).toEqual(['outline', 'texture', 'texture', 'swept', 'mesh', 'picture', 'ornament', 'denoise']);
  });
  it('(long) is over for all when it is no longer wanted', () => {
    let seen: SharedForm | null = null;
    const watching = { postMessage: (s: SharedForm) => void (seen = s) };
    let asked = 0;
    const job = board();
    expect(() =>
      shapeRelief(job, CELL, {
        ...context,
        hands: formHands([watching], { worth: 0 }),
        progress: () => {
          if (++asked === 4) throw new Error('enough');
        },
      }),
    ).toThrow('enough');
    let worked = 0;
    lend(seen!, seen!.bands.length, () => void worked++);
    expect(worked).toBe(0);
  });
});
