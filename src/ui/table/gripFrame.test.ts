import fc from 'fast-check';
import { gripFrame, ROOM } from './gripFrame';

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
