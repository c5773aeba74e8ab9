import { startTransition, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';

interface Store<T> {
  getState(): T;
  subscribe(tell: (now: T) => void): () => void;
}

/** While something is dragged, sheets follow a few times a second: the table has the processor. */
const PACE_MS = 180;
let held = 0;
let timer: ReturnType<typeof setTimeout> | null = null;
const late = new Set<() => void>();
function catchUp(): void {
  timer = null;
  const now = [...late];
  late.clear();
  for (const follow of now) follow();
}

/** A drag begins; call what comes back when it ends. */
export function holdSheets(): () => void {
  held++;
  let done = false;
  return () => {
    if (done) return;
    done = true;
    if (--held === 0) catchUp();
  };
}

/** Whether a selection is the same of both. One that fails is not: it fails again as it is drawn, where that is caught, and not in the store. */
function same<T>(select: (state: T) => unknown, a: T, b: T): boolean {
  try {
    return Object.is(select(a), select(b));
  } catch {
    return false;
  }
}

/**
 * Follows a store at the pace of the window: what changes is drawn as a transition, in slices that let
 * typing and dragging through. (A store's own hook draws at once, in one block.) The table under the
 * pointer follows at once; sheets, cards and strips follow by this.
 */
export function useLater<T, S>(store: Store<T>, select: (state: T) => S): S {
  const [seen, setSeen] = useState(() => store.getState());
  const latest = useRef(select);
  /** What was seen last or is on its way: what changes nothing of it is not even begun. */
  const coming = useRef(seen);
  useLayoutEffect(() => {
    latest.current = select;
  });
  const shown = select(seen);
  useEffect(() => {
    const follow = () => {
      const now = store.getState();
      if (same(latest.current, coming.current, now)) return;
      coming.current = now;
      startTransition(() => setSeen(now));
    };
    const paced = () => {
      if (!held) return follow();
      late.add(follow);
      timer ??= setTimeout(catchUp, PACE_MS);
    };
    const stop = store.subscribe(paced);
    return () => {
      stop();
      late.delete(follow);
    };
  }, [store]);
  // What is selected may depend on the component's own values: asked again whenever it is drawn.
  useEffect(() => {
    const now = store.getState();
    if (Object.is(shown, select(now))) return;
    coming.current = now;
    startTransition(() => setSeen(now));
  });
  return shown;
}

/** The same value a step later: what follows it is drawn in a task of its own, after what follows it at once. */
export function useStepLater<T>(value: T): T {
  const [seen, setSeen] = useState(value);
  useEffect(() => startTransition(() => setSeen(() => value)), [value]);
  return seen;
}

/** A value as it was when it last stood still for so long, ms: what is worked out of it waits while it is dragged or typed. */
export function useRested<T>(value: T, ms: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const t = setTimeout(() => startTransition(() => setRested(() => value)), ms);
    return () => clearTimeout(t);
  }, [value, ms]);
  return rested;
}

/** What has had its turn in this window. */
const hadTheirs = new Set<string>();

/** In which order the parts of the workbench come. */
export const turns = {
  bar: 1,
  sheet: 2,
  table: 3,
  form: 4,
  fields: 5,
  views: 6,
  section: 7,
  setups: 8,
  speeds: 9,
  below: 10,
  around: 11,
} as const;

interface Waiting {
  readonly turn: number;
  readonly come: () => void;
}
const queue: Waiting[] = [];
let coming: Waiting | null = null;

const complete: (() => void)[] = [];
/** The workbench is there with all of its parts, or is not for so long, ms. */
export const whenComplete = (most: number): Promise<void> =>
  new Promise((r) => {
    complete.push(r);
    setTimeout(r, most);
  });

/** Lets the next one come when the one before is there, in a task of its own: transitions that are begun together end together. */
function letNext(): void {
  if (coming || !queue.length) return;
  const next = queue.reduce((a, b) => (b.turn < a.turn ? b : a));
  queue.splice(queue.indexOf(next), 1);
  coming = next;
  setTimeout(() => startTransition(next.come), 0);
}
function isHere(w: Waiting): void {
  const at = queue.indexOf(w);
  if (at >= 0) queue.splice(at, 1);
  if (coming === w) coming = null;
  if (w.turn === turns.around) for (const all of complete.splice(0)) all();
  letNext();
}

/**
 * Mounts its children when it is their turn, after what has a lower one: a window that opens does so in several short steps,
 * what is needed first before the rest. `instead` stands there until then. With `once`, the name of what comes, it waits only
 * the first time that it comes in this window: what is drawn first costs most.
 */
export function After({
  turn,
  once,
  instead = null,
  children,
}: {
  turn: number;
  once?: string;
  instead?: ReactNode;
  children: ReactNode;
}): ReactNode {
  const [atOnce] = useState(() => once !== undefined && hadTheirs.has(once));
  const [on, setOn] = useState(atOnce);
  const waiting = useRef<Waiting | null>(null);
  useEffect(() => {
    if (atOnce) return;
    const w: Waiting = (waiting.current = { turn, come: () => setOn(true) });
    queue.push(w);
    letNext();
    return () => isHere(w);
  }, [turn, atOnce]);
  useEffect(() => {
    if (!on) return;
    if (once !== undefined) hadTheirs.add(once);
    if (waiting.current) isHere(waiting.current);
  }, [on, once]);
  return on ? children : instead;
}
