/**
 * Measures the artwork stage on a large drawing in headless Chromium with software rendering: `npm run bench:artwork` (after
 * a build). 3,000 outlines of 50,000 nodes come in as an SVG of 5 MB; then frames are counted while the plan is zoomed,
 * moved, and 100 things are dragged; picking is timed from press to answer. A picture of 2,000 x 2,000 pixels is traced last.
 */
import { traceDefaults } from '../src/core/artwork/trace/options';
import { trace } from '../src/core/artwork/trace/trace';
import { forgetTasks, inWindow, longTasks } from './page';

const row = (what: string, figure: string, bar: string) => console.log(`| ${what} | ${figure} | ${bar} |`);

/** Rosettes in a grid, each a loop of 17 cubics with many decimals. */
function drawing(): { svg: string; nodes: number } {
  const out: string[] = [];
  let nodes = 0;
  for (let r = 0; r < 50; r++)
    for (let c = 0; c < 60; c++) {
      const [cx, cy] = [5 + c * 10, 5 + r * 10];
      const n = 17;
      let d = '';
      for (let k = 0; k <= n; k++) {
        const at = (f: number, q: number) =>
          `${(cx + q * Math.cos(((k + f) * 2 * Math.PI) / n)).toFixed(14)} ${(cy + q * Math.sin(((k + f) * 2 * Math.PI) / n)).toFixed(14)}`;
        d += k === 0 ? `M${at(0, 4)}` : `C${at(-0.66, 3)} ${at(-0.33, 3)} ${at(0, 4)}`;
      }
      out.push(`<path d="${d}Z"/>`);
      nodes += n;
    }
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="600mm" height="500mm" viewBox="0 0 600 500">${out.join('')}</svg>`,
    nodes,
  };
}

async function main(): Promise<void> {
  await inWindow(async (page, maker) => {
    await maker.press('New job');
    await maker.sees('Piece of material');
    await maker.fill('Width (X)', '620');
    await maker.fill('Height (Y)', '520');
    await maker.stage('Artwork');
    await page.waitForSelector('[aria-label="Plan of the blank"] canvas');
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement)?.blur());
    await page.keyboard.press('1');
    await new Promise((r) => setTimeout(r, 1500));
    console.log('| work | measured | bar |\n| --- | --- | --- |');

    const { svg, nodes } = drawing();
    // The text comes into the page first: that is the bench's own work, not the app's.
    await page.evaluate((text) => {
      (window as unknown as { __file: File }).__file = new File([text], 'rosettes.svg', { type: 'image/svg+xml' });
    }, svg);
    await new Promise((r) => setTimeout(r, 800));
    await forgetTasks(page);
    const begun = Date.now();
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.items.add((window as unknown as { __file: File }).__file);
      document
        .querySelector('[aria-label="Plan of the blank"]')!
        .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    });
    await maker.sees('3000 things', 60000);
    const took = Date.now() - begun;
    await new Promise((r) => setTimeout(r, 2500));
    const tasks = await longTasks(page);
    row(
      `SVG of ${(svg.length / 1e6).toFixed(1)} MB, 3,000 outlines of ${nodes} nodes, until it is on the table`,
      `${took} ms; longest block of the page ${Math.max(0, ...tasks).toFixed(0)} ms`,
      '3 s, no block',
    );

    const box = (await (await page.$('[aria-label="Plan of the blank"] canvas'))!.boundingBox())!;
    const mid = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    await page.keyboard.press('Escape');
    const frames = async (work: () => Promise<void>): Promise<number> => {
      await page.evaluate(() => {
        const w = window as unknown as { __frames: number[]; __run: boolean };
        w.__frames = [];
        w.__run = true;
        const tick = (t: number) => {
          w.__frames.push(t);
          if (w.__run) requestAnimationFrame(tick);
        };
        requestAnimationFrame(tick);
      });
      await work();
      const f = await page.evaluate(() => {
        const w = window as unknown as { __frames: number[]; __run: boolean };
        w.__run = false;
        return w.__frames;
      });
      return ((f.length - 1) * 1000) / (f[f.length - 1] - f[0]);
    };
    const zoom = await frames(async () => {
      await page.mouse.move(mid.x, mid.y);
      for (let i = 0; i < 60; i++) await page.mouse.wheel({ deltaY: i < 30 ? -60 : 60 });
    });
    row('zooming, all in view and closer, frames a second', zoom.toFixed(0), '30');
    const pan = await frames(async () => {
      await page.mouse.move(mid.x, mid.y);
      await page.mouse.down({ button: 'middle' });
      for (let i = 0; i < 60; i++) await page.mouse.move(mid.x + 3 * i, mid.y + 2 * (i % 20));
      await page.mouse.up({ button: 'middle' });
    });
    row('moving the view, all in sight, frames a second', pan.toFixed(0), '30');
    await page.keyboard.press('0');
    await new Promise((r) => setTimeout(r, 600));
    const picks = await page.evaluate(
      (x, y) => {
        const el = document.querySelector('[aria-label="Plan of the blank"]')!;
        const times: number[] = [];
        for (let i = 0; i < 40; i++) {
          const at = { clientX: x + 7 * (i % 10), clientY: y + 5 * (i % 7), bubbles: true, pointerId: 1, button: 0 };
          const t = performance.now();
          try {
            el.dispatchEvent(new PointerEvent('pointerdown', at));
          } catch {
            // A made-up pointer cannot be captured; the pick is done by then.
          }
          times.push(performance.now() - t);
          el.dispatchEvent(new PointerEvent('pointerup', at));
        }
        return times.sort((a, b) => a - b);
      },
      mid.x,
      mid.y,
    );
    row(
      'picking one of 3,000, press to answer, median and worst of 40',
      `${picks[20].toFixed(1)} ms, ${picks[39].toFixed(1)} ms`,
      '10 ms',
    );
    await page.keyboard.press('Escape');
    // The file came in as one group: taken apart, so that a box picks some of it.
    await page.keyboard.press('Escape');
    await maker.chord('Control', 'KeyA');
    await maker.chord('Shift', 'KeyG');
    await new Promise((r) => setTimeout(r, 1500));
    await page.keyboard.press('Escape');
    await new Promise((r) => setTimeout(r, 1500));
    await page.evaluate(() => (document.activeElement as HTMLElement)?.blur());
    await page.mouse.move(box.x + 30, box.y + 30);
    const k = Math.min((box.width - 74) / 620, (box.height - 74) / 520);
    const corner = { x: mid.x + 11 - 310 * k, y: mid.y + 11 + 260 * k };
    await page.mouse.move(corner.x - 6, corner.y + 6);
    await page.mouse.down();
    await page.mouse.move(corner.x + 110 * k, corner.y - 110 * k, { steps: 4 });
    await page.mouse.up();
    await maker.sees(/\d+ items picked/);
    const picked = await page.evaluate(() => /(\d+) items picked/.exec(document.body.innerText)?.[1]);
    const drag = await frames(async () => {
      await page.mouse.move(corner.x + 55 * k, corner.y - 55 * k);
      await page.mouse.down();
      for (let i = 0; i < 50; i++) await page.mouse.move(corner.x + 55 * k + 2 * i, corner.y - 55 * k - i);
      await page.mouse.up();
    });
    row(`dragging what a box had picked (${picked}), frames a second`, drag.toFixed(0), 'smooth');
  });
  const W = 2000;
  const rgba = new Uint8ClampedArray(4 * W * W).fill(255);
  for (let y = 0; y < W; y++)
    for (let x = 0; x < W; x++) {
      const v = Math.sin(x / 31 + Math.sin(y / 83)) * Math.cos(y / 37) * 4 - 0.6;
      const i = 4 * (y * W + x);
      rgba[i] = rgba[i + 1] = rgba[i + 2] = Math.round(255 * Math.min(1, Math.max(0, 0.5 - v * 2)));
    }
  const times: number[] = [];
  let nodes = 0;
  for (let n = 0; n < 3; n++) {
    const t = performance.now();
    nodes = trace({ width: W, height: W, rgba }, traceDefaults)[0].paths.reduce((m, p) => m + p.segments.length, 0);
    times.push(performance.now() - t);
  }
  row(
    `tracing 2,000 x 2,000 pixels (${nodes} nodes come out), one thread`,
    `${times.sort((a, b) => a - b)[1].toFixed(0)} ms`,
    '2 s',
  );
}

void main();
