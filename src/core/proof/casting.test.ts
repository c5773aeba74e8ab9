import fc from 'fast-check';
import { real } from '../testing/real';
import type { Cutter } from '../cutters/cutter';
import { islandMesh } from '../exchange/mesh/island';
import { readMesh } from '../exchange/mesh/read';
import { writeStl } from '../exchange/mesh/writeStl';
import { flatField, type HeightField } from '../relief/field';
import { seeded } from '../testing/seeded';
import { cutterOf, library } from '../testing/job';
import { volumeOf as volumeOfMesh } from '../testing/meshes';
import { castOf, cutClosely, heldBy, volumeOf } from './casting';
import { placeProgram } from './placed';
import { createSimulation } from './simulate';

const blank = { width: 40, height: 30 };
const head = (rpm = 12000) => `G21 G90 G17\nT1 M6\nS${rpm} M3\n`;
const volume = (text: string, cutter: Cutter, level: number | null = null): number => {
  const programs = [placeProgram('a.nc', text, { x: 0, y: 0, z: 0 }, ['a'])];
  const tools = new Map([[1, cutter]]);
  const { field } = createSimulation().run(blank, 0.1, programs, tools);
  const casting = castOf(field, 10, level)!;
  return volumeOf(cutClosely(casting, programs, tools, 10), casting.level);
};
const ball = library.find((c) => c.shape === 'ball')!;

/** Goes along the sides of a rectangle, turned about a place, and over all that they hold. */
function rectangle(w: number, h: number, z: number, x: number, y: number, degrees: number): string {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const at = (u: number, v: number) => `X${(x + u * c - v * s).toFixed(6)} Y${(y + u * s + v * c).toFixed(6)}`;
  const lines = [`G0 ${at(-w / 2, -h / 2)} Z5`, `G1 Z${z} F300`];
  for (let v = -h / 2, k = 1; v <= h / 2; v += 2, k = -k)
    lines.push(`G1 ${at((-w / 2) * k, v)} F900`, `G1 ${at((w / 2) * k, v)}`);
  const round = [
    [-w / 2, -h / 2],
    [w / 2, -h / 2],
    [w / 2, h / 2],
    [-w / 2, h / 2],
    [-w / 2, -h / 2],
  ];
  return `${head()}${[...lines, ...round.map(([u, v]) => `G1 ${at(u, v)}`)].join('\n')}\nG0 Z5\nM5\nM30\n`;
}

describe('how much a mould holds', () => {
  it('is the closed form within a thousandth: pockets with upright walls at any place and angle', () => {
    const r = 1.5;
    const check = (w: number, h: number, d: number, x: number, y: number, degrees: number) => {
      const want = ((w + 2 * r) * (h + 2 * r) - (4 - Math.PI) * r * r) * d;
      expect(Math.abs(volume(rectangle(w, h, -d, x, y, degrees), cutterOf('flat-3')) / want - 1)).toBeLessThan(1e-3);
    };
    for (const degrees of [0, 15, 30, 45, 60, 90]) check(12, 6, 2, 20, 15, degrees);
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: 2, max: 16 }), fc.integer({ min: 2, max: 10 }), fc.integer({ min: 1, max: 9 })),
        fc.tuple(real(18, 22), real(13, 17)),
        fc.integer({ min: 0, max: 180 }),
        ([w, h, d], [x, y], degrees) => check(w, h, d / 2, x, y, degrees),
      ),
      { numRuns: 12 },
    );
  });

  it('is that of a groove by a V-bit, of a bore by a ball, of a ring by an arc', () => {
    const [d, l] = [3, 18];
    const t = d * Math.tan(Math.PI / 6);
    const groove = `${head()}G0 X11 Y15 Z5\nG1 Z-${d} F300\nG1 X${11 + l} F900\nG0 Z5\nM5\nM30\n`;
    expect(volume(groove, cutterOf('v-12-60-0')) / (l * d * t + (Math.PI * t * t * d) / 3)).toBeCloseTo(1, 3);
    const r = Number(ball.values.diameter) / 2;
    const deep = 0.8 * r;
    const bore = `${head()}G0 X20 Y15 Z5\nG1 Z-${deep} F300\nG0 Z5\nM5\nM30\n`;
    expect(volume(bore, ball) / ((Math.PI * deep * deep * (3 * r - deep)) / 3)).toBeCloseTo(1, 3);
    const ring = `${head()}G0 X28 Y15 Z5\nG1 Z-2 F300\nG3 X28 Y15 I-8 J0 F900\nG0 Z5\nM5\nM30\n`;
    expect(volume(ring, cutterOf('flat-3')) / (2 * Math.PI * 8 * 3 * 2)).toBeCloseTo(1, 3);
  });

  it('ends at the level that it is filled to', () => {
    const text = rectangle(12, 6, -3, 20, 15, 0);
    const area = 15 * 9 - (4 - Math.PI) * 2.25;
    expect(volume(text, cutterOf('flat-3'), -1) / (area * 2)).toBeCloseTo(1, 3);
    // Filled over the rim, it stands on all of the blank, as far as the nodes of its proof reach.
    expect(volume(text, cutterOf('flat-3'), 0.5) / (area * 3 + 40 * 30 * 0.5)).toBeCloseTo(1, 3);
  });
});

