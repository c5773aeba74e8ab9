// Noise at places that follow each other, four at once. AssemblyScript: made into `../noiseModule.ts` by `npm run kernels`.
//
// What is known of a unit square (directions at its corners, points in it and beside it) is looked up when a place lies in another
// square than the one before. Of four places those that lie in the square that is known are done together; as long as any are
// left, the square of the first of them is looked up:
//
//        |   square   |  next   |
//        .   .   .   .|  .   .  |       1st four: once      2nd four: twice, one lane of the first square, three of the next
//
// Places within their square are single floats: less than 1e-7 of a square off. Arrays hold a multiple of four places; see ../noise.ts
// for what is worked out.

/** A place far from everything: no square is known. */
const NONE: i32 = i32.MIN_VALUE;

// The eight directions: x, then y.
const D: f32 = 0.70710678;
const ALONG_X = memory.data<f32>([1, -1, 0, 0, D, -D, D, -D]);
const ALONG_Y = memory.data<f32>([0, 0, 1, -1, D, D, -D, -D]);
/** Points round a square, x and y from its lower left corner: of five by five squares. */
const POINTS = memory.data(200, 16);
/** The squares of four places. */
const SQUARES = memory.data(32, 16);

function hash(i: i32, j: i32, seed: i32): u32 {
  let h: u32 = (<u32>i * 0x27d4eb2d) ^ (<u32>j * 0x165667b1) ^ (<u32>seed * 0x9e3779b1);
  h = (h ^ (h >> 15)) * 0x2c1b3c6d;
  h = (h ^ (h >> 12)) * 0x297a2d39;
  return h ^ (h >> 15);
}

/** The squares that four places lie in, and how far in. */
function squares(a: v128, b: v128): v128 {
  return i32x4.shuffle(i32x4.trunc_sat_f64x2_s_zero(a), i32x4.trunc_sat_f64x2_s_zero(b), 0, 1, 4, 5);
}
function within(a: v128, fa: v128, b: v128, fb: v128): v128 {
  return f32x4.shuffle(
    f32x4.demote_f64x2_zero(f64x2.sub(a, fa)),
    f32x4.demote_f64x2_zero(f64x2.sub(b, fb)),
    0,
    1,
    4,
    5,
  );
}
function fade(t: v128): v128 {
  // t^3 (t (6 t - 15) + 10)
  const inner = f32x4.add(f32x4.mul(t, f32x4.sub(f32x4.mul(t, f32x4.splat(6)), f32x4.splat(15))), f32x4.splat(10));
  return f32x4.mul(f32x4.mul(f32x4.mul(t, t), t), inner);
}

