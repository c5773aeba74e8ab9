import fc from 'fast-check';
import { boxMesh, meshOf, surfaceMesh, volumeOf } from '../testing/meshes';
import { gridOf } from './field';
import { guessMesh } from './guess';
import { boxOfMesh, placed, sizesTurned, standingSize, stood, upSides, type Mesh } from './mesh';
import { meshHeights } from './raster';

describe('a mesh on the blank', () => {
  const odd = boxMesh(-1, 2, 3, 4, 9, 20);
  it('is turned and never mirrored, whichever side looks up', () => {
    expect(volumeOf(odd)).toBeCloseTo(5 * 7 * 17, 3);
    for (const up of upSides)
      for (const turn of [0, 90, -90, 180, 270, 450, 33]) {
        const m = stood(odd, { up, turn, tipX: 0, tipY: 0 });
        expect(volumeOf(m)).toBeCloseTo(5 * 7 * 17, 2);
        const { low, high } = boxOfMesh(m);
        expect(high[2] - low[2]).toBeCloseTo({ x: 5, y: 7, z: 17 }[up[0] as 'x'], 4);
      }
  });
  it('is tipped about X, then about Y, then turned, as matrices say it', () => {
    const rad = (d: number) => (d * Math.PI) / 180;
    const angle = fc.oneof(fc.integer({ min: -360, max: 360 }), fc.constantFrom(0, 45, 90, -90, 180, 270));
    fc.assert(
      fc.property(angle, angle, angle, (tipX, tipY, turn) => {
        const m = stood(
          meshOf([
            [
              [1, 2, 3],
              [0, 0, 0],
              [-4, 1, 2],
            ],
          ]),
          { up: 'z+', tipX, tipY, turn },
        );
        const about = (k: 0 | 1 | 2, degrees: number, p: number[]): number[] => {
          const [i, j] = [(k + 1) % 3, (k + 2) % 3];
          const out = [...p];
          out[i] = Math.cos(rad(degrees)) * p[i] - Math.sin(rad(degrees)) * p[j];
          out[j] = Math.sin(rad(degrees)) * p[i] + Math.cos(rad(degrees)) * p[j];
          return out;
        };
        for (const [at, p] of [
          [0, [1, 2, 3]],
          [6, [-4, 1, 2]],
        ] as const)
          about(2, turn, about(1, tipY, about(0, tipX, [...p]))).forEach((v, k) =>
            expect(Math.abs(m.corners[at + k] - v)).toBeLessThan(1e-5),
          );
      }),
    );
    // A side that looks up is a tip by a quarter.
    const quarter = { tipX: 0, tipY: 0, turn: 0 };
    expect([...stood(odd, { up: 'z+', ...quarter, tipX: 90 }).corners]).toEqual(
      [...stood(odd, { up: 'y+', ...quarter }).corners].map((v) => v + 0),
    );
  });
  it('keeps its shape when it is stood otherwise; what was made shallow only when it is turned', () => {
    const standing = { up: 'z+', tipX: 0, tipY: 0, turn: 0 } as const;
    const own = standingSize(odd, standing);
    expect(own.map((v) => Math.round(v))).toEqual([5, 7, 17]);
    const onSide = standingSize(odd, { ...standing, up: 'y+' });
    // Twice its own size, and twice it stays.
    expect(
      sizesTurned([10, 14, 34], own, onSide, { aboutZ: false, quarters: 0 }).map((v) => Math.round(v * 1e4) / 1e4),
    ).toEqual([10, 34, 14]);
    const turned = standingSize(odd, { ...standing, turn: 90 });
    expect(sizesTurned([10, 21, 2], own, turned, { aboutZ: true, quarters: 1 })).toEqual([21, 10, 2]);
    expect(sizesTurned([10, 21, 2], own, own, { aboutZ: true, quarters: 2 })).toEqual([10, 21, 2]);
    const [w, h, r] = sizesTurned([10, 14, 2], own, standingSize(odd, { ...standing, turn: 45 }), {
      aboutZ: true,
      quarters: null,
    });
    expect(w).toBeCloseTo(24 * Math.SQRT1_2, 3);
    expect(h).toBeCloseTo(w, 3);
    expect(r).toBeCloseTo(2, 6);
  });
  it('shows the side that was asked for', () => {
    // A flag at the far end of each axis tells which way it looks.
    for (const up of upSides) {
      const axis = 'xyz'.indexOf(up[0]);
      const end = [0, 0, 0] as [number, number, number];
      end[axis] = up[1] === '+' ? 8 : -8;
      const m = meshOf([[[0, 0, 0], [1, 1, 1], end]]);
      expect(stood(m, { up, tipX: 0, tipY: 0, turn: 0 }).corners[8]).toBe(8);
    }
  });
  it('lies with its middle and sizes where it is put, from height 0', () => {
    const m = placed(odd, { x: 30, y: 20, width: 10, height: 14, rise: 2 });
    const { low, high } = boxOfMesh(m);
    expect([...low, ...high]).toEqual([25, 13, 0, 35, 27, 2]);
    // Without a thickness there is nothing to stretch.
    const flat = placed(
      meshOf([
        [
          [0, 0, 5],
          [4, 0, 5],
          [0, 4, 5],
        ],
      ]),
      { x: 2, y: 2, width: 4, height: 4, rise: 3 },
    );
    expect(boxOfMesh(flat).high[2]).toBe(0);
  });
  it('is guessed flat and as large as the blank holds', () => {
    const blank = { width: 100, height: 60, thickness: 10 };
    const of = (x: number, y: number, z: number) => guessMesh({ low: [0, 0, 0], high: [x, y, z] }, blank);
    expect(of(40, 30, 4)).toEqual({
      up: 'z+',
      width: 40,
      height: 30,
      rise: 4,
      scale: 1,
      fitting: null,
      shallower: false,
    });
    expect(of(40, 4, 30)).toMatchObject({ up: 'y+', width: 40, height: 30, rise: 4 });
    expect(of(4, 40, 30)).toMatchObject({ up: 'x+', width: 40, height: 30, rise: 4 });
    // Metres and inches taken for millimetres, and a statue.
    expect(of(0.04, 0.03, 0.004).width).toBeGreaterThan(40);
    expect(of(4000, 3000, 400)).toMatchObject({ height: expect.closeTo(54, 6), shallower: true, rise: 5 });
  });
});

