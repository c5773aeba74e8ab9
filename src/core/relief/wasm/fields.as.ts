// Height fields, node by node. AssemblyScript: made into `../fieldsModule.ts` by `npm run kernels`.

/** How a form meets what lies under it, as `../laying.ts` numbers them. */
const ADD = 0;
const SINK = 1;
const HIGHER = 2;
const LOWER = 3;

/**
 * Lays a form on what is under it, in place, four nodes at a time: what `lay` in ../stack.ts does, in single floats. `weights` 0:
 * it counts wholly. Empty nodes are no numbers, and whatever is compared with one is not so.
 */
export function lay(under: usize, form: usize, weights: usize, n: i32, meets: i32, base: f32, strength: f32): void {
  const b = f32x4.splat(base);
  const s = f32x4.splat(strength);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const bytes = (<usize>n) << 2;
  for (let k: usize = 0; k < bytes; k += 16) {
    const u = v128.load(under + k);
    const f = f32x4.add(b, f32x4.mul(s, v128.load(form + k)));
    const there = f32x4.eq(f, f);
    const filled = f32x4.eq(u, u);
    let to: v128;
    if (meets == ADD) to = v128.bitselect(f32x4.add(u, f), f, filled);
    else if (meets == SINK) to = f32x4.sub(v128.and(u, filled), f);
    else if (meets == HIGHER) to = v128.bitselect(u, f, f32x4.ge(u, f));
    else if (meets == LOWER) to = v128.bitselect(u, f, f32x4.le(u, f));
    else to = f;
    if (weights == 0) {
      v128.store(under + k, v128.bitselect(to, u, there));
      continue;
    }
    const w = v128.load(weights + k);
    const mixed = f32x4.add(f32x4.mul(v128.and(u, filled), f32x4.sub(one, w)), f32x4.mul(to, w));
    const counts = v128.and(there, f32x4.gt(w, zero));
    v128.store(under + k, v128.bitselect(v128.bitselect(to, mixed, f32x4.ge(w, one)), u, counts));
  }
}

// Sums over square windows of 2 r + 1 nodes. What is summed of a column of nodes lies side by side, in pairs; a window that moves on by
// a node takes in a column and leaves one behind. Beyond the ends of a row there is room for columns in which there is nothing:
//
//        | nothing, r + 1 |  column 0  |  column 1 | ...  | nothing, r |
//                            how many, sum, sum, (sum, sum, nothing)

function pair(a: f64, b: f64): v128 {
  return f64x2.replace_lane(f64x2.splat(a), 1, b);
}
function grow(at: usize, by: v128): void {
  v128.store(at, f64x2.add(v128.load(at), by));
}

/** Adds what there is of a row to the columns, or takes it off: `sense` -1. */
function takeOwn(z: usize, cols: i32, sense: f64, columns: usize): void {
  for (let c = 0; c < cols; c++) {
    const h = <f64>load<f32>(z + ((<usize>c) << 2));
    if (h != h) continue;
    const at = columns + ((<usize>c) << 5);
    grow(at, pair(sense, sense * h));
    store<f64>(at, load<f64>(at, 16) + sense * h * h, 16);
  }
}

function takeBoth(z: usize, g: usize, cols: i32, sense: f64, columns: usize): void {
  for (let c = 0; c < cols; c++) {
    const h = <f64>load<f32>(z + ((<usize>c) << 2));
    if (h != h) continue;
    const guide = <f64>load<f32>(g + ((<usize>c) << 2));
    const at = columns + <usize>(c * 48);
    grow(at, pair(sense, sense * h));
    grow(at + 16, pair(sense * guide, sense * guide * guide));
    store<f64>(at, load<f64>(at, 32) + sense * guide * h, 32);
  }
}

function takeLines(z: usize, a: usize, b: usize, cols: i32, sense: f64, columns: usize): void {
  for (let c = 0; c < cols; c++) {
    const k = (<usize>c) << 2;
    const h = load<f32>(z + k);
    if (h != h) continue;
    const at = columns + ((<usize>c) << 5);
    grow(at, pair(sense, sense * <f64>load<f32>(a + k)));
    store<f64>(at, load<f64>(at, 16) + sense * <f64>load<f32>(b + k), 16);
  }
}

