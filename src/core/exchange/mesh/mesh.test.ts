import fc from 'fast-check';
import { flatField } from '../../relief/field';
import { boxOfMesh } from '../../relief/mesh';
import { boxMesh, stlOf, volumeOf } from '../../testing/meshes';
import { readMesh } from './read';
import { bodyOf, closedMesh } from './body';
import { writeObj } from './writeObj';
import { writeStl } from './writeStl';

const text = (s: string) => new TextEncoder().encode(s);
const box = boxMesh(0, 0, 0, 3, 4, 5);
const asciiOf = (corners: Float32Array): string => {
  let out = 'solid box\n';
  for (let i = 0; i < corners.length; i += 9) {
    out += ' facet normal 0 0 0\n  outer loop\n';
    for (let k = 0; k < 9; k += 3) out += `   vertex ${corners[i + k]} ${corners[i + k + 1]} ${corners[i + k + 2]}\n`;
    out += '  endloop\n endfacet\n';
  }
  return `${out}endsolid box\n`;
};

describe('mesh files', () => {
  it('are read: STL, binary or as text, and OBJ with its polygons', () => {
    expect([...readMesh('a.stl', stlOf(box)).corners]).toEqual([...box.corners]);
    expect([...readMesh('a.STL', text(asciiOf(box.corners))).corners]).toEqual([...box.corners]);
    // A binary file may begin like a text.
    const sly = stlOf(box);
    sly.set(text('solid made by hand'));
    expect(readMesh('sly.stl', sly).corners).toHaveLength(box.corners.length);
    const obj = `# a roof\nv 0 0 0\nv 4 0 0\nv 4 4 0\nv 0 4 0\nvt 0 0\nvn 0 0 1\nv 2 2 3 1.0\ng roof\nusemtl slate\nf 1/1/1 2/1/1 5/1/1\nf 2//1 3//1 -1\nf 4 3 2 1\n`;
    const roof = readMesh('roof.obj', text(obj)).corners;
    expect(roof).toHaveLength(4 * 9);
    expect([...roof.slice(0, 9)]).toEqual([0, 0, 0, 4, 0, 0, 2, 2, 3]);
    expect([...roof.slice(9, 18)]).toEqual([4, 0, 0, 4, 4, 0, 2, 2, 3]);
  });
  it.each([
    ['empty.stl', new Uint8Array(), /"empty.stl" was not read: it is empty/],
    ['cut.stl', stlOf(box).subarray(0, 300), /says that it has 12 triangles, but ends after 4/],
    ['odd.stl', text('MZ a program'), /no STL file/],
    ['no.stl', text('solid nothing\nendsolid nothing'), /no faces/],
    [
      'half.stl',
      text('solid a\nfacet\nouter loop\nvertex 1 2 3\nvertex 1 2'),
      /ends where a number should stand \(line 5\)/,
    ],
    ['word.stl', text('solid a\nouter loop\nvertex 1 two 3'), /"two" stands in line 3/],
    ['nan.obj', text('v 0 0 nan\nf 1 1 1'), /"nan" stands in line 1/],
    ['huge.obj', text('v 0 0 1e99\nf 1 1 1'), /"1e99" stands in line 1/],
    ['far.obj', text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 4'), /"4" in line 4 names no point/],
    ['zero.obj', text('v 0 0 0\nf 0 1 1'), /names no point/],
    ['thin.obj', text('v 0 0 0\nv 1 0 0\nf 1 2'), /fewer than three corners/],
    ['dot.obj', text('v 1 1 1\nf 1 1 1'), /all its corners lie in one point/],
    ['short.obj', text('v 0 0\nv 1 1 1\nf 1 1 1'), /line 1/],
  ])('that are broken are refused by name and place: %s', (name, bytes, words) => {
    expect(() => readMesh(name, bytes)).toThrow(words);
  });
  it('that claim more than there is are refused before anything is made for them', () => {
    const liar = new Uint8Array(84 + 50);
    new DataView(liar.buffer).setUint32(80, 1e9, true);
    expect(() => readMesh('liar.stl', liar)).toThrow(/1000000000 triangles; 20 million are the most/);
    const nan = stlOf(box);
    new DataView(nan.buffer).setFloat32(84 + 50 * 3 + 12, NaN, true);
    expect(() => readMesh('nan.stl', nan)).toThrow(/triangle 4 has a corner that is no number/);
  });
  it('that are damaged anywhere are read or refused in words', () => {
    const sources = [
      ['a.stl', stlOf(box)],
      ['t.stl', text(asciiOf(box.corners))],
      ['o.obj', text('v 0 0 0\nv 4 0 0\nv 4 4 0\nv 0 4 1\nf 1 2 3\nf 1/2 3/4 4\n')],
    ] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...sources),
        fc.array(fc.tuple(fc.nat(), fc.nat({ max: 255 })), { minLength: 1, maxLength: 6 }),
        fc.nat({ max: 300 }),
        ([name, good], changes, cut) => {
          const bytes = good.slice(0, Math.max(1, good.length - (cut > 200 ? cut - 200 : 0)));
          for (const [at, v] of changes) bytes[at % bytes.length] = v;
          try {
            const { corners } = readMesh(name, bytes);
            expect(corners.every(Number.isFinite)).toBe(true);
          } catch (e) {
            expect((e as Error).name).toBe('ExchangeError');
            expect((e as Error).message).toMatch(/^"[ato]\.(stl|obj)" was not read: .*\.$/s);
          }
        },
      ),
      { numRuns: 1500 },
    );
  });
});

