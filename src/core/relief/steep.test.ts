import { flatField } from './field';
import { shade, lightFrom } from './shade';
import { slopeAt, slopeOfDraft, undrafted, undraftedShare } from './steep';

const field = (h: (x: number, y: number) => number) => {
  const f = flatField(20, 10, 0.25);
  for (let r = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = h(c * f.cell, r * f.cell);
  return f;
};

describe('draft', () => {
  it('of planes is that of their angle, at the rim too', () => {
    for (const degrees of [3, 30, 45, 80]) {
      const rise = Math.tan((degrees * Math.PI) / 180);
      for (const f of [
        field((x) => x * rise),
        field((_, y) => -y * rise),
        field((x, y) => ((x + y) * rise) / Math.SQRT2),
      ])
        for (const [c, r] of [
          [0, 0],
          [40, 20],
          [f.cols - 1, f.rows - 1],
        ])
          expect((Math.atan(slopeAt(f, c, r)) * 180) / Math.PI).toBeCloseTo(degrees, 3);
      // A wall that leans by 90 - degrees from upright has just so much draft.
      const f = field((x) => x * rise);
      expect(undraftedShare(f, 90 - degrees + 0.5)).toBe(1);
      expect(undraftedShare(f, 90 - degrees - 0.5)).toBe(0);
    }
    expect(slopeOfDraft(45)).toBeCloseTo(1, 12);
  });
  it('is missing at an upright wall alone: a row of nodes on either side of it', () => {
    const f = field((x) => (x < 10 ? 0 : 3));
    expect(undraftedShare(f, 5)).toBeCloseTo(2 / f.cols, 12);
    const seen = undrafted(f, f.cols - 1, 8, 5);
    const columns = new Set([...seen.keys()].filter((i) => seen[i]).map((i) => i % (f.cols - 1)));
    expect([...columns].every((c) => Math.abs(c - 40) <= 2)).toBe(true);
    expect(columns.size).toBeGreaterThan(0);
  });
  it('does not count what is empty, nor the rim beside it', () => {
    const f = field((x) => (x < 10 ? NaN : -5));
    expect(slopeAt(f, 0, 0)).toBeNaN();
    expect(undraftedShare(f, 5)).toBe(0);
    expect(
      undraftedShare(
        field(() => NaN),
        5,
      ),
    ).toBe(0);
    expect(undrafted(f, 30, 20, 5).every((v) => v === 0)).toBe(true);
  });
  it('is seen with its first row at the greatest Y', () => {
    const f = field((_, y) => (y > 7.6 ? 2 : 0));
    const seen = undrafted(f, 8, 40, 5);
    const rows = [...seen.keys()].filter((i) => seen[i]).map((i) => Math.floor(i / 8));
    // 2.4 mm of ten below the top edge.
    expect(Math.min(...rows)).toBeGreaterThanOrEqual(8);
    expect(Math.max(...rows)).toBeLessThanOrEqual(11);
  });
});

describe('light', () => {
  it('comes from where it is said, as high as it is said, a unit long', () => {
    for (const [from, high, x, y, z] of [
      [0, 0, 1, 0, 0],
      [90, 0, 0, 1, 0],
      [180, 60, -0.5, 0, Math.sqrt(3) / 2],
      [270, 30, 0, -Math.sqrt(3) / 2, 0.5],
    ])
      lightFrom(from, high).forEach((v, k) => expect(v).toBeCloseTo([x, y, z][k], 9));
  });
  it('brightens slopes that look to it, and throws those that look away into the dark', () => {
    const ridge = field((x) => -0.3 * Math.abs(x - 10));
    for (const from of [0, 180]) {
      const s = shade(ridge, 40, 20, 0, lightFrom(from, 20));
      const [left, right] = [s[10 * 40 + 8], s[10 * 40 + 32]];
      expect(from === 0 ? right - left : left - right).toBeGreaterThan(0.3);
    }
    // From straight above both are alike.
    const s = shade(ridge, 40, 20, 0, lightFrom(123, 90));
    expect(s[10 * 40 + 8]).toBeCloseTo(s[10 * 40 + 32], 5);
  });
});
