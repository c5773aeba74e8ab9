import {
  around,
  both,
  cut,
  curve,
  egg,
  from,
  leaf,
  limb,
  moved,
  on,
  raised,
  ring,
  soft,
  swell,
  turned,
  type Point,
  type Stroke,
} from './kit';
import type { Ornament } from './ornament';

const group = 'Plants';
const line = (a: Point, b: Point): Point[] => [a, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], b];

/** A broad leaf whose rim runs in and out `lobes` times. */
const lobed = (points: readonly Point[], half: number, high: number, lobes: number, bite: number): Stroke =>
  leaf(
    points,
    (t) =>
      Math.max(
        0.4,
        half *
          Math.sin(Math.PI * Math.min(1, t * 0.93 + 0.07)) ** 0.7 *
          (1 - bite * (0.5 + 0.5 * Math.cos(2 * Math.PI * lobes * t))),
      ),
    high,
    { rib: 0.35, veins: lobes, vein: 0.22 },
  );

function oakLeaf(): Stroke[] {
  const rib = curve([-6, -46], [4, -20], [-6, 20], [4, 56], 18);
  return [
    lobed(rib, 33, 9, 4, 0.45),
    soft(limb(curve([-10, -62], [-9, -56], [-8, -52], [-6, -44]), from(2.6, 1.6), from(5, 6)), 2),
  ];
}

function acorn(): Stroke[] {
  const cup: Stroke[] = [egg([0, 22], 46, 30, 26)];
  for (let r = 0; r < 4; r++)
    for (let k = -4; k <= 4; k++) {
      const x = (k + (r % 2) / 2) * 11.5;
      const y = 3 + r * 11;
      if ((x / 42) ** 2 + ((y - 22) / 26) ** 2 < 1) cup.push(on(egg([x, y], 6.4, 6.4, 2.6, 0, 'bell')));
    }
  return [
    egg([0, -20], 37, 56, 24),
    soft(egg([0, -77], 5, 8, 9), 3),
    ...cup,
    soft(limb(curve([0, 48], [2, 60], [4, 66], [10, 76]), from(5.5, 4), from(13, 9)), 4),
  ];
}

function lily(): Stroke[] {
  const petal = (long: number, half: number, high: number) =>
    leaf(
      line([0, 6], [0, long]),
      (t) => half * Math.sin(Math.PI * (0.12 + 0.88 * t)) ** 0.75,
      swell(high, high * 1.15, high * 0.55),
      {
        cup: 0.45,
        rib: -0.1,
        shape: 'flat',
      },
    );
  return [
    ...around(8, [petal(50, 15, 8)]),
    ...raised(around(8, [petal(39, 12, 8)], 22.5), 4),
    ...raised(around(6, [petal(27, 9, 8)], 10), 8),
    egg([0, 0], 10, 10, 15),
    ...around(12, [egg([0, 7.5], 1.7, 1.7, 17.5)]),
    egg([0, 0], 4.5, 4.5, 18),
  ];
}

function reeds(): Stroke[] {
  const stem = (x: number, top: number, lean: number): Stroke[] => {
    const s = curve([x, -80], [x, -30], [x + lean * 0.4, 10], [x + lean, top]);
    const [hx, hy] = s[s.length - 1];
    return [
      limb(s, from(1.9, 1.3), 6),
      limb(
        [
          [hx, hy],
          [hx + lean * 0.06, hy + 12],
        ],
        from(1.2, 0.5),
        5,
      ),
      ...moved([limb(line([0, -24], [0, 2]), 4.6, 12)], hx, hy),
    ];
  };
  const blade = (x: number, bend: number, high: number, rise: number): Stroke =>
    leaf(
      curve([x, -80], [x, -20], [x + bend * 0.3, high - 20], [x + bend, high]),
      (t) => 4.2 * (1 - t) ** 0.7 + 0.3,
      rise,
      {
        shape: 'ridge',
      },
    );
  return [
    blade(-12, -34, 20, 7),
    blade(14, 33, 30, 7),
    blade(-3, 20, 52, 8),
    ...stem(-18, 62, -8),
    ...stem(2, 78, 2),
    ...stem(22, 48, 12),
    blade(-22, -26, -8, 9),
    blade(8, -20, 34, 9),
    blade(24, 22, -6, 9),
    blade(0, 14, 8, 10),
  ];
}

function wheat(): Stroke[] {
  const stem = curve([-4, -80], [-2, -40], [0, 0], [2, 30]);
  const grains: Stroke[] = [];
  for (let k = 0; k < 8; k++) {
    const y = -14 + k * 11;
    const by = 1 - k * 0.045;
    grains.push(
      ...both([
        leaf(curve([1, y], [13 * by, y + 4], [17 * by, y + 14], [15 * by, y + 25]), swell(1.6, 6.4 * by, 0.4), 10, {
          rib: 0.3,
          shape: 'soft',
        }),
      ]),
    );
    grains.push(...both([limb(line([15 * by, y + 24], [25 * by + 4, y + 48]), from(0.9, 0.35), from(4, 1.5))]));
  }
  return [
    limb(stem, 2, 6),
    ...grains,
    ...moved([leaf(line([0, 0], [0, 24]), swell(1.5, 6, 0.4), 12, { rib: 0.3 })], 1, 70),
    leaf(curve([-3, -60], [14, -50], [26, -46], [38, -62]), (t) => 5 * (1 - t) ** 0.8 + 0.3, 6, { shape: 'ridge' }),
    leaf(curve([-3, -44], [-20, -34], [-28, -34], [-40, -50]), (t) => 5 * (1 - t) ** 0.8 + 0.3, 6, { shape: 'ridge' }),
  ];
}

