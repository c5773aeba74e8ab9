import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Browser } from 'puppeteer-core';
import { drop } from './board';
import { openBrowser, withoutGraphics } from './browser';
import { Maker, PATIENCE } from './maker';

/** A server that hands on what the real one says, until it is stopped, and that can be of a newer make. */
async function inFront(of: string): Promise<{
  url: string;
  stop: () => Promise<void>;
  renew: () => void;
  keepBack: (what: (path: string) => boolean) => void;
}> {
  let newer = false;
  let keptBack = (_path: string): boolean => false;
  const server = http.createServer((ask, answer) => {
    const to = new URL(ask.url!, of);
    if (keptBack(to.pathname)) return void answer.destroy();
    // Whole answers, not "as before".
    const { 'if-none-match': _a, 'if-modified-since': _b, ...headers } = ask.headers;
    http
      .get(to, { headers: { ...headers, host: to.host, 'accept-encoding': 'identity' } }, (said) => {
        if (newer && to.pathname === '/offline.js') {
          const text: Buffer[] = [];
          said.on('data', (d: Buffer) => text.push(d));
          said.on('end', () => {
            const { 'content-length': _length, etag: _etag, ...rest } = said.headers;
            answer.writeHead(said.statusCode!, rest);
            answer.end(
              Buffer.concat(text)
                .toString()
                .replace(/const NAME = 'mirvak-/, '$&newer-'),
            );
          });
          return;
        }
        answer.writeHead(said.statusCode!, said.headers);
        said.pipe(answer);
      })
      .on('error', () => answer.destroy());
  });
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  return {
    url: `http://localhost:${(server.address() as AddressInfo).port}`,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((r) => server.close(r));
    },
    renew: () => (newer = true),
    keepBack: (what) => (keptBack = what),
  };
}

const SAID = 'it opens without its server';
/** A window that has been open until all is kept, with Safekeeping open, which says so. */
async function visited(browser: Browser, url: string): Promise<Maker> {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  page.setDefaultTimeout(PATIENCE);
  await page.goto(url);
  const maker = new Maker(page);
  await maker.press('Safekeeping');
  await maker.sees(SAID);
  return maker;
}

test('with its server gone every page opens, and work goes on', async () => {
  const server = await inFront(process.env.MIRVAK_URL!);
  const { browser, close } = await openBrowser(...withoutGraphics);
  try {
    const maker = await visited(browser, server.url);
    const { page } = maker;
    await server.stop();
    await expect(fetch(server.url)).rejects.toThrow();

    await page.reload();
    await maker.press('Open Ferry ring');
    // Workers come from what is kept, too.
    await maker.proven();
    await maker.stage('Proof');
    await maker.sees(/Proof of \d programs?/);
    await maker.stage('Blank');
    await maker.fill('Thickness (Z)', '16');
    await maker.saved();
    await maker.proven();
    await page.reload();
    await maker.stage('Blank');
    await maker.holds('Thickness (Z)', '16');
    await page.goto(`${server.url}/library`);
    await maker.press(/^V-bit 60/);
    await page.goto(server.url);
    await maker.press('New job');
    await maker.sees('Piece of material');
    expect(await page.$('link[rel=manifest]')).not.toBeNull();
    // What reads drawings is loaded when there is one to read.
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20">';
    await drop(page, 'plate.svg', 'image/svg+xml', `${svg}<rect width="30" height="10"/></svg>`);
    await maker.sees('"plate.svg": 1 thing');
    const circle = [0, 'SECTION', 2, 'ENTITIES', 0, 'CIRCLE', 8, 0, 10, 20, 20, 20, 40, 5, 0, 'ENDSEC', 0, 'EOF'];
    await drop(page, 'hole.dxf', '', circle.join('\n'));
    await maker.press(/^Millimetres?/);
    await maker.sees('"hole.dxf": 1 thing');
  } finally {
    await close();
  }
});

test('(long) a newer Mirvak is offered, waits while one works, and is started when asked', async () => {
  const server = await inFront(process.env.MIRVAK_URL!);
  const { browser, close } = await openBrowser(...withoutGraphics);
  try {
    const maker = await visited(browser, server.url);
    const { page } = maker;
    server.renew();
    await page.reload();
    await maker.sees('A newer Mirvak is ready');
    const kept = () => page.evaluate(() => caches.keys());
    await maker.press('Open Ferry ring');
    await maker.stage('Blank');
    await maker.fill('Thickness (Z)', '3.5');
    await maker.saved();
    await maker.press('Job shelf');
    await maker.press('Safekeeping');
    await maker.sees(SAID);
    // The old one still answers: nothing was started of itself.
    expect(await kept()).toHaveLength(2);
    // The page begins anew with it: what it knows of itself now is gone then.
    await page.evaluate(() => Object.assign(window, { before: true }));
    await maker.press('Start the newer Mirvak');
    await page.waitForFunction(() => !('before' in window));
    await maker.sees('Ferry ring');
    await maker.press('Open Ferry ring');
    await maker.stage('Blank');
    await maker.holds('Thickness (Z)', '3.5');
    await server.stop();
    await page.reload();
    await maker.stage('Blank');
    await maker.holds('Thickness (Z)', '3.5');
  } finally {
    await close();
    await server.stop().catch(() => {});
  }
});

test('where a part of the workbench does not come, the page says so and what to do', async () => {
  const server = await inFront(process.env.MIRVAK_URL!);
  const { browser, close } = await openBrowser(...withoutGraphics);
  try {
    const job = `${server.url}/job/none`;
    const first = await (await fetch(job)).text();
    server.keepBack((path) => path.startsWith('/_next/static/chunks/') && !first.includes(path));
    const page = await browser.newPage();
    page.setDefaultTimeout(PATIENCE);
    await page.goto(job);
    const maker = new Maker(page);
    await maker.sees('The workbench did not come');
    server.keepBack(() => false);
    await maker.press('Load the page anew');
    await maker.sees('This job is not on this device');
  } finally {
    await close();
    await server.stop();
  }
});
