import { once } from 'node:events';
import { Worker } from 'node:worker_threads';

/** So many threads that help with cutting and shaping, as workers do in the browser. They keep no program from ending. */
export async function handsOf(count: number): Promise<readonly Worker[]> {
  const script = JSON.stringify(new URL('./hand.worker.ts', import.meta.url).href);
  const begin = `import('tsx/esm/api').then(({ register }) => (register(), import(${script})))`;
  const helpers = Array.from({ length: count }, () => new Worker(begin, { eval: true }));
  await Promise.all(helpers.map((w) => once(w, 'message')));
  for (const w of helpers) w.unref();
  return helpers;
}