function ivy(): Stroke[] {
  const part = (a: Point, b: Point, half: number) =>
    leaf(line(a, b), (t) => half * Math.sin(Math.PI * (0.22 + 0.78 * t)) ** 0.8, 9, {
      rib: 0.35,
      veins: 4,
      vein: 0.15,
    });
  return [
    part([0, -14], [0, 50], 20),
    ...both([soft(part([0, -14], [46, 8], 15), 2), soft(part([0, -16], [30, -40], 13), 2)]),
    soft(limb(curve([0, -14], [0, -30], [4, -40], [8, -54]), from(2.4, 2), 8), 2),
  ];
}

function rose(): Stroke[] {
  const petal = (out: number, half: number, high: number) =>
    leaf(
      line([0, 2], [0, out]),
      (t) => half * Math.sin(Math.PI * (0.06 + 0.74 * t)) ** 0.6 + 0.01,
      swell(high * 0.7, high, high),
      {
        shape: 'flat',
        cup: 0.5,
      },
    );
  return [
    ...around(5, [leaf(line([0, 20], [0, 60]), swell(7, 9, 0.5), 5, { rib: 0.3 })], 36),
    ...around(5, [petal(34, 22, 9)]),
    ...raised(around(5, [petal(22, 14, 8)], 36), 4),
    egg([0, 0], 10, 10, 16, 0, 'soft'),
    ...around(10, [egg([0, 6.4], 1.8, 1.8, 16)]),
  ];
}

function spray(): Stroke[] {
  const stem = curve([-48, -16], [-20, -14], [10, -2], [44, 22], 20);
  const strokes: Stroke[] = [limb(stem, from(2.2, 0.9), from(6, 4))];
  for (let k = 0; k < 6; k++) {
    const [x, y] = stem[3 + k * 3 - (k > 4 ? 1 : 0)];
    const turn = 22 + k * 4;
    const size = 1 - k * 0.09;
    const one = leaf(curve([0, 0], [8, 8], [18, 10], [27, 6]), swell(0.8, 7, 0.3), 8, {
      rib: 0.4,
      veins: 5,
      vein: 0.14,
    });
    strokes.push(...moved(turned([one], turn + 22), x, y, size), ...moved(turned([one], turn - 62), x, y, size));
  }
  strokes.push(...moved(turned([leaf(line([0, 0], [22, 0]), swell(0.8, 6, 0.3), 8, { rib: 0.4 })], 34), 42, 20));
  return strokes;
}

function pinecone(): Stroke[] {
  const scales: Stroke[] = [];
  for (let r = 0; r < 9; r++) {
    const y = 46 - r * 12;
    const w = 34 * Math.sin(Math.PI * Math.min(0.98, 0.12 + r * 0.098)) ** 0.8;
    const n = Math.max(1, Math.round(w / 8));
    for (let k = -n; k <= n; k++) {
      const x = ((k + (r % 2 ? 0.5 : 0)) * w) / n;
      if (Math.abs(x) > w) continue;
      const h = 20 * Math.sqrt(Math.max(0.05, 1 - (x / 42) ** 2));
      scales.push(raised([egg([x, y], 7.5, 8.5, 5, 0, 'ridge')], h - 6)[0]);
      scales.push(on(egg([x, y - 3], 2.2, 2.2, 1.6, 0, 'bell')));
    }
  }
  return [
    egg([0, -4], 40, 58, 17),
    ...scales,
    cut(ring([0, 60], 4, 1, 1)),
    soft(limb(curve([0, 54], [0, 60], [3, 66], [8, 72]), from(4.5, 3.5), 11), 3),
  ];
}

export const plants: Readonly<Record<string, Ornament>> = {
  'oak-leaf': { name: 'Oak leaf', group, words: 'tree wood', strokes: oakLeaf },
  acorn: { name: 'Acorn', group, words: 'oak nut seed', strokes: acorn },
  lily: { name: 'Water lily', group, words: 'flower pond water', strokes: lily },
  reeds: { name: 'Reeds', group, words: 'bulrush rush bank water', strokes: reeds },
  wheat: { name: 'Ear of wheat', group, words: 'corn grain harvest mill', strokes: wheat },
  ivy: { name: 'Ivy leaf', group, words: 'creeper vine', strokes: ivy },
  rose: { name: 'Hedge rose', group, words: 'flower dog rose briar', strokes: rose },
  spray: { name: 'Spray of willow', group, words: 'branch twig leaves laurel', strokes: spray },
  pinecone: { name: 'Cone', group, words: 'pine fir finial', strokes: pinecone },
};
