import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { append } from '../../units/append';
import { contains, type Region } from '../../geometry/region';

/**
 * The parts of a closed loop (x, y interleaved) that come within `reach` mm of a region, as open lines in the loop's own sense,
 * or null when all of it does. No point within reach is left out; ends lie at most `slack` mm beyond. Method: marching with
 * steps that the distance allows (a distance changes no faster than the place), never shorter than half the slack.
 */
export function partsNear(region: Region, reach: number, slack: number): (loop: Float64Array) => Float64Array[] | null {
  const outline = makeSegmentIndex(region);
  const far = reach + slack;
  return (loop) => {
    const n = loop.length / 2;
    // Whether the last place lay inside the region, and how far it was from the outline: a shorter step changes nothing.
    let inside = false;
    let sure = 0;
    let moved = Infinity;
    /** By how far the place is out of reach, or, negative, how far it may be moved and still be within. */
    const beyond = (x: number, y: number): number => {
      const d = Math.min(outline.distance(x, y, 3 * far), 3 * far);
      if (d <= far) {
        moved = Infinity;
        return d - far;
      }
      if (!(moved < sure)) inside = contains(region, x, y);
      sure = d;
      moved = 0;
      return inside ? -d - far : d - far;
    };
    const parts: { points: number[]; first: boolean }[] = [];
    let part: { points: number[]; first: boolean } | null = null;
    let out = false;
    for (let i = 0; i < n; i++) {
      const [ax, ay] = [loop[2 * i], loop[2 * i + 1]];
      const [bx, by] = [loop[(2 * i + 2) % loop.length], loop[(2 * i + 3) % loop.length]];
      const length = Math.hypot(bx - ax, by - ay);
      for (let s = 0; s < length || s === 0;) {
        const f = length > 0 ? s / length : 0;
        const [x, y] = [ax + (bx - ax) * f, ay + (by - ay) * f];
        const away = beyond(x, y);
        if (away > 0) {
          out = true;
          if (part) part.points.push(x, y);
          part = null;
        } else {
          if (!part) parts.push((part = { points: [], first: i === 0 && s === 0 }));
          part.points.push(x, y);
        }
        const step = Math.max(Math.abs(away) * 0.999, slack / 2);
        moved += Math.min(step, length - s);
        s += step;
        if (length === 0) break;
      }
    }
    if (!out) return null;
    const [head] = parts;
    // What runs through the loop's own start is one part.
    if (part && head?.first && head !== part) {
      append(part.points, head.points);
      parts.shift();
    } else if (part) part.points.push(loop[0], loop[1]);
    return parts.map((p) => Float64Array.from(p.points)).filter((p) => p.length >= 4);
  };
}
