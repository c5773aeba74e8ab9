import fc from 'fast-check';
import { MotionBuilder, withoutArcs } from './motion';
import { BOX, SHEAF, sheavesOf } from './sheaves';

const place = fc
  .tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 300 }), fc.integer({ min: -40, max: 20 }))
  .map((p) => p.map((v) => v / 4));

test('every sheaf lies in its box, arcs and the way from the move before included, and the length is that of all cutting moves', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(place, fc.integer({ min: 0, max: 5 })), { minLength: 2, maxLength: 40 }),
      fc.integer({ min: 1, max: 90 }),
      (some, times) => {
        const b = new MotionBuilder();
        b.rapid(0, 0, 5);
        let length = 0;
        for (let k = 0; k < times; k++)
          for (const [[x, y, z], kind] of some) {
            const [lx, ly, lz] = [b.lastX, b.lastY, b.lastZ];
            if (kind === 0) b.rapid(x, y, z);
            else if (kind < 4) {
              b.line(x, y, z, 900);
              length += Math.hypot(x - lx, y - ly, z - lz);
            } else {
              // A half turn to the right place, about the middle.
              const flat = Math.hypot(x - lx, y - ly);
              if (!flat) continue;
              b.arc(kind === 4, x, y, z, (lx + x) / 2, (ly + y) / 2, 900);
              length += Math.hypot((Math.PI * flat) / 2, z - lz);
            }
          }
        const m = b.build();
        const { boxes, count, length: found } = sheavesOf(m);
        expect(count).toBe(Math.ceil(m.count / SHEAF));
        expect(found).toBeCloseTo(length, 4);
        for (let i = 1; i < m.count; i++) {
          const [x0, y0, x1, y1, z0] = boxes.subarray(BOX * Math.floor(i / SHEAF));
          const one = new MotionBuilder();
          one.rapid(m.x[i - 1], m.y[i - 1], m.z[i - 1]);
          if (m.kind[i] > 2) one.arc(m.kind[i] === 4, m.x[i], m.y[i], m.z[i], m.cx[i], m.cy[i], 1);
          else one.line(m.x[i], m.y[i], m.z[i], 1);
          const way = withoutArcs(one.build(), 0.05);
          for (let k = 0; k < way.count; k++) {
            expect(way.x[k]).toBeGreaterThanOrEqual(x0 - 1e-9);
            expect(way.x[k]).toBeLessThanOrEqual(x1 + 1e-9);
            expect(way.y[k]).toBeGreaterThanOrEqual(y0 - 1e-9);
            expect(way.y[k]).toBeLessThanOrEqual(y1 + 1e-9);
            expect(way.z[k]).toBeGreaterThanOrEqual(z0 - 1e-9);
          }
        }
      },
    ),
    { numRuns: 12 },
  );
});
