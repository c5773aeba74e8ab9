import fc from 'fast-check';
import { shippedLibrary } from '@/core/cutters/library';
import { MotionBuilder } from '@/core/motion/motion';
import { cutRows } from '@/core/proof/cutting';
import type { Rows } from '@/core/kernels/removal';
import type { PlacedProgram } from '@/core/proof/placed';
import { createSimulation } from '@/core/proof/simulate';
import { handsOver, lendHand, sharedHeights, type Shared } from './hands';

const library = shippedLibrary();
const tools = new Map(['v-12-60-0', 'flat-6', 'ball-3'].map((id, i) => [i + 1, library.find((c) => c.id === id)!]));
const BLANK = { width: 90, height: 70 };
const CELL = 0.25;

/** Lines across the blank with each cutter, some by rapid through what stands there, some deeper than the cutting edges. */
function programs(seed: number, dense: number): PlacedProgram[] {
  let s = seed;
  const random = () => (s = (s * 48271) % 2147483647) / 2147483647;
  const stretches = [...tools.keys()].map((tool, k) => {
    const b = new MotionBuilder();
    b.rapid(5, 5, 10);
    for (let line = 0; line < 12; line++) {
      const [x0, y0, x1, y1] = [random() * 90, random() * 70, random() * 90, random() * 70];
      b.rapid(x0, y0, 10);
      b.plunge(-1, 300);
      for (let i = 1; i <= dense; i++)
        b.line(x0 + ((x1 - x0) * i) / dense, y0 + ((y1 - y0) * i) / dense, -1 - 2 * random(), 900);
      if (line % 4 === 1) b.rapid(x0, y0, -0.5);
      if (line % 4 === 2) b.line(x0, y0, -24, 300);
      b.lift(10);
    }
    const motion = b.build();
    return {
      tool,
      cutId: `c${k}`,
      motion,
      firstLine: 0,
      line: new Int32Array(motion.count),
      rpm: new Float64Array(motion.count),
    };
  });
  return [{ file: 'a.nc', ended: true, toolChanges: 0, dwell: 0, sections: stretches }];
}
const alone = (p: PlacedProgram[]) => createSimulation().run(BLANK, CELL, p, tools);
const withHands = (ports: { postMessage(s: Shared): void }[], silence?: number) =>
  createSimulation({ hands: handsOver(ports, { silence, worth: 0 }), memory: sharedHeights });

/** One who takes a band, cuts some of it and dies. */
const dying = {
  postMessage(s: Shared) {
    const k = Atomics.add(s.board, 0, 1);
    Atomics.add(s.board, 2, 1);
    if (k >= s.bands.length) return;
    let runs = 0;
    try {
      cutRows(s.work, s.bands[k], () => {
        if (++runs === 3) throw new Error('killed');
      });
    } catch {
      // It says nothing any more.
    }
  },
};
/** One who takes a single band and goes. */
const short = {
  postMessage(s: Shared) {
    const mine = { ...s, bands: s.bands.slice(0, Atomics.load(s.board, 0) + 1) };
    lendHand(mine);
    // It has looked for one more, which somebody else has to cut.
    Atomics.sub(s.board, 0, 1);
  },
};
const late = { postMessage: () => {} };

