import { newItem } from '../artwork/item';
import { FontShelf } from '../lettering/shelf';
import { newOneSetup, type OneSetup } from '../job/job';
import { heightAt } from '../relief/field';
import type { FormHeights } from '../relief/form';
import { freshForm } from '../relief/freshForm';
import type { Form } from '../relief/stack';
import { chance } from '../relief/noise';
import { boxMesh } from '../testing/meshes';
import { MOST_NODES, reliefCell, reliefKey, shapeMemory, shapeRelief, type ShapeContext } from './shaping';

const art = new FontShelf();
const none: ShapeContext = { art, mesh: () => null, picture: () => null, progress: () => {} };
const rectangle = (id: string, x: number, y: number, width: number, height: number) =>
  newItem({
    id,
    name: id,
    kind: 'rectangle',
    x,
    y,
    layer: 'layer-1',
    values: { width, height, corner: 'square', radius: 1 },
  });
const form = (kind: string, more: Partial<Form> = {}, values: object = {}): Form =>
  freshForm(kind, kind, kind, values, more);
function board(forms: Form[], more: Partial<OneSetup['relief']> = {}): OneSetup {
  const one = newOneSetup('Reed-bed sign');
  return {
    ...one,
    blank: { ...one.blank, width: 40, height: 20, thickness: 10 },
    items: [rectangle('panel', 20, 10, 20, 10), rectangle('edge', 20, 10, 36, 16)],
    relief: { forms, baseDepth: 4, cell: 0.5, ...more },
  };
}
it('says of a form that it reaches beyond the blank, or lies off it, and nothing of one that it holds', () => {
  const rosette = (x: number) =>
    shapeRelief(board([form('ornament', { id: 'o' }, { ornament: 'rosette', x, y: 10, width: 12 })]), 0.5, none)
      .remarks;
  expect(rosette(20)).toEqual({});
  expect(rosette(37).o).toMatch(/^Reaches beyond the blank/);
  expect(rosette(60).o).toMatch(/^Lies off the blank/);
  // Where it counts within outlines alone it may be larger than those, and is off the blank all the same where it is.
  const mask = (side: 'inside' | 'outside') => ({ items: ['panel'], side, edge: 0 });
  const bounded = (x: number, more: Partial<Form>, group: Partial<Form>[] = []) =>
    shapeRelief(
      board([
        ...group.map((g) => form('group', { id: 'g', ...g })),
        form('ornament', { id: 'o', ...more }, { ornament: 'rosette', x, y: 10, width: 12 }),
      ]),
      0.5,
      none,
    ).remarks.o;
  expect(bounded(37, { mask: mask('inside') })).toBeUndefined();
  expect(bounded(37, { mask: mask('outside') })).toMatch(/^Reaches beyond/);
  expect(bounded(60, { mask: mask('inside') })).toMatch(/^Lies off/);
  expect(bounded(37, { group: 'g' }, [{ mask: mask('inside') }])).toBeUndefined();
  expect(bounded(37, { group: 'g' }, [{}])).toMatch(/^Reaches beyond/);
  const raised = (item: string, width: number) => {
    const job = board([form('outline', { id: 'o', items: [item] })]);
    job.blank.width = width;
    return shapeRelief(job, 0.5, none).remarks;
  };
  // The outlines end at 30 and at 38 mm.
  expect(raised('panel', 30)).toEqual({});
  expect(raised('edge', 30).o).toMatch(/^Reaches beyond the blank/);
});

const at = (s: ReturnType<typeof shapeRelief>, x: number, y: number) =>
  s.field.z[Math.round(y / s.field.cell) * s.field.cols + Math.round(x / s.field.cell)];

