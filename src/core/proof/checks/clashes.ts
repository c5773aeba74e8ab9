import type { Clash } from '../simulate';
import type { CheckInput, Finding } from '../check';

/** The deepest clash of a kind in each cut, as one finding. */
export function deepest(input: CheckInput, kind: Clash['kind'], word: (c: Clash, count: number) => string): Finding[] {
  const byCut = new Map<string, { worst: Clash; count: number }>();
  for (const c of input.clashes) {
    if (c.kind !== kind) continue;
    const b = byCut.get(c.cutName);
    if (!b) byCut.set(c.cutName, { worst: c, count: 1 });
    else {
      b.count++;
      if (c.depth > b.worst.depth) b.worst = c;
    }
  }
  return [...byCut].map(([name, { worst, count }]) => ({ check: kind === 'rapid' ? 'rapids' : 'shank', text: word(worst, count), cutId: input.job.cuts.find((c) => c.name === name)?.id ?? null, x: worst.x, y: worst.y }));
}
