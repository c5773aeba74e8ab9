import { newItem } from '../artwork/item';
import { packetLayers, packetMaterials, whyNoPacket, withPacket } from '../job/packet';
import { newOneSetup } from '../job/job';
import { pairsOf } from '../job/pairs';
import { jobOf, oneSetup } from '../job/oneSetup';
import { readJob } from '../job/migrate';
import { joinedAll } from '../proof/joined';
import { fitsOf, withValues } from '../testing/fits';
import { testArt as art } from '../testing/fonts';
import { library } from '../testing/job';

const cutter = (id: string) => library.find((c) => c.id === id);
const values = {
  ...{ cutters: ['flat-2'], plugCutter: 'flat-2', depth: 2, proud: 0.2, clearance: 0.05, skin: 0.2 },
  corners: 'round' as const,
  material: 'maple' as const,
};

/** Two boxes on layers of their own, side by side or `apart` mm from each other. */
function boxes(apart = 0) {
  const one = newOneSetup('Packet');
  one.blank = { ...one.blank, width: 60, height: 40, thickness: 12, material: 'walnut' };
  one.layers = [...one.layers, { ...one.layers[0], id: 'l2', name: 'Reeds' }];
  const size = { width: 14, height: 16, radius: 0, corner: 'square' };
  one.items = [
    newItem({ id: 'a', name: 'Left', kind: 'rectangle', x: 20, y: 20, layer: one.layers[0].id, values: size }),
    newItem({ id: 'b', name: 'Right', kind: 'rectangle', x: 34 + apart, y: 20, layer: 'l2', values: size }),
  ];
  one.cutters = library.filter((c) => ['flat-2', 'flat-3'].includes(c.id));
  return one;
}
function packet(apart = 0) {
  const one = boxes(apart);
  const layers = packetLayers(one, one.items);
  let n = 0;
  const materials = packetMaterials(layers, 'walnut');
  return withPacket(jobOf(one), one.at.id, layers, values, materials, cutter, () => `n${n++}`);
}

describe('a packet of straight inlays', () => {
  it('is a pocket and a plug for each layer, each in another material', () => {
    const { job, pocket, plug } = packet();
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    expect(job.setups.map((s) => s.name)).toEqual(['Set-up 1', 'Set-up 1, plug, Layer 1', 'Set-up 1, plug, Reeds']);
    expect(job.blanks.map((b) => [b.name, b.material])).toEqual([
      ['Blank 1', 'walnut'],
      ['Plug, Reeds', 'oak'],
      ['Plug, Layer 1', 'maple'],
    ]);
    expect(job.setups[0].cuts.map((c) => c.items)).toEqual([['a'], ['b']]);
    expect(job.setups[0].cuts[0].id).toBe(pocket);
    expect(job.setups[1].cuts[0].id).toBe(plug);
    expect(job.setups.slice(1).map((s) => oneSetup(job, s.id).items[0].x)).toEqual([40, 26]);
  });

  it('may have its plugs side by side on one plate: both are put together, and one whose pocket is off is told', () => {
    const { job } = packet(6);
    const [first, one, other] = job.setups;
    const plate = { ...one, items: [...one.items, ...other.items], cuts: [...one.cuts, ...other.cuts] };
    const merged = { ...job, setups: [first, plate] };
    for (const { troubles, straight } of fitsOf(merged, 2)) {
      expect(troubles).toEqual([]);
      expect(straight!.least!).toBeGreaterThan(0.042);
      expect(straight!.most!).toBeLessThan(0.058);
    }
    const cutOff = { ...first, cuts: first.cuts.map((c, k) => ({ ...c, enabled: k === 0 })) };
    const { pairs, missing } = pairsOf({ ...merged, setups: [cutOff, plate] });
    expect(pairs.map((p) => p.plugCut)).toEqual([one.cuts[0].id]);
    expect(missing[one.id]).toMatch(/outlines that "Inlay plug, Reeds" follows is on/);
    // A second cut round the same outlines belongs to the same plug.
    const twice = { ...one, cuts: [...one.cuts, { ...one.cuts[0], id: 'again' }] };
    expect(pairsOf({ ...job, setups: [first, twice, other] })).toEqual({ pairs: pairsOf(job).pairs, missing: {} });
    // What follows no pocket at all cuts the plate free.
    const free = { ...plate, cuts: [...one.cuts, { ...other.cuts[0], items: [] }] };
    expect(pairsOf({ ...merged, setups: [first, free] })).toEqual({ pairs: [expect.anything()], missing: {} });
  });

  it('goes in side by side: where two plugs adjoin no wall is missed, and both stand in one face', () => {
    const fits = fitsOf(packet().job, 2);
    for (const { troubles, seam, straight } of fits) {
      expect(troubles).toEqual([]);
      expect(straight!.least!).toBeGreaterThan(0.042);
      expect(straight!.most!).toBeLessThan(0.058);
      // Along three of four sides.
      expect(seam.length).toBeGreaterThan(100);
    }
    // The sides that adjoin lie at 27.
    const nearest = (k: number) =>
      Math.min(...fits[k].seam.filter((p) => Math.abs(p.y - 20) < 6).map((p) => Math.abs(p.x - 27)));
    expect(nearest(0)).toBeGreaterThan(13);
    expect(nearest(1)).toBeGreaterThan(13);
    const joined = fits.map((f) => f.joined!);
    const { field, shares } = joinedAll(joined)!;
    const at = (x: number, y: number) =>
      Math.round((y - field.y0) / field.cell) * field.cols + Math.round((x - field.x0) / field.cell);
    for (const [x, own] of [
      [20, 0],
      [34, 1],
    ] as const) {
      expect(field.z[at(x, 20)]).toBe(0);
      expect(shares.map((q) => q[at(x, 20)])).toEqual(own ? [0, 255] : [255, 0]);
    }
  });

  it('(long) of which a plug is too large is told for that one', () => {
    const { job } = packet(3);
    const [, left, right] = job.setups;
    expect(fitsOf(job, 2).flatMap((f) => f.troubles)).toEqual([]);
    const fits = fitsOf(withValues(job, right.id, { grow: 0.1 }), 2);
    expect(left.name).toMatch(/Layer 1/);
    expect(fits[0].troubles).toEqual([]);
    expect(fits[1].troubles[0].text).toMatch(/0\.1\d? mm too large/);
  });

  it('lies side by side, or it is told why not', () => {
    const why = (apart: number) => {
      const one = boxes(apart);
      return whyNoPacket(packetLayers(one, one.items), art);
    };
    expect(why(0)).toBeNull();
    expect(why(5)).toBeNull();
    expect(why(-1)).toMatch(/"Layer 1" and "Reeds" lie in one another/);
  });
});
