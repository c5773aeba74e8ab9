import {
  both,
  cut,
  curve,
  egg,
  from,
  leaf,
  limb,
  lifted,
  on,
  plate,
  raised,
  ring,
  soft,
  swell,
  type Point,
  type Stroke,
} from './kit';
import type { Ornament } from './ornament';

const group = 'Waterside';

function heron(): Stroke[] {
  const feather = (a: Point, b: Point, half: number, high: number) =>
    leaf([a, [(a[0] + b[0]) / 2 - 1, (a[1] + b[1]) / 2 + 2], b], swell(1.5, half, 0.4), high, {
      rib: 0.3,
      veins: 7,
      vein: 0.12,
    });
  const leg = (x: number, knee: Point, foot: Point): Stroke[] => [
    limb([[x, -22], knee], from(3.4, 1.8), from(9, 6)),
    limb([knee, foot], from(1.7, 1.5), 6),
    egg(knee, 2.4, 2.4, 6.5),
    ...[-14, -2, 9].map((dx) => limb([foot, [foot[0] + dx, foot[1] - 4]], from(1.5, 0.7), from(5, 3))),
  ];
  return [
    ...leg(-4, [-6, -56], [-2, -88]),
    ...leg(7, [9, -54], [8, -86]),
    // Body and tail.
    egg([-4, -4], 38, 19, 20, 32),
    soft(leaf(curve([-18, -14], [-30, -24], [-38, -32], [-47, -42]), swell(9, 8, 2), 12, { veins: 5, vein: 0.15 }), 6),
    // The neck in its S, and the head.
    soft(limb(curve([16, 12], [40, 22], [36, 40], [20, 48], 16), from(11, 6.5), from(17, 12)), 8),
    soft(limb(curve([20, 48], [8, 56], [8, 76], [20, 84], 16), from(6.5, 5), from(12, 10.5)), 4),
    soft(egg([24, 86], 9, 6.6, 12, 8), 4),
    // Bill.
    soft(
      limb(
        [
          [29, 86],
          [49, 80],
        ],
        from(3.2, 0.7),
        from(9, 4),
        'ridge',
      ),
      2,
    ),
    cut(
      limb(
        [
          [29, 85],
          [47, 80.4],
        ],
        0.45,
        1.2,
        'ridge',
      ),
    ),
    on(egg([25.5, 88], 1.6, 1.6, 1.2)),
    cut(ring([25.5, 88], 2.3, 0.7, 1)),
    // Crest.
    soft(limb(curve([20, 90], [10, 92], [0, 88], [-10, 78]), from(1.9, 0.5), from(9, 4)), 2),
    // Wing: rows of feathers, the upper ones over the lower.
    ...raised(
      [feather([12, 4], [-40, -30], 7, 7), feather([14, 0], [-32, -34], 7, 7), feather([14, -4], [-22, -34], 6.5, 7)],
      11,
    ),
    ...raised(
      [feather([14, 8], [-24, -14], 6.5, 7), feather([16, 4], [-17, -19], 6.5, 7), feather([18, 0], [-8, -20], 6, 7)],
      14,
    ),
    ...raised(
      [feather([18, 12], [-9, -2], 6, 6), feather([20, 8], [-3, -7], 6, 6), feather([22, 12], [2, 5], 6, 6)],
      17,
    ),
    // Plumes of the breast.
    ...[0, 1, 2].map((k) =>
      soft(
        limb(
          curve([28 - k * 3, 20], [30 - k * 3, 8], [26 - k * 3, -4], [20 - k * 4, -16]),
          from(2.2, 0.6),
          from(15, 11),
        ),
        3,
      ),
    ),
  ];
}

function shell(): Stroke[] {
  const ribs = 13;
  const strokes: Stroke[] = [...both([egg([14, -40], 12, 7, 8, -12)])];
  for (let k = 0; k < ribs; k++) {
    const a = ((k - (ribs - 1) / 2) * 12.2 * Math.PI) / 180;
    const long = 88 - 12 * Math.abs(a) ** 1.6;
    strokes.push(
      limb(
        [
          [0, -42],
          [Math.sin(a) * long * 0.5, -42 + Math.cos(a) * long * 0.5],
          [Math.sin(a) * long * 0.94, -42 + Math.cos(a) * long * 0.94],
        ],
        (t) => 2 + 7 * t,
        (t) => 9 + 11 * Math.sin(Math.PI * (0.12 + 0.68 * t)),
        'soft',
      ),
    );
  }
  // Lines of growth.
  for (const r of [34, 52, 70]) strokes.push(cut(ring([0, -42], r, 1.2, 1.3, 'bell')));
  strokes.push(soft(egg([0, -42], 7, 6, 15), 4));
  return strokes;
}

