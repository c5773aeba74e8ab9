import { createStore } from 'zustand/vanilla';
import type { Cut, Job, OneSetup } from '@/core/job/job';
import { contentKey } from '@/core/geometry/hash';
import { eachSetup, oneSetup } from '@/core/job/oneSetup';
import type { HeightField } from '@/core/relief/field';
import { Cancelled, usesRelief } from '@/core/pipeline/planning';
import { saysOf } from '@/core/units/says';
import { chainOf, inOrder } from './order';
import { computePool, onProverLost } from './pool';
import { cellOf, keyOf, pickUsedItems, proofKeyOf, type Quality } from './keys';
import type { Seen } from './becoming';
import { keptAs, recallDerived } from './derived';
import { keepLater, keepNow } from './keeping';
import type { ProofResult, Planning } from './protocol';
import { isAsked } from './questions';
import { NO_WORK, NOTHING, workFrom, type Fresh, type SetupWork, type Told, type Work } from './work';
import type { ComputeSeat } from './seat';
import { shaper, wantedRelief } from './shaping';
import { isCancelled } from './workerHandle';

/**
 * The engine: it owns the open job, knows what of its results is out of date, and has the workers of the pool at what is to be
 * done next. It lives in a worker of its own (./engine.worker.ts); the window tells it of changes and shows what it says.
 */
export const results = createStore<Work>(() => NO_WORK);

let wanted: { readonly whole: Job; readonly shown: string } | null = null;
let running = false;
let again = false;

const workOf = (setupId: string): SetupWork => results.getState().setups[setupId] ?? NOTHING;
/** Takes note of what was worked out for a set-up. */
function put(setupId: string, change: Partial<SetupWork>): void {
  results.setState((w) => {
    const now = { ...(w.setups[setupId] ?? NOTHING), ...change };
    return { setups: { ...w.setups, [setupId]: now } };
  });
}

const isFresh = (job: OneSetup, cuts: SetupWork['cuts'], cutId: string): boolean => {
  const cut = job.cuts.find((c) => c.id === cutId);
  const held = cuts[cutId];
  return !!cut && !!held && held.key === keyOf(job, cut, held.plan.asked);
};

/** Whether what is held of a set-up's paths and proof is of the job as it is now. */
const isUpToDate = (whole: Job, id: string): boolean => {
  const { setups, quality } = results.getState();
  const job = oneSetup(whole, id);
  const { cuts, proofKey } = setups[id] ?? NOTHING;
  return proofKey === proofKeyOf(whole, job, quality) && job.cuts.every((c) => !c.enabled || isFresh(job, cuts, c.id));
};

/** What the window is told. */
export function told(): Omit<Told, 'of'> {
  const now = results.getState();
  const fresh = wanted ? eachSetup(wanted.whole).map((s) => [s.at.id, freshOf(wanted!.whole, s)] as const) : [];
  return { ...now, shown: wanted?.shown ?? null, fresh: Object.fromEntries(fresh) };
}
function freshOf(whole: Job, job: OneSetup): Fresh {
  const { cuts } = workOf(job.at.id);
  return {
    cuts: job.cuts.map((c) => c.id).filter((id) => isFresh(job, cuts, id)),
    all: isUpToDate(whole, job.at.id),
  };
}

