import { freeName, withNewSetup } from './allSetups';
import type { BlankPiece, Cut, Setup, Job } from './job';
import { withLinks } from './linked';

/** A cut of one half, before it is among those of a set-up. */
export type HalfCut = Pick<Cut, 'name' | 'kind' | 'values'> & Partial<Pick<Cut, 'overrides'>>;
/** What is made of two halves; ids of the cuts, and of the set-up that is new. */
export interface MadePair {
  readonly job: Job;
  readonly pocket: string;
  readonly plug: string;
  readonly setup: string;
}

/** What the second half is called, and what of it is not as it is of the first. */
export interface SecondHalf {
  readonly name: string;
  readonly blank: Partial<BlankPiece>;
  /** See Setup.fits. */
  readonly sheet?: number;
}

/**
 * Adds both halves of a pair of items of a set-up: a cut for the pocket there, and one for what goes into it in a set-up behind it,
 * on a blank of its own that is like the pocket's but for what is said; its artwork is linked, and lies mirrored.
 */
export function withPair(
  job: Job,
  into: string,
  itemIds: readonly string[],
  halves: { readonly pocket: HalfCut; readonly plug: HalfCut; readonly second: SecondHalf },
  freshId: () => string,
): MadePair {
  const cut = (half: HalfCut, items: string[]): Cut => ({
    ...{ id: freshId(), enabled: true, items, overrides: {} },
    ...half,
  });
  const made = withNewSetup(job, into, 'blank', freshId);
  const source = made.job.setups.find((s) => s.id === into)!;
  const { second } = halves;
  const fits = { setup: into, turned: 'y' as const, ...(second.sheet ? { sheet: second.sheet } : {}) };
  const own = made.job.setups.find((s) => s.id === made.id)!;
  const setupName = freeName(
    `${source.name}, ${second.name[0].toLowerCase()}${second.name.slice(1)}`.slice(0, 190),
    job.setups,
  );
  const named = (s: Setup): Setup => ({ ...s, name: setupName, fits });
  const turned: Job = {
    ...made.job,
    blanks: made.job.blanks.map((b) =>
      b.id === own.blank ? { ...b, name: freeName(second.name, job.blanks), ...second.blank } : b,
    ),
    setups: made.job.setups.map((s) => (s.id === made.id ? named(s) : s)),
  };
  const items = source.items.filter((i) => itemIds.includes(i.id));
  const linked = withLinks(turned, made.id, items, freshId);
  const pocket = cut(
    halves.pocket,
    items.map((i) => i.id),
  );
  const plug = cut(halves.plug, linked.ids);
  const cuts = new Map([
    [into, pocket],
    [made.id, plug],
  ]);
  const setups = linked.job.setups.map((s) => (cuts.has(s.id) ? { ...s, cuts: [...s.cuts, cuts.get(s.id)!] } : s));
  return { job: { ...linked.job, setups }, pocket: pocket.id, plug: plug.id, setup: made.id };
}

/** Two halves of a job, of an inlay or dies: the set-up of a pocket, that of what goes into it, and the cuts that they are made by. */
export interface Pair {
  readonly pocket: string;
  readonly plug: string;
  readonly turned: 'x' | 'y';
  readonly pocketCut: string;
  readonly plugCut: string;
  /** Whether its walls lean or are upright. */
  readonly walls: 'leaning' | 'upright';
  /** Thickness of the sheet between dies, mm; none between the halves of an inlay. */
  readonly sheet?: number;
}

/** By what kinds of cut a pocket, and what goes into it, are made. */
const isPlug = (c: Cut, dies: boolean) =>
  c.kind === 'profile'
    ? !dies && c.values.side === 'outside'
    : (c.kind === 'vcarve' || (dies && c.kind === 'area')) && c.values.side === 'around';
const isPocketOf = (c: Cut, plug: Cut) =>
  c.kind === (plug.kind === 'vcarve' ? 'vcarve' : 'area') && c.values.side === 'inside';

/** The pairs of a job that have both halves, and of those that have not what is missing. */
export function pairsOf(job: Job): {
  readonly pairs: Pair[];
  readonly missing: Readonly<Record<string, string>>;
} {
  const pairs: Pair[] = [];
  const missing: Record<string, string> = {};
  for (const s of job.setups) {
    if (!s.fits) continue;
    const into = job.setups.find((q) => q.id === s.fits!.setup);
    const dies = s.fits.sheet !== undefined;
    /** A pocket is that of the outlines that its plug follows. */
    const follows = (c: Cut) =>
      new Set(s.items.filter((i) => c.items.includes(i.id)).map((i) => (i.values as { item?: string }).item ?? ''));
    const shares = (a: Cut, b: Cut) => a.items.some((i) => b.items.includes(i));
    // What else is cut round the outlines of a plug belongs to it: it may be roughed first, or cut free by a profile.
    const rank = (c: Cut) => ['vcarve', 'area', 'profile'].indexOf(c.kind);
    const plugs = s.cuts
      .filter((c) => c.enabled && isPlug(c, dies))
      .sort((p, q) => rank(p) - rank(q))
      .filter((c, k, all) => !all.slice(0, k).some((before) => shares(before, c)));
    const found = plugs.map((plug) => {
      const pockets = (into?.cuts ?? []).filter(
        (c) => isPocketOf(c, plug) && c.items.some((i) => follows(plug).has(i)),
      );
      return { plug, pocket: pockets.find((c) => c.enabled), isOff: pockets.length > 0 };
    });
    const alone = found.filter((p) => !p.pocket);
    // Of several a profile that has no pocket at all may be what cuts the plate free.
    const lacking = alone.length === plugs.length ? alone : alone.filter((p) => p.isOff || p.plug.kind !== 'profile');
    const thing = dies ? 'die' : 'plug';
    if (!plugs.length)
      missing[s.id] = dies
        ? 'No cut round outlines is on here: nothing is raised on this die.'
        : 'No V-carve round outlines, and no profile outside of them, is on here: there is no plug.';
    else if (lacking.length)
      missing[s.id] =
        `No cut of the outlines that ${plugs.length > 1 ? `"${lacking[0].plug.name}"` : `this ${thing}`} follows is on: there is no pocket for it.`;
    for (const { plug, pocket } of found)
      if (pocket)
        pairs.push({
          ...{ pocket: into!.id, plug: s.id, turned: s.fits.turned },
          ...{ pocketCut: pocket.id, plugCut: plug.id },
          walls: plug.kind === 'vcarve' || plug.values.wall ? 'leaning' : 'upright',
          ...(dies ? { sheet: s.fits.sheet } : {}),
        });
  }
  return { pairs, missing };
}
