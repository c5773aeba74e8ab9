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

/**
 * Follows a store at the pace of the window: what changes is drawn as a transition, in slices that let
 * typing and dragging through. (A store's own hook draws at once, in one block.) The table under the
 * pointer follows at once; sheets, cards and strips follow by this.
 */
export function useLater<T, S>(store: Store<T>, select: (state: T) => S): S {
  const [seen, setSeen] = useState(() => store.getState());
  const latest = useRef(select);
  useLayoutEffect(() => {
    latest.current = select;
  });
  const shown = select(seen);
  useEffect(() => {
    const follow = () =>
      startTransition(() =>
        setSeen((old) => (Object.is(latest.current(old), latest.current(store.getState())) ? old : store.getState())),
      );
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
    if (!Object.is(shown, select(now))) startTransition(() => setSeen(now));
  });
  return shown;
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

/** Mounts its children a moment after what stands around them, so that a window opens in several short steps. */
export function After({ steps = 1, children }: { steps?: number; children: ReactNode }): ReactNode {
  const [left, setLeft] = useState(steps);
  useEffect(() => {
    if (!left) return;
    const t = setTimeout(() => startTransition(() => setLeft(left - 1)), 0);
    return () => clearTimeout(t);
  }, [left]);
  return left ? null : children;
}