/** Lines of windows of heights that guide themselves: slopes to `a`, what is added to `b`. `room`: for the columns, nothing in it. */
export function ownLines(z: usize, cols: i32, rows: i32, r: i32, eps: f64, a: usize, b: usize, room: usize): void {
  const columns = room + ((<usize>(r + 1)) << 5);
  const pitch = (<usize>cols) << 2;
  const ahead = (<usize>r) << 5;
  const behind = (<usize>(r + 1)) << 5;
  for (let row = -r; row < rows; row++) {
    if (row + r < rows) takeOwn(z + <usize>(row + r) * pitch, cols, 1, columns);
    if (row - r > 0) takeOwn(z + <usize>(row - r - 1) * pitch, cols, -1, columns);
    if (row < 0) continue;
    let s0 = f64x2.splat(0);
    let s1: f64 = 0;
    for (let c = 0; c < r; c++) {
      const at = columns + ((<usize>c) << 5);
      if (c >= cols) break;
      s0 = f64x2.add(s0, v128.load(at));
      s1 += load<f64>(at, 16);
    }
    const to = <usize>row * pitch;
    for (let c = 0; c < cols; c++) {
      const at = columns + ((<usize>c) << 5);
      s0 = f64x2.add(s0, f64x2.sub(v128.load(at + ahead), v128.load(at - behind)));
      s1 += load<f64>(at + ahead, 16) - load<f64>(at - behind, 16);
      const w = 1 / f64x2.extract_lane(s0, 0);
      const mean = f64x2.extract_lane(s0, 1) * w;
      const varies = max<f64>(0, s1 * w - mean * mean);
      const slope = varies / (varies + eps);
      const k = to + ((<usize>c) << 2);
      store<f32>(a + k, <f32>slope);
      store<f32>(b + k, <f32>(mean - slope * mean));
    }
  }
}

/** The same of heights that others guide. */
export function lines(
  z: usize,
  g: usize,
  cols: i32,
  rows: i32,
  r: i32,
  eps: f64,
  a: usize,
  b: usize,
  room: usize,
): void {
  const columns = room + <usize>((r + 1) * 48);
  const pitch = (<usize>cols) << 2;
  const ahead = <usize>(r * 48);
  const behind = <usize>((r + 1) * 48);
  for (let row = -r; row < rows; row++) {
    if (row + r < rows) takeBoth(z + <usize>(row + r) * pitch, g + <usize>(row + r) * pitch, cols, 1, columns);
    if (row - r > 0) takeBoth(z + <usize>(row - r - 1) * pitch, g + <usize>(row - r - 1) * pitch, cols, -1, columns);
    if (row < 0) continue;
    let s0 = f64x2.splat(0);
    let s1 = s0;
    let s2: f64 = 0;
    for (let c = 0; c < r; c++) {
      const at = columns + <usize>(c * 48);
      if (c >= cols) break;
      s0 = f64x2.add(s0, v128.load(at));
      s1 = f64x2.add(s1, v128.load(at, 16));
      s2 += load<f64>(at, 32);
    }
    const to = <usize>row * pitch;
    for (let c = 0; c < cols; c++) {
      const at = columns + <usize>(c * 48);
      s0 = f64x2.add(s0, f64x2.sub(v128.load(at + ahead), v128.load(at - behind)));
      s1 = f64x2.add(s1, f64x2.sub(v128.load(at + ahead, 16), v128.load(at - behind, 16)));
      s2 += load<f64>(at + ahead, 32) - load<f64>(at - behind, 32);
      const w = 1 / f64x2.extract_lane(s0, 0);
      const mean = f64x2.extract_lane(s0, 1) * w;
      const guide = f64x2.extract_lane(s1, 0) * w;
      const varies = max<f64>(0, f64x2.extract_lane(s1, 1) * w - guide * guide);
      const slope = (s2 * w - guide * mean) / (varies + eps);
      const k = to + ((<usize>c) << 2);
      store<f32>(a + k, <f32>slope);
      store<f32>(b + k, <f32>(mean - slope * guide));
    }
  }
}

/** What comes of the means of lines over windows where they are guided; empty nodes stay so. */
export function means(
  z: usize,
  g: usize,
  cols: i32,
  rows: i32,
  r: i32,
  a: usize,
  b: usize,
  out: usize,
  room: usize,
): void {
  const columns = room + ((<usize>(r + 1)) << 5);
  const pitch = (<usize>cols) << 2;
  const ahead = (<usize>r) << 5;
  const behind = (<usize>(r + 1)) << 5;
  for (let row = -r; row < rows; row++) {
    let at = <usize>(row + r) * pitch;
    if (row + r < rows) takeLines(z + at, a + at, b + at, cols, 1, columns);
    at = <usize>(row - r - 1) * pitch;
    if (row - r > 0) takeLines(z + at, a + at, b + at, cols, -1, columns);
    if (row < 0) continue;
    let s0 = f64x2.splat(0);
    let s1: f64 = 0;
    for (let c = 0; c < r; c++) {
      const at = columns + ((<usize>c) << 5);
      if (c >= cols) break;
      s0 = f64x2.add(s0, v128.load(at));
      s1 += load<f64>(at, 16);
    }
    const to = <usize>row * pitch;
    for (let c = 0; c < cols; c++) {
      const at = columns + ((<usize>c) << 5);
      s0 = f64x2.add(s0, f64x2.sub(v128.load(at + ahead), v128.load(at - behind)));
      s1 += load<f64>(at + ahead, 16) - load<f64>(at - behind, 16);
      const k = to + ((<usize>c) << 2);
      const h = load<f32>(z + k);
      const sum = f64x2.extract_lane(s0, 1) * <f64>load<f32>(g + k) + s1;
      store<f32>(out + k, h == h ? <f32>(sum / f64x2.extract_lane(s0, 0)) : f32.NaN);
    }
  }
}