describe('a casting', () => {
  const mould = (): HeightField => {
    const f = flatField(20, 10, 0.5);
    // A step: the left is deeper.
    for (let r = 4; r <= 16; r++) for (let c = 4; c <= 30; c++) f.z[r * f.cols + c] = c < 12 ? -3 : -1;
    return f;
  };
  it('is what the mould holds, turned over', () => {
    const cast = castOf(mould(), 8)!;
    expect([cast.thickness, cast.level, cast.through]).toEqual([3, 0, null]);
    const { field: f } = cast;
    // A node more than it fills to each side.
    expect([f.cols, f.rows]).toEqual([29, 15]);
    expect(cast.size).toEqual([27 * 0.5, 13 * 0.5]);
    expect(cast.from).toEqual({ x0: 1.5, y0: 1.5, x1: 15.5, y1: 8.5 });
    const row = [...f.z.slice(7 * f.cols, 8 * f.cols)];
    // What was left lies right, and what was deepest is highest.
    expect(row).toEqual([-3, ...new Array<number>(19).fill(-2), ...new Array<number>(8).fill(0), -3]);
  });
  it('is none where nothing is cut, and runs out where the blank is cut through', () => {
    expect(castOf(flatField(20, 10, 0.5), 8)).toBeNull();
    expect(castOf(mould(), 8, -5)).toBeNull();
    const f = mould();
    f.z[8 * f.cols + 20] = -8.2;
    expect(castOf(f, 8)!.through).toEqual({ x: 10, y: 4 });
    expect(castOf(f, 8)!.thickness).toBe(8);
  });
  it('is held where it leans too little, and the place is on a wall', () => {
    const held = (text: string, cutter: Cutter, draft: number) => {
      const programs = [placeProgram('a.nc', text, { x: 0, y: 0, z: 0 }, ['a'])];
      const tools = new Map([[1, cutter]]);
      const cast = castOf(createSimulation().run(blank, 0.1, programs, tools).field, 10)!;
      return heldBy(cutClosely(cast, programs, tools, 10), cast.level, draft, programs, tools);
    };
    const cone = cutterOf('cone-3.175-10-0.1');
    // Walls of 10 degrees, along an axis and at any angle, with corners that both walls meet in.
    for (const degrees of [0, 31, 45]) {
      const text = rectangle(12, 6, -3, 20, 15, degrees);
      expect(held(text, cone, 9.8).share).toBe(0);
      expect(held(text, cone, 10.2).share).toBeGreaterThan(0.02);
    }
    // Upright ones, however low.
    const low = held(rectangle(12, 6, -0.3, 20, 15, 0), cutterOf('flat-3'), 3);
    expect(low.share).toBeGreaterThan(0);
    const away = Math.min(Math.abs(Math.abs(low.at!.x - 20) - 7.5), Math.abs(Math.abs(low.at!.y - 15) - 4.5));
    expect(away).toBeLessThan(0.2);
    // Walls above what it is filled to hold nothing.
    const part = (level: number) => {
      // An upright rim of half a millimetre over leaning walls.
      const rim = rectangle(12, 6, -3, 20, 15, 0).replace('M5\nM30\n', '');
      const text = `${rim}T2 M6\nG0 X12.5 Y10.5 Z5\nG1 Z-0.5 F300\nG1 X27.5 F900\nG1 Y19.5\nG1 X12.5\nG1 Y10.5\nG0 Z5\nM5\nM30\n`;
      const programs = [placeProgram('a.nc', text, { x: 0, y: 0, z: 0 }, ['a'])];
      const tools = new Map([
        [1, cone],
        [2, cutterOf('flat-3')],
      ]);
      const cast = castOf(createSimulation().run(blank, 0.1, programs, tools).field, 10, level)!;
      return heldBy(cutClosely(cast, programs, tools, 10), cast.level, 5, programs, tools).share;
    };
    expect(part(0)).toBeGreaterThan(0);
    expect(part(-0.5)).toBe(0);
    // A step that is no wall.
    expect(held(rectangle(12, 6, -0.1, 20, 15, 0), cutterOf('flat-3'), 3).share).toBe(0);
  });
  it('is held by walls that an earlier cutting has left too', () => {
    const found = flatField(20, 10, 0.05);
    for (let r = 60; r <= 140; r++) for (let c = 80; c <= 300; c++) found.z[r * found.cols + c] = -3;
    const cast = castOf(found, 10)!;
    const closely = cutClosely(cast, [], new Map(), 10, found);
    expect(volumeOf(closely, 0)).toBeGreaterThan(3 * 11 * 4);
    const { share, at } = heldBy(closely, 0, 3, [], new Map(), found);
    expect(share).toBeGreaterThan(0.01);
    const off = Math.min(Math.abs(at!.x - 4), Math.abs(at!.x - 15), Math.abs(at!.y - 3), Math.abs(at!.y - 7));
    expect(off).toBeLessThan(0.2);
    // Not looked at, they would not be told.
    expect(heldBy(closely, 0, 3, [], new Map()).share).toBe(0);
  });
});