/** Takes note of a changed job, or of another set-up of it that is shown: outdated work is given up, what depends on the change is begun. */
export function setJob(whole: Job | null, shown: string | null): void {
  const another = wanted?.shown !== shown;
  wanted = whole && shown ? { whole, shown } : null;
  if (!wanted || !whole || !shown) {
    keepNow();
    cold.clear();
    begun.clear();
    reliefs.follow();
    results.setState({ ...NO_WORK, quality: results.getState().quality });
    void computePool().prover.ask((api) => api.clear());
    return;
  }
  const { setups, quality } = results.getState();
  for (const id of begun) if (!whole.setups.some((s) => s.id === id)) begun.delete(id);
  const kept: Record<string, SetupWork> = {};
  for (const s of whole.setups) {
    const was = setups[s.id];
    if (!was) continue;
    const cuts = Object.entries(was.cuts).filter(([id]) => s.cuts.some((c) => c.id === id));
    kept[s.id] = cuts.length === Object.keys(was.cuts).length ? was : { ...was, cuts: Object.fromEntries(cuts) };
  }
  if (
    another ||
    whole.setups.some((s) => kept[s.id] !== setups[s.id]) ||
    Object.keys(kept).length !== Object.keys(setups).length
  )
    results.setState({
      setups: kept,
      ...(another && { planning: null, proving: null, shaping: null, comparing: false }),
    });
  const pool = computePool();
  const order = inOrder(wanted);
  // What is looked at comes first: work on others waits for it.
  const waiting = another && !isUpToDate(whole, shown);
  const busy = order.some((s) => !isUpToDate(whole, s.at.id));
  for (const [seat, { setup, cut: id, key, idle }] of atCuts) {
    const at = order.find((s) => s.at.id === setup);
    const cut = at?.cuts.find((c) => c.id === id);
    const late = idle && (busy || cut?.enabled || setup !== shown);
    if (!at || !cut || late || (waiting && setup !== shown) || keyOf(at, cut) !== key) seat.cancel();
  }
  if (atProof) {
    const { setup, key } = atProof;
    const at = order.find((s) => s.at.id === setup);
    if (!at || (waiting && setup !== shown) || proofKeyOf(whole, at, quality) !== key) pool.prover.cancel();
  }
  // Who asks about proofs that a change has made old asks again; meanwhile the prover is wanted for the change.
  const idle = !atProof && ![...atCuts.keys()].includes(pool.prover);
  if (isAsked() && idle && busy) pool.prover.cancel();
  const stale = wantedRelief(oneSetup(whole, shown)) !== (workOf(shown).relief?.key ?? '');
  if (stale || busy) results.setState({ stopped: false });
  reliefs.follow();
  if (busy || toWeigh(oneSetup(whole, shown))) void drain();
}

/** The relief of the set-up that is shown is shaped beside all else. */
const reliefs = shaper({
  shown: () => (wanted && !results.getState().stopped ? oneSetup(wanted.whole, wanted.shown) : null),
  held: (id) => workOf(id).relief,
  current: (id) =>
    wanted && !results.getState().stopped && wanted.whole.setups.some((w) => w.id === id)
      ? oneSetup(wanted.whole, id)
      : null,
  put: (id, relief) => {
    if (wanted?.whole.setups.some((s) => s.id === id)) put(id, { relief });
  },
  tell: (shaping) => results.setState({ shaping }),
  fail: (error) => results.setState({ error }),
});

/** A file has come that reliefs are made of. */
export const followRelief = (): void => reliefs.follow();

export function setQuality(quality: Quality): void {
  results.setState({ quality });
  if (wanted) setJob(wanted.whole, wanted.shown);
}

/** Gives up the work that is running; the next change starts it again. */
export function stopWork(): void {
  const pool = computePool();
  results.setState({ stopped: true });
  for (const seat of pool.planners) seat.cancel();
  reliefs.follow();
}

export function resumeWork(): void {
  results.setState({ stopped: false });
  reliefs.follow();
  void drain();
}

/** Holds a proof that is shown already against what is wanted; a change that comes meanwhile ends it. */
async function hold(setupId: string, proof: ProofResult): Promise<void> {
  const { prover } = computePool();
  held.set(proof, (held.get(proof) ?? 0) + 1);
  if (isShown(setupId)) results.setState({ comparing: true });
  try {
    const found = await prover.ask((api) =>
      api.compare(
        prover.next(),
        setupId,
        prover.hearing(() => {}),
      ),
    );
    if (workOf(setupId).proof === proof) put(setupId, { proof: { ...proof, ...found, compared: true } });
  } finally {
    results.setState({ comparing: false });
  }
}

/** What the workers are at: cuts or the proof of a set-up, and the content key of what it is made of. What is shown is told of only for the set-up that is shown. */
const atCuts = new Map<
  ComputeSeat,
  {
    readonly setup: string;
    readonly cut: string;
    readonly key: string;
    readonly done: Promise<void>;
    /** Whether it is done only as long as there is nothing else to do. */
    readonly idle?: boolean;
  }
