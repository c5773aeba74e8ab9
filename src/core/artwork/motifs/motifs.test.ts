import { shapeWith } from '../item';
import { itemKindOf } from '../registry';
import { boundsOfPaths, flatten, type Path } from '../../geometry/path';
import { normalise, regionArea, type Region } from '../../geometry/region';
import { testArt } from '../../testing/fonts';
import { motifPaths, motifs } from './motifs';

const region = (paths: readonly Path[]): Region =>
  normalise(
    paths.map((p) => flatten(p, 0.02)),
    'nonzero',
  );
const shape = (kind: string, values: object) =>
  shapeWith(kind, { ...(itemKindOf(kind).defaults as object), ...values }, testArt);

describe('motifs', () => {
  test('there are at least 24, each with a name, a group and words of its own', () => {
    expect(motifs.length).toBeGreaterThanOrEqual(24);
    expect(new Set(motifs.map((m) => m.id)).size).toBe(motifs.length);
    expect(new Set(motifs.map((m) => m.name)).size).toBe(motifs.length);
  });
  test.each(motifs.map((m) => [m.id]))('%s draws closed outlines with ink, inside its box', (id) => {
    const paths = motifPaths(id);
    expect(paths.length).toBeGreaterThan(0);
    for (const p of paths) expect(p.closed).toBe(true);
    const b = boundsOfPaths(paths)!;
    expect(Math.max(-b.x0, -b.y0, b.x1, b.y1)).toBeLessThan(70);
    const area = regionArea(region(paths));
    expect(area).toBeGreaterThan(50);
    expect(area).toBeLessThan(100 * 100);
  });
  test.each(motifs.filter((m) => m.group === 'Borders').map((m) => [m.id, m.pitch!]))(
    '%s joins its neighbour: its ink does not reach beyond half of the next',
    (id, pitch) => {
      const b = boundsOfPaths(motifPaths(id))!;
      expect(b.x1 - b.x0).toBeLessThan(1.6 * pitch);
    },
  );
  test('a motif fills the width and height it is given', () => {
    const s = shape('motif', { motif: 'boat', width: 80, height: 30 });
    const b = boundsOfPaths(s.paths)!;
    expect([b.x0, b.y0, b.x1, b.y1]).toEqual([-40, -15, 40, 15].map((v) => expect.closeTo(v, 6)));
  });
});

describe('a border', () => {
  test('fits whole repeats between its corners, all four sides alike', () => {
    const s = shape('border', {
      motif: 'border-bead',
      corner: 'none',
      width: 200,
      height: 100,
      size: 10,
      cornerSize: 10,
    });
    const discs = s.paths.map((p) => boundsOfPaths([p])!);
    // Pitch 40 units at a height of 10 mm for 50 units: 8 mm. 180 mm take 23 of them, 80 mm take 10.
    expect(discs.length).toBe(2 * 2 * (23 + 10));
    // Turned by half it is the same border.
    for (const d of discs) expect(discs.some((e) => Math.hypot(e.x0 + d.x1, e.y0 + d.y1) < 1e-6)).toBe(true);
    const b = boundsOfPaths(s.paths)!;
    expect(b.x1).toBeLessThanOrEqual(100);
    expect(b.y1).toBeLessThanOrEqual(50);
  });
  test('has four corner pieces, mirrored', () => {
    const plain = region(shape('border', { corner: 'none', cornerSize: 10, size: 10 }).paths);
    const withCorners = region(shape('border', { corner: 'corner-rose', cornerSize: 10, size: 10 }).paths);
    const one = regionArea(region(motifPaths('corner-rose'))) * 0.01;
    expect((regionArea(withCorners) - regionArea(plain)) / (4 * one)).toBeCloseTo(1, 2);
  });
  test('round a ring goes round whole, as wide as it is high', () => {
    const s = shape('border', { around: 'ring', motif: 'border-key', radius: 60, size: 10 });
    let low = Infinity;
    let high = 0;
    for (const p of s.paths) {
      const f = flatten(p, 0.005);
      for (let i = 0; i < f.length; i += 2) {
        low = Math.min(low, Math.hypot(f[i], f[i + 1]));
        high = Math.max(high, Math.hypot(f[i], f[i + 1]));
      }
    }
    expect(low).toBeCloseTo(55, 1);
    expect(high).toBeCloseTo(65, 1);
    // The fret is joined all round: one piece of ink.
    expect(region(s.paths).filter((l) => l.length > 0 && regionArea([l]) > 0).length).toBe(1);
  });
});
