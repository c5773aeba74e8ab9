import { zipSync, strToU8 } from 'fflate';
import fc from 'fast-check';
import { boxOfMesh } from '../../relief/mesh';
import { boxMesh } from '../../testing/meshes';
import { ExchangeError } from '../drawn';
import { readAnyMesh, readMesh } from './read';
import { stlOfMesh } from './writeStl';

const tetrahedron = `<mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="2" y="0" z="0"/><vertex x="0" y="3" z="0"/><vertex x="0" y="0" z="4"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="0" v2="3" v3="2"/></triangles></mesh>`;
const model = (body: string, build: string, unit = 'millimeter') =>
  `<?xml version="1.0"?><model unit="${unit}" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02" xmlns:p="http://schemas.microsoft.com/3dmanufacturing/production/2015/06"><resources>${body}</resources><build>${build}</build></model>`;
const RELS =
  '<Relationships><Relationship Id="a" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel" Target="/3D/token.model"/></Relationships>';
const threeMf = (text: string, more: Record<string, string> = {}) =>
  zipSync({
    '_rels/.rels': strToU8(RELS),
    '3D/token.model': strToU8(text),
    ...Object.fromEntries(Object.entries(more).map(([k, v]) => [k, strToU8(v)])),
  });
const whole = (m: { corners: Float32Array }) => boxOfMesh(m);

describe('3MF files', () => {
  it('are read as they stand on their plate, in their unit', async () => {
    const one = await readAnyMesh(
      'a.3mf',
      threeMf(model(`<object id="1">${tetrahedron}</object>`, '<item objectid="1"/>', 'inch')),
    );
    expect(one.corners).toHaveLength(36);
    const { high } = whole(one);
    [50.8, 76.2, 101.6].forEach((v, k) => expect(high[k]).toBeCloseTo(v, 4));
    // Turned a quarter about Z, then moved.
    const turned = await readAnyMesh(
      'a.3mf',
      threeMf(
        model(`<object id="1">${tetrahedron}</object>`, '<item objectid="1" transform="0 1 0 -1 0 0 0 0 1 10 20 30"/>'),
      ),
    );
    expect(whole(turned)).toEqual({ low: [7, 20, 30], high: [10, 22, 34] });
  });
  it('have parts of parts, in other files too; supports are left out', async () => {
    const parts = model(
      `<object id="2"><components><component objectid="1" p:path="/3D/part.model" transform="2 0 0 0 2 0 0 0 2 1 0 0"/></components></object><object id="3" type="support">${tetrahedron}</object>`,
      '<item objectid="2" transform="1 0 0 0 1 0 0 0 1 0 5 0"/><item objectid="3"/>',
    );
    const m = await readAnyMesh(
      'a.3MF',
      threeMf(parts, { '3D/part.model': model(`<object id="1">${tetrahedron}</object>`, '') }),
    );
    expect(whole(m)).toEqual({ low: [1, 5, 0], high: [5, 11, 8] });
  });
  it.each([
    ['no zip', strToU8('solid'), /damaged, or no 3MF file/],
    ['no model', zipSync({ 'a.txt': strToU8('x') }), /holds no model/],
    [
      'a corner that is not there',
      threeMf(
        model(
          '<object id="1"><mesh><vertices/><triangles><triangle v1="0" v2="1" v3="2"/></triangles></mesh></object>',
          '',
        ),
      ),
      /names a corner that is not there in line 1/,
    ],
    [
      'a word for a number',
      threeMf(model('<object id="1"><mesh><vertices><vertex x="one" y="1" z="2"/></vertices></mesh></object>', '')),
      /"x" is no number in line 1/,
    ],
    [
      'a part that holds itself',
      threeMf(
        model('<object id="1"><components><component objectid="1"/></components></object>', '<item objectid="1"/>'),
      ),
      /part 1 holds itself/,
    ],
    ['a part that is missing', threeMf(model('', '<item objectid="7"/>')), /part 7 is missing/],
    [
      'text that is cut off',
      threeMf(model(`<object id="1">${tetrahedron}</object>`, '<item objectid="1"/>').slice(0, -30)),
      /not written as it should be/,
    ],
    ['nothing on its plate', threeMf(model(`<object id="1">${tetrahedron}</object>`, '')), /has no faces/],
  ])('with %s are refused in words', async (_, bytes, words) => {
    await expect(readAnyMesh('a.3mf', bytes)).rejects.toThrow(words);
  });
});