describe('a casting as a mesh', () => {
  /** Whether each edge is run through as often in one sense as in the other. */
  const closed = (corners: ArrayLike<number>): boolean => {
    const edges = new Map<string, number>();
    const key = (k: number) => `${corners[k]},${corners[k + 1]},${corners[k + 2]}`;
    for (let i = 0; i < corners.length; i += 9)
      for (let e = 0; e < 3; e++) {
        const [p, q] = [key(i + 3 * e), key(i + 3 * ((e + 1) % 3))];
        edges.set(`${p}|${q}`, (edges.get(`${p}|${q}`) ?? 0) + 1);
        edges.set(`${q}|${p}`, (edges.get(`${q}|${p}`) ?? 0) - 1);
      }
    return [...edges.values()].every((n) => n === 0);
  };
  it('is closed, has no part without thickness, and holds its volume', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 9 }), (seed, n) => {
        const random = seeded(seed);
        const f = flatField(n, n - 0.5, 0.5);
        // Islands, holes in them, the rim of the field too.
        for (let i = 0; i < f.z.length; i++) f.z[i] = random() < 0.4 ? -2 : -2 * random();
        const { corners } = readMesh('cast.stl', writeStl(islandMesh(f, -2).mesh, 'Cast'));
        expect(closed(corners)).toBe(true);
        let want = 0;
        const up = (c: number, r: number) => f.z[r * f.cols + c] + 2;
        // Of a triangle, its area times the mean of its heights.
        for (let r = 0; r + 1 < f.rows; r++)
          for (let c = 0; c + 1 < f.cols; c++)
            want += ((2 * (up(c, r) + up(c + 1, r + 1)) + up(c + 1, r) + up(c, r + 1)) / 6) * 0.25;
        expect(volumeOfMesh({ corners })).toBeCloseTo(want, 4);
        for (let i = 0; i < corners.length; i += 9) {
          const [ax, ay, az, bx, by, bz, cx, cy, cz] = corners.slice(i, i + 9);
          const looksUp = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax) > 0;
          if (looksUp) expect(Math.max(az, bz, cz)).toBeGreaterThan(0);
        }
      }),
      { numRuns: 200 },
    );
  });
});
