import fc from 'fast-check';
import { real } from '../testing/real';
import { splinePath, splinePoint } from '../geometry/bspline';
import { joinPaths } from '../geometry/join';
import { circlePath, flatten, type Path, type Segment } from '../geometry/path';
import { normalise, regionArea } from '../geometry/region';
import { ExchangeError } from './drawn';
import { readDxf } from './dxf/read';
import { writeDxf } from './dxf/write';

const pairs = (...v: (string | number)[]) => v.reduce<string>((s, x) => `${s}${x}\n`, '');
const file = (entities: string, extra = '', unit: number | null = 4) =>
  pairs(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1015') +
  (unit === null ? '' : pairs(9, '$INSUNITS', 70, unit)) +
  pairs(0, 'ENDSEC') +
  extra +
  pairs(0, 'SECTION', 2, 'ENTITIES') +
  entities +
  pairs(0, 'ENDSEC', 0, 'EOF');
const line = (x0: number, y0: number, x1: number, y1: number, layer = 'A') =>
  pairs(0, 'LINE', 8, layer, 10, x0, 20, y0, 30, 0, 11, x1, 21, y1, 31, 0);
const area = (paths: Path[]) =>
  regionArea(
    normalise(
      paths.map((p) => flatten(p, 1e-5)),
      'evenodd',
    ),
  );
const read = (text: string) => readDxf(text, 'sheet.dxf');

describe('DXF that is read', () => {
  it('joins loose lines and arcs into closed outlines', () => {
    const d = read(file(line(0, 0, 10, 0) + line(10, 10, 10, 0.004) + line(10, 10, 0, 10) + line(0, 0, 0, 10)));
    expect(d.things).toHaveLength(1);
    expect(d.things[0].paths[0].closed).toBe(true);
    expect(area(d.things[0].paths)).toBeCloseTo(100, 1);
    expect(d.remarks.join()).toMatch(/3 loose ends within 0.01 mm were joined/);
  });

  it('knows bulges, circles, arcs and ellipses', () => {
    const half = pairs(0, 'LWPOLYLINE', 8, 'A', 90, 2, 70, 1, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0, 42, 0);
    expect(area(read(file(half)).things[0].paths)).toBeCloseTo((25 * Math.PI) / 2, 3);
    expect(area(read(file(pairs(0, 'CIRCLE', 8, 'A', 10, 5, 20, 5, 40, 3))).things[0].paths)).toBeCloseTo(
      9 * Math.PI,
      3,
    );
    expect(
      area(
        read(file(pairs(0, 'ELLIPSE', 8, 'A', 10, 5, 20, 5, 11, 4, 21, 3, 40, 0.5, 41, 0, 42, 2 * Math.PI))).things[0]
          .paths,
      ),
    ).toBeCloseTo(12.5 * Math.PI, 3);
    const quarter = pairs(0, 'ARC', 8, 'A', 10, 0, 20, 0, 40, 10, 50, 0, 51, 90);
    expect(area(read(file(quarter + line(0, 0, 10, 0) + line(0, 10, 0, 0))).things[0].paths)).toBeCloseTo(
      25 * Math.PI,
      3,
    );
  });

  it('places blocks, nested, turned, scaled and in arrays, and takes the unit from the header', () => {
    const blocks =
      pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 2, 'ONE', 70, 0, 10, 1, 20, 0) +
      pairs(0, 'CIRCLE', 8, '0', 10, 1, 20, 0, 40, 1) +
      pairs(0, 'ENDBLK', 0, 'BLOCK', 8, '0', 2, 'TWO', 70, 0, 10, 0, 20, 0) +
      pairs(0, 'INSERT', 8, '0', 2, 'ONE', 10, 0, 20, 0, 70, 3, 71, 2, 44, 5, 45, 5) +
      pairs(0, 'ENDBLK', 0, 'ENDSEC');
    const d = read(file(pairs(0, 'INSERT', 8, 'B', 2, 'TWO', 10, 2, 20, 1, 41, 2, 42, 2, 50, 90), blocks, 1));
    expect(d.things).toHaveLength(6);
    expect(d.things.every((t) => t.layer === 'B')).toBe(true);
    expect(area(d.things.flatMap((t) => t.paths))).toBeCloseTo(6 * 4 * Math.PI * 25.4 ** 2, 0);
    expect(d.unitKnown).toBe(true);
    expect(read(file(line(0, 0, 1, 0), '', null)).unitKnown).toBe(false);
  });

  const hatch = (count: number, boundaries: string, extra = '') =>
    pairs(0, 'HATCH', 8, 'A', 10, 0, 20, 0, 30, 0, 210, 0, 220, 0, 230, 1) +
    extra +
    pairs(2, 'SOLID', 70, 1, 71, 0, 91, count) +
    boundaries +
    pairs(75, 0, 76, 1, 98, 1, 10, 3, 20, 3);
  const polyline = (points: number[][], bulge = 0) =>
    pairs(92, 3, 72, bulge ? 1 : 0, 73, 1, 93, points.length) +
    points.map(([x, y]) => pairs(10, x, 20, y) + (bulge ? pairs(42, bulge) : '')).join('') +
    pairs(97, 0);
  const edges = (...list: string[]) => pairs(92, 1, 93, list.length) + list.join('') + pairs(97, 1, 330, '4F');
  const side = (x0: number, y0: number, x1: number, y1: number) => pairs(72, 1, 10, x0, 20, y0, 11, x1, 21, y1);

  it('takes the outlines of hatches, holes and all, as one filled thing', () => {
    const square = [
      [0, 0],
      [20, 0],
      [20, 10],
      [0, 10],
    ];
    const d = read(
      file(
        hatch(
          2,
          polyline(square) +
            polyline(
              [
                [7, 5],
                [13, 5],
              ],
              1,
            ),
        ),
      ),
    );
    expect(d.things).toHaveLength(1);
    expect(d.things[0]).toMatchObject({ layer: 'A', fill: 'evenodd' });
    expect(area(d.things[0].paths)).toBeCloseTo(200 - 9 * Math.PI, 3);
    expect(d.remarks).toEqual([]);
    // Seen from behind, it lies on the other side.
    const back = read(file(hatch(1, polyline(square)).replace('230\n1\n', '230\n-1\n')));
    expect(Math.min(...flatten(back.things[0].paths[0], 0.01))).toBeCloseTo(-20, 9);
  });

  it('knows edges of hatches: lines, arcs and elliptical arcs either way round, splines', () => {
    const only = (b: string) => area(read(file(hatch(1, b))).things.flatMap((t) => t.paths));
    expect(
      only(edges(side(0, 0, 10, 0), pairs(72, 2, 10, 0, 20, 0, 40, 10, 50, 0, 51, 90, 73, 1), side(0, 10, 0, 0))),
    ).toBeCloseTo(25 * Math.PI, 3);
    // Clockwise from 10, 0 to 0, -10: its angles count clockwise.
    expect(
      only(edges(pairs(72, 2, 10, 0, 20, 0, 40, 10, 50, 0, 51, 90, 73, 0), side(0, -10, 0, 0), side(0, 0, 10, 0))),
    ).toBeCloseTo(25 * Math.PI, 3);
    expect(only(edges(pairs(72, 2, 10, 3, 20, 4, 40, 5, 50, 0, 51, 360, 73, 1)))).toBeCloseTo(25 * Math.PI, 3);
    expect(
      only(edges(pairs(72, 3, 10, 1, 20, 2, 11, 6, 21, 0, 40, 0.5, 50, 0, 51, 180, 73, 1), side(-5, 2, 7, 2))),
    ).toBeCloseTo(9 * Math.PI, 3);
    const spline =
      pairs(72, 4, 94, 3, 73, 0, 74, 0, 95, 8, 96, 4) +
      [0, 0, 0, 0, 1, 1, 1, 1].map((k) => pairs(40, k)).join('') +
      [
        [0, 0],
        [0, 10],
        [10, 10],
        [10, 0],
      ]
        .map(([x, y]) => pairs(10, x, 20, y))
        .join('') +
      pairs(97, 0);
    // y = 30 t (1 - t), x = 10 (3 t^2 - 2 t^3): the integral of y dx from 0 to 1 is 60.
    expect(only(edges(spline, side(10, 0, 0, 0)))).toBeCloseTo(60, 3);
    // Older files do not count the fit points.
    expect(only(edges(side(10, 0, 0, 0), spline.replace(/97\n0\n$/, '')))).toBeCloseTo(60, 3);
    expect(only(edges(side(10, 0, 0, 0), spline))).toBeCloseTo(60, 3);
  });

  it('says what of a hatch it leaves out', () => {
    const open = read(
      file(
        hatch(
          2,
          edges(side(0, 0, 10, 0), side(10, 0, 10, 10)) +
            polyline([
              [0, 0],
              [5, 0],
              [0, 5],
            ]),
        ),
      ),
    );
    expect(open.things).toHaveLength(1);
    expect(open.remarks.join()).toMatch(/1 boundary of a hatch does not close/);
    expect(
      read(
        file(
          hatch(
            1,
            polyline([
              [0, 0],
              [5, 0],
              [0, 5],
            ]),
          ).replace('2\nSOLID\n70\n1', '2\nANSI31\n70\n0'),
        ),
      ).remarks.join(),
    ).toMatch(/lines of their patterns were not/);
  });

  it('prints nothing, whatever codes and names it meets', () => {
    const spies = (['log', 'warn', 'error', 'info', 'debug'] as const).map((k) =>
      jest.spyOn(console, k).mockImplementation(() => {}),
    );
    read(
      file(
        line(0, 0, 1, 0) +
          pairs(0, 'CIRCLE', 8, 'A', 10, 5, 20, 5, 40, 3, 709, 1, 5001, 'x') +
          pairs(0, 'WIPEOUT', 8, 'A', 250, 3) +
          hatch(
            1,
            polyline([
              [0, 0],
              [5, 0],
              [0, 5],
            ]),
          ),
      ),
    );
    expect(() => read(file('').replace('2\nENTITIES', '5\nENTITIES'))).toThrow(ExchangeError);
    // A block without a name is placed by nobody.
    expect(
      read(
        file(
          line(0, 0, 1, 0),
          pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 70, 0) +
            line(0, 0, 2, 2) +
            pairs(0, 'ENDBLK', 0, 'ENDSEC'),
        ),
      ).things,
    ).toHaveLength(1);
    for (const s of spies) {
      expect(s).not.toHaveBeenCalled();
      s.mockRestore();
    }
  });

  it.each([
    ['nonsense', 'not a drawing', /not a DXF|no section/],
    [
      'a block that holds itself',
      file(
        pairs(0, 'INSERT', 8, 'A', 2, 'ONE', 10, 0, 20, 0),
        pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 2, 'ONE', 70, 0, 10, 0, 20, 0) +
          pairs(0, 'INSERT', 8, '0', 2, 'ONE', 10, 0, 20, 0) +
          pairs(0, 'ENDBLK', 0, 'ENDSEC'),
      ),
      /holds itself/,
    ],
    [
      'a million copies',
      file(
        pairs(0, 'INSERT', 8, 'A', 2, 'ONE', 10, 0, 20, 0, 70, 1000, 71, 1000),
        pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 2, 'ONE', 70, 0, 10, 0, 20, 0) +
          line(0, 0, 1, 1) +
          pairs(0, 'ENDBLK', 0, 'ENDSEC'),
      ),
      /repeated 1000000 times/,
    ],
  ])('with %s is refused by name', (_n, text, why) => {
    expect(() => read(text)).toThrow(ExchangeError);
    expect(() => read(text)).toThrow(/sheet\.dxf/);
    expect(() => read(text)).toThrow(why);
  });
});