function fish(): Stroke[] {
  const scales: Stroke[] = [];
  for (let c = 0; c < 11; c++)
    for (let r = -3; r <= 3; r++) {
      const x = 16 - c * 5.4;
      const y = (r + (c % 2) / 2) * 5.6;
      const within = (x + 4) ** 2 / 38 ** 2 + y ** 2 / 17 ** 2;
      if (within < 0.8) scales.push(on(egg([x, y], 3.6, 3.4, 1.3 * (1 - within * 0.5), 0, 'ridge')));
    }
  const fin = (pts: Point[], high: number): Stroke => plate(pts, high, 1.2);
  const rays = (a: Point, ends: Point[]): Stroke[] => ends.map((b) => cut(limb([a, b], 0.7, 1.4, 'soft')));
  return [
    fin(
      [
        [-12, 15],
        [2, 17],
        [8, 15],
        [0, 27],
        [-10, 24],
      ],
      5,
    ),
    ...rays(
      [4, 10],
      [
        [-9, 24],
        [-4, 26],
        [0, 26],
      ],
    ),
    fin(
      [
        [-18, -12],
        [-6, -16],
        [-12, -24],
        [-20, -20],
      ],
      5,
    ),
    fin(
      [
        [6, -15],
        [16, -13],
        [8, -25],
        [2, -22],
      ],
      5,
    ),
    fin(
      [
        [-34, 3],
        [-50, 18],
        [-45, 0],
        [-50, -18],
        [-34, -3],
      ],
      6,
    ),
    ...rays(
      [-34, 0],
      [
        [-48, 14],
        [-46.5, 6],
        [-46.5, -6],
        [-48, -14],
      ],
    ),
    limb(
      curve([-40, 0], [-20, 2], [10, 2], [38, 0], 16),
      (t) => 4 + 14 * Math.sin(Math.PI * (0.04 + 0.72 * t)) ** 1.1,
      (t) => 5 + 13 * Math.sin(Math.PI * (0.1 + 0.62 * t)),
    ),
    ...scales,
    // Head, gill, mouth, eye.
    cut(limb(curve([19, 13], [14, 6], [14, -6], [19, -12]), 1.1, 3, 'soft')),
    cut(
      limb(
        [
          [46, -2.5],
          [39, -4.5],
        ],
        0.8,
        2.5,
        'soft',
      ),
    ),
    on(egg([32, 4], 3.2, 3.2, 2)),
    cut(ring([32, 4], 4, 0.8, 1.4, 'soft')),
    lifted(leaf(curve([16, -3], [10, -6], [4, -8], [-2, -8]), swell(1, 4, 0.6), 4, { veins: 5, vein: 0.3 }), 15),
  ];
}

function swan(): Stroke[] {
  const feather = (a: Point, b: Point, half: number) =>
    leaf([a, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2 - 2], b], swell(2, half, 0.5), 6, {
      rib: 0.25,
      veins: 6,
      vein: 0.12,
    });
  return [
    limb(
      curve([-44, -18], [-20, -34], [14, -34], [34, -14], 16),
      (t) => 4 + 13 * Math.sin(Math.PI * (0.08 + 0.82 * t)),
      (t) => 6 + 12 * Math.sin(Math.PI * (0.1 + 0.8 * t)),
    ),
    soft(limb(curve([30, -14], [44, 4], [8, 18], [22, 36], 18), from(9.5, 5), from(15, 10)), 7),
    soft(limb(curve([22, 36], [26, 43], [33, 42], [36, 35]), from(5, 4.4), 10.5), 4),
    soft(
      limb(
        [
          [36, 35],
          [41, 25],
        ],
        from(3.4, 1.6),
        from(8, 5),
        'soft',
      ),
      2,
    ),
    on(egg([34.5, 38.5], 1.2, 1.2, 0.9)),
    ...raised(
      [feather([18, -20], [-48, 0], 6.5), feather([18, -14], [-44, 10], 6.5), feather([18, -9], [-36, 18], 6.5)],
      11,
    ),
    ...raised([feather([20, -14], [-22, 4], 6), feather([21, -9], [-16, 12], 6), feather([22, -4], [-8, 15], 6)], 14),
    // Water.
    ...[0, 1, 2].map((k) =>
      limb(
        curve([-40 + k * 8, -36 - k * 5], [-16, -40 - k * 5], [8, -32 - k * 5], [38 - k * 8, -37 - k * 5]),
        swell(0.4, 1.4),
        swell(1.5, 3.5),
      ),
    ),
  ];
}

export const creatures: Readonly<Record<string, Ornament>> = {
  heron: { name: 'Heron', group, words: 'bird wader crane', strokes: heron },
  swan: { name: 'Swan', group, words: 'bird water', strokes: swan },
  fish: { name: 'Roach', group, words: 'fish angler water', strokes: fish },
  shell: { name: 'Scallop shell', group, words: 'sea niche', strokes: shell },
};
