import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import puppeteer, { type Browser } from 'puppeteer-core';
import { PATIENCE } from './maker';

/** Without a sandbox, since tests run in containers; Mesa's software driver for WebGL; nothing of its own in the background. */
export const chromiumArgs: readonly string[] = [
  '--no-sandbox',
  '--use-gl=angle',
  '--use-angle=gl-egl',
  '--ignore-gpu-blocklist',
  '--disable-gpu-rasterization',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--force-color-profile=srgb',
  // Pages of the browser's own behind its address bar, which no test sees: a second of the processor for each window.
  '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup',
];

/**
 * For a window without a solid: drawn by the processor straight away, which takes less of it than a driver that stands for a
 * graphics card; and programs compiled where they run: with a window on every core, helpers only take the cores from it.
 */
export const withoutGraphics: readonly string[] = [
  '--disable-gpu',
  '--use-gl=disabled',
  '--disable-software-rasterizer',
  '--js-flags=--single-threaded',
];

/** How long a browser may take to answer one question, ms: a little longer than a maker's longest wait, so that this is what ends it. */
const ANSWER = 2 * PATIENCE + 20000;
const soon = (ms: number) => new Promise<void>((r) => void setTimeout(r, ms).unref());

/** Debian's Chromium without a window, with Mesa's software driver for WebGL. */
export async function openBrowser(...more: string[]): Promise<{ browser: Browser; close: () => Promise<void> }> {
  const profile = mkdtempSync(path.join(os.tmpdir(), 'mirvak-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: true,
    userDataDir: profile,
    args: [...chromiumArgs, ...more],
    protocolTimeout: ANSWER,
  });
  return {
    browser,
    close: async () => {
      // One that hangs must not hide what the test has to say of it.
      const left = Promise.race([browser.close().then(() => true), soon(15000).then(() => false)]);
      if (!(await left.catch(() => false))) browser.process()?.kill('SIGKILL');
      rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
    },
  };
}
