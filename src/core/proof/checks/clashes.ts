import type { Collision } from '../simulate';
import { nameOf } from './worst';
import type { CheckInput, Finding } from '../check';

/** The deepest clash of a kind in each cut, as one finding. */
export function deepest(
  input: CheckInput,
  kind: Collision['kind'],
  word: (c: Collision, count: number, cutName: string) => string,
): Finding[] {
  const byCut = new Map<string | null, { worst: Collision; count: number }>();
  for (const c of input.collisions) {
    if (c.kind !== kind) continue;
    const b = byCut.get(c.cutId);
    if (!b) byCut.set(c.cutId, { worst: c, count: 1 });
    else {
      b.count++;
      if (c.depth > b.worst.depth) b.worst = c;
    }
  }
  return [...byCut].map(([cutId, { worst, count }]) => ({
    check: kind === 'rapid' ? 'rapids' : 'shank',
    text: word(worst, count, nameOf(input, cutId)),
    cutId,
    x: worst.x,
    y: worst.y,
  }));
}