describe('the relief of a set-up', () => {
  it('is its forms on each other, from the base upward; nothing where there is none', () => {
    const job = board([
      form('ground', { mask: { items: ['edge'], side: 'inside', edge: 0 } }, { height: 1 }),
      form('outline', { items: ['panel'] }, { edge: 'flat', height: 2 }),
    ]);
    const s = shapeRelief(job, 0.5, none);
    expect(at(s, 20, 10)).toBe(-1);
    expect(at(s, 5, 5)).toBe(-3);
    expect(at(s, 1, 1)).toBeNaN();
    expect(s.facts).toMatchObject({ lowest: -3, highest: -1 });
    // Hidden forms count for nothing.
    const hidden = {
      ...job,
      relief: { ...job.relief, forms: job.relief.forms.map((f, k) => ({ ...f, visible: k === 1 })) },
    };
    expect(at(shapeRelief(hidden, 0.5, none), 5, 5)).toBeNaN();
  });
  it('is as much larger as its casting shrinks, whatever it is made of, from the middle of the top face', () => {
    const box = boxMesh(0, 0, 0, 6, 4, 1.5);
    const files: ShapeContext = { ...none, mesh: () => box };
    const stacks: Record<string, Form[]> = {
      outline: [form('outline', { items: ['panel'] }, { edge: 'bevel', angle: 45, height: 2 })],
      ornament: [form('ornament', {}, { ornament: 'rosette', x: 14, y: 8, width: 12, rise: 1.6 })],
      texture: [form('texture', {}, { texture: 'ripples', size: 5, depth: 0.6, variation: 50 })],
      masked: [form('ground', { mask: { items: ['panel'], side: 'inside', edge: 3 } }, { height: 1 })],
      turned: [
        form('outline', { items: ['panel'] }, { edge: 'bevel', angle: 45, height: 2 }),
        form('turned', {}, { about: 'height', height: 1, mirror: 'x' }),
      ],
      mesh: [form('mesh', {}, { x: 18, y: 9, width: 12, height: 8, rise: 1.5 })],
    };
    const shrinks = 4;
    const times = 1 / (1 - shrinks / 100);
    for (const [name, forms] of Object.entries(stacks)) {
      const drawn = shapeRelief(board(forms), 0.1, files).field;
      const large = shapeRelief(board(forms, { shrinks }), 0.1, files).field;
      let [looked, off] = [0, 0];
      for (let r = 10; r < 190; r += 3)
        for (let c = 10; c < 390; c += 3) {
          const [x, y] = [20 + (c * 0.1 - 20) / times, 10 + (r * 0.1 - 10) / times];
          const [want, is] = [times * heightAt(drawn, x, y), large.z[r * large.cols + c]];
          if (want !== want || is !== is) {
            off += (want !== want) === (is !== is) ? 0 : 1;
            continue;
          }
          looked++;
          if (Math.abs(want - is) > 0.04) off++;
        }
      expect([name, looked > 100]).toEqual([name, true]);
      // Between nodes of a steep wall, of which an ornament has many, and at the rim of what is empty, the two may differ.
      expect([name, off / looked < (name === 'ornament' ? 0.1 : 0.04)]).toEqual([name, true]);
    }
    expect(reliefKey(board(stacks.outline, { shrinks }))).not.toBe(reliefKey(board(stacks.outline)));
  });
  it('lays a group on what lies under it as one', () => {
    const inner = [
      form('outline', { id: 'step', items: ['panel'], group: 'g' }, { edge: 'flat', height: 2 }),
      form('limit', { id: 'cap', group: 'g' }, { cap: 1.5, floor: null }),
    ];
    const job = (more: Partial<Form>) =>
      board([form('ground', {}, { height: 1 }), ...structuredClone(inner), form('group', { id: 'g', ...more })]);
    // Capped by itself, then on the ground; half as much; sunk.
    expect(at(shapeRelief(job({}), 0.5, none), 20, 10)).toBe(1 + 1.5 - 4);
    expect(at(shapeRelief(job({ strength: 0.5, base: 0.25 }), 0.5, none), 20, 10)).toBe(1 + 1 - 4);
    expect(at(shapeRelief(job({ meets: 'sink' }), 0.5, none), 20, 10)).toBe(1 - 1.5 - 4);
    expect(at(shapeRelief(job({}), 0.5, none), 2, 2)).toBe(1 - 4);
    // Left out as a whole; what it holds has a look of its own, as it has.
    expect(at(shapeRelief(job({ visible: false }), 0.5, none), 20, 10)).toBe(1 - 4);
    expect(Object.keys(shapeRelief(job({}), 0.5, none).looks).sort()).toEqual(['cap', 'g', 'ground', 'step']);
    const memory = shapeMemory();
    shapeRelief(job({}), 0.5, none, memory);
    // A changed form of it is seen though the rest is kept.
    const lower = job({});
    lower.relief.forms[1].values.height = 1;
    expect(at(shapeRelief(lower, 0.5, none, memory), 20, 10)).toBe(1 + 1 - 4);
    expect(reliefKey(lower)).not.toBe(reliefKey(job({})));
    expect(reliefKey(job({ visible: false }))).toBe(reliefKey(board([form('ground', {}, { height: 1 })])));
    expect(shapeRelief(board([form('group', { id: 'g' })]), 0.5, none).remarks.g).toMatch(/holds nothing/);
  });
  it('follows its artwork, and works out nothing twice that has not changed', () => {
    const job = board([form('ground'), form('outline', { items: ['panel'] })]);
    const memory = shapeMemory();
    let made: string[] = [];
    const watched: typeof memory = {
      form: (key, make) => memory.form(key, () => (made.push('form'), make())),
      weights: (key, make) => memory.weights(key, () => (made.push('mask'), make())),
    };
    shapeRelief(job, 0.5, none, watched);
    expect(made).toEqual(['form', 'form']);
    made = [];
    shapeRelief({ ...job, relief: { ...job.relief, baseDepth: 3 } }, 0.5, none, watched);
    expect(made).toEqual([]);
    const moved = { ...job, items: [{ ...job.items[0], x: 15 }, job.items[1]] };
    const s = shapeRelief(moved, 0.5, none, watched);
    expect(made).toEqual(['form']);
    expect(at(s, 15, 10)).toBeCloseTo(5 - 4, 5);
    expect(reliefKey(moved)).not.toBe(reliefKey(job));
    // Names, and what no form uses, change nothing.
    const renamed = {
      ...job,
      items: [job.items[0], { ...job.items[1], x: 3 }],
      relief: { ...job.relief, forms: job.relief.forms.map((f) => ({ ...f, name: 'other' })) },
    };
    expect(reliefKey(renamed)).toBe(reliefKey(job));
  });
  it('takes a mesh that comes later', () => {
    const job = board([form('mesh', {}, { mesh: 'm', x: 20, y: 10, width: 10, height: 10, rise: 3 })]);
    const memory = shapeMemory();
    const before = shapeRelief(job, 0.5, none, memory);
    expect(before.remarks.mesh).toMatch(/not on this device/);
    expect(before.facts.covered).toBe(0);
    const after = shapeRelief(job, 0.5, { ...none, mesh: () => boxMesh(0, 0, 0, 1, 1, 1) }, memory);
    expect(after.remarks).toEqual({});
    expect(at(after, 20, 10)).toBe(-1);
    expect(at(after, 26, 10)).toBeNaN();
  });
  it('lets forms work on what lies under them, as far as their strength and their mask say', () => {
    const low = form('ground', {}, { height: 1 });
    const high = form('outline', { items: ['panel'] }, { edge: 'flat', height: 4 });
    const cap = (more: Partial<Form> = {}) => form('limit', more, { cap: 3 });
    expect(at(shapeRelief(board([low, high, cap()]), 0.5, none), 20, 10)).toBe(3 - 4);
    expect(at(shapeRelief(board([low, cap(), high]), 0.5, none), 20, 10)).toBe(5 - 4);
    expect(at(shapeRelief(board([low, high, cap({ strength: 0.5 })]), 0.5, none), 20, 10)).toBe(4 - 4);
    const inside = cap({ mask: { items: ['edge'], side: 'outside', edge: 0 } });
    expect(at(shapeRelief(board([low, high, inside]), 0.5, none), 20, 10)).toBe(5 - 4);
  });
  it('takes the grain of a picture off, however wide its pixels lie', () => {
    const light = Float32Array.from({ length: 800 }, (_, i) => 0.5 + 0.1 * (chance(i, 1, 1) - 0.5));
    const file = { width: 40, height: 20, greys: 65536, light };
    const job = (forms: Form[]) => shapeRelief(board(forms), 0.1, { ...none, picture: () => file });
    const lying = form('picture', {}, { x: 20, y: 10, width: 40, height: 20, rise: 4 });
    const spread = (s: ReturnType<typeof shapeRelief>) => s.facts.highest - s.facts.lowest;
    expect(spread(job([lying, form('denoise')]))).toBeLessThan(0.6 * spread(job([lying])));
    expect(job([lying]).pixels).toEqual({ picture: 1 });
    expect(job([form('ground')]).pixels).toEqual({});
  });
  it('works out again what works on a form that has changed, and that alone', () => {
    const low = (height: number) => form('ground', {}, { height });
    const high = form('outline', { items: ['panel'] }, { edge: 'flat', height: 4 });
    const cap = form('limit', {}, { cap: 3 });
    let made = 0;
    const memory = shapeMemory();
    const counting = {
      ...memory,
      form: (key: string, make: () => FormHeights) => memory.form(key, () => (made++, make())),
    };
    const shape = (forms: Form[]) => shapeRelief(board(forms), 0.5, none, counting);
    shape([low(1), cap, high]);
    expect(made).toBe(3);
    // What lies above does not touch what is limited.
    shape([low(1), cap, { ...high, base: 2 }]);
    expect(made).toBe(3);
    const s = shape([low(9), cap, high]);
    expect(made).toBe(5);
    expect(at(s, 1, 1)).toBe(3 - 4);
    shape([{ ...low(9), strength: 0.5 }, cap, high]);
    expect(made).toBe(6);
  });
  it('says so where a mask has no outline, and leaves the form out', () => {
    for (const items of [[], ['gone']]) {
      const s = shapeRelief(board([form('ground', { mask: { items, side: 'outside', edge: 1 } })]), 0.5, none);
      expect(s.remarks.ground).toMatch(/no closed outline/);
      expect(s.facts.covered).toBe(0);
    }
  });
  it('has nodes as the job says, as are proposed, and never more than fit', () => {
    const blank = { ...board([]).blank, width: 1000, height: 800 };
    const of = (cell: number | null) => reliefCell({ ...board([]), blank, relief: { forms: [], baseDepth: 0, cell } });
    expect(of(0.5)).toBe(0.5);
    expect((1000 * 800) / of(null) ** 2).toBeCloseTo(2e6, -2);
    expect((1000 * 800) / of(0.01) ** 2).toBeCloseTo(MOST_NODES, -2);
  });
  it('is given up when it is no longer wanted', () => {
    const stop = () => {
      throw new Error('enough');
    };
    expect(() => shapeRelief(board([form('ground')]), 0.5, { ...none, progress: stop })).toThrow('enough');
  });
});
