import { textOf } from '../program/text';
import { regionOf } from '../artwork/item';
import { demoSetups } from '../job/demo';
import { datumOf } from '../job/job';
import { testArt as art } from '../testing/fonts';
import { cutOut, depths, readMoves, scatter, testCone, testFlat, type Cloud } from '../testing/independent';
import { planCut } from './planning';
import { writePrograms } from './programs';

/**
 * The Lock cottage board as its exported program leaves it, cut by the tests' own machine, against outlines
 * flattened far finer than the job does it.
 */
describe('the Lock cottage board', () => {
  const job = demoSetups['lock-cottage-board']();
  const plans = new Map(job.cuts.map((c) => [c.id, planCut(job, c, art)]));
  const programs = writePrograms(job, plans);
  const datum = datumOf(job.blank);
  const moves = programs.files
    .flatMap((f) => readMoves(textOf(f.chunks)))
    .map((m) => ({ ...m, a: place(m.a), b: place(m.b) }));
  function place(p: [number, number, number]): [number, number, number] {
    return [p[0] + datum.x, p[1] + datum.y, p[2] + datum.z];
  }
  const cutters = Object.fromEntries(
    [...programs.tools].map(([n, c]) => [
      n,
      c.shape === 'v' ? testCone(60, 0, c.values.diameter) : testFlat(c.values.diameter),
    ]),
  );
  const region = (...ids: string[]) =>
    regionOf(
      job.items.filter((i) => ids.includes(i.id)),
      art,
      0.0001,
    );
  const cut = (g: Cloud) => {
    cutOut(g, moves, cutters);
    return g;
  };

  it('has walls as the letters want them, and a floor at the limit', () => {
    const letters = region('i-name', 'i-lock');
    const g = cut(scatter(letters, 1200, 0.3, 0.4));
    const d = depths(letters, g);
    const ornament = depths(region('i-leaf', 'i-heron'), g);
    const tan = Math.tan(Math.PI / 6);
    let walls = 0;
    let floors = 0;
    for (let i = 0; i < d.length; i++) {
      // What lies in the ornament is another cut's.
      if (ornament[i] > -0.002) continue;
      const want = -Math.min(Math.max(0, d[i]) / tan, 3);
      expect(want - g.z[i]).toBeLessThan(0.005);
      if (want > -2.98) {
        expect(g.z[i] - want).toBeLessThan(0.005);
        walls++;
      } else {
        // A pointed bit leaves ridges of step / (2 tan a) between lines, up to 1.45 times that where lines turn.
        expect(g.z[i] + 3).toBeLessThan((0.12 / tan) * 1.45);
        floors++;
      }
    }
    expect(walls).toBeGreaterThan(800);
    expect(floors).toBeGreaterThan(60);
  });

  it('has a channel as deep and wide as drawn', () => {
    const channel = region('i-border', 'i-border-in');
    const g = cut(scatter(channel, 1000, 0.3, 0.5));
    const d = depths(channel, g);
    let inside = 0;
    for (let i = 0; i < d.length; i++) {
      // The letters stand more than 3 mm away from the channel.
      if (d[i] <= -3) continue;
      if (d[i] < -0.002) expect(g.z[i]).toBe(0);
      expect(g.z[i]).toBeGreaterThan(-2.5 - 1e-4);
      // The corners of the inner border are rounder than the cutter, those of the outer are not sharp: all is in reach.
      if (d[i] > 0.002) {
        expect(g.z[i]).toBeLessThan(-2.5 + 1e-4);
        inside++;
      }
    }
    expect(inside).toBeGreaterThan(500);
  });

  it('is cut free outside its edge but for six tabs, and nothing inside is touched but by the ornament', () => {
    const edge = region('i-edge');
    const inside = cut(scatter(edge, 1500, 0.1, 0.2));
    const d = depths(edge, inside);
    const ornament = depths(region('i-leaf', 'i-heron'), inside);
    for (let i = 0; i < d.length; i++)
      if (d[i] > 0.002 && d[i] < 10 && ornament[i] < -0.002) expect(inside.z[i]).toBe(0);

    // Along the middle of the slot, a point every 0.1 mm of the edge.
    const [loop] = edge;
    const points: [number, number][] = [];
    let length = 0;
    for (let i = 0; i < loop.length; i += 2) {
      const j = (i + 2) % loop.length;
      const ex = loop[j] - loop[i];
      const ey = loop[j + 1] - loop[i + 1];
      const l = Math.hypot(ex, ey);
      for (let s = Math.ceil(length * 10) / 10; s < length + l; s += 0.1)
        points.push([
          loop[i] + (ex * (s - length)) / l + (3 * ey) / l,
          loop[i + 1] + (ey * (s - length)) / l - (3 * ex) / l,
        ]);
      length += l;
    }
    points.sort((a, b) => a[0] - b[0]);
    const slot = cut({
      x: Float64Array.from(points, (p) => p[0]),
      y: Float64Array.from(points, (p) => p[1]),
      z: new Float64Array(points.length),
    });
    let held = 0;
    for (const z of slot.z) {
      if (z > -18) held++;
      expect(z).toBeLessThan(-18 + 4 + 1e-3);
    }
    // On the cutter's own line a tab of 10 mm is bounded by the cutter's roundness: six tabs, each 10 mm there.
    expect(held * 0.1).toBeGreaterThan(6 * 10 * 0.97);
    expect(held * 0.1).toBeLessThan(6 * 10 * 1.12);
  });

  it('never goes below its bed, and ends high with the spindle off', () => {
    for (const m of moves) expect(m.b[2]).toBeGreaterThan(-18 - job.blank.intoBed - 1e-6);
    for (const f of programs.files) {
      const lines = textOf(f.chunks).trim().split('\n');
      expect(lines.slice(-3).join(' ')).toMatch(/M5.*M30/);
    }
    expect(moves[moves.length - 1].b[2]).toBeGreaterThanOrEqual(job.blank.safeHeight - 1e-6);
  });
});
