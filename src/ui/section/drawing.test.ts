import { PAD, sectionDrawing, type Sample } from './drawing';

const at = (s: number, proof: number, want = -2): Sample => ({ s, on: true, proof, want, floor: -18 });
const drawn = (samples: Sample[]) => sectionDrawing(samples, 18, 30, 600, 200);
/** Points of a path of lines, each run by itself. */
const runs = (d: string) =>
  d
    .split('M')
    .filter(Boolean)
    .map((run) => run.split('L').map((p) => p.split(',').map(Number)));

describe('the section', () => {
  it('draws what is proven at its height, and nothing as proven where nothing is yet', () => {
    const { proof, want, x, y } = drawn([at(0, -1), at(10, -3), at(20, NaN), at(30, NaN)]);
    expect(runs(proof)).toEqual([
      [
        [x(0), y(-1)],
        [x(10), y(-3)],
      ].map((p) => p.map((v) => expect.closeTo(v, 2))),
    ]);
    expect(runs(want)[0]).toHaveLength(4);
    expect(drawn([at(0, NaN), at(30, NaN)]).proof).toBe('');
  });
  it('stands at its one place when its ends lie on each other', () => {
    const { solid, proof, want } = sectionDrawing([at(0, -1), at(0, -1)], 18, 0, 600, 200);
    for (const d of [solid, proof, want]) expect(d).toMatch(/^M(?!.*NaN)/);
  });
  it('shows as deep as anything goes, and the whole blank where both faces are cut', () => {
    expect(drawn([at(0, -1), at(30, -3)]).low).toBeCloseTo(3.9, 9);
    expect(drawn([at(0, 0, -17), at(30, 0)]).low).toBe(18);
    expect(drawn([{ ...at(0, -1), floor: -15 }, at(30, -1)]).low).toBe(18);
  });
  it('shows what stands above the face below its upper edge, and else lets the face be near it', () => {
    for (const [proof, want] of [
      [4, -2],
      [-1, 4],
      [0, 0],
    ] as const) {
      const { y } = drawn([at(0, -1), at(15, proof, want), at(30, -3)]);
      const highest = Math.max(proof, want, 0);
      expect(y(highest)).toBeGreaterThan(PAD.top);
      expect(y(highest)).toBeLessThan(PAD.top + 10);
      expect(y(-3)).toBeLessThan(200 - PAD.bottom);
    }
  });
});