/** A glTF file of one triangle strip of four corners, its numbers inside, under a node that moves and stretches. */
function gltf(change: (json: Record<string, unknown>) => void = () => {}): Uint8Array {
  const places = Float32Array.of(0, 0, 0, 1, 0, 0, 0, 0, -2, 1, 0.5, -2);
  const order = Uint16Array.of(0, 1, 2, 2, 1, 3);
  const bytes = new Uint8Array([...new Uint8Array(places.buffer), ...new Uint8Array(order.buffer)]);
  const json = {
    asset: { version: '2.0' },
    buffers: [{ byteLength: 60, uri: `data:application/octet-stream;base64,${Buffer.from(bytes).toString('base64')}` }],
    bufferViews: [
      { buffer: 0, byteOffset: 0, byteLength: 48 },
      { buffer: 0, byteOffset: 48, byteLength: 12 },
    ],
    accessors: [
      { bufferView: 0, componentType: 5126, count: 4, type: 'VEC3', min: [0, 0, -2], max: [1, 0.5, 0] },
      { bufferView: 1, componentType: 5123, count: 6, type: 'SCALAR' },
    ],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1, material: 0 }] }],
    materials: [{}],
    nodes: [{ mesh: 0, translation: [3, 1, 0], scale: [2, 1, 1] }],
    scenes: [{ nodes: [0] }],
    scene: 0,
  };
  change(json);
  return strToU8(JSON.stringify(json));
}

/** The same as one binary file. */
function glb(): Uint8Array {
  const json = JSON.parse(new TextDecoder().decode(gltf())) as { buffers: { uri?: string }[] };
  const body = Buffer.from(json.buffers[0].uri!.split(',')[1], 'base64');
  delete json.buffers[0].uri;
  const text = Buffer.from(JSON.stringify(json).padEnd(Math.ceil(JSON.stringify(json).length / 4) * 4));
  const out = Buffer.alloc(12 + 8 + text.length + 8 + body.length);
  [0x46546c67, 2, out.length, text.length, 0x4e4f534a].forEach((v, k) => out.writeUInt32LE(v, 4 * k));
  text.copy(out, 20);
  out.writeUInt32LE(body.length, 20 + text.length);
  out.writeUInt32LE(0x004e4942, 24 + text.length);
  body.copy(out, 28 + text.length);
  return new Uint8Array(out);
}

describe('glTF files', () => {
  it('are read in mm with Z up, moved as their nodes say', async () => {
    for (const [name, bytes] of [
      ['a.gltf', gltf()],
      ['a.glb', glb()],
    ] as const) {
      const m = await readAnyMesh(name, bytes);
      expect(m.corners).toHaveLength(18);
      // Y up: what goes back becomes Y, what is high Z.
      expect(whole(m)).toEqual({ low: [3000, 0, 1000], high: [5000, 2000, 1500] });
    }
  });
  it('may be strips and fans', async () => {
    const as = (mode: number) =>
      readAnyMesh(
        'a.gltf',
        gltf((j) =>
          Object.assign((j.meshes as { primitives: object[] }[])[0].primitives[0], { mode, indices: undefined }),
        ),
      );
    expect((await as(5)).corners).toHaveLength(18);
    expect((await as(6)).corners).toHaveLength(18);
    // Lines have no surface.
    await expect(as(1)).rejects.toThrow(/has no faces/);
  });
  it.each([
    [
      'numbers elsewhere',
      (j: Record<string, unknown>) => void (j.buffers = [{ byteLength: 60, uri: 'token.bin' }]),
      /lie in another file, "token.bin"/,
    ],
    [
      'packed meshes',
      (j: Record<string, unknown>) => void (j.extensionsRequired = ['KHR_draco_mesh_compression']),
      /packed by "KHR_draco/,
    ],
    [
      'corners without end',
      (j: Record<string, unknown>) => void ((j.accessors as { count: number }[])[0].count = 1e9),
      /20 million are the most/,
    ],
    [
      'corners that are not there',
      (j: Record<string, unknown>) => void ((j.accessors as { count: number }[])[0].count = 400),
      /cut off: list 1 /,
    ],
  ])('with %s are refused in words', async (_, change, words) => {
    await expect(readAnyMesh('a.gltf', gltf(change))).rejects.toThrow(words);
    await expect(readAnyMesh('a.gltf', gltf(change))).rejects.toThrow(ExchangeError);
  });
});

describe('packed mesh files', () => {
  it('are kept as STL, to the last bit', () => {
    const box = boxMesh(0, 0, 0, 3, 4, 5);
    expect([...readMesh('a.stl', stlOfMesh(box, 'a.3mf')).corners]).toEqual([...box.corners]);
  });
  it('that are damaged anywhere are read or refused in words', async () => {
    const good = [
      ['a.3mf', threeMf(model(`<object id="1">${tetrahedron}</object>`, '<item objectid="1"/>'))],
      ['a.gltf', gltf()],
      ['a.glb', glb()],
    ] as const;
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...good),
        fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 6 }),
        fc.nat(),
        async ([name, bytes], hits, cut) => {
          const b = bytes.slice(0, cut % 4 ? undefined : cut % bytes.length);
          for (const [at, to] of hits) b[at % b.length] = to;
          try {
            const { corners } = await readAnyMesh(name, b);
            expect(corners.every(Number.isFinite)).toBe(true);
          } catch (e) {
            expect(e).toBeInstanceOf(ExchangeError);
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});