describe('B-splines', () => {
  const points = fc.array(fc.record({ x: real(-50, 50), y: real(-50, 50) }), { minLength: 4, maxLength: 9 });
  it.each([1, 2, 3])('of degree %d become paths that go through the same points', (degree) => {
    fc.assert(
      fc.property(points, fc.boolean(), (p, clamped) => {
        const inner = p.length - degree;
        const knots = clamped
          ? [...Array(degree).fill(0), ...Array.from({ length: inner + 1 }, (_, i) => i), ...Array(degree).fill(inner)]
          : Array.from({ length: p.length + degree + 1 }, (_, i) => i);
        const path = splinePath(degree, knots, p, null, 1e-4)!;
        expect(path.segments).toHaveLength(inner);
        // The end of each span is a knot, where de Boor's own algorithm must agree.
        path.segments.forEach((s, i) => {
          const q = splinePoint(degree, knots, p, null, knots[degree + i + 1]);
          expect(Math.hypot(s.x - q.x, s.y - q.y)).toBeLessThan(1e-9);
          if (s.k === 'cubic') {
            const from = i ? path.segments[i - 1] : path;
            const mid = splinePoint(degree, knots, p, null, (knots[degree + i] + knots[degree + i + 1]) / 2);
            expect(Math.abs((from.x + 3 * s.x1 + 3 * s.x2 + s.x) / 8 - mid.x)).toBeLessThan(1e-9);
          }
        });
      }),
      { numRuns: 40 },
    );
  });

  it('with weights make a circle', () => {
    const w = Math.SQRT1_2;
    const p = splinePath(
      2,
      [0, 0, 0, 1, 1, 1],
      [
        { x: 1, y: 0 },
        { x: 1, y: 1 },
        { x: 0, y: 1 },
      ],
      [1, w, 1],
      1e-5,
    )!;
    for (const s of p.segments) expect(Math.hypot(s.x, s.y)).toBeCloseTo(1, 9);
  });
});

