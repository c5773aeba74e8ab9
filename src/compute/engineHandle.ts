import * as Comlink from 'comlink';
import type { HeightField } from '@/core/relief/field';
import type { Job, OneSetup } from '@/core/job/job';
import { oneSetup } from '@/core/job/oneSetup';
import type { Seen } from './becoming';
import { counted } from './counted';
import { keptAs, recallDerived, type Derived } from './derived';
import { loadFonts, onFonts } from './fonts';
import { Gate } from './gate';
import { proofKeyOf, type Quality } from './keys';
import { onReliefFiles } from './reliefFiles';
import { Receiver, type Parcel } from './parcel';
import type { EngineApi } from './protocol';
import { followMaker, pageFirst } from './stepAside';
import { hear, noteJob, noteKept, noteLost, useWork } from './useWork';
import { NOTHING, workFrom, type Told } from './work';
import { isCancelled, WorkerHandle, type Pack } from './workerHandle';

/** What the engine is to know of, whenever it begins anew. */
let wanted: { readonly number: number; readonly whole: Job | null; readonly shown: string | null } | null = null;
/** What of the field is looked at; null where no view looks. */
let looked: Seen | null = null;

type Api = Comlink.Remote<EngineApi>;

const putJob = (api: Api, pack: Pack): Promise<void> => {
  const { number, whole, shown } = wanted!;
  return api.setJob(number, whole && shown ? pack({ whole, shown }) : null);
};

/**
 * What was kept of the job that is being opened: the window shows it by itself, long before the engine has begun, and the engine
 * is given the same.
 */
const kept = new Map<string, Promise<Derived | null>>();
const recallForEngine = (as: string): Promise<Derived | null> => {
  const found = kept.get(as) ?? recallDerived(as);
  kept.delete(as);
  return found;
};
async function showKept(of: number, whole: Job, shown: string): Promise<void> {
  const { quality } = useWork.getState();
  for (const id of [shown, ...whole.setups.map((s) => s.id).filter((id) => id !== shown)]) {
    const key = proofKeyOf(whole, oneSetup(whole, id), quality);
    const as = keptAs(key);
    if (!as) return;
    const found = recallDerived(as);
    kept.set(as, found);
    const derived = await found;
    if (derived) noteKept(of, id, quality, { ...NOTHING, ...workFrom(derived, key) });
  }
}

/** Tells a fresh engine all that it has to know; it begins at once. */
async function brief(api: Api, pack: Pack): Promise<void> {
  const { port1, port2 } = new MessageChannel();
  const parcels = new Receiver();
  port1.onmessage = (e: MessageEvent<Parcel<Told>>) => {
    pageFirst();
    const told = parcels.unpack(e.data);
    for (const { proof } of Object.values(told.setups)) if (proof) counted(proof.field.z);
    hear(told);
  };
  void api.tellOver(Comlink.transfer(port2, [port2]));
  void api.recallThrough(Comlink.proxy(recallForEngine));
  void api.setQuality(useWork.getState().quality);
  void api.look(looked);
  onFonts((files) => void api.putFonts(files));
  onReliefFiles((files) => void api.putReliefFiles(files));
  loadFonts().catch((e: Error) => api.lackFonts(e.message));
  if (wanted) void putJob(api, pack);
}

let handle: WorkerHandle<EngineApi> | null = null;
/** The engine of this window; another one when it dies. It does no long work itself, so it is waited for as long as those who do. */
function engine(): WorkerHandle<EngineApi> {
  if (handle) return handle;
  followMaker();
  return (handle = new WorkerHandle<EngineApi>(
    () => new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' }),
    brief,
    {
      onLost: () => {
        noteLost();
        if (wanted?.whole) handle?.begin();
      },
    },
  ));
}

/** It goes by the patience of its own workers. */
const AS_LONG_AS_IT_TAKES = { patience: Infinity };
const gate = new Gate();
const ask = <T>(work: (api: Api, pack: Pack) => Promise<T>): Promise<T> =>
  gate.pass(() => engine().ask(work, AS_LONG_AS_IT_TAKES));
/** Nothing is asked of the engine until then: the page has the processors for itself. */
export const holdWork = (until: Promise<void>): void => gate.hold(until);
/** Tells it something; one that dies of it is told again. */
const say = (work: (api: Api, pack: Pack) => Promise<void>): void =>
  void ask(work).catch((e) => {
    if (!isCancelled(e)) console.error(e);
  });

/** Begins the engine and its workers before there is a job. */
export const beginEngine = (): void => say((api) => api.beginWorkers());

/** The job as it is now, and the set-up of it that is shown; null when it is closed. */
export function setJob(whole: Job | null, shown: string | null): void {
  const opened = !wanted?.whole;
  const number = noteJob(whole, shown);
  wanted = { number, whole, shown };
  if (!whole) kept.clear();
  else if (opened && shown) void showKept(number, whole, shown);
  say(putJob);
}
export function setQuality(quality: Quality): void {
  useWork.setState({ quality });
  say((api) => api.setQuality(quality));
}
/** Gives up the work that is running; the next change starts it again. */
export const stopWork = (): void => say((api) => api.stopWork());
export const resumeWork = (): void => say((api) => api.resumeWork());
/** Says what of the field a view looks at from now on; null when it looks no more. */
export function lookAtField(at: Seen | null): void {
  if (looked?.y0 === at?.y0 && looked?.y1 === at?.y1) return;
  looked = at;
  say((api) => api.look(at));
}
/** Gives up all kept results, those that are just being kept too. Throws what the storage throws. */
export const emptyKept = (): Promise<void> => ask((api) => api.emptyKept());

/** Asks about the last proof of the job: see EngineApi. Rejects with "Cancelled" where there is none. */
export const atProof = {
  play: (...args: Parameters<EngineApi['play']>) => ask((api) => api.play(...args)),
  lineOnTable: (...args: Parameters<EngineApi['lineOnTable']>) => ask((api) => api.lineOnTable(...args)),
  lineNear: (...args: Parameters<EngineApi['lineNear']>) => ask((api) => api.lineNear(...args)),
  along: (...args: Parameters<EngineApi['along']>) => ask((api) => api.along(...args)),
  cast: (...args: Parameters<EngineApi['cast']>) => ask((api) => api.cast(...args)),
  fit: (...args: Parameters<EngineApi['fit']>) => ask((api) => api.fit(...args)),
};
/** What is wanted along a line of a set-up. */
export const sectionOf = (...args: Parameters<EngineApi['section']>) => ask((api) => api.section(...args));

/** The relief of a set-up as it would be: what is shown stays as it is. Rejects with "Cancelled" when it was called off. */
export const shapedAside = (job: OneSetup) => ask((api, pack) => api.shapedAside(pack({ ...job, cuts: [] })));

/** The surface of a job that is not open, for its picture. Null when there is nothing to show, or when `signal` called it off. */
export async function portrayed(job: OneSetup, signal: AbortSignal): Promise<HeightField | null> {
  const leave = () => say((api) => api.callOffSurface());
  signal.addEventListener('abort', leave);
  try {
    return signal.aborted ? null : await ask((api, pack) => api.portrayed(pack(job)));
  } finally {
    signal.removeEventListener('abort', leave);
  }
}
