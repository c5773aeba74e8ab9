// Cutter location over a bilinear surface at any place. AssemblyScript: made into `../locatorModule.ts` by `npm run kernels`.
//
// What is asked, and why, stands in ../locator.ts, which this follows step by step in doubles. Several threads ask over one memory: what
// changes in it are locations over rows of nodes, which whoever asks for them first has put there.

/** Puts the locations over a row of nodes into memory. */
declare function needRow(r: i32): void;
declare function cosine(a: f64): f64;
declare function sine(a: f64): f64;

// The surface: heights, ways in which it falls steeply, greatest heights of blocks of eight by eight nodes.
let Z: usize = 0;
let FALLS: usize = 0;
let TOPS: usize = 0;
/** Greatest heights of the blocks within reach of each. */
let NEAR: usize = 0;
let COLS: i32 = 0;
let ROWS: i32 = 0;
let ACROSS: i32 = 0;
let UP: i32 = 0;
let CELL: f64 = 0;
let FX: f64 = 0;
let FY: f64 = 0;
let TOP: f64 = 0;
// Nodes from which walls fall, by blocks; of each block the next one in its row that has any.
let FIRSTS: usize = 0;
let NODES: usize = 0;
let NEXT: usize = 0;
// Locations over nodes, and which rows of them are there; 0 where there are none.
let LOCATED: usize = 0;
let HAVE: usize = 0;
// Lists of blocks beside each node of a block: 64 of them, each with room for so many entries of (bx, by, least); how many each has.
let LISTS: usize = 0;
let COUNTS: usize = 0;
let ROOM: i32 = 0;
// Rooms for heights round an edge: who is in (1 for somebody), and then the rooms themselves. Whoever asks takes one and gives it back.
let OWN: usize = 0;
let ROOMS: i32 = 0;
let NUMBERS: i32 = 0;
/** The room that is taken, and which one it was last. */
let ROUND: usize = 0;
let MINE: i32 = 0;

// The cutter, as in ../../../cutters/form.ts, and what goes with it.
let RADIUS: f64 = 0;
let RADIUS2: f64 = 0;
let CORE: f64 = 0;
let CORE2: f64 = 0;
let BALL: f64 = 0;
let BALL2: f64 = 0;
let RISE: f64 = 0;
let UPRIGHT: bool = false;
let RIM: f64 = 0;
let RIM2: f64 = 0;
let HIGH: f64 = 0;
let BEND: f64 = 0;
let REACH: i32 = 0;
let SCANNED: i32 = 0;
// Its edges: how many, and of each how high it is, its radius in cells, at how many places it is asked.
let EDGES: i32 = 0;
let EDGE0_HIGH: f64 = 0;
let EDGE0_RADIUS: f64 = 0;
let EDGE0_COUNT: i32 = 0;
let EDGE1_HIGH: f64 = 0;
let EDGE1_RADIUS: f64 = 0;
let EDGE1_COUNT: i32 = 0;

// Where it was met last, and how far from where it stood; the highest so far.
let MET_C: i32 = 0;
let MET_R: i32 = 0;
let OFF_U: f64 = 0;
let OFF_V: f64 = 0;
let BEGUN: bool = false;
let BEST: f64 = 0;

export function setSurface(
  z: usize,
  falls: usize,
  tops: usize,
  near: usize,
  cols: i32,
  rows: i32,
  cell: f64,
  x0: f64,
  y0: f64,
  top: f64,
): void {
  Z = z;
  FALLS = falls;
  TOPS = tops;
  NEAR = near;
  COLS = cols;
  ROWS = rows;
  ACROSS = (cols + 7) >> 3;
  UP = (rows + 7) >> 3;
  CELL = cell;
  FX = x0;
  FY = y0;
  TOP = top;
}