>();
let atProof: { readonly setup: string; readonly key: string } | null = null;
const isShown = (setupId: string): boolean => wanted?.shown === setupId;

async function drain(): Promise<void> {
  if (running) {
    again = true;
    return;
  }
  running = true;
  try {
    do {
      again = false;
      await step();
    } while (again);
  } catch (e) {
    console.error(e);
    results.setState({
      error: saysOf(
        e,
        'This could not be worked out: a fault of Mirvak, not of your job. The job is safe; change the last value again, or leave out the cut that was being worked on.',
      ),
      planning: null,
      proving: null,
    });
  } finally {
    running = false;
  }
}

/** Does what is to be done next, until nothing is. */
async function step(): Promise<void> {
  while (wanted && !results.getState().stopped) {
    const { quality } = results.getState();
    const { whole, shown } = wanted;
    const stale = (s: OneSetup) => s.cuts.filter((c) => c.enabled && !isFresh(s, workOf(s.at.id).cuts, c.id));
    // The paths that are looked at, then proofs one after the other, each with the paths that it lacks.
    const seen = oneSetup(whole, shown);
    const order = inOrder(wanted);
    const todo = stale(seen).length ? seen : order.find((s) => !isUpToDate(whole, s.at.id));
    // The prover learns what a set-up starts from before it; what is shown from before, when nothing else is to be done.
    const sources = todo ? chainOf(whole, todo.at.id).slice(0, -1) : order;
    const fromCold = sources.find((s) => cold.has(s.at.id));
    if (todo && !begun.has(todo.at.id) && (await recalled(whole, todo, quality))) continue;
    const cuts = todo ? stale(todo) : [];
    if (todo && cuts.length) await planSome(todo, cuts);
    else if (fromCold) {
      if (!(await proveSetup(whole, fromCold, quality))) return;
    } else if (todo) {
      if (!(await proveSetup(whole, todo, quality))) return;
    } else {
      const unheld = order.find((s) => toHold(s.at.id));
      const unweighed = unheld ? undefined : toWeigh(seen);
      if (unweighed) await weigh(seen, unweighed);
      else if (!unheld || !(await holdSetup(whole, unheld, quality))) return;
    }
  }
}

/** Cuts that could not be weighed: they are not tried again until they are others. */
const unweighable = new Set<string>();
const machineOf = (job: OneSetup): string => contentKey(job.run.machine);
/** A cut that is switched off of which it is not known how long it would take. */
const toWeigh = (job: OneSetup): Cut | undefined => {
  const { cuts } = workOf(job.at.id);
  return job.cuts.find(
    (c) =>
      !c.enabled &&
      !unweighable.has(keyOf(job, c)) &&
      !(isFresh(job, cuts, c.id) && cuts[c.id].would?.on === machineOf(job)),
  );
};

/** Works out how long a cut that is switched off would take: it may be weighed against one that is on. */
async function weigh(job: OneSetup, cut: Cut): Promise<void> {
  const { planner } = computePool();
  const { id } = job.at;
  const key = keyOf(job, cut);
  const alone = { ...job, cuts: [{ ...cut, enabled: true }] };
  const work = async () => {
    const before = workOf(id).cuts[cut.id];
    const relief = usesRelief(cut) ? await reliefs.of(job) : null;
    const plan =
      before && isFresh(job, workOf(id).cuts, cut.id)
        ? before.plan
        : await planner.ask((api, pack) =>
            api.plan(
              planner.next(),
              pack({ job: pickUsedItems(alone), relief }),
              cut.id,
              planner.hearing(() => {}),
            ),
          );
    const minutes = await planner.ask((api, pack) => api.minutes(pack({ plan, run: job.run })));
    const would = { minutes, on: machineOf(job) };
    if (!wanted?.whole.setups.some((s) => s.id === id)) return;
    put(id, { cuts: { ...workOf(id).cuts, [cut.id]: { key: keyOf(job, cut, plan.asked), plan, would } } });
    if (isUpToDate(wanted.whole, id)) keepLater(id, workOf(id).proofKey, workOf(id));
  };
  const done = work()
    .catch((e) => {
      if (isCancelled(e)) return;
      console.error(e);
      unweighable.add(key);
    })
    .finally(() => atCuts.delete(planner));
  atCuts.set(planner, { setup: id, cut: cut.id, key, done, idle: true });
  await done;
}

