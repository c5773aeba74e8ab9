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
    await page.evaluateOnNewDocument(`window.__name = (f) => f; window.__tasks = []; new PerformanceObserver((l) => { for (const e of l.getEntries()) window.__tasks.push(e.duration); }).observe({ entryTypes: ['longtask'] });`);
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
export const longTasks = (page: Page): Promise<number[]> => page.evaluate(() => (window as unknown as { __tasks: number[] }).__tasks);
