import { normalise, type Region } from '../../geometry/region';
import { makeInside } from '../../geometry/inside';
import { cornerReliefs } from '../cornerRelief';
import { distanceToLine } from '../../testing/independent';
import { planOn } from '../../testing/job';
import { icon, leftAt, lettering, sectionsOf } from '../../testing/sections';
import { circleLoop, loop, starLoop, turned } from '../../testing/shapes';

const BLANK = { width: 60, height: 50, thickness: 12 };
const [X, Y] = [30, 25];
const DEEP = 2;

const presets = { stepDown: 1, stepOver: 0.6 };

const RAYS = 720;
const ways = Array.from({ length: RAYS }, (_, k) => [Math.cos((k * Math.PI) / 360), Math.sin((k * Math.PI) / 360)]);
/** Where rays from the middle first pass from what `inside` holds of into what it does not: a wall, within a thousandth. */
function walls(far: readonly number[], at: (x: number[], y: number[]) => Float64Array, inside: (z: number) => boolean) {
  const look = (from: number[], step: number, count: number): number[] => {
    const radii = ways.flatMap((_, k) => Array.from({ length: count }, (_, i) => from[k] + i * step));
    const z = at(
      radii.map((rho, j) => X + rho * ways[Math.floor(j / count)][0]),
      radii.map((rho, j) => Y + rho * ways[Math.floor(j / count)][1]),
    );
    return ways.map((_, k) => {
      const out = Array.from({ length: count }, (_, i) => i).find((i) => i > 0 && !inside(z[k * count + i]));
      expect(out).toBeDefined();
      return from[k] + (out! - 1) * step;
    });
  };
  const coarse = look(
    far.map((r) => r - 2.5),
    0.04,
    90,
  );
  return look(coarse, 0.001, 42).flatMap((r, k) => [X + (r + 0.0005) * ways[k][0], Y + (r + 0.0005) * ways[k][1]]);
}
/** How far along rays from the middle an outline lies. */
const reachOf = (l: Float64Array): number[] =>
  ways.map(([c, s]) => {
    let far = 0;
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [l[j] - X, l[j + 1] - Y, l[i] - X, l[i + 1] - Y];
      const [da, db] = [ay * c - ax * s, by * c - bx * s];
      if (da > 0 === db > 0) continue;
      const t = da / (da - db);
      far = Math.max(far, (ax + t * (bx - ax)) * c + (ay + t * (by - ay)) * s);
    }
    return far;
  });

const cross = (a: number, b: number) =>
  loop(
    ...[a, -b, a, b, b, b, b, a, -b, a, -b, b, -a, b, -a, -b, -b, -b, -b, -a, b, -a, b, -b].map((v, i) =>
      i % 2 ? Y + v : X + v,
    ),
  );

/** Walls of pocket and plug along the rays. */
function halves(outline: Float64Array, pocketMill: string, plugMill: string, corners: number, clearance: number) {
  const region = normalise([outline]);
  const far = reachOf(outline);
  const pocket = { cutters: [pocketMill], depth: DEEP, corners, entry: 'plunge' };
  const plug = { cutter: plugMill, side: 'outside', through: false, depth: DEEP, corners, grow: -clearance };
  return [
    walls(
      far,
      (x, y) => leftAt({ kind: 'area', values: pocket }, region, BLANK, presets, x, y),
      (z) => z < -DEEP / 2,
    ),
    walls(
      far,
      (x, y) => leftAt({ kind: 'profile', values: plug }, region, BLANK, presets, x, y),
      (z) => z > -DEEP / 2,
    ),
  ] as const;
}