export function setRoom(
  firsts: usize,
  nodes: usize,
  next: usize,
  located: usize,
  have: usize,
  lists: usize,
  counts: usize,
  room: i32,
  own: usize,
  rooms: i32,
  numbers: i32,
): void {
  FIRSTS = firsts;
  NODES = nodes;
  NEXT = next;
  LOCATED = located;
  HAVE = have;
  LISTS = lists;
  COUNTS = counts;
  ROOM = room;
  OWN = own;
  ROOMS = rooms;
  NUMBERS = numbers;
}

/** `rise` 0: its side stands upright. */
export function setCutter(
  radius: f64,
  core: f64,
  ball: f64,
  rise: f64,
  rim: f64,
  high: f64,
  bend: f64,
  reach: i32,
  scanned: i32,
): void {
  RADIUS = radius;
  RADIUS2 = radius * radius;
  CORE = core;
  CORE2 = core * core;
  BALL = ball;
  BALL2 = ball * ball;
  UPRIGHT = rise == 0;
  RISE = rise;
  RIM = rim;
  RIM2 = rim * rim;
  HIGH = high;
  BEND = bend;
  REACH = reach;
  SCANNED = scanned;
  EDGES = 0;
}

export function addEdge(high: f64, radius: f64, count: i32): void {
  if (EDGES == 0) {
    EDGE0_HIGH = high;
    EDGE0_RADIUS = radius;
    EDGE0_COUNT = count;
  } else {
    EDGE1_HIGH = high;
    EDGE1_RADIUS = radius;
    EDGE1_COUNT = count;
  }
  EDGES++;
}

export function restart(): void {
  BEGUN = false;
}

function outline(q: f64): f64 {
  if (q <= CORE2) return 0;
  if (q <= RIM2 || UPRIGHT) {
    if (CORE == 0) {
      const left = BALL2 - q;
      return BALL - (left > 0 ? Math.sqrt(left) : 0);
    }
    const d = Math.sqrt(q) - CORE;
    const left = BALL2 - d * d;
    return BALL - (left > 0 ? Math.sqrt(left) : 0);
  }
  return HIGH + (Math.sqrt(q) - RIM) * RISE;
}

function height(i: i32): f64 {
  return <f64>load<f32>(Z + ((<usize>i) << 2));
}

function askAlong(base: f64, slope: f64, at: f64, a0: f64, a1: f64, b2: f64): void {
  const a = at < a0 ? a0 : at > a1 ? a1 : at;
  const q = a * a + b2;
  if (q > RADIUS2) return;
  const w = base + slope * a - outline(q);
  if (w > BEST) BEST = w;
}

/** The highest along the line from a node down to the next. */
function fall(from: f64, to: f64, along: f64, beside: f64): void {
  const b2 = beside * beside;
  const nearest: f64 = along + CELL <= 0 ? along + CELL : 0;
  const q = nearest * nearest + b2;
  if (q > RADIUS2 || from - outline(q) <= BEST) return;
  const most = Math.sqrt(RADIUS2 - b2);
  const a0 = along < -most ? -most : along;
  const a1 = along + CELL > most ? most : along + CELL;
  const slope = (to - from) / CELL;
  const base = from - slope * along;
  askAlong(base, slope, a0, a0, a1, b2);
  if (CORE == 0 || BALL == 0) {
    if (!UPRIGHT && RISE > -slope)
      askAlong(base, slope, (slope * Math.sqrt(b2)) / Math.sqrt(RISE * RISE - slope * slope), a0, a1, b2);
    if (BALL2 > b2) askAlong(base, slope, slope * Math.sqrt((BALL2 - b2) / (1 + slope * slope)), a0, a1, b2);
    if (RIM2 > b2) askAlong(base, slope, -Math.sqrt(RIM2 - b2), a0, a1, b2);
    return;
  }
  // A round about a core has no such closed form.
  let low = a0;
  let high = a1;
  for (let k = 0; k < 10; k++) {
    const a = (low + high) / 2;
    const hair = (high - low) / 64;
    const up = base + slope * (a + hair) - outline((a + hair) * (a + hair) + b2);
    if (up > base + slope * (a - hair) - outline((a - hair) * (a - hair) + b2)) low = a;
    else high = a;
  }
  askAlong(base, slope, (low + high) / 2, a0, a1, b2);
}

