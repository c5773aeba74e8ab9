import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly ts: number;
  readonly dur?: number;
  /** Processor time of the thread, microseconds. */
  readonly tdur?: number;
  readonly pid: number;
  readonly tid: number;
  readonly args: { readonly data?: { readonly functionName?: string; readonly url?: string }; readonly name?: string };
}

/** A task of the page's main thread: how long it took, how much of that it had a processor, ms; what it was made of. */
export interface Task {
  readonly took: number;
  readonly own: number;
  readonly parts: string;
}

const FEW = ['toplevel', 'devtools.timeline'];
const MANY = ['devtools.timeline', 'toplevel', 'v8', 'blink.user_timing', 'disabled-by-default-devtools.timeline'];

/** What of the page runs. */
const OWN = new Set(['FunctionCall', 'EventDispatch', 'EvaluateScript', 'TimerFire', 'FireAnimationFrame']);

/**
 * The tasks of the page's main thread while something is done, longest first. `closely`: with what they were made of, which takes
 * time from them.
 */
export async function tasksOf(page: Page, work: () => Promise<void>, closely = false): Promise<Task[]> {
  const path = join(tmpdir(), 'mirvak-trace.json');
  await page.tracing.start({ path, categories: closely ? MANY : FEW });
  try {
    await work();
  } finally {
    await page.tracing.stop();
  }
  const { traceEvents } = JSON.parse(readFileSync(path, 'utf8')) as { traceEvents: TraceEvent[] };
  const main = new Set(
    traceEvents
      .filter((e) => e.name === 'thread_name' && e.args.name === 'CrRendererMain')
      .map((e) => `${e.pid}/${e.tid}`),
  );
  const events = traceEvents.filter((e) => e.ph === 'X' && main.has(`${e.pid}/${e.tid}`));
  const within = (t: TraceEvent) => (e: TraceEvent) =>
    e.pid === t.pid && e.tid === t.tid && e.ts >= t.ts && e.ts + (e.dur ?? 0) <= t.ts + t.dur!;
  /** What lies within a task and is longer than 3 ms. */
  const parts = (t: TraceEvent) =>
    events
      .filter((e) => e !== t && (e.dur ?? 0) > 3000 && within(t)(e))
      .map((e) => [e.name, e.args.data?.functionName, (e.dur! / 1000).toFixed(0)].filter(Boolean).join(' '))
      .join(', ');
  const asked = events.filter((e) => e.name === 'Receive mojo message' && (e.dur ?? 0) > 3000);
  const own = events.filter((e) => OWN.has(e.name) && !e.args.data?.url?.startsWith('pptr:'));
  /**
   * What whoever drives the browser asks of the page (which things it shows, for whom it is read aloud) is not the page's work: a
   * message, and nothing of the page runs for it. Answers of the database are messages too.
   */
  const ofDriver = (t: TraceEvent) => asked.some((e) => within(t)(e) && e.dur! > 0.9 * t.dur!) && !own.some(within(t));
  let end = 0;
  return (
    events
      .filter((e) => e.name.endsWith('RunTask'))
      .sort((a, b) => a.ts - b.ts || b.dur! - a.dur!)
      // A task is told at two levels: the outer one holds it all.
      .filter((t) => t.ts >= end && (end = t.ts + t.dur!))
      .filter((t) => !ofDriver(t))
      .sort((a, b) => b.dur! - a.dur!)
      .map((t, k) => ({ took: t.dur! / 1000, own: (t.tdur ?? 0) / 1000, parts: closely && k < 8 ? parts(t) : '' }))
  );
}

/** "120 (14), 63 (51)": tasks that took so long, and had a processor for so long. */
export const told = (tasks: readonly Task[]): string =>
  tasks.map((t) => `${t.took.toFixed(0)} (${t.own.toFixed(0)})`).join(', ');

/** What the longest were made of, where that was asked for. */
export function explain(tasks: readonly Task[], asked = process.argv.includes('trace')): void {
  if (asked) for (const t of tasks.slice(0, 8)) console.log(`  ${told([t])} ms: ${t.parts}`);
}