describe('the halves of a straight inlay', () => {
  const star = starLoop(5, 15, 8, X, Y);
  it.each([
    ['a star', star, 'flat-2', 'flat-2', 1, 0.05],
    [
      '(long) a cross, turned',
      turned(
        [cross(13, 5)].map((l) => l.map((v, i) => v - (i % 2 ? Y : X))),
        17,
      )[0].map((v, i) => v + (i % 2 ? Y : X)),
      'flat-2',
      'flat-3',
      1.5,
      0.1,
    ],
    ['(long) a cross, of which the pocket has the larger cutter', cross(13, 5), 'flat-3', 'flat-2', 1.5, 0],
  ] as const)(
    '%s: the plug goes in with its clearance all round',
    (_name, outline, pocketMill, plugMill, corners, clearance) => {
      const [pocket, plug] = halves(outline, pocketMill, plugMill, corners, clearance);
      const closed = Float64Array.from([...pocket, pocket[0], pocket[1]]);
      let [least, most] = [Infinity, -Infinity];
      for (let k = 0; k < RAYS; k++) {
        const [px, py, qx, qy] = [pocket[2 * k], pocket[2 * k + 1], plug[2 * k], plug[2 * k + 1]];
        const sign = Math.hypot(px - X, py - Y) >= Math.hypot(qx - X, qy - Y) ? 1 : -1;
        const gap = sign * distanceToLine(closed, qx, qy);
        [least, most] = [Math.min(least, gap), Math.max(most, gap)];
      }
      expect(least).toBeGreaterThan(Math.max(clearance - 0.01, -0.005));
      expect(most).toBeLessThan(clearance + 0.01);
    },
  );

  it.each([
    ['bold lettering', lettering('archivo', 'Fen', 20, X, 16)],
    ['a script', lettering('allura', 'B', 28, X, 12)],
    ['an icon', icon(X, Y)],
  ])('(long) of %s: no overlap anywhere, and away from corners the clearance that was asked for', (_name, at) => {
    const region = at(0.001);
    const [corners, clearance] = [0.5, 0.05];
    const { x, y, count, step, many, corner, out } = sectionsOf(region, 150, 0.3, 1.2, 0.002);
    const pocket = { cutters: ['flat-1'], depth: DEEP, corners, entry: 'plunge' };
    const plug = { cutter: 'flat-1', side: 'outside', through: false, depth: DEEP, corners, grow: -clearance };
    const [into, goes] = [
      leftAt({ kind: 'area', values: pocket }, region, BLANK, presets, x, y, false),
      leftAt({ kind: 'profile', values: plug }, region, BLANK, presets, x, y, false),
    ];
    let [most, far] = [0, 0];
    for (let k = 0; k < many; k++) {
      const z = [...into.subarray(k * count, (k + 1) * count)];
      const h = [...goes.subarray(k * count, (k + 1) * count)];
      const [wall, rim] = [h.findIndex((q) => q > -DEEP / 2), z.findIndex((q) => q < -DEEP / 2)];
      // Of strokes that are narrower than the cutter both halves leave out as much.
      if (wall < 0 || rim < 0) continue;
      const gap = (wall - rim) * step;
      expect(gap).toBeGreaterThan(-0.005);
      // At corners, and where strokes get too narrow, sections are not square across walls.
      if (corner[k] < 2 || Math.abs(rim * step - out) > 0.004) continue;
      far++;
      most = Math.max(most, Math.abs(gap - clearance));
    }
    expect(far).toBeGreaterThan(40);
    expect(most).toBeLessThan(0.01);
  });

  it('(long) have no room for each other where corners stay as they are drawn', () => {
    const [pocket, plug] = halves(star, 'flat-2', 'flat-2', 0, 0.05);
    const tight = ways.map(
      (_, k) => Math.hypot(pocket[2 * k] - X, pocket[2 * k + 1] - Y) - Math.hypot(plug[2 * k] - X, plug[2 * k + 1] - Y),
    );
    expect(Math.min(...tight)).toBeLessThan(-0.2);
  });
});

/** Places round every corner of outlines that turns by more than 20 degrees, on a grid of `step` mm. */
function roundCorners(region: Region, far: number, step: number): { x: number[]; y: number[] } {
  const out = { x: [] as number[], y: [] as number[] };
  for (const l of region)
    for (let n = l.length / 2, i = 0; i < n; i++) {
      const [a, b, c] = [i + n - 1, i, i + 1].map((k) => [l[2 * (k % n)], l[2 * (k % n) + 1]]);
      const turn = Math.atan2(c[1] - b[1], c[0] - b[0]) - Math.atan2(b[1] - a[1], b[0] - a[0]);
      if (Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) < 0.35) continue;
      for (let u = -far; u <= far; u += step)
        for (let w = -far; w <= far; w += step) {
          out.x.push(b[0] + u);
          out.y.push(b[1] + w);
        }
    }
  return out;
}

