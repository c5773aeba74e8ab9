import { boxMesh, meshOf, surfaceMesh } from '../testing/meshes';
import { stood, type Mesh } from './mesh';
import { meshFacts } from './meshFacts';

const level = { tipX: 0, tipY: 0 };
const together = (...meshes: Mesh[]): Mesh => ({
  corners: Float32Array.from(meshes.flatMap((m) => [...m.corners])),
});
const hill = (x: number, y: number) => 2 + Math.sin(x) * Math.cos(y);

/** A ball of rings and segments about (0, 0, 0). */
function ball(r: number, n: number): Mesh {
  const at = (i: number, j: number): [number, number, number] => {
    const [a, b] = [(Math.PI * i) / n, (2 * Math.PI * (j % (2 * n))) / (2 * n)];
    return [r * Math.sin(a) * Math.cos(b), r * Math.sin(a) * Math.sin(b), i === 0 ? r : i === n ? -r : r * Math.cos(a)];
  };
  const out = [];
  for (let i = 0; i < n; i++)
    for (let j = 0; j < 2 * n; j++) {
      if (i > 0) out.push([at(i, j), at(i + 1, j), at(i, j + 1)]);
      if (i < n - 1) out.push([at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)]);
    }
  return meshOf(out);
}

describe('what is to be known of a mesh', () => {
  it('is nothing of a box, a sheet, or a shell that is open underneath', () => {
    const none = { undercut: 0, holes: 0 };
    expect(meshFacts(boxMesh(0, 0, 0, 10, 6, 3), { ...level, up: 'z+' })).toEqual(none);
    expect(meshFacts(surfaceMesh(10, 20, hill), { ...level, up: 'z+' })).toEqual(none);
    const shell = boxMesh(0, 0, 0, 10, 6, 3).corners.slice(2 * 9);
    expect(meshFacts({ corners: shell }, { ...level, up: 'z+' })).toEqual(none);
    // A step is no undercut.
    expect(
      meshFacts(together(boxMesh(0, 0, 0, 10, 10, 2), boxMesh(2, 2, 2, 8, 8, 4)), { ...level, up: 'z+' }).undercut,
    ).toBe(0);
  });
  it('is where it hangs over something, as a share of what is seen from above', () => {
    // A cap of 10 x 10 on a stem of 4 x 4.
    const mushroom = together(boxMesh(3, 3, 0, 7, 7, 5), boxMesh(0, 0, 5, 10, 10, 6));
    expect(meshFacts(mushroom, { ...level, up: 'z+' }).undercut).toBeCloseTo(0.84, 1);
    // Turned over, the cap lies on the bed and carries the stem.
    expect(meshFacts(mushroom, { ...level, up: 'z-' }).undercut).toBe(0);
    // Solids that reach into each other hide nothing.
    expect(
      meshFacts(together(boxMesh(0, 0, 0, 10, 10, 3), boxMesh(2, 2, 1, 8, 8, 5)), { ...level, up: 'z+' }).undercut,
    ).toBe(0);
    // Nor does it matter which way the faces were drawn.
    const turned = (m: Mesh): Mesh => ({
      corners: m.corners.map((_, i) => m.corners[9 * Math.floor(i / 9) + 3 * (2 - (Math.floor(i / 3) % 3)) + (i % 3)]),
    });
    expect(meshFacts(turned(mushroom), { ...level, up: 'z+' }).undercut).toBeCloseTo(0.84, 1);
    // A bridge over a floor.
    const bridge = together(boxMesh(0, 0, 0, 10, 10, 1), boxMesh(0, 4, 3, 10, 6, 4));
    expect(meshFacts(bridge, { ...level, up: 'z+' }).undercut).toBeCloseTo(0.2, 1);
    expect(meshFacts(ball(5, 24), { ...level, up: 'z+' }).undercut).toBeGreaterThan(0.9);
  });
  it('is how many holes its surface has, whichever side looks up', () => {
    const sheet = surfaceMesh(10, 20, hill).corners;
    // Two squares in the middle, far from each other, and one beside the first.
    const cut = [5 * 20 + 5, 5 * 20 + 6, 14 * 20 + 12];
    const holed = { corners: sheet.filter((_, i) => !cut.includes(Math.floor(i / 18))) };
    expect(meshFacts(holed, { ...level, up: 'z+' }).holes).toBe(2);
    expect(meshFacts(stood(holed, { ...level, up: 'y+', turn: 0 }), { ...level, up: 'y-' }).holes).toBe(2);
    // The lid of a box is gone: one looks into it, and its rim is all round.
    const lidless = boxMesh(0, 0, 0, 10, 6, 3).corners.filter((_, i) => i < 18 || i >= 36);
    expect(meshFacts({ corners: lidless }, { ...level, up: 'z+' }).holes).toBe(0);
    // A side of it is gone.
    const sideless = boxMesh(0, 0, 0, 10, 6, 3).corners.filter((_, i) => i < 36 || i >= 54);
    expect(meshFacts({ corners: sideless }, { ...level, up: 'z+' }).holes).toBe(1);
  });
});
