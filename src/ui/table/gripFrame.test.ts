import fc from 'fast-check';
import { gripFrame, pulledBy, ROOM } from './gripFrame';

/** A frame in pixels about (50, 80), its Y down, turned anticlockwise. */
function frame(w: number, h: number, degrees: number) {
  const t = (degrees * Math.PI) / 180;
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([i, j]) => {
    const [x, y] = [(i * w) / 2, (j * h) / 2];
    return { x: 50 + x * Math.cos(t) - y * Math.sin(t), y: 80 - x * Math.sin(t) - y * Math.cos(t) };
  });
}
const size = fc.oneof(fc.constantFrom(0, 1, 43, 44, 45, 400), fc.double({ min: 0, max: 100, noNaN: true }));
const turn = fc.oneof(fc.constantFrom(0, 45, 90, 180, -90, 270), fc.double({ min: -360, max: 360, noNaN: true }));

it('leaves what is large enough as it is, and room between the grips of what is not, about the same middle, turned the same', () => {
  fc.assert(
    fc.property(size, size, turn, (w, h, degrees) => {
      const wanted = frame(Math.max(ROOM, w), Math.max(ROOM, h), degrees);
      gripFrame(frame(w, h, degrees), degrees).forEach((p, k) => {
        expect(Math.abs(p.x - wanted[k].x)).toBeLessThan(1e-9);
        expect(Math.abs(p.y - wanted[k].y)).toBeLessThan(1e-9);
      });
    }),
  );
});

it('scales by how far a grip is from the side that stays: both ways by a corner, one by an edge; what has no width or height is scaled along the other', () => {
  expect(pulledBy({ gx: 1, gy: 0, w: 20, h: 10 }, 30, 99, false)).toEqual({ sx: 1.5, sy: 1 });
  expect(pulledBy({ gx: 0, gy: -1, w: 20, h: 10 }, 99, 5, false)).toEqual({ sx: 1, sy: 0.5 });
  expect(pulledBy({ gx: 1, gy: 1, w: 20, h: 10 }, 30, 11, false)).toEqual({ sx: 1.5, sy: 1.5 });
  expect(pulledBy({ gx: 1, gy: 1, w: 20, h: 10 }, 30, 11, true)).toEqual({ sx: 1.5, sy: 1.1 });
  expect(pulledBy({ gx: 1, gy: 1, w: 50, h: 0 }, 60, 7, false)).toEqual({ sx: 1.2, sy: 1.2 });
  expect(pulledBy({ gx: 1, gy: 1, w: 50, h: 0 }, 60, 7, true)).toEqual({ sx: 1.2, sy: 1 });
  expect(pulledBy({ gx: 0, gy: 1, w: 50, h: 0 }, 0, 7, false)).toEqual({ sx: 1, sy: 1 });
  const side = fc.constantFrom(-1, 0, 1);
  const pull = fc.oneof(fc.constantFrom(0, -0, -5, 1e9), fc.double({ min: -1e6, max: 1e6, noNaN: true }));
  fc.assert(
    fc.property(side, side, size, size, pull, pull, fc.boolean(), (gx, gy, w, h, along, across, free) => {
      const { sx, sy } = pulledBy({ gx, gy, w, h }, along, across, free);
      for (const k of [sx, sy]) expect(Number.isFinite(k) && k >= 0.02).toBe(true);
      if (gx === 0 && gy !== 0) expect(sx).toBe(1);
    }),
  );
});
