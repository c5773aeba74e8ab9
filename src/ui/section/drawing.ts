import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';

/** One place of the section: mm along it, whether it lies on the blank, heights of the proof (NaN where there is none yet), of what is wanted (NaN off the blank), and of the lower face. */
export interface Sample {
  readonly s: number;
  readonly on: boolean;
  readonly proof: number;
  readonly want: number;
  readonly floor: number;
}

export const PAD = { left: 52, right: 14, top: 26, bottom: 20 };

/** The section as it is drawn: scales in pixels, the lowest height shown, and the outlines of material, wanted and proven surface. */
export function sectionDrawing(
  samples: readonly Sample[],
  thickness: number,
  length: number,
  width: number,
  height: number,
) {
  const on = samples.filter((p) => p.on);
  const deepest = Math.max(...on.map((p) => Math.max(-p.want || 0, -p.proof || 0)), 0.5);
  // A relief that does not fit stands above the face: that is seen too.
  const highest = Math.max(...on.map((p) => Math.max(p.want || 0, p.proof || 0)), 0);
  // Where the other face is cut too, the whole thickness is shown.
  const both = samples.some((p) => p.floor > -thickness + 1e-3);
  const low = both ? thickness : Math.min(thickness, deepest * 1.3);
  const x = scaleLinear()
    .domain([0, length])
    .range([PAD.left, Math.max(PAD.left + 10, width - PAD.right)]);
  const y = scaleLinear()
    .domain([highest > 0 ? highest + low * 0.04 : low * 0.02, -low])
    .range([PAD.top, height - PAD.bottom]);
  // By the scales' own straight lines: a scale asked point by point takes most of what a section costs.
  const across = length > 0 ? (x(length) - PAD.left) / length : 0;
  const px = (p: Sample) => PAD.left + p.s * across;
  const [face, down] = [y(0), y(1) - y(0)];
  const py = (z: number) => face + z * down;
  const clampZ = (z: number) => py(Math.max(z, -low * 1.02));
  const proven = (p: Sample) => clampZ(Number.isFinite(p.proof) ? p.proof : 0);
  return {
    x,
    y,
    low,
    solid:
      area<Sample>()
        .x(px)
        .y0((p) => py(Math.max(-low, Math.min(p.floor, p.proof || 0))))
        .y1(proven)(on) ?? '',
    proof:
      line<Sample>()
        .defined((p) => Number.isFinite(p.proof))
        .x(px)
        .y(proven)(on) ?? '',
    want:
      line<Sample>()
        .defined((p) => Number.isFinite(p.want))
        .x(px)
        .y((p) => clampZ(p.want))(on) ?? '',
  };
}