function ask(c: i32, r: i32, u: f64, v: f64): void {
  if (c < 0 || r < 0 || c >= COLS || r >= ROWS) return;
  const i = r * COLS + c;
  const h = height(i);
  const before = BEST;
  if (!(h > before)) return;
  const dx = (<f64>c - u) * CELL;
  const dy = (<f64>r - v) * CELL;
  const ways = <i32>load<u8>(FALLS + <usize>i);
  const q = dx * dx + dy * dy;
  if (ways == 0) {
    if (q > RADIUS2) return;
    const w = h - outline(q);
    if (!(w > before)) return;
    BEST = w;
    MET_C = c;
    MET_R = r;
    return;
  }
  // Of what falls from it nothing lies nearer than the next node.
  const ax = abs(dx) - CELL;
  const ay = abs(dy) - CELL;
  const near = (ax > 0 ? ax * ax : <f64>0) + (ay > 0 ? ay * ay : <f64>0);
  if (near > RADIUS2 || h - outline(near) <= before) return;
  if (q <= RADIUS2) {
    const w = h - outline(q);
    if (w > before) BEST = w;
  }
  // Down from it and away from the place nothing is met that is not met by the node itself.
  if (ways & 1 && dx < 0) fall(h, height(i + 1), dx, dy);
  if (ways & 2 && dx > 0) fall(h, height(i - 1), -dx, dy);
  if (ways & 4 && dy < 0) fall(h, height(i + COLS), dy, dx);
  if (ways & 8 && dy > 0) fall(h, height(i - COLS), -dy, dx);
  if (!(BEST > before)) return;
  MET_C = c;
  MET_R = r;
}

/** From what is so much higher than what was found the cutter is met no further away than this, mm; negative where it is not met. */
function within(d: f64): f64 {
  if (!(d > 0)) return -1;
  if (d < HIGH) return CORE + Math.sqrt(d * (2 * BALL - d));
  return UPRIGHT ? RADIUS : min(RADIUS, RIM + (d - HIGH) / RISE);
}

// The nodes from which the cutter can be met.
let C0: i32 = 0;
let R0: i32 = 0;
let C1: i32 = 0;
let R1: i32 = 0;
/** How far away that is at most, mm. */
let FAR: f64 = 0;
/** How many nodes lie where the cutter can be met from what is so much higher; what falls from a node is met up to a node nearer. */
function nodesWithin(d: f64, u: f64, v: f64): i32 {
  const far = within(d);
  if (far < 0) return 0;
  FAR = far;
  const n = far / CELL + 1;
  C0 = <i32>max(<f64>0, Math.ceil(u - n));
  R0 = <i32>max(<f64>0, Math.ceil(v - n));
  C1 = <i32>min(<f64>(COLS - 1), Math.floor(u + n));
  R1 = <i32>min(<f64>(ROWS - 1), Math.floor(v + n));
  return (C1 - C0 + 1) * (R1 - R0 + 1);
}

/** Heights are told apart so well in single precision: what may be higher by less is asked as well. */
const HAIR: f64 = 1e-6;

/** What a height in single precision has to be higher than; a number with which can be reckoned, where nothing was found yet, too. */
function toBeat(best: f64): f32 {
  return <f32>max(-1e30, best - HAIR * (1 + abs(best)));
}

/**
 * Which of four nodes are met, so much higher than what was found, at such square distances: seen without a root of a distance, for the
 * square is less than that at which the outline has risen to them. Single precision tells squares apart to a millionth: a little more
 * counts as met.
 */
