/*
 * The room that the blank stands in, as light from all sides: white walls, a bright ceiling behind, and lamps. Each is a spherical
 * Gaussian (J. Wang et al., "All-Frequency Rendering of Dynamic, Spatially-Varying Reflectance", 2009), so that what a rough face
 * mirrors of it is known in closed form: no picture of the room is drawn and blurred, which takes seconds without a graphics card.
 *
 *     radiance(d) = a exp(s (d . m - 1))        m: where it is brightest, s: how sharply it falls off
 */

type Direction = readonly [x: number, y: number, z: number];

interface Glow {
  readonly to: Direction;
  readonly sharpness: number;
  /** Integral over the sphere. */
  readonly energy: number;
}

/** X to the right, Y to the back, Z up, as the blank lies. */
const glows: readonly Glow[] = [
  // The ceiling behind, and the wall in front darker than it.
  { to: [0, 1, 0.1], sharpness: 1.2, energy: 6 },
  // A broad lamp above.
  { to: [-0.03, 0.35, 0.94], sharpness: 70, energy: 3.9 },
  // Lamps on the walls to the right, to the left, and one at the top of that behind.
  { to: [0.86, 0.5, -0.1], sharpness: 76, energy: 1.4 },
  { to: [-0.76, 0.51, 0.39], sharpness: 300, energy: 0.6 },
  { to: [-0.69, 0.63, -0.35], sharpness: 300, energy: 0.5 },
  { to: [0, 1, 0], sharpness: 300, energy: 0.4 },
  { to: [0.21, 0.53, -0.82], sharpness: 200, energy: 0.4 },
];
/** Of the walls all round. */
const WALLS = 0.3;

/** Sharpest and broadest that a face mirrors: a smooth one, and one that scatters by the cosine. */
const [SMOOTH, MATT] = [2000, 2.1];

/** How sharply a face of a roughness 0..1 mirrors: of the normals of Trowbridge and Reitz as a spherical Gaussian, turned to what they mirror. */
export const sharpnessOf = (roughness: number): number => Math.min(SMOOTH, Math.max(MATT, 0.5 / roughness ** 4));

/** Radiance that comes from a direction (of length 1), as a face of such sharpness mirrors it. */
export function roomLight(x: number, y: number, z: number, sharpness: number): number {
  let sum = WALLS;
  for (const { to, sharpness: s, energy } of glows) {
    const long = Math.hypot(...to);
    // Two Gaussians laid over each other are about one that is as broad as both, of the same energy.
    const both = (s * sharpness) / (s + sharpness);
    const cos = (x * to[0] + y * to[1] + z * to[2]) / long;
    sum += ((energy * both) / (2 * Math.PI * -Math.expm1(-2 * both))) * Math.exp(both * (cos - 1));
  }
  return sum;
}

/** Texels along a side of a face of each level: the last is for what is matt. */
export const SIDES = [32, 16, 8, 4] as const;

/** The roughness that a level is for; three.js asks for level l of m at 1 - sqrt(1 - l / m). */
export const roughnessOf = (level: number): number => 1 - Math.sqrt(1 - level / (SIDES.length - 1));

/** Where the texels of a cube's faces lie as seen from its middle (OpenGL ES 3.0, table 3.21), s and t from -1 to 1. */
const faces: readonly ((s: number, t: number) => Direction)[] = [
  (s, t) => [1, -t, -s],
  (s, t) => [-1, -t, s],
  (s, t) => [s, 1, t],
  (s, t) => [s, -1, -t],
  (s, t) => [s, -t, 1],
  (s, t) => [-s, -t, -1],
];

/** Radiance at the texels of a level of each face, row by row. */
export const roomFaces = (level: number): Float32Array[] =>
  faces.map((at) => {
    const n = SIDES[level];
    const sharpness = sharpnessOf(roughnessOf(level));
    return Float32Array.from({ length: n * n }, (_, i) => {
      const [x, y, z] = at((2 * (i % n) + 1) / n - 1, (2 * Math.floor(i / n) + 1) / n - 1);
      const long = Math.hypot(x, y, z);
      // Cubes are left-handed: they are asked with X turned round.
      return roomLight(-x / long, y / long, z / long, sharpness);
    });
  });
