import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Page, WebWorker } from 'puppeteer-core';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice({ solid: true });

/** In a page or worker: what a hostile script would try. Each answer says whether it got through. It is run by the page's own clock, so that its policy holds. */
const attack = (elsewhere: string): Promise<Record<string, boolean>> =>
  new Promise((done) => {
    setTimeout(() => {
      void (async () => {
        const out: Record<string, boolean> = {};
        out.fetch = await fetch(elsewhere, { mode: 'no-cors' }).then(
          () => true,
          () => false,
        );
        try {
          out.eval = (0, eval)('1 + 1') === 2;
        } catch {
          out.eval = false;
        }
        try {
          out.function = new Function('return 2')() === 2;
        } catch {
          out.function = false;
        }
        out.socket = await new Promise((answer) => {
          try {
            const s = new WebSocket(elsewhere.replace('http', 'ws'));
            s.onopen = () => answer(true);
            s.onerror = () => answer(false);
          } catch {
            answer(false);
          }
        });
        const load = (globalThis as unknown as { importScripts?: (url: string) => void }).importScripts;
        if (load)
          try {
            load(elsewhere);
            out.importScripts = true;
          } catch {
            out.importScripts = false;
          }
        done(out);
      })();
    }, 0);
  });

test('neither page nor workers reach another host, or run what is not theirs', async () => {
  const { maker } = device;
  // What is tried is seen, though it is refused.
  device.excuse(/asked http:\/\/127\.0\.0\.1/);
  let reached = 0;
  const other = http.createServer((_q, answer) => {
    reached++;
    answer.setHeader('Access-Control-Allow-Origin', '*');
    answer.setHeader('Cross-Origin-Resource-Policy', 'cross-origin');
    answer.end('globalThis.got = 1');
  });
  await new Promise<void>((up) => other.listen(0, '127.0.0.1', up));
  const elsewhere = `http://127.0.0.1:${(other.address() as AddressInfo).port}/x.js`;
  try {
    await maker.press('Open Sluice gear plate');
    await maker.proven();
    // The planner, the prover and the solid; the last may come after the proof.
    for (let i = 0; i < 200 && maker.page.workers().length < 3; i++) await new Promise((r) => setTimeout(r, 100));
    const places: (Page | WebWorker)[] = [maker.page, ...maker.page.workers()];
    // The page, the planner, the prover and the solid.
    expect(places.length).toBeGreaterThanOrEqual(4);
    for (const place of places) {
      const got = await (place as Page).evaluate(attack, elsewhere);
      expect(Object.entries(got).filter(([, through]) => through)).toEqual([]);
    }
    expect(reached).toBe(0);
    // A script tag for another host loads nothing either.
    await maker.page.evaluate((src) => {
      const s = document.createElement('script');
      s.src = src;
      document.head.append(s);
      return new Promise((done) => ((s.onload = done), (s.onerror = done)));
    }, elsewhere);
    expect(reached).toBe(0);
  } finally {
    other.close();
  }
});

test('pages come with their policies; an address that is none is not found', async () => {
  const url = process.env.MIRVAK_URL!;
  for (const path of ['/', '/library', '/job/x']) {
    const r = await fetch(url + path);
    expect(r.status).toBe(200);
    expect(r.headers.get('content-security-policy')).toMatch(/default-src 'self'/);
    expect(r.headers.get('cross-origin-embedder-policy')).toBe('require-corp');
  }
  for (const path of ['/job/%ff', '/job/%', '/%c0%ae%c0%ae/x', '/nothing'])
    expect([path, (await fetch(url + path)).status]).toEqual([path, 404]);
});
