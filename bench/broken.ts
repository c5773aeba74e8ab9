import { bodyOf, closedMesh } from '../src/core/exchange/mesh/body';
import { writeObj } from '../src/core/exchange/mesh/writeObj';
import { gridOf } from '../src/core/relief/field';
import { stlOf, surfaceMesh } from '../src/core/testing/meshes';
import { greyPng } from '../src/core/testing/png';
import { zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { demoJobs } from '../src/core/job/demo';
import { packJob } from '../src/core/job/archive';
import { packBackup } from '../src/core/job/backup';
import { shippedLibrary } from '../src/core/cutters/library';
import { writeDxf } from '../src/core/exchange/dxf/write';
import { fontCatalogue } from '../src/core/lettering/catalogue';
import { circlePath } from '../src/core/geometry/path';

/** Good files, and how they are broken: for everything that throws broken files at readers. */
export const SLOW_MS = 2000;

/** What a parser or the language says is no word for a maker. */
export const FOREIGN =
  /\b(\w*Error|undefined|NaN|Unexpected token|is not a function|Cannot read|Invalid (input|array|string)|expected \w+, received)\b/;

const text = (s: string) => new TextEncoder().encode(s);
const threeMf = `<?xml version="1.0"?><model unit="millimeter"><resources><object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="2" y="0" z="0"/><vertex x="0" y="3" z="0"/><vertex x="0" y="0" z="4"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="0" v2="3" v3="2"/></triangles></mesh></object><object id="2"><components><component objectid="1" transform="2 0 0 0 2 0 0 0 2 1 0 0"/></components></object></resources><build><item objectid="2"/></build></model>`;
/** A triangle, its numbers inside. */
const gltf = JSON.stringify({
  asset: { version: '2.0' },
  buffers: [
    {
      byteLength: 36,
      uri: `data:application/octet-stream;base64,${Buffer.from(Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, -2).buffer).toString('base64')}`,
    },
  ],
  bufferViews: [{ buffer: 0, byteOffset: 0, byteLength: 36 }],
  accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, -2], max: [1, 1, 0] }],
  meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
  nodes: [{ mesh: 0, scale: [2, 1, 1], translation: [1, 2, 3] }],
  scenes: [{ nodes: [0] }],
  scene: 0,
});
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><defs><style>.a{fill:none;stroke:red}</style><g id="g"><path d="M1 1C5 9 9-5 20 4S30 8 40 2A6 4 20 0 1 50 9Q55 1 60 9Z"/></g><symbol id="s" viewBox="0 0 4 4"><circle cx="2" cy="2" r="1"/></symbol></defs><use href="#g" transform="translate(2 3)rotate(10)scale(.5)"/><use href="#s" width="8" height="8"/><g class="a" transform="matrix(1 0 .2 1 3 4)"><rect x="1" y="2" width="9" height="5" rx="1"/><polygon points="1,1 9,2 4,8"/><ellipse cx="20" cy="20" rx="7" ry="3"/></g><text x="3" y="50" font-family="Cinzel" font-size="8">Lock</text></svg>`;
const dxf = writeDxf([
  {
    name: 'a',
    layer: 'Ink',
    colour: '#1e2a2f',
    fill: 'nonzero',
    paths: [
      circlePath(5, 5, 3),
      {
        x: 0,
        y: 0,
        segments: [
          { k: 'line', x: 9, y: 1 },
          { k: 'arc', x: 1, y: 9, cx: 1, cy: 1, ccw: true },
          { k: 'cubic', x1: 4, y1: 4, x2: 8, y2: 2, x: 0, y: 0 },
        ],
        closed: true,
      },
    ],
  },
]);
const job = demoJobs['lock-cottage-board']();

/** One good file of every sort, by name. */
const hill = { ...gridOf(6, 4, 1), z: Float32Array.from({ length: 35 }, (_, i) => -1 + Math.sin(i)) };

export const goodFiles: Readonly<
  Record<
    | 'svg'
    | 'dxf'
    | 'job.json'
    | '.mirvak'
    | 'backup'
    | 'cutters'
    | 'font'
    | 'program'
    | 'stl'
    | 'obj'
    | '3mf'
    | '3mf model'
    | 'gltf'
    | 'png'
    | '3mf'
    | '3mf model'
    | 'gltf',
    Uint8Array
  >
> = {
  svg: text(svg),
  dxf: text(dxf),
  'job.json': text(JSON.stringify(job)),
  '.mirvak': packJob(job),
  backup: packBackup({
    made: '2026-11-27',
    jobs: [{ id: 'a', name: 'Lock', updated: 1, bytes: packJob(job) }],
    kept: {
      cutters: shippedLibrary().slice(0, 5),
      groups: [],
      machines: [],
      dialects: [],
      recipes: [],
      reliefs: [],
      unit: 'mm',
    },
  }),
  cutters: text(JSON.stringify({ cutters: shippedLibrary().slice(0, 5) })),
  font: readFileSync(`node_modules/${fontCatalogue[0].source}`),
  stl: stlOf(surfaceMesh(10, 4, (x, y) => Math.sin(x) * Math.cos(y))),
  obj: writeObj(closedMesh(bodyOf(hill, 6, 4), -3), 'hill'),
  '3mf': zipSync({ 'a.model': text(threeMf) }),
  '3mf model': text(threeMf),
  gltf: text(gltf),
  png: greyPng(12, 9, 16, (x, y) => (x * y) / 120),
  program: text('G21 G90 G17\nT1 M6\nS12000 M3\nG0 X1 Y2 Z5\nG1 Z-1 F300\nG3 X4 Y5 I2 J0 F900\nX9\nG0 Z5\nM5\nM30\n'),
};

const pieces = [
  'v ',
  'f 1/2 -1 ',
  'facet normal ',
  'IDAT',
  'NaN',
  '1e999',
  '-',
  '""',
  '<',
  '/>',
  '&',
  '0',
  '9999999999',
  '\0',
  '#g',
  'url(#g)',
  'M',
  'A',
  'null',
  '{',
  '[',
  '1e-320',
  'EOF\n',
  'G3 ',
  '(',
  ' ',
];

/** A file with up to thirty pieces changed, taken out, doubled or put in. */
export function broken(good: Uint8Array, r: () => number): Uint8Array {
  let b = Array.from(good);
  const times = 1 + Math.floor(r() * r() * 30);
  for (let i = 0; i < times; i++) {
    const at = Math.floor(r() * b.length);
    const kind = r();
    if (kind < 0.35) b[at] = Math.floor(r() * 256);
    else if (kind < 0.5) b.splice(at, 1 + Math.floor(r() * 12));
    else if (kind < 0.65) b.splice(at, 0, ...b.slice(at, at + Math.floor(r() * 60)));
    else if (kind < 0.9) b.splice(at, 0, ...text(pieces[Math.floor(r() * pieces.length)]));
    else if (kind < 0.95) b = b.slice(0, at);
    else b.splice(at, 8, ...b.slice(Math.floor(r() * b.length)).slice(0, 8));
  }
  return Uint8Array.from(b);
}