function met(d: v128, q: v128): i32 {
  const nothing = f32x4.splat(0);
  let round = f32x4.mul(d, f32x4.sub(f32x4.splat(<f32>(2 * BALL)), d));
  if (CORE > 0) {
    round = f32x4.add(f32x4.splat(<f32>CORE), f32x4.sqrt(f32x4.max(round, nothing)));
    round = f32x4.mul(round, round);
  }
  const high = f32x4.splat(<f32>HIGH);
  const rim = f32x4.splat(<f32>(UPRIGHT ? RADIUS : RIM));
  const out = f32x4.splat(<f32>(UPRIGHT ? 0 : 1 / RISE));
  let side = f32x4.add(rim, f32x4.mul(f32x4.sub(d, high), out));
  side = f32x4.mul(side, side);
  const far = v128.bitselect(round, side, f32x4.lt(d, high));
  const most = f32x4.add(f32x4.mul(far, f32x4.splat(1.00001)), f32x4.splat(1e-9));
  return i32x4.bitmask(v128.and(f32x4.gt(d, nothing), f32x4.le(q, most)));
}

/** The same of nodes of which some fall steeply: what falls from them is met beside them, up to a node nearer. */
function metBeside(d: v128, dx: v128, dy: f32): i32 {
  const cell = <f32>CELL;
  const x = f32x4.max(f32x4.sub(f32x4.abs(dx), f32x4.splat(cell)), f32x4.splat(0));
  const y = max<f32>(abs(dy) - cell, 0);
  return met(d, f32x4.add(f32x4.mul(x, x), f32x4.splat(y * y)));
}

/**
 * Goes through all nodes from which the cutter can be met, four at a time; false where they are too many.
 */
function scan(u: f64, v: f64, here: f64): bool {
  if (!SCANNED || !(u >= 0 && v >= 0 && u <= <f64>(COLS - 1) && v <= <f64>(ROWS - 1))) return false;
  if (here > BEST) BEST = here;
  const block = ((<i32>Math.floor(v)) >> 3) * ACROSS + ((<i32>Math.floor(u)) >> 3);
  let count = nodesWithin(<f64>load<f32>(NEAR + ((<usize>block) << 2)) - BEST, u, v);
  if (count == 0) return true;
  if (count > 4 * SCANNED) return false;
  let most: f32 = -f32.MAX_VALUE;
  for (let y = R0 >> 3; y <= R1 >> 3; y++)
    for (let x = C0 >> 3; x <= C1 >> 3; x++) most = max(most, load<f32>(TOPS + ((<usize>(y * ACROSS + x)) << 2)));
  count = nodesWithin(<f64>most - BEST, u, v);
  if (count == 0) return true;
  if (count > SCANNED) return false;
  // Up to there the outline rises no less than a parabola does, which tells most nodes without more ado.
  const rises: f64 = CORE > 0 ? 0 : min(BALL > 0 ? 1 / (2 * BALL) : f64.MAX_VALUE, outline(FAR * FAR) / (FAR * FAR));
  const share = f32x4.splat(<f32>rises);
  const step = f32x4.splat(<f32>(4 * CELL));
  const first = f32x4.add(
    f32x4.splat(<f32>((<f64>C0 - u) * CELL)),
    f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(<f32>CELL)),
  );
  const c0 = C0;
  const c1 = C1;
  const r1 = R1;
  let before = BEST;
  let best = f32x4.splat(toBeat(before));
  for (let r = R0; r <= r1; r++) {
    const dy = <f32>((<f64>r - v) * CELL);
    const dy2 = f32x4.splat(dy * dy);
    let dx = first;
    let i = r * COLS + c0;
    for (let c = c0; c <= c1; c += 4) {
      const h = v128.load(Z + ((<usize>i) << 2));
      const q = f32x4.add(f32x4.mul(dx, dx), dy2);
      let lanes = 0;
      if (load<u32>(FALLS + <usize>i)) lanes = metBeside(f32x4.sub(h, best), dx, dy);
      else if (v128.any_true(f32x4.gt(f32x4.sub(h, f32x4.mul(q, share)), best))) lanes = met(f32x4.sub(h, best), q);
      if (lanes) {
        for (let k = c; lanes; k++, lanes >>= 1) if (lanes & 1) ask(k, r, u, v);
        if (BEST != before) {
          before = BEST;
          best = f32x4.splat(toBeat(before));
        }
      }
      dx = f32x4.add(dx, step);
      i += 4;
    }
  }
  return true;
}

