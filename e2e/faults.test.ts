import { largeFiles, extremes } from '@/core/testing/extremes';
import { drop, emptyBoard } from './board';
import { openBrowser, withoutGraphics } from './browser';
import { eachOnAFreshDevice } from './device';
import { Maker } from './maker';
import { processesOf, saidOf } from './processes';

describe('with the plan alone', () => {
  const device = eachOnAFreshDevice();

  test('(long) reading can be stopped, what keeps a reader busy is refused in words, and the next file is read', async () => {
    const { maker } = device;
    await emptyBoard(maker);
    const big = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${Array.from({ length: 60_000 }, (_, k) => `<path d="M${k % 100} 0l1 2l3 4l1 1z" style="fill:#${(k % 4096).toString(16).padStart(3, '0')}"/>`).join('')}</svg>`;
    await drop(maker.page, 'big.svg', 'image/svg+xml', big);
    await maker.sees('Reading big.svg');
    await maker.press('Stop');
    await maker.sees('"big.svg" was not read. It was stopped.');
    for (const name of ['uses of uses that draw nothing', 'twenty thousand rules for five thousand things']) {
      const e = extremes.find((q) => q.name === name)!;
      await drop(maker.page, `busy.${e.file.slice(2)}`, '', e.text());
      await maker.sees(/"busy\.svg" was not read: .* more than \d+/);
    }
    await drop(maker.page, 'fair.dxf', '', largeFiles[0].text());
    await maker.sees('"fair.dxf": 20800 things', 60000);
  });

  test('(long) work that is stopped says so everywhere, and goes on when it is asked to', async () => {
    const { maker } = device;
    await maker.press('Open Lock cottage board');
    await maker.stage('Cuts');
    await maker.press('Stop working');
    await maker.find('button', 'Proof, needs attention');
    // The tab of the set-up, where the proof would be, and the cuts themselves; the way on stands in each sheet.
    await maker.sees('Stopped');
    await maker.sees('stopped');
    await maker.stage('Proof');
    await maker.sees('The work was stopped.');
    expect(await maker.text()).not.toContain('Working\u2026');
    await maker.press('Go on working');
    await maker.proven();
    await maker.find('button', 'Proof, ready');
  });

  test('(long) each worker may die alone: what is changed then is proven all the same', async () => {
    const { maker } = device;
    await maker.press('Open Ferry ring');
    await maker.proven();
    await maker.stage('Blank');
    const names = new Set<string>();
    let thickness = 15;
    for (const w of maker.page.workers()) {
      names.add(w.url());
      await w.close().catch(() => {});
      await maker.fill('Thickness (Z)', `${++thickness}`);
      await maker.saved();
      await maker.proven();
    }
    // The engine, those who compute, who copies.
    expect(names.size).toBeGreaterThanOrEqual(3);
    await maker.stage('Proof');
    await maker.sees('all checks pass');
  });
});

describe('with the solid', () => {
  const device = eachOnAFreshDevice({ solid: true });

  test('the solid says when what is seen is not of the last change', async () => {
    const { maker } = device;
    await maker.press('Open Sluice gear plate');
    await maker.proven();
    await maker.stage('Blank');
    await maker.press('Solid');
    const upToDate = () => maker.page.waitForFunction(() => /^Proof of \d+ program/m.test(document.body.innerText));
    await upToDate();
    // All that it says from now on is noted.
    await maker.page.evaluate(() => {
      const w = window as unknown as { said: Set<string> };
      w.said = new Set();
      new MutationObserver(() => {
        const line = document.body.innerText.split('\n').find((l) => /Proof of \d+ program/.test(l));
        if (line) w.said.add(line.replace(/Proof of.*/, ''));
      }).observe(document.body, { subtree: true, childList: true, characterData: true });
    });
    await maker.fill('Thickness (Z)', '7');
    await maker.page.waitForFunction(() =>
      [...(window as unknown as { said: Set<string> }).said].some((s) => /ing again/.test(s)),
    );
    await maker.proven();
    await upToDate();
  });

  test('(long) workers that die are replaced, and what was being worked out comes all the same', async () => {
    const { maker } = device;
    await maker.press('Open Sluice gear plate');
    await maker.proven();
    const before = maker.page.workers().length;
    for (const w of maker.page.workers()) await w.close().catch(() => {});
    await maker.stage('Blank');
    await maker.fill('Thickness (Z)', '7');
    await maker.stage('Proof');
    await maker.proven();
    await maker.sees(/Proof of \d+ program/);
    for (let i = 0; i < 100 && maker.page.workers().length < before; i++) await new Promise((r) => setTimeout(r, 100));
    expect(maker.page.workers().length).toBeGreaterThanOrEqual(2);
    await maker.page.waitForFunction(() => !/Working/.test(document.body.innerText));
  });

  test('(long) a picture of the solid that the graphics driver takes away comes back', async () => {
    const { maker } = device;
    await maker.press('Open Sluice gear plate');
    await maker.proven();
    await maker.press('Solid');
    const colours = async () => {
      const at = (await (await maker.page.waitForSelector('[aria-label="The blank in the round"]'))!.boundingBox())!;
      const png = await maker.page.screenshot({
        clip: { x: at.x + at.width / 2 - 60, y: at.y + at.height / 2 - 40, width: 120, height: 80 },
        encoding: 'base64',
      });
      return maker.page.evaluate(async (data) => {
        const b = new Image();
        b.src = `data:image/png;base64,${data}`;
        await b.decode();
        const c = new OffscreenCanvas(b.width, b.height);
        const g = c.getContext('2d')!;
        g.drawImage(b, 0, 0);
        const { data: p } = g.getImageData(0, 0, b.width, b.height);
        // Pixels that are of brass: much more red than blue.
        let n = 0;
        for (let i = 0; i < p.length; i += 4) if (p[i] > p[i + 2] + 40) n++;
        return n;
      }, png);
    };
    const drawn = async () => {
      for (let i = 0; i < 100; i++) {
        const n = await colours();
        if (n > 3000) return n;
        await new Promise((r) => setTimeout(r, 200));
      }
      return colours();
    };
    expect(await drawn()).toBeGreaterThan(3000);
    // The graphics process of this browser dies.
    const gpu = processesOf(maker.page.browser().process()!.pid!).filter((p) =>
      saidOf(p, 'cmdline').includes('--type=gpu-process'),
    );
    expect(gpu).toHaveLength(1);
    process.kill(Number(gpu[0]), 'SIGKILL');
    await maker.sees('The graphics driver took the picture away');
    await maker.page.bringToFront();
    expect(await drawn()).toBeGreaterThan(3000);
  });

  test('(long) without WebGL the proof is shown from above', async () => {
    const { browser, close } = await openBrowser(...withoutGraphics);
    try {
      const page = await browser.newPage();
      await page.setViewport({ width: 1280, height: 800 });
      await page.goto(process.env.MIRVAK_URL!);
      const maker = new Maker(page);
      await maker.press('Open Sluice gear plate');
      await maker.proven();
      await maker.press('Solid');
      await maker.sees('This is the same proof from above');
      const shades = await page.$eval(
        'canvas[aria-label="The proof from above"]',
        (c) =>
          new Set(
            (c as HTMLCanvasElement)
              .getContext('2d')!
              .getImageData(0, 0, (c as HTMLCanvasElement).width, (c as HTMLCanvasElement).height).data,
          ).size,
      );
      expect(shades).toBeGreaterThan(40);
    } finally {
      await close();
    }
  });
});