/** How often a proof was begun to be held against what is wanted: one whose comparison ends without a word is not begun for ever. */
const held = new WeakMap<ProofResult, number>();
const MOST_TIMES = 3;
/** A proof that is shown and has not been compared, since what is looked at came first. */
const toHold = (setupId: string): ProofResult | null => {
  const { proof } = workOf(setupId);
  return proof && !proof.compared && !cold.has(setupId) && (held.get(proof) ?? 0) < MOST_TIMES ? proof : null;
};

/** Has the prover at work for a set-up, as far as it is not given up: then it is false. */
async function atProver(setup: string, key: string, work: () => Promise<void>): Promise<boolean> {
  atProof = { setup, key };
  try {
    await work();
    return true;
  } catch (e) {
    results.setState({ proving: null });
    if (!isCancelled(e)) throw e;
    if (!results.getState().stopped) again = true;
    return false;
  } finally {
    atProof = null;
  }
}

/** Holds a proof against what is wanted that was not while another set-up was looked at. False where it was given up. */
function holdSetup(whole: Job, job: OneSetup, quality: Quality): Promise<boolean> {
  const { id } = job.at;
  const key = proofKeyOf(whole, job, quality);
  return atProver(id, key, async () => {
    await hold(id, toHold(id)!);
    keepLater(id, key, workOf(id));
  });
}

/** Set-ups whose results were kept from before: they are shown, and the prover learns them when nothing else is to be done. */
const cold = new Set<string>();

let recall = recallDerived;
/** Kept results are asked for from somebody else: private files take long to open for a worker that has just begun. */
export const recallThrough = (ask: typeof recall): void => void (recall = ask);

/** Set-ups whose kept results were asked for, whether there were any or not. */
const begun = new Set<string>();

/** Takes kept results of a set-up; whether there were any. */
async function recalled(whole: Job, job: OneSetup, quality: Quality): Promise<boolean> {
  const { id } = job.at;
  const key = proofKeyOf(whole, job, quality);
  begun.add(id);
  const as = keptAs(key);
  const derived = as && (await recall(as));
  const now =
    wanted &&
    wanted.whole.setups.some((s) => s.id === id) &&
    proofKeyOf(wanted.whole, oneSetup(wanted.whole, id), quality);
  if (!derived || now !== key) return false;
  put(id, workFrom(derived, key));
  cold.add(id);
  return true;
}

/** Who has planned a cut last: much of what it was made of is still known there. */
const lastAt = new Map<string, ComputeSeat>();

/** Gives cuts to workers that are free, and waits until one has done. Throws what a worker throws. */
async function planSome(job: OneSetup, cuts: readonly Cut[]): Promise<void> {
  const { planners } = computePool();
  const under = (cut: Cut) => [...atCuts.values()].some((a) => a.cut === cut.id && a.key === keyOf(job, cut));
  const free = () => planners.filter((p) => !atCuts.has(p));
  for (const cut of cuts.filter((c) => !under(c))) {
    const seats = free();
    if (!seats.length) break;
    // One that other cuts are at home with is taken when there is no other.
    const strangers = seats.filter((s) => !cuts.some((c) => lastAt.get(c.id) === s));
    const seat = seats.find((s) => s === lastAt.get(cut.id)) ?? strangers[0] ?? seats[0];
    lastAt.set(cut.id, seat);
    const done = plan(seat, job, cut).finally(() => atCuts.delete(seat));
    atCuts.set(seat, { setup: job.at.id, cut: cut.id, key: keyOf(job, cut), done });
  }
  await Promise.race([...atCuts.values()].map((a) => a.done));
}

