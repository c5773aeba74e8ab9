import { circlePath, flatten, placement, transformPath, type Path } from '../../geometry/path';
import { makeArcLengthPath } from '../../geometry/arcLengthPath';
import { normalise, regionArea, thicken, type Loop } from '../../geometry/region';
import { bruteDistance, bruteInside } from '../../testing/independent';
import { letterOf, shippedFont } from '../../testing/fonts';
import { box, starLoop } from '../../testing/shapes';
import { bestThreshold, colourName, groundOf, proposedColours, type Picture } from './colours';
import { contours } from '../../geometry/levels/contours';
import { traceDefaults } from './options';
import { trace } from './trace';

/** Renders loops (pixels, Y up) with 8 x 8 samples a pixel. */
function render(loops: Loop[], width: number, height: number, ink = [0, 0, 0], paper?: Picture): Picture {
  const rgba = paper ? (paper.rgba as Uint8ClampedArray) : new Uint8ClampedArray(4 * width * height).fill(255);
  const S = 8;
  const cover = new Uint16Array(width * height);
  for (let r = 0; r < height * S; r++) {
    const y = height - (r + 0.5) / S;
    const xs: number[] = [];
    for (const l of loops)
      for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
        if (l[i + 1] > y !== l[j + 1] > y) xs.push(((l[j] - l[i]) * (y - l[i + 1])) / (l[j + 1] - l[i + 1]) + l[i]);
    xs.sort((a, b) => a - b);
    for (let k = 0; k + 1 < xs.length; k += 2)
      for (let c = Math.max(0, Math.ceil(xs[k] * S - 0.5)); c < Math.min(width * S, xs[k + 1] * S - 0.5); c++)
        cover[Math.floor(r / S) * width + Math.floor(c / S)]++;
  }
  for (let i = 0; i < cover.length; i++)
    for (let k = 0; k < 3; k++)
      rgba[4 * i + k] = Math.round(rgba[4 * i + k] + (ink[k] - rgba[4 * i + k]) * (cover[i] / (S * S)));
  return { width, height, rgba };
}

/** Each pixel the mean of the nine about it, twice. */
function blurred(p: Picture): Picture {
  let from = p.rgba;
  for (let round = 0; round < 2; round++) {
    const to = Uint8ClampedArray.from(from);
    for (let y = 1; y < p.height - 1; y++)
      for (let x = 1; x < p.width - 1; x++)
        for (let k = 0; k < 3; k++) {
          let sum = 0;
          for (let dy = -1; dy <= 1; dy++)
            for (let dx = -1; dx <= 1; dx++) sum += from[4 * ((y + dy) * p.width + x + dx) + k];
          to[4 * (y * p.width + x) + k] = sum / 9;
        }
    from = to;
  }
  return { ...p, rgba: from };
}

/** Share of a traced outline's length that lies within 0.3 pixels of the true one, and the other way round. */
function agreement(paths: Path[], truth: Loop[]): number {
  const near = (from: readonly Float64Array[], to: readonly Float64Array[]) => {
    let good = 0;
    let all = 0;
    for (const l of from)
      for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
        const len = Math.hypot(l[i] - l[j], l[i + 1] - l[j + 1]);
        const steps = Math.max(1, Math.ceil(len / 0.5));
        for (let k = 0; k < steps; k++) {
          const f = (k + 0.5) / steps;
          all += len / steps;
          if (bruteDistance(to, l[j] + (l[i] - l[j]) * f, l[j + 1] + (l[i + 1] - l[j + 1]) * f) < 0.3)
            good += len / steps;
        }
      }
    return good / all;
  };
  const drawn = paths.map((p) => flatten(p, 0.02));
  return Math.min(near(drawn, truth), near(truth, drawn));
}

const letters = (text: string, font: string, size: number) =>
  normalise(
    [...text].flatMap((char, i) => {
      const f = shippedFont(font);
      const s = size / f.capHeight;
      return letterOf(f, char)!.paths.map((p) =>
        flatten(transformPath(p, { a: s, b: 0, c: 0, d: s, e: 30 + i * size * 1.15, f: 90 }), 0.01),
      );
    }),
  );