test('what is written as DXF is read back within 0.001 mm, arcs and curves too', () => {
  const ring: Path = {
    x: 30,
    y: 0,
    closed: true,
    segments: [
      { k: 'arc', x: 10, y: 0, cx: 20, cy: 0, ccw: true },
      { k: 'line', x: 20, y: -5 },
      { k: 'cubic', x1: 22, y1: -9, x2: 29, y2: -8, x: 30, y: 0 },
    ],
  };
  const wide: Path = { x: 5, y: 50, closed: false, segments: [{ k: 'arc', x: 0, y: 45, cx: 0, cy: 50, ccw: true }] };
  const text = writeDxf([
    { name: 'a', layer: 'Gate', colour: '#ff0000', fill: 'nonzero', paths: [ring, circlePath(3, 4, 5), wide] },
  ]);
  const back = readDxf(text, 'b.dxf');
  expect(back.layers.map((l) => l.name)).toEqual(['Gate']);
  const closed = back.things.flatMap((t) => t.paths).filter((p) => p.closed);
  expect(closed).toHaveLength(2);
  expect(area(closed)).toBeCloseTo(area([ring, circlePath(3, 4, 5)]), 4);
  const [open] = back.things.flatMap((t) => t.paths).filter((p) => !p.closed);
  for (let i = 0, f = flatten(open, 0.001); i < f.length; i += 2)
    expect(Math.hypot(f[i], f[i + 1] - 50)).toBeCloseTo(5, 5);
});

