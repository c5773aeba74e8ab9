/**
 * Measures the main thread of the page while the demo board opens, a word changes and the view moves:
 * `npm run bench:interface` (after a build). Prints the longest tasks of each phase; `-- trace` adds what the longest ones
 * were made of. Headless Chromium with software rendering.
 */
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { forgetTasks, inWindow, longTasks } from './page';

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

/** What the longest tasks of the page's main thread were made of: own time by kind of event. */
function explain(file: string): void {
  const { traceEvents } = JSON.parse(readFileSync(file, 'utf8')) as { traceEvents: TraceEvent[] };
  const main = traceEvents.filter((e) => e.name === 'thread_name' && e.args.name === 'CrRendererMain').map((e) => `${e.pid}/${e.tid}`);
  const tasks = traceEvents.filter((e) => e.ph === 'X' && main.includes(`${e.pid}/${e.tid}`) && /RunTask$/.test(e.name) && (e.dur ?? 0) > 16000);
  for (const t of tasks.sort((a, b) => b.dur! - a.dur!).slice(0, 8)) {
    const inside = traceEvents.filter((e) => e.ph === 'X' && e.pid === t.pid && e.tid === t.tid && e !== t && e.ts >= t.ts && e.ts + (e.dur ?? 0) <= t.ts + t.dur! && (e.dur ?? 0) > 3000);
    console.log(`  ${(t.dur! / 1000).toFixed(0)} ms (${((t.tdur ?? 0) / 1000).toFixed(0)} ms of the processor): ${inside.map((e) => `${e.name}${e.args.data?.functionName ? ` ${e.args.data.functionName}` : ''} ${(e.dur! / 1000).toFixed(0)}`).join(', ')}`);
  }
}

async function phase(page: Page, name: string, work: () => Promise<void>): Promise<void> {
  const trace = join(tmpdir(), 'mirvak-trace.json');
  const tracing = process.argv.includes('trace');
  if (tracing) await page.tracing.start({ path: trace, categories: ['devtools.timeline', 'toplevel', 'v8', 'blink.user_timing', 'disabled-by-default-devtools.timeline'] });
  await forgetTasks(page);
  await work();
  await new Promise((r) => setTimeout(r, 400));
  const tasks = await longTasks(page);
  if (tracing) await page.tracing.stop();
  console.log(`| ${name} | ${tasks.length ? `${Math.max(...tasks).toFixed(0)} ms` : 'under 50 ms'} | ${tasks.length} over 50 ms: ${tasks.map((t) => t.toFixed(0)).join(', ')} |`);
  if (tracing) explain(trace);
}

async function main(): Promise<void> {
  await inWindow(async (page, maker) => {
    await maker.sees('Lock cottage board');
    await new Promise((r) => setTimeout(r, 1500));
    console.log('| while | longest block of the main thread | |\n| --- | --- | --- |');
    await phase(page, 'the board opens and is proven', async () => {
      await maker.press('Open Lock cottage board');
      await maker.proven();
    });
    await phase(page, 'a word changes and is proven', async () => {
      await maker.stage('Artwork');
      await maker.press(/^FENWATER/, 'option');
      await maker.fill('Text', 'FENWATER QUAY', false);
      await page.keyboard.press('Tab');
      await maker.proven();
    });
    // From the key to the new proof on the screen: the rail says when.
    const times: number[] = [];
    for (const letter of 'SEN') {
      await maker.find('textbox', 'Text').then((f) => f.click());
      await page.keyboard.press('End');
      const t = Date.now();
      await page.keyboard.type(letter);
      await page.waitForFunction(() => [...document.querySelectorAll('nav[aria-label=Stages] button')].some((b) => /^Proof, working/.test(b.getAttribute('aria-label') ?? '')), { timeout: 5000 }).catch(() => {});
      await maker.proven();
      times.push(Date.now() - t);
    }
    console.log(`| one letter typed on the demo board, until its new proof is seen (three cuts, 2 million heights) | ${times.sort((x, y) => x - y)[1]} ms | ${times.join(', ')} ms |`);
    await phase(page, 'the plan is zoomed and moved', async () => {
      const table = (await (await page.$('canvas'))!.boundingBox())!;
      await page.mouse.move(table.x + table.width / 2, table.y + table.height / 2);
      for (let i = 0; i < 6; i++) await page.mouse.wheel({ deltaY: -120 });
      await page.mouse.down({ button: 'middle' });
      for (let i = 0; i < 20; i++) await page.mouse.move(table.x + table.width / 2 + 6 * i, table.y + table.height / 2 + 3 * i);
      await page.mouse.up({ button: 'middle' });
    });
  });
}

void main();
