import type { Page } from 'puppeteer-core';
import { openBrowser } from '../e2e/browser';
import { Maker } from '../e2e/maker';
import { startServer } from '../e2e/server.mjs';

/** Opens the built app in a window that notes its long tasks, and closes all when the work is done. */
export async function inWindow(work: (page: Page, maker: Maker) => Promise<void>): Promise<void> {
  const { url, server } = await startServer();
  const { browser, close } = await openBrowser();
  try {
    const page = await browser.newPage();
    // The bundler names functions by a helper that the page does not have.
    await page.evaluateOnNewDocument(
      `window.__name = (f) => f; window.__tasks = []; new PerformanceObserver((l) => { for (const e of l.getEntries()) window.__tasks.push(e.duration); }).observe({ entryTypes: ['longtask'] });`,
    );
    await page.setViewport({ width: 1280, height: 800 });
    await page.goto(url);
    await work(page, new Maker(page));
  } finally {
    await close();
    server.kill();
  }
}

/** Begins a new count of tasks over 50 ms. */
export const forgetTasks = (page: Page): Promise<void> =>
  page.evaluate(() => {
    (window as unknown as { __tasks: number[] }).__tasks = [];
  });

/** Milliseconds of the tasks over 50 ms since then. */
export const longTasks = (page: Page): Promise<number[]> =>
  page.evaluate(() => (window as unknown as { __tasks: number[] }).__tasks);

/** From now on the page notes when a key was pressed, and when all that came of it was proven and painted. */
export async function watchProofs(page: Page): Promise<void> {
  await page.evaluate(() => {
    const w = window as unknown as { __typed: number; __proven: number };
    const rail = document.querySelector('nav[aria-label=Stages]')!;
    let worked = false;
    // Told by the rail's own labels: everything was ready, something was working, everything is ready again and painted.
    new MutationObserver((changes) => {
      if (changes.some((c) => /working/.test(c.oldValue ?? ''))) worked = true;
      const busy = [...rail.querySelectorAll('button')].some((b) => /working/.test(b.getAttribute('aria-label')!));
      if (busy) worked = true;
      else if (worked) requestAnimationFrame(() => setTimeout(() => (w.__proven = performance.now())));
    }).observe(rail, { subtree: true, attributes: true, attributeOldValue: true, attributeFilter: ['aria-label'] });
    document.addEventListener(
      'keydown',
      () => {
        w.__typed = performance.now();
        w.__proven = 0;
        worked = false;
      },
      true,
    );
  });
}

/** Waits until what came of the last key is proven and seen; milliseconds since that key. */
export async function sinceKey(page: Page): Promise<number> {
  await page.waitForFunction(() => (window as unknown as { __proven: number }).__proven > 0);
  return page.evaluate(
    () =>
      (window as unknown as { __proven: number; __typed: number }).__proven -
      (window as unknown as { __typed: number }).__typed,
  );
}
