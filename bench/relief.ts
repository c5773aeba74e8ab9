import { starLoop } from '../src/core/testing/shapes';
import { heightFacts } from '../src/core/relief/facts';
import { evenLevels, levelLines } from '../src/core/relief/levels';
import { chance } from '../src/core/relief/noise';
import { gridOf } from '../src/core/relief/field';
import { brushTools, dabsOf, layDabs, type BrushStroke, type BrushTool } from '../src/core/relief/sculpt';
import { ornaments } from '../src/core/relief/ornaments/ornaments';
import { sharedHeights } from '../src/compute/hands';
import { layAll } from '../src/core/relief/laying';
import { readMesh } from '../src/core/exchange/mesh/read';
import { boxOfMesh } from '../src/core/relief/mesh';
import type { Straight } from './native/shape';
import { stlOf, surfaceMesh } from '../src/core/testing/meshes';
import { textures, type TextureId } from '../src/core/relief/textures';
import { formContext } from '../src/core/testing/forms';
import { shapedBy, type FormHands } from '../src/core/pipeline/shaping';
import type { FormContext } from '../src/core/relief/form';
import { formKindOf } from '../src/core/relief/registry';
import type { Region } from '../src/core/geometry/region';

/** Shaping reliefs on 2000 x 2000 nodes, by one thread or with `hands`: names what each step is, what it takes is measured by whoever calls. */
export interface Shaping {
  readonly what: string;
  /** Heights that come of it, where they can be held against those of the yardstick. */
  readonly work: () => Float32Array | void;
  readonly bar: string;
  readonly straight?: Straight;
}

/** Nodes along a side, and how far they lie apart, mm. */
export const NODES = 2000;
export const CELL = 0.05;

