import { create } from 'zustand';

/** Whether Mirvak is kept by this browser, so that it opens without its server, and a newer one that waits to be started. */
interface Offline {
  readonly kept: boolean;
  readonly newer: ServiceWorker | null;
}
export const useOffline = create<Offline>(() => ({ kept: false, newer: null }));

/** The page comes first: its parts are fetched for keeping when it has been open for so long, ms. */
const LATER = 8000;

function watch(r: ServiceWorkerRegistration): void {
  const look = () =>
    useOffline.setState({
      kept: r.active !== null,
      // The first one waits for nobody.
      newer: r.active && r.waiting ? r.waiting : null,
    });
  const follow = (worker: ServiceWorker | null) => worker?.addEventListener('statechange', look);
  r.addEventListener('updatefound', () => follow(r.installing));
  for (const w of [r.installing, r.waiting, r.active]) follow(w);
  look();
}

/** Has the browser keep Mirvak; where it keeps nothing, nothing changes. Gives the way to call it off. */
export function keepMirvak(): () => void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return () => {};
  const timer = setTimeout(
    () =>
      void navigator.serviceWorker
        .register('/offline.js', { updateViaCache: 'none' })
        .then((r) => {
          watch(r);
          // It may have been kept for days: without its server the question has no answer.
          void r.update().catch(() => {});
        })
        .catch((e) => console.warn('Mirvak is not kept by this browser:', e)),
    LATER,
  );
  return () => clearTimeout(timer);
}

/** Starts the newer Mirvak in this window; others go on with what they have until they are opened anew. */
export function startNewer(): void {
  const { newer } = useOffline.getState();
  if (!newer) return;
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
  newer.postMessage('start');
}
