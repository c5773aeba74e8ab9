import { execFileSync } from 'node:child_process';
import { appendFileSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { chromiumArgs } from './browser';
import { Maker } from './maker';
import { processes, saidOf } from './processes';

/** What of a maker's work is lost when the browser dies, ms of it. */
export interface Killed {
  readonly lost: number;
  /** Why it could not be told, where it could not. */
  readonly why: string;
  /** At a full disk: whether it had been said, once it was full for two seconds. */
  readonly said?: boolean | null;
  /** Whether the browser had lost its database, and all came back from the second copy. */
  readonly putBack?: boolean;
}

/** More than this may not be lost, ms. */
export const LOST_AT_MOST = 2000;
/** Where things stand before they are nudged, mm: off the blank, out of the way. */
const START = 1000;

async function open(profile: string): Promise<Browser> {
  return puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: true,
    userDataDir: profile,
    args: [...chromiumArgs],
  });
}
/** Kills a browser and waits until the last of its processes is gone: those that store things outlive the first by a moment. */
async function kill(browser: Browser, profile: string): Promise<void> {
  browser.process()?.kill('SIGKILL');
  while (processes().some((p) => saidOf(p, 'cmdline').includes(profile))) await pause(20);
}
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));
/** Where the picked thing stands, once the sheet has come to rest over it. */
const placeOf = (m: Maker): Promise<number> => m.restsAt('Centre X');

/** Writes until there is no room. */
function fillUp(file: string): void {
  for (let size = 1 << 22; size >= 1; size >>= 1)
    for (;;) {
      try {
        appendFileSync(file, new Uint8Array(size));
      } catch {
        break;
      }
    }
}

interface Window {
  readonly maker: Maker;
  /** When each nudge was made, ms. */
  readonly times: number[];
}

/** Picks the n-th rectangle and sees where it stands. */
async function pick(maker: Maker, n: number): Promise<void> {
  await maker.stage('Artwork');
  await maker.press(n ? /^Rectangle 2/ : /^Rectangle\s*$|^Rectangle(?! 2)/, 'treeitem');
}

/**
 * Works in one or two windows of one job, kills the browser at some moment, opens it again on the same profile, and reads what
 * is left. Work is counted by nudges of 1 mm, one after the other: where the thing stands says which of them survived. A full
 * disk is a small file system of its own that is filled while work goes on (it takes the right to mount one): what came after
 * it was full nobody can keep, what came before it counts.
 */
export async function killedAtWork(url: string, kind: 'one' | 'two' | 'full', random: () => number): Promise<Killed> {
  const profile = mkdtempSync(path.join(os.tmpdir(), 'mirvak-crash-'));
  if (kind === 'full') execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=400m', 'tmpfs', profile]);
  const filler = path.join(profile, 'filler');
  /** When the disk was full. */
  let full = Infinity;
  let browser = await open(profile);
  try {
    const newWindow = async (to: string): Promise<Maker> => {
      const page = (await browser.newPage({ type: 'window' })) as Page;
      await page.setViewport({ width: 1280, height: 800 });
      await page.goto(to);
      return new Maker(page);
    };
    const first = await newWindow(url);
    await first.press('New job');
    await first.sees('Piece of material');
    await first.stage('Artwork');
    for (let n = 0; n < (kind === 'two' ? 2 : 1); n++) {
      await first.press('Rectangle');
      await first.find('treeitem', n ? /^Rectangle 2/ : /^Rectangle/);
      await first.fill('Centre X', String(START));
    }
    await first.saved();
    const job = first.page.url();
    const makers = kind === 'two' ? [first, await newWindow(job)] : [first];
    const windows: Window[] = makers.map((maker) => ({ maker, times: [] }));
    for (const [n, w] of windows.entries()) {
      await pick(w.maker, n);
      const plan = await w.maker.page.waitForSelector('[aria-label="Plan of the blank"]');
      await plan!.focus();
    }
    const until = performance.now() + 300 + (kind === 'full' ? 9000 : 5000) * random();
    const pace = 15 + 200 * random();
    const fill = performance.now() + (until - performance.now()) * random();
    if (kind === 'full')
      void pause(fill - performance.now()).then(() => {
        fillUp(filler);
        full = performance.now();
      });
    await Promise.all(
      windows.map(async (w) => {
        while (performance.now() < until) {
          await w.maker.page.keyboard.press('ArrowRight');
          w.times.push(performance.now());
          await pause(pace * random());
        }
      }),
    );
    const said = full < performance.now() - 2000 ? /Not saved/.test(await first.text()) : null;
    const killed = Math.min(full, performance.now());
    await kill(browser, profile);
    rmSync(filler, { force: true });
    browser = await open(profile);
    const back = await newWindow(job);
    let lost = 0;
    let putBack = false;
    for (const [n, w] of windows.entries()) {
      await pick(back, n);
      putBack = /has lost its database/.test(await back.text());
      const kept = Math.round((await placeOf(back)) - START);
      const gone = w.times[kept];
      if (gone !== undefined) lost = Math.max(lost, killed - gone);
      if (kept < 0 || kept > w.times.length + 1)
        return {
          lost: Infinity,
          why: `thing ${n + 1} stands at ${kept} of ${w.times.length} (${windows.map((q) => q.times.length).join(', ')} nudges)`,
        };
    }
    return { lost, why: '', said, putBack };
  } catch (e) {
    const seen = await browser
      .pages()
      .then((all) =>
        Promise.all(all.map((p) => p.evaluate(() => document.body.innerText.slice(0, 300)).catch(() => ''))),
      )
      .catch(() => []);
    return { lost: Infinity, why: `${String((e as Error).stack).slice(0, 1500)}\nSeen: ${seen.join(' | ')}` };
  } finally {
    await kill(browser, profile);
    if (kind === 'full') execFileSync('umount', ['-l', profile]);
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }
}
