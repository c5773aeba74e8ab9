import { clearWay } from '../../geometry/lines';
import { contains, type Region } from '../../geometry/region';
import type { Track } from './follow';

/** A way in begins so high above the surface, in shares of its length: it comes down at 45 degrees, and then less and less. */
const HEIGHT = 0.5;
/** A way in that bends is told by at least so many pieces. */
const PIECES = 8;

const raisedAt = (long: number, left: number): number => (HEIGHT * left * left) / long;

/**
 * Ways down to where lines over a surface begin, so long (mm), as seen from the side:
 *
 *     o                                          __..--o    where there is no room before it, it comes
 *      \_                                  ____''           back along the line, and then goes on
 *        `-.___
 *     _________o---> the line              o--->
 *
 * Both end along the surface. x, y, z interleaved. `step`: points of a way lie no further apart; `follow` follows the surface along it.
 */
export function leadsOver(
  region: Region,
  long: number,
  step: number,
  follow: (t: Track) => Float64Array,
): (line: Float64Array) => Float64Array {
  return (line) => ahead(line) ?? back(line, long);

  /** From before the line, in the direction in which it goes on; null where there is no room for it. */
  function ahead(p: Float64Array): Float64Array | null {
    const [x, y] = p;
    let i = 3;
    while (i < p.length && p[i] === x && p[i + 1] === y) i += 3;
    const d = Math.hypot(p[i] - x, p[i + 1] - y);
    if (!(d > 0)) return null;
    const [ux, uy] = [(p[i] - x) / d, (p[i + 1] - y) / d];
    const [x0, y0] = [x - long * ux, y - long * uy];
    if (!contains(region, x0, y0) || !clearWay(region, x0, y0, x, y)) return null;
    const n = Math.max(PIECES, Math.ceil(long / step));
    const points = new Float64Array(2 * n + 2);
    const raised = new Float64Array(n + 1);
    for (let k = 0; k <= n; k++) {
      const left = long * (1 - k / n);
      points.set([x - left * ux, y - left * uy], 2 * k);
      raised[k] = raisedAt(long, left);
    }
    return follow({ points, raised, closed: false, straight: false });
  }
}

/** Back along the line itself, as far as it goes. */
function back(p: Float64Array, long: number): Float64Array {
  const out: number[] = [];
  const put = (x: number, y: number, z: number, s: number) => out.unshift(x, y, z + raisedAt(long, s));
  let s = 0;
  put(p[0], p[1], p[2], 0);
  // A sum of parts may be a little less than the whole.
  for (let i = 3; i < p.length && s < long * (1 - 1e-9); i += 3) {
    const d = Math.hypot(p[i] - p[i - 3], p[i + 1] - p[i - 2]);
    const share = d > 0 ? Math.min(1, (long - s) / d) : 1;
    const n = Math.max(1, Math.ceil((PIECES * share * d) / long));
    for (let k = 1; k <= n; k++) {
      const t = (share * k) / n;
      put(
        p[i - 3] + (p[i] - p[i - 3]) * t,
        p[i - 2] + (p[i + 1] - p[i - 2]) * t,
        p[i - 1] + (p[i + 2] - p[i - 1]) * t,
        s + t * d,
      );
    }
    s += share * d;
  }
  return Float64Array.from(out);
}
