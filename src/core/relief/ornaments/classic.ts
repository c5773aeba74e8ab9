import {
  around,
  both,
  curve,
  cut,
  egg,
  facets,
  from,
  leaf,
  limb,
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

const group = 'Signs and frames';

const rosette = (): Stroke[] => [
  ...around(8, [
    leaf(
      [
        [0, 8],
        [0, 28],
        [0, 49],
      ],
      (t) => 14 * Math.sin(Math.PI * (0.1 + 0.9 * t)) ** 0.7,
      swell(7, 11, 6),
      { rib: 0.4, veins: 4, vein: 0.12 },
    ),
  ]),
  ...raised(
    around(
      8,
      [
        leaf(
          [
            [0, 4],
            [0, 18],
            [0, 30],
          ],
          (t) => 8.5 * Math.sin(Math.PI * (0.12 + 0.88 * t)) ** 0.7,
          swell(6, 8, 4),
          { rib: 0.4 },
        ),
      ],
      22.5,
    ),
    5,
  ),
  egg([0, 0], 11, 11, 15),
  ...around(9, [on(egg([0, 7.6], 2, 2, 1.6, 0, 'bell'))]),
];

function compass(): Stroke[] {
  return [
    ring([0, 0], 38, 1.6, 5),
    ring([0, 0], 31, 1, 4),
    ...around(32, [
      limb(
        [
          [0, 33.5],
          [0, 36],
        ],
        0.8,
        4,
        'soft',
      ),
    ]),
    facets([0, 0], 8, 30, 9, 8, 78.75),
    facets([0, 0], 4, 38, 8, 11, 45),
    facets([0, 0], 4, 50, 9.5, 15),
    egg([0, 0], 4, 4, 15.5),
  ];
}

const star = (): Stroke[] => [facets([0, 0], 5, 50, 19.1, 18)];

function shield(): Stroke[] {
  const outline = (by: number): Point[] => {
    const right = [
      ...curve([0, 54 * by], [14 * by, 46 * by], [30 * by, 48 * by], [49 * by, 50 * by]),
      ...curve([49 * by, 50 * by], [50 * by, 0], [44 * by, -34 * by], [0, -60 * by]),
    ];
    return [
      ...right,
      ...right
        .slice(1, -1)
        .reverse()
        .map(([x, y]) => [-x, y] as const),
    ];
  };
  return [
    plate(outline(1), 10, 1.4),
    cut(plate(outline(0.88), 4, 1.4)),
    // A field that swells a little.
    on(egg([0, -2], 42, 50, 6, 0, 'bell')),
  ];
}

function scroll(): Stroke[] {
  // A volute: a spiral that winds in to an eye, and a leaf that springs from it.
  const spiral: Point[] = Array.from({ length: 120 }, (_, k) => {
    const t = k / 119;
    const a = Math.PI * (0.1 + 4.4 * t);
    const r = 27 * (1 - t) ** 1.15 + 4;
    return [20 + r * Math.cos(a), -2 + r * Math.sin(a)] as const;
  });
  return [
    limb(spiral, from(6.4, 2.6), from(11, 15)),
    cut(limb(spiral, from(1.6, 0.6), from(2.5, 1.6), 'soft')),
    egg([20, -2], 6.4, 6.4, 17),
    soft(limb(curve([spiral[0][0], spiral[0][1]], [46, -34], [0, -36], [-30, -20], 24), from(6.4, 3), from(11, 8)), 4),
    soft(
      leaf(
        curve([6, -31], [-20, -26], [-40, -4], [-30, 24], 18),
        (t) => 12 * Math.sin(Math.PI * (0.1 + 0.9 * t)) ** 0.8 * (0.8 + 0.2 * Math.cos(10 * Math.PI * t)),
        10,
        { rib: 0.35, veins: 5, vein: 0.2 },
      ),
      3,
    ),
    soft(
      leaf(curve([-12, -28], [-30, -30], [-42, -24], [-49, -8], 14), swell(3, 7, 0.4), 9, {
        rib: 0.35,
        veins: 4,
        vein: 0.2,
      }),
      3,
    ),
  ];
}

function banner(): Stroke[] {
  const wave = (x: number) => 5 * Math.sin((x / 50) * Math.PI * 0.9);
  const edge = (dy: number, a: number, b: number): Point[] =>
    Array.from({ length: 25 }, (_, k) => {
      const x = a + ((b - a) * k) / 24;
      return [x, wave(x) + dy] as const;
    });
  const roll = (x: number): number => 8 + 4.5 * Math.cos((x / 34) * Math.PI * 0.9);
  const tail: Stroke[] = [
    plate(
      [
        [-33, -20],
        [-50, -17],
        [-45, -8],
        [-50, 2],
        [-28, 2],
        [-28, -19],
      ],
      6,
      1.4,
    ),
    plate(
      [
        [-34, -17],
        [-27, -12],
        [-27, -20],
      ],
      4,
      1.4,
    ),
  ];
  return [
    ...tail,
    ...tail.map((s): Stroke => ({
      ...s,
      box: [-s.box[2], -s.box[3], -s.box[0], -s.box[1]],
      at: (x, y) => s.at(-x, -y),
    })),
    plate([...edge(-12, -34, 34), ...edge(12, 34, -34)], 14, 2, (x) => roll(x)),
    cut(limb(edge(-9.4, -32, 32), 0.6, 1, 'soft')),
    cut(limb(edge(9.4, -32, 32), 0.6, 1, 'soft')),
  ];
}

const ropeRing = (): Stroke[] => [rope(round([0, 0], 44, 44, 0, 360, 180), 6, 9, (2 * Math.PI * 44) / 24)];
const ropeLength = (): Stroke[] => [
  rope(
    Array.from({ length: 41 }, (_, k) => [-46 + k * 2.3, 0] as const),
    4,
    7,
    5.75,
  ),
  ...both([rope(round([46, 0], 0.1, 3.4, 90, 270, 8), 2, 5, 3)]),
];

const beads = (): Stroke[] => [
  plate(
    [
      [-50, -5.5],
      [50, -5.5],
      [50, 5.5],
      [-50, 5.5],
    ],
    1.5,
    2,
  ),
  ...[-40, -20, 0, 20, 40].flatMap((x) => [
    egg([x, 0], 4.6, 4.6, 6.5),
    ...[8.2, 11.8].map((d) => egg([x + d - 20, 0], 1.6, 4.2, 5.5)).filter((_, i) => x > -40 || i < 0),
  ]),
];

function sun(): Stroke[] {
  const ray = (long: number, half: number, high: number): Stroke =>
    leaf(
      [
        [0, 18],
        [0, (18 + long) / 2],
        [0, long],
      ],
      (t) => half * (1 - t) + 0.2,
      (t) => high * (1 - 0.5 * t),
      { shape: 'ridge' },
    );
  const wavy = leaf(
    curve([0, 18], [6, 28], [-6, 36], [1, 47]),
    (t) => 4.6 * (1 - t) + 0.2,
    (t) => 9 * (1 - 0.5 * t),
    { shape: 'ridge' },
  );
  return [
    ...around(12, [ray(50, 5.4, 9)]),
    ...around(12, [wavy], 15),
    egg([0, 0], 22, 22, 14, 0, 'soft'),
    ring([0, 0], 21, 1.8, 8),
    // A face at rest.
    ...both([
      on(egg([7.5, 5], 4, 2, 1.8, 8, 'bell')),
      cut(limb(curve([3, 8.5], [6, 11.5], [10, 11], [12.5, 8]), 0.7, 1.2, 'soft')),
    ]),
    on(
      limb(
        [
          [0, 7],
          [0, -3],
        ],
        from(1.1, 2.4),
        from(1.2, 3),
        'soft',
      ),
    ),
    cut(limb(curve([-6, -8.5], [-3, -11.5], [3, -11.5], [6, -8.5]), 0.8, 1.6, 'soft')),
    on(limb(curve([-4.5, -11.5], [-2, -13.5], [2, -13.5], [4.5, -11.5]), 1.1, 1.2, 'soft')),
  ];
}

function crown(): Stroke[] {
  const band: Point[] = [
    ...curve([-40, -30], [-14, -36], [14, -36], [40, -30]),
    ...curve([41, -18], [14, -24], [-14, -24], [-41, -18]),
  ];
  const point = (x: number, top: number, half: number): Stroke =>
    plate(
      [
        [x - half, -22],
        [x - half * 0.3, top - 16],
        [x, top],
        [x + half * 0.3, top - 16],
        [x + half, -22],
      ],
      8,
      1.1,
    );
  return [
    ...[-36, -18, 0, 18, 36].map((x) => point(x * 1.1, 24 - Math.abs(x) * 0.2, 13)),
    ...[-36, -18, 0, 18, 36].map((x) => egg([x * 1.1, 28 - Math.abs(x) * 0.2], 5, 5, 9)),
    plate(band, 12, 1.6, (x) => 9 + 3 * Math.cos((x / 45) * 1.4)),
    ...[-26, 0, 26].map((x) => on(egg([x, -28 + Math.abs(x) * 0.06], 4.6, 3.2, 3, 0, 'soft'))),
    ...[-13, 13].map((x) => on(egg([x, -28], 2.2, 2.2, 2.4))),
  ];
}

const horn = (): Stroke[] => [
  limb(curve([-38, 24], [-44, -24], [-10, -34], [14, -10], 20), from(2.4, 12), from(7, 15)),
  soft(limb(curve([14, -10], [22, -2], [26, 6], [27, 10]), from(12, 17), from(15, 12)), 5),
  ring([30, 12], 13.5, 3, 15),
  ...[0.25, 0.45, 0.65, 0.85].map((t) => {
    const line = curve([-38, 24], [-44, -24], [-10, -34], [14, -10], 40);
    const [x, y] = line[Math.round(t * 40)];
    return on(egg([x, y], 3, 3 + 10 * t, 2, (Math.atan2(y - 14, x - 6) * 180) / Math.PI + 10, 'bell'));
  }),
  rope(curve([-38, 24], [-20, 46], [16, 46], [30, 26], 30), 1.9, 8, 4),
];

export const classic: Readonly<Record<string, Ornament>> = {
  rosette: { name: 'Rosette', group, words: 'flower patera round', strokes: rosette },
  compass: { name: 'Compass rose', group, words: 'wind star map north', strokes: compass },
  star: { name: 'Star', group, words: 'five points barn', strokes: star },
  shield: { name: 'Shield', group, words: 'arms crest', strokes: shield },
  scroll: { name: 'Scroll', group, words: 'volute leaf corner', strokes: scroll },
  banner: { name: 'Banner', group, words: 'ribbon name', strokes: banner },
  'rope-ring': { name: 'Rope ring', group, words: 'frame round border', strokes: ropeRing },
  rope: { name: 'Rope', group, words: 'line border length', strokes: ropeLength },
  beads: { name: 'Beads and reels', group, words: 'border moulding pearl', strokes: beads },
  sun: { name: 'Sun', group, words: 'face light rays', strokes: sun },
  crown: { name: 'Crown', group, words: 'king inn', strokes: crown },
  horn: { name: 'Horn', group, words: 'hunt post inn', strokes: horn },
};