/** Adds noise of one size, `high` times, at `n` places. */
function octave(x: usize, y: usize, n: i32, seed: i32, high: f32, to: usize): void {
  let i = NONE;
  let j = NONE;
  let ax = f32x4.splat(0);
  let ay = ax;
  let bx = ax;
  let by = ax;
  let cx = ax;
  let cy = ax;
  let dx = ax;
  let dy = ax;
  const one = f32x4.splat(1);
  const by_high = f32x4.splat(high * <f32>1.41421356);
  for (let k = 0; k < n; k += 4) {
    const at = (<usize>k) << 3;
    const x0 = v128.load(x + at);
    const x1 = v128.load(x + at, 16);
    const y0 = v128.load(y + at);
    const y1 = v128.load(y + at, 16);
    const fx0 = f64x2.floor(x0);
    const fx1 = f64x2.floor(x1);
    const fy0 = f64x2.floor(y0);
    const fy1 = f64x2.floor(y1);
    const p = squares(fx0, fx1);
    const q = squares(fy0, fy1);
    const u = within(x0, fx0, x1, fx1);
    const v = within(y0, fy0, y1, fy1);
    const u1 = f32x4.sub(u, one);
    const v1 = f32x4.sub(v, one);
    const s = fade(u);
    const s1 = f32x4.sub(one, s);
    const t = fade(v);
    let sum = f32x4.splat(0);
    let left = i32x4.splat(-1);
    let looked = false;
    for (;;) {
      const mine = v128.and(left, v128.and(i32x4.eq(p, i32x4.splat(i)), i32x4.eq(q, i32x4.splat(j))));
      if (v128.any_true(mine)) {
        const low = f32x4.add(
          f32x4.mul(f32x4.add(f32x4.mul(ax, u), f32x4.mul(ay, v)), s1),
          f32x4.mul(f32x4.add(f32x4.mul(bx, u1), f32x4.mul(by, v)), s),
        );
        const up = f32x4.add(
          f32x4.mul(f32x4.add(f32x4.mul(cx, u), f32x4.mul(cy, v1)), s1),
          f32x4.mul(f32x4.add(f32x4.mul(dx, u1), f32x4.mul(dy, v1)), s),
        );
        const h = f32x4.add(low, f32x4.mul(f32x4.sub(up, low), t));
        sum = v128.bitselect(h, sum, mine);
        left = v128.andnot(left, mine);
        if (!v128.any_true(left)) break;
      }
      if (!looked) {
        v128.store(SQUARES, p);
        v128.store(SQUARES, q, 16);
        looked = true;
      }
      const lane = (<usize>ctz(i32x4.bitmask(left))) << 2;
      i = load<i32>(SQUARES + lane);
      j = load<i32>(SQUARES + lane, 16);
      const a = (<usize>(hash(i, j, seed) >> 29)) << 2;
      const b = (<usize>(hash(i + 1, j, seed) >> 29)) << 2;
      const c = (<usize>(hash(i, j + 1, seed) >> 29)) << 2;
      const d = (<usize>(hash(i + 1, j + 1, seed) >> 29)) << 2;
      ax = v128.load32_splat(ALONG_X + a);
      ay = v128.load32_splat(ALONG_Y + a);
      bx = v128.load32_splat(ALONG_X + b);
      by = v128.load32_splat(ALONG_Y + b);
      cx = v128.load32_splat(ALONG_X + c);
      cy = v128.load32_splat(ALONG_Y + c);
      dx = v128.load32_splat(ALONG_X + d);
      dy = v128.load32_splat(ALONG_Y + d);
    }
    const out = to + ((<usize>k) << 2);
    v128.store(out, f32x4.add(v128.load(out), f32x4.mul(sum, by_high)));
  }
}

/**
 * Noise of several sizes on each other at `n` places (`u` times `su`, `v` times `sv`), each half as large and half as high as the one
 * before. `x`, `y`: room for as many places.
 */
export function rough(
  u: usize,
  v: usize,
  n: i32,
  su: f64,
  sv: f64,
  seed: i32,
  octaves: i32,
  to: usize,
  x: usize,
  y: usize,
): void {
  const bytes = (<usize>n) << 3;
  const bu = f64x2.splat(su);
  const bv = f64x2.splat(sv);
  for (let k: usize = 0; k < bytes; k += 16) {
    v128.store(x + k, f64x2.mul(v128.load(u + k), bu));
    v128.store(y + k, f64x2.mul(v128.load(v + k), bv));
  }
  memory.fill(to, 0, bytes >> 1);
  let all: f64 = 0;
  let high: f64 = 0.5;
  for (let o = 0; o < octaves; o++) {
    all += high;
    high /= 2;
  }
  high = 0.5 / all;
  const two = f64x2.splat(2);
  const right = f64x2.splat(17.3);
  const down = f64x2.splat(9.1);
  for (let o = 0; o < octaves; o++) {
    octave(x, y, n, seed + o, <f32>high, to);
    high /= 2;
    if (o + 1 == octaves) break;
    for (let k: usize = 0; k < bytes; k += 16) {
      v128.store(x + k, f64x2.add(f64x2.mul(v128.load(x + k), two), right));
      v128.store(y + k, f64x2.sub(f64x2.mul(v128.load(y + k), two), down));
    }
  }
}

