import {
  both,
  cut,
  curve,
  egg,
  from,
  leaf,
  limb,
  lifted,
  moved,
  on,
  plate,
  raised,
  ring,
  rope,
  round,
  soft,
  swell,
  type Point,
  type Stroke,
} from './kit';
import type { Ornament } from './ornament';

const group = 'Waterside';

function boat(): Stroke[] {
  const hull: Point[] = [
    ...curve([-49, 2], [-40, -18], [-20, -22], [0, -22]),
    ...curve([0, -22], [22, -22], [40, -16], [50, 8]),
  ];
  const side: Point[] = [...hull, ...curve([50, 8], [30, -1], [-20, -4], [-49, 2])];
  const plank = (k: number): Stroke =>
    cut(
      limb(
        curve([-46 + k * 2, -2 - k * 5], [-24, -8 - k * 4.4], [20, -8 - k * 4.4], [47 - k * 3, 2 - k * 5]),
        0.7,
        1.6,
        'soft',
      ),
    );
  return [
    plate(side, 13, 0.9, (x, y) => 7 + 6 * Math.sqrt(Math.max(0, 1 - ((y + 22) / 40 - 0.3) ** 2))),
    plank(0),
    plank(1),
    plank(2),
    limb(curve([50, 8], [30, -1], [-20, -4], [-49, 2]), 1.9, 15),
    // Mast, furled sail, pennant.
    limb(
      [
        [-4, -4],
        [-4, 56],
      ],
      from(1.8, 1),
      from(10, 7),
    ),
    plate(
      [...curve([-1, 50], [16, 38], [30, 22], [40, 6]), ...curve([40, 6], [24, 3], [10, 3], [-1, 5])],
      9,
      0.8,
      (x) => 4 + 5 * Math.sin(Math.PI * Math.min(1, Math.max(0, (x + 6) / 46))),
    ),
    ...[12, 20, 28].map((x) =>
      cut(
        limb(
          [
            [x * 0.3, 46 - x * 0.6],
            [x, 5],
          ],
          0.45,
          1,
          'soft',
        ),
      ),
    ),
    plate(
      [...curve([-7, 44], [-16, 30], [-24, 16], [-32, 6]), ...curve([-32, 6], [-22, 4], [-14, 4], [-7, 5])],
      8,
      0.8,
      (x) => 4 + 4 * Math.sin(Math.PI * Math.min(1, Math.max(0, (x + 32) / 30))),
    ),
    limb(curve([-4, 56], [-10, 60], [-14, 52], [-22, 57]), from(2.4, 0.8), 6, 'soft'),
    // Waves.
    ...[0, 1].map((k) =>
      limb(
        Array.from(
          { length: 25 },
          (_, i) => [-46 + k * 4 + i * 3.6, -25 - k * 6 + 1.6 * Math.sin(i * 0.9 + k * 2)] as const,
        ),
        1.5,
        5,
      ),
    ),
  ];
}

function lockGate(): Stroke[] {
  const strokes: Stroke[] = [];
  // Two leaves that meet in the middle, planked aslant, with rails and heel posts; the beams above.
  for (const k of [0, 1, 2, 3, 4, 5, 6])
    strokes.push(
      plate(
        [
          [-41 + k * 5.7, -34],
          [-35.6 + k * 5.7, -34],
          [-35.6 + k * 5.7, 24],
          [-41 + k * 5.7, 24],
        ],
        5,
        1.2,
      ),
    );
  strokes.push(
    ...[-32, -4, 22].map((y) =>
      plate(
        [
          [-44, y - 3.4],
          [0, y - 3.4],
          [0, y + 3.4],
          [-44, y + 3.4],
        ],
        8,
        1.5,
      ),
    ),
    limb(
      [
        [-40, -28],
        [-5, 18],
      ],
      2.4,
      8,
      'flat',
    ),
    plate(
      [
        [-46, -38],
        [-39, -38],
        [-39, 33],
        [-46, 33],
      ],
      10,
      1.5,
    ),
    plate(
      [
        [-6.5, -36],
        [-0.3, -36],
        [-0.3, 28],
        [-6.5, 28],
      ],
      9,
      1.5,
    ),
    plate(
      [
        [-50, 30],
        [-2, 27],
        [-2, 34],
        [-50, 39],
      ],
      12,
      1.5,
    ),
    ...[-32, -4, 22].flatMap((y) => [-42, -20, -4].map((x) => on(egg([x, y], 1.3, 1.3, 1.4)))),
    // Paddle gear.
    ring([-21, 43], 4.4, 1.5, 8),
    limb(
      [
        [-21, 34],
        [-21, 44],
      ],
      1.8,
      8,
      'flat',
    ),
  );
  return [
    ...both(strokes),
    ...[0, 1, 2].map((k) =>
      limb(
        Array.from(
          { length: 29 },
          (_, i) => [-49 + i * 3.5, -42 - k * 4.5 + 1.3 * Math.sin(i * 0.8 + k * 2.1)] as const,
        ),
        1.2,
        4,
      ),
    ),
  ];
}

