import { roomFaces, roomLight, roughnessOf, sharpnessOf, SIDES } from './room';

/** The integral of a function of directions over the sphere, by rings of equal height and even turns. */
function overSphere(of: (x: number, y: number, z: number) => number, rings = 400, turns = 400): number {
  let sum = 0;
  for (let r = 0; r < rings; r++)
    for (let t = 0; t < turns; t++) {
      const z = (2 * r + 1) / rings - 1;
      const a = (2 * Math.PI * (t + 0.5)) / turns;
      const flat = Math.sqrt(1 - z * z);
      sum += of(flat * Math.cos(a), flat * Math.sin(a), z);
    }
  return (4 * Math.PI * sum) / (rings * turns);
}

describe('the light of the room', () => {
  it('is as much for the roughest face as for a smooth one', () => {
    const all = [0.2, 0.45, 0.7, 1].map((r) => overSphere((x, y, z) => roomLight(x, y, z, sharpnessOf(r))));
    for (const sum of all) expect(sum / all[0]).toBeCloseTo(1, 3);
  });

  it('is mirrored less sharply by a rougher face, and comes from above and from behind', () => {
    const above = [0.1, 0.4, 1].map((r) => roomLight(-0.03, 0.35, 0.94, sharpnessOf(r)));
    expect(above[0]).toBeGreaterThan(2 * above[1]);
    expect(above[1]).toBeGreaterThan(2 * above[2]);
    const matt = (x: number, y: number, z: number) => roomLight(x, y, z, sharpnessOf(1));
    expect(matt(0, 0, 1)).toBeGreaterThan(matt(0, 0, -1));
    expect(matt(0, 1, 0)).toBeGreaterThan(2 * matt(0, -1, 0));
  });

  it('lies on a cube as cubes are asked', () => {
    // The major axis of a direction says which face, and where on it (OpenGL ES 3.0, table 3.21).
    const faceOf = (x: number, y: number, z: number): [face: number, s: number, t: number] => {
      const [a, b, c] = [x, y, z].map(Math.abs);
      if (a >= b && a >= c) return x > 0 ? [0, -z / a, -y / a] : [1, z / a, -y / a];
      if (b >= c) return y > 0 ? [2, x / b, z / b] : [3, x / b, -z / b];
      return z > 0 ? [4, x / c, -y / c] : [5, -x / c, -y / c];
    };
    const level = 2;
    const n = SIDES[level];
    const made = roomFaces(level);
    expect(made.map((f) => f.length)).toEqual(new Array(6).fill(n * n));
    const seen = new Set<number>();
    for (let k = 0; k < 3000; k++) {
      const z = 2 * ((k * 0.618034) % 1) - 1;
      const turn = k;
      const [x, y] = [Math.cos(turn), Math.sin(turn)].map((v) => v * Math.sqrt(1 - z * z));
      const [face, s, t] = faceOf(x, y, z);
      const [u, v] = [((s + 1) * n) / 2 - 0.5, ((t + 1) * n) / 2 - 0.5];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      if (i < 0 || j < 0 || i >= n - 1 || j >= n - 1) continue;
      seen.add(face);
      const [fu, fv] = [u - i, v - j];
      const of = (c: number, r: number) => made[face][r * n + c];
      const there =
        (of(i, j) * (1 - fu) + of(i + 1, j) * fu) * (1 - fv) + (of(i, j + 1) * (1 - fu) + of(i + 1, j + 1) * fu) * fv;
      const wanted = roomLight(-x, y, z, sharpnessOf(roughnessOf(level)));
      expect(Math.abs(there / wanted - 1)).toBeLessThan(0.2);
    }
    expect(seen.size).toBe(6);
    expect([roughnessOf(0), roughnessOf(SIDES.length - 1)]).toEqual([0, 1]);
  });

  it('is asked with X turned round: what comes from the right lies on the face to the left', () => {
    const [right, left] = roomFaces(3);
    const sum = (f: Float32Array) => f.reduce((a, b) => a + b, 0);
    expect(roomLight(1, 0, 0, 20)).toBeGreaterThan(roomLight(-1, 0, 0, 20));
    expect(sum(left)).toBeGreaterThan(sum(right));
  });
});
