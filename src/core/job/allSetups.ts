import { noRelief } from '../relief/stack';
import { firstLayer, placingKeys, type Job, type Setup, type TurnedOver } from './job';
import { pick } from './oneSetup';

/** How a new set-up begins: on the blank of another one as that leaves it, turned over or as it lies, or on a blank of its own. */
export type Beginning = TurnedOver | 'blank';

/** A name that no other of a list has: "Back", "Back 2", and so on. */
export function freeName(name: string, taken: readonly { readonly name: string }[]): string {
  const names = new Set(taken.map((t) => t.name));
  for (let n = 1; ; n++) {
    const tried = n === 1 ? name : `${name} ${n}`;
    if (!names.has(tried)) return tried;
  }
}

/** Puts a set-up behind another one; nothing is drawn on it yet. */
export function withNewSetup(
  job: Job,
  after: string,
  begins: Beginning,
  freshId: () => string,
): { job: Job; id: string } {
  const at = job.setups.findIndex((s) => s.id === after);
  const source = job.setups[at];
  const id = freshId();
  const piece = job.blanks.find((b) => b.id === source.blank)!;
  const own = { ...piece, id: freshId(), name: freeName('Blank', job.blanks) };
  const word =
    begins === 'blank' || begins === 'none'
      ? `Set-up ${job.setups.length + 1}`
      : source.name === 'Front'
        ? 'Back'
        : `${source.name}, other face`;
  const setup: Setup = {
    id,
    name: freeName(word.slice(0, 190), job.setups),
    blank: begins === 'blank' ? own.id : source.blank,
    after: begins === 'blank' ? null : { setup: source.id, turned: begins },
    ...pick(source, placingKeys),
    clamps: [],
    guides: [],
    layers: [firstLayer()],
    groups: [],
    items: [],
    relief: noRelief(),
    cuts: [],
    casting: null,
  };
  const setups = [...job.setups.slice(0, at + 1), setup, ...job.setups.slice(at + 1)];
  return { job: { ...job, blanks: begins === 'blank' ? [...job.blanks, own] : job.blanks, setups }, id };
}

/** Puts a copy of a set-up behind it: with the same artwork and cuts, on the same blank or, where it begins with an uncut one, on another like it. */
export function withCopy(job: Job, id: string, freshId: () => string): { job: Job; id: string } {
  const at = job.setups.findIndex((s) => s.id === id);
  const source = job.setups[at];
  // Layers and groups are a set-up's own: their ids stay, so that artwork goes from one to the other.
  const ids = new Map([...source.items, ...source.cuts].map((v) => [v.id, freshId()]));
  /** Values with the ids in them made those of the copies. */
  const deep = (v: unknown): unknown => {
    if (typeof v === 'string') return ids.get(v) ?? v;
    if (Array.isArray(v)) return v.map(deep);
    return v && typeof v === 'object' ? Object.fromEntries(Object.entries(v).map(([k, q]) => [k, deep(q)])) : v;
  };
  const piece = job.blanks.find((b) => b.id === source.blank)!;
  const own = { ...piece, id: freshId(), name: freeName(piece.name, job.blanks) };
  const copy: Setup = {
    ...source,
    id: freshId(),
    name: freeName(`${source.name.slice(0, 180)} copy`, job.setups),
    blank: source.after ? source.blank : own.id,
    items: source.items.map((i) => ({ ...i, id: ids.get(i.id)! })),
    relief: { ...source.relief, forms: deep(source.relief.forms) as Setup['relief']['forms'] },
    cuts: source.cuts.map((c) => ({
      ...c,
      id: ids.get(c.id)!,
      items: c.items.map((i) => ids.get(i) ?? i),
      values: deep(c.values) as Setup['cuts'][number]['values'],
    })),
  };
  const setups = [...job.setups.slice(0, at + 1), copy, ...job.setups.slice(at + 1)];
  return { job: { ...job, blanks: source.after ? job.blanks : [...job.blanks, own], setups }, id: copy.id };
}

/** Those of which a picture shows the finished piece: what goes into another one is no such picture. */
export const pictured = (whole: Job): readonly Setup[] => whole.setups.filter((s) => !s.fits);

/** Set-ups that start from another one. */
export const startingFrom = (job: Job, id: string): Setup[] => job.setups.filter((s) => s.after?.setup === id);

/** A set-up that goes into no other. */
function withoutFit({ fits: _, ...s }: Setup): Setup {
  return s;
}

/** Takes a set-up out. What started from it starts from what it started from itself where the blank is not turned over there, else from an uncut blank. */
export function withoutSetup(job: Job, id: string): Job {
  const gone = job.setups.find((s) => s.id === id);
  if (!gone || job.setups.length === 1) return job;
  const setups = job.setups
    .filter((s) => s !== gone)
    .map((s) => (s.fits?.setup === id ? withoutFit(s) : s))
    .map((s) =>
      s.after?.setup === id
        ? {
            ...s,
            after:
              gone.after && gone.after.turned === 'none' ? { setup: gone.after.setup, turned: s.after.turned } : null,
          }
        : s,
    );
  const blanks = job.blanks.filter((b) => setups.some((s) => s.blank === b.id));
  return { ...job, setups, blanks: blanks.length === job.blanks.length ? job.blanks : blanks };
}

/** The set-ups with one of them taken to another place of the order. */
function inOrder(job: Job, id: string, to: number): Setup[] {
  const moved = job.setups.find((s) => s.id === id)!;
  const rest = job.setups.filter((s) => s !== moved);
  return [...rest.slice(0, to), moved, ...rest.slice(to)];
}

/** Why a set-up cannot be run at a place of the order, from 0; null where it can. */
export function whyNotAt(job: Job, id: string, to: number): string | null {
  if (to < 0) return 'It is the first.';
  if (to >= job.setups.length) return 'It is the last.';
  const order = inOrder(job, id, to);
  for (const [n, s] of order.entries()) {
    const late = s.after && order.slice(n).find((q) => q.id === s.after!.setup);
    if (late) return `"${s.name}" starts from what "${late.name}" leaves.`;
  }
  return null;
}

/** Runs a set-up at a place of the order, from 0; the job stays as it is where that cannot be. */
export const withPlace = (job: Job, id: string, to: number): Job =>
  whyNotAt(job, id, to) || job.setups[to].id === id ? job : { ...job, setups: inOrder(job, id, to) };

/** What a set-up may start from: those before it, on its blank or another one, which is then its own too. */
export const sourcesOf = (job: Job, id: string): Setup[] =>
  job.setups.slice(
    0,
    job.setups.findIndex((s) => s.id === id),
  );

/** A set-up that starts from another one, or from an uncut blank (null). */
export function startingAt(job: Job, id: string, after: Setup['after']): Job {
  const source = after && job.setups.find((s) => s.id === after.setup);
  /** Those that start from it, straight or by others, lie on its blank. */
  const moved = new Set([id]);
  const setups = job.setups.map((s) => {
    if (s.id !== id && !(s.after && moved.has(s.after.setup))) return s;
    moved.add(s.id);
    const blank = source ? source.blank : s.blank;
    return s.id === id ? { ...s, after, blank } : { ...s, blank };
  });
  const blanks = job.blanks.filter((b) => setups.some((s) => s.blank === b.id));
  // On one blank nothing goes into the other.
  const apart = setups.map((s) =>
    s.fits && setups.find((q) => q.id === s.fits!.setup)?.blank === s.blank ? withoutFit(s) : s,
  );
  return { ...job, setups: apart, blanks: blanks.length === job.blanks.length ? job.blanks : blanks };
}
