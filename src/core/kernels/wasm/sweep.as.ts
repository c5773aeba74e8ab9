// Material removal, four nodes at a time. AssemblyScript: made into `../sweepModule.ts` by `npm run kernels`.
//
// The height that a cutter leaves over a node is known in closed form for a whole move (see ../envelope.ts): with the node's foot on
// the line of the move as zero, the lowest place lies at a distance d that is clamped to the move and to where the cutter covers the
// node:
//
//        start          foot of the node        end
//          |<------ s ----->|<----- len - s ----->|       height = start + m (s + d) + profile(sqrt(h^2 + d^2))
//
// So every node may be asked, whether it matters or not; which nodes are visited is only a saving. Single floats hold distances
// from the start of the move alone, which is short (whoever calls parts long ones), and those are worked out in doubles for the
// first nodes of each row. Outside the cutter a root of less than nothing is no number, and a least of that and a height is the height.

/**
 * Kinds of outline: a level disc; a level core and a side; a ball; a ball and a side. Open: cut less deep than its side is high,
 * so that its edge lies above all material.
 */
class Flat {}
class Cone {}
class OpenCone {}
class Ball {}
class Taper {}
class OpenTaper {}

// The field: address of its heights, columns, distance of nodes, place of the first one, height above which nothing is cut.
let Z: usize = 0;
let COLS: i32 = 0;
let CELL: f64 = 0;
let FX: f64 = 0;
let FY: f64 = 0;
let TOP: f64 = 0;

/** Where the points of a chain lie (x, y, z in doubles); and what is known of the rows of a move, for four of them at a time: first and last column, from that of the start; how far beside the line and along it the first node lies. */
let POINTS: usize = 0;
let ROWS: usize = 0;

// The cutter, as in ../../cutters/form.ts; TAN is 1 / rise, RIM and HIGH where the round passes into the side.
let KIND: i32 = 0;
let RADIUS: f64 = 0;
let CORE: f64 = 0;
let BALL: f64 = 0;
let RISE: f64 = 0;
let TAN: f64 = 0;
let RIM: f64 = 0;
let HIGH: f64 = 0;

// The move before, of a chain that goes on: its direction.
let PX: f64 = 0;
let PY: f64 = 0;
/** Whether it was cut less deep than the cutter's side is high. */
let OPEN: bool = false;

export function setField(z: usize, cols: i32, cell: f64, x0: f64, y0: f64, top: f64): void {
  Z = z;
  COLS = cols;
  CELL = cell;
  FX = x0;
  FY = y0;
  TOP = top;
}

export function setRoom(points: usize, rows: usize): void {
  POINTS = points;
  ROWS = rows;
}

export function setCutter(kind: i32, radius: f64, core: f64, ball: f64, rise: f64, rim: f64, high: f64): void {
  KIND = kind;
  RADIUS = radius;
  CORE = core;
  BALL = ball;
  RISE = rise;
  TAN = rise > 0 ? 1 / rise : 0;
  RIM = rim;
  HIGH = high;
}

/** Cuts the moves between n points out of rows from .. to - 1. `joined`: the chain goes on from the call before; `ends`: with the last move. */
export function cut(n: i32, joined: bool, ends: bool, from: i32, to: i32): void {
  let at = POINTS;
  for (let i = 1; i < n; i++, at += 24) {
    const last = ends && i == n - 1;
    if (KIND == 0) move<Flat>(at, joined, last, from, to);
    else if (KIND == 2) move<Ball>(at, joined, last, from, to);
    else {
      const open = below(Math.min(load<f64>(at, 16), load<f64>(at, 40)));
      if (KIND == 1) {
        if (open) move<OpenCone>(at, joined, last, from, to);
        else move<Cone>(at, joined, last, from, to);
      } else if (open) move<OpenTaper>(at, joined, last, from, to);
      else move<Taper>(at, joined, last, from, to);
    }
    joined = true;
  }
}

/** Nodes so far beyond the edge (mm) count as covered, whichever way they were rounded. */
const EDGE: f64 = 1e-7;
/** By so much more than needed (mm) each move reaches: a node between two of them is visited by both. */
const SPARE: f64 = 1e-6;
/** Of a direction: a part that is smaller bounds no columns, for what it is divided by would blow up the rounding. */
const SLANT: f64 = 0.01;
/** Added to a single float it leaves the nearest whole number in its last bits. */
const WHOLE: f32 = 12582912;
const WHOLE_BITS: i32 = 0x4b400000;

const LANES = f32x4(0, 1, 2, 3);