describe('corner relief', () => {
  const crossed = turned([cross(13, 5).map((v, i) => v - (i % 2 ? Y : X))], 17).map((l) =>
    l.map((v, i) => v + (i % 2 ? Y : X)),
  );
  const both = (region: Region, mill: string, x: number[], y: number[], relieved = true) => {
    const pocket = { cutters: [mill], depth: DEEP, relieved, entry: 'plunge' };
    const plug = { cutter: mill, side: 'outside', through: false, depth: DEEP, relieved, grow: -0.05 };
    return [
      leftAt({ kind: 'area', values: pocket }, region, BLANK, presets, x, y),
      leftAt({ kind: 'profile', values: plug }, region, BLANK, presets, x, y),
    ] as const;
  };
  it.each([
    ['a cross', normalise([cross(13, 5)]), 2],
    ['(long) a cross, turned', normalise(crossed), 3],
    ['(long) a star', normalise([starLoop(5, 15, 6, X, Y)]), 2],
    ['(long) bold lettering', lettering('archivo', 'LE', 24, X - 6, 16)(0.001), 1],
  ])('lets the corners of %s go in, sharp', (_name, region, wide) => {
    const mill = `flat-${wide}`;
    const { x, y } = roundCorners(region, 0.65 * wide, 0.04);
    const [z, h] = both(region, mill, x, y);
    const inside = makeInside(region);
    let [stands, beyond] = [0, 0];
    for (let k = 0; k < x.length; k++) {
      // Where the plug stands nothing of the pocket does.
      if (h[k] > -DEEP / 2) expect(z[k]).toBeLessThan(-DEEP / 2);
      stands += Number(h[k] > -DEEP / 2);
      beyond += Number(z[k] < -DEEP / 2 && !inside(x[k], y[k]));
    }
    expect(stands).toBeGreaterThan(x.length / 8);
    expect(beyond).toBeGreaterThan(20);
    // Without it corners of the plug do not go in.
    const [round, sharp] = both(region, mill, x, y, false);
    expect(x.filter((_, k) => sharp[k] > -DEEP / 2 && round[k] > -DEEP / 2).length).toBeGreaterThan(20);
  });

  it('of right angles takes what the cutter covers on its way into them, and no more', () => {
    const square = normalise([loop(10, 10, 40, 10, 40, 40, 10, 40)]);
    const r = 1.5;
    const { cut } = cornerReliefs(square, { radius: r, outside: false, blank: BLANK }, 0.002);
    expect(cut).toHaveLength(4);
    for (const l of cut) {
      // A disc, moved along the diagonal until it touches the tip: at most 0.05 mm more, since it is a little wider.
      const sx = l[0] > 25 ? 1 : -1;
      const sy = l[1] > 25 ? 1 : -1;
      const at = (d: number) => [25 + sx * (15 - d * Math.SQRT1_2), 25 + sy * (15 - d * Math.SQRT1_2)];
      const way = Float64Array.from([...at(r * Math.SQRT2), ...at(r)]);
      for (let i = 0; i < l.length; i += 2) {
        const off = distanceToLine(way, l[i], l[i + 1]);
        expect(off).toBeGreaterThan(r - 0.005);
        expect(off).toBeLessThan(r + 0.05);
      }
      expect(distanceToLine(l, 25 + sx * 15, 25 + sy * 15)).toBeLessThan(0.005);
    }
    // Of what lies beyond the blank none is cut.
    expect(
      cornerReliefs(square, { radius: r, outside: false, blank: { width: 30, height: 50 } }, 0.01).cut,
    ).toHaveLength(2);
    // A circle has no corners, nor has what lies round it.
    const round = normalise([circleLoop(90, 8, 25, 25)]);
    for (const outside of [false, true])
      expect(cornerReliefs(round, { radius: r, outside, blank: BLANK }, 0.01)).toEqual({
        cut: [],
        left: [],
        through: [],
      });
  });

  it('that comes through to what is cut beside it is told with its place', () => {
    // Two squares side by side: reliefs by a cutter of 2 mm go 0.29 mm past their walls, on either side of the wall between.
    const square = (x: number, y: number) => loop(x, y, x + 10, y, x + 10, y + 10, x, y + 10);
    const told = (apart: number) =>
      planOn(
        'area',
        { cutters: ['flat-2'], depth: 1, relieved: true },
        normalise([square(10, 10), square(20 + apart, 10)]),
        BLANK,
      ).plan.remarks.filter((q) => q.level === 'problem');
    const near = told(0.5);
    expect(near).toHaveLength(2);
    for (const { text, x, y } of near) {
      expect(text).toMatch(/comes through to what is cut beside it/);
      expect(Math.min(Math.abs(x! - 20), Math.abs(x! - 20.5))).toBeLessThan(0.1);
      expect(Math.min(Math.abs(y! - 10), Math.abs(y! - 20))).toBeLessThan(0.1);
    }
    expect(told(0.7)).toEqual([]);
  });

  it('that a corner is too sharp for, or a part too narrow, is told with its place', () => {
    const told = (kind: string, region: Region, values: Record<string, unknown>) =>
      planOn(kind, values, region, BLANK).plan.remarks.filter((q) => /cannot relieve/.test(q.text));
    // A wedge of 14 degrees, and a square with a bar of 1 mm to its right.
    const wedge = normalise([loop(10, 10, 50, 15, 10, 20)]);
    const [sharp, ...more] = told('area', wedge, { cutters: ['flat-2'], depth: 1, relieved: true });
    expect(more).toEqual([]);
    expect(sharp.text).toMatch(/2 mm wide, cannot relieve this corner: it is too sharp/);
    expect([sharp.x!, sharp.y!].map(Math.round)).toEqual([50, 15]);
    const bar = normalise([loop(10, 10, 30, 10, 30, 24.5, 40, 24.5, 40, 25.5, 30, 25.5, 30, 40, 10, 40)]);
    const [end] = told('area', bar, { cutters: ['flat-2'], depth: 1, relieved: true });
    expect(Math.round(end.x!)).toBe(40);
    // Going round the bar there is nothing to be told, nor where nobody asked.
    expect(told('profile', bar, { cutter: 'flat-2', side: 'outside', relieved: true })).toEqual([]);
    expect(told('profile', bar, { cutter: 'flat-2', side: 'inside', relieved: true })).toHaveLength(1);
    expect(told('area', bar, { cutters: ['flat-2'], depth: 1 })).toEqual([]);
  });
});