function climb(u: f64, v: f64): void {
  let c = MET_C;
  let r = MET_R;
  let di = 0;
  let dj = 0;
  for (;;) {
    for (let j = -1; j <= 1; j++)
      for (let i = -1; i <= 1; i++) {
        if (!(i | j)) continue;
        // What was asked round the node before is not asked again.
        if ((di | dj) != 0 && abs(i + di) <= 1 && abs(j + dj) <= 1) continue;
        ask(c + i, r + j, u, v);
      }
    if (MET_C == c && MET_R == r) return;
    di = MET_C - c;
    dj = MET_R - r;
    c += di;
    r += dj;
  }
}

/** Where the list of a node of a block begins, and how long it is. */
function listOf(c0: i32, r0: i32): usize {
  return LISTS + <usize>((((r0 & 7) << 3) + (c0 & 7)) * ROOM) * 16;
}
function countOf(c0: i32, r0: i32): i32 {
  return load<i32>(COUNTS + ((<usize>(((r0 & 7) << 3) + (c0 & 7))) << 2));
}

function search(u: f64, v: f64): void {
  const c0 = <i32>Math.floor(u);
  const r0 = <i32>Math.floor(v);
  const list = listOf(c0, r0);
  const count = countOf(c0, r0);
  for (let n = 0; n < count; n++) {
    const at = list + ((<usize>n) << 4);
    const least = load<f64>(at, 8);
    if (TOP - least <= BEST) break;
    const cx = (c0 >> 3) + load<i32>(at);
    const cy = (r0 >> 3) + load<i32>(at, 4);
    if (cx < 0 || cy < 0 || cx >= ACROSS || cy >= UP) continue;
    if (<f64>load<f32>(TOPS + ((<usize>(cy * ACROSS + cx)) << 2)) - least <= BEST) continue;
    const to = min(COLS, (cx << 3) + 8);
    const end = min(ROWS, (cy << 3) + 8);
    for (let r = cy << 3; r < end; r++)
      for (let c = cx << 3; c < to; c++) if (height(r * COLS + c) > BEST) ask(c, r, u, v);
  }
}

/** Goes through the nodes of a row of blocks from which walls fall; false where none further away can be met. */
function wallsOf(cy: i32, u: f64, v: f64): void {
  const bx = min(COLS - 1, <i32>Math.floor(u)) >> 3;
  const last = cy * ACROSS + min(ACROSS - 1, bx + REACH);
  let block = cy * ACROSS + max(0, bx - REACH);
  for (;;) {
    block = load<i32>(NEXT + ((<usize>block) << 2));
    if (block > last) return;
    const top = <f64>load<f32>(TOPS + ((<usize>block) << 2));
    if (top > BEST) {
      const cx = (block - cy * ACROSS) << 3;
      // From the place to the nearest that a wall of it reaches: a node further than its own nodes.
      const dx = max(<f64>0, max(<f64>(cx - 1) - u, u - <f64>(cx + 8))) * CELL;
      const dy = max(<f64>0, max(<f64>((cy << 3) - 1) - v, v - <f64>((cy << 3) + 8))) * CELL;
      const q = dx * dx + dy * dy;
      if (q <= RADIUS2 && top - outline(q) > BEST) {
        const end = load<i32>(FIRSTS + ((<usize>(block + 1)) << 2));
        for (let k = load<i32>(FIRSTS + ((<usize>block) << 2)); k < end; k++) {
          const i = load<i32>(NODES + ((<usize>k) << 2));
          if (height(i) > BEST) ask(i % COLS, i / COLS, u, v);
        }
      }
    }
    block++;
    if (block > last) return;
  }
}

