import fc from 'fast-check';
import { real } from '../testing/real';
import { thickness } from './thickness';

const nowhere = () => NaN;

describe('how much stands at a place', () => {
  it('over a plane is its way across it, however that lies and runs', () => {
    fc.assert(
      fc.property(real(-3, 3), real(-3, 3), real(0.01, 2), (sx, sy, over) => {
        const across = over / Math.sqrt(1 + sx * sx + sy * sy);
        const is = thickness((x, y) => sx * x + sy * y, 1, 2, sx + 2 * sy + over, over, across / 20);
        expect(is).toBeGreaterThan(across * (1 - 1e-9));
        expect(is).toBeLessThan(across * 1.03);
      }),
    );
  });

  it('beside an upright wall is its way to that, whichever way it faces, or down where that is shorter', () => {
    fc.assert(
      fc.property(real(0, 360), real(0.05, 3), real(0.05, 3), (turn, aside, over) => {
        const [ux, uy] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
        const wall = (x: number, y: number) => (x * ux + y * uy > aside ? 0 : -5);
        const is = thickness(wall, 0, 0, over - 5, over, 0.005);
        const least = Math.min(aside, over);
        expect(is).toBeGreaterThan(least * (1 - 1e-9));
        // A wall that none of the ways to look meets nearer than what lies below is not seen.
        const aslant = aside / Math.cos(Math.PI / 8);
        expect(is).toBeLessThan(aslant < over ? least * 1.02 + 0.0005 : Math.min(aslant, over) + 0.0005);
      }),
    );
  });

  it('is what lies below where there is nothing of the surface beside it', () => {
    expect(thickness(nowhere, 0, 0, 1, 0.7, 0.01)).toBe(0.7);
    // What is not there at all (endlessly high) is as thick as was asked for.
    expect(thickness(() => -1, 0, 0, Infinity, 0.5, 0.01)).toBe(0.5);
  });
});