describe('outlines that rounding takes away', () => {
  const told = (region: Region, values: object) =>
    planOn('area', { cutters: ['flat-2'], depth: 1, ...values }, region, BLANK).plan.remarks.filter(
      (r) => r.level === 'problem',
    );
  it('are told, with the place', () => {
    // A bar of 1.5 mm between two squares, and a slit of 1 mm into one of them.
    const bar = normalise([
      loop(
        5,
        5,
        20,
        5,
        20,
        12,
        30,
        12,
        30,
        5,
        45,
        5,
        45,
        11.5,
        38,
        11.5,
        38,
        12.5,
        45,
        12.5,
        45,
        20,
        30,
        20,
        30,
        13.5,
        20,
        13.5,
        20,
        20,
        5,
        20,
      ),
    ]);
    const said = told(bar, { corners: 1 });
    expect(said).toHaveLength(2);
    expect(said[0].text).toMatch(/narrower than 2 mm.*left out here/);
    expect(said[0].x!).toBeGreaterThan(19);
    expect(said[0].x!).toBeLessThan(31);
    expect(said[1].text).toMatch(/less than 2 mm between them.*filled here/);
    expect(said[1].x!).toBeGreaterThan(36);
    // Corners that are only rounded are not told.
    expect(told(normalise([loop(5, 5, 20, 5, 20, 20, 5, 20)]), { corners: 3 })).toEqual([]);
  });
});
