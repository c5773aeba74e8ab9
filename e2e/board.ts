import type { Page } from 'puppeteer-core';
import type { Maker } from './maker';

/** Lets a file fall on the plan, as from a folder of the desktop. */
export async function drop(page: Page, name: string, type: string, content: string, base64 = false): Promise<void> {
  await page.waitForSelector('[aria-label="Plan of the blank"] canvas');
  await page.evaluate(
    (n, t, c, coded) => {
      const data = new DataTransfer();
      data.items.add(new File([coded ? Uint8Array.from(atob(c), (q) => q.charCodeAt(0)) : c], n, { type: t }));
      const plan = document.querySelector('[aria-label="Plan of the blank"]')!;
      for (const kind of ['dragover', 'drop'])
        plan.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
    },
    name,
    type,
    content,
    base64,
  );
}

/** Waits until everything lies on the plan. */
export const drawn = (maker: Maker) => maker.page.waitForSelector('[aria-label="Plan of the blank"][aria-busy=false]');

/** Waits until the picture of the plan stands still: drawn, and fitted to the blank. */
export async function still(maker: Maker): Promise<void> {
  await drawn(maker);
  await maker.rests(() =>
    maker.page.$eval('[aria-label="Plan of the blank"] canvas', (e) => {
      const c = e as HTMLCanvasElement;
      const { data } = c.getContext('2d')!.getImageData(0, 0, c.width, c.height);
      let sum = 0;
      for (let i = 0; i < data.length; i++) sum = (Math.imul(sum, 31) + data[i]) | 0;
      return [c.width, c.height, sum];
    }),
  );
}

/** Places on the plan by share of its width and height. */
export async function planOf(maker: Maker): Promise<(x: number, y: number) => [number, number]> {
  await drawn(maker);
  const b = (await (await maker.page.waitForSelector('[aria-label="Plan of the blank"] canvas'))!.boundingBox())!;
  return (x, y) => [b.x + b.width * x, b.y + b.height * y];
}

/** A job with nothing drawn; on a small blank, where a size is given, proofs take less time. */
export async function emptyBoard(maker: Maker, size?: readonly [width: string, height: string]): Promise<void> {
  await maker.press('New job');
  await maker.sees('Piece of material');
  if (size) {
    await maker.fill('Width (X)', size[0]);
    await maker.fill('Height (Y)', size[1]);
  }
  await maker.stage('Artwork');
  await maker.sees('Nothing drawn yet');
  await still(maker);
}

/**
 * Changes one field in two windows of a job at once, so that one of them is asked whose counts. On a busy device one may have
 * followed the other before its own key arrives: then both change it anew. Gives the window that is asked, what it has entered
 * itself, and what the other one has.
 */
export async function changedAtOnce(
  a: Maker,
  b: Maker,
  label: string,
  first: number,
): Promise<{ late: Maker; own: string; other: string }> {
  for (let tries = 0; tries < 6; tries++) {
    const [mine, theirs] = [String(first + 2 * tries), String(first + 2 * tries + 1)];
    await a.fill(label, mine, false);
    await b.fill(label, theirs, false);
    await Promise.all([a, b].map((m) => m.page.keyboard.press('Enter')));
    const late = await Promise.any(
      [a, b].map((m) => m.sees('The same thing was changed here and in another window', 6000).then(() => m)),
    ).catch(() => null);
    if (late) return late === a ? { late, own: mine, other: theirs } : { late, own: theirs, other: mine };
  }
  throw new Error('Two windows were never asked whose change counts.');
}

/** Heights of the relief: lowest and highest, as the gauge says them. */
export const heights = (maker: Maker) =>
  maker.page.$eval('svg[aria-label^="Relief from"]', (e) =>
    (e.getAttribute('aria-label')!.match(/-?[\d.]+/g) ?? []).slice(0, 2).map(Number),
  );

/** Height of the relief once it is shaped at all of its nodes: until then it cannot be saved, and shows that of fewer nodes. */
export async function shapedHeight(maker: Maker): Promise<number> {
  await maker.page.waitForFunction(() => {
    const b = document.querySelector<HTMLButtonElement>('[aria-label="Export as STL"]');
    return b && !b.disabled;
  });
  return maker.restsAt('Relief height');
}
