import { AxisError } from '../../geometry/medial/axis';
import { components, contains, type Region } from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { clearingMoves, contours, levelsOf, type ClearingMoves } from './contours';
import { discPlaces, reachBeyond, type Disc, type DiscPlace, type DiscStep } from './discs';
import { helixDown } from './entry';
import { rapidTo } from './travel';
import { wallPass } from './wallPass';

/** Circles smaller than this (mm) are points. */
const POINT = 0.02;
/** The least radius of a helix, as a share of the cutter's: below it the chips find no room. */
const TIGHT = 0.35;

/** So far above cleared floor the cutter goes by rapid, and from what distance on that is worth it, mm. */
const OFF = 0.3;
const SKIP = 6;

interface TrochoidalMoves extends ClearingMoves {
  /** Greatest radial engagement on a straight way, mm. */
  readonly step: number;
}

/**
 * Clears a region with even engagement: in each place all depths, each by a helix, crescents outwards and once along the wall.
 * Places hardly wider than the cutter are cleared along their contours instead, and so is all where the outline is too tangled for a medial axis.
 */
export function trochoidal(
  b: MotionBuilder,
  region: Region,
  step: number,
  moves: ClearingMoves,
  progress: () => void,
): void {
  const m: TrochoidalMoves = { ...moves, step };
  const { levels } = levelsOf(region, m, step, m.radius, progress);
  if (!levels.length) return;
  let places: DiscPlace[] = [];
  try {
    places = discPlaces(region, m.radius, step, m.budget.sample);
  } catch (e) {
    if (!(e instanceof AxisError)) throw e;
  }
  const wide: { wall: Region; place: DiscPlace }[] = [];
  const narrow: Region[] = [];
  for (const wall of components(levels[0].loops)) {
    const place = places.find((p) => p.root.r >= TIGHT * m.radius && contains(wall, p.root.x, p.root.y));
    if (place) wide.push({ wall, place });
    else narrow.push(wall);
  }
  for (const { piece } of orderPieces(
    wide.map(({ place: { root: p } }) => ({ inX: p.x, inY: p.y, outX: p.x, outY: p.y })),
    b.count ? b.lastX : 0,
    b.count ? b.lastY : 0,
  )) {
    let previousLevel = m.stockTop;
    for (const z of m.levels) {
      progress();
      placeMoves(b, wide[piece].place, m, z, previousLevel);
      wallPass(b, wide[piece].wall, m, z, previousLevel);
      previousLevel = z;
    }
    b.lift(m.safe);
  }
  if (!narrow.length) return;
  // Both come from the same insets: the outer contours are the same, point by point.
  const all = contours(region, m, step, progress);
  clearingMoves(
    b,
    {
      free: all.free,
      pockets: all.pockets.filter((p) => narrow.some((w) => w.some((l) => l[0] === p.loop[0] && l[1] === p.loop[1]))),
    },
    m,
  );
}

/**
 * Moves that clear one place at height `z` from `previousLevel`: a helix, a spiral out to the widest circle, then crescent
 * after crescent.
 */
function placeMoves(b: MotionBuilder, p: DiscPlace, m: TrochoidalMoves, z: number, previousLevel: number): void {
  const { root } = p;
  // No wider than the level floor under the cutter: no post may stay in the middle.
  const helix = Math.min(root.r, 0.9 * m.floorRadius);
  rapidTo(b, root.x + helix, root.y, m, 8 * m.radius);
  helixDown(b, { cx: root.x, cy: root.y, ccw: m.climb }, m, z, previousLevel);
  spiral(b, root, helix, m, z);
  for (const step of p.steps) crescent(b, step, m, z);
  b.lift(m.linkHeight);
}

/** Half turns about two centres in turn, the radius growing evenly, and a last whole turn. The tool stands at `from` beside the centre. */
function spiral(b: MotionBuilder, root: Disc, from: number, m: TrochoidalMoves, z: number): void {
  let r = from;
  const half = (cx: number) => b.arc(m.climb, 2 * cx - b.lastX, root.y, z, cx, root.y, m.feed);
  while (root.r - r > 1e-6) {
    // The widest step that the circle it leads to allows.
    let next = Math.min(root.r, r + reachBeyond(r, m.radius, m.step));
    next = Math.min(root.r, r + reachBeyond(next, m.radius, m.step));
    half(root.x);
    half(root.x + (next - r) / 2);
    r = next;
  }
  if (r > POINT) {
    half(root.x);
    half(root.x);
  }
}

/** What the circle `to` takes beyond the cleared circle `from`: an arc where the two cross, a slot and a turn where they do not. */
function crescent(b: MotionBuilder, { from, to, between, back }: DiscStep, m: TrochoidalMoves, z: number): void {
  if (back) travel(b, back, m, z);
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const d = Math.hypot(dx, dy);
  const along = d > 0 ? (d * d + from.r * from.r - to.r * to.r) / (2 * d) : 0;
  const h2 = from.r * from.r - along * along;
  if (d > 0 && h2 > 0 && from.r > POINT && to.r > POINT) {
    const h = (m.climb ? 1 : -1) * Math.sqrt(h2);
    const at = (side: number): [number, number] => [
      from.x + (along * dx - side * h * dy) / d,
      from.y + (along * dy + side * h * dx) / d,
    ];
    const [ax, ay] = at(-1);
    const [ex, ey] = at(1);
    // Over cleared floor to where the next crescent begins.
    if (Math.hypot(ax - b.lastX, ay - b.lastY) > SKIP) over(b, ax, ay, m, z, Math.min(m.linkHeight, z + OFF));
    else b.line(ax, ay, z, m.feed);
    b.arc(m.climb, ex, ey, z, to.x, to.y, m.feed);
    return;
  }
  for (let i = 0; i < between.length; i += 2) b.line(between[i], between[i + 1], z, m.feed);
  if (to.r <= POINT) return;
  const [ux, uy] = d > 0 ? [dx / d, dy / d] : [1, 0];
  b.line(to.x - to.r * ux, to.y - to.r * uy, z, m.feed);
  b.arc(m.climb, to.x + to.r * ux, to.y + to.r * uy, z, to.x, to.y, m.feed);
  b.arc(m.climb, to.x - to.r * ux, to.y - to.r * uy, z, to.x, to.y, m.feed);
}

/** By rapid at height `high` to a place that is cleared at `z`. */
function over(b: MotionBuilder, x: number, y: number, m: TrochoidalMoves, z: number, high: number): void {
  b.lift(high);
  b.rapid(x, y, high);
  b.rapid(x, y, Math.min(high, z + OFF));
  b.plunge(z, m.plunge);
}

/** Back to where work goes on: along what is cleared, or up and over where that is much the shorter way. */
function travel(b: MotionBuilder, back: readonly number[], m: TrochoidalMoves, z: number): void {
  let long = 0;
  for (let i = 2; i < back.length; i += 2) long += Math.hypot(back[i] - back[i - 2], back[i + 1] - back[i - 1]);
  const [x, y] = back.slice(-2);
  const jump = Math.hypot(x - b.lastX, y - b.lastY) + 4 * (m.linkHeight - z);
  if (long > 2 * jump) over(b, x, y, m, z, m.linkHeight);
  else for (let i = 0; i < back.length; i += 2) b.line(back[i], back[i + 1], z, m.feed);
}
