import type { Check } from '../check';

/** What the planners themselves could not do. */
export const planned: Check = {
  id: 'planned',
  name: 'Every cut could be planned',
  run: ({ job, plans }) =>
    job.cuts
      .filter((c) => c.enabled)
      .flatMap((c) =>
        (plans.get(c.id)?.remarks ?? [])
          .filter((r) => r.level === 'problem')
          .map((r) => ({
            check: 'planned',
            text: `${c.name}: ${r.text}`,
            cutId: c.id,
            x: r.x ?? null,
            y: r.y ?? null,
            mend: r.mend,
          })),
      ),
};