function searchWalls(u: f64, v: f64): void {
  const by = min(ROWS - 1, <i32>Math.floor(v)) >> 3;
  for (let j = 0; j <= REACH; j++) {
    // Nearer than this no row so far away is: none further away is met where this one is not.
    const away = max(<f64>0, <f64>((j - 1) * 8 - 1)) * CELL;
    const q = away * away;
    if (q > RADIUS2 || TOP - outline(q) <= BEST) return;
    if (by - j >= 0 && by - j < UP) wallsOf(by - j, u, v);
    if (j && by + j < UP && by + j >= 0) wallsOf(by + j, u, v);
  }
}

function bilinear(c: i32, r: i32, s: f64, t: f64): f64 {
  const i = r * COLS + c;
  return (
    (height(i) * (1 - s) + height(i + 1) * s) * (1 - t) + (height(i + COLS) * (1 - s) + height(i + COLS + 1) * s) * t
  );
}

/** Height of the surface, in cells from its first node; no number beyond it and where it is empty. */
function heightHere(u: f64, v: f64): f64 {
  if (!(u >= 0 && v >= 0 && u <= <f64>(COLS - 1) && v <= <f64>(ROWS - 1))) return f64.NaN;
  const c = min(COLS - 2, <i32>Math.floor(u));
  const r = min(ROWS - 2, <i32>Math.floor(v));
  return bilinear(c, r, u - <f64>c, v - <f64>r);
}

/** What no location over the surface exceeds by more than a bend; without end where that is not known. */
function atMost(u: f64, v: f64): f64 {
  if (LOCATED == 0 || !(u >= 0 && v >= 0 && u <= <f64>(COLS - 1) && v <= <f64>(ROWS - 1))) return f64.MAX_VALUE;
  const c = min(COLS - 2, <i32>Math.floor(u));
  const r = min(ROWS - 2, <i32>Math.floor(v));
  const have = HAVE + ((<usize>r) << 2);
  if (atomic.load<i32>(have) == 0) needRow(r);
  if (atomic.load<i32>(have, 4) == 0) needRow(r + 1);
  const s = u - <f64>c;
  const t = v - <f64>r;
  const low = LOCATED + ((<usize>(r * COLS + c)) << 2);
  const up = low + ((<usize>COLS) << 2);
  return (
    (<f64>load<f32>(low) * (1 - s) + <f64>load<f32>(low, 4) * s) * (1 - t) +
    (<f64>load<f32>(up) * (1 - s) + <f64>load<f32>(up, 4) * s) * t
  );
}

/** Whether anything under an edge can be higher than what was found. */
function mayMeet(high: f64, u: f64, v: f64): bool {
  if (TOP - high <= BEST) return false;
  const c0 = <i32>Math.floor(u);
  const r0 = <i32>Math.floor(v);
  const list = listOf(c0, r0);
  const count = countOf(c0, r0);
  for (let n = 0; n < count; n++) {
    const at = list + ((<usize>n) << 4);
    if (load<f64>(at, 8) > high) break;
    const cx = (c0 >> 3) + load<i32>(at);
    const cy = (r0 >> 3) + load<i32>(at, 4);
    if (cx < 0 || cy < 0 || cx >= ACROSS || cy >= UP) continue;
    if (<f64>load<f32>(TOPS + ((<usize>(cy * ACROSS + cx)) << 2)) - high > BEST) return true;
  }
  return false;
}

function heightIn(a: f64, b: f64): f64 {
  if (!(a >= 0 && b >= 0 && a <= <f64>(COLS - 1) && b <= <f64>(ROWS - 1))) return -f64.MAX_VALUE;
  const c = a == <f64>(COLS - 1) ? COLS - 2 : <i32>Math.floor(a);
  const r = b == <f64>(ROWS - 1) ? ROWS - 2 : <i32>Math.floor(b);
  const h = bilinear(c, r, a - <f64>c, b - <f64>r);
  return h == h ? h : -f64.MAX_VALUE;
}