/** How wide the cutter is h mm above its lowest point. */
function width(h: f64): f64 {
  if (KIND == 0) return RADIUS;
  if (KIND == 2) return h >= RADIUS ? RADIUS : Math.sqrt(h * (2 * RADIUS - h));
  if (KIND == 1) return Math.min(RADIUS, CORE + h * TAN);
  return h < HIGH ? Math.sqrt(Math.max(0, h * (2 * BALL - h))) : Math.min(RADIUS, RIM + (h - HIGH) * TAN);
}

/** Whether a cutter whose tip is at z has its edge above all material. */
function below(z: f64): bool {
  return width(TOP - z) < RADIUS - 1e-6;
}

/** Sine of the angle of a slope. */
function lying(m: f64): f64 {
  return m / Math.sqrt(1 + m * m);
}

/** How far downhill of its foot a node is lowest under a side, for each mm that it lies beside the line. Moves as steep as the side do not come here. */
function downhill(m: f64): f64 {
  const K = Math.min(0.9999, Math.abs(m) * TAN);
  return K / Math.sqrt(1 - K * K);
}

/** Whether a move goes on almost as the one before, and so much along the rows that each of them is met at one place. */
function straight(px: f64, py: f64, ux: f64, uy: f64): bool {
  return Math.abs(px) > 0.7 && Math.abs(ux) > 0.7 && px * ux + py * uy > 0.2 && Math.abs(px * uy - py * ux) < 0.02;
}

function splat(v: f64): v128 {
  return f32x4.splat(<f32>v);
}