describe('level lines', () => {
  it('are closed, and keep what is inside on their left', () => {
    let state = 7;
    const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
    for (let t = 0; t < 300; t++) {
      const field = Float32Array.from({ length: 30 }, random);
      const loops = contours(field, 6, 5, 0.5);
      for (const l of loops)
        for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
          expect(Math.hypot(l[i] - l[j], l[i + 1] - l[j + 1])).toBeLessThan(1.5);
      // Every pixel centre is inside as its value says. Y points down here, so the sense of loops is turned.
      for (let y = 0; y < 5; y++)
        for (let x = 0; x < 6; x++)
          expect(bruteInside(loops, x + 0.5 + 1e-7, y + 0.5 + 2e-7)).toBe(field[y * 6 + x] >= 0.5);
      expect(regionArea(loops)).toBeLessThan(0);
    }
  });
});

describe('a traced picture', () => {
  const shapes: Record<string, { loops: Loop[]; corners: number[][] }> = {
    'a star': {
      loops: [starLoop(5, 90, 42, 110, 100)],
      corners: Array.from({ length: 10 }, (_, i) => [
        110 + (i % 2 ? 42 : 90) * Math.cos((Math.PI * i) / 5),
        100 + (i % 2 ? 42 : 90) * Math.sin((Math.PI * i) / 5),
      ]),
    },
    'a turned square': {
      loops: [Float64Array.from([30.3, 40.7, 150.2, 60.1, 130.8, 180, 10.9, 160.6])],
      corners: [
        [30.3, 40.7],
        [150.2, 60.1],
        [130.8, 180],
        [10.9, 160.6],
      ],
    },
    'a ring': { loops: [flatten(circlePath(100, 100, 80), 0.01), flatten(circlePath(104, 97, 50), 0.01)], corners: [] },
    'Roman capitals': { loops: letters('RSQ', 'cinzel', 180), corners: [] },
    'a script': { loops: letters('Lk', 'dancing-script', 180), corners: [] },
    'a slab': { loops: letters('g8&', 'zilla-slab', 150), corners: [] },
  };
  it.each(Object.entries(shapes))(
    'of %s comes back within 0.3 pixels for 99 %% of its outline',
    (_n, { loops, corners }) => {
      const picture = render(loops, 800, 420);
      const [layer] = trace(picture, traceDefaults);
      expect(agreement(layer.paths, loops)).toBeGreaterThanOrEqual(0.99);
      const nodes = layer.paths.reduce((n, p) => n + p.segments.length, 0);
      expect(nodes).toBeLessThan(layer.points / 3);
      // Corners within a pixel, as nodes.
      const all = layer.paths.flatMap((p) => [p, ...p.segments]);
      for (const [x, y] of corners) expect(Math.min(...all.map((q) => Math.hypot(q.x - x, q.y - y)))).toBeLessThan(1);
    },
  );

  it('of soft ink on tinted paper needs few nodes, at the threshold that is proposed', () => {
    const grey = (p: Picture): Picture => ({
      ...p,
      rgba: p.rgba.map((v, i) => (i % 4 === 3 ? 255 : 58 + Math.round((v * 185) / 255))),
    });
    const ring = [flatten(circlePath(200, 130, 110), 0.005), flatten(circlePath(205, 128, 80), 0.005)];
    const picture = grey(render(ring, 420, 260));
    const threshold = bestThreshold(picture);
    expect(threshold).toBeGreaterThan(0.55);
    expect(threshold).toBeLessThan(0.63);
    const [l] = trace(picture, { ...traceDefaults, threshold });
    expect(l.paths.reduce((n, p) => n + p.segments.length, 0)).toBeLessThanOrEqual(16);
    expect(agreement(l.paths, ring)).toBeGreaterThan(0.999);
  });

  it('gives every colour its own outlines', () => {
    let p = render([box(20, 20, 180, 120)], 300, 200, [200, 30, 30]);
    p = render([flatten(circlePath(220, 120, 50), 0.02)], 300, 200, [20, 60, 160], p);
    const layers = trace(p, { ...traceDefaults, mode: 'colours', colours: 3 });
    // The paper round them is left out, unless it is asked for.
    expect(layers).toHaveLength(2);
    expect(trace(p, { ...traceDefaults, mode: 'colours', colours: 3, skipGround: false })).toHaveLength(3);
    const red = layers.find(
      (l) => parseInt(l.colour.slice(1, 3), 16) > 150 && parseInt(l.colour.slice(3, 5), 16) < 80,
    )!;
    const blue = layers.find(
      (l) => parseInt(l.colour.slice(5, 7), 16) > 120 && parseInt(l.colour.slice(1, 3), 16) < 80,
    )!;
    const area = (l: { paths: Path[] }) => Math.abs(regionArea(l.paths.map((q) => flatten(q, 0.02))));
    expect(Math.abs(area(blue) / (2500 * Math.PI) - 1)).toBeLessThan(0.01);
    expect(area(red)).toBeGreaterThan(13500);
  });

  it('proposes as many colours as a picture is drawn in, soft edges and noise or not', () => {
    const ink = [
      [200, 30, 30],
      [20, 60, 160],
      [30, 120, 60],
      [240, 200, 40],
    ];
    for (let n = 1; n <= 4; n++) {
      let p = render([box(20, 20, 60, 120)], 300, 200, ink[0]);
      for (let k = 1; k < n; k++) p = render([flatten(circlePath(40 + 60 * k, 100, 22), 0.02)], 300, 200, ink[k], p);
      expect(proposedColours(p)).toBe(n + 1);
      const soft = blurred(p);
      expect(proposedColours(soft)).toBe(n + 1);
      let state = 11;
      const noisy = {
        ...soft,
        rgba: soft.rgba.map((v, i) =>
          i % 4 === 3
            ? v
            : Math.max(
                0,
                Math.min(255, v + ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32 - 0.5) * 6),
              ),
        ),
      };
      expect(proposedColours(noisy)).toBe(n + 1);
    }
    expect(proposedColours(render([], 40, 40))).toBe(2);
  });

  it('knows its ground: the colour round its edge, when one has most of it', () => {
    const p = render([box(20, 20, 60, 120)], 300, 200, [200, 30, 30]);
    const colours = Float64Array.of(200, 30, 30, 255, 255, 255);
    expect(groundOf(p, colours)).toBe(1);
    expect(groundOf(render([box(-1, -1, 150, 201)], 300, 200, [200, 30, 30]), colours)).toBe(-1);
  });

  it.each([
    ['#c81e1e', 'red'],
    ['#0a0a0c', 'black'],
    ['#ffffff', 'white'],
    ['#16306a', 'dark blue'],
    ['#41648a', 'blue'],
    ['#7a4c2a', 'brown'],
    ['#808488', 'grey'],
    ['#22a05a', 'green'],
    ['#f0c830', 'yellow'],
    ['#e88020', 'orange'],
    ['#f4b8c8', 'pink'],
    ['#ff0004', 'red'],
  ])('calls %s %s', (hex, name) => {
    expect(colourName(hex)).toBe(name);
  });

  it('leaves out speckles, turns inside out, and stops when told', () => {
    const loops = [box(20, 20, 100, 100), box(140, 140, 142, 142)];
    const picture = render(loops, 160, 160);
    expect(trace(picture, { ...traceDefaults, speckle: 10 })[0].paths).toHaveLength(1);
    expect(trace(picture, { ...traceDefaults, speckle: 1 })[0].paths).toHaveLength(2);
    expect(trace(picture, { ...traceDefaults, invert: true })[0].paths).toHaveLength(2);
    expect(() =>
      trace(picture, traceDefaults, () => {
        throw new Error('stop');
      }),
    ).toThrow('stop');
    expect(() => trace({ width: 0, height: 0, rgba: new Uint8Array() }, traceDefaults)).toThrow(/no pixels/);
  });

  it('lies where it was drawn, the right way up', () => {
    const triangle = flatten(
      transformPath(
        {
          x: 0,
          y: 0,
          segments: [
            { k: 'line', x: 60, y: 0 },
            { k: 'line', x: 0, y: 90 },
            { k: 'line', x: 0, y: 0 },
          ],
          closed: true,
        },
        placement(20, 30, 0),
      ),
      1,
    );
    const [l] = trace(render([triangle], 120, 150), traceDefaults);
    expect(l.paths).toHaveLength(1);
    for (const [x, y] of [
      [20, 30],
      [80, 30],
      [20, 120],
    ])
      expect(Math.min(...l.paths[0].segments.map((q) => Math.hypot(q.x - x, q.y - y)))).toBeLessThan(1);
  });
});

