/**
 * Measures the main thread of the page while the demo board opens, a word changes and the view moves:
 * `npm run bench:interface` (after a build). Prints the longest tasks of each phase; `-- trace` adds what the longest ones
 * were made of. Headless Chromium with software rendering.
 */
import { jobOf } from '../src/core/job/oneSetup';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, KeyInput, Page } from 'puppeteer-core';
import type { Maker } from '../e2e/maker';
import { newItem } from '../src/core/artwork/item';
import { shippedLibrary } from '../src/core/cutters/library';
import { kindOf } from '../src/core/cuts/registry';
import type { Path } from '../src/core/geometry/path';
import { packJob } from '../src/core/job/archive';
import { newOneSetup, type OneSetup } from '../src/core/job/job';
import { firstLook } from './firstLook';
import { lettersBoard } from './letters';
import { medal } from './medal';
import { discJob, medalJob } from './medalJob';
import { million, millionJob, stopped, tenMillion } from './million';
import { inWindow, sinceKey, watchProofs } from './page';
import { explain, tasksOf, told } from './tasks';

/** `npm run bench:interface -- letters` runs that part only. */
const parts = process.argv.slice(2).filter((a) => a !== 'trace');
const wanted = (part: string): boolean => !parts.length || parts.includes(part);

const closely = process.argv.includes('trace');

async function phase(page: Page, name: string, work: () => Promise<void>): Promise<void> {
  const all = await tasksOf(
    page,
    async () => {
      await work();
      await new Promise((r) => setTimeout(r, 400));
    },
    closely,
  );
  const long = all.filter((t) => t.took > 50);
  console.log(
    `| ${name} | ${long.length ? `${long[0].took.toFixed(0)} ms` : 'under 50 ms'} | ${long.length} over 50 ms (of the processor): ${told(long)} |`,
  );
  explain(all);
}

/** From the key to the new proof on the screen: the rail says when. */
async function letterByLetter(page: Page, maker: Maker, what: string): Promise<void> {
  const times: number[] = [];
  await watchProofs(page);
  // The first two warm the workers up and are not counted.
  const letters = [...'BUSENTPQA'];
  for (const letter of letters) {
    await maker.find('textbox', 'Text').then((f) => f.click());
    await page.keyboard.press('End');
    await page.keyboard.press('Backspace');
    await sinceKey(page);
    await page.keyboard.press(letter as KeyInput);
    const time = await sinceKey(page);
    if (letters.indexOf(letter) > 1) times.push(time);
  }
  console.log(
    `| ${what} | ${times.sort((x, y) => x - y)[times.length >> 1].toFixed(0)} ms | ${times.map((t) => t.toFixed(0)).join(', ')} ms |`,
  );
}

/** A drawing of so many nodes that three cuts use, and a small rectangle that none does. */
function nodesJob(nodes: number): OneSetup {
  const job = newOneSetup('Many nodes');
  const each = 500;
  const cols = 10;
  const paths: Path[] = Array.from({ length: nodes / each }, (_, k) => {
    const [cx, cy] = [(k % cols) * 28, Math.floor(k / cols) * 18];
    const at = (i: number) => ({
      x: cx + 8 * Math.cos((2 * Math.PI * i) / each) * (1 + 0.08 * Math.sin((40 * Math.PI * i) / each)),
      y: cy + 8 * Math.sin((2 * Math.PI * i) / each),
    });
    return {
      ...at(0),
      segments: Array.from({ length: each }, (_, i) => ({ k: 'line' as const, ...at((i + 1) % each) })),
      closed: true,
    };
  });
  job.items = [
    newItem({ id: 'd', name: 'Drawing', kind: 'drawing', x: 150, y: 100, values: { paths, fill: 'nonzero' } }),
    newItem({
      id: 'r',
      name: 'Beside',
      kind: 'rectangle',
      x: 290,
      y: 190,
      values: { width: 8, height: 8, corner: 'square', radius: 0 },
    }),
  ];
  job.cutters = shippedLibrary().filter((c) => ['flat-2', 'drag-3-90-0.02'].includes(c.id));
  const kinds = ['profile', 'area', 'drag'];
  job.cuts = kinds.map((kind, i) => ({
    id: `c${i}`,
    name: kind,
    kind,
    enabled: true,
    items: ['d'],
    values: kindOf(kind).defaults({ ...job.blank, clamps: [] }, job.cutters) as Record<string, unknown>,
    overrides: {},
  }));
  return job;
}

/** The longest task of the page's main thread at each of some key strokes, ms of the processor. */
async function blockedAt(page: Page, keys: readonly KeyInput[]): Promise<number[]> {
  const blocked: number[] = [];
  for (const key of keys) {
    const all = await tasksOf(
      page,
      async () => {
        await page.keyboard.press(key);
        await new Promise((r) => setTimeout(r, 1500));
      },
      true,
    );
    blocked.push(Math.max(...all.map((t) => t.own)));
    explain(all);
  }
  return blocked;
}