test('joined paths keep every length, whatever the order and sense of the pieces', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 12 }),
      fc.infiniteStream(fc.boolean()),
      fc.integer({ min: 1, max: 1e6 }),
      (n, flips, seed) => {
        const p = Array.from({ length: n }, (_, i) => ({
          x: 10 * Math.cos((2 * Math.PI * i) / n),
          y: 10 * Math.sin((2 * Math.PI * i) / n),
        }));
        const pieces = p.map((a, i): Path => {
          const b = p[(i + 1) % n];
          const [from, to] = flips.next().value ? [b, a] : [a, b];
          return { ...from, segments: [{ k: 'line', ...to } as Segment], closed: false };
        });
        pieces.sort((a, b) => ((a.x * 7919 + a.y * 104729 + seed) % 17) - ((b.x * 7919 + b.y * 104729 + seed) % 17));
        const joined = joinPaths(pieces, 1e-6);
        expect(joined).toHaveLength(1);
        expect(joined[0].closed).toBe(true);
        expect(Math.abs(regionArea([flatten(joined[0], 1)]))).toBeCloseTo(
          (n / 2) * 100 * Math.sin((2 * Math.PI) / n),
          6,
        );
      },
    ),
  );
});

describe('DXF that has come out of step', () => {
  const good = file(
    line(0, 0, 10, 0),
    pairs(
      0,
      'SECTION',
      2,
      'TABLES',
      0,
      'TABLE',
      2,
      'LAYER',
      70,
      1,
      0,
      'LAYER',
      2,
      'A',
      70,
      0,
      62,
      7,
      0,
      'ENDTAB',
      0,
      'ENDSEC',
    ),
  );
  it('is read while it is in step, with whatever stands in its tables', () => {
    for (const text of [good, good.replace('0\nLAYER\n2\nA', '0\nLINES\n2\nA')])
      expect(read(text).things).toHaveLength(1);
  });
  it.each([
    ['a line is missing', good.replace('ENTITIES\n', ''), /line \d+ should be a group code/],
    ['a code is no number', good.replace('\n8\nA\n', '\nx8\nA\n'), /should be a group code/],
    ['the end is cut off', good.slice(0, good.lastIndexOf('0\nENDSEC')), /does not end with EOF|inside a section/],
    ['a section is never closed', good.replace(/0\nENDSEC\n0\nEOF\n$/, '0\nEOF\n'), /ends the file inside a section/],
  ])('when %s it is refused by line', (_what, text, why) => {
    expect(() => read(text)).toThrow(ExchangeError);
    expect(() => read(text)).toThrow(why);
  });
  const hatched = file(
    pairs(
      0,
      'HATCH',
      8,
      'A',
      230,
      1,
      2,
      'SOLID',
      70,
      1,
      91,
      2,
      92,
      3,
      72,
      0,
      73,
      1,
      93,
      3,
      10,
      0,
      20,
      0,
      10,
      5,
      20,
      0,
      10,
      0,
      20,
      5,
      97,
      0,
      92,
      1,
      93,
      1,
      72,
      2,
      10,
      3,
      20,
      4,
      40,
      5,
      50,
      0,
      51,
      360,
      73,
      1,
      97,
      0,
      75,
      0,
      98,
      0,
    ),
  );
  it.each([
    ['one', good],
    ['one with a hatch', hatched],
  ])('any broken copy of %s is read or refused, and comes to an end', (_name, whole) => {
    expect(read(whole).things).toHaveLength(1);
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.nat(), fc.constantFrom('', '\n', '0\n', 'EOF\n', 'NaN', '-', '9', '0\nTABLE\n2\nLAYER\n')),
          { minLength: 1, maxLength: 6 },
        ),
        (changes) => {
          let text = whole;
          for (const [at, put] of changes) {
            const k = at % text.length;
            text = text.slice(0, k) + put + text.slice(k + (put ? 0 : 3));
          }
          try {
            read(text);
          } catch (e) {
            expect(e).toBeInstanceOf(ExchangeError);
          }
        },
      ),
      { numRuns: 200 },
    );
  });
});