export function reliefWork(hands?: FormHands): readonly Shaping[] {
  const grid = gridOf((NODES - 1) * CELL, (NODES - 1) * CELL, CELL);
  const heightsOf = (kind: string, values: object, c: FormContext): Float32Array => {
    const k = formKindOf(kind);
    return shapedBy(hands, k, { ...(k.defaults as object), ...values }, c).z;
  };
  const nodes = `${grid.cols} x ${grid.rows} nodes`;
  const hills = (x: number, y: number) => 4 + 2 * Math.sin(x / 7) * Math.cos(y / 9) + 0.3 * Math.sin(x * 1.3);
  const mesh = surfaceMesh(99.9, 708, hills);
  const file = stlOf(mesh);
  const lowest = boxOfMesh(mesh).low[2];
  const stars: Region = Array.from({ length: 500 }, (_, k) =>
    starLoop(5, 1.9, 0.8, 4 + (k % 23) * 4.1, 4 + Math.floor(k / 23) * 4.1),
  );
  const one: Region = [starLoop(2500, 48, 47, 50, 50)];
  const segments = (region: Region) =>
    Float32Array.from(
      region.flatMap((l) =>
        [...l.keys()]
          .filter((i) => i % 2 === 0)
          .flatMap((i) => [l[i], l[i + 1], l[(i + 2) % l.length], l[(i + 3) % l.length]]),
      ),
    );
  const round = { edge: 'round', top: 'fitted' };
  const forms = Array.from({ length: 10 }, (_, k) => new Float32Array(grid.cols * grid.rows).fill(k));
  const ways = ['add', 'higher', 'lower', 'sink', 'replace'] as const;
  const grained = sharedHeights(grid.cols * grid.rows);
  for (let i = 0; i < grained.length; i++)
    grained[i] = hills((i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell) + 0.02 * chance(i, 1, 1);
  const kind = formKindOf('denoise');
  const { data } = kind.prepare!(kind.defaults, formContext(grid, { under: grained }));
  const filter = data as { readonly grain: number; readonly radius: number };
  const light = Float32Array.from(grained, (h) => Math.round((h / 7) * 255) / 255);
  const greys = { width: grid.cols, height: grid.rows, light, greys: 256 };
  const lying = { x: 50, y: 50, width: 99.95, height: 99.95 };
  /** A stroke across the middle, of so many dabs of a brush that is 10 mm wide. */
  const strokeOf = (tool: BrushTool, dabs: number): BrushStroke => ({
    tool,
    radius: 5,
    height: 1,
    share: 0.5,
    soft: 0.8,
    level: 0,
    mirror: 'none',
    points: [20, 50, 1, 20 + 0.625 * (dabs - 0.5), 50, 1],
  });
  const sculpted = grained.slice();
  return [
    {
      what: `relief: an STL of ${mesh.corners.length / 9} triangles, read and its heights at ${nodes}`,
      work: () => {
        const read = readMesh('hills.stl', file);
        const { low, high } = boxOfMesh(read);
        const own = { x: 49.95, y: 49.95, width: 99.9, height: 99.9, rise: high[2] - low[2] };
        return heightsOf('mesh', { mesh: 'm', ...own }, formContext(grid, { mesh: () => read }));
      },
      bar: '4 s',
      // The form stands on its own lowest place.
      straight: { of: 'mesh', numbers: mesh.corners.map((v, i) => (i % 3 === 2 ? v - lowest : v)) },
    },
    {
      what: `relief: ${stars.length} stars of ${stars.length * 10} segments, bevelled on ${nodes}`,
      work: () => heightsOf('outline', {}, formContext(grid, { region: stars })),
      bar: '1.5 s',
      straight: { of: 'outline', numbers: segments(stars) },
    },
    {
      what: `relief: one outline of 5000 segments, domed and fitted on ${nodes}`,
      work: () => heightsOf('outline', round, formContext(grid, { region: one })),
      bar: '1.5 s',
      straight: { of: 'outline', numbers: segments(one) },
    },
    ...(Object.keys(textures) as TextureId[]).map((texture) => ({
      what: `relief: texture "${textures[texture].name}", ${nodes}`,
      work: () => heightsOf('texture', { texture }, formContext(grid)),
      bar: '0.5 s',
      ...(texture === 'stone' && { straight: { of: 'stone' as const } }),
    })),
    {
      what: `relief: noise removal, ${nodes}`,
      work: () => heightsOf('denoise', {}, formContext(grid, { under: grained })),
      bar: '1 s',
      straight: { of: 'denoise', numbers: grained, more: [filter.radius, (1.25 * filter.grain) ** 2] },
    },
    ...(Object.keys(brushTools) as BrushTool[]).map((tool) => ({
      what: `relief: 60 dabs of a brush 200 nodes wide, "${brushTools[tool]}", ${nodes}`,
      work: () => {
        const strokes = [strokeOf(tool, 60)];
        layDabs(sculpted, grid, strokes, dabsOf(strokes));
      },
      bar: '1 s',
    })),
    ...['heron', 'lily'].map((ornament) => ({
      what: `relief: ornament "${ornaments[ornament].name}" over the whole of ${nodes}`,
      work: () => void heightsOf('ornament', { ornament, x: 50, y: 50, width: 99 }, formContext(grid)),
      bar: 'none',
    })),
    {
      what: `relief: a picture of 4 million pixels in 8 bits, its steps smoothed, ${nodes}`,
      work: () => void heightsOf('picture', lying, formContext(grid, { picture: () => greys })),
      bar: 'none',
    },
    {
      what: `relief: level lines, twenty of them, ${nodes}`,
      work: () => {
        const f = { ...grid, z: grained };
        const facts = heightFacts(f.z);
        for (const h of evenLevels(facts, 20)) levelLines(f, h, facts, { tolerance: 0.01, smallest: 1 });
      },
      bar: 'none',
    },
    {
      what: `relief: ten forms laid on each other, ${nodes}`,
      work: () => {
        const z = new Float32Array(grid.cols * grid.rows).fill(NaN);
        layAll(
          z,
          forms.map((f, k) => ({ z: f, meets: ways[k % 5], strength: 1, base: 0.1, weights: null })),
        );
        return z;
      },
      bar: '0.2 s',
      straight: { of: 'blend' },
    },
  ];
}