describe('a relief as a body', () => {
  it('is closed, and holds what lies under the surface', () => {
    const f = flatField(6, 4, 0.5, -2);
    for (let r = 0; r < f.rows; r++)
      for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = -2 - 0.1 * c * 0.5 + 0.2 * r * 0.5;
    f.z[5] = NaN;
    const mesh = readMesh('relief.stl', writeStl(closedMesh(bodyOf(f, 6.3, 4.1), -10), 'Heron'));
    // As large as the blank, which reaches beyond the last nodes.
    const { low, high } = boxOfMesh(mesh);
    expect([...low, ...high]).toEqual([0, 0, -10, Math.fround(6.3), Math.fround(4.1), 0]);
    const edges = new Map<string, number>();
    for (let i = 0; i < mesh.corners.length; i += 9)
      for (let e = 0; e < 3; e++) {
        const p = [...mesh.corners.slice(i + 3 * e, i + 3 * e + 3)].join();
        const q = [...mesh.corners.slice(i + 3 * ((e + 1) % 3), i + 3 * ((e + 1) % 3) + 3)].join();
        edges.set(`${p}|${q}`, (edges.get(`${p}|${q}`) ?? 0) + 1);
      }
    // Each edge is run through once in each sense.
    for (const [key, n] of edges) {
      expect(n).toBe(1);
      expect(edges.get(key.split('|').reverse().join('|'))).toBe(1);
    }
    f.z[5] = -2 - 0.1 * 5 * 0.5;
    const whole = readMesh('relief.stl', writeStl(closedMesh(bodyOf(f, 6, 4), -10), 'Heron'));
    // Middle height of the plane, over the whole rectangle.
    expect(volumeOf(whole)).toBeCloseTo(6 * 4 * (8 - 0.1 * 3 + 0.2 * 2), 3);
  });
  it('is the same as STL and as OBJ', () => {
    const f = flatField(6, 4, 0.5, -2);
    f.z.forEach((_, k) => (f.z[k] = -2 + Math.sin(k)));
    const body = closedMesh(bodyOf(f, 6.3, 4.1), -10);
    const stl = readMesh('relief.stl', writeStl(body, 'Heron\nand reeds'));
    const obj = readMesh('relief.obj', writeObj(body, 'Heron\nand reeds'));
    expect(obj.corners.length).toBe(stl.corners.length);
    let worst = 0;
    obj.corners.forEach((v, k) => (worst = Math.max(worst, Math.abs(v - stl.corners[k]))));
    // A tenth of a micrometre, and what single floats leave of it.
    expect(worst).toBeLessThan(1e-4);
    expect(volumeOf(obj)).toBeCloseTo(volumeOf(stl), 2);
  });
  it('of many nodes is thinned out, and keeps its heights between them', () => {
    const f = flatField(100, 60, 0.05);
    for (let r = 0; r < f.rows; r++)
      for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = -0.01 * c * 0.05 - 0.02 * r * 0.05;
    const thin = bodyOf(f, 100, 60);
    expect(thin.z.length).toBeLessThanOrEqual(610_000);
    expect(thin.cell).toBeCloseTo(0.1, 6);
    for (const [c, r] of [
      [0, 0],
      [thin.xs.length - 1, thin.ys.length - 1],
      [77, 31],
    ])
      expect(thin.z[r * thin.xs.length + c]).toBeCloseTo(-0.01 * thin.xs[c] - 0.02 * thin.ys[r], 5);
    expect([...bodyOf(flatField(10, 10, 4), 10, 9).xs]).toEqual([0, 4, 8, 10]);
  });
});
