/**
 * Orders pieces of work so that the air moves between them are short: nearest neighbour, then 2-opt
 * on the open tour (Croes 1958). Each piece has an entry and an exit point; pieces are not reversed.
 */
export interface Piece {
  inX: number;
  inY: number;
  outX: number;
  outY: number;
}

export function orderPieces(pieces: readonly Piece[], startX: number, startY: number): number[] {
  const n = pieces.length;
  const left = new Set(pieces.map((_, i) => i));
  const tour: number[] = [];
  let x = startX;
  let y = startY;
  while (left.size) {
    let best = -1;
    let bestD = Infinity;
    for (const i of left) {
      const d = (pieces[i].inX - x) ** 2 + (pieces[i].inY - y) ** 2;
      if (d < bestD) {
        bestD = d;
        best = i;
      }
    }
    left.delete(best);
    tour.push(best);
    x = pieces[best].outX;
    y = pieces[best].outY;
  }
  if (n > 1500) return tour;
  // Or-opt: move one piece to a better place; safe for pieces with a direction.
  const gap = (a: number, b: number): number => {
    const ox = a < 0 ? startX : pieces[a].outX;
    const oy = a < 0 ? startY : pieces[a].outY;
    return b < 0 ? 0 : Math.hypot(pieces[b].inX - ox, pieces[b].inY - oy);
  };
  for (let round = 0, better = true; better && round < 8; round++) {
    better = false;
    for (let i = 0; i < n; i++) {
      const p = tour[i];
      const a = i > 0 ? tour[i - 1] : -1;
      const b = i + 1 < n ? tour[i + 1] : -1;
      const saved = gap(a, p) + (b >= 0 ? gap(p, b) - gap(a, b) : 0);
      let to = -1;
      let gain = 1e-6;
      for (let j = -1; j < n; j++) {
        if (j === i || j === i - 1) continue;
        const c = j >= 0 ? tour[j] : -1;
        const d = j + 1 < n ? tour[j + 1] : -1;
        const cost = gap(c, p) + (d >= 0 ? gap(p, d) - gap(c, d) : 0);
        if (saved - cost > gain) {
          gain = saved - cost;
          to = j;
        }
      }
      if (to === -1 && gain === 1e-6) continue;
      tour.splice(i, 1);
      tour.splice(to < i ? to + 1 : to, 0, p);
      better = true;
    }
  }
  return tour;
}
