import type { Path } from '../../geometry/path';
import { around, bar, both, disc, hole, leaf, outline, oval, shifted, stem, turned } from './pen';

/**
 * Motifs drawn for Mirvak, each about the origin in a box of about 100 units. A border is one repeat, `pitch` units
 * long, that joins the next; a corner piece fills the upper left corner.
 */
export interface Motif {
  readonly id: string;
  readonly name: string;
  readonly group: 'Corners' | 'Borders' | 'Arrows' | 'Pictures' | 'Rules' | 'Cartouches';
  /** Other words that it is found by. */
  readonly words: string;
  readonly pitch?: number;
  readonly draw: () => Path[];
}

const scroll = (): Path[] => [
  stem(7, 2.5, [-50, -42], [-50, 10, -20, 50, 22, 46], [48, 43, 46, 12, 26, 14], [14, 15, 14, 30, 25, 29]),
];

const reed = (x: number, lean: number, height: number): Path[] => [
  stem(3.2, 1.6, [x, -50], [x, -10, x + lean * 0.5, height * 0.5 - 10, x + lean, height - 18]),
  oval(x + lean * 1.08, height - 6, 4, 14, -lean * 0.5),
  stem(1.6, 0.8, [x + lean * 1.1, height + 6], [x + lean * 1.18, height + 14]),
];

const petal = (turn: number, length: number, width: number): Path =>
  turned(
    [
      outline(
        [0, 0],
        [width * 0.9, length * 0.3, width * 0.7, length * 0.75, 0, length],
        [-width * 0.7, length * 0.75, -width * 0.9, length * 0.3, 0, 0],
      ),
    ],
    turn,
  )[0];

/** A ring of even width. */
const ring = (r: number, width: number): Path[] => [disc(0, 0, r), hole(disc(0, 0, r - width))];
const frame = (outer: Path, inner: Path): Path[] => [outer, hole(inner)];

