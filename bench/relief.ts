import { starLoop } from '../src/core/testing/shapes';
import { gridOf } from '../src/core/relief/field';
import { meshHeights } from '../src/core/relief/raster';
import { lay } from '../src/core/relief/stack';
import { readMesh } from '../src/core/exchange/mesh/read';
import { stlOf, surfaceMesh } from '../src/core/testing/meshes';
import { textures, type TextureId } from '../src/core/relief/textures';
import { formKindOf } from '../src/core/relief/registry';
import type { Region } from '../src/core/geometry/region';

/** Shaping reliefs on 2000 x 2000 nodes, one thread: names what each step is, what it takes is measured by whoever calls. */
export function reliefWork(): readonly { readonly what: string; readonly work: () => void; readonly bar: string }[] {
  const grid = gridOf(99.95, 99.95, 0.05);
  const nodes = `${grid.cols} x ${grid.rows} nodes`;
  const hills = (x: number, y: number) => 4 + 2 * Math.sin(x / 7) * Math.cos(y / 9) + 0.3 * Math.sin(x * 1.3);
  const mesh = surfaceMesh(99.9, 708, hills);
  const file = stlOf(mesh);
  const stars: Region = Array.from({ length: 500 }, (_, k) =>
    starLoop(5, 1.9, 0.8, 4 + (k % 23) * 4.1, 4 + Math.floor(k / 23) * 4.1),
  );
  const outline = formKindOf('outline');
  const ground = formKindOf('texture');
  const one: Region = [starLoop(2500, 48, 47, 50, 50)];
  const round = { ...(outline.defaults as object), edge: 'round', top: 'fitted' };
  const forms = Array.from({ length: 10 }, (_, k) => new Float32Array(grid.cols * grid.rows).fill(k));
  const ways = ['add', 'higher', 'lower', 'sink', 'replace'] as const;
  return [
    {
      what: `relief: an STL of ${mesh.corners.length / 9} triangles, read and its heights at ${nodes}`,
      work: () => void meshHeights(readMesh('hills.stl', file), grid),
      bar: '4 s',
    },
    {
      what: `relief: ${stars.length} stars of ${stars.length * 10} segments, bevelled on ${nodes}`,
      work: () => void outline.evaluate(outline.defaults as never, { grid, region: stars, mesh: () => null }),
      bar: '1.5 s',
    },
    {
      what: `relief: one outline of 5000 segments, domed and fitted on ${nodes}`,
      work: () => void outline.evaluate(round as never, { grid, region: one, mesh: () => null }),
      bar: '1.5 s',
    },
    ...(Object.keys(textures) as TextureId[]).map((texture) => ({
      what: `relief: texture "${textures[texture].name}", ${nodes}`,
      work: () =>
        void ground.evaluate({ ...(ground.defaults as object), texture } as never, {
          grid,
          region: [],
          mesh: () => null,
        }),
      bar: '0.5 s',
    })),
    {
      what: `relief: ten forms laid on each other, ${nodes}`,
      work: () => {
        const z = new Float32Array(grid.cols * grid.rows).fill(NaN);
        forms.forEach((f, k) => lay(z, f, { meets: ways[k % 5], strength: 1, base: 0.1 }, null));
      },
      bar: '0.2 s',
    },
  ];
}