/** Points of the squares round one, `reach` squares far, from its lower left corner. */
function points(i: i32, j: i32, seed: i32, spread: f64, reach: i32): void {
  let to = POINTS;
  const part: f64 = 1 / <f64>4294967296;
  for (let q = -reach; q <= reach; q++)
    for (let p = -reach; p <= reach; p++) {
      const cx = <f64>hash(i + p, j + q, seed) * part - 0.5;
      const cy = <f64>hash(i + p, j + q, seed + 7919) * part - 0.5;
      store<f32>(to, <f32>(<f64>p + 0.5 + spread * cx));
      store<f32>(to, <f32>(<f64>q + 0.5 + spread * cy), 4);
      to += 8;
    }
}

/**
 * Distances from `n` places to the nearest (`first`) and the second nearest of one point in each unit square; `spread` 0..1 says how
 * far points leave the middles of their squares. Points two squares away are looked at where `wanted` of them (1, 2) may be among
 * them.
 */
export function nearest(
  x: usize,
  y: usize,
  n: i32,
  seed: i32,
  spread: f64,
  wanted: i32,
  first: usize,
  second: usize,
): void {
  const far = 1 + (1 - spread) / 2;
  const beyond = f32x4.splat(<f32>(far * far) * <f32>0.999999);
  const infinite = f32x4.splat(f32.MAX_VALUE);
  let i = NONE;
  let j = NONE;
  let reach = 0;
  for (let k = 0; k < n; k += 4) {
    const at = (<usize>k) << 3;
    const x0 = v128.load(x + at);
    const x1 = v128.load(x + at, 16);
    const y0 = v128.load(y + at);
    const y1 = v128.load(y + at, 16);
    const fx0 = f64x2.floor(x0);
    const fx1 = f64x2.floor(x1);
    const fy0 = f64x2.floor(y0);
    const fy1 = f64x2.floor(y1);
    const p = squares(fx0, fx1);
    const q = squares(fy0, fy1);
    const u = within(x0, fx0, x1, fx1);
    const v = within(y0, fy0, y1, fy1);
    let least = infinite;
    let next = infinite;
    let left = i32x4.splat(-1);
    v128.store(SQUARES, p);
    v128.store(SQUARES, q, 16);
    for (;;) {
      const mine = v128.and(left, v128.and(i32x4.eq(p, i32x4.splat(i)), i32x4.eq(q, i32x4.splat(j))));
      if (v128.any_true(mine)) {
        let best = infinite;
        let other = infinite;
        const end = POINTS + (reach == 1 ? 72 : 200);
        for (let m = POINTS; m < end; m += 8) {
          const dx = f32x4.sub(v128.load32_splat(m), u);
          const dy = f32x4.sub(v128.load32_splat(m, 4), v);
          const d = f32x4.add(f32x4.mul(dx, dx), f32x4.mul(dy, dy));
          const more = f32x4.pmax(best, d);
          best = f32x4.pmin(best, d);
          other = f32x4.pmin(other, more);
        }
        const sure = f32x4.le(wanted == 1 ? best : other, beyond);
        const done = reach == 2 ? mine : v128.and(mine, sure);
        least = v128.bitselect(best, least, done);
        next = v128.bitselect(other, next, done);
        left = v128.andnot(left, done);
        if (!v128.any_true(left)) break;
        if (v128.any_true(v128.andnot(mine, done))) {
          // The same square, further round it.
          reach = 2;
          points(i, j, seed, spread, 2);
          continue;
        }
      }
      const lane = (<usize>ctz(i32x4.bitmask(left))) << 2;
      i = load<i32>(SQUARES + lane);
      j = load<i32>(SQUARES + lane, 16);
      reach = 1;
      points(i, j, seed, spread, 1);
    }
    const out = (<usize>k) << 2;
    v128.store(first + out, f32x4.sqrt(least));
    v128.store(second + out, f32x4.sqrt(next));
  }
}