async function plan(planner: ComputeSeat, job: OneSetup, cut: Cut): Promise<void> {
  const { id } = job.at;
  if (isShown(id))
    results.setState((w) => ({ planning: { ...w.planning, [cut.id]: { done: 0, expected: null } }, error: '' }));
  try {
    // Progress comes by its own way and may come after the result: by then it says nothing.
    const told = planner.hearing<Planning>((how) =>
      results.setState((w) =>
        w.planning?.[cut.id] !== undefined ? { planning: { ...w.planning, [cut.id]: how } } : w,
      ),
    );
    // What takes long to go over is gone over by all.
    if (usesRelief(cut)) for (const p of computePool().planners) p.begin();
    const relief = usesRelief(cut) ? await reliefs.of(job) : null;
    const made = await planner.ask((api, pack) =>
      api.plan(planner.next(), pack({ job: pickUsedItems(job), relief }), cut.id, told),
    );
    if (wanted?.whole.setups.some((s) => s.id === id))
      put(id, { cuts: { ...workOf(id).cuts, [cut.id]: { key: keyOf(job, cut, made.asked), plan: made } } });
    // What takes long to prove is proven by all.
    if (made.toolpaths.reduce((n, t) => n + t.motion.count, 0) > MANY_MOVES)
      for (const p of computePool().planners) p.begin();
  } catch (e) {
    if (!isCancelled(e)) throw e;
  } finally {
    results.setState(({ planning }) => {
      const { [cut.id]: _, ...others } = planning ?? {};
      return { planning: Object.keys(others).length ? others : null };
    });
  }
}

/** A cut of so many moves calls workers that have not begun yet, to help with its proof. */
const MANY_MOVES = 100_000;

/** What of the field is looked at: where nobody looks, nobody needs a glimpse of it. */
let looked: Seen | null = null;
export const look = (at: Seen | null): void => void (looked = at);

/** False where it was given up. What is shown already from before is proven without a word, so that the prover knows it. */
function proveSetup(whole: Job, job: OneSetup, quality: Quality): Promise<boolean> {
  const { prover } = computePool();
  const { id, after } = job.at;
  const key = proofKeyOf(whole, job, quality);
  const quiet = cold.has(id) && isUpToDate(whole, id);
  if (isShown(id) && !quiet) results.setState({ proving: 0, error: '' });
  return atProver(id, key, async () => {
    const { cuts } = workOf(id);
    const plans = job.cuts.filter((c) => c.enabled).map((c) => [c.id, cuts[c.id].plan] as const);
    const told = prover.hearing((done) => results.setState((w) => (w.proving !== null ? { proving: done } : w)));
    // Where nothing is shown yet, the field is shown while it is cut.
    const seen = workOf(id).proof ? null : looked;
    const show = !seen
      ? null
      : prover.hearing((glimpse: HeightField) => {
          if (atProof?.setup === id && atProof.key === key && !workOf(id).proof) put(id, { glimpse });
        });
    const before = after && { setup: after.setup, turned: after.turned, name: oneSetup(whole, after.setup).at.name };
    const relief = job.cuts.some((c) => c.enabled && usesRelief(c)) ? await reliefs.of(job) : null;
    const proof = await prover.ask((api, pack) =>
      api.prove(
        prover.next(),
        pack({ job: pickUsedItems(job), plans, relief }),
        cellOf(job, quality),
        before,
        told,
        seen,
        show,
      ),
    );
    cold.delete(id);
    if (quiet) return;
    put(id, { proof, proofKey: key, glimpse: null });
    results.setState({ proving: null });
    await hold(id, proof);
    keepLater(id, key, workOf(id));
  });
}

/** What is wanted along a line of a set-up, at evenly spaced points. */
export function section(setupId: string, x0: number, y0: number, x1: number, y1: number, count: number) {
  if (!wanted) throw new Cancelled();
  const job = pickUsedItems(oneSetup(wanted.whole, setupId));
  const relief = workOf(setupId).relief?.shaped.field ?? null;
  return computePool().planner.ask((api, pack) => api.section(pack({ job, relief }), x0, y0, x1, y1, count));
}

// What was proven went with its worker: it is proven anew, so that it can be played and looked into.
onProverLost(() => {
  cold.clear();
  for (const id of Object.keys(results.getState().setups)) put(id, { proofKey: '' });
  if (wanted) void drain();
});