async function main(): Promise<void> {
  await inWindow(async (page, maker) => {
    await maker.sees('Lock cottage board');
    // What a browser does once, on its first visit, is done before anything is measured.
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await new Promise((r) => setTimeout(r, 1500));
    if (wanted('letters')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'letters.mirvak');
      writeFileSync(file, packJob(jobOf(lettersBoard())));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Twenty letters');
      await maker.proven();
      await maker.stage('Artwork');
      await maker.press(/^Letters/, 'treeitem');
      await letterByLetter(
        page,
        maker,
        'one letter changed on a board of 20 letters, until its new proof is seen (2 million heights)',
      );
      await maker.press('Plan');
      await letterByLetter(page, maker, 'the same, plan alone');
      await maker.press('Job shelf');
      await maker.sees('Lock cottage board');
    }
    if (wanted('nodes')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'nodes.mirvak');
      writeFileSync(file, packJob(jobOf(nodesJob(50_000))));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Many nodes');
      await maker.proven(600_000);
      await maker.stage('Artwork');
      for (const thing of ['Beside', 'Drawing']) {
        await maker.press(new RegExp(`^${thing}`), 'treeitem');
        await page.focus('[aria-label="Plan of the blank"]');
        const blocked = await blockedAt(page, ['ArrowLeft', 'ArrowLeft', 'ArrowRight', 'ArrowRight', 'ArrowLeft']);
        console.log(
          `| "${thing}" nudged beside or of 50,000 nodes used by three cuts: longest task of the page | ${Math.max(...blocked.slice(1)).toFixed(0)} ms | ${blocked.map((b) => b.toFixed(0)).join(', ')} ms |`,
        );
        await maker.proven(600_000);
      }
      await maker.press('Job shelf');
      await maker.sees('Lock cottage board');
    }
    if (wanted('million')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'million.mirvak');
      writeFileSync(file, packJob(jobOf(millionJob(20_000, 50))));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Million');
      await million(page, maker);
      await maker.press('Job shelf');
      await maker.sees('Lock cottage board');
    }
    if (parts.includes('tenmillion')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'tenmillion.mirvak');
      writeFileSync(file, packJob(jobOf(millionJob(20_000, 500, 0.02))));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Million');
      await tenMillion(page, maker, 'a cut of ten million moves');
    }
    if (parts.includes('disc')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'disc.mirvak');
      writeFileSync(file, packJob(jobOf(discJob())));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Disc');
      await stopped(page, maker);
      await tenMillion(page, maker, 'a relief in a disc of 100 mm finished at 0.01 mm');
    }
    if (wanted('relief')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'medal.mirvak');
      writeFileSync(file, packJob(jobOf(medalJob())));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await medal(page, maker);
      await maker.press('Job shelf');
      await maker.sees('Lock cottage board');
    }
    if (wanted('look')) {
      const file = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'medal.mirvak');
      writeFileSync(file, packJob(jobOf({ ...medalJob(), name: 'Medal without cuts', cuts: [] })));
      await ((await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>).uploadFile(file);
      await maker.press('Open Medal without cuts');
      await firstLook(page, maker, 'Heron');
      await maker.press('Job shelf');
      await maker.sees('Lock cottage board');
    }
    if (!wanted('demo')) return;
    console.log('| while | longest block of the main thread | |\n| --- | --- | --- |');
    await phase(page, 'the board opens and is proven', async () => {
      await maker.press('Open Lock cottage board');
      await maker.proven();
    });
    await maker.stage('Proof');
    await maker.sees('all checks pass');
    await maker.press('Job shelf');
    await new Promise((r) => setTimeout(r, 2000));
    await page.reload();
    await maker.find('button', 'Open Lock cottage board');
    const began = performance.now();
    await maker.press('Open Lock cottage board');
    await maker.proven();
    console.log(
      `| the board opened a second time, until its proof is there | ${(performance.now() - began).toFixed(0)} ms | |`,
    );
    await phase(page, 'a word changes and is proven', async () => {
      await maker.stage('Artwork');
      await maker.press(/^FENWATER/, 'treeitem');
      await maker.fill('Text', 'FENWATER QUAY', false);
      await page.keyboard.press('Tab');
      await maker.proven();
    });
    await letterByLetter(
      page,
      maker,
      'one letter typed on the demo board, until its new proof is seen (three cuts, a floor by an end mill, 2 million heights)',
    );
    await phase(page, 'the plan is zoomed and moved', async () => {
      const table = (await (await page.$('canvas'))!.boundingBox())!;
      await page.mouse.move(table.x + table.width / 2, table.y + table.height / 2);
      for (let i = 0; i < 6; i++) await page.mouse.wheel({ deltaY: -120 });
      await page.mouse.down({ button: 'middle' });
      for (let i = 0; i < 20; i++)
        await page.mouse.move(table.x + table.width / 2 + 6 * i, table.y + table.height / 2 + 3 * i);
      await page.mouse.up({ button: 'middle' });
    });
  });
}

void main();