export const motifs: readonly Motif[] = [
  {
    id: 'corner-scroll',
    name: 'Scroll corner',
    group: 'Corners',
    words: 'curl volute',
    draw: () => [
      ...shifted(turned(scroll(), 0), 0, 0),
      leaf(-46, -4, 34, 9, 20, 4),
      leaf(-30, 26, 34, 9, -30, -4),
      disc(-44, 40, 5),
    ],
  },
  {
    id: 'corner-leaf',
    name: 'Leaf corner',
    group: 'Corners',
    words: 'foliage plant',
    draw: () => [
      stem(4, 2, [-44, -50], [-44, 0, -30, 38, 50, 44]),
      leaf(-42, -22, 30, 10, 36, -3),
      leaf(-34, 3, 34, 11, 10, -4),
      leaf(-18, 22, 34, 11, -14, -3),
      leaf(9, 36, 28, 9, -26, -3),
      leaf(-42, -22, 26, 9, 112, 3),
      leaf(-34, 3, 26, 9, 98, 3),
      leaf(-18, 23, 25, 9, 78, 3),
    ],
  },
  {
    id: 'corner-fan',
    name: 'Fan corner',
    group: 'Corners',
    words: 'shell rays',
    draw: () => [
      ...[0, 15, 30, 45, 60, 75, 90].map((a) => turned([outline([34, 0], [86, -5], [96, 0], [86, 5])], -a, -50, 50)[0]),
      ...shifted([outline([0, 0], [26, 0], [26, -14.4, 14.4, -26, 0, -26])], -50, 50),
    ],
  },
  {
    id: 'corner-steps',
    name: 'Stepped corner',
    group: 'Corners',
    words: 'lines straight',
    draw: () => [
      outline(
        [-50, -50],
        [-42, -50],
        [-42, 18],
        [-18, 18],
        [-18, 42],
        [50, 42],
        [50, 50],
        [-26, 50],
        [-26, 26],
        [-50, 26],
      ),
      outline([-34, -50], [-30, -50], [-30, 6], [-6, 6], [-6, 30], [50, 30], [50, 34], [-10, 34], [-10, 10], [-34, 10]),
      outline([-50, 34], [-34, 34], [-34, 50], [-50, 50]),
    ],
  },
  {
    id: 'corner-rose',
    name: 'Rosette corner',
    group: 'Corners',
    words: 'flower square',
    draw: () => [
      ...around([petal(0, 34, 13)], 8),
      disc(0, 0, 6),
      ...frame(
        outline([-46, -46], [46, -46], [46, 46], [-46, 46]),
        outline([-41, -41], [41, -41], [41, 41], [-41, 41]),
      ),
    ],
  },
  {
    id: 'border-wave',
    name: 'Running wave',
    group: 'Borders',
    words: 'water edge',
    pitch: 60,
    draw: () => [
      stem(6, 6, [-30.05, -16], [-14, -16, -16, 16, 0, 16], [16, 16, 14, -16, 30.05, -16]),
      disc(0, -6, 5),
      disc(-30, 8, 4),
    ],
  },
  {
    id: 'border-rope',
    name: 'Rope',
    group: 'Borders',
    words: 'cable twist',
    pitch: 30,
    draw: () => [outline([-20, -14], [-8, -18, 6, -4, 6, 14], [0, 18, -2, 16, -6, 14], [-6, -2, -12, -10, -20, -14])],
  },
  {
    id: 'border-leaf',
    name: 'Leaf border',
    group: 'Borders',
    words: 'foliage garland',
    pitch: 50,
    draw: () => [...bar(3, [-25.05, 0], [25.05, 0]), leaf(-22, 0, 34, 12, 32, 2), leaf(-22, 0, 34, 12, -32, -2)],
  },
  {
    id: 'border-bead',
    name: 'Bead and reel',
    group: 'Borders',
    words: 'dots pearls',
    pitch: 40,
    draw: () => [disc(-6, 0, 11), oval(12, 0, 3, 10)],
  },
  {
    id: 'border-key',
    name: 'Key fret',
    group: 'Borders',
    words: 'meander maze',
    pitch: 60,
    draw: () => [
      outline(
        [-30, -25],
        [30.05, -25],
        [30.05, -18],
        [-23, -18],
        [-23, 18],
        [17, 18],
        [17, 0],
        [0, 0],
        [0, 7],
        [-7, 7],
        [-7, -7],
        [24, -7],
        [24, 25],
        [-30, 25],
      ),
    ],
  },
  {
    id: 'border-dart',
    name: 'Egg and dart',
    group: 'Borders',
    words: 'oval arrow',
    pitch: 60,
    draw: () => [
      ...frame(oval(0, 2, 22, 24), oval(0, 4, 17, 19)),
      oval(0, 5, 10, 13),
      outline([-30, 24], [-27, 0], [-30, -24], [-33, 0]),
    ],
  },
  {
    id: 'border-diamond',
    name: 'Diamond chain',
    group: 'Borders',
    words: 'lozenge',
    pitch: 44,
    draw: () => [
      ...frame(outline([-22.6, 0], [0, -16], [22.6, 0], [0, 16]), outline([-14, 0], [0, -10], [14, 0], [0, 10])),
      disc(0, 0, 4),
    ],
  },
  {
    id: 'arrow-plain',
    name: 'Plain arrow',
    group: 'Arrows',
    words: 'direction right way',
    draw: () => [outline([-50, -9], [10, -9], [10, -30], [50, 0], [10, 30], [10, 9], [-50, 9])],
  },
  {
    id: 'arrow-feathered',
    name: 'Feathered arrow',
    group: 'Arrows',
    words: 'direction flight',
    draw: () => [
      outline([-40, -3], [26, -3], [22, -14], [50, 0], [22, 14], [26, 3], [-40, 3]),
      ...[-50, -41, -32].flatMap((x) => [
        outline([x, 2], [x + 9, 2], [x - 1, 18], [x - 8, 18]),
        outline([x, -2], [x - 8, -18], [x - 1, -18], [x + 9, -2]),
      ]),
    ],
  },
  {
    id: 'arrow-curved',
    name: 'Curved arrow',
    group: 'Arrows',
    words: 'direction turn bend',
    draw: () => [stem(16, 12, [-44, -44], [-44, 10, -10, 24, 20, 22]), outline([16, 46], [50, 20], [14, -4])],
  },
  {
    id: 'compass-rose',
    name: 'Compass rose',
    group: 'Pictures',
    words: 'north star wind map',
    draw: () => [
      ...around([outline([0, 0], [9, 9], [0, 50]), hole(outline([-1.2, 4], [-7.5, 9.2], [-1.2, 42]))], 4),
      ...around([outline([3, 12], [0, 36], [-3, 12])], 4, 45),
      ...ring(30, 2.2),
      outline([-5, 54], [-5, 66], [-2.6, 66], [3, 58], [3, 66], [5, 66], [5, 54], [2.6, 54], [-3, 62], [-3, 54]),
    ],
  },
  {
    id: 'reeds',
    name: 'Reeds',
    group: 'Pictures',
    words: 'bulrush plant water',
    draw: () => [
      ...reed(-6, -6, 42),
      ...reed(6, 8, 30),
      ...reed(-16, -16, 18),
      leaf(0, -50, 84, 6, 74, 14),
      leaf(-4, -50, 70, 6, 112, -14),
      leaf(10, -50, 56, 5, 56, 10),
      leaf(-12, -50, 52, 5, 130, -8),
    ],
  },
  {
    id: 'lily',
    name: 'Water lily',
    group: 'Pictures',
    words: 'flower lotus pond',
    draw: () => [
      ...[-76, -52, -26, 0, 26, 52, 76].map(
        (a) => shifted([petal(a, a === 0 ? 62 : 56 - Math.abs(a) * 0.1, 12)], 0, -18)[0],
      ),
      outline([-50, -26], [-30, -40, 30, -40, 50, -26], [34, -20, 14, -24, 0, -24], [-14, -24, -34, -20, -50, -26]),
    ],
  },
  {
    id: 'heron',
    name: 'Heron',
    group: 'Pictures',
    words: 'bird water grey',
    draw: () => [
      outline(
        [-46, 40],
        [-24, 43],
        [-22, 47, -14, 49, -8, 45],
        [2, 43, 12, 44, 22, 40],
        [10, 40, 4, 38, 0, 36],
        [4, 26, -8, 14, -8, 4],
        [-8, -4, 4, 2, 14, 0],
        [30, -2, 42, -12, 50, -26],
        [38, -20, 26, -20, 12, -18],
        [-2, -16, -18, -12, -18, 4],
        [-18, 16, -6, 24, -8, 34],
        [-10, 38, -14, 38, -20, 38],
      ),
      hole(disc(-13, 42.5, 1.7)),
      stem(3, 2.2, [2, -16], [4, -34], [2, -50]),
      stem(3, 2.2, [10, -17], [14, -30], [12, -50]),
      ...bar(2.2, [-6, -49], [4, -49]),
      ...bar(2.2, [6, -49], [18, -49]),
    ],
  },
  {
    id: 'lock-gate',
    name: 'Lock gate',
    group: 'Pictures',
    words: 'canal water beam',
    draw: () => [
      outline([-50, 34], [4, 40], [4, 48], [-50, 42]),
      ...bar(6, [-3, -46], [-3, 40]),
      ...bar(6, [43, -46], [43, 36]),
      ...bar(5, [-3, 30], [43, 30]),
      ...bar(5, [-3, -42], [43, -42]),
      ...bar(4, [-3, 6], [43, 6]),
      ...bar(4, [-3, -18], [43, -18]),
      stem(4, 4, [0, -40], [40, 28]),
      stem(3.4, 3.4, [-48, -46], [-36, -38, -30, -54, -18, -46], [-14, -43, -10, -43, -6, -46]),
      stem(3.4, 3.4, [-48, -34], [-36, -26, -30, -42, -18, -34], [-14, -31, -10, -31, -6, -34]),
    ],
  },
  {
    id: 'boat',
    name: 'Narrow boat',
    group: 'Pictures',
    words: 'barge canal ship water',
    draw: () => [
      outline([-52, -6], [-48, -22], [44, -22], [52, -4, 54, 0, 56, 4], [44, -2], [-44, -2], [-50, 2]),
      outline([-34, 0], [-30, 18], [26, 18], [30, 0]),
      ...[-22, -8, 6].map((x) => hole(disc(x + 2, 9, 4))),
      hole(outline([17, 3], [23, 3], [22, 14], [17, 14])),
      ...bar(4, [-18, 17], [-18, 30]),
      stem(4, 1.2, [-16, 34], [-6, 40, 2, 32, 14, 42]),
      ...[-30, -36].map((y) =>
        stem(
          2.6,
          2.6,
          [-48, y],
          [-36, y + 6, -30, y - 6, -18, y],
          [-6, y + 6, 0, y - 6, 12, y],
          [24, y + 6, 30, y - 6, 44, y],
        ),
      ),
    ],
  },
  {
    id: 'hand',
    name: 'Pointing hand',
    group: 'Pictures',
    words: 'finger direction way',
    draw: () => [
      outline([-50, -20], [-34, -20], [-34, 20], [-50, 20]),
      outline(
        [-31, -17],
        [-14, -22, 4, -24, 12, -18],
        [16, -14, 14, -10, 12, -9],
        [18, -8, 18, 0, 13, 1],
        [18, 2, 18, 9, 12, 10],
        [24, 10, 38, 9, 45, 9],
        [52, 9, 52, 18, 45, 18],
        [32, 19, 20, 20, 8, 21],
        [12, 26, 10, 32, 4, 32],
        [-6, 28, -14, 22, -31, 18],
      ),
      hole(stem(1.4, 1.4, [-2, -9], [11, -8.6])),
      hole(stem(1.4, 1.4, [0, 0.6], [12, 0.9])),
      hole(stem(1.4, 1.4, [-2, 10], [11, 10.2])),
    ],
  },
  {
    id: 'anchor',
    name: 'Anchor',
    group: 'Pictures',
    words: 'ship mooring',
    draw: () => [
      ...shifted(ring(9, 4), 0, 40),
      ...bar(7, [0, 32], [0, -44]),
      ...bar(6, [-20, 22], [20, 22]),
      ...both([stem(9, 5, [0, -42], [18, -42, 34, -32, 38, -12]), outline([28, -16], [38, 6], [48, -14])]),
    ],
  },
  {
    id: 'fish',
    name: 'Fish',
    group: 'Pictures',
    words: 'perch water',
    draw: () => [
      outline([-50, 0], [-34, 22, 0, 26, 26, 4], [50, 22], [44, 0], [50, -22], [26, -4], [0, -26, -34, -22, -50, 0]),
      hole(disc(-34, 5, 3)),
      hole(stem(1.8, 1.8, [-22, 14], [-16, 5, -16, -5, -22, -14])),
      outline([-14, 17], [-4, 32, 8, 32, 14, 14]),
    ],
  },
  {
    id: 'oak',
    name: 'Oak sprig',
    group: 'Pictures',
    words: 'acorn leaf tree',
    draw: () => [
      stem(3, 2, [0, -50], [2, -20, -2, 0, 0, 20]),
      ...both([
        outline(
          [1, -8],
          [8, -12, 16, -10, 18, -4],
          [24, -8, 32, -2, 31, 5],
          [39, 4, 44, 14, 38, 20],
          [30, 26, 24, 18, 22, 17],
          [14, 18, 12, 12, 13, 8],
          [4, 8, 2, 0, 1, -8],
        ),
      ]),
      outline([-10, 22], [10, 22], [12, 34, 6, 46, 0, 50], [-6, 46, -12, 34, -10, 22]),
      outline([-13, 14], [13, 14], [14, 20], [-14, 20]),
    ],
  },
  {
    id: 'rule-swelled',
    name: 'Swelled rule',
    group: 'Rules',
    words: 'line divider',
    draw: () => [
      outline(
        [-50, 0],
        [-20, 0.4, -10, 3.4, 0, 3.4],
        [10, 3.4, 20, 0.4, 50, 0],
        [20, -0.4, 10, -3.4, 0, -3.4],
        [-10, -3.4, -20, -0.4, -50, 0],
      ),
    ],
  },
  {
    id: 'rule-diamond',
    name: 'Diamond rule',
    group: 'Rules',
    words: 'line divider lozenge',
    draw: () => [
      outline([-6, 0], [0, -6], [6, 0], [0, 6]),
      ...both([outline([10, -1.2], [50, -0.6], [50, 0.6], [10, 1.2]), disc(14, 0, 2.6)]),
    ],
  },
  {
    id: 'rule-flourish',
    name: 'Flourished rule',
    group: 'Rules',
    words: 'line divider curl',
    draw: () => [
      disc(0, 0, 3.2),
      ...both([
        stem(4, 1, [5, 0], [18, 12, 26, 10, 32, 0], [36, -8, 28, -12, 25, -6], [23, -2, 28, 1, 30, -2]),
        stem(1.6, 0.7, [33, 0], [50, 0]),
        leaf(12, 5, 14, 4, 50, 2),
      ]),
    ],
  },
  {
    id: 'rule-double',
    name: 'Double rule',
    group: 'Rules',
    words: 'line divider thick thin',
    draw: () => [outline([-50, 1], [50, 1], [50, 5], [-50, 5]), outline([-50, -3], [50, -3], [50, -1.6], [-50, -1.6])],
  },
  {
    id: 'cartouche-oval',
    name: 'Oval cartouche',
    group: 'Cartouches',
    words: 'frame plate',
    draw: () => [
      ...frame(oval(0, 0, 50, 32), oval(0, 0, 46, 28)),
      ...frame(oval(0, 0, 43, 25), oval(0, 0, 41.6, 23.6)),
      ...both([disc(50, 0, 4)]),
      disc(0, 32, 4),
      disc(0, -32, 4),
    ],
  },
  {
    id: 'cartouche-tablet',
    name: 'Tablet cartouche',
    group: 'Cartouches',
    words: 'frame plate scooped',
    draw: () => {
      const tablet = (w: number, h: number, s: number) => {
        const k = s * 0.45;
        return outline(
          [-w + s, -h],
          [w - s, -h],
          [w - s, -h + k, w - k, -h + s, w, -h + s],
          [w, h - s],
          [w - k, h - s, w - s, h - k, w - s, h],
          [-w + s, h],
          [-w + s, h - k, -w + k, h - s, -w, h - s],
          [-w, -h + s],
          [-w + k, -h + s, -w + s, -h + k, -w + s, -h],
        );
      };
      return [
        ...frame(tablet(50, 32, 10), tablet(46.5, 28.5, 10)),
        ...frame(tablet(44, 26, 10), tablet(42.8, 24.8, 10)),
        ...both([disc(45.5, 27.5, 2.6), disc(45.5, -27.5, 2.6)]),
      ];
    },
  },
  {
    id: 'cartouche-ribbon',
    name: 'Ribbon',
    group: 'Cartouches',
    words: 'banner scroll frame',
    draw: () => {
      const band = outline([-34, -8], [-12, 0, 12, 0, 34, -8], [34, 14], [12, 22, -12, 22, -34, 14]);
      const inner = outline([-31, -4.4], [-12, 2.6, 12, 2.6, 31, -4.4], [31, 11.6], [12, 19, -12, 19, -31, 11.6]);
      return [
        ...frame(band, inner),
        ...both([
          outline([36, -5], [52, -13], [47, 0], [54, 9], [36, 15]),
          outline([26, -8], [34, -10.6], [36, -7], [36, -17]),
        ]),
      ];
    },
  },
  {
    id: 'wreath',
    name: 'Wreath',
    group: 'Cartouches',
    words: 'laurel ring leaves',
    draw: () => [
      ...both(
        Array.from({ length: 9 }, (_, i) => i * 17 - 78).flatMap((a) =>
          turned([leaf(36, -4, 20, 8, 78, 3), leaf(37, -2, 17, 7, 118, -2)], a),
        ),
      ),
      ...both([stem(2.4, 1.6, [0, -37.5], [26, -37.5, 42, -12, 32, 22])]),
      outline([-5, -42], [5, -42], [4, -33], [-4, -33]),
    ],
  },
];

export const motifOf = (id: string): Motif | undefined => motifs.find((m) => m.id === id);

const drawn = new Map<string, Path[]>();
/** The outlines of a motif, drawn once. */
export function motifPaths(id: string): Path[] {
  let p = drawn.get(id);
  if (!p) drawn.set(id, (p = motifOf(id)?.draw() ?? []));
  return p;
}
