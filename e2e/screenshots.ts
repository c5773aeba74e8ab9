import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { openBrowser } from './browser';
import { Maker } from './maker';
import { startServer } from './server.mjs';

const out = (name: string) => path.join('docs/screenshots', `${name}.png`) as `${string}.png`;

/** The pictures of the demo jobs that ship with the shelf: forgotten, painted anew by the shelf itself, and kept. */
async function portraits(page: Page): Promise<void> {
  mkdirSync('public/demo', { recursive: true });
  await page.waitForSelector('[aria-label=Jobs] img');
  const ids = await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open('mirvak');
      asked.onsuccess = () => done(asked.result);
    });
    const store = db.transaction('jobs', 'readwrite').objectStore('jobs');
    const rows = await new Promise<{ name: string; picture: string | null }[]>((done) => {
      const asked = store.getAll();
      asked.onsuccess = () => done(asked.result as { name: string; picture: string | null }[]);
    });
    for (const r of rows) store.put({ ...r, picture: null });
    await new Promise((done) => (store.transaction.oncomplete = done));
    db.close();
    return rows.map((r) => [r.name, r.picture!.replace(/^.*\/|\.png$/g, '')] as const);
  });
  await page.reload();
  await page.waitForFunction(
    (count) => document.querySelectorAll('[aria-label=Jobs] img[src^="data:"]').length === count,
    { timeout: 180000 },
    ids.length,
  );
  for (const [name, id] of ids) {
    const address = await page.evaluate(
      (n) =>
        [...document.querySelectorAll('[aria-label=Jobs] > li')]
          .find((li) => (li as HTMLElement).innerText.includes(n))!
          .querySelector('img')!.src,
      name,
    );
    writeFileSync(path.join('public/demo', `${id}.png`), Buffer.from(address.split(',')[1], 'base64'));
  }
}