describe('centre lines', () => {
  const options = { ...traceDefaults, mode: 'centre' as const };
  /** What a pen of some width inks along lines, as loops. */
  const inked = (lines: Loop[], width: number) =>
    normalise(
      lines.flatMap((l) => thicken(l, width / 2, 0.01)),
      'nonzero',
    );
  /** Distances of a traced line from the true ones, every half pixel, in order. */
  const distances = (paths: Path[], lines: Loop[]) =>
    paths
      .flatMap((p) => {
        const g = makeArcLengthPath(p);
        return Array.from({ length: Math.floor(2 * g.length) }, (_, i) =>
          Math.min(...lines.map((l) => lineDistance(l, g.at(i / 2).x, g.at(i / 2).y))),
        );
      })
      .sort((a, b) => a - b);
  const lineDistance = (l: Loop, x: number, y: number) => {
    let best = Infinity;
    for (let i = 0; i + 3 < l.length; i += 2) {
      const [ex, ey] = [l[i + 2] - l[i], l[i + 3] - l[i + 1]];
      const t = Math.min(1, Math.max(0, ((x - l[i]) * ex + (y - l[i + 1]) * ey) / (ex * ex + ey * ey)));
      best = Math.min(best, Math.hypot(l[i] + ex * t - x, l[i + 1] + ey * t - y));
    }
    return best;
  };
  const length = (paths: Path[]) => paths.reduce((s, p) => s + makeArcLengthPath(p).length, 0);

  it('of a bent pen stroke lie on it, from end to end, in one piece', () => {
    const line = Float64Array.from(
      Array.from({ length: 60 }, (_, i) => [20 + 2.5 * i, 60 + 30 * Math.sin(i / 12)]).flat(),
    );
    const [{ paths }] = trace(render(inked([line], 9), 200, 120), options);
    expect(paths.length).toBe(1);
    // The end of a round cap is found to about a pixel; along the stroke the line is much nearer.
    const d = distances(paths, [line]);
    expect(d[Math.floor(0.95 * d.length)]).toBeLessThan(0.4);
    expect(d[d.length - 1]).toBeLessThan(1.5);
    const whole = length([
      {
        x: line[0],
        y: line[1],
        segments: Array.from({ length: 59 }, (_, i) => ({
          k: 'line' as const,
          x: line[2 * i + 2],
          y: line[2 * i + 3],
        })),
        closed: false,
      },
    ]);
    expect(Math.abs(length(paths) - whole)).toBeLessThan(4);
  });
  it('of a cross are two lines that run straight through', () => {
    const lines = [Float64Array.of(20, 50, 150, 62), Float64Array.of(90, 10, 80, 110)];
    const [{ paths }] = trace(render(inked(lines, 7), 170, 120), options);
    expect(paths.length).toBe(2);
    const d = distances(paths, lines);
    expect(d[Math.floor(0.95 * d.length)]).toBeLessThan(0.5);
    expect(d[d.length - 1]).toBeLessThan(1.5);
    expect(length(paths)).toBeGreaterThan(0.95 * (130.6 + 100.5));
  });
  it('of a ring are one closed line', () => {
    const ring = [flatten(circlePath(60, 60, 40), 0.01), flatten(circlePath(60, 60, 32), 0.01).slice()];
    const loops = normalise(
      [
        ring[0],
        Float64Array.from(
          [...ring[1]].reverse().reduce<number[]>((a, v, i, all) => (i % 2 ? [...a, v, all[i - 1]] : a), []),
        ),
      ],
      'evenodd',
    );
    const [{ paths }] = trace(render(loops, 120, 120), options);
    expect(paths.length).toBe(1);
    for (let i = 0, f = flatten(paths[0], 0.05); i < f.length; i += 2)
      expect(Math.abs(Math.hypot(f[i] - 60, f[i + 1] - 60) - 36)).toBeLessThan(0.5);
  });
});
