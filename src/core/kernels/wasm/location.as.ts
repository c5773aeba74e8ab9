// Cutter location, sixteen points at once. AssemblyScript: made into `../locationModule.ts` by `npm run kernels`.
//
// The height at which a cutter stands over a point is the greatest of (surface - outline of the cutter) over all nodes that it
// covers. The outline is the same to all four sides, so of the rows y + dj and y - dj the greater heights are taken first, then of
// the columns x + di and x - di, and one subtraction serves four nodes. Points lie `STEP` columns apart; so that those of a row lie
// side by side in memory, each row is kept in as many planes:
//
//        columns   0 1 2 3 4 5 6 7 ...        plane 0   0 3 6 ...      a point's own column, and those +-3, +-6 beside it
//        STEP = 3  ^     ^     ^              plane 1   1 4 7 ...      those 1, 4 ... to the right, 2, 5 ... to the left
//                  points                     plane 2   2 5 8 ...      the other way round
//
// A pair of rows in which nothing is high enough to raise the lowest of the sixteen is passed over; of others only so much is
// looked at as could. Single floats throughout: a difference of two that are rounded once is the greatest difference rounded once.

// The surface: address of its planes, floats in a row of a plane and before its first column, rows; and the greatest height of each
// run of eight places of a row over all planes, with as many runs before the first place as there are floats before it, by eights.
let PLANES: usize = 0;
let PITCH: i32 = 0;
let PAD: i32 = 0;
let STEP: i32 = 1;
let ROWS: i32 = 0;
let RUNS: usize = 0;

// The cutter: heights of its outline over (di, dj), K + 1 a row; how far it reaches in row dj; how many rows.
let TABLE: usize = 0;
let REACH: usize = 0;
let K: i32 = 0;
/** Room for the greater heights of two rows: a row of each plane. */
let ROOM: usize = 0;

/** Lower than everything. */
const NOTHING: f32 = -1e9;

export function setSurface(planes: usize, pitch: i32, pad: i32, step: i32, rows: i32, runs: usize): void {
  PLANES = planes;
  PITCH = pitch;
  PAD = pad;
  STEP = step;
  ROWS = rows;
  RUNS = runs;
}

export function setCutter(table: usize, reach: usize, k: i32, room: usize): void {
  TABLE = table;
  REACH = reach;
  K = k;
  ROOM = room;
}

/** The greatest height of two rows between two places of theirs. */
function greatest(a: i32, b: i32, from: i32, to: i32): f32 {
  const width = PITCH >> 3;
  const first = (from + PAD) >> 3;
  const last = (to + PAD) >> 3;
  const pa = RUNS + ((<usize>(a * width)) << 2);
  const pb = RUNS + ((<usize>(b * width)) << 2);
  let most = NOTHING;
  for (let c = first; c <= last; c++) {
    const at = (<usize>c) << 2;
    most = max(most, max(load<f32>(pa + at), load<f32>(pb + at)));
  }
  return most;
}

/** Heights over the first `points` places of a row, to `out`: sixteen at a time, so that some beyond are written too. */
export function locate(out: usize, row: i32, points: i32): void {
  const plane = (<usize>(ROWS * PITCH)) << 2;
  const room = (<usize>PITCH) << 2;
  for (let p = 0; p < points; p += 16) {
    let z0 = f32x4.splat(NOTHING);
    let z1 = z0;
    let z2 = z0;
    let z3 = z0;
    let least: f32 = NOTHING;
    for (let dj = 0; dj <= K; dj++) {
      const below = row - dj;
      const above = row + dj;
      if (below < 0 && above >= ROWS) break;
      const a = below < 0 ? above : below;
      const b = above >= ROWS ? below : above;
      let reach = load<i32>(REACH + ((<usize>dj) << 2));
      if (reach < 0) break;
      const outline = TABLE + ((<usize>(dj * (K + 1))) << 2);
      let half = (reach + STEP - 1) / STEP;
      const most = greatest(a, b, p - half, p + 15 + half);
      if (most - load<f32>(outline) <= least) continue;
      // The outline rises outwards: beyond here it raises none of them either.
      while (most - load<f32>(outline + ((<usize>reach) << 2)) <= least) reach--;
      half = (reach + STEP - 1) / STEP;
      const from = (<usize>(PAD + p - half)) << 2;
      const bytes = (<usize>(16 + 2 * half)) << 2;
      const rowA = PLANES + ((<usize>(a * PITCH)) << 2) + from;
      const rowB = PLANES + ((<usize>(b * PITCH)) << 2) + from;
      const planes = min(STEP, reach + 1);
      // The planes that are reached: 0, 1 ... to the right, STEP - 1, STEP - 2 ... to the left.
      for (let q = 0; q < STEP; q++) {
        if (q >= planes && STEP - q >= planes) continue;
        const pa = rowA + <usize>q * plane;
        const pb = rowB + <usize>q * plane;
        const to = ROOM + <usize>q * room;
        for (let c: usize = 0; c < bytes; c += 16) v128.store(to + c, f32x4.pmax(v128.load(pa + c), v128.load(pb + c)));
      }

      const middle = ROOM + ((<usize>half) << 2);
      let t = v128.load32_splat(outline);
      z0 = f32x4.pmax(z0, f32x4.sub(v128.load(middle), t));
      z1 = f32x4.pmax(z1, f32x4.sub(v128.load(middle, 16), t));
      z2 = f32x4.pmax(z2, f32x4.sub(v128.load(middle, 32), t));
      z3 = f32x4.pmax(z3, f32x4.sub(v128.load(middle, 48), t));
      let q = 0;
      let right = middle;
      let left = middle;
      for (let d = 1; d <= reach; d++) {
        if (q == 0) left -= 4;
        if (++q == STEP) {
          q = 0;
          right += 4;
        }
        const r = right + <usize>q * room;
        const other: i32 = q ? STEP - q : 0;
        const l = left + <usize>other * room;
        t = v128.load32_splat(outline + ((<usize>d) << 2));
        z0 = f32x4.pmax(z0, f32x4.sub(f32x4.pmax(v128.load(l), v128.load(r)), t));
        z1 = f32x4.pmax(z1, f32x4.sub(f32x4.pmax(v128.load(l, 16), v128.load(r, 16)), t));
        z2 = f32x4.pmax(z2, f32x4.sub(f32x4.pmax(v128.load(l, 32), v128.load(r, 32)), t));
        z3 = f32x4.pmax(z3, f32x4.sub(f32x4.pmax(v128.load(l, 48), v128.load(r, 48)), t));
      }
      const m = f32x4.pmin(f32x4.pmin(z0, z1), f32x4.pmin(z2, z3));
      least = min(
        min(f32x4.extract_lane(m, 0), f32x4.extract_lane(m, 1)),
        min(f32x4.extract_lane(m, 2), f32x4.extract_lane(m, 3)),
      );
    }
    const to = out + ((<usize>p) << 2);
    v128.store(to, z0);
    v128.store(to, z1, 16);
    v128.store(to, z2, 32);
    v128.store(to, z3, 48);
  }
}
