import { newItem } from '../../artwork/item';
import { newOneSetup, type OneSetup } from '../../job/job';
import { jobOf } from '../../job/oneSetup';
import { heldAgainst } from '../../pipeline/proving';
import { proven } from '../../testing/fits';
import { testArt as art } from '../../testing/fonts';
import { library, planOn } from '../../testing/job';
import { leftAt } from '../../testing/sections';
import { circleLoop } from '../../testing/shapes';
import { coneOf } from '../../cutters/cutter';
import { kindOf } from '../registry';

const BLANK = { width: 50, height: 40, thickness: 8 };
const [X, Y, R, DEEP] = [22, 19, 7, 1.5];
const CONE = 'cone-3.175-20-0.1';
const tan = coneOf(library.find((c) => c.id === CONE)!).tan;
const outline = [circleLoop(400, R, X, Y)];
const presets = (id: string) => ({ stepDown: 0.8, stepOver: id === CONE ? 0.1 : 1 });

describe('an area clearance round outlines', () => {
  it.each([
    ['to the edges of the blank', null, null],
    ['to the edges of the blank, its walls leaning', null, CONE],
    ['as far as a margin', 6, null],
    ['as far as a margin, its walls leaning', 6, CONE],
  ] as const)('%s leaves what stands, and nothing else', (_name, margin, wall) => {
    const values = { cutters: ['flat-3'], side: 'around', margin, depth: DEEP, wall };
    const x: number[] = [];
    const y: number[] = [];
    for (let i = 0; i <= 60; i++)
      for (let j = 0; j <= 48; j++) {
        x.push(0.001 + (i / 60) * (BLANK.width - 0.002));
        y.push(0.001 + (j / 48) * (BLANK.height - 0.002));
      }
    const z = leftAt({ kind: 'area', values }, outline, BLANK, presets, x, y);
    let [floors, walls] = [0, 0];
    z.forEach((h, i) => {
      const out = Math.hypot(x[i] - X, y[i] - Y) - R;
      const from = margin === null ? out : Math.min(out, margin - out);
      const want = from <= 0 ? 0 : wall ? Math.max(-DEEP, -from / tan) : -DEEP;
      // Upright walls stand where they stand; of leaning ones each hundredth of a millimetre is a depth.
      if (Math.abs(from) < 0.01) return;
      if (want === -DEEP) floors++;
      else if (from > 0) walls++;
      expect(Math.abs(h - want)).toBeLessThan(0.02);
    });
    expect(floors).toBeGreaterThan(300);
    if (wall) expect(walls).toBeGreaterThan(20);
  });

  it.each([null, CONE])('goes nowhere that is not needed past the edges, and passes every check (cone: %s)', (wall) => {
    const values = { cutters: ['flat-3'], side: 'around', margin: null, depth: DEEP, wall };
    const { plan } = planOn('area', values, outline, BLANK, presets);
    // The cone goes along what stands alone, the end mill's axis to the edge; above the floor it goes as far as the wall leans.
    for (const { cutterId, motion } of plan.toolpaths)
      for (let i = 0; i < motion.count; i++) {
        const off = Math.max(-motion.x[i], motion.x[i] - BLANK.width, -motion.y[i], motion.y[i] - BLANK.height);
        expect(off).toBeLessThan(cutterId === CONE ? 0 : 0.1 + DEEP * tan);
      }
    expect(plan.unreached.area).toBeLessThan(1e-6);
    const one: OneSetup = newOneSetup('Around');
    one.blank = { ...one.blank, ...BLANK };
    one.items = [newItem({ id: 'i', name: 'O', kind: 'ellipse', x: X, y: Y, values: { width: 2 * R, height: 2 * R } })];
    one.cutters = library.filter((c) => ['flat-3', CONE].includes(c.id));
    const all = { ...(kindOf('area').defaults(one.blank, one.cutters) as object), ...values };
    one.cuts = [{ id: 'c', name: 'Round it', kind: 'area', enabled: true, items: ['i'], values: all, overrides: {} }];
    const proof = proven(jobOf(one), one.at.id);
    expect([...proof.findings, ...heldAgainst(proof, art).findings].map((f) => f.text)).toEqual([]);
  });
});

describe('outlines that are moved', () => {
  it.each([
    ['area', { cutters: ['flat-1'], depth: 1, side: 'around' }],
    ['vcarve', { cutter: 'v-12-60-0', limit: 0.2 }],
    ['profile', { cutter: 'flat-1', side: 'outside', through: false, depth: 1 }],
  ] as const)('away or into one another are told (%s)', (kind, values) => {
    const bars = [12, 12.6].map((at) => Float64Array.of(5, at, 35, at, 35, at + 0.4, 5, at + 0.4));
    const told = (grow: number) =>
      planOn(kind, { ...values, grow }, bars, BLANK).plan.remarks.flatMap((r) =>
        r.level === 'problem' ? [r.text] : [],
      );
    expect(told(0)).toEqual([]);
    expect(told(-0.25).join()).toMatch(/narrower than 0\.5 mm, twice what it is made smaller by.*left out here/);
    expect(told(0.15).join()).toMatch(/less than 0\.3 mm between them.*the gap is filled here/);
  });
});
