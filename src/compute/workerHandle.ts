import * as Comlink from 'comlink';
import { whenGone } from './alive';
import { GivenUp } from './aside';
import { Sender, type Parcel } from './parcel';
import type { Living } from './protocol';
import { pageMark } from './stepAside';

export const isCancelled = (e: unknown): boolean => (e as Error)?.name === 'Cancelled';

/** A worker that sits there, and what tells when it is lost. */
interface Crew<Api> {
  readonly worker: Worker;
  readonly api: Comlink.Remote<Api>;
  /** Rejects when the worker is no more, or is given up. */
  readonly lost: Promise<never>;
  readonly lose: (why: GivenUp['why']) => void;
  readonly ready: Promise<void>;
  /** What has been sent to it. */
  readonly sender: Sender;
  gone: boolean;
  /** When something was heard of it last, ms. */
  heard: number;
}

/** Makes a parcel for the worker that is asked. It has to be sent: what it holds counts as known from then on. */
export type Pack = <T>(value: T) => Parcel<T>;

export interface Ask {
  /** So long nothing may be heard, ms. */
  readonly patience?: number;
}

/** Work reports many times a second where it goes on; beyond this, ms, it never comes to an end. */
const PATIENCE = 120_000;

/**
 * A place for a worker, with its own stop mark. Tickets rise; everything up to the stop mark is given up. A worker that dies
 * is noticed at once (it holds a lock as long as it lives) and replaced, and its work is tried once more; one of which nothing
 * is heard for too long is replaced too, and its work given up.
 */
export class WorkerHandle<Api extends Living> {
  private crew: Crew<Api> | null = null;
  private asked = 0;
  private readonly stop: Int32Array | null =
    typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4));
  private ticket = 0;

  constructor(
    private readonly start: () => Worker,
    /** Gives a fresh worker what it needs. */
    private readonly init: (api: Comlink.Remote<Api>, pack: Pack) => Promise<void>,
    private readonly options: {
      /** Told when a worker was lost, and with it all that it knew. */
      readonly onLost?: () => void;
      /** Whether a worker is begun only when something is asked. */
      readonly later?: boolean;
    } = {},
  ) {
    if (!options.later) this.crew = this.hire();
  }

  private hire(): Crew<Api> {
    const worker = this.start();
    const api = Comlink.wrap<Api>(worker);
    const living = api as unknown as Comlink.Remote<Living>;
    let fail: (e: GivenUp) => void = () => {};
    const lost = new Promise<never>((_, no) => (fail = no));
    lost.catch(() => {});
    const crew: Crew<Api> = {
      worker,
      api,
      lost,
      lose: (why) => {
        if (crew.gone) return;
        crew.gone = true;
        worker.terminate();
        fail(new GivenUp(why));
        if (this.crew === crew) this.crew = null;
        if (why !== 'stopped') this.options.onLost?.();
      },
      ready: Promise.resolve(),
      sender: new Sender(),
      gone: false,
      heard: performance.now(),
    };
    worker.onerror = () => crew.lose('died');
    if (this.stop) void living.setMarks(this.stop.buffer as SharedArrayBuffer, pageMark());
    const name = `mirvak-worker-${crypto.randomUUID()}`;
    if (navigator.locks) void living.hold(name).then(() => whenGone(name, () => crew.lose('died')));
    return Object.assign(crew, { ready: this.init(api, (v) => crew.sender.pack(v)) });
  }

  /** Begins a worker that was to be begun only when something is asked. */
  begin(): void {
    this.crew ??= this.hire();
  }

  /** Asks the worker for something, or a fresh one where the last was lost. Throws GivenUp, or what the work throws. */
  async ask<T>(
    work: (api: Comlink.Remote<Api>, pack: Pack) => Promise<T>,
    { patience = PATIENCE }: Ask = {},
  ): Promise<T> {
    this.asked++;
    try {
      for (let tries = 0; ; tries++) {
        const crew = (this.crew ??= this.hire());
        crew.heard = performance.now();
        const watch = setInterval(
          () => performance.now() - crew.heard > patience && crew.lose('late'),
          Math.min(1000, patience),
        );
        try {
          await Promise.race([crew.ready, crew.lost]);
          return await Promise.race([work(crew.api, (v) => crew.sender.pack(v)), crew.lost]);
        } catch (e) {
          if (!(e instanceof GivenUp) || e.why !== 'died' || tries) throw e;
        } finally {
          clearInterval(watch);
        }
      }
    } finally {
      this.asked--;
    }
  }

  /** Progress of what was asked for, as a worker can report it: each report says that it is at it. */
  hearing<T = number>(told: (said: T) => void): (said: T) => void {
    return Comlink.proxy((said: T) => {
      if (this.crew) this.crew.heard = performance.now();
      told(said);
    });
  }
  next(): number {
    return ++this.ticket;
  }
  /** Gives up everything that was asked for so far. */
  cancel(): void {
    if (this.stop) Atomics.store(this.stop, 0, this.ticket);
  }
  /** Sends the worker away, whatever it is at. */
  dismiss(): void {
    this.crew?.lose('stopped');
  }
}
