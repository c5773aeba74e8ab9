import path from 'node:path';
import { openBrowser } from './browser';
import { Maker } from './maker';
import { startServer } from './server.mjs';

const out = (name: string) => path.join('docs/screenshots', `${name}.png`) as `${string}.png`;

async function main(): Promise<void> {
  const { url, server } = await startServer();
  const { browser, close } = await openBrowser();
  try {
    const page = await browser.newPage();
    // The bundler names functions by a helper that the page does not have.
    await page.evaluateOnNewDocument('window.__name = (f) => f');
    await page.setViewport({ width: 1280, height: 800 });
    await page.goto(url);
    const maker = new Maker(page);
    const still = () => new Promise((r) => setTimeout(r, 2600));
    const shot = async (name: string) => {
      await still();
      await page.screenshot({ path: out(name) });
    };
    await maker.press(/Open Keeper/);
    await maker.proven();
    await shot('plate');
    await page.goto(url);
    await maker.press('Open Lock cottage board');
    await maker.proven();
    await still();
    await maker.press(/^Cut 3: Cut free/);
    await maker.press(/^Cut 1: Lettering/);
    await shot('cuts');
    for (const [stage, name] of [['Blank', 'blank'], ['Proof', 'proof'], ['Run', 'run']] as const) {
      await maker.stage(stage);
      await shot(name);
    }
    await maker.stage('Artwork');
    await maker.press(/^FENWATER/, 'option');
    await shot('artwork');
    await maker.press('Tool library');
    await maker.press(/^V-bit 60° 12 mm/);
    await shot('library');
    await maker.press('Close the tool library');
    await maker.press('Dark colours');
    await maker.stage('Cuts');
    await maker.press(/^Cut 3: Cut free/);
    await shot('dark');
    await maker.press('Light colours');
    await page.goto(url);
    await maker.sees('Lock cottage board');
    await shot('shelf');
  } finally {
    await close();
    server.kill('SIGTERM');
  }
}

void main();
