import fc from 'fast-check';
import { followed, levelLine, uprightLine } from './line';

const size = fc.record({ width: fc.integer({ min: 5, max: 2000 }), height: fc.integer({ min: 5, max: 2000 }) });

describe('a section line', () => {
  it('through the whole blank goes through the whole of any other', () => {
    fc.assert(
      fc.property(size, size, (a, b) => {
        const near = (l: ReturnType<typeof levelLine>, w: typeof l) =>
          (['x0', 'y0', 'x1', 'y1'] as const).forEach((k) => expect(l[k]).toBeCloseTo(w[k], 6));
        near(followed(levelLine(a), a, b), levelLine(b));
        const up = followed(uprightLine(a), a, b);
        // Its place along the width stays, as long as there is one.
        if (a.width / 2 <= b.width) near(up, { ...uprightLine(b), x0: a.width / 2, x1: a.width / 2 });
        else near(up, levelLine(b));
      }),
    );
  });
  it('stays where it was put while the blank is under it, and comes back to it when it is not', () => {
    const mine = { x0: 20, y0: 30, x1: 60, y1: 35 };
    expect(followed(mine, { width: 300, height: 200 }, { width: 100, height: 50 })).toEqual(mine);
    expect(followed(mine, { width: 300, height: 200 }, { width: 15, height: 50 })).toEqual(
      levelLine({ width: 15, height: 50 }),
    );
    expect(followed(mine, { width: 300, height: 200 }, { width: 300, height: 20 })).toEqual(
      levelLine({ width: 300, height: 20 }),
    );
  });
});
