import type { Page } from 'puppeteer-core';
import type { Maker } from '../e2e/maker';

interface Told {
  /** When the pointer moved, when a picture of the relief was painted, and when the frame with it was drawn, ms. */
  readonly moves: number[];
  readonly painted: number[];
  readonly pictures: number[];
}

/** From now on the page notes when its pointer moved, and when a picture of a relief was painted and shown. */
async function watchPictures(page: Page): Promise<void> {
  await page.evaluate(() => {
    const w = window as unknown as { __told: Told };
    w.__told = { moves: [], painted: [], pictures: [] };
    const put = CanvasRenderingContext2D.prototype.putImageData;
    CanvasRenderingContext2D.prototype.putImageData = function (this: CanvasRenderingContext2D, ...rest: unknown[]) {
      // Pictures in the sheets are smaller.
      (put as (...rest: unknown[]) => void).apply(this, rest);
      if (this.canvas.width < 150) return;
      setTimeout(() => w.__told.painted.push(performance.now()));
      requestAnimationFrame(() => setTimeout(() => w.__told.pictures.push(performance.now())));
    } as typeof put;
    document.addEventListener('pointermove', () => w.__told.moves.push(performance.now()), true);
  });
}

const forget = (page: Page): Promise<void> =>
  page.evaluate(() => {
    (window as unknown as { __told: Told }).__told = { moves: [], painted: [], pictures: [] };
  });
const told = (page: Page): Promise<Told> => page.evaluate(() => (window as unknown as { __told: Told }).__told);

const middle = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1];
const rest = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

/** A form of an open relief is dragged: how soon, and how often, its picture follows. */
export async function firstLook(page: Page, maker: Maker, form: string): Promise<void> {
  await maker.stage('Relief');
  await maker.press(form);
  await maker.press('Plan');
  await rest(1500);
  const grip = await maker.find('button', `Move ${form}`);
  const box = (await grip.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await watchPictures(page);
  await page.mouse.move(x, y);
  await page.mouse.down();
  const painted: number[] = [];
  const first: number[] = [];
  for (let i = 1; i <= 14; i++) {
    await rest(1500);
    await forget(page);
    await page.mouse.move(x + 3 * i, y - 2 * i);
    await rest(1000);
    const { moves, ...seen } = await told(page);
    // The first two warm the workers up and are not counted.
    if (i <= 2) continue;
    painted.push((seen.painted[0] ?? Infinity) - moves[0]);
    first.push((seen.pictures[0] ?? Infinity) - moves[0]);
  }
  console.log(
    `| a form moved by one step: first picture of the relief painted | ${middle(painted).toFixed(0)} ms | ${painted.map((t) => t.toFixed(0)).join(', ')} ms |`,
  );
  console.log(
    `| the same, on the screen | ${middle(first).toFixed(0)} ms | ${first.map((t) => t.toFixed(0)).join(', ')} ms |`,
  );
  await forget(page);
  for (let i = 0; i < 90; i++) {
    await page.mouse.move(x + 42 - 0.5 * i, y - 28 + 0.3 * i);
    await rest(12);
  }
  const { moves, pictures } = await told(page);
  const during = pictures.filter((t) => t <= moves.at(-1)!);
  const gaps = [moves[0], ...during, moves.at(-1)!].slice(1).map((t, i) => t - [moves[0], ...during][i]);
  console.log(
    `| the form dragged on and on, ${moves.length} steps in ${((moves.at(-1)! - moves[0]) / 1000).toFixed(1)} s: pictures meanwhile | ${during.length} | longest wait for one ${Math.max(...gaps).toFixed(0)} ms |`,
  );
  await page.mouse.up();
}
