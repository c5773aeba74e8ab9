import type { RoutePiece } from '../src/core/motion/order';

/**
 * Order of travel by simulated annealing (Kirkpatrick, Gelatt, Vecchi 1983): a solver of the bench's own, which shares nothing
 * with the product's. Moves: a run of one to three pieces goes elsewhere, a stretch is turned round, a closed piece begins
 * elsewhere. Cools for so many seconds; returns the air way in mm from (0, 0), never breaking "this before that".
 */
export function annealed(pieces: readonly RoutePiece[], seconds: number, seed = 1): number {
  const n = pieces.length;
  let state = seed >>> 0;
  const random = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
  const pick = (k: number) => Math.floor(random() * k);
  const ix = Float64Array.from(pieces, (p) => p.inX);
  const iy = Float64Array.from(pieces, (p) => p.inY);
  const ox = Float64Array.from(pieces, (p) => p.outX);
  const oy = Float64Array.from(pieces, (p) => p.outY);
  const loops = pieces.map((p) => !!p.starts || (p.inX === p.outX && p.inY === p.outY));
  const turns = pieces.map((p, i) => loops[i] || p.reversible === true);
  const holder = pieces.map((p) => p.before ?? -1);
  const held: number[][] = pieces.map(() => []);
  holder.forEach((h, i) => h >= 0 && held[h].push(i));
  const near = neighbours(pieces, 10);

  // To begin with: strips to and fro, what is held before what holds it.
  const strip = 12;
  const order = [...pieces.keys()].sort((a, b) => {
    const [ra, rb] = [Math.floor(iy[a] / strip), Math.floor(iy[b] / strip)];
    return ra - rb || (ra % 2 ? ix[b] - ix[a] : ix[a] - ix[b]);
  });
  const seq: number[] = [];
  const seen = new Uint8Array(n);
  const put = (p: number) => {
    if (seen[p]) return;
    seen[p] = 1;
    held[p].forEach(put);
    seq.push(p);
  };
  order.forEach(put);
  const pos = new Int32Array(n);
  seq.forEach((p, i) => (pos[p] = i));

  const leave = (i: number): [number, number] => (i < 0 ? [0, 0] : [ox[seq[i]], oy[seq[i]]]);
  const way = (i: number, j: number): number => {
    if (j >= n) return 0;
    const [x, y] = leave(i);
    return Math.hypot(ix[seq[j]] - x, iy[seq[j]] - y);
  };
  const turn = (p: number) => {
    if (loops[p]) return;
    [ix[p], ox[p]] = [ox[p], ix[p]];
    [iy[p], oy[p]] = [oy[p], iy[p]];
  };
  const length = () => {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += way(i - 1, i);
    return sum;
  };
  const renumber = (from: number, to: number) => {
    for (let i = from; i <= to; i++) pos[seq[i]] = i;
  };
  let now = length();
  let best = now;
  const mean = now / n;
  const begin = performance.now();
  let heat = mean;
  const takes = (delta: number) => delta < 0 || random() < Math.exp(-delta / heat);
  for (let step = 0; ; step++) {
    if ((step & 1023) === 0) {
      const share = (performance.now() - begin) / 1000 / seconds;
      if (share >= 1) break;
      heat = mean * 0.5 * 0.004 ** share;
    }
    const kind = random();
    const a = pick(n);
    if (kind < 0.15) {
      const p = seq[a];
      const starts = pieces[p].starts;
      if (!starts) continue;
      const s = 2 * pick(starts.length / 2);
      const [px, py] = leave(a - 1);
      const after = a + 1 < n ? seq[a + 1] : -1;
      const cost = (x: number, y: number) =>
        Math.hypot(x - px, y - py) + (after >= 0 ? Math.hypot(ix[after] - x, iy[after] - y) : 0);
      const delta = cost(starts[s], starts[s + 1]) - cost(ix[p], iy[p]);
      if (!takes(delta)) continue;
      ix[p] = ox[p] = starts[s];
      iy[p] = oy[p] = starts[s + 1];
      now += delta;
    } else if (kind < 0.6) {
      // A stretch between the piece after a and a neighbour of a is turned round.
      const b = pos[near[seq[a]][pick(near[seq[a]].length)]];
      const [i, j] = a < b ? [a + 1, b] : [b, a - 1];
      if (j <= i || j - i > 1000) continue;
      let ok = true;
      for (let k = i; k <= j && ok; k++)
        ok = turns[seq[k]] && !(holder[seq[k]] >= 0 && pos[holder[seq[k]]] <= j && pos[holder[seq[k]]] >= i);
      if (!ok) continue;
      const before = way(i - 1, i) + way(j, j + 1);
      const [lx, ly] = leave(i - 1);
      const [p, q] = [seq[i], seq[j]];
      const after =
        Math.hypot(ox[q] - lx, oy[q] - ly) +
        (j + 1 < n ? Math.hypot(ix[seq[j + 1]] - ix[p], iy[seq[j + 1]] - iy[p]) : 0);
      if (!takes(after - before)) continue;
      for (let k = i, m = j; k < m; k++, m--) [seq[k], seq[m]] = [seq[m], seq[k]];
      for (let k = i; k <= j; k++) turn(seq[k]);
      renumber(i, j);
      now += after - before;
    } else {
      // A short run goes behind a neighbour of its first piece.
      const size = 1 + pick(3);
      const [i, j] = [a, a + size - 1];
      if (j >= n) continue;
      const t = pos[near[seq[i]][pick(near[seq[i]].length)]];
      if (t >= i - 1 && t <= j) continue;
      let ok = true;
      for (let k = i; k <= j && ok; k++)
        ok =
          t > j
            ? !(holder[seq[k]] >= 0 && pos[holder[seq[k]]] > j && pos[holder[seq[k]]] <= t)
            : held[seq[k]].every((c) => pos[c] <= t || pos[c] >= i);
      if (!ok) continue;
      const flip =
        random() < 0.5 &&
        seq.slice(i, j + 1).every((p) => turns[p] && !(holder[p] >= 0 && pos[holder[p]] >= i && pos[holder[p]] <= j));
      const [first, last] = [seq[i], seq[j]];
      const [hx, hy, tx, ty] = flip
        ? [ox[last], oy[last], ix[first], iy[first]]
        : [ix[first], iy[first], ox[last], oy[last]];
      const [gx, gy] = leave(t);
      const [bx, by] = leave(i - 1);
      const gap = j + 1 < n ? Math.hypot(ix[seq[j + 1]] - bx, iy[seq[j + 1]] - by) : 0;
      const next = t + 1 < n ? seq[t + 1] : -1;
      const delta =
        gap -
        way(i - 1, i) -
        way(j, j + 1) +
        Math.hypot(hx - gx, hy - gy) +
        (next >= 0 ? Math.hypot(ix[next] - tx, iy[next] - ty) : 0) -
        (next >= 0 ? way(t, t + 1) : 0);
      if (!takes(delta)) continue;
      const run = seq.splice(i, size);
      if (flip) {
        run.reverse();
        run.forEach(turn);
      }
      const to = t > j ? t - size + 1 : t + 1;
      seq.splice(to, 0, ...run);
      renumber(Math.min(i, to), Math.max(j, to + size - 1));
      now += delta;
    }
    if (now < best - 1e-9) best = now;
  }
  // Sums drift by rounding: the last order is measured anew, and the best seen is held to it.
  const measured = length();
  for (let i = 0; i < n; i++)
    if (holder[i] >= 0 && pos[holder[i]] < pos[i]) throw new Error('The annealing has broken an order.');
  return Math.abs(measured - now) < 1e-3 * measured ? Math.min(best, measured) : measured;
}

/** The pieces whose first places are nearest to each one's. */
function neighbours(pieces: readonly RoutePiece[], count: number): number[][] {
  const cell = 15;
  const key = (x: number, y: number) => `${Math.floor(x / cell)},${Math.floor(y / cell)}`;
  const grid = new Map<string, number[]>();
  pieces.forEach((p, i) => grid.set(key(p.inX, p.inY), [...(grid.get(key(p.inX, p.inY)) ?? []), i]));
  return pieces.map((p, i) => {
    const found: { k: number; d: number }[] = [];
    for (let r = 1; r <= 4 && found.length < count; r++) {
      found.length = 0;
      for (let dx = -r; dx <= r; dx++)
        for (let dy = -r; dy <= r; dy++)
          for (const k of grid.get(key(p.inX + dx * cell, p.inY + dy * cell)) ?? [])
            if (k !== i)
              found.push({
                k,
                d: Math.min(
                  Math.hypot(pieces[k].inX - p.outX, pieces[k].inY - p.outY),
                  Math.hypot(pieces[k].outX - p.outX, pieces[k].outY - p.outY),
                ),
              });
    }
    return found
      .sort((a, b) => a.d - b.d)
      .slice(0, count)
      .map((f) => f.k);
  });
}