/** Takes a room that nobody is in: there are more of them than threads. */
function enter(): void {
  for (let tries = 0; tries < ROOMS; tries++) {
    const door = OWN + ((<usize>MINE) << 2);
    if (atomic.cmpxchg<i32>(door, 0, 1) == 0) break;
    MINE = (MINE + 1) % ROOMS;
  }
  ROUND = OWN + ((<usize>ROOMS) << 2) + ((<usize>(MINE * NUMBERS)) << 3);
}
function leave(): void {
  atomic.store<i32>(OWN + ((<usize>MINE) << 2), 0);
}

function roundAt(k: i32): f64 {
  return load<f64>(ROUND + ((<usize>k) << 3));
}

/** Greatest height of the surface on a circle about a place, all in cells. */
function highestRound(radius: f64, count: i32, u: f64, v: f64): f64 {
  const turn = 6.283185307179586 / <f64>count;
  let most = -f64.MAX_VALUE;
  const cos = cosine(turn);
  const sin = sine(turn);
  let x = radius;
  let y: f64 = 0;
  for (let k = 0; k < count; k++) {
    const h = heightIn(u + x, v + y);
    store<f64>(ROUND + ((<usize>k) << 3), h);
    if (h > most) most = h;
    const nx = x * cos - y * sin;
    y = x * sin + y * cos;
    x = nx;
  }
  for (let k = 0; k < count; k++) {
    const h = roundAt(k);
    const before = roundAt(k ? k - 1 : count - 1);
    const after = roundAt(k + 1 < count ? k + 1 : 0);
    if (!(h >= before && h >= after && h > -f64.MAX_VALUE) || h + max(h - before, h - after) < most) continue;
    let top = <f64>k * turn;
    let best = h;
    for (let j = -3; j < 4; j++) {
      if (!j) continue;
      const angle = (<f64>k + <f64>j / 4) * turn;
      const there = heightIn(u + radius * cosine(angle), v + radius * sine(angle));
      if (there > best) {
        top = angle;
        best = there;
      }
    }
    let low = top - turn / 4;
    let high = top + turn / 4;
    for (let n = 0; n < 10; n++) {
      const a = low + (high - low) / 3;
      const b = high - (high - low) / 3;
      const ha = heightIn(u + radius * cosine(a), v + radius * sine(a));
      const hb = heightIn(u + radius * cosine(b), v + radius * sine(b));
      best = max(best, max(ha, hb));
      if (ha < hb) low = a;
      else high = b;
    }
    if (best > most) most = best;
  }
  return most;
}

function askEdge(high: f64, radius: f64, count: i32, u: f64, v: f64): void {
  if (!mayMeet(high, u, v)) return;
  enter();
  const h = highestRound(radius, count, u, v) - high;
  leave();
  if (h > BEST) BEST = h;
}

/** Height of the cutter's lowest point at a place, mm; the lowest number where there is nothing under it. */
export function at(x: f64, y: f64): f64 {
  const u = (x - FX) / CELL;
  const v = (y - FY) / CELL;
  BEST = -f64.MAX_VALUE;
  if (!BEGUN) {
    BEGUN = true;
    MET_C = <i32>nearest(u);
    MET_R = <i32>nearest(v);
    ask(MET_C, MET_R, u, v);
  } else {
    const c = MET_C;
    const r = MET_R;
    ask(c, r, u, v);
    const a = <i32>nearest(u + OFF_U);
    const b = <i32>nearest(v + OFF_V);
    if (a != c || b != r) ask(a, b, u, v);
  }
  const here = heightHere(u, v);
  if (!scan(u, v, here)) {
    climb(u, v);
    if (here > BEST) BEST = here;
    if (here != here || BEST < atMost(u, v) - BEND) search(u, v);
    else searchWalls(u, v);
  }
  OFF_U = <f64>MET_C - u;
  OFF_V = <f64>MET_R - v;
  if (EDGES > 0) askEdge(EDGE0_HIGH, EDGE0_RADIUS, EDGE0_COUNT, u, v);
  if (EDGES > 1) askEdge(EDGE1_HIGH, EDGE1_RADIUS, EDGE1_COUNT, u, v);
  return BEST;
}
