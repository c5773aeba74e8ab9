import { holdAlive } from '@/compute/alive';
import { CHANNEL, type News } from './channel';
import { copyAllSecond, copySecond, copySecondRest } from './second';

/**
 * Keeps the second copy up with the database, as long as a window is open: one of the windows' workers does so, and when it
 * goes the next one takes over.
 */
const changed = new Set<string>();
let rest = false;
let awake: () => void = () => {};

new BroadcastChannel(CHANNEL).onmessage = (e: MessageEvent<News>) => {
  if (e.data.of === 'job') changed.add(e.data.id);
  else rest = true;
  awake();
};

/** After each copy it rests so many times as long as the copy took: large jobs are copied less often. */
const RESTS = 4;
const LEAST = 150;
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));

/** What cannot be copied, at a full disk say, is tried again after a while, which grows. */
const AGAIN = 1000;
const AGAIN_MOST = 30_000;

async function follow(): Promise<never> {
  let all = true;
  let wait = AGAIN;
  for (;;) {
    const since = performance.now();
    const ids = [...changed];
    const others = rest;
    changed.clear();
    rest = false;
    try {
      if (all) await copyAllSecond();
      all = false;
      for (const id of ids) await copySecond(id);
      if (others) await copySecondRest();
      wait = AGAIN;
    } catch (e) {
      console.warn('The second copy could not be brought up:', e);
      for (const id of ids) changed.add(id);
      rest ||= others;
      await pause(wait);
      wait = Math.min(AGAIN_MOST, 2 * wait);
      continue;
    }
    await pause(Math.max(LEAST, RESTS * (performance.now() - since)));
    if (!changed.size && !rest) await new Promise<void>((r) => (awake = r));
  }
}

/** The window that began this worker learns by a lock of such a name when it is no more. */
self.onmessage = (e: MessageEvent<string>) =>
  void (navigator.locks && holdAlive(e.data).then(() => self.postMessage('held')));

void (navigator.locks ? navigator.locks.request('mirvak-second', follow) : follow());
