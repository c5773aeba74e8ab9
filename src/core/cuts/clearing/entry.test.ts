import fc from 'fast-check';
import { real } from '../../testing/real';
import { MotionBuilder, PLUNGE, RAPID, moveLength, type Motion } from '../../motion/motion';
import { fitArcs, pointAt } from '../../motion/arcPolyline';
import { bruteDistance } from '../../testing/independent';
import { box, circleLoop } from '../../testing/shapes';
import { enter, enterOpen, entryPlace, type EntryMoves } from './entry';

const moves: EntryMoves = {
  clearance: 2,
  approach: 0.5,
  stockTop: 0,
  feed: 1000,
  plunge: 300,
  ramp: 3,
  entry: 'ramp',
  radius: 1.5,
};
/** The steepest cutting move that also goes sideways, in degrees; and the longest way straight down in material. */
function steepness(m: Motion, face: number): { ramp: number; straight: number } {
  let ramp = 0;
  let straight = 0;
  for (let i = 1; i < m.count; i++) {
    const drop = m.z[i - 1] - m.z[i];
    if (m.kind[i] === RAPID || drop <= 1e-12) continue;
    const l = moveLength(m, i);
    const across = Math.sqrt(Math.max(0, l * l - drop * drop));
    if (across > 1e-9) ramp = Math.max(ramp, (Math.atan2(drop, across) * 180) / Math.PI);
    else straight = Math.max(straight, Math.min(m.z[i - 1], face) - m.z[i]);
  }
  return { ramp, straight };
}
const depth = real(0.1, 6);
const angle = real(1, 20);

describe('coming down', () => {
  it('along a closed track keeps the drawn angle, ends at the depth and on the track', () => {
    fc.assert(
      fc.property(depth, angle, real(3, 40), real(0, 1), (d, ramp, side, share) => {
        const t = fitArcs(box(0, 0, side, side), true, 1e-3);
        const b = new MotionBuilder();
        const p = pointAt(t, share * t.length);
        b.rapid(p.x, p.y, 10);
        const s = enter(b, t, { s: share * t.length, helix: null }, { ...moves, ramp }, -d, 0);
        const m = b.build();
        const got = steepness(m, 0);
        expect(got.ramp).toBeLessThan(ramp + 1e-6);
        expect(got.straight).toBeLessThan(1e-9);
        expect(m.z[m.count - 1]).toBeCloseTo(-d, 9);
        const q = pointAt(t, s);
        expect(Math.hypot(m.x[m.count - 1] - q.x, m.y[m.count - 1] - q.y)).toBeLessThan(1e-6);
      }),
    );
  });
  it('along an open track goes to and fro, ends at its start, and keeps the angle', () => {
    fc.assert(
      fc.property(depth, angle, real(2, 50), (d, ramp, length) => {
        const t = fitArcs(Float64Array.of(0, 0, length / 2, 0, length / 2, length / 2), false, 1e-3);
        const b = new MotionBuilder();
        b.rapid(0, 0, 10);
        enterOpen(b, t, { ...moves, ramp }, -d, 0, false);
        const m = b.build();
        expect(steepness(m, 0).ramp).toBeLessThan(ramp + 1e-6);
        expect(m.z[m.count - 1]).toBeCloseTo(-d, 9);
        expect(Math.hypot(m.x[m.count - 1], m.y[m.count - 1])).toBeLessThan(1e-9);
      }),
    );
  });
  it('by a helix finds the widest that there is room for, at the first of its places', () => {
    fc.assert(
      fc.property(real(2.2, 9), real(2.2, 9), real(0, 1), real(1.5, 2.1), (w, h, share, away) => {
        const wall = box(-w, -h, w, h);
        fc.pre(away < Math.min(w, h));
        const t = fitArcs(box(away - w, away - h, w - away, h - away), true, 1e-3);
        const room = (x: number, y: number) => bruteDistance([wall], x, y);
        const s = share * t.length;
        const found = entryPlace(t, s, { ...moves, entry: 'helix', wallClearance: room });
        // The same, asked everywhere.
        const all = [0.9, 0.6, 0.35].flatMap((f) =>
          Array.from({ length: 32 }, (_, i) => (s + (t.length * i) / 32) % t.length).flatMap((at) =>
            [1, -1].map((side) => {
              const [r, p] = [f * moves.radius, pointAt(t, at)];
              return { r, at, side, p, spare: room(p.x - side * r * p.dy, p.y + side * r * p.dx) - moves.radius - r };
            }),
          ),
        );
        fc.pre(all.every(({ spare }) => Math.abs(spare) > 1e-7));
        const wanted = all.find(({ spare }) => spare > 0);
        if (!wanted) return expect(found.helix).toBeNull();
        expect(found.s).toBeCloseTo(wanted.at, 6);
        expect(found.helix!.ccw).toBe(wanted.side > 0);
        expect(Math.hypot(found.helix!.cx - wanted.p.x, found.helix!.cy - wanted.p.y)).toBeCloseTo(wanted.r, 6);
      }),
    );
  });
  it('by a helix stays off the wall by the cutter, and no post is left inside', () => {
    const wall = circleLoop(400, 8, 20, 20);
    const m0: EntryMoves = { ...moves, entry: 'helix', wallClearance: (x, y) => bruteDistance([wall], x, y) };
    const t = fitArcs(circleLoop(200, 4, 20, 20), true, 1e-3);
    const place = entryPlace(t, 0, m0);
    expect(place.helix).not.toBeNull();
    const b = new MotionBuilder();
    const p = pointAt(t, place.s);
    b.rapid(p.x, p.y, 10);
    enter(b, t, place, m0, -3, 0);
    const m = b.build();
    const r = Math.hypot(p.x - place.helix!.cx, p.y - place.helix!.cy);
    expect(r).toBeLessThan(m0.radius);
    expect(bruteDistance([wall], place.helix!.cx, place.helix!.cy)).toBeGreaterThanOrEqual(m0.radius + r - 1e-6);
    expect(steepness(m, 0).ramp).toBeLessThan(3 + 1e-6);
    expect(m.z[m.count - 1]).toBeCloseTo(-3, 9);
    // No room beside a narrow slot: it ramps.
    const slot = box(0, 0, 40, 3.2);
    expect(
      entryPlace(fitArcs(box(1.5, 1.5, 38.5, 1.7), true, 1e-3), 0, {
        ...m0,
        wallClearance: (x, y) => bruteDistance([slot], x, y),
      }).helix,
    ).toBeNull();
  });
  it('on a track too tiny for any ramp goes straight down, once', () => {
    for (const open of [true, false]) {
      const t = fitArcs(open ? Float64Array.of(5, 5, 5.01, 5) : box(5, 5, 5.003, 5.003), !open, 1e-6);
      const b = new MotionBuilder();
      const p = pointAt(t, 0);
      b.rapid(p.x, p.y, 10);
      if (open) enterOpen(b, t, moves, -2, 0, false);
      else enter(b, t, { s: 0, helix: null }, moves, -2, 0);
      const m = b.build();
      expect(m.count).toBeLessThan(6);
      expect(m.kind[m.count - 1]).toBe(PLUNGE);
      expect(m.feed[m.count - 1]).toBe(300);
    }
  });
  it('into what is free already needs no ramp', () => {
    const t = fitArcs(Float64Array.of(0, 0, 30, 0), false, 1e-3);
    const b = new MotionBuilder();
    b.rapid(0, 0, 10);
    enterOpen(b, t, moves, -2, 0, true);
    expect(steepness(b.build(), 0).ramp).toBe(0);
  });
});
