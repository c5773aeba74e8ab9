import { boxOfLoop, contains, type Region } from './region';

/** Whether the straight way from a to b, both inside a region or on its outline, stays inside: it does not bridge a bay either. */
export const staysInside = (region: Region, ax: number, ay: number, bx: number, by: number): boolean =>
  clearWay(region, ax, ay, bx, by) && contains(region, (ax + bx) / 2, (ay + by) / 2);

/** Whether the straight way from a to b meets no outline of the region (its ends are taken to be inside). */
export function clearWay(region: Region, ax: number, ay: number, bx: number, by: number): boolean {
  const ex = bx - ax;
  const ey = by - ay;
  const [x0, x1] = ax < bx ? [ax, bx] : [bx, ax];
  const [y0, y1] = ay < by ? [ay, by] : [by, ay];
  for (const l of region) {
    const b = boxOfLoop(l);
    if (b.x0 > x1 || b.x1 < x0 || b.y0 > y1 || b.y1 < y0) continue;
    const n = l.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      const s0 = ex * (l[j + 1] - ay) - ey * (l[j] - ax);
      const s1 = ex * (l[i + 1] - ay) - ey * (l[i] - ax);
      if (s0 > 0 === s1 > 0) continue;
      const fx = l[i] - l[j];
      const fy = l[i + 1] - l[j + 1];
      const t0 = fx * (ay - l[j + 1]) - fy * (ax - l[j]);
      const t1 = fx * (by - l[j + 1]) - fy * (bx - l[j]);
      // Touching at an end (a way that starts on the outline) is no crossing.
      const slack = 1e-4 * Math.hypot(fx, fy);
      if ((t0 > slack && t1 < -slack) || (t0 < -slack && t1 > slack)) return false;
    }
  }
  return true;
}
