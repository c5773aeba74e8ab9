/** Raised when work aside was given up: it took longer than it may, ran out of memory, or was stopped. */
export class GivenUp extends Error {
  constructor(readonly why: 'late' | 'died' | 'stopped') {
    super(
      {
        late: 'It takes longer than it should.',
        died: 'It needs more memory than there is.',
        stopped: 'It was stopped.',
      }[why],
    );
    this.name = 'GivenUp';
  }
}

type Tasks = Record<string, (...args: never[]) => unknown>;
interface Answer {
  readonly value?: unknown;
  readonly error?: { readonly name: string; readonly message: string };
}

/** In a worker: does the one task that it is asked for. */
export function answer(tasks: Tasks): void {
  self.onmessage = (e: MessageEvent<{ task: string; args: never[] }>) => {
    let a: Answer;
    try {
      a = { value: tasks[e.data.task](...e.data.args) };
    } catch (error) {
      a = { error: { name: (error as Error).name, message: (error as Error).message } };
    }
    self.postMessage(a);
  };
}

export interface AsideOptions {
  /** Milliseconds after which it is given up. */
  readonly patience?: number;
  readonly signal?: AbortSignal;
}

/**
 * Does a task in a worker that is there for it alone, and goes with it: whatever a file contains, the window goes on, and the
 * next task finds a fresh worker. Where there are no workers (tests, the command line) it is done in place.
 */
export function aside<T extends Tasks, K extends keyof T & string>(
  start: () => Worker,
  here: T,
  task: K,
  args: Parameters<T[K]>,
  { patience = 120_000, signal }: AsideOptions = {},
): Promise<ReturnType<T[K]>> {
  if (typeof Worker === 'undefined') return Promise.resolve().then(() => here[task](...args) as ReturnType<T[K]>);
  if (signal?.aborted) return Promise.reject(new GivenUp('stopped'));
  const worker = start();
  return new Promise<ReturnType<T[K]>>((done, fail) => {
    const timer = setTimeout(() => fail(new GivenUp('late')), patience);
    signal?.addEventListener('abort', () => fail(new GivenUp('stopped')));
    worker.onerror = () => fail(new GivenUp('died'));
    worker.onmessageerror = () => fail(new GivenUp('died'));
    worker.onmessage = (e: MessageEvent<Answer>) => {
      clearTimeout(timer);
      if (e.data.error) fail(Object.assign(new Error(e.data.error.message), { name: e.data.error.name }));
      else done(e.data.value as ReturnType<T[K]>);
    };
    worker.postMessage({ task, args });
  }).finally(() => worker.terminate());
}
