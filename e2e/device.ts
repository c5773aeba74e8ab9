import { mkdtempSync, readdirSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, BrowserContext, ElementHandle } from 'puppeteer-core';
import { openBrowser, withoutGraphics } from './browser';
import { Maker, PATIENCE } from './maker';

/** What the window keeps of a maker who has chosen the plan for every stage. */
const PLAN_ALONE = `try { localStorage.getItem('mirvak-tables') ?? localStorage.setItem('mirvak-tables', JSON.stringify({ blank: 'plan', artwork: 'plan', relief: 'plan', cuts: 'plan', proof: 'plan', run: 'plan' })) } catch {}`;

export interface Device {
  /** The window that is open at the start of each test. */
  readonly maker: Maker;
  /** Another window on the same device. */
  visit(): Promise<Maker>;
  /** Path of a file that the page has saved; waits for it. */
  downloaded(name: RegExp): Promise<string>;
  /** Lets a test provoke what would be a trouble otherwise. */
  excuse(...what: RegExp[]): void;
  /** Gives files to the first file field of the page. */
  give(...files: string[]): Promise<void>;
}

/**
 * A fresh device for each test of a file, with the demo jobs on its shelf: nothing is left over from the test
 * before. After each test the page must have raised no error and asked no other host. Without `solid` its maker has chosen to
 * see the plan alone, and wants less motion: drawing those without a graphics card takes most of such a device's time.
 */
export function eachOnAFreshDevice({ solid = false } = {}): Device {
  const url = process.env.MIRVAK_URL!;
  let downloads: string;
  let browser: Browser;
  let close: () => Promise<void>;
  let context: BrowserContext;
  let maker: Maker;
  let troubles: string[];
  let excused: RegExp[] = [];

  async function visit(): Promise<Maker> {
    // A window of its own: what lies behind another draws nothing, and its timers are slow.
    const page = await context.newPage({ type: 'window' });
    await page.setViewport({ width: 1280, height: 800 });
    page.on('pageerror', (e) => troubles.push(String(e)));
    page.on('request', (r) => {
      const to = new URL(r.url());
      if (to.protocol.startsWith('http') && to.origin !== new URL(url).origin) troubles.push(`asked ${to.origin}`);
    });
    // `MIRVAK_SLOW=4 npm run e2e` runs them as on a device four times as slow: what only works on a fast one fails.
    if (process.env.MIRVAK_SLOW) await page.emulateCPUThrottling(Number(process.env.MIRVAK_SLOW));
    page.setDefaultTimeout(PATIENCE);
    if (!solid) {
      await page.evaluateOnNewDocument(PLAN_ALONE);
      await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    }
    await page.goto(url);
    return new Maker(page);
  }

  beforeAll(async () => {
    ({ browser, close } = await openBrowser(...(solid ? [] : withoutGraphics)));
  });
  afterAll(() => close());
  beforeEach(async () => {
    // What an earlier test has saved is no answer to this one.
    downloads = mkdtempSync(path.join(os.tmpdir(), 'mirvak-downloads-'));
    context = await browser.createBrowserContext({ downloadBehavior: { policy: 'allow', downloadPath: downloads } });
    troubles = [];
    excused = [];
    maker = await visit();
    await maker.sees('Lock cottage board');
  });
  afterEach(async () => {
    await context.close();
    expect(troubles.filter((t) => !excused.some((e) => e.test(t)))).toEqual([]);
  });
  return {
    get maker() {
      return maker;
    },
    visit,
    excuse(...what) {
      excused.push(...what);
    },
    async downloaded(name) {
      for (let i = 0; i < 100; i++) {
        // The browser keeps the name with an empty file until what it has fetched is put in its place.
        const f = readdirSync(downloads).find(
          (q) => name.test(q) && !q.endsWith('.crdownload') && statSync(path.join(downloads, q)).size > 0,
        );
        if (f) return path.join(downloads, f);
        await new Promise((r) => setTimeout(r, 100));
      }
      throw new Error(`Nothing called ${name} was downloaded.`);
    },
    async give(...files) {
      const input = (await maker.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(...files);
    },
  };
}