async function main(): Promise<void> {
  const { url, server } = await startServer();
  const { browser, close } = await openBrowser();
  try {
    const page = await browser.newPage();
    // The bundler names functions by a helper that the page does not have.
    await page.evaluateOnNewDocument('window.__name = (f) => f');
    await page.setViewport({ width: 1280, height: 800 });
    const maker = new Maker(page);
    const still = () => new Promise((r) => setTimeout(r, 4000));
    const shot = async (name: string) => {
      await still();
      // A draft of the solid is no picture of it.
      await page.waitForFunction(() => !/Being drawn/.test(document.body.innerText));
      await page.screenshot({ path: out(name) });
    };
    const asked = process.argv.slice(2);
    /** Pictures that are made together, each from the shelf on; left out where others are asked for by name. */
    const part = async (names: string[], work: () => Promise<void>) => {
      if (asked.length && !names.some((n) => asked.includes(n))) return;
      await page.goto(url);
      await work();
    };
    await part(['shelf', 'safekeeping'], async () => {
      await portraits(page);
      await shot('shelf');
      await maker.press('Safekeeping');
      await maker.sees(/Mirvak uses/);
      await shot('safekeeping');
      await maker.press('Done');
      await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
    });
    await part(['ring', 'trace'], async () => {
      await maker.press('Open Ferry ring');
      await maker.proven();
      await maker.stage('Artwork');
      await maker.press(/^FERRY/, 'treeitem');
      await shot('ring');
      // A heron's foot, drawn here, to be traced.
      await page.evaluate(async () => {
        const c = new OffscreenCanvas(900, 640);
        const g = c.getContext('2d')!;
        g.fillStyle = '#f6f3ec';
        g.fillRect(0, 0, 900, 640);
        g.strokeStyle = g.fillStyle = '#22303a';
        g.lineCap = g.lineJoin = 'round';
        const stroke = (w: number, d: string) => {
          g.lineWidth = w;
          g.stroke(new Path2D(d));
        };
        stroke(26, 'M470 40C455 150 480 250 450 400');
        stroke(22, 'M450 400C380 460 270 490 150 500');
        stroke(22, 'M450 400C440 480 430 540 400 600');
        stroke(22, 'M450 400C530 460 640 500 760 500');
        stroke(16, 'M450 400C480 350 520 330 580 320');
        g.beginPath();
        g.arc(452, 402, 30, 0, 7);
        g.fill();
        const data = new DataTransfer();
        data.items.add(new File([await c.convertToBlob()], 'heron-foot.png', { type: 'image/png' }));
        document
          .querySelector('[aria-label="Plan of the blank"]')!
          .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      });
      await maker.sees(/outlines?, \d+ nodes/);
      await shot('trace');
      await page.keyboard.press('Escape');
      await still();
    });
    await part(['lettering'], async () => {
      await maker.press('New job');
      await maker.stage('Artwork');
      await maker.press('Plan');
      await still();
      const plan = (await (await page.waitForSelector('[aria-label="Plan of the blank"] canvas'))!.boundingBox())!;
      const at = (x: number, y: number) => [plan.x + plan.width * x, plan.y + plan.height * y] as const;
      await maker.press('Draw a curve');
      for (const [a, b] of [
        [at(0.2, 0.62), at(0.3, 0.36)],
        [at(0.53, 0.5), at(0.62, 0.64)],
        [at(0.85, 0.42), at(0.9, 0.3)],
      ] as const) {
        await page.mouse.move(...a);
        await page.mouse.down();
        await page.mouse.move(...b, { steps: 4 });
        await page.mouse.up();
      }
      await page.keyboard.press('Enter');
      await maker.press('Pick and move');
      await maker.press('Lettering');
      await maker.fill('Text', 'Fenwater Reach', false);
      await maker.choose('Font', 'Libre Baskerville');
      await still();
      await page.keyboard.down('Shift');
      await maker.press(/^Line/, 'treeitem');
      await page.keyboard.up('Shift');
      await maker.press('Set letters along the line');
      await maker.choose('Letters', 'Bent');
      await shot('lettering');
    });
    await part(['relief', 'ornaments'], async () => {
      await maker.press('Open Heron medallion');
      await maker.stage('Relief');
      await maker.press('Both');
      await maker.find('button', 'Relief, ready');
      await shot('relief');
      await maker.press('Ornament');
      await maker.until(async () => (await page.$$('[role=dialog] canvas')).length > 20, 'the ornaments are carved');
      await shot('ornaments');
    });
    await part(['setups'], async () => {
      await maker.press(/^Open Keeper.s gear plate/);
      await maker.press(/^Front,/, 'tab');
      await maker.proven();
      await maker.stage('Run');
      await maker.sees(/Save the programs of all set-ups/);
      await shot('setups');
    });
    await part(['inlay'], async () => {
      await maker.press('Open Waterlily box lid');
      await maker.proven();
      await maker.stage('Proof');
      await maker.press('Both');
      await maker.sees('The plug goes all the way in');
      await maker.press('Put together');
      await page.evaluate(() =>
        document.querySelector('section[aria-label^="Fit"]')?.scrollIntoView({ block: 'center' }),
      );
      await shot('inlay');
    });
    await part(['casting'], async () => {
      await maker.press('Open Ferry token mould');
      await maker.proven();
      await maker.stage('Proof');
      await maker.sees(/Mass/);
      await page.evaluate(() =>
        document.querySelector('section[aria-label="Casting"]')?.scrollIntoView({ block: 'center' }),
      );
      await maker.press('Side by side');
      await shot('casting');
    });
    await part(['plate', 'dialect'], async () => {
      await maker.press('Open Sluice gear plate');
      await maker.proven();
      await shot('plate');
      await maker.stage('Run');
      await maker.press('Open the dialect');
      await maker.press(/^\s*16/, 'option');
      await page.evaluate(() =>
        document.querySelector('[aria-label="Trial program"]')?.scrollIntoView({ block: 'center' }),
      );
      await shot('dialect');
    });
    await part(['cuts', 'blank', 'proof', 'run', 'artwork', 'library', 'dark'], async () => {
      await maker.press('Open Lock cottage board');
      await maker.proven();
      await still();
      await maker.press(/^Cut 4: Cut free/);
      await maker.press(/^Cut 1: Lettering/);
      await shot('cuts');
      for (const [stage, name] of [
        ['Blank', 'blank'],
        ['Proof', 'proof'],
        ['Run', 'run'],
      ] as const) {
        await maker.stage(stage);
        await shot(name);
      }
      await maker.stage('Artwork');
      await maker.press(/^FENWATER/, 'treeitem');
      await shot('artwork');
      await maker.press('Tool library');
      await maker.press(/^V-bit 60° 12 mm/);
      await shot('library');
      await maker.press('Close the tool library');
      await maker.press('Dark colours');
      await maker.stage('Cuts');
      await maker.press(/^Cut 4: Cut free/);
      await shot('dark');
      await maker.press('Light colours');
    });
  } finally {
    await close();
    server.kill('SIGTERM');
  }
}

void main();