describe('cutting by several', () => {
  it('leaves the same surface to the last bit, and meets the same, whoever takes part', () => {
    const crews = { nobody: [], one: [{ postMessage: lendHand }], short: [short, short], late: [late, short, late] };
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom(...(Object.keys(crews) as (keyof typeof crews)[])),
        (seed, crew) => {
          const p = programs(seed, 60);
          const [a, b] = [alone(p), withHands(crews[crew]).run(BLANK, CELL, p, tools)];
          expect(b.collisions).toEqual(a.collisions);
          expect(a.collisions.length).toBeGreaterThan(0);
          expect(Buffer.compare(Buffer.from(a.field.z.buffer), Buffer.from(b.field.z.slice().buffer))).toBe(0);
        },
      ),
      { numRuns: 8 },
    );
  });
  it('takes another field where one was missed who may still cut into this one', () => {
    const seen: Shared[] = [];
    const late = { postMessage: (s: Shared) => (seen.push(s), seen.length === 1 && dying.postMessage(s)) };
    const sim = withHands([late], 60);
    sim.run(BLANK, CELL, programs(77, 60), tools);
    // What it was at when it was missed, and more.
    seen[0].work.field.z.fill(-9);
    const p = programs(78, 60);
    expect(sim.run(BLANK, CELL, p, tools).field.z.slice()).toEqual(alone(p).field.z);
    expect(seen[1].work.field.z).not.toBe(seen[0].work.field.z);
  });
  it('remembers few of the places that a shank meets, the deepest among them, whoever takes part', () => {
    // Down in a slot, level by level, far deeper than the cutting edges: it meets something at every move.
    const b = new MotionBuilder();
    b.rapid(5, 30, 10);
    for (let level = 1; level <= 160; level++) {
      b.plunge(-level / 4, 300);
      for (let i = 1; i <= 80; i++) b.line(5 + (level % 2 ? i : 80 - i), 30, -level / 4, 900);
    }
    const motion = b.build();
    const [line, rpm] = [new Int32Array(motion.count), new Float64Array(motion.count)];
    const sections = [{ tool: 2, cutId: 'slot', motion, firstLine: 0, line, rpm }];
    const p: PlacedProgram[] = [{ file: 'a.nc', ended: true, toolChanges: 0, dwell: 0, sections }];
    const thick = new Map([[2, { ...tools.get(2)!, shankDiameter: 8, fluteLength: 10 }]]);
    const one = createSimulation().run(BLANK, CELL, p, thick);
    for (const crew of [[], [short, short], [late, short]])
      expect(withHands(crew).run(BLANK, CELL, p, thick).collisions).toEqual(one.collisions);
    expect(one.collisions.length).toBeGreaterThan(100);
    expect(one.collisions.length).toBeLessThanOrEqual(1001);
    // The shank is in the material by the 30 mm that the last level is deeper than the edges.
    expect(Math.max(...one.collisions.map((c) => c.depth))).toBeCloseTo(30, 1);
  });
  it('cuts anew what one who died has left', () => {
    const p = programs(77, 60);
    const [a, b] = [alone(p), withHands([dying, short], 60).run(BLANK, CELL, p, tools)];
    expect(b.collisions).toEqual(a.collisions);
    expect(b.field.z.slice()).toEqual(a.field.z);
  });
  it('given up in the middle, leaves nobody at the field and begins again from the start', () => {
    const p = programs(5, 90);
    let seen: Shared | null = null;
    const sim = withHands([{ postMessage: (s) => void (seen = s) }]);
    expect(() =>
      sim.run(BLANK, CELL, p, tools, (done) => {
        if (done > 0.3) throw new Error('enough');
      }),
    ).toThrow('enough');
    const before = seen!.work.field.z.slice();
    // Whoever comes only now is told that it is over.
    lendHand(seen!);
    expect(seen!.work.field.z.slice()).toEqual(before);
    expect(sim.run(BLANK, CELL, p, tools).field.z.slice()).toEqual(alone(p).field.z);
  });
  it('tells how far it is, to the end and never back', () => {
    const told: number[] = [];
    withHands([short]).run(BLANK, CELL, programs(9, 300), tools, (d) => told.push(d));
    expect(told.length).toBeGreaterThan(5);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.at(-1)).toBe(1);
  });

  it('shows bands that are ready as they will be, all of them, what is looked at first; whoever takes part', () => {
    const p = programs(7, 700);
    const { field: whole } = alone(p);
    for (const ports of [null, [], [{ postMessage: lendHand }], [dying]]) {
      const means = ports && { hands: handsOver(ports, { silence: 60, worth: 0 }), memory: sharedHeights };
      const ready: Rows[] = [];
      createSimulation(means ?? {}).run(BLANK, CELL, p, tools, () => {}, null, {
        y0: 50,
        y1: 55,
        done(f, { from, to }) {
          ready.push({ from, to });
          const rows = [from * f.cols, to * f.cols] as const;
          expect(f.z.slice(...rows)).toEqual(whole.z.slice(...rows));
        },
      });
      const [first] = ready;
      // Others may have taken the first band, and come back later with it.
      if (!ports?.length) expect([first.from * CELL <= 52.5, first.to * CELL >= 52.5]).toEqual([true, true]);
      // Together they are all rows, each once, but for what one who died had taken.
      const rows = ready.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i));
      expect(new Set(rows).size).toBe(rows.length);
      if (ports?.[0] !== dying) expect(rows.length).toBe(whole.rows);
    }
  });
});
