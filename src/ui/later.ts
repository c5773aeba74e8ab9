import { startTransition, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';

interface Store<T> {
  getState(): T;
  subscribe(tell: (now: T) => void): () => void;
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
    const follow = () => startTransition(() => setSeen((old) => (Object.is(latest.current(old), latest.current(store.getState())) ? old : store.getState())));
    follow();
    return store.subscribe(follow);
    // What is selected may depend on the component's own values: asked again whenever it changes.
  }, [store, shown]);
  return shown;
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
