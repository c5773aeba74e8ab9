/**
 * Measures the order of travel: `npm run bench:order`. Three sets (400 letters and digits strewn on a plate, 5,000 short
 * strokes, nested rings) and 5,000 points, each against the best of two long-running solvers: the same moves in a run many
 * times as long, and simulated annealing that shares nothing with them (`annealing.ts`); the points also against the length that the best tour of so many random points has (Johnson and McGeoch 1997).
 */
import { annealed } from './annealing';
import { airOf, orderPieces, type RoutePiece } from '../src/core/motion/order';

let state = 7;
const random = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 4294967296;
};

const points = (n: number, w: number, h: number): RoutePiece[] =>
  Array.from({ length: n }, () => {
    const [x, y] = [random() * w, random() * h];
    return { inX: x, inY: y, outX: x, outY: y };
  });
const strokes = (n: number, w: number, h: number): RoutePiece[] =>
  Array.from({ length: n }, () => {
    const [x, y, a, l] = [random() * w, random() * h, random() * 7, 0.3 + 3 * random()];
    return { inX: x, inY: y, outX: x + l * Math.cos(a), outY: y + l * Math.sin(a), reversible: true };
  });
const loop = (cx: number, cy: number, r: number, n: number) =>
  Float64Array.from({ length: 2 * n }, (_, i) =>
    i % 2 ? cy + r * Math.sin(((i - 1) * Math.PI) / n) : cx + r * Math.cos((i * Math.PI) / n),
  );
/** Each letter: an outline with some starts, here and there with a counter that goes first, and a loose stroke or two. */
function letters(n: number): RoutePiece[] {
  const out: RoutePiece[] = [];
  for (let i = 0; i < n; i++) {
    const [cx, cy, r] = [random() * 400, random() * 250, 2 + 4 * random()];
    const starts = loop(cx, cy, r, 16);
    const outline = out.length;
    out.push({ inX: starts[0], inY: starts[1], outX: starts[0], outY: starts[1], starts });
    if (random() < 0.4) {
      const inner = loop(cx, cy, r / 2, 12);
      out.push({ inX: inner[0], inY: inner[1], outX: inner[0], outY: inner[1], starts: inner, before: outline });
    }
    if (random() < 0.5) out.push({ inX: cx - r, inY: cy, outX: cx + r, outY: cy + r, reversible: true });
  }
  return out;
}
function rings(): RoutePiece[] {
  const out: RoutePiece[] = [];
  for (let i = 0; i < 60; i++) {
    const [cx, cy] = [20 + 40 * (i % 10), 20 + 40 * Math.floor(i / 10)];
    const first = out.length;
    for (let k = 0; k < 8; k++) {
      const starts = loop(cx, cy, 18 - 2 * k, 24);
      out.push({
        inX: starts[0],
        inY: starts[1],
        outX: starts[0],
        outY: starts[1],
        starts,
        before: k ? first + k - 1 : undefined,
      });
    }
  }
  return out;
}

console.log(
  '| set | pieces | air mm | ms | the same, long | annealed | over the best |\n| --- | --- | --- | --- | --- | --- | --- |',
);
const sets: [string, RoutePiece[]][] = [
  ['letters and digits strewn on a plate', letters(400)],
  ['short strokes', strokes(5000, 400, 300)],
  ['nested rings', rings()],
  ['points', points(5000, 400, 300)],
];
const long = Number(process.argv[2] ?? 600);
const seconds = Number(process.argv[3] ?? 90);
for (const [name, pieces] of sets) {
  const t = performance.now();
  const mine = airOf(pieces, orderPieces(pieces, 0, 0), 0, 0);
  const ms = performance.now() - t;
  const same = airOf(pieces, orderPieces(pieces, 0, 0, { effort: long, mostKicks: 1e9 }), 0, 0);
  const other = annealed(pieces, seconds);
  const best = Math.min(mine, same, other);
  console.log(
    `| ${name} | ${pieces.length} | ${mine.toFixed(0)} | ${ms.toFixed(0)} | ${same.toFixed(0)} | ${other.toFixed(0)} | ${(100 * (mine / best - 1)).toFixed(1)} % |`,
  );
}
const n = 5000;
const expected = 0.7124 * Math.sqrt(n * 400 * 300) * (1 + 0.33 / Math.log(n) / 10);
console.log(`The best tour of 5,000 points in such a rectangle is about ${expected.toFixed(0)} mm long.`);