/** Heights worked out anew: every triangle is asked by its barycentric coordinates. */
function brute({ corners: t }: Mesh, x: number, y: number): number {
  let best = NaN;
  for (let i = 0; i < t.length; i += 9) {
    const d = (t[i + 3] - t[i]) * (t[i + 7] - t[i + 1]) - (t[i + 6] - t[i]) * (t[i + 4] - t[i + 1]);
    if (d === 0) continue;
    const b = ((x - t[i]) * (t[i + 7] - t[i + 1]) - (t[i + 6] - t[i]) * (y - t[i + 1])) / d;
    const c = ((t[i + 3] - t[i]) * (y - t[i + 1]) - (x - t[i]) * (t[i + 4] - t[i + 1])) / d;
    if (b < -1e-9 || c < -1e-9 || b + c > 1 + 1e-9) continue;
    const z = t[i + 2] + b * (t[i + 5] - t[i + 2]) + c * (t[i + 8] - t[i + 2]);
    if (!(best >= z)) best = z;
  }
  return best;
}

describe('heights of a mesh at the nodes of a grid', () => {
  it('are those of the highest triangle over each node, for any triangles, on the grid or beside it', () => {
    const v = fc.oneof(
      fc.integer({ min: -2, max: 12 }),
      fc.integer({ min: -2000, max: 12000 }).map((k) => k / 1000),
    );
    const broad = fc
      .array(v, { minLength: 9, maxLength: 9 })
      .map((t) => [...Float32Array.from(t)])
      .filter((t) => Math.abs((t[3] - t[0]) * (t[7] - t[1]) - (t[6] - t[0]) * (t[4] - t[1])) > 0.5);
    const g = gridOf(10, 8, 0.5);
    const alike = (a: number, b: number, within: number) =>
      Number.isNaN(a) ? Number.isNaN(b) : Math.abs(a - b) < within;
    fc.assert(
      fc.property(fc.array(broad, { minLength: 1, maxLength: 8 }), (list) => {
        const mesh: Mesh = { corners: Float32Array.from(list.flat()) };
        const z = meshHeights(mesh, g);
        for (let r = 0; r < g.rows; r++)
          for (let c = 0; c < g.cols; c++) {
            const [x, y, got] = [c * g.cell, r * g.cell, z[r * g.cols + c]];
            if (alike(got, brute(mesh, x, y), 1e-4)) continue;
            // Rounding decides at the very edge of a triangle, and there only.
            const beside = [-1, 0, 1].flatMap((i) => [-1, 0, 1].map((j) => brute(mesh, x + i * 1e-5, y + j * 1e-5)));
            expect(beside.some((h) => alike(got, h, 0.01))).toBe(true);
          }
      }),
      { numRuns: 150 },
    );
  });
  it('leave no crack where triangles meet on nodes, at 45 degrees or between them', () => {
    for (const n of [1, 4, 10, 37]) {
      const g = gridOf(10, 10, 0.25);
      const z = meshHeights(
        surfaceMesh(10, n, (x, y) => 0.3 * x - 0.2 * y + 1),
        g,
      );
      for (let r = 0; r < g.rows; r++)
        for (let c = 0; c < g.cols; c++) expect(z[r * g.cols + c]).toBeCloseTo(0.3 * c * 0.25 - 0.2 * r * 0.25 + 1, 5);
    }
  });
  it('of a fine hemisphere are those of the sphere, within its facets, and empty beside it', () => {
    const R = 5;
    const sphere = (x: number, y: number) => Math.sqrt(Math.max(0, R * R - (x - 6) ** 2 - (y - 6) ** 2));
    const mesh = surfaceMesh(12, 300, sphere);
    const g = gridOf(20, 12, 0.1);
    const z = meshHeights(mesh, g);
    let [worst, beside, seen] = [0, 0, 0];
    for (let r = 0; r < g.rows; r++)
      for (let c = 0; c < g.cols; c++) {
        const [x, y] = [c * 0.1, r * 0.1];
        const h = z[r * g.cols + c];
        if (x > 12 + 1e-6) beside += Number(h === h);
        // Near the rim the sphere stands upright, and its facets with it.
        else if (Math.hypot(x - 6, y - 6) < 0.9 * R) {
          seen++;
          worst = Math.max(worst, h === h ? Math.abs(h - sphere(x, y)) : Infinity);
        }
      }
    expect(seen).toBeGreaterThan(6000);
    expect(worst).toBeLessThan(0.002);
    expect(beside).toBe(0);
  });
});