function anchor(): Stroke[] {
  const shank: Point[] = [
    [0, 44],
    [0, -40],
  ];
  return [
    limb(shank, 4.4, 13),
    limb(
      [
        [-24, 30],
        [24, 30],
      ],
      3.6,
      14,
    ),
    ...both([egg([26, 30], 4.6, 4.6, 14.5)]),
    ring([0, 52], 8, 2.6, 12),
    soft(limb(round([0, -8], 38, 36, 198, 342, 30), swell(2.4, 5.4), 13), 4),
    ...both([
      plate(
        [
          [29, -24],
          [46, -6],
          [45, -26],
        ],
        12,
        1.4,
      ),
    ]),
    rope(curve([-8, 50], [-40, 44], [30, 8], [-12, -10], 40), 2.6, 16, 4.2),
    rope(curve([-12, -10], [-30, -20], [-8, -34], [22, -50], 30), 2.6, 16, 4.2),
  ];
}

function lantern(): Stroke[] {
  const pane = (a: number, b: number): Stroke =>
    plate(
      [
        [a, -34],
        [b, -34],
        [b * 1.15, 14],
        [a * 1.15, 14],
      ],
      8,
      0.9,
    );
  return [
    egg([0, -10], 36, 44, 14, 0, 'soft'),
    pane(-24, -9),
    pane(-7, 7),
    pane(9, 24),
    plate(
      [
        [-34, -52],
        [34, -52],
        [30, -38],
        [-30, -38],
      ],
      16,
      1.6,
    ),
    plate(
      [
        [-37, 14],
        [37, 14],
        [30, 24],
        [-30, 24],
      ],
      17,
      1.6,
    ),
    plate(
      [
        [-30, 23],
        [30, 23],
        [12, 44],
        [-12, 44],
      ],
      16,
      1.2,
    ),
    egg([0, 47], 12, 7, 15),
    ring([0, 62], 12, 2.4, 9),
    // A flame.
    lifted(leaf(curve([0, -24], [-10, -12], [8, -4], [0, 10]), swell(3, 6, 0.4), 5), 9),
    ...both([
      limb(
        [
          [28, -38],
          [32, 14],
        ],
        2.2,
        15,
      ),
    ]),
    ...both([
      limb(
        [
          [8, -38],
          [9, 14],
        ],
        1.4,
        16,
      ),
    ]),
  ];
}

function knot(): Stroke[] {
  // Two bights that pass over and under each other: an interlaced ring of four, each crossing by its height.
  const n = 240;
  const path: Point[] = Array.from({ length: n + 1 }, (_, k) => {
    const t = (2 * Math.PI * k) / n;
    const r = 30 + 12.5 * Math.cos(4 * t);
    return [r * Math.cos(t), r * Math.sin(t)] as const;
  });
  const other = path.map(([x, y]) => [(x - y) * Math.SQRT1_2, (x + y) * Math.SQRT1_2] as const);
  // Each is drawn in parts, whole at its crossings; what comes later stands higher there.
  const strokes: Stroke[] = [rope(path, 4.6, 11, 8), rope(other, 4.6, 11, 8)];
  const over = (line: readonly Point[], first: number): Stroke[] =>
    [0, 1, 2, 3].map((k) => {
      const m = Math.round(((first + k * 90) / 360) * n);
      const part = Array.from({ length: 21 }, (_, i) => line[(m - 10 + i + n) % n]);
      return moved([rope(part, 4.6, 11, 8)], 0, 0)[0];
    });
  return [...strokes, ...raised(over(path, 22.5), 3), ...raised(over(other, 22.5), 3)];
}

export const waterside: Readonly<Record<string, Ornament>> = {
  boat: { name: 'Sailing boat', group, words: 'ship ferry water sail', strokes: boat },
  'lock-gate': { name: 'Lock gate', group, words: 'canal sluice water', strokes: lockGate },
  anchor: { name: 'Anchor', group, words: 'ship sea harbour', strokes: anchor },
  lantern: { name: 'Lantern', group, words: 'lamp light boat', strokes: lantern },
  knot: { name: 'Knot of rope', group, words: 'rope ring sailor', strokes: knot },
};
