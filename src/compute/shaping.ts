import type { OneSetup } from '@/core/job/job';
import { Cancelled } from '@/core/pipeline/planning';
import { reliefCell, reliefKey } from '@/core/pipeline/shaping';
import type { HeightField } from '@/core/relief/field';
import { counting } from '@/core/relief/groups';
import { assetsOfForms } from '@/core/relief/stack';
import { saysOf } from '@/core/units/says';
import { computePool } from './pool';
import { isReliefFileHere } from './reliefFiles';
import type { ReliefState } from './work';
import { isCancelled } from './workerHandle';

/** With more nodes than so many, a relief is shown coarsely first. */
const AT_ONCE = 8e4;
/** The first look has so many nodes at most, however many there are in all: it comes while a hand still moves. */
const FIRST_LOOK = 25e3;
/**
 * While changes come so soon after each other, ms, a hand moves: after a first look nothing has to change for `REST` before it is
 * shaped finely, since the hand has the processor. After a change that stands alone only the first look is let to be painted.
 */
const MOVING = 500;
const REST = 120;
const PAINTED = 40;

const keys = new WeakMap<OneSetup, { readonly key: string; readonly files: readonly string[] }>();
function keyed(job: OneSetup) {
  let known = keys.get(job);
  if (!known) {
    const forms = counting(job.relief.forms);
    keys.set(job, (known = { key: forms.length ? reliefKey(job) : '', files: assetsOfForms(forms) }));
  }
  return known;
}
const plainKey = (job: OneSetup): string => keyed(job).key;
/**
 * Content key of the relief that a set-up is to have, and of which of its files are here by now; nothing where it has no forms.
 */
export function wantedRelief(job: OneSetup): string {
  const { key, files } = keyed(job);
  return files.length ? `${key} ${files.map((id) => Number(isReliefFileHere(id))).join('')}` : key;
}

/** What shapes reliefs is given, and what it tells. */
export interface Shaping {
  /** The set-up that is shown; null where there is none, or nothing is to be worked on. */
  shown(): OneSetup | null;
  held(setupId: string): ReliefState | null;
  /** A set-up as it is to be worked out now; null where it is not, or nothing is. */
  current(setupId: string): OneSetup | null;
  put(setupId: string, relief: ReliefState | null): void;
  /** How far it is; null when it is done. */
  tell(done: number | null): void;
  fail(words: string): void;
}

export interface Shaper {
  /** Something has changed: another job, another set-up that is shown, files that have come. */
  follow(): void;
  /**
   * The relief of a set-up as it is cut; null where it has none, or none can be shaped. Waits for its files. Throws Cancelled when
   * another one is wanted meanwhile.
   */
  of(job: OneSetup): Promise<HeightField | null>;
}

/** Shapes the relief of whatever set-up is shown, coarsely and then finely, as long as what is held is not what is wanted. */
export function shaper(s: Shaping): Shaper {
  let at: { readonly setup: string; readonly key: string; readonly quick: boolean } | null = null;
  /** What could not be shaped is not tried again until it is another. */
  let failed = '';

  /** What was wanted last, since when, and whether a hand moves it. */
  let [last, since, moves] = ['', -Infinity, false];

  /** Who waits for the next change. */
  const waiting: (() => void)[] = [];
  const change = () => new Promise<void>((go) => waiting.push(go));
  const changed = () => waiting.splice(0).forEach((go) => go());

  async function work(): Promise<void> {
    /** Whether it is told that something is worked on. */
    let told = false;
    const tell = (done: number | null) => {
      told = done !== null;
      s.tell(done);
    };
    try {
      for (;;) {
        const job = s.shown();
        if (!job) return;
        const { id } = job.at;
        const key = wantedRelief(job);
        const held = s.held(id);
        if (!key && held) s.put(id, null);
        if (!key || key === failed || (held?.key === key && held.fine)) return;
        if (key !== last) {
          moves = performance.now() - since < MOVING;
          since = performance.now();
          last = key;
        }
        const cell = reliefCell(job);
        const nodes = (job.blank.width * job.blank.height) / (cell * cell);
        const fine = held?.key === key || nodes <= AT_ONCE;
        at = { setup: id, key, quick: !fine || nodes <= AT_ONCE };
        // A first look is there before one could read that it is worked on; where it is not, its progress says so.
        if (fine && !told) tell(0);
        try {
          const hear = (done: number) => at?.key === key && tell(done);
          const shaped = await shape(job, fine ? cell : cell * Math.sqrt(nodes / FIRST_LOOK), hear);
          s.put(id, { key, fine, shaped });
        } catch (e) {
          if (!isCancelled(e)) {
            console.error(e);
            failed = key;
            s.fail(
              saysOf(
                e,
                'The relief could not be shaped: a fault of Mirvak, not of your job. Hide the form that was changed last, or undo the change.',
              ),
            );
          }
        } finally {
          at = null;
        }
        const now = s.shown();
        if (!fine && held && now && wantedRelief(now) === key) await rested(moves ? REST : PAINTED);
      }
    } finally {
      if (told) tell(null);
    }
  }

  /** Until nothing has changed for a while, or something has. */
  async function rested(ms: number): Promise<void> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    await Promise.race([change(), new Promise<void>((go) => void (timer = setTimeout(go, ms)))]);
    clearTimeout(timer);
  }

  const shape = (job: OneSetup, cell: number, hear: (done: number) => unknown) => {
    const seat = computePool().shaper;
    return seat.ask((api, pack) => api.shape(seat.next(), pack({ ...job, cuts: [] }), cell, seat.hearing(hear)));
  };

  let running: Promise<void> | null = null;

  /** Files of the job's own that have not come yet. */
  const lacks = (job: OneSetup) =>
    assetsOfForms(counting(job.relief.forms)).some(
      (id) => !isReliefFileHere(id) && job.assets.some((a) => a.id === id),
    );

  async function aside(job: OneSetup, key: string): Promise<void> {
    try {
      s.put(job.at.id, { key, fine: true, shaped: await shape(job, reliefCell(job), () => {}) });
    } catch (e) {
      if (isCancelled(e)) return;
      console.error(e);
      failed = key;
    }
  }

  return {
    async of(job) {
      const { id } = job.at;
      for (;;) {
        const now = s.current(id);
        if (!now || plainKey(now) !== plainKey(job)) throw new Cancelled();
        const key = wantedRelief(job);
        if (!key || key === failed) return null;
        const held = s.held(id);
        if (lacks(job)) await change();
        else if (held?.key === key && held.fine) return held.shaped.field;
        else if (running) await Promise.race([running, change()]);
        else await aside(job, key);
      }
    },
    follow() {
      changed();
      const job = s.shown();
      // What is there at once is worth seeing though a hand has moved on: given up each time, none would ever be seen.
      const another = at && (!job || job.at.id !== at.setup);
      if (at && (another || (!at.quick && wantedRelief(job!) !== at.key))) computePool().shaper.cancel();
      running ??= work().finally(() => (running = null));
    },
  };
}
