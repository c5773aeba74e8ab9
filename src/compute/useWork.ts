import { create } from 'zustand';
import type { Cut, Job, OneSetup } from '@/core/job/job';
import { oneSetup } from '@/core/job/oneSetup';
import { planInputs } from '@/core/pipeline/planning';
import { unpainted } from './keys';
import { NO_WORK, NOTHING, type Fresh, type SetupWork, type Told, type Work } from './work';

/** What the engine has said, as the window shows it: of all set-ups, and of the one that is shown. */
export interface SeenWork extends SetupWork, Work {
  /** The job of which the engine has said last what is as it should be, and what that is. */
  readonly said: {
    readonly whole: Job;
    readonly quality: Work['quality'];
    readonly fresh: Readonly<Record<string, Fresh>>;
  } | null;
}

export const useWork = create<SeenWork>(() => ({ ...NO_WORK, ...NOTHING, said: null }));

/** The job that the window shows, and those about which the engine may still say something, by their numbers. */
let shown: string | null = null;
let last = 0;
let least = 0;
const given = new Map<number, Job>();
/** What the engine has said last of it. */
let heard: Told | null = null;

/** What is shown of a set-up until the engine has a proof of its own of it, for it has only just begun. */
interface Before {
  readonly whole: Job;
  readonly quality: Work['quality'];
  readonly fresh: Fresh;
  readonly work: SetupWork;
}
const before = new Map<string, Before>();

/** Takes note of another state of the job, and gives it a number. What is shown of it is what is known so far. */
export function noteJob(whole: Job | null, shownId: string | null): number {
  const another = shownId !== shown;
  shown = shownId;
  const number = ++last;
  if (!whole || !shownId) {
    given.clear();
    before.clear();
    heard = null;
    least = number;
    useWork.setState({ ...NO_WORK, ...NOTHING, quality: useWork.getState().quality, said: null });
  } else {
    given.set(number, whole);
    if (another)
      useWork.setState({
        ...(useWork.getState().setups[shownId] ?? NOTHING),
        planning: null,
        proving: null,
        shaping: null,
        comparing: false,
      });
  }
  return number;
}

/** Takes what was kept of a set-up of the job with a number, all of it as it was then. Late for a job that was closed, it is of no use. */
export function noteKept(of: number, setup: string, quality: Work['quality'], work: SetupWork): void {
  const whole = given.get(of);
  if (!whole || heard?.setups[setup]?.proof) return;
  const cuts = oneSetup(whole, setup).cuts.filter((c) => c.enabled);
  before.set(setup, { whole, quality, work, fresh: { cuts: cuts.map((c) => c.id), all: true } });
  show();
}

/** The engine is gone, and knows nothing when it begins anew: what it has said stays in sight until then. */
export function noteLost(): void {
  const { said, setups } = useWork.getState();
  if (said)
    for (const [id, work] of Object.entries(setups))
      if (work.proof && said.fresh[id]) before.set(id, { ...said, fresh: said.fresh[id], work });
}

/** Takes what the engine says. What it says of a job that was closed meanwhile is of no use any more. */
export function hear(told: Told): void {
  if (told.of < least) return;
  heard = told;
  // Those before it are not spoken of again.
  for (const n of given.keys()) if (n < told.of) given.delete(n);
  show();
}

function show(): void {
  const { quality } = useWork.getState();
  const { of, fresh, ...work } = heard ?? { ...NO_WORK, quality, shown, of: last, fresh: {} };
  const whole = given.get(of);
  const seen = { setups: { ...work.setups }, fresh: { ...fresh } };
  for (const [id, b] of before) {
    const own = work.setups[id];
    if (own?.proof || !whole?.setups.some((s) => s.id === id)) {
      before.delete(id);
      continue;
    }
    const planned = own?.cuts ?? {};
    seen.setups[id] = { ...b.work, cuts: { ...b.work.cuts, ...planned }, relief: own?.relief ?? b.work.relief };
    if (!Object.keys(planned).length) seen.fresh[id] = stillSo(b, whole, id, work.quality);
  }
  const { planning, proving, shaping, comparing, stopped, error } = work;
  const at = work.shown === shown ? { planning, proving, shaping, comparing } : {};
  useWork.setState({
    setups: seen.setups,
    ...((shown && seen.setups[shown]) || NOTHING),
    ...at,
    stopped,
    error,
    said: whole ? { whole, quality: work.quality, fresh: seen.fresh } : null,
  });
}

/** What of results from before is still as it should be. */
function stillSo(b: Before, whole: Job, id: string, quality: Work['quality']): Fresh {
  const [was, now] = [oneSetup(b.whole, id), oneSetup(whole, id)];
  const same = (cutId: string) => {
    const [then, cut] = [cutOf(was, cutId), cutOf(now, cutId)];
    return !!then && !!cut && sameCut(was, now, then, cut);
  };
  return {
    cuts: b.fresh.cuts.filter(same),
    all: b.fresh.all && b.quality === quality && sameProof(b.whole, whole, id),
  };
}

/** Whether two small values are alike: what they hold beyond some depth has to be the very same. */
function alike(a: unknown, b: unknown, depth: number): boolean {
  if (Object.is(a, b)) return true;
  if (!depth || typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((k) => alike((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k], depth - 1))
  );
}

/** Whether a cut has what it had, as far as that is seen at once: versions of a job share what did not change. */
const sameCut = (was: OneSetup, now: OneSetup, before: Cut, cut: Cut): boolean =>
  alike(planInputs(was, before), planInputs(now, cut), 3);

const cutOf = (job: OneSetup, id: string) => job.cuts.find((c) => c.id === id);

/** Whether the paths that are held of a cut are of the job as it is now. What has just been changed is not, until the engine says so. */
export function isFresh(job: OneSetup, cutId: string, { said }: Pick<SeenWork, 'said'> = useWork.getState()): boolean {
  if (!said?.fresh[job.at.id]?.cuts.includes(cutId)) return false;
  const was = oneSetup(said.whole, job.at.id);
  if (was === job) return true;
  const before = cutOf(was, cutId);
  const cut = cutOf(job, cutId);
  return !!before && !!cut && sameCut(was, job, before, cut);
}

/** The same of all paths of a set-up, and of its proof. */
export function isUpToDate(
  whole: Job,
  id: string,
  { said, quality }: Pick<SeenWork, 'said' | 'quality'> = useWork.getState(),
): boolean {
  if (!said?.fresh[id]?.all || said.quality !== quality) return false;
  return said.whole === whole || sameProof(said.whole, whole, id);
}

function sameProof(before: Job, now: Job, id: string): boolean {
  const [a, b] = [oneSetup(before, id), oneSetup(now, id)];
  if (a === b) return true;
  const about = (s: OneSetup) => [s.name, s.unit, unpainted(s), s.run, s.cutters, s.clamps, s.at];
  return (
    alike(about(a), about(b), 3) &&
    a.cuts.length === b.cuts.length &&
    b.cuts.every((c, k) => {
      const was = a.cuts[k];
      const alikeIn = was.id === c.id && was.name === c.name && was.enabled === c.enabled;
      return alikeIn && (!c.enabled || sameCut(a, b, was, c));
    }) &&
    (!b.at.after || sameProof(before, now, b.at.after.setup))
  );
}