function move<T>(at: usize, joined: bool, last: bool, from: i32, to: i32): void {
  const isBall = idof<T>() == idof<Ball>();
  const isFlat = idof<T>() == idof<Flat>();
  const isCone = idof<T>() == idof<Cone>() || idof<T>() == idof<OpenCone>();
  const isOpen = idof<T>() == idof<OpenCone>() || idof<T>() == idof<OpenTaper>();
  const cell = CELL;
  const inv = 1 / cell;
  const full = RADIUS;
  const x0 = load<f64>(at);
  const y0 = load<f64>(at, 8);
  const z0 = load<f64>(at, 16);
  const dx = load<f64>(at, 24) - x0;
  const dy = load<f64>(at, 32) - y0;
  const z1 = load<f64>(at, 40);
  const low = Math.min(z0, z1);
  let len = Math.sqrt(dx * dx + dy * dy);
  const standing = len < 1e-9;
  const ux = standing ? 1 : dx / len;
  const uy = standing ? 0 : dy / len;
  const m = standing ? 0 : (z1 - z0) / len;
  const foot = standing ? low : z0;
  if (standing) len = 0;
  const w = width(TOP - low) + EDGE;
  // How far along the move a node is lowest, forwards when positive: `shift` at most.
  const lean = isFlat ? 0 : lying(m);
  const down = isFlat || isBall ? 0 : downhill(m);
  const shift = isBall
    ? lean * full
    : m == 0
      ? 0
      : isFlat
        ? m > 0
          ? full
          : -full
        : (m > 0 ? 1 : -1) * Math.max(isCone ? CORE : Math.abs(lean) * BALL, down * w);
  // Nodes beside the joint that neither strip covers lie behind this move by no more than the turn.
  const follows = joined && !standing && PX * ux + PY * uy > 0.2;
  const turn = follows ? Math.abs(PX * uy - PY * ux) * w : 0;
  let a = -w;
  let b = len + w;
  if (follows) a = Math.max(a, Math.min(0, shift) - turn - SPARE);
  // Of balls and cones the place is known for each row. Both moves of a joint must see alike whether it is so there: what lies
  // between their places is this one's, in front.
  let behind = false;
  let before = false;
  let nextM: f64 = 0;
  let turnNext: f64 = 0;
  const open = isBall || (isCone && isOpen);
  if (open && Math.abs(ux) > 0.7) {
    behind = follows && OPEN && straight(PX, PY, ux, uy);
    if (!last) {
      const ex = load<f64>(at, 48) - load<f64>(at, 24);
      const ey = load<f64>(at, 56) - load<f64>(at, 32);
      const next = Math.sqrt(ex * ex + ey * ey);
      before = straight(ux, uy, ex / next, ey / next) && (isBall || below(Math.min(z1, load<f64>(at, 64))));
      nextM = (load<f64>(at, 64) - z1) / next;
      turnNext = (Math.abs(ux * ey - uy * ex) / next) * w;
    }
  }
  if (!last) {
    let front = Math.max(0, shift);
    if (before && nextM > 0)
      front = Math.max(front, isBall ? full * lying(nextM) : Math.max(CORE, downhill(nextM) * w));
    b = Math.min(b, len + front + SPARE);
  }
  OPEN = open;
  PX = standing ? 0 : ux;
  PY = standing ? 0 : uy;

  const reach = w * Math.abs(ux);
  let r0 = <i32>Math.ceil((y0 + Math.min(a * uy, b * uy) - reach - FY) * inv);
  let r1 = <i32>Math.floor((y0 + Math.max(a * uy, b * uy) + reach - FY) * inv);
  if (r0 < from) r0 = from;
  if (r1 > to - 1) r1 = to - 1;
  if (r0 > r1) return;
  // Groups of four begin at the same rows whatever band is asked for.
  const g0 = r0 & ~3;

  // First the columns of all rows: four rows at a time, none of which waits for another.
  //
  //     |h| <= w           between the dashes of the direction     mid -+ half
  //     a <= along <= b    between both ends                       e .. f, less the shear
  const slantX = Math.abs(ux) > SLANT;
  const slantY = Math.abs(uy) > SLANT;
  const iux = slantX ? 1 / ux : 0;
  const iuy = slantY ? 1 / uy : 0;
  const ahead = ux > 0;
  const pad = 1e-3 * cell + 4e-7 * (len + 2 * w) * Math.max(1, Math.max(Math.abs(iux), Math.abs(iuy)));
  // Columns are counted from the one at the start of the move: a single float holds them.
  const start = (x0 - FX) * inv;
  const whole = Math.floor(start);
  const near = <i32>whole;
  const vCell = f32x4.mul(LANES, splat(cell));
  {
    const vInv = splat(inv);
    const vFirst = splat(start - whole + 0.499);
    const vLast = splat(start - whole - 0.499);
    const vWhole = f32x4.splat(WHOLE);
    const vBits = i32x4.splat(WHOLE_BITS);
    const left = i32x4.splat(-near);
    const right = i32x4.splat(COLS - 4 - near);
    const end = i32x4.splat(COLS - 1 - near);
    const vOff = splat(FX + whole * cell - x0);
    const vUx = splat(ux);
    const vUy = splat(uy);
    const vLo = splat(Math.min(0, dx) - w - pad);
    const vHi = splat(Math.max(0, dx) + w + pad);
    const vMid = splat(ux * iuy);
    const vHalf = splat(w * Math.abs(iuy) + pad);
    const vShear = splat(uy * iux);
    const vE = splat(ahead ? a * iux - pad : b * iux - pad);
    const vF = splat(ahead ? b * iux + pad : a * iux + pad);
    const zero = f32x4.splat(0);
    const vIux = splat(iux);
    const beside = Math.max(turn, turnNext) + 1e-5;
    const vAbs = i32x4.splat(0x7fffffff);
    const vAt = splat((a + b) * 0.5 * uy * iux);
    const vWide = splat(Math.abs((b - a) * 0.5 * uy * iux) + beside);
    const vBegin = splat(-beside * iux + (ahead ? -pad : pad));
    const vFinish = splat((len + 1e-5) * iux + (ahead ? pad : -pad));
    const vSq = splat(isBall ? full * full : CORE * CORE);
    const vOwn = splat(isBall ? lean * iux : down);
    const vNext = splat(isBall ? lying(nextM) * iux : downhill(nextM));
    const vSign = splat(m > 0 ? iux : m < 0 ? -iux : 0);
    const vNextSign = splat(nextM > 0 ? iux : nextM < 0 ? -iux : 0);
    let o: usize = 0;
    for (let r = g0; r <= r1; r += 4, o += 64) {
      const vy = f32x4.add(splat(FY + <f64>r * cell - y0), vCell);
      let p = vLo;
      let q = vHi;
      if (slantY) {
        const mid = f32x4.mul(vy, vMid);
        p = f32x4.pmax(p, f32x4.sub(mid, vHalf));
        q = f32x4.pmin(q, f32x4.add(mid, vHalf));
      }
      if (slantX) {
        const shear = f32x4.mul(vy, vShear);
        let e = vE;
        let f = vF;
        if (open && (behind || before)) {
          // How far beside the line this row runs between both ends, and what that makes of the place.
          const middle = v128.and(f32x4.sub(f32x4.mul(vy, vIux), vAt), vAbs);
          const h0 = f32x4.pmax(f32x4.sub(middle, vWide), zero);
          const h1 = f32x4.add(middle, vWide);
          // Roots of a ball, or of a cone's core.
          const long = f32x4.sqrt(f32x4.pmax(f32x4.sub(vSq, f32x4.mul(h0, h0)), zero));
          const short = f32x4.sqrt(f32x4.pmax(f32x4.sub(vSq, f32x4.mul(h1, h1)), zero));
          let own0: v128;
          let own1: v128;
          let next1: v128;
          if (isBall) {
            own0 = f32x4.mul(vOwn, m < 0 ? long : short);
            own1 = f32x4.mul(vOwn, m < 0 ? short : long);
            next1 = f32x4.mul(vNext, nextM < 0 ? short : long);
          } else {
            const far = f32x4.pmax(f32x4.mul(h1, vOwn), long);
            const close = f32x4.pmax(f32x4.mul(h0, vOwn), short);
            own0 = f32x4.mul(m > 0 ? close : far, vSign);
            own1 = f32x4.mul(m > 0 ? far : close, vSign);
            next1 = f32x4.mul(
              nextM > 0 ? f32x4.pmax(f32x4.mul(h1, vNext), long) : f32x4.pmax(f32x4.mul(h0, vNext), short),
              vNextSign,
            );
          }
          // Along X: forwards or backwards.
          if (ahead) {
            if (behind) e = f32x4.add(own0, vBegin);
            if (before) f = f32x4.add(f32x4.pmax(own1, next1), vFinish);
          } else {
            if (before) e = f32x4.add(f32x4.pmin(own1, next1), vFinish);
            if (behind) f = f32x4.add(own0, vBegin);
          }
        }
        p = f32x4.pmax(p, f32x4.sub(e, shear));
        q = f32x4.pmin(q, f32x4.sub(f, shear));
      }
      const c0 = i32x4.sub(f32x4.add(f32x4.add(f32x4.mul(p, vInv), vFirst), vWhole), vBits);
      const c1 = i32x4.sub(f32x4.add(f32x4.add(f32x4.mul(q, vInv), vLast), vWhole), vBits);
      const c = i32x4.min_s(i32x4.max_s(c0, left), right);
      v128.store(ROWS + o, c);
      v128.store(ROWS + o, i32x4.min_s(c1, end), 16);
      // Where the first node lies: beside the line, and along it.
      const vx = f32x4.add(f32x4.mul(f32x4.convert_i32x4_s(c), f32x4.splat(<f32>cell)), vOff);
      v128.store(ROWS + o, f32x4.sub(f32x4.mul(vy, vUx), f32x4.mul(vx, vUy)), 32);
      v128.store(ROWS + o, f32x4.add(f32x4.mul(vx, vUx), f32x4.mul(vy, vUy)), 48);
    }
  }

  // Then their nodes, four at a time.
  const zero = f32x4.splat(0);
  const stepH = -cell * uy;
  const stepS = cell * ux;
  const lanesH = f32x4.mul(LANES, splat(stepH));
  const lanesS = f32x4.mul(LANES, splat(stepS));
  const nextH = splat(4 * stepH);
  const nextS = splat(4 * stepS);
  const one = f32x4.splat(1);
  const vLen = splat(len);
  const vM = splat(m);
  const vBase = splat(isBall ? foot + full : foot);
  const vLean = splat(-lean);
  const vDown = splat(m > 0 ? -down : down);
  const vUphill = f32x4.splat(m > 0 ? -1 : 1);
  // What the edge and the rounding of distances and of their squares are worth.
  const hair = 2 * full * (EDGE + 1.2e-7 * (len + w)) + full * full * 2.4e-7;
  const vHair = splat(hair);
  const vFull2 = splat(full * full);
  const vCore = splat(CORE);
  const vCore2 = splat(CORE * CORE);
  const vRise = splat(RISE);
  const vBall = splat(BALL);
  const vBall2 = splat(BALL * BALL);
  const vRim = splat(RIM);
  const vRim2 = splat(RIM * RIM);
  const vHigh = splat(HIGH);
  const vAbs = i32x4.splat(0x7fffffff);
  const lastV = COLS - 4 - near;
  const stride = (<usize>COLS) << 2;
  let row = Z + <usize>r0 * stride + ((<usize>near) << 2);
  for (let r = r0; r <= r1; r++, row += stride) {
    const o = ROWS + (((<usize>(r - g0)) >> 2) << 6) + (((<usize>(r - g0)) & 3) << 2);
    let c = load<i32>(o);
    const c1 = load<i32>(o, 16);
    if (c > c1) continue;
    const firstH = f32x4.add(v128.load32_splat(o, 32), lanesH);
    const firstS = f32x4.add(v128.load32_splat(o, 48), lanesS);
    let h = firstH;
    let s = firstS;
    let k = zero;
    for (;;) {
      const node = row + ((<usize>c) << 2);
      const h2 = f32x4.mul(h, h);
      // t: the place on the move where the node is lowest; d: how far that is from its foot.
      let t: v128;
      let z: v128;
      if (isBall) {
        const qq = f32x4.sub(vFull2, h2);
        t = f32x4.add(s, f32x4.mul(vLean, f32x4.sqrt(f32x4.pmax(qq, zero))));
        t = f32x4.pmin(f32x4.pmax(t, zero), vLen);
        const d = f32x4.sub(t, s);
        const g = f32x4.sub(qq, f32x4.mul(d, d));
        // A hair outside counts as the very edge; further out the root is no number.
        const root = f32x4.sqrt(f32x4.pmax(g, f32x4.pmin(f32x4.add(g, vHair), zero)));
        z = f32x4.sub(f32x4.add(vBase, f32x4.mul(vM, t)), root);
      } else {
        let lo = zero;
        let hi = vLen;
        let covered = zero;
        if (!isOpen) {
          const left = f32x4.sub(vFull2, h2);
          const rim = f32x4.sqrt(f32x4.pmax(left, zero));
          // A hair outside counts as the very edge; further out the root is no number, and nothing is covered.
          const wide = f32x4.sqrt(f32x4.add(left, vHair));
          covered = f32x4.le(f32x4.pmax(f32x4.sub(s, wide), zero), f32x4.pmin(f32x4.add(s, wide), vLen));
          lo = f32x4.pmax(f32x4.sub(s, rim), zero);
          hi = f32x4.pmin(f32x4.add(s, rim), vLen);
        }
        if (isFlat) {
          t = m > 0 ? lo : hi;
          z = f32x4.add(vBase, f32x4.mul(vM, t));
        } else {
          const ha = v128.and(h, vAbs);
          if (isCone) {
            // Under the level core it is lowest where the core's rim comes over the node.
            const core = f32x4.mul(f32x4.sqrt(f32x4.pmax(f32x4.sub(vCore2, h2), zero)), vUphill);
            const side = f32x4.mul(ha, vDown);
            t = f32x4.add(s, m > 0 ? f32x4.pmin(side, core) : f32x4.pmax(side, core));
            t = f32x4.pmin(f32x4.pmax(t, lo), hi);
            const d = f32x4.sub(t, s);
            const rho = f32x4.sqrt(f32x4.add(h2, f32x4.mul(d, d)));
            const up = f32x4.mul(f32x4.pmax(f32x4.sub(rho, vCore), zero), vRise);
            z = f32x4.add(f32x4.add(vBase, f32x4.mul(vM, t)), up);
          } else {
            const side = f32x4.mul(ha, vDown);
            const onSide = f32x4.ge(f32x4.add(h2, f32x4.mul(side, side)), vRim2);
            const ball = f32x4.mul(vLean, f32x4.sqrt(f32x4.pmax(f32x4.sub(vBall2, h2), zero)));
            t = f32x4.add(s, v128.bitselect(side, ball, onSide));
            t = f32x4.pmin(f32x4.pmax(t, lo), hi);
            const d = f32x4.sub(t, s);
            const rho2 = f32x4.add(h2, f32x4.mul(d, d));
            const rho = f32x4.sqrt(rho2);
            const round = f32x4.sub(vBall, f32x4.sqrt(f32x4.pmax(f32x4.sub(vBall2, rho2), zero)));
            const flank = f32x4.add(vHigh, f32x4.mul(f32x4.sub(rho, vRim), vRise));
            const up = v128.bitselect(flank, round, f32x4.gt(rho, vRim));
            z = f32x4.add(f32x4.add(vBase, f32x4.mul(vM, t)), up);
          }
        }
        if (!isOpen) z = v128.or(z, v128.not(covered));
      }
      v128.store(node, f32x4.pmin(v128.load(node), z));
      if (c > c1 - 4) break;
      c += 4;
      k = f32x4.add(k, one);
      if (c > lastV) {
        // The last four of the row: some of them once more.
        k = f32x4.sub(k, f32x4.splat(<f32>(c - lastV) * 0.25));
        c = lastV;
      }
      h = f32x4.add(firstH, f32x4.mul(k, nextH));
      s = f32x4.add(firstS, f32x4.mul(k, nextS));
    }
  }
}
