/** A height of a cut as the side view shows it: mm above the top face. */
export interface Level {
  readonly name: string;
  readonly z: number;
}

/** How much of the height what lies above the face may take. */
const SHARE = 0.42;

/**
 * Where heights are drawn, in pixels from the top: depths to one scale of at most `most` pixels a mm (what is wide must fit
 * too), and heights above the face to the same unless they would take more than their share; then they are drawn smaller
 * (`above` says by how much).
 */
export function sideScale(
  highest: number,
  deepest: number,
  height: number,
  most = Infinity,
): { y: (z: number) => number; k: number; above: number } {
  const k = Math.min(most, (height * (1 - SHARE)) / Math.max(deepest, 1e-3));
  const above = Math.min(1, (height * SHARE) / Math.max(highest * k, 1e-9));
  const face = highest * k * above;
  return { y: (z) => (z > 0 ? face - z * k * above : face - z * k), k, above };
}

/** Places for labels beside their levels, at least `gap` apart and within `height`, in the order of the levels. */
export function labelPlaces(at: readonly number[], gap: number, height: number): number[] {
  const out = [...at];
  for (let i = 1; i < out.length; i++) out[i] = Math.max(out[i], out[i - 1] + gap);
  let most = height;
  for (let i = out.length - 1; i >= 0; i--) {
    out[i] = Math.min(out[i], most);
    most = out[i] - gap;
  }
  return out;
}
